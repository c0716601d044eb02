"""Bass reach: where a response first falls by the promised drop, going down.

All definitions are in docs/physics.md, "Promises".
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real, picked
from firecrest.core.limits.band import Band, band
from firecrest.core.limits.loudness import TOP
from firecrest.core.note import Note, note

LOWEST = 5.0
"""Hz below which no reach is told apart."""
CROSSED, LOWER, INSIDE, NONE = range(4)
"""What kind of answer a reach is."""
REACH_NOTES = {LOWER: note("lowest", frequency=LOWEST), INSIDE: note("inside"), NONE: note("none")}
"""What is told of all but a plain crossing."""


@dataclass(frozen=True)
class Crossing:
    """Reach in Hz (NaN where there is none), its kind, and the smallest
    missing dB where there is none; arrays (..., 1).
    """

    frequency: Real
    kind: Real
    missing: Real


@dataclass(frozen=True)
class Reach:
    """The same of one design: ``frequency`` is None where there is no reach."""

    frequency: float | None
    note: Note | None = None
    missing: float = 0.0


def reach_of(found: Crossing, row: int = 0) -> Reach:
    """One design of many."""
    frequency, kind, missing = (
        float(np.ravel(x)[row]) for x in (found.frequency, found.kind, found.missing)
    )
    return Reach(None if np.isnan(frequency) else frequency, REACH_NOTES.get(int(kind)), missing)


def reference_band(corner: Number, lowest_low_pass: Number | None) -> tuple[Real, Real]:
    """[f_a, f_b] over which the response is averaged as the reference of bass reach."""
    high = np.minimum(8 * corner, TOP)
    if lowest_low_pass is not None:
        high = np.minimum(high, 0.7 * lowest_low_pass)
    return np.minimum(2 * corner, high / np.sqrt(2)), high


@dataclass(frozen=True)
class MeanBand:
    """A band with the weight of each of its places in a mean over ln f."""

    band: Band
    weights: Real

    def of(self, level: Real) -> Real:
        """Mean of ``level`` (dB, (..., F)), by trapezoids; (..., 1)."""
        return np.asarray(np.sum(self.band.of(level) * self.weights, axis=-1)[..., None])


def mean_band(frequency: Real, low: Number, high: Number) -> MeanBand:
    """The band [low, high] of a grid, for means."""
    whole = band(frequency, low, high)
    x = np.log(whole.places)
    step = np.diff(x, axis=-1)
    weights = np.zeros_like(x)
    weights[..., :-1] += 0.5 * step
    weights[..., 1:] += 0.5 * step
    return MeanBand(whole, weights / (x[..., -1:] - x[..., :1]))


@dataclass(frozen=True)
class Way:
    """Where a reach is looked for: from its start down, and from there up."""

    under: Band
    over: Band


def way_from(frequency: Real, f_a: Number) -> Way:
    """Both ways from ``f_a`` Hz to the ends of a grid."""
    under = band(frequency, np.minimum(frequency[0], f_a), f_a)
    return Way(under, band(frequency, f_a, np.maximum(frequency[-1], f_a)))


def crossing(way: Way, values: Real, drop: Number) -> Crossing:
    """First crossing of ``values`` (..., F) = -``drop`` going down from the start of ``way``.

    Where the values there are lower already, the lowest upward crossing above it.
    """
    under, over = way.under, way.over
    low = under.of(values) + drop
    below = low < 0
    last = low.shape[-1] - 1 - np.argmax(below[..., ::-1], axis=-1)[..., None]
    down = _zero(under.places, low, np.minimum(last, low.shape[-1] - 2))
    lower = ~below.any(axis=-1, keepdims=True) | (picked(under.places, last) < LOWEST)
    kind, found = np.where(lower, LOWER, CROSSED), np.where(lower, LOWEST, down)
    starts_under = low[..., -1:] < 0
    if not starts_under.any():
        return Crossing(found, kind, np.zeros_like(found))
    high = over.of(values) + drop
    above = high >= 0
    first = np.argmax(above, axis=-1)[..., None]
    up = _zero(over.places, high, np.maximum(first - 1, 0))
    none = starts_under & ~above.any(axis=-1, keepdims=True)
    kind = np.where(starts_under, np.where(none, NONE, INSIDE), kind)
    found = np.where(starts_under, np.where(none, np.nan, up), found)
    missing = np.where(none, -np.max(high, axis=-1, keepdims=True), 0.0)
    return Crossing(found, kind, missing)


def _zero(x: Real, y: Real, place: Real) -> Real:
    """Zero of ``y`` between ``place`` and the next point, on ln ``x``."""
    a, b = np.log(picked(x, place)), np.log(picked(x, place + 1))
    low, high = picked(y, place), picked(y, place + 1)
    with np.errstate(invalid="ignore", divide="ignore"):
        share = np.clip(low / (low - high), 0.0, 1.0)
        return np.asarray(np.exp(a + share * (b - a)))
