"""The brief's clauses: what each takes, in the design's own quantities, now and as typed."""

from dataclasses import dataclass
from math import isfinite

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.conditions import air_of, around_of
from firecrest.core.acoustics.driver import REFERENCE_PRESSURE
from firecrest.core.acoustics.radiation import heard
from firecrest.present.frame.meters import mark_of
from firecrest.present.text import words
from firecrest.present.text.notes import said
from firecrest.present.text.units import told

PEAK = float(np.sqrt(2.0))


@dataclass(frozen=True)
class Clause:
    """A mark and what the clause takes."""

    mark: str
    text: str


def clauses(assessment: Assessment, trial: Assessment | None) -> list[Clause]:
    """One line per clause of the sentence; while typing, what it would be comes behind."""
    now = _lines(assessment)
    if trial is None:
        return now
    then = _lines(trial)
    return [
        Clause(a.mark, a.text if a.text == b.text else f"{a.text}   →   {b.text}")
        for a, b in zip(now, then, strict=True)
    ]


def _lines(assessment: Assessment) -> list[Clause]:
    weight, cost = assessment.promise("weight"), assessment.promise("cost")
    worst = cost if cost.state == "short" else weight
    return [
        Clause(mark_of(assessment.promise("loudness")), _loudness(assessment)),
        Clause(mark_of(assessment.promise("bass")), _bass(assessment)),
        Clause(mark_of(assessment.promise("runtime")), _runtime(assessment)),
        Clause(mark_of(assessment.promise("size")), _size(assessment)),
        Clause(
            mark_of(worst),
            f"parts and case: {told(weight.predicted or 0, 'mass', 'kg', 2)}, "
            f"{told(cost.predicted or 0, 'money', '€', 0)}",
        ),
    ]


def _loudness(assessment: Assessment) -> str:
    design, loud = assessment.design, assessment.promise("loudness")
    crest = assessment.acoustic.programme if assessment.acoustic else None
    likely = words.either_way(loud, design)
    how_far = likely if loud.state == "close" and likely else words.margin_text(loud, design)
    text = f"gets {words.numeral(loud, design)} dB, {how_far}"
    if crest is None or not isfinite(crest.level):
        return text
    return f"{text}; {crest.level:.1f} dB mean when flat out"


def _bass(assessment: Assessment) -> str:
    """Air that cones and openings together move at the promised note, peak volume each way.

    From p = rho w^2 V/(Omega r) and what stands around: what the promise takes, whatever the box.
    """
    brief = assessment.design.brief
    note = brief.bass.frequency
    asked = brief.loudness.level - brief.bass.drop
    pressure = PEAK * REFERENCE_PRESSURE * 10 ** (asked / 20)
    at = np.array([note])
    per_flow = np.abs(heard(np.ones(1), at, around_of(assessment.design), air_of(brief.conditions)))
    volume = pressure / (per_flow * 2 * np.pi * at)
    air = told(volume.item(), "volume", "cm³", 0)
    moved = f"moves {air} of air each way at {note:g} Hz"
    return f"{moved}; reckoned {words.surroundings(assessment.design)}"


def _runtime(assessment: Assessment) -> str:
    a = assessment.acoustic
    run = assessment.promise("runtime")
    if a is None or a.runtime is None:
        return said(run.reason)
    watts = a.runtime.watts["total"]
    return (
        f"{a.runtime_level:.0f} dB mean takes {watts:.1f} W; the pack lasts "
        f"{words.numeral(run, assessment.design)} h"
    )


def _size(assessment: Assessment) -> str:
    wall = assessment.design.box.case.wall
    air = told(assessment.cabinet.air[0], "volume", "L", 1)
    return f"leaves {air} of air behind {told(wall, 'length', 'mm', 0)} walls"
