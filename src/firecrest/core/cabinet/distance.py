"""Least distance of two convex pieces, and of solids made of them.

Gilbert, Johnson and Keerthi (1988): the point of the difference of two hulls that is nearest to
the origin, found on simplices of at most four of its corners.
"""

from dataclasses import dataclass
from itertools import combinations

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.solids import Solid

STEPS = 80
CLOSE = 1e-7
"""m to which a distance is found."""
TOUCHING = 1e-9


@dataclass(frozen=True, eq=False)
class Nearest:
    """Least distance in m, and the point of either solid that is nearest to the other."""

    gap: float
    here: Real
    there: Real


Corner = tuple[Real, Real, Real]
"""A corner of the difference, and the corners of both hulls that it is of."""


def apart(a: Real, b: Real) -> float:
    """Least distance in m of the hulls of points (n, 3) and (m, 3); 0 where they meet."""
    return nearest(a, b).gap


def nearest(a: Real, b: Real) -> Nearest:
    """The same with where it is."""
    simplex: list[Corner] = [(a[0] - b[0], a[0], b[0])]
    weights = np.ones(1)
    off = simplex[0][0]
    for _ in range(STEPS):
        square = float(off @ off)
        if square < TOUCHING**2:
            break
        p, q = a[np.argmin(a @ off)], b[np.argmax(b @ off)]
        corner = p - q
        if square - float(off @ corner) <= CLOSE * square**0.5:
            break
        kept, at, found = _nearest([*simplex, (corner, p, q)])
        if float(found @ found) >= square:
            break
        simplex, weights, off = kept, at, found
    here, there = (
        np.sum([w * c[k] for w, c in zip(weights, simplex, strict=True)], axis=0) for k in (1, 2)
    )
    gap = float(np.sqrt(off @ off))
    return Nearest(0.0 if gap < TOUCHING else gap, here, there)


def _nearest(simplex: list[Corner]) -> tuple[list[Corner], Real, Real]:
    """The point of a simplex next to the origin: corners that hold it, their weights, and it."""
    best: tuple[list[Corner], Real, Real] | None = None
    *others, newest = simplex
    for count in range(len(simplex)):
        for chosen in combinations(others, count):
            corners = [*chosen, newest]
            found = _foot([c[0] for c in corners])
            if found is None:
                continue
            weights, point = found
            if best is None or float(point @ point) < float(best[2] @ best[2]):
                best = corners, weights, point
    assert best is not None
    return best


def _foot(corners: list[Real]) -> tuple[Real, Real] | None:
    """Weights and place of the origin's foot on the flat through ``corners``, if inside them."""
    first = corners[0]
    if len(corners) == 1:
        return np.ones(1), first
    edges = np.array(corners[1:]) - first
    try:
        weights = np.linalg.solve(edges @ edges.T, -(edges @ first))
    except np.linalg.LinAlgError:
        return None
    if np.any(weights < 0) or weights.sum() > 1:
        return None
    return np.concatenate([[1.0 - weights.sum()], weights]), first + weights @ edges


def solids_apart(a: Solid, b: Solid, within: float) -> Nearest | None:
    """Least distance of two solids; None where it is more than ``within`` for sure."""
    between = float(np.sqrt(np.sum((a.middle - b.middle) ** 2)))
    if between - a.reach - b.reach > within:
        return None
    pairs = (nearest(p.reshape(-1, 3), q.reshape(-1, 3)) for p in a.pieces for q in b.pieces)
    return min(pairs, key=lambda n: n.gap)
