"""A stretch of a frequency grid with its two ends, which need not be grid points."""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real, between


@dataclass(frozen=True)
class Band:
    """``places`` (..., n) in Hz: the low end, the grid points between, the high end.

    Where the ends are columns of designs, grid points outside a design's band stand at its nearer
    end, with the value there: they change no extreme, no crossing and no integral.
    """

    frequency: Real
    places: Real
    low: Real
    high: Real
    span: slice

    def of(self, values: Real) -> Real:
        """``values`` (..., F) read at ``places``; straight lines over ln f."""
        log = np.log(self.frequency)
        low = between(log, values, np.log(self.low))
        high = between(log, values, np.log(self.high))
        inner = values[..., self.span]
        if self.low.size > 1 or self.high.size > 1:
            grid = self.frequency[self.span]
            inner = np.where(grid <= self.low, low, np.where(grid >= self.high, high, inner))
        lead = np.broadcast_shapes(*(part.shape[:-1] for part in (low, inner, high)))
        parts = [np.broadcast_to(p, (*lead, p.shape[-1])) for p in (low, inner, high)]
        return np.concatenate(parts, axis=-1)


def band(frequency: Real, low: Number, high: Number) -> Band:
    """The band from ``low`` to ``high`` Hz, floats or columns; an empty one is its two ends."""
    low, high = np.atleast_1d(low), np.atleast_1d(high)
    start = int(np.searchsorted(frequency, np.min(low), side="right"))
    stop = max(int(np.searchsorted(frequency, np.max(high), side="left")), start)
    span = slice(start, stop)
    inner = np.clip(frequency[span], low, np.maximum(low, high))
    lead = np.broadcast_shapes(low.shape[:-1], high.shape[:-1])
    parts = [np.broadcast_to(p, (*lead, p.shape[-1])) for p in (low, inner, high)]
    return Band(frequency, np.concatenate(parts, axis=-1), low, high, span)
