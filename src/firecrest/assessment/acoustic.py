"""What a box asks of its parts per unit input, and what these bear."""

from collections.abc import Sequence

import numpy as np

from firecrest.assessment.lower import inputs
from firecrest.assessment.network import BoxModel
from firecrest.assessment.openings import kind_of_opening
from firecrest.assessment.sound import Scene, whole_pressure
from firecrest.assessment.wiring import Wiring
from firecrest.core.acoustics.openings.flow import Flow
from firecrest.core.arrays import Complex, Real, mixed
from firecrest.core.circuit.elements import Network
from firecrest.core.circuit.solution import Solution
from firecrest.core.limits.draw import Output
from firecrest.core.limits.elements import Ratings, Transfers
from firecrest.core.limits.material import PEAK
from firecrest.design.brief import Edges
from firecrest.design.outputs import Carried
from firecrest.design.voice import Channel


def _edit_grid() -> Real:
    grid = np.concatenate([np.geomspace(10, 1000, 241), np.geomspace(1000, 20000, 61)[1:]])
    grid.flags.writeable = False
    return grid


EDIT_GRID = _edit_grid()
"""241 points from 10 Hz to 1 kHz (120 a decade), 60 more to 20 kHz: of every assessment."""


def transfers_from(scene: Scene, rows: Sequence[Complex], outputs: Sequence[int]) -> Transfers:
    """Transfers per unit input of a solved box played through chains with ``rows``."""
    network, solution, frequency = scene.model.network, scene.solution, scene.frequency
    voices = [row[..., -1, :] for row in rows]
    integrated = [voice / (2j * np.pi * frequency) for voice in voices]
    current = tuple(mixed(i, voices) for i in solution.current)
    played = tuple(
        Output(voice, mixed(solution.output_current[k], voices), outputs[k])
        for k, voice in enumerate(voices)
    )
    return Transfers(
        frequency,
        whole_pressure(scene, voices),
        played,
        tuple(np.abs(row) for row in rows),
        current,
        tuple(mixed(v, integrated) for v in solution.velocity),
        opening_motions(network, solution, voices),
    )


def opening_motions(
    network: Network, solution: Solution, voices: Sequence[Complex]
) -> tuple[Complex, ...]:
    """Travel of each radiator, air speed of each port, per unit input."""
    integrated = [voice / (2j * np.pi * solution.frequency) for voice in voices]
    flows = zip(solution.opening_flow, solution.opening_intake, strict=True)
    return tuple(
        element.motion(Flow(out, into, voices, integrated))
        for element, (out, into) in zip(network.openings, flows, strict=True)
    )


def ratings_of(
    box: inputs.Elements,
    wiring: Wiring,
    channels: tuple[Channel, ...],
    power: inputs.Power,
    carried: tuple[Carried, ...],
    model: BoxModel,
    edges: Edges,
) -> Ratings:
    """What the parts bear; None where it is not known."""
    drivers = [box.groups[k].driver for k in model.owners]
    openings = [(kind_of_opening(item), item) for item in box.openings]
    gains = [10 ** (power.amplifiers[board].gain / 20) for board, _, _ in carried]
    return Ratings(
        tuple(d.xmax for d in drivers),
        tuple(d.pe for d in drivers),
        tuple(d.constants.r_e for d in drivers if d.constants is not None),
        tuple(kind.rating(box, wiring, o) for kind, o in openings),
        tuple(kind.limit for kind, _ in openings),
        tuple(c.limiter for c in channels),
        tuple(PEAK * power.dsp.full_scale * gain for gain in gains),
        10 ** (power.dsp.headroom / 20),
        tuple(kind.growing(o) if edges.turbulence else None for kind, o in openings),
        tuple(c.limiter_rms for c in channels),
    )
