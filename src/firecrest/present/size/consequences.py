"""Slower facts of one chamber, port or radiator: each needs assessments of its own.

They are worked out one after another once the hand rests.
"""

from collections.abc import Callable, Iterator

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment, assess
from firecrest.assessment.portloss import port_loss
from firecrest.core.acoustics.losses import damping_of, tightness_of
from firecrest.core.errors import FirecrestError
from firecrest.core.units import MINUS, figure
from firecrest.design.box import radiators_at
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.ids import place_of
from firecrest.present.size.facts import Fact
from firecrest.present.size.openings import owner_kind
from firecrest.present.text.units import told
from firecrest.proposals.inverse import tuning_of, with_tuning

STEP = 0.01
"""Added mass in kg whose effect is told."""
BELOW, ABOVE = 0.75, 1.5
"""Where it is told, in times the tuning."""

Job = Callable[[], list[Fact]]


def jobs(assessment: Assessment, owner: Path) -> Iterator[Job]:
    """Jobs for the room or element at ``owner``."""
    a, kind = assessment.acoustic, owner_kind(assessment.design, owner)
    if a is None or kind == "case":
        return
    place = int(owner[2])
    if kind == "chambers":
        yield lambda: _tightness(assessment, place)
        yield lambda: _damping(assessment, place)
    elif kind == "radiators":
        yield lambda: _heavier(assessment, a, place)
        yield lambda: _other_count(assessment, place)
    elif kind == "port":
        yield lambda: _turbulence(assessment)


def _span(assessments: list[Assessment]) -> str:
    """Bass reach and loudness over some designs, as ranges."""
    said = []
    for key, unit, name in (("bass", "Hz", ""), ("loudness", "dB", "")):
        found = [p for x in assessments if (p := x.promise(key).predicted) is not None]
        if found:
            low, high = figure(min(found), 1), figure(max(found), 1)
            said.append(f"{name}{low} {unit}" if low == high else f"{name}{low} to {high} {unit}")
    return ", ".join(said)


def _tightness(assessment: Assessment, place: int) -> list[Fact]:
    """What the range of a preset of tightness makes of bass reach and loudness."""
    chamber = assessment.design.box.chambers[place]
    preset = tightness_of(chamber.leak_q) if chamber.leak_resistance is None else None
    if preset is None:
        return []
    path = ("box", "chambers", place, "leak_q")
    ends = [
        assess(replace_at(assessment.design, path, q), assessment.memo)
        for q in (preset.low, preset.high)
    ]
    name = f"{preset.words.capitalize()}, QL {preset.low:g} to {preset.high:g}"
    return [Fact(name, _span([assessment, *ends]), "", "The band of effect these words stand for.")]


def _damping(assessment: Assessment, place: int) -> list[Fact]:
    """What the range of a preset of damping makes of bass reach and loudness."""
    chamber = assessment.design.box.chambers[place]
    preset = damping_of(chamber.stuffing, chamber.absorption_q)
    if chamber.fill_resistivity is not None:
        preset = None
    if preset is None:
        return []
    ends = []
    for k in (1, 2):
        made = rebuilt(chamber, stuffing=preset.stuffing[k], absorption_q=preset.absorption_q[k])
        lined = replace_at(assessment.design, ("box", "chambers", place), made)
        ends.append(assess(lined, assessment.memo))
    low, high = sorted(preset.absorption_q[1:])
    name = f"{preset.words.capitalize()}, QA {low:g} to {high:g}"
    return [Fact(name, _span([assessment, *ends]), "", "The band of effect these words stand for.")]


def _heavier(assessment: Assessment, a: Acoustic, place: int) -> list[Fact]:
    """What some more mass does below and above the tuning."""
    design = assessment.design
    path = ("box", "openings", place, "added_mass")
    chamber = place_of(design.box.chambers, radiators_at(design.box, place).chamber)
    tuning = a.model.tuning[chamber]
    added = value_at(design, path)
    after = assess(replace_at(design, path, min(added + STEP, 2.0)), assessment.memo).acoustic
    if tuning is None or after is None or after.model.tuning[chamber] is None:
        return []
    said = []
    for f in (BELOW * tuning, ABOVE * tuning):
        before = float(np.interp(f, a.frequency, a.unit_level))
        change = float(np.interp(f, after.frequency, after.unit_level)) - before
        text = figure(change, 1)
        sign = "" if text.startswith(MINUS) else "+"
        said.append(f"{sign}{text} dB at {f:.0f} Hz")
    new = after.model.tuning[chamber] or 0.0
    return [
        Fact(
            "10 g more each",
            f"{figure(new, 1)} Hz; {', '.join(said)}",
            "",
            "Mass lowers the tuning: more below it, less above it. It does not help where the "
            "travel runs out below the tuning.",
        )
    ]


def _other_count(assessment: Assessment, place: int) -> list[Fact]:
    """One radiator instead of two (or two instead of one) at the same tuning."""
    design = assessment.design
    item = radiators_at(design.box, place)
    count = 1 if item.count == 2 else 2
    chamber = place_of(design.box.chambers, item.chamber)
    tuning = tuning_of(design, chamber)
    if tuning is None:
        return []
    name = "With one at this tuning" if count == 1 else "With two at this tuning"
    try:
        made = replace_at(design, ("box", "openings", place, "count"), count)
        after = assess(with_tuning(made, tuning, chamber), assessment.memo)
    except FirecrestError:
        return [Fact(name, "not reached by added mass")]
    mass = told(radiators_at(after.design.box, place).added_mass, "mass", "g", 0)
    loud = after.promise("loudness").predicted
    heard = "" if loud is None else f", {figure(loud, 1)} dB"
    return [
        Fact(
            name,
            f"{mass} each{heard}",
            "",
            "One moves twice as far for the same air; two opposed ones shake the case less.",
        )
    ]


def _turbulence(assessment: Assessment) -> list[Fact]:
    """What the port's own turbulence costs at the promise."""
    found = port_loss(assessment)
    if found is None or not assessment.design.brief.edges.turbulence:
        return []
    loss, at = found.worst
    bent = assessment.design.brief.edges.large_signal
    return [
        Fact(
            "Lost to its turbulence" if not bent else "Lost to turbulence and bent parts",
            f"{figure(loss, 1)} dB at {at:.0f} Hz",
            "met" if loss < 1 else "close",
            "At the promise, and below it with a held low note. Grows with level; from the shape "
            "of the ends and the bends, good to about a third. The ceiling counts it.",
        )
    ]
