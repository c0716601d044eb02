"""Least distance of two convex pieces, and of solids made of them.

Gilbert, Johnson and Keerthi (1988): the point of the difference of two hulls that is nearest to
the origin, found on simplices of at most four of its corners.
"""

from itertools import combinations

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.solids import Solid

STEPS = 80
CLOSE = 1e-7
"""m to which a distance is found."""
TOUCHING = 1e-9


def apart(a: Real, b: Real) -> float:
    """Least distance in m of the hulls of points (n, 3) and (m, 3); 0 where they meet."""
    simplex = [a[0] - b[0]]
    nearest = simplex[0]
    for _ in range(STEPS):
        square = float(nearest @ nearest)
        if square < TOUCHING**2:
            return 0.0
        corner = a[np.argmin(a @ nearest)] - b[np.argmax(b @ nearest)]
        if square - float(nearest @ corner) <= CLOSE * square**0.5:
            return float(square**0.5)
        simplex.append(corner)
        simplex, found = _nearest(simplex)
        if float(found @ found) >= square:
            return float(square**0.5)
        nearest = found
    return float(np.sqrt(nearest @ nearest))


def _nearest(simplex: list[Real]) -> tuple[list[Real], Real]:
    """The point of a simplex next to the origin, and the corners that hold it."""
    best, kept = None, simplex
    *others, newest = simplex
    for count in range(len(simplex)):
        for chosen in combinations(others, count):
            point = _foot((*chosen, newest))
            if point is not None and (best is None or float(point @ point) < float(best @ best)):
                best, kept = point, [*chosen, newest]
    assert best is not None
    return kept, best


def _foot(corners: tuple[Real, ...]) -> Real | None:
    """The origin's foot on the flat through ``corners`` if it lies inside them."""
    first = corners[0]
    if len(corners) == 1:
        return first
    edges = np.array(corners[1:]) - first
    gram = edges @ edges.T
    try:
        weights = np.linalg.solve(gram, -(edges @ first))
    except np.linalg.LinAlgError:
        return None
    if np.any(weights < 0) or weights.sum() > 1:
        return None
    return np.asarray(first + weights @ edges)


def solids_apart(a: Solid, b: Solid, within: float) -> float | None:
    """Least distance of two solids; None where it is more than ``within`` for sure."""
    between = float(np.sqrt(np.sum((a.middle - b.middle) ** 2)))
    if between - a.reach - b.reach > within:
        return None
    return min(apart(p.reshape(-1, 3), q.reshape(-1, 3)) for p in a.pieces for q in b.pieces)
