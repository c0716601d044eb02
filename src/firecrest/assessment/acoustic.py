"""What a box asks of its parts per unit input, and what these bear."""

from collections.abc import Sequence

import numpy as np

from firecrest.assessment.cabinet import Wiring, cone_count
from firecrest.assessment.lower import inputs, travel_follows
from firecrest.assessment.network import BoxModel, RadiatorConstants
from firecrest.assessment.sound import Scene, mixed, whole_pressure
from firecrest.core.acoustics.ports import SPEED_LIMITS
from firecrest.core.arrays import Complex, Number, Real, positive
from firecrest.core.circuit.elements import Port as PortModel
from firecrest.core.circuit.solve import Solution
from firecrest.core.limits.draw import PEAK, Output
from firecrest.core.limits.elements import Ratings, Transfers
from firecrest.design.box import Port
from firecrest.design.voice import Channel

TRAVEL_RULE = 2.0
"""Radiator travel not known: its displacement is taken as this many times the drivers'."""


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
    moved = tuple(
        mixed(u, integrated) * (1.0 / r.area)
        for u, r in zip(solution.radiator_flow, network.radiators, strict=True)
    )
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
        moved,
        tuple(_port_speed(solution, k, port, voices) for k, port in enumerate(network.ports)),
    )


def _port_speed(
    solution: Solution, place: int, port: PortModel, voices: Sequence[Complex]
) -> Complex:
    """Speed of the air in a port, m/s; of a pipe at the end where it is higher."""
    out = mixed(solution.port_flow[place], voices)
    if port.pipe is None:
        return np.asarray(out / port.area)
    into = mixed(solution.port_intake[place], voices)
    return np.asarray(np.maximum(np.abs(out), np.abs(into)) / port.area)


def ratings_of(
    box: inputs.Elements,
    wiring: Wiring,
    channels: tuple[Channel, ...],
    power: inputs.Power,
    model: BoxModel,
) -> Ratings:
    """What the parts bear; None where it is not known."""
    drivers = [box.groups[k].driver for k in model.owners]
    gain = 10 ** (power.amplifier.gain / 20)
    return Ratings(
        tuple(d.xmax for d in drivers),
        tuple(d.pe for d in drivers),
        tuple(d.constants.r_e for d in drivers if d.constants is not None),
        tuple(
            _radiator_travel(item, constants, box, wiring)
            for item, constants in zip(box.radiators, model.radiators, strict=True)
        ),
        tuple(port_speed_limit(p) for p in box.ports),
        tuple(c.limiter for c in channels),
        PEAK * power.dsp.full_scale * gain,
    )


def port_speed_limit(port: Port) -> Number:
    """Stated or estimated limit of the air speed, peak m/s."""
    return SPEED_LIMITS[port.edges] if port.speed_limit is None else port.speed_limit


def _radiator_travel(
    item: inputs.Radiators, constants: RadiatorConstants, box: inputs.Elements, wiring: Wiring
) -> Number | None:
    """Travel less sag in m; where it is not stated, from what the drivers around can displace."""
    travel = item.radiator.xmax
    if travel is None:
        if not travel_follows(box, item):
            return None
        travel = TRAVEL_RULE * _swept(box, item.chamber, wiring) / _radiator_area(box, item.chamber)
    return positive(travel - constants.sag)


def _swept(box: inputs.Elements, chamber: str, wiring: Wiring) -> Number:
    """Air in m3 that the drivers around a chamber displace one way."""
    return sum(
        g.driver.xmax * g.driver.constants.s_d * cone_count(g, wiring)
        for g in box.groups
        if chamber in (g.chamber, g.front) and g.driver.xmax is not None and g.driver.constants
    )


def _radiator_area(box: inputs.Elements, chamber: str) -> Number:
    """Area in m2 of all radiators of a chamber."""
    own = [r for r in box.radiators if r.chamber == chamber and r.radiator.sd is not None]
    return sum(r.count * r.radiator.sd for r in own if r.radiator.sd is not None)
