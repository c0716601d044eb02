"""Charging the pack: how long from empty, from 20 and 50 %, and while it plays."""

from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.electrical import store_of
from firecrest.assessment.power.given import HALF, at_last, drive_for, playing_bus, programme_draw
from firecrest.core.limits.bus import average_current_limit
from firecrest.core.power.charger import (
    HOUR,
    USUAL_CURRENT,
    USUAL_END,
    Charge,
    Charger,
    Load,
    Meanwhile,
    charged,
    charged_while_playing,
)
from firecrest.core.power.chemistry import CHEMISTRIES
from firecrest.core.power.connectors import BY_NAME
from firecrest.core.power.source import Pack
from firecrest.design import sources

STARTS = (0.2, 0.5)
"""Charges told besides empty."""


@dataclass(frozen=True)
class Charging:
    """(charge at the start, what it comes to) from empty, 20 and 50 %; while it plays at the
    promise (None: it may not, or nothing can be heard); dB that charging just carries; A that the
    contact bears.
    """

    runs: tuple[tuple[float, Charge], ...]
    meanwhile: Meanwhile | None
    break_even: float | None
    current: float
    contact: float


def charger_model(pack: sources.Pack) -> Charger | None:
    """The charger of a pack in the design."""
    own = pack.charger
    if own is None:
        return None
    chemistry = CHEMISTRIES[pack.cell.chemistry]
    whole = pack.cell.capacity * pack.parallel / HOUR
    end = USUAL_END * whole if own.end_current is None else own.end_current
    return Charger(
        own.current,
        own.voltage,
        end,
        own.lead_resistance,
        chemistry.charge_efficiency,
        chemistry.full is None,
    )


def most_charging(pack: sources.Pack) -> float:
    """A that the cells of a pack bear while charging; half their Ah where it is not stated."""
    cell = pack.cell
    own = cell.charge_current
    return (USUAL_CURRENT * cell.capacity / HOUR if own is None else own) * pack.parallel


def charging(assessment: Assessment) -> Charging | None:
    """None without a pack or its charger."""
    source = assessment.design.power.source
    if not isinstance(source, sources.Pack) or source.charger is None:
        return None
    charger = charger_model(source)
    pack = store_of(assessment.numbers.power, assessment.design.brief.conditions.temperature)
    if charger is None or not isinstance(pack, Pack):
        return None
    starts = (float(pack.spread), *STARTS)
    runs = tuple((start, charged(pack, charger, start)) for start in starts)
    meanwhile = break_even = None
    if source.charger.while_playing and assessment.acoustic is not None:
        load = _load(assessment)
        meanwhile = None if load is None else charged_while_playing(pack, charger, load)
        break_even = _break_even(assessment, charger)
    contact = BY_NAME[source.charger.contact].amperes
    return Charging(runs, meanwhile, break_even, charger.current, contact)


def _load(assessment: Assessment) -> Load | None:
    """What playing at the promise takes at the pack's terminals."""
    a = assessment.acoustic
    assert a is not None
    drive, draw = float(drive_for(a, a.runtime_level)), programme_draw(a)
    if not np.isfinite(drive):
        return None
    stands = playing_bus(assessment, draw).standing
    average = at_last(draw.average)
    amperes = float(stands.amperes) + average * at_last(draw.amperes) * drive
    watts = float(stands.watts) + average * at_last(draw.watts) * drive
    return Load(amperes, watts + at_last(draw.mean_power) * drive**2)


def _break_even(assessment: Assessment, charger: Charger) -> float | None:
    """Programme level in dB at which charging just carries what plays, at half charge."""
    a = assessment.acoustic
    assert a is not None
    bus = playing_bus(assessment, programme_draw(a), HALF)
    stiff = replace(bus, source=replace(bus.source, resistance=0.0))
    drive = float(np.ravel(average_current_limit(stiff, charger.current))[-1])
    if not 0.0 < drive < np.inf:
        return None
    return float(np.ravel(a.sound.programmed.unit_level)[0]) + 20 * float(np.log10(drive))
