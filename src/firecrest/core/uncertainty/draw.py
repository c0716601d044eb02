"""Draws of uncertain figures: the same for every design, so that differences stay differences.

A tolerance t is the 5-95 % range, a share either way. Positive figures are log-normal with
sigma ln(1 + t)/1.645; what may be 0 or negative is normal with sigma t/1.645.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import log1p

import numpy as np

from firecrest.core.arrays import Number, Real

SAMPLES = 256
"""Designs drawn; a power of two, as the sequence asks for."""
SEED = 20
NINETY = 1.645
"""Sigmas from the middle to the 5th and the 95th percentile of a normal distribution."""
BLOCK, BLOCKS = 64, 8
"""Columns of the sequence that are well spread against each other, and copies of them."""
DIMENSIONS = BLOCK * BLOCKS
"""Columns in all; each figure has its own, whatever else is in the design."""
CLOSE = 0.2
"""Correlation above which a column of the sequence is passed over."""
SAME = 1e-9
"""Share of a figure's own variance below which it says nothing that others did not say."""


def sigma_of(tolerance: float) -> float:
    """Sigma of the logarithm of a positive figure within a ``tolerance`` (share either way)."""
    return log1p(tolerance) / NINETY


@lru_cache(maxsize=4)
def normals(samples: int = SAMPLES) -> Real:
    """Standard normal deviates (samples, DIMENSIONS), read-only.

    Source: Sobol points (Joe & Kuo, SIAM J. Sci. Comput. 30 (2008) 2635-2654), scrambled with a
    fixed seed, through the normal quantile. So few points in so many dimensions leave pairs of
    columns that go with each other: these are passed over, and beyond the first ``BLOCK`` columns
    come the same ones in another order of rows (Latin supercube: Owen, ACM Trans. Model. Comput.
    Simul. 8 (1998) 71-102).
    """
    from scipy.special import ndtri
    from scipy.stats import qmc

    sequence = qmc.Sobol(2 * BLOCK, scramble=True, rng=np.random.default_rng(SEED))
    points = ndtri(np.clip(sequence.random(samples), 1e-9, 1.0 - 1e-9))
    block = points[:, _apart(points)]
    orders = (np.random.default_rng(SEED + k).permutation(samples) for k in range(1, BLOCKS))
    found = np.hstack([block, *(block[order] for order in orders)])
    found.flags.writeable = False
    return found


def _apart(points: Real) -> list[int]:
    """The first ``BLOCK`` columns of which no two go with each other, as far as there are such."""
    together = np.abs(np.corrcoef(points.T))
    kept: list[int] = []
    for k in range(points.shape[1]):
        if not kept or together[k, kept].max() < CLOSE:
            kept.append(k)
    return (kept + [k for k in range(points.shape[1]) if k not in kept])[:BLOCK]


@dataclass(frozen=True)
class Stated:
    """A figure that a sheet states: logarithm = ``weights`` . columns, known to ``sigma``.

    One that is ``held`` has this sigma also where its columns imply less.
    """

    weights: Real
    sigma: float
    held: bool = False


def conditioned(covariance: Real, stated: Sequence[Stated]) -> Real:
    """``covariance`` (n, n) of columns once figures that follow from them are stated more tightly.

    Each stated figure keeps its own sigma where that is less than what the columns imply: with A
    the weights of these and S = A P A', P becomes P - K (S - R) K', K = P A' S^-1 (linear-Gaussian
    conditioning on a figure that is itself spread by R; Jeffrey's rule). Figures that only repeat
    others by then narrow what is left one after the other. Tighter figures go first.
    """
    prior, chosen, late = covariance, list[Stated](), list[Stated]()
    for figure in sorted(stated, key=lambda s: s.sigma):
        implied = _variance(_joint(prior, chosen), figure.weights)
        if figure.held or figure.sigma**2 < implied:
            repeats = _left_open(prior, chosen, figure.weights)
            (late if repeats < SAME else chosen).append(figure)
    found = _joint(prior, chosen)
    for figure in late:
        if figure.sigma**2 < _variance(found, figure.weights):
            found = _joint(found, [figure])
    return found


def _variance(covariance: Real, weights: Real) -> float:
    return float(weights @ covariance @ weights)


def _joint(covariance: Real, stated: Sequence[Stated]) -> Real:
    """Covariance once all ``stated`` figures, none of which follows from others, keep theirs."""
    if not stated:
        return covariance
    rows = np.array([s.weights for s in stated])
    spread = rows @ covariance @ rows.T
    own = np.diag([s.sigma**2 for s in stated])
    gain = np.linalg.solve(spread, rows @ covariance).T
    return np.asarray(covariance - gain @ (spread - own) @ gain.T)


def _left_open(covariance: Real, stated: Sequence[Stated], weights: Real) -> float:
    """Share of a figure's variance that is left once all ``stated`` ones are exact."""
    exact = [Stated(s.weights, 0.0) for s in stated]
    return _variance(_joint(covariance, exact), weights) / _variance(covariance, weights)


def drawn(covariance: Real, deviates: Real) -> Real:
    """Deviations (n, samples) with ``covariance`` from standard ``deviates`` (samples, n).

    By the symmetric root, so that each column goes with its own deviate as far as it can.
    """
    values, vectors = np.linalg.eigh(covariance)
    half = (vectors * np.sqrt(np.maximum(values, 0.0))) @ vectors.T
    return np.asarray(half @ deviates.T)


def with_exact(deviations: Real, covariance: Real, weights: Real) -> Real:
    """``deviations`` (n, samples) as they would be if the figure of ``weights`` were exact.

    x - K (w . x), K = P w/(w' P w): what goes with the figure goes with it to its nominal value.
    """
    variance = _variance(covariance, weights)
    if variance <= 0.0:
        return deviations
    gain = covariance @ weights / variance
    return np.asarray(deviations - np.outer(gain, weights @ deviations))


def applied(nominal: Number, deviation: Real, *, logarithmic: bool) -> Real:
    """A figure's column (samples, 1)."""
    moved = nominal * np.exp(deviation) if logarithmic else nominal + deviation
    return np.asarray(moved)[:, None]
