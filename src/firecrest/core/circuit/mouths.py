"""Mouths of openings: where a pressure may act on what flows through.

At a port's mouth fast air loses pressure to turbulence; on a radiator a bent suspension pushes
back. The loss of a held sine is a resistance that grows with the flow (harmonic balance).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np

from firecrest.core.acoustics.openings import OUTSIDE, Port
from firecrest.core.acoustics.openings.port import turbulent_resistance
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number
from firecrest.core.circuit.elements import Network


@dataclass(frozen=True)
class Mouth:
    """One end of an opening of the network, the near one or the ``far`` one.

    ``resistance`` is what a port loses by per flow of one: Pa s/m3 for each m3/s rms.
    """

    opening: int
    far: bool
    resistance: Number = 0.0


def mouths_of(
    network: Network, coefficients: Sequence[Number | None], air: Air
) -> tuple[Mouth, ...]:
    """The mouths of all ports; ``coefficients`` (pressure lost over rho v^2/2) for each opening.

    A lump of air moves as one and has a single mouth. A pipe between chambers has one at each end,
    with half each; one that leads outside has all at its inner end, whose flow is within some 2 %
    of that of the other where it is fast.
    """
    found: list[Mouth] = []
    for k, (element, lost) in enumerate(zip(network.openings, coefficients, strict=True)):
        if not isinstance(element, Port) or lost is None:
            continue
        speed = sqrt(2.0) / element.area
        whole = turbulent_resistance(np.asarray(speed), element.area, lost, air)
        if element.pipe is None or element.opens_to == OUTSIDE:
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
