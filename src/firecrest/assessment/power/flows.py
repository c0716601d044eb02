"""Where every watt-hour of a run goes, and every watt at one moment."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.conditions import programme_of
from firecrest.assessment.electrical import boards_of, loads_list, playing, store_of
from firecrest.assessment.power.given import HALF, counts_of, drive_for, playing_bus, programme_draw
from firecrest.core.acoustics.radiation import SOLID_ANGLES
from firecrest.core.arrays import Number
from firecrest.core.limits.bus import mean_bus_current
from firecrest.core.power.flow import Given, Played, flow, sound_power
from firecrest.core.power.runtime import played
from firecrest.core.power.source import Pack

WATT_HOUR = 3600.0


@dataclass(frozen=True)
class Spent:
    """W by item at half charge, Wh by item over the run (None without an end), W of sound."""

    watts: Mapping[str, float]
    hours: float | None
    watt_hours: Mapping[str, float] | None
    sound: float
    sound_hours: float | None


def spent(assessment: Assessment, level: float) -> Spent | None:
    """What playing ``level`` dB takes, and where it goes; None where nothing can be heard."""
    a, power = assessment.acoustic, assessment.numbers.power
    if a is None or power.source is None:
        return None
    drive, listening = float(drive_for(a, level)), assessment.design.brief.listening
    play = Played(
        boards_of(power, assessment.numbers.carried),
        counts_of(assessment),
        programme_draw(a),
        drive,
        loads_list(power),
    )
    bus = playing_bus(assessment, play.draw, HALF)
    amperes = mean_bus_current(bus, np.full(1, drive))
    rest = bus.source.voltage
    given = Given(rest, rest - bus.source.resistance * amperes, amperes, _in_the_way(assessment))
    watts = {name: float(np.ravel(value)[0]) for name, value in flow(given, play).items()}
    sound = float(sound_power(level, listening.distance, SOLID_ANGLES[listening.place]))
    found = _over_the_run(assessment, play)
    if found is None:
        return Spent(watts, None, None, sound, None)
    hours, joules = found
    whole = {name: value / WATT_HOUR for name, value in joules.items()}
    return Spent(watts, hours, whole, sound, sound * hours)


def _in_the_way(assessment: Assessment) -> dict[str, Number]:
    """Ohms between the source's own voltage and the bus, by name, at half charge."""
    power = assessment.numbers.power
    store = store_of(power, assessment.design.brief.conditions.temperature)
    if assessment.design.power.source.kind == "pack" and store is not None:
        return _of_pack(store, store.cell_resistance(HALF))
    source = power.source
    assert source is not None
    return {"supply": source.resistance, "leads": power.lead.resistance}  # type: ignore[union-attr]


def _of_pack(pack: Pack, cells: Number) -> dict[str, Number]:
    return {
        "cells": cells,
        "protection board": pack.board_resistance,
        "leads": pack.lead_resistance,
    }


def _over_the_run(assessment: Assessment, play: Played) -> tuple[float, dict[str, float]] | None:
    """(hours, J by item) from full to the end; None where nothing runs empty."""
    power, brief = assessment.numbers.power, assessment.design.brief
    store = store_of(power, brief.conditions.temperature)
    if store is None:
        return None
    burst = programme_of(brief.listening).burst
    found = played(store, play.draw, play.drive, burst, playing(power))
    now, passed = found.course.moment, np.ravel(found.course.passed)
    seconds = WATT_HOUR * np.diff(passed, prepend=0.0)
    ohms = _of_pack(store, now.way.ohms / store.parallel)
    if assessment.design.power.source.kind != "pack":
        ohms = {"supply": ohms["cells"], "leads": ohms["leads"]}
    given = Given(now.way.rest, now.voltage, now.current, ohms)
    items = flow(given, play)
    joules = {
        name: float(np.sum(np.broadcast_to(value, seconds.shape) * seconds))
        for name, value in items.items()
    }
    return float(found.hours[0]), joules
