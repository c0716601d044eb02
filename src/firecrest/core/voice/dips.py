"""Dips of a response, and which of them are cancellations that no filter should fill.

The rule is our own; docs/physics.md, "Automatic EQ". Excess phase: Preis, JAES 30 (1982) 774.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import degrees

import numpy as np

from firecrest.core.arrays import Real

DEEP = 3.0
"""DB below the octave mean from which a run of points is a dip."""
STEP = 90.0
"""Degrees of a step of the excess phase across a dip from which it is a cancellation."""
LOSS = -6.0
"""DB of the loss of the sum of known ways from which it is one."""
BLIND = 10.0
"""DB of depth from which it counts as one where neither phase nor ways are known."""
FILLED = 1.0
"""DB by which a cancellation may be lifted at the most."""
_SLACK = 1 + 1e-9


@dataclass(frozen=True)
class Dip:
    """From ``low`` to ``high`` Hz, ``depth`` dB below the octave mean at ``deepest`` Hz.

    ``step`` in degrees and ``loss`` in dB are None where phase or ways are not known.
    """

    low: float
    high: float
    deepest: float
    depth: float
    step: float | None
    loss: float | None

    @property
    def cancellation(self) -> bool:
        """Whether the sound cancels there, so that more of it would cancel too."""
        if self.step is not None and abs(self.step) > STEP:
            return True
        if self.loss is not None and self.loss < LOSS:
            return True
        return self.step is None and self.loss is None and self.depth > BLIND


def octave_mean(frequency: Real, level: Real) -> Real:
    """Mean of the dB of the points within half an octave either way, fewer at the ends."""
    root = 2**0.5 * _SLACK
    low = np.searchsorted(frequency, frequency / root)
    high = np.searchsorted(frequency, frequency * root, side="right")
    sums = np.concatenate(([0.0], np.cumsum(level)))
    return np.asarray((sums[high] - sums[low]) / (high - low))


def dips_of(
    frequency: Real,
    level: Real,
    band: tuple[float, float],
    excess: Real | None = None,
    loss: Real | None = None,
) -> list[Dip]:
    """Dips of a ``level`` (F,) in a band whose ends are points.

    ``excess`` is the excess phase in rad, ``loss`` that of the sum of the ways in dB, both (F,).
    """
    among = np.flatnonzero((frequency >= band[0] / _SLACK) & (frequency <= band[1] * _SLACK))
    f, depth = frequency[among], octave_mean(frequency[among], level[among]) - level[among]
    edges = np.flatnonzero(np.diff(np.concatenate(([0], (depth > DEEP).astype(int), [0]))))
    delay = None if excess is None else _median_delay(frequency[among], excess[among])
    found = []
    for a, b in zip(edges[::2], edges[1::2] - 1, strict=True):
        k = a + int(np.argmax(depth[a : b + 1]))
        step = None
        if excess is not None and delay is not None:
            first, last = max(among[a] - 1, 0), min(among[b] + 1, len(frequency) - 1)
            w = 2 * np.pi * (frequency[last] - frequency[first])
            step = degrees(-(excess[last] - excess[first]) - delay * w)
        lost = None if loss is None else float(np.min(loss[among[a] : among[b] + 1]))
        found.append(Dip(float(f[a]), float(f[b]), float(f[k]), float(depth[k]), step, lost))
    return found


def _median_delay(frequency: Real, excess: Real) -> float:
    return float(np.median(-np.diff(excess) / (2 * np.pi * np.diff(frequency))))


def weights_of(frequency: Real, band: tuple[float, float], left_out: Sequence[Dip]) -> Real:
    """Trapezoid weights over ln f of the points of a band, 0 within what is not to be filled."""
    among = np.flatnonzero((frequency >= band[0] / _SLACK) & (frequency <= band[1] * _SLACK))
    step = np.diff(np.log(frequency[among]))
    weights = np.zeros(len(frequency))
    weights[among[:-1]] += step / 2
    weights[among[1:]] += step / 2
    for dip in left_out:
        weights[(frequency >= dip.low / _SLACK) & (frequency <= dip.high * _SLACK)] = 0.0
    return np.asarray(weights / np.sum(weights))
