"""What is only asked for now and then: reach at every drop, and everything at full charge."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import Acoustic, Assessment, Held, held_of
from firecrest.assessment.columns import put
from firecrest.assessment.derive import loudness_under, sounding
from firecrest.core.arrays import Real
from firecrest.core.limits.ceiling import Ceiling
from firecrest.core.limits.loudness import loudness
from firecrest.core.limits.reach import Reach, crossing, reach_of

DROPS = (3, 6, 10)
FAR = 1.1
"""How far above the promised note a reach is worth a word of its own."""
OWN = 6
"""Drop in dB at which a box is said to reach by itself."""


@dataclass(frozen=True)
class FullCharge:
    """Ceiling and loudness with a full pack; those of the brief's charge without one."""

    top: Ceiling
    loudness: Held | None


def at_full_charge(assessment: Assessment, a: Acoustic) -> FullCharge:
    """The same design with its pack just charged."""
    if assessment.design.power.source.kind != "pack":
        return FullCharge(a.top, a.loudness)
    full = put(assessment.numbers, ("brief", "conditions", "charge"), 1.0)
    sound = sounding(full, EDIT_GRID, assessment.memo)
    loud = None if assessment.missing else held_of(loudness_under(sound, sound.top), sound.top)
    return FullCharge(sound.top, loud)


def loudness_above_own_reach(assessment: Assessment, a: Acoustic) -> tuple[float, float] | None:
    """(dB, Hz): loudness from the box's own small-signal F6 up; None where the promise is near.

    The promised shape stands at F6 instead of the promised note.
    """
    reach = reach_by_drop(a, a.unit_level - a.reaches.reference)[OWN].frequency
    bass = assessment.design.brief.bass
    if reach is None or reach <= FAR * bass.frequency or assessment.missing:
        return None
    found = loudness(EDIT_GRID, a.top.level, 0.0, reach, OWN, a.f_hi)
    level = float(np.ravel(found.level)[0])
    return (level, reach) if np.isfinite(level) else None


def reach_by_drop(a: Acoustic, response: Real) -> Mapping[int, Reach]:
    """Where ``response`` (dB re the reference) is down by 3, 6 and 10 dB."""
    low, _ = a.reaches.band
    return {drop: reach_of(crossing(EDIT_GRID, response, drop, low)) for drop in DROPS}
