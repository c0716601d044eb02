"""Mouths of ports: where air that flows fast loses pressure to turbulence, with the speed itself.

The loss at a mouth of a held sine is a resistance that grows with the flow through it (harmonic
balance), so a box of ports is linear but for a few pressures: one at each mouth, against the flow.
The network is solved once with a unit of pressure at each mouth beside the channels; from then on
every level of drive is a small equation in the flows alone.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np

from firecrest.core.acoustics.openings import OUTSIDE, Port
from firecrest.core.acoustics.openings.port import turbulent_resistance
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.circuit.elements import Network

CLOSE = 3e-6
"""Share to which flows agree with the resistance that they make."""
MOST_STEPS = 60
LEAST = 1e-300
"""Stands for no flow, so that logarithms stay numbers."""


@dataclass(frozen=True)
class Mouth:
    """One end of an opening of the network, the near one or the ``far`` one.

    ``resistance`` is what it loses by per flow of one port: Pa s/m3 for each m3/s rms.
    """

    opening: int
    far: bool
    resistance: Number


def mouths_of(
    network: Network, coefficients: Sequence[Number | None], air: Air
) -> tuple[Mouth, ...]:
    """The mouths of all ports; ``coefficients`` (pressure lost over rho v^2/2) for each opening.

    A lump of air moves as one and has a single mouth; a pipe has one at each end, with half each.
    """
    found: list[Mouth] = []
    for k, (element, lost) in enumerate(zip(network.openings, coefficients, strict=True)):
        if not isinstance(element, Port) or lost is None:
            continue
        speed = sqrt(2.0) / element.area
        whole = turbulent_resistance(np.asarray(speed), element.area, lost, air)
        if element.pipe is None:
            found.append(Mouth(k, False, whole))
        else:
            found += [Mouth(k, False, 0.5 * whole), Mouth(k, True, 0.5 * whole)]
    return tuple(found)


def pushed(network: Network, mouth: Mouth, own: Complex, through: Complex) -> dict[int, Complex]:
    """What a pascal outwards at a mouth of every port of a kind drives into each chamber.

    ``own`` and ``through`` are the admittances of all of them.
    """
    element = network.openings[mouth.opening]
    near, far = (through, own) if mouth.far else (own, through)
    ends = {element.chamber: -near, element.opens_to: far}
    ends.pop(OUTSIDE, None)
    return ends


def settled(flow: Complex, answer: Complex, mouths: Sequence[Mouth]) -> Complex:
    """Flows of one port at each mouth, m3/s rms (M, ..., F), that make their own resistance.

    ``flow`` is that without any loss, ``answer`` (M, M, ..., F) the flow at one mouth per pascal
    outwards at another. Solves (1 + Y R(|Q|)) Q = Q0, R = r |Q|: each step solves for Q and moves
    every ln|Q| as Newton's rule for that mouth alone has it, exact where there is one mouth. What
    has settled stays, so that no design or frequency depends on its neighbours.
    Source: harmonic balance as in ``turbulent_resistance``; the iteration is our own.
    """
    each = range(len(mouths))
    ohms = [mouth.resistance for mouth in mouths]
    own = [answer[k, k] * ohms[k] for k in each]
    size = [_about(np.abs(flow[k]), np.abs(own[k])) for k in each]
    whole = flow
    for _ in range(MOST_STEPS):
        whole = opposed(flow, answer, [ohms[k] * size[k] for k in each])
        apart = [np.log(np.maximum(np.abs(whole[k]), LEAST) / size[k]) for k in each]
        moving = np.max(np.abs(apart), axis=0) >= CLOSE
        if not moving.any():
            break
        for k in each:
            lost = own[k] * size[k]
            step = apart[k] / (1.0 + np.real(lost / (1.0 + lost)))
            size[k] = size[k] * np.exp(np.where(moving, step, 0.0))
    return whole


def _about(still: Real, own: Real) -> Real:
    """Where to begin: all of the flow, or what is left of it where loss is nearly all there is."""
    still = np.maximum(still, LEAST)
    return np.asarray(np.minimum(still, np.sqrt(still / np.maximum(own, LEAST))))


def opposed(flow: Complex, answer: Complex, resistance: Sequence[Real]) -> Complex:
    """Flows (M, ..., F) with a resistance against each: (1 + Y R) Q = Q0, by hand up to two."""
    each = range(len(flow))
    lost = [[answer[j, k] * resistance[k] for k in each] for j in each]
    if len(flow) == 1:
        return np.asarray(flow[0] / (1.0 + lost[0][0]))[None]
    if len(flow) == 2:
        first, second = 1.0 + lost[0][0], 1.0 + lost[1][1]
        whole = 1.0 / (first * second - lost[0][1] * lost[1][0])
        one = (second * flow[0] - lost[0][1] * flow[1]) * whole
        return np.stack([one, (first * flow[1] - lost[1][0] * flow[0]) * whole])
    shape = np.broadcast_shapes(*(np.shape(lost[j][k]) for j in each for k in each))
    matrix = np.empty((*shape, len(flow), len(flow)), dtype=np.complex128)
    for j in each:
        for k in each:
            matrix[..., j, k] = lost[j][k] + (j == k)
    right = np.stack([np.broadcast_to(q, shape) for q in flow], axis=-1)[..., None]
    return np.moveaxis(np.linalg.solve(matrix, right)[..., 0], -1, 0)
