"""Spread of what follows from uncertain figures."""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Real

LOW, HIGH = 5.0, 95.0
"""Percentiles between which a figure likely is."""


@dataclass(frozen=True)
class Band:
    """5th and 95th percentile of a figure; ``kept`` is the share of builds that keep it."""

    low: float
    high: float
    kept: float

    @property
    def width(self) -> float:
        """From one end to the other."""
        return self.high - self.low

    @property
    def undecided(self) -> bool:
        """Whether the target lies inside: it may be kept and it may not."""
        return LOW / 100 < self.kept < HIGH / 100


def band(values: Real, kept: Real) -> Band | None:
    """Band of ``values`` (samples,) of which some are ``kept``; None when most are not known."""
    known = values[np.isfinite(values)]
    if 2 * len(known) <= len(values):
        return None
    low, high = np.percentile(known, (LOW, HIGH))
    return Band(float(low), float(high), float(np.mean(kept)))


def band_along(values: Real) -> tuple[Real, Real]:
    """(5th, 95th percentile) of curves (samples, F) at each frequency; NaN where none is known."""
    # Sorted once, what is not known last: the library's way with gaps goes column by column.
    ordered = np.sort(np.where(np.isfinite(values), values, np.nan), axis=0)
    count = np.sum(np.isfinite(ordered), axis=0)
    return _percentile(ordered, count, LOW), _percentile(ordered, count, HIGH)


def _percentile(ordered: Real, count: Real, percent: float) -> Real:
    """A percentile of each column's first ``count`` values, straight between neighbours."""
    place = np.maximum(count - 1, 0) * (percent / 100.0)
    below = np.floor(place).astype(int)
    above = np.minimum(below + 1, np.maximum(count - 1, 0))
    columns = np.arange(ordered.shape[1])
    low, high = ordered[below, columns], ordered[above, columns]
    return np.asarray(low + (place - below) * (high - low))
