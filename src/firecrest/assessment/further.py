"""What is only asked for now and then: reach at every drop, and everything at full charge."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import Acoustic, Assessment, Held, held_of
from firecrest.assessment.columns import put
from firecrest.assessment.judging import loudness_under
from firecrest.assessment.sound import voice_rows
from firecrest.assessment.sounding import sounding
from firecrest.assessment.voicing.heard import ways_heard
from firecrest.core.arrays import Real, decibel
from firecrest.core.limits.ceiling import Ceiling
from firecrest.core.limits.loudness import judged, loudness
from firecrest.core.limits.reach import Reach, crossing, reach_of, way_from
from firecrest.design.blocks import passes
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path

DROPS = (3, 6, 10)
FAR = 1.1
"""How far above the promised note a reach is worth a word of its own."""
HOLDS = 0.05
"""Share by which a reach must move for something to count as what holds it."""
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
    found = loudness(judged(EDIT_GRID, reach, OWN, a.f_hi), a.top.level, 0.0)
    level = float(np.ravel(found.level)[0])
    return (level, reach) if np.isfinite(level) else None


def reach_by_drop(a: Acoustic, response: Real) -> Mapping[int, Reach]:
    """Where ``response`` (dB re the reference) is down by 3, 6 and 10 dB."""
    way = way_from(EDIT_GRID, a.reaches.band[0])
    return {drop: reach_of(crossing(way, response, drop)) for drop in DROPS}


def high_passes(design: Design) -> list[tuple[Path, float]]:
    """(field of its corner, corner in Hz) of every high-pass of the voice."""
    return [
        (("voice", "channels", k, "blocks", n, "frequency"), block.frequency)
        for k, channel in enumerate(design.voice.channels)
        for n, block in enumerate(channel.blocks)
        if passes(block) == "high_pass"
    ]


def filter_that_holds_reach(assessment: Assessment, a: Acoustic) -> tuple[Path, float] | None:
    """The high-pass without which the box would reach lower, by a twentieth or more.

    Without it only the way it stands in plays more; the others are summed with that as they are.
    None where there is none, or where travel or the amplifier would hold the reach at level all the
    same: what they bear at the listener does not change with a filter before them.
    """
    design, way = assessment.design, way_from(EDIT_GRID, a.reaches.band[0])
    reach, drop = a.reaches.at_level.frequency, design.brief.bass.drop
    if reach is None:
        return None
    target = design.brief.loudness.level
    response = a.unit_level - a.reaches.reference
    digital = np.array([limit.code == "L" for limit in a.limits])[a.top.first]
    found: list[tuple[float, tuple[Path, float]]] = []
    ways = ways_heard(assessment, a, a.scene.frequency)
    for path, corner in high_passes(design):
        channel, place = design.voice.channels[int(path[2])], int(path[4])
        rows = voice_rows(channel, design.power.dsp.sample_rate, EDIT_GRID)
        own = ways.ways[int(path[2])]
        added = own * (rows[place + 1] / rows[place + 2]) - own
        more = decibel((ways.whole + added) / ways.whole)
        ceiling = np.where(digital, a.top.level + more, a.top.level)
        kept = np.minimum(target + response + more, ceiling) - target
        without = reach_of(crossing(way, kept, drop)).frequency
        if without is not None and without < reach / (1 + HOLDS):
            found.append((without, (path, corner)))
    return min(found)[1] if found else None
