"""A stretch of a frequency grid with its two ends, which need not be grid points."""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real, picked


@dataclass(frozen=True)
class End:
    """An end in Hz: between grid points ``place`` - 1 and ``place``, by ``share`` of ln f."""

    where: Real
    place: Real
    share: Real

    def of(self, values: Real) -> Real:
        """``values`` (..., F) there, on straight lines over ln f; (..., 1).

        Next to a value of -inf the line is -inf as a whole, but for its other end.
        """
        if self.place.size == 1:
            return self._of_all(values, self.place.item(), self.share.item())
        low, high = picked(values, self.place - 1), picked(values, self.place)
        with np.errstate(invalid="ignore"):
            found = low * (1.0 - self.share) + high * self.share
        if np.isnan(found).any():
            ends = np.where(self.share == 0.0, low, np.where(self.share == 1.0, high, -np.inf))
            return np.where(np.isnan(found), ends, found)
        return np.asarray(found)

    @staticmethod
    def _of_all(values: Real, place: int, share: float) -> Real:
        """The same where all designs have one end: its place and share are plain numbers."""
        low, high = values[..., place - 1 : place], values[..., place : place + 1]
        if share in (0.0, 1.0):
            return high if share else low
        return np.asarray(low * (1.0 - share) + high * share)


def end_at(log: Real, where: Real) -> End:
    """The end at ``where`` Hz (..., 1) of the grid with ``log`` = ln f; flat beyond the grid."""
    x = np.log(where)
    place = np.minimum(np.maximum(log.searchsorted(x), 1), len(log) - 1)
    share = (x - log[place - 1]) / (log[place] - log[place - 1])
    return End(where, place, np.minimum(np.maximum(share, 0.0), 1.0))


@dataclass(frozen=True)
class Band:
    """``places`` (..., n) in Hz: the low end, the grid points between, the high end.

    Where the ends are columns of designs, grid points outside a design's band stand at its nearer
    end, with the value there (``beyond`` says which): they change no extreme, no crossing and no
    integral.
    """

    places: Real
    low: End
    high: End
    span: slice
    beyond: tuple[Real, Real] | None

    def of(self, values: Real) -> Real:
        """``values`` (..., F) read at ``places``."""
        low, high, inner = self.low.of(values), self.high.of(values), values[..., self.span]
        if self.beyond is not None:
            below, above = self.beyond
            inner = np.where(below, low, np.where(above, high, inner))
        return _row(low, inner, high)

    @property
    def empty(self) -> Real:
        """Where the high end is not above the low one, (..., 1)."""
        return np.asarray(self.high.where <= self.low.where)


def band(frequency: Real, low: Number, high: Number) -> Band:
    """The band from ``low`` to ``high`` Hz, floats or columns; an empty one is its two ends."""
    low, high = np.atleast_1d(low), np.atleast_1d(high)
    start = int(frequency.searchsorted(low.min(), side="right"))
    stop = max(int(frequency.searchsorted(high.max(), side="left")), start)
    span, log, beyond = slice(start, stop), np.log(frequency), None
    inner = frequency[span]
    if low.size > 1 or high.size > 1:
        beyond = (inner <= low, inner >= high)
        inner = np.clip(inner, low, np.maximum(low, high))
    return Band(_row(low, inner, high), end_at(log, low), end_at(log, high), span, beyond)


def around(frequency: Real, low: Number, high: Number) -> slice:
    """The part of a grid that a band needs: its points and one more at each end, two at least."""
    start = int(frequency.searchsorted(np.min(low), side="right"))
    stop = int(frequency.searchsorted(np.max(high), side="left"))
    first = min(max(min(start, stop) - 1, 0), len(frequency) - 2)
    return slice(first, max(stop, start, 1) + 1)


def _row(low: Real, inner: Real, high: Real) -> Real:
    """The three side by side along the last axis."""
    if low.ndim == inner.ndim == high.ndim == 1:
        return np.concatenate((low, inner, high))
    lead = np.broadcast_shapes(low.shape[:-1], inner.shape[:-1], high.shape[:-1])
    row = np.empty((*lead, inner.shape[-1] + 2))
    row[..., :1], row[..., 1:-1], row[..., -1:] = low, inner, high
    return row
