"""The map as areas, lines and words in shares of its width and height; no pixels.

Shares run from 0 at the left and at the bottom to 1 at the right and at the top.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from contourpy import FillType, LineType, contour_generator

from firecrest.assessment.assess import Assessment
from firecrest.core.arrays import Real
from firecrest.core.limits.kinds import kind_of_code
from firecrest.core.units import figure, from_si
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.present.plot.plot import round_step
from firecrest.present.text.units import told, units
from firecrest.present.text.words import PROMISE_NAMES, SHOWN_IN, joined
from firecrest.proposals.mapping import (
    BUILT,
    HEAVIEST,
    NO_AIR,
    SPARE,
    TOO_HIGH,
    TOO_LOW,
    Axis,
    Key,
    Map,
)

AXES: dict[Key, tuple[str, str, str, int]] = {
    "air": ("Air volume", "volume", "L", 2),
    "tuning": ("Tuning", "frequency", "Hz", 1),
    "length": ("Length outside", "length", "mm", 0),
    "height": ("Height outside", "length", "mm", 0),
    "depth": ("Depth outside", "length", "mm", 0),
    "mass": ("Added mass, each", "mass", "g", 0),
    "port": ("Port diameter", "length", "mm", 0),
    "boost": ("Boost", "gain", "dB", 1),
    "cells": ("Strings of cells", "number", "", 0),
    "crossover": ("Crossover", "frequency", "Hz", 0),
}
"""Name, quantity, usual unit and decimals of each figure."""
FILLS = ("loudness", "worst", "bass", "runtime", "weight", "cost")
FILL_NAMES = {**PROMISE_NAMES, "worst": "Worst promise"}
STEPS = 8
Rings = tuple[tuple[Real, ...], ...]
"""Polygons, each an outer ring and its holes."""
LESS_IS_MORE = ("bass", "weight", "cost")
TELLING = 0.02
"""Share of the map from which on a territory is named."""


@dataclass(frozen=True)
class Area:
    """Polygons, each an outer ring and its holes in shares, and which step of the fill they are."""

    step: int
    rings: Rings


@dataclass(frozen=True)
class Stripe:
    """Lines in shares, with a tag at a spot."""

    lines: tuple[Real, ...]
    tag: str
    at: tuple[float, float] | None


Spot = tuple[float, float]
"""Shares of both axes."""


@dataclass(frozen=True)
class Named:
    """Words at a spot, or at the next best where that is taken; ``role``: colour or ``limit:X``."""

    text: str
    spots: tuple[Spot, ...]
    role: str


@dataclass(frozen=True)
class MapPicture:
    """Everything a map draws."""

    name: str
    x_label: str
    y_label: str
    x_ticks: tuple[tuple[float, str], ...]
    y_ticks: tuple[tuple[float, str], ...]
    areas: tuple[Area, ...]
    contours: tuple[Stripe, ...]
    promises: tuple[Stripe, ...]
    borders: tuple[Real, ...]
    territories: tuple[Named, ...]
    lost: tuple[Area, ...]
    plates: tuple[Named, ...]
    outside: Area | None
    legend: tuple[str, ...]
    spoken: str


def fill_name(fill: str) -> str:
    """What a map is filled by."""
    if fill.startswith(SPARE):
        return f"{kind_of_code(fill[len(SPARE) :]).title} to spare"
    return FILL_NAMES[fill]


def fills_of(found: Map) -> list[str]:
    """What this map can be filled by: promises, the worst, and what each limit has to spare."""
    return [*FILLS, *(key for key in found.values if key.startswith(SPARE))]


def axis_label(key: Key) -> str:
    """An axis with its unit."""
    name, quantity, usual, _ = AXES[key]
    unit = units.unit(quantity, usual)
    return f"{name}, {unit}" if unit else name


def axis_text(key: Key, value: float) -> str:
    """A value on an axis."""
    _, quantity, usual, digits = AXES[key]
    return told(value, quantity, usual, digits)


def share_of(axis: Axis, value: float) -> float:
    """Where a value stands on an axis, 0 to 1."""
    return (value - axis.low) / (axis.high - axis.low)


def ticks(axis: Axis) -> tuple[tuple[float, str], ...]:
    """(share, text) of round values."""
    _, quantity, usual, _ = AXES[axis.key]
    unit = units.unit(quantity, usual)
    low, high = (from_si(v, quantity, unit) for v in (axis.low, axis.high))
    step = 1.0 if axis.whole else round_step(0.6 * (high - low))
    digits = 0 if step >= 1 else 1 if step >= 0.1 else 2
    first, last = int(np.ceil(low / step - 1e-9)), int(np.floor(high / step + 1e-9))
    return tuple(
        ((k * step - low) / (high - low), figure(k * step, digits)) for k in range(first, last + 1)
    )


def picture(found: Map, assessment: Assessment, fill: str) -> MapPicture:
    """The map as it is drawn, filled by a promise or by the worst of them."""
    design = assessment.design
    x, y = _shares(found.across, found.x), _shares(found.up, found.y)
    values = _filled(found, fill)
    levels = _levels(values, fill)
    territories = tuple(_territories(found, x, y))
    return MapPicture(
        fill_name(fill),
        axis_label(found.across.key),
        axis_label(found.up.key),
        ticks(found.across),
        ticks(found.up),
        tuple(_areas(x, y, values, levels, fill)),
        tuple(_contours(x, y, values, levels)),
        tuple(_promises(found, design, x, y)),
        tuple(_borders(found, x, y)),
        territories,
        tuple(_lost(found, x, y)),
        tuple(_plates(found, design, x, y)),
        _outside(found, x, y),
        tuple(figure(level, _digits(levels)) for level in levels),
        _spoken(found, fill, territories),
    )


def _shares(axis: Axis, values: Real) -> Real:
    return np.asarray((values - axis.low) / (axis.high - axis.low))


def _filled(found: Map, fill: str) -> Real:
    """The fill in its shown unit."""
    if fill == "worst":
        return found.worst
    if fill.startswith(SPARE):
        return found.values[fill]
    quantity, usual, _ = SHOWN_IN[fill]
    unit = units.unit(quantity, usual)
    scale = from_si(1.0, quantity, unit) - from_si(0.0, quantity, unit)
    return np.asarray(found.values[fill] * scale)


def _levels(values: Real, fill: str) -> list[float]:
    """Lower edges of the steps, the lowest first."""
    known = values[np.isfinite(values)]
    if not len(known):
        return []
    low, high = float(known.min()), float(known.max())
    step = 1.0 if fill == "loudness" else max(round_step(0.6 * (high - low)), 1e-6)
    top = np.floor(high / step) * step
    first = max(np.floor(low / step) * step, top - (STEPS - 1) * step)
    return [float(v) for v in np.arange(first, top + step / 2, step)][-STEPS:]


def _digits(levels: Sequence[float]) -> int:
    step = levels[1] - levels[0] if len(levels) > 1 else 1.0
    return 0 if step >= 1 else 1 if step >= 0.1 else 2


def _generator(x: Real, y: Real, values: Real) -> object:
    return contour_generator(
        x, y, np.ma.masked_invalid(values), fill_type=FillType.OuterOffset,
        line_type=LineType.Separate,
    )  # fmt: skip


def _polygons(
    x: Real, y: Real, values: Real, low: float, high: float
) -> tuple[tuple[Real, ...], ...]:
    points, offsets = _generator(x, y, values).filled(low, high)  # type: ignore[attr-defined]
    return tuple(
        tuple(ring[a:b] for a, b in pairwise(cuts))
        for ring, cuts in zip(points, offsets, strict=True)
    )


def _lines(x: Real, y: Real, values: Real, level: float) -> tuple[Real, ...]:
    return tuple(_generator(x, y, values).lines(level))  # type: ignore[attr-defined]


def _areas(x: Real, y: Real, values: Real, levels: Sequence[float], fill: str) -> Iterator[Area]:
    """Bands of the fill; where less is more the fullest colour is the least value."""
    ends = [*levels[1:], np.inf][: len(levels)]
    for k, (low, high) in enumerate(zip(levels, ends, strict=True)):
        place = k + STEPS - len(levels)
        if fill in LESS_IS_MORE:
            place = STEPS - 1 - place if len(levels) == STEPS else len(levels) - 1 - k
        start = -1e12 if k == 0 else low
        yield Area(place, _polygons(x, y, values, start, min(high, 1e12)))


def _contours(x: Real, y: Real, values: Real, levels: Sequence[float]) -> Iterator[Stripe]:
    for level in levels[1:]:
        lines = _lines(x, y, values, level)
        yield Stripe(lines, figure(level, _digits(levels)), _middle(lines))


def _middle(lines: Sequence[Real], share: float = 0.5) -> tuple[float, float] | None:
    """A spot on the longest line."""
    longest = max(lines, key=len, default=None)
    if longest is None or len(longest) < 2:
        return None
    x, y = longest[int(share * (len(longest) - 1))]
    return float(x), float(y)


def _promises(found: Map, design: Design, x: Real, y: Real) -> Iterator[Stripe]:
    """Each promise as a stripe: on one side it is kept."""
    brief = design.brief
    targets = {
        "loudness": brief.loudness.level,
        "bass": brief.bass.frequency,
        "runtime": brief.runtime.duration,
        "weight": brief.weight.mass,
        "cost": brief.cost.price,
    }
    for k, (key, target) in enumerate(targets.items()):
        if getattr(brief, key).importance != "open":
            quantity, usual, digits = SHOWN_IN[key]
            tag = told(target, quantity, usual, min(digits, 1))
            lines = _lines(x, y, found.values[key], target)
            if lines:
                yield Stripe(lines, tag, _middle(lines, 0.2 + 0.15 * k))
    if brief.size.importance != "open":
        lines = _lines(x, y, found.size, 0.0)
        if lines:
            yield Stripe(lines, "size promise", _middle(lines, 0.9))


def loudness_lines(found: Map, assessment: Assessment) -> tuple[Real, ...]:
    """Where the promised loudness is just kept, in shares."""
    x, y = _shares(found.across, found.x), _shares(found.up, found.y)
    return _lines(x, y, found.values["loudness"], assessment.design.brief.loudness.level)


def _outside(found: Map, x: Real, y: Real) -> Area | None:
    """What is larger than promised."""
    rings = _polygons(x, y, np.where(np.isfinite(found.size), found.size, np.nan), -1e9, 0.0)
    return Area(0, rings) if rings else None


def _borders(found: Map, x: Real, y: Real) -> Iterator[Real]:
    """Where one limit takes over from another; not at the edge of what can be built."""
    for letter in _letters(found):
        mask = np.where(found.fate == BUILT, (found.letters == letter).astype(float), np.nan)
        yield from _lines(x, y, mask, 0.5)


def _letters(found: Map) -> list[int]:
    letters, counts = np.unique(found.letters[found.fate == BUILT], return_counts=True)
    least = TELLING * found.fate.size
    return [int(v) for v, n in zip(letters, counts, strict=True) if v and n >= least]


def _territories(found: Map, x: Real, y: Real) -> Iterator[Named]:
    for letter in _letters(found):
        code = chr(letter)
        spots = _inside((found.letters == letter) & (found.fate == BUILT), x, y)
        yield Named(kind_of_code(code).title, spots, f"limit:{code}")


def _inside(mask: Real, x: Real, y: Real) -> tuple[Spot, ...]:
    """The spots of an area, those farthest from its edges first, and of these the middle one."""
    depth, left = np.zeros(mask.shape, dtype=int), mask
    while left.any():
        depth += left
        padded = np.pad(left, 1)
        left = padded[1:-1, 1:-1] & padded[:-2, 1:-1] & padded[2:, 1:-1]
        left &= padded[1:-1, :-2] & padded[1:-1, 2:]
    places = np.argwhere(mask)
    deep = depth[mask]
    middle = np.median(np.flatnonzero(deep == deep.max()))
    order = np.lexsort((np.abs(np.arange(len(deep)) - middle), -deep))
    return tuple((float(x[n]), float(y[m])) for m, n in places[order])


def _lost(found: Map, x: Real, y: Real) -> Iterator[Area]:
    for fate in (TOO_HIGH, TOO_LOW, NO_AIR):
        mask = (found.fate == fate).astype(float)
        if mask.any():
            yield Area(fate, _polygons(x, y, mask, 0.5, 2.0))


def _plates(found: Map, design: Design, x: Real, y: Real) -> Iterator[Named]:
    """Why what cannot be built cannot be."""
    for fate, text in _reasons(design).items():
        mask = found.fate == fate
        if mask.sum() >= TELLING * mask.size:
            yield Named(text, _inside(mask, x, y), "ink")


def _reasons(design: Design) -> dict[int, str]:
    sets = [item.radiator.name for _, item in placed(design.box.openings, RadiatorSet)]
    if sets:
        return {
            TOO_HIGH: f"Cannot be tuned this high\na bare {sets[0]} is too heavy",
            TOO_LOW: f"Not loaded so far\nover {told(HEAVIEST, 'mass', 'g', 0)} on each radiator",
            NO_AIR: "Leaves no air",
        }
    return {
        TOO_HIGH: "Cannot be tuned this high\nthe port cannot be shorter",
        TOO_LOW: "Cannot be tuned this low\nthe port is too long for the case",
        NO_AIR: "Leaves no air",
    }


def _spoken(found: Map, fill: str, territories: Sequence[Named]) -> str:
    built = float(np.mean(found.fate == BUILT))
    names = list(dict.fromkeys(t.text for t in territories))
    first = f" First to give: {joined(names)}." if names else ""
    return (
        f"{fill_name(fill)} over {axis_label(found.across.key)} and {axis_label(found.up.key)}; "
        f"{100 * built:.0f} % can be built.{first}"
    )
