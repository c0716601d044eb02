"""All designs that were tried, as points under two promises."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import floor, log10

from firecrest.assessment.assess import Assessment
from firecrest.core.units import figure, from_si
from firecrest.design.brief import Brief
from firecrest.present.text import words

AXES = ("loudness", "bass", "runtime", "weight", "cost")
FLOORS = ("loudness", "runtime")
MARGIN = 0.08
"""Share of the span that is left free round the points."""


@dataclass(frozen=True)
class Point:
    """A tried design: its figures by promise, in SI, and its letter where it is a variant."""

    figures: Mapping[str, float]
    letter: str = ""
    here: bool = False


@dataclass(frozen=True)
class Axis:
    """A promise as an axis in its shown unit: span, target, and on which side it is kept."""

    key: str
    label: str
    low: float
    high: float
    target: float
    floor: bool
    judged: bool


def point_of(assessment: Assessment, letter: str = "", *, here: bool = False) -> Point:
    """A design as a point."""
    figures = {p.key: p.predicted for p in assessment.promises if p.predicted is not None}
    return Point(figures, letter, here)


def axis(key: str, points: Sequence[Point], brief: Brief) -> Axis:
    """The axis of a promise: all points and the target fit on it."""
    quantity, unit, _ = words.SHOWN_IN[key]
    target = from_si(_target(brief, key), quantity, unit)
    values = [from_si(p.figures[key], quantity, unit) for p in points if key in p.figures]
    low, high = min([*values, target]), max([*values, target])
    room = MARGIN * (high - low) or max(abs(target) * MARGIN, 1e-6)
    name = f"{words.PROMISE_NAMES[key]}, {unit}"
    judged = getattr(brief, key).importance != "open"
    return Axis(key, name, low - room, high + room, target, key in FLOORS, judged)


def place(value: float, on: Axis) -> float:
    """Where a figure in SI stands on an axis, from 0 to 1."""
    quantity, unit, _ = words.SHOWN_IN[on.key]
    return (from_si(value, quantity, unit) - on.low) / (on.high - on.low)


def _target(brief: Brief, key: str) -> float:
    return float(
        {
            "loudness": brief.loudness.level,
            "bass": brief.bass.frequency,
            "runtime": brief.runtime.duration,
            "weight": brief.weight.mass,
            "cost": brief.cost.price,
        }[key]
    )


def ticks(on: Axis, count: int = 4) -> list[tuple[float, str]]:
    """(place, text) of a few round values."""
    step = _round_step((on.high - on.low) / count)
    first = int(on.low // step) + 1
    digits = 0 if step >= 1 else 1 if step >= 0.1 else 2
    values = [k * step for k in range(first, int(on.high // step) + 1)]
    return [((v - on.low) / (on.high - on.low), figure(v, digits)) for v in values]


def _round_step(rough: float) -> float:
    base = float(10 ** floor(log10(rough)))
    return next(m * base for m in (1.0, 2.0, 5.0, 10.0) if m * base >= rough)


def spoken(points: Sequence[Point], x: Axis, y: Axis) -> str:
    """The cloud in words."""
    both = [p for p in points if _kept(p, x) and _kept(p, y)]
    return f"{len(points)} designs tried, {len(both)} keep both {x.label} and {y.label}"


def _kept(point: Point, on: Axis) -> bool:
    if point.figures.get(on.key) is None:
        return False
    quantity, unit, _ = words.SHOWN_IN[on.key]
    value = from_si(point.figures[on.key], quantity, unit)
    return value >= on.target if on.floor else value <= on.target
