"""What a box plays: voices, the solved network mixed through them, and what its parts bear."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from firecrest.assessment.cabinet import Wiring, cone_count
from firecrest.assessment.lower import inputs, travel_follows
from firecrest.assessment.network import BoxModel, RadiatorConstants
from firecrest.core.acoustics.network import Solution, SoundSource, output_current, sources
from firecrest.core.acoustics.ports import SPEED_LIMITS
from firecrest.core.acoustics.radiation import Surroundings, from_place, heard
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real, positive
from firecrest.core.limits.draw import Output
from firecrest.core.limits.elements import Ratings, Transfers
from firecrest.core.voice.chain import Filter, chain_responses
from firecrest.design.box import Port
from firecrest.design.voice import Block, Channel

SQRT2 = float(np.sqrt(2.0))
TRAVEL_RULE = 2.0
"""Radiator travel not known: its displacement is taken as this many times the drivers'."""


def _edit_grid() -> Real:
    grid = np.concatenate([np.geomspace(10, 1000, 241), np.geomspace(1000, 20000, 61)[1:]])
    grid.flags.writeable = False
    return grid


EDIT_GRID = _edit_grid()
"""241 points from 10 Hz to 1 kHz (120 a decade), 60 more to 20 kHz: of every assessment."""


def filter_of(block: Block) -> Filter:
    """A voice block as plain numbers."""
    return Filter(
        block.kind,
        block.frequency,
        getattr(block, "gain", 0.0),
        getattr(block, "q", 1.0),
        getattr(block, "family", "butterworth"),
        getattr(block, "order", 2),
    )


def voice_rows(channel: Channel, rate: Number, frequency: Real) -> Complex:
    """Response at the input and after each block of one chain."""
    blocks = [filter_of(block) for block in channel.blocks]
    return chain_responses(channel.gain, channel.inverted, blocks, frequency, rate)


def placed_sources(
    model: BoxModel, solution: Solution, distance: Number, air: Air
) -> list[SoundSource]:
    """Everything that radiates, each with what its place does to its share of the sum."""
    found = sources(model.network, solution.velocity, solution.port_flow, solution.radiator_flow)
    if model.places is None:
        return found
    return [
        replace(
            s,
            flow=s.flow
            * from_place(solution.frequency, getattr(model.places, s.kind)[s.index], distance, air),
        )
        for s in found
    ]


def whole_flow(
    model: BoxModel, solution: Solution, distance: Number, air: Air, *, leaks: bool | None = None
) -> Complex:
    """Flow that the listener hears, per volt of each channel, (channels, ..., F).

    Leaks count unless no cone faces outside, or as ``leaks`` says.
    """
    flow = solution.radiated
    if model.places is not None:
        placed = placed_sources(model, solution, distance, air)
        flow = np.sum(np.broadcast_arrays(flow * 0, *(s.flow for s in placed)), axis=0)
    counted = model.network.leaks_count if leaks is None else leaks
    return flow + solution.leaked if counted else flow


def _mixed(values: Sequence[Complex], voices: Sequence[Complex]) -> list[Complex]:
    """Answers to all channels played together: sum over channels of voice times answer."""
    return [sum(h * v for h, v in zip(voices, value, strict=True)) for value in values]


def transfers_from(
    model: BoxModel,
    solution: Solution,
    rows: Sequence[Complex],
    outputs: Sequence[int],
    around: Surroundings,
    air: Air,
) -> Transfers:
    """Transfers per unit input of a solved network played through chains with ``rows``."""
    network, frequency = model.network, solution.frequency
    voices = [row[..., -1, :] for row in rows]
    jw = 2j * np.pi * frequency
    (flow_mixed,) = _mixed([whole_flow(model, solution, around.distance, air)], voices)
    current = _mixed(solution.current, voices)
    velocity = _mixed(solution.velocity, voices)
    moved = [
        f / (jw * r.area)
        for f, r in zip(_mixed(solution.radiator_flow, voices), network.radiators, strict=True)
    ]
    out, into = _mixed(solution.port_flow, voices), _mixed(solution.port_intake, voices)
    speed = [
        (f if p.pipe is None else np.maximum(np.abs(f), np.abs(g))) / p.area
        for f, g, p in zip(out, into, network.ports, strict=True)
    ]
    played = tuple(
        Output(voice, output_current(network, tuple(current), k), outputs[k])
        for k, voice in enumerate(voices)
    )
    return Transfers(
        frequency,
        heard(flow_mixed, frequency, around, air),
        played,
        tuple(np.abs(row) for row in rows),
        tuple(current),
        tuple(v / jw for v in velocity),
        tuple(moved),
        tuple(speed),
    )


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
        SQRT2 * power.dsp.full_scale * gain,
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
