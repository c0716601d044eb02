"""The rail: each stage's mark and its one most useful fact."""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.assessment.power.dangers import dangers
from firecrest.assessment.verdicts import WALL
from firecrest.design.box import RadiatorSet, placed
from firecrest.present.frame.meters import mark_of
from firecrest.present.text import words
from firecrest.present.text.notes import is_code, said


@dataclass(frozen=True)
class RailRow:
    """A stage: key, its fixed number, name, mark and fact."""

    key: str
    number: int
    name: str
    mark: str
    fact: str


WALL_FACT = "from the wall"
STAGES = (
    ("promise", 1, "Promise"),
    ("parts", 2, "Parts"),
    ("size", 3, "Size"),
    ("power", 4, "Power"),
    ("voice", 5, "Voice"),
    ("cabinet", 6, "Cabinet"),
    ("compare", 9, "Compare"),
)


def rail(assessment: Assessment, variants: int = 1) -> list[RailRow]:
    """Rows of the stages that exist, of a project of so many ``variants``."""
    facts = {
        "promise": _promise(assessment),
        "parts": _parts(assessment),
        "size": _size(assessment),
        "power": _power(assessment),
        "voice": _voice(assessment),
        "cabinet": _cabinet(assessment),
        "compare": ("half", f"{variants} variants") if variants > 1 else ("none", "one variant"),
    }
    return [RailRow(key, number, name, *facts[key]) for key, number, name in STAGES]


def _promise(a: Assessment) -> tuple[str, str]:
    judged = [p for p in a.promises if p.importance != "open"]
    kept = sum(p.state == "met" for p in judged)
    mark = "met" if kept == len(judged) else "half"
    return mark, f"{kept} of {len(judged)} kept"


def _parts(a: Assessment) -> tuple[str, str]:
    if a.missing:
        return "unknown", "figures missing"
    origins = [o for g in a.design.box.groups for o in g.driver.origins.values()]
    origins += [
        o
        for _, r in placed(a.design.box.openings, RadiatorSet)
        for o in r.radiator.origins.values()
    ]
    count = origins.count("estimate") + len(a.estimates)
    return (
        ("half", f"{count} estimate{'s' if count != 1 else ''}") if count else ("met", "all known")
    )


def _size(a: Assessment) -> tuple[str, str]:
    loud = a.promise("loudness")
    if loud.state == "none":
        return "met", words.box_facts(a)
    return mark_of(loud), words.margin_text(
        loud, a.design
    ) if loud.margin is not None else "unknown"


def _power(a: Assessment) -> tuple[str, str]:
    if dangers(a.design):
        return "short", "a danger"
    run = a.promise("runtime")
    if run.predicted is None:
        return (
            "met" if run.state == "none" else "unknown",
            WALL_FACT if is_code(run.reason, WALL) else said(run.reason) or "no pack",
        )
    mark = mark_of(run) if run.state != "none" else "met"
    return mark, f"{words.numeral(run, a.design)} h"


def _cabinet(a: Assessment) -> tuple[str, str]:
    """Whether everything has a place and room; what is tight is told on the stage itself."""
    size = a.promise("size")
    if not a.cabinet.placed:
        return "half", "nothing placed"
    tight = [spot.impossible for spot in spots_in(a) if spot.tight]
    if any(tight):
        return "short", f"{sum(tight)} impossible"
    if tight:
        return "close", f"{len(tight)} tight"
    if size.margin is None:
        return "met", f"{words.told_mass(a)}"
    return mark_of(size), words.margin_text(size, a.design)


def _voice(a: Assessment) -> tuple[str, str]:
    blocks = [b for c in a.design.voice.channels for b in c.blocks]
    low = a.acoustic.low_note if a.acoustic else None
    if low is not None and not low.passed:
        return "close", "low note short"
    return "met", f"{len(blocks)} filter{'s' if len(blocks) != 1 else ''}"
