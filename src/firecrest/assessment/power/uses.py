"""How long it plays: four uses, also cold and aged, hours against level, loudness as it drains."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.conditions import programme_of
from firecrest.assessment.electrical import playing, store_of
from firecrest.assessment.lower import inputs
from firecrest.assessment.power.given import drive_for, flat_out_at, programme_draw
from firecrest.core.arrays import Real
from firecrest.core.power.cold import ZERO_CELSIUS
from firecrest.core.power.runtime import Played, Runtime, played, runtime_of

BACKGROUND, PROMISE, HALF_VOLUME, FLAT_OUT = "background", "promise", "half volume", "flat out"
BELOW_TARGET = 30.0
"""DB below the promised loudness that is about talking level: an estimate."""
HALF = 6.02
LEVELS = 13
QUIETER = 6.0
DRAIN = (1.0, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0.1, 0.05)
AGED = 0.8
WEARS: Mapping[str, tuple[float | None, float | None]] = {
    "as it is": (None, None),
    "cold": (0.0, None),
    "very cold": (-10.0, None),
    "aged": (None, AGED),
    "aged and cold": (0.0, AGED),
}
"""Temperature in C and share of the capacity left; None: as the design says."""


@dataclass(frozen=True)
class Run:
    """Hours of one use of one pack, the charge left, and what ended it."""

    hours: float
    end_charge: float
    ended_by: str


@dataclass(frozen=True)
class Use:
    """A use at ``level`` dB, whether that can be played, and its runs by how worn the pack is;
    empty where nothing runs empty.
    """

    key: str
    level: float
    drive: float
    playable: bool
    runs: Mapping[str, Run]


def levels_of(assessment: Assessment) -> dict[str, float]:
    """Level in dB of each use; empty where nothing can be heard."""
    a = assessment.acoustic
    if a is None:
        return {}
    most = a.programme.level
    return {
        BACKGROUND: assessment.design.brief.loudness.level - BELOW_TARGET,
        PROMISE: a.runtime_level,
        HALF_VOLUME: most - HALF,
        FLAT_OUT: most,
    }


def uses(assessment: Assessment) -> list[Use]:
    """The four uses."""
    a, levels = assessment.acoustic, levels_of(assessment)
    if a is None or not np.isfinite(list(levels.values())).all():
        return []
    drives = np.array([[drive_for(a, level)] for level in levels.values()])
    found = {wear: _played(assessment, drives, wear) for wear in WEARS}
    made = []
    for k, (key, level) in enumerate(levels.items()):
        runs = {wear: _run(run, k) for wear, run in found.items() if run is not None}
        playable = level <= a.programme.level + 1e-9
        made.append(Use(key, level, float(drives[k, 0]), playable, runs))
    return made


def worn_power(power: inputs.Power, wear: str) -> inputs.Power:
    """The power of a design with its pack aged."""
    health = WEARS[wear][1]
    if health is None or not isinstance(power.source, inputs.Pack):
        return power
    return replace(power, source=replace(power.source, health=health))


def _played(assessment: Assessment, drives: Real, wear: str) -> Played | None:
    a, brief = assessment.acoustic, assessment.design.brief
    assert a is not None
    power = worn_power(assessment.numbers.power, wear)
    celsius = WEARS[wear][0]
    kelvin = brief.conditions.temperature if celsius is None else celsius + ZERO_CELSIUS
    store = store_of(power, kelvin)
    if store is None:
        return None
    burst = programme_of(brief.listening).burst
    return played(store, programme_draw(a), drives, burst, playing(power))


def _run(found: Played, place: int) -> Run:
    def _at(value: Real) -> float:
        flat = np.ravel(value)
        return float(flat[place if flat.size > 1 else 0])

    ended = found.names[int(_at(found.which))]
    return Run(_at(found.hours), _at(found.end_charge), ended)


def hours_by_level(assessment: Assessment) -> tuple[Real, Real] | None:
    """(dB, hours) of 13 levels from below the background to flat out; None at the wall."""
    a, levels = assessment.acoustic, levels_of(assessment)
    if a is None or not np.isfinite(list(levels.values())).all():
        return None
    low, high = levels[BACKGROUND] - QUIETER, levels[FLAT_OUT]
    if high <= low:
        return None
    grid = np.linspace(low, high, LEVELS)
    drives = np.array([[drive_for(a, float(level))] for level in grid])
    found = _played(assessment, drives, "as it is")
    return None if found is None else (grid, np.ravel(found.hours))


def course_of(assessment: Assessment, level: float) -> Runtime | None:
    """The play at ``level`` dB with its course; None where nothing runs empty."""
    a, power = assessment.acoustic, assessment.numbers.power
    if a is None:
        return None
    brief = assessment.design.brief
    store = store_of(power, brief.conditions.temperature)
    if store is None:
        return None
    drive, player = float(drive_for(a, level)), playing(power)
    draw = programme_draw(a)
    burst = float(programme_of(brief.listening).burst)
    found = played(store, draw, drive, burst, player)
    return runtime_of(found, store, draw, drive, player, burst)


def loudness_by_charge(assessment: Assessment) -> list[tuple[float, float]]:
    """(charge, highest programme level in dB) as a pack drains."""
    if assessment.design.power.source.kind != "pack":
        return []
    return list(zip(DRAIN, flat_out_at(assessment, DRAIN), strict=True))
