"""The acoustic and electrical stages of an assessment: solution, transfers, limits, ceiling."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.cabinet import CabinetResult, wiring_of
from firecrest.assessment.electrical import amplifier_model, source_at
from firecrest.assessment.figures import wired_driver
from firecrest.assessment.lowering import (
    TRAVEL_BAND,
    BoxModel,
    air_of,
    box_model,
    filter_of,
    port_speed_limit,
    programme_of,
    radiator_travel,
    surroundings_of,
)
from firecrest.assessment.memo import stage
from firecrest.core.acoustics.network import Solution, SoundSource, output_current, solve, sources
from firecrest.core.acoustics.radiation import Surroundings, from_place, heard
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.limits.ceiling import Ceiling, ceiling
from firecrest.core.limits.draw import Output
from firecrest.core.limits.elements import Ratings, Transfers, all_limits
from firecrest.core.power.source import Source
from firecrest.core.voice.chain import chain_responses
from firecrest.design.box import DriverGroup, Port, RadiatorSet
from firecrest.design.brief import Listening
from firecrest.design.design import Design
from firecrest.design.power import Pack, Power
from firecrest.design.voice import Channel

SQRT2 = float(np.sqrt(2.0))


def _edit_grid() -> Real:
    grid = np.concatenate([np.geomspace(10, 1000, 241), np.geomspace(1000, 20000, 61)[1:]])
    grid.flags.writeable = False
    return grid


EDIT_GRID = _edit_grid()
"""241 points from 10 Hz to 1 kHz (120 a decade), 60 more to 20 kHz: of every assessment."""


def model_of(design: Design, cabinet: CabinetResult) -> BoxModel:
    """The network of a design's box."""
    box = design.box
    return box_model(
        box.chambers,
        box.groups,
        box.radiators,
        box.ports,
        wiring_of(design.voice.channels),
        cabinet.air,
        air_of(design.brief.conditions),
    )


@stage
def solution_of(model: BoxModel, frequency: Real) -> Solution:
    """The solved network, per volt of each channel."""
    return solve(model.network, frequency)


@stage
def voice_rows(channel: Channel, rate: float, frequency: Real) -> Complex:
    """Response at the input and after each block of one chain."""
    blocks = [filter_of(block) for block in channel.blocks]
    return chain_responses(channel.gain, channel.inverted, blocks, frequency, rate)


def around_of(design: Design) -> Surroundings:
    """What stands around a design's box; its front is as wide as its shorter side."""
    case = design.box.case
    width = min(case.length, case.height)
    return surroundings_of(design.brief.listening, width, air_of(design.brief.conditions))


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


@stage
def transfers_of(
    model: BoxModel,
    solution: Solution,
    channels: tuple[Channel, ...],
    rate: float,
    around: Surroundings,
    air: Air,
) -> Transfers:
    """Transfers of a design per unit input, after its voice."""
    rows = [voice_rows(channel, rate, solution.frequency) for channel in channels]
    return transfers_from(model, solution, rows, [c.outputs for c in channels], around, air)


@dataclass(frozen=True)
class Gaps:
    """Figures that are missing, as sentences, and those that are estimates, with their band."""

    missing: tuple[str, ...]
    estimates: tuple[str, ...]


@stage
def ratings_of(
    groups: tuple[DriverGroup, ...],
    radiators: tuple[RadiatorSet, ...],
    ports: tuple[Port, ...],
    channels: tuple[Channel, ...],
    power: Power,
    model: BoxModel,
) -> tuple[Ratings, Gaps]:
    """What the parts bear, and which of it is not known."""
    missing, estimates = [], []
    wired = [wired_driver(g.driver, g.coils) for g in groups]
    drivers = [wired[k] for k in model.owners]
    for driver in wired:
        for value, symbol in ((driver.part.xmax, "Xmax"), (driver.pe, "the rated power")):
            if value is None:
                missing.append(f"needs {symbol} of {driver.part.name}")
    travel = []
    for item, constants in zip(radiators, model.radiators, strict=True):
        value, estimated = radiator_travel(
            item, constants.sag, groups, radiators, wiring_of(channels)
        )
        travel.append(value)
        name = item.radiator.name
        if value is None:
            missing.append(f"needs Xmax of {name}")
        elif estimated:
            estimates.append(f"Travel of {name}: estimated, ±{100 * TRAVEL_BAND:.0f} %")
    missing += _source_gaps(power)
    gain = 10 ** (power.amplifier.gain / 20)
    ratings = Ratings(
        tuple(d.part.xmax for d in drivers),
        tuple(d.pe for d in drivers),
        tuple(d.derivation.figures["re"] for d in drivers),
        tuple(travel),
        tuple(port_speed_limit(p) for p in ports),
        tuple(c.limiter for c in channels),
        SQRT2 * power.dsp.full_scale * gain,
    )
    return ratings, Gaps(tuple(missing), (*estimates, *_estimates(power, ports)))


def _source_gaps(power: Power) -> list[str]:
    """Source limits that are not known."""
    source = power.source
    missing = []
    if isinstance(source, Pack):
        if source.cell.max_current is None:
            missing.append(f"needs the current limit of {source.cell.name}")
        if source.board is not None and source.board.max_current is None:
            missing.append("needs the current limit of the protection board")
    if power.converter is not None and power.converter.input_current is None:
        missing.append(f"needs the input current of {power.converter.name}")
    return missing


def _estimates(power: Power, ports: tuple[Port, ...]) -> list[str]:
    """Stated defaults that stand in for figures."""
    amplifier, found = power.amplifier, []
    if amplifier.current_limit is None:
        found.append(f"Current limit of {amplifier.name}: 1.25 × its largest clean peak")
    if amplifier.efficiency is None:
        found.append(f"Losses of {amplifier.name}: 2 % of its output current")
    if any(claim.thd is None for claim in amplifier.claims):
        found.append(f"Claims of {amplifier.name}: taken at 10 % distortion")
    if any(port.speed_limit is None for port in ports):
        found.append("Air speed in the port: by the shape of its edges")
    return found


@dataclass(frozen=True)
class Tops:
    """Ceiling at the brief's charge and at full charge (the same object without a pack)."""

    charged: Ceiling
    full: Ceiling


@stage
def tops_of(
    transfers: Transfers,
    unit_level: Real,
    ratings: Ratings,
    power: Power,
    charge: float,
    duty: float,
) -> Tops:
    """Ceilings of a design."""
    amplifier = amplifier_model(power.amplifier)

    def at(source: Source) -> Ceiling:
        return ceiling(unit_level, all_limits(transfers, ratings, amplifier, source, duty))

    charged = at(source_at(power, charge))
    full = at(source_at(power, 1.0)) if isinstance(power.source, Pack) else charged
    return Tops(charged, full)


def duty_of(listening: Listening) -> float:
    """D in dB: 0 for a steady tone."""
    return 0.0 if listening.steady_tone else programme_of(listening).duty
