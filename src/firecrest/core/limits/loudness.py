"""Loudness as promised: how far the ceiling lies above the promised shape, at its tightest.

All definitions are in docs/physics.md, "Promises".
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real, picked
from firecrest.core.limits.band import Band, band

TOP = 500.0
"""Hz up to which a box of lumps is judged at most."""


@dataclass(frozen=True)
class Loudness:
    """Level in dB, its margin to the target, where it is held, and the grid point next to that.

    Floats, or arrays (..., 1) of designs; ``level`` is NaN where there is no band to judge.
    """

    level: Number
    margin: Number
    frequency: Number
    point: Real | int


def promised_shape(frequency: Number, corner: Number, drop: float) -> Real:
    """Promise shape T in dB: 20 lg(x^4/(1+x^4)), -``drop`` dB at ``corner`` Hz."""
    f0 = corner * (10 ** (drop / 20) - 1) ** 0.25
    x4 = (np.asarray(frequency) / f0) ** 4
    return np.asarray(20 * np.log10(x4 / (1 + x4)))


def upper_edge(longest_inner: Number, speed: Number, lowest_low_pass: Number | None) -> Real:
    """f_hi in Hz: up to where loudness is judged."""
    edge = np.minimum(TOP, speed / (2 * longest_inner))
    return np.asarray(edge if lowest_low_pass is None else np.minimum(edge, 0.7 * lowest_low_pass))


@dataclass(frozen=True)
class Judged:
    """Where loudness is judged: the band, the promised shape there, and the grid's ``middles``."""

    band: Band
    shape: Real
    middles: Real


def judged(frequency: Real, corner: Number, drop: float, f_hi: Number) -> Judged:
    """The band [corner, f_hi] on a grid."""
    within = band(frequency, corner, f_hi)
    return Judged(within, promised_shape(within.places, corner, drop), middles(frequency))


def loudness(over: Judged, level: Real, target: Number) -> Loudness:
    """Headline loudness of a ceiling ``level`` (..., F)."""
    spare = over.band.of(level) - over.shape
    tightest = np.argmin(spare, axis=-1)[..., None]
    where = picked(over.band.places, tightest)
    margin = np.where(over.band.empty, np.nan, picked(spare, tightest) - target)
    point = np.asarray(np.searchsorted(over.middles, where))
    return Loudness(target + margin, margin, where, point)


def middles(frequency: Real) -> Real:
    """Between the points of a grid, by ratio: the place of Hz among them is the nearest point."""
    return np.asarray(np.sqrt(frequency[1:] * frequency[:-1]))
