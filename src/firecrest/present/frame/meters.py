"""What a promise meter shows: numeral, margin, bar, stripe, ghost; and the summary's counts."""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.dangers import dangers
from firecrest.assessment.verdicts import Promise
from firecrest.design.design import Design
from firecrest.design.shapes import standing_size
from firecrest.present.text import words

ROLES = {
    "met": "olive",
    "close": "amber",
    "short": "flame",
    "wish": "amber",
    "unknown": "ink2",
    "none": "ink2",
}
TOOLTIPS = {
    "loudness": "Loudest clean level at the listener: dB rms of a sine with the programme's peak, "
    "over the band from the promised bass note upwards.",
    "bass": "The note at which the response, at the promised level, is down by the stated dB.",
    "runtime": "Hours from full charge at the playing level until a cut-off opens.",
    "size": "The tightest of length, height and depth against the promised outer size.",
    "weight": "All parts and the case.",
    "cost": "All parts and the material of the case; no labour.",
}


@dataclass(frozen=True)
class Meter:
    """Everything a meter draws; shares are of the bar's width."""

    name: str
    mark: str
    role: str
    numeral: str
    suffix: str
    unit: str
    margin: str
    short_margin: str
    bars: tuple[float, ...]
    stripe: float
    floor: bool
    judged: bool
    known: bool
    ghost: str
    ghost_at: float | None
    whisker: tuple[float, float] | None
    spoken: str
    tooltip: str


def mark_of(promise: Promise) -> str:
    """State mark of a promise; a missed wish has its own."""
    return "wish" if promise.wish_missed else promise.state


def meter(
    promise: Promise, design: Design, other: Assessment | None = None, *, kept: str = ""
) -> Meter:
    """The meter of a promise, with the ghost of an ``other`` assessment: tried, or that
    ``kept`` behind, by its word.
    """
    unit = words.promise_unit(promise.key, design)
    mark = mark_of(promise)
    name = words.PROMISE_NAMES[promise.key]
    margin = words.margin_text(promise, design)
    numeral = words.numeral(promise, design)
    short = words.short_margin(promise, design)
    ghost, ghost_at = _ghost(promise, other, kept=kept)
    beside = f", {'behind it' if kept else 'tried'} {ghost}" if ghost else ""
    likely = words.likely_range(promise, design)
    likely = f"; likely {likely}" if likely else ""
    asked = "" if promise.state == "none" else f"promised {words.target_text(promise, design)}, "
    return Meter(
        name=name,
        mark=mark,
        role=ROLES[mark],
        numeral=numeral,
        suffix=unit.suffix,
        unit=unit.unit if unit.unit != "€" else "",
        margin=margin if promise.state != "unknown" else "not known",
        short_margin=short,
        bars=_bars(promise, design),
        stripe=_share(promise, promise.target, promise.target),
        floor=promise.floor,
        judged=promise.importance != "open",
        known=promise.predicted is not None,
        ghost=ghost,
        ghost_at=ghost_at,
        whisker=_whisker(promise),
        spoken=f"{numeral} {unit.suffix}, {asked}{margin}{likely}{beside}",
        tooltip=f"{name}: {numeral} {unit.suffix}\n{asked}{margin}{likely}\n"
        f"{_meaning(promise, design)}",
    )


def _whisker(promise: Promise) -> tuple[float, float] | None:
    """Where the likely range begins and ends on the bar; of a size there is none."""
    band = promise.band
    if band is None or promise.key == "size" or band.width <= 0:
        return None
    low, high = (_share(promise, value, promise.target) for value in (band.low, band.high))
    return (low, high)


def _meaning(promise: Promise, design: Design) -> str:
    """What a promise is, and under which conditions it is judged."""
    if promise.key not in ("loudness", "bass", "runtime"):
        return TOOLTIPS[promise.key]
    return f"{TOOLTIPS[promise.key]}\nReckoned {words.surroundings(design)}."


def _bars(promise: Promise, design: Design) -> tuple[float, ...]:
    """Filled share of each bar; size has three, each against its own limit."""
    if promise.key == "size":
        ask = design.brief.size
        asked = (ask.length, ask.height, ask.depth)
        got = standing_size(design.box.case)
        return tuple(0.85 * float(own) / most for own, most in zip(got, asked, strict=True))
    if promise.predicted is None:
        return (0.0,)
    return (_share(promise, promise.predicted, promise.target),)


def _share(promise: Promise, value: float, target: float) -> float:
    """Place of ``value`` on a bar whose stripe stands at its promise."""
    if promise.key == "loudness":
        return min(max(0.8 + (value - target) / 30.0, 0.02), 1.0)
    if promise.key == "bass":
        return min(max(0.72 * value / target, 0.02), 1.0)
    scale = {"runtime": 0.6, "size": 0.85}.get(promise.key, 0.8)
    return min(max(scale * value / target, 0.02), 1.0)


def _ghost(promise: Promise, other: Assessment | None, *, kept: str) -> tuple[str, float | None]:
    """Text and place of the ghost; nothing where nothing differs."""
    if other is None:
        return "", None
    ghost, design = other.promise(promise.key), other.design
    if ghost.target != promise.target and ghost.predicted == promise.predicted:
        unit = words.promise_unit(promise.key, design)
        asked = words.target_text(ghost, design).replace(f"\u202f{unit.unit}", "")
        text = f"asked {asked}" if kept else f"asks → {asked}"
        return text, _share(promise, ghost.target, promise.target)
    before = (promise.predicted, promise.margin)
    if ghost.predicted is None or (ghost.predicted, ghost.margin) == before:
        return "", None
    numeral = words.numeral(ghost, design)
    if numeral == words.numeral(promise, design):
        return "", None
    text = f"{kept} {numeral}" if kept else f"→ {numeral}"
    return text, _share(promise, ghost.predicted, promise.target)


def standing(assessment: Assessment) -> str:
    """How the promises stand, in one sentence to be heard: counts, then what is not kept."""
    counts = ", ".join(words_ for _, words_ in summary(assessment))
    behind = [
        f"{words.PROMISE_NAMES[p.key]} {words.margin_text(p, assessment.design)}"
        for p in assessment.promises
        if p.state in ("short", "close", "unknown")
    ]
    return ". ".join([f"Promises: {counts}", *behind])


DANGER = ("{} danger", "{} dangers")


def summary(assessment: Assessment) -> list[tuple[str, str]]:
    """(mark, words) of each state that occurs, at most three, most pressing last; dangers too."""
    wordings = {
        "met": "{} kept",
        "close": "{} close",
        "short": "{} short",
        "wish": "{} wish missed",
        "unknown": "{} not known",
    }
    marks = [mark_of(p) for p in assessment.promises]
    counts = [(m, marks.count(m)) for m in wordings if m in marks]
    found = len(dangers(assessment.design))
    most = 2 if found else 3
    shown = counts if len(counts) <= most else [counts[0], *counts[1 - most :]]
    rows = [(m, wordings[m].format(n)) for m, n in shown] or [("none", "none made")]
    return [*rows, ("short", DANGER[found > 1].format(found))] if found else rows
