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
    known = np.where(np.isfinite(values), values, np.nan)
    somewhere = np.isfinite(known).any(axis=0)
    found = np.full((2, values.shape[1]), np.nan)
    found[:, somewhere] = np.nanpercentile(known[:, somewhere], (LOW, HIGH), axis=0)
    return found[0], found[1]
