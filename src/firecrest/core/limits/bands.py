"""Band edges and extremes of a response, refined between grid points."""

import numpy as np

from firecrest.core.arrays import Real


def upward_crossing(frequency: Real, level: Real, threshold: float) -> float | None:
    """Lowest frequency at which ``level`` (dB, (F,)) rises through ``threshold``; None if never."""
    above = level >= threshold
    rises = np.nonzero(above[1:] & ~above[:-1])[0]
    if len(rises) == 0:
        return None
    k = int(rises[0])
    share = (threshold - level[k]) / (level[k + 1] - level[k])
    low, high = np.log(frequency[k]), np.log(frequency[k + 1])
    return float(np.exp(low + share * (high - low)))


def refined_peak(frequency: Real, values: Real, place: int) -> tuple[float, float]:
    """(Hz, value) of the extreme next to grid point ``place``, by a parabola over ln f."""
    if place in (0, len(values) - 1):
        return float(frequency[place]), float(values[place])
    x = np.log(frequency[place - 1 : place + 2])
    curve = np.polyfit(x - x[1], values[place - 1 : place + 2], 2)
    if curve[0] == 0:
        return float(frequency[place]), float(values[place])
    shift = -curve[1] / (2 * curve[0])
    return float(np.exp(x[1] + shift)), float(np.polyval(curve, shift))


def peaks(frequency: Real, values: Real) -> list[tuple[float, float]]:
    """All inner maxima of ``values`` as (Hz, value), lowest frequency first."""
    inner = (values[1:-1] > values[:-2]) & (values[1:-1] >= values[2:])
    return [refined_peak(frequency, values, int(k) + 1) for k in np.nonzero(inner)[0]]


def band_edges(frequency: Real, level: Real, reference: float) -> dict[str, float | None]:
    """F3, F6 and F10 in Hz against ``reference`` dB: lowest upward crossings."""
    return {f"F{drop}": upward_crossing(frequency, level, reference - drop) for drop in (3, 6, 10)}
