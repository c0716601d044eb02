"""Currents in the leads, the fuse they ask for, the wire that it asks for, plugs and switch."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.conditions import programme_of
from firecrest.assessment.electrical import boards_of, standing_of, store_of
from firecrest.assessment.power.given import (
    counts_of,
    drive_for,
    flat_out_at,
    least_impedances,
    playing_bus,
    programme_draw,
    source_now,
)
from firecrest.core.limits.bus import mean_bus_current
from firecrest.core.power import fuse as fuses
from firecrest.core.power import wire
from firecrest.core.power.bench import bench_current
from firecrest.core.power.connectors import SWITCH_AC_VOLTS
from firecrest.design.power import Lead
from firecrest.design.sources import Pack, WallSupply

STIFF_FORMS = ("house battery", "car outlet")
"""Supplies that a short circuit empties at once: only their own resistance stands against it."""


@dataclass(frozen=True)
class Currents:
    """A at full charge: for long and in bursts flat out, and of a test tone at clipping."""

    long: float
    burst: float
    bench: float


@dataclass(frozen=True)
class Inrush:
    """Peak A and A^2 s when the boards' capacitors are charged."""

    peak: float
    melts: float


@dataclass(frozen=True)
class LeadFacts:
    """What the lead from the source does: V lost at the bench current and its share of the
    source's, A it may carry, whether it will do, and the wire that would (m2, gauge).
    """

    ohms: float
    drop: float
    share: float
    allowed: float
    fine: bool
    area: float | None
    gauge: int | None
    closest: int


@dataclass(frozen=True)
class Wiring:
    """All of it; ``fuse`` is None where only a soft start helps, ``lead`` where its length is not
    known.
    """

    currents: Currents
    least: tuple[float, ...]
    volts: float
    short_circuit: float
    inrush: Inrush
    asked: fuses.Asked
    fuse: fuses.Fuse | None
    rating: float
    lead: LeadFacts | None


def wiring(assessment: Assessment) -> Wiring | None:
    """None where nothing can be heard, or the amplifier has its own mains supply."""
    return assessment.memo(_wiring, assessment)


def _wiring(assessment: Assessment) -> Wiring | None:
    a, power = assessment.acoustic, assessment.numbers.power
    if a is None or power.source is None:
        return None
    full = source_now(assessment, 1.0)
    currents = _currents(assessment)
    if currents is None:
        return None
    on_bus = sum(
        fitted.part.bulk_capacitance
        for (_, fitted), rail in zip(assessment.design.power.amplifiers, power.rails, strict=True)
        if rail is None
    )
    volts = float(np.ravel(full.voltage)[0])
    surge = Inrush(*fuses.inrush(volts, on_bus, float(np.ravel(full.resistance)[0])))
    short = _short_circuit(assessment)
    asked = fuses.Asked(currents.long, currents.bench, volts, short, surge.melts)
    found = fuses.fuse_for(asked)
    fitted = assessment.design.power.fuse
    rating = asked.least if found is None else found.rating
    rating = rating if fitted is None else fitted.rating
    lead = lead_facts(assessment, assessment.design.power.lead, currents.bench, rating)
    least = tuple(least_impedances(a))
    return Wiring(currents, least, volts, short, surge, asked, found, rating, lead)


def _currents(assessment: Assessment) -> Currents | None:
    a, power = assessment.acoustic, assessment.numbers.power
    assert a is not None
    level = flat_out_at(assessment, [1.0])[0]
    if not np.isfinite(level):
        return None
    drive = float(drive_for(a, level))
    bus = playing_bus(assessment, programme_draw(a), 1.0)
    burst = programme_of(assessment.design.brief.listening).burst
    long, loud = (
        float(mean_bus_current(bus, np.full(1, drive * 10 ** (db / 20)))[-1]) for db in (0.0, burst)
    )
    bench = bench_current(
        boards_of(power, assessment.numbers.carried),
        counts_of(assessment),
        least_impedances(a),
        source_now(assessment, 1.0),
        standing_of(power),
    )
    return Currents(long, loud, bench)


def _short_circuit(assessment: Assessment) -> float:
    """A that flow when a lead is shorted at the source."""
    source, power = assessment.design.power.source, assessment.numbers.power
    if isinstance(source, Pack):
        pack = store_of(power, assessment.design.brief.conditions.temperature)
        assert pack is not None
        ohms = float(np.ravel(pack.cell_resistance(1.0))[0]) + float(pack.board_resistance)
        volts = float(np.ravel(pack.rest_voltage(1.0))[0])
        return volts / ohms if ohms > 0 else np.inf
    assert isinstance(source, WallSupply)
    if source.form in STIFF_FORMS:
        return source.voltage / source.resistance if source.resistance > 0 else np.inf
    return source.continuous_current if source.burst_current is None else source.burst_current


def lead_facts(
    assessment: Assessment, lead: Lead, amperes: float, rating: float
) -> LeadFacts | None:
    """What a lead does at ``amperes`` behind a fuse of ``rating``."""
    if lead.length is None:
        return None
    volts = float(np.ravel(source_now(assessment).voltage)[0])
    ohms = wire.resistance(lead.length, lead.area)
    drop = amperes * ohms
    return LeadFacts(
        ohms,
        drop,
        drop / volts,
        wire.allowed_current(lead.area),
        wire.bears(lead.area, lead.length, amperes, volts, rating),
        wire.area_for(lead.length, amperes, volts, rating),
        wire.gauge_for(lead.length, amperes, volts, rating),
        wire.closest_gauge(lead.area),
    )


def speaker_losses(assessment: Assessment, found: Wiring) -> list[float] | None:
    """DB lost in the leads to each channel's drivers; None where their length is not known."""
    lead = assessment.design.power.speaker_lead
    if lead.length is None:
        return None
    return [wire.speaker_loss(lead.resistance, z) if np.isfinite(z) else 0.0 for z in found.least]


def switch_bears(assessment: Assessment, found: Wiring) -> bool | None:
    """Whether the switch bears fuse and volts; None: there is none, or nobody knows."""
    switch = assessment.design.power.switch
    if switch is None:
        return None
    if switch.rating < found.rating:
        return False
    if switch.volts is None:
        return True if found.volts <= SWITCH_AC_VOLTS else None
    return switch.volts >= found.volts
