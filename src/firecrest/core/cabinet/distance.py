"""Least distance of two convex pieces, and of solids made of them.

Gilbert, Johnson and Keerthi (1988): the point of the difference of two hulls that is nearest to
the origin, found on simplices of at most four of its corners.
"""

from dataclasses import dataclass
from itertools import combinations
from math import inf

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.solids import Solid

STEPS = 80
CLOSE = 1e-7
"""m to which a distance is found."""
TOUCHING = 1e-9
WHOLE = 4
"""Corners of a tetrahedron that holds the origin: the two meet, whatever rounding leaves."""
FLAT = 1e-12
"""Share of its edges below which a corner counts as flat."""


@dataclass(frozen=True, eq=False)
class Nearest:
    """Least distance in m, and the point of either solid that is nearest to the other."""

    gap: float
    here: Real
    there: Real


Point = tuple[float, float, float]
Corner = tuple[Point, Real, Real]
"""A corner of the difference in plain floats, and the corners of both hulls that it is of."""


def apart(a: Real, b: Real) -> float:
    """Least distance in m of the hulls of points (n, 3) and (m, 3); 0 where they meet."""
    return nearest(a, b).gap


def nearest(a: Real, b: Real) -> Nearest:
    """The same with where it is."""
    found = nearest_within(a, b, inf)
    assert found is not None
    return found


def nearest_within(a: Real, b: Real, most: float) -> Nearest | None:
    """The same; None as soon as a slab wider than ``most`` m is found between the hulls."""
    simplex = [_corner(a[0], b[0])]
    weights: tuple[float, ...] = (1.0,)
    off = simplex[0][0]
    for _ in range(STEPS):
        square = _dot(off, off)
        if square < TOUCHING**2:
            break
        found = _corner(a[np.argmin(a @ off)], b[np.argmax(b @ off)])
        ahead, long = _dot(off, found[0]), square**0.5
        if ahead > most * long:
            return None
        if square - ahead <= CLOSE * long:
            break
        kept, at, near = _nearest([*simplex, found])
        if _dot(near, near) >= square:
            break
        simplex, weights, off = kept, at, near
        if len(simplex) == WHOLE:
            off = (0.0, 0.0, 0.0)
            break
    here = np.sum([w * c[1] for w, c in zip(weights, simplex, strict=True)], axis=0)
    there = np.sum([w * c[2] for w, c in zip(weights, simplex, strict=True)], axis=0)
    gap = _dot(off, off) ** 0.5
    return Nearest(0.0 if gap < TOUCHING else gap, here, there)


def _corner(p: Real, q: Real) -> Corner:
    x, y, z = (p - q).tolist()
    return (x, y, z), p, q


def _dot(a: Point, b: Point) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def _less(a: Point, b: Point) -> Point:
    return a[0] - b[0], a[1] - b[1], a[2] - b[2]


def _nearest(simplex: list[Corner]) -> tuple[list[Corner], tuple[float, ...], Point]:
    """The point of a simplex next to the origin: corners that hold it, their weights, and it."""
    best: tuple[float, list[Corner], tuple[float, ...], Point] | None = None
    *others, newest = simplex
    for count in range(len(simplex)):
        for chosen in combinations(others, count):
            corners = [*chosen, newest]
            weights = _foot([c[0] for c in corners])
            if weights is None:
                continue
            at = _weighed(weights, corners)
            square = _dot(at, at)
            if best is None or square < best[0]:
                best = square, corners, weights, at
    assert best is not None
    return best[1:]


def _weighed(weights: tuple[float, ...], corners: list[Corner]) -> Point:
    x = y = z = 0.0
    for w, (p, _, _) in zip(weights, corners, strict=True):
        x, y, z = x + w * p[0], y + w * p[1], z + w * p[2]
    return x, y, z


def _foot(corners: list[Point]) -> tuple[float, ...] | None:
    """Weights of the origin's foot on the flat through ``corners``; None if it is outside them.

    The normal equations of up to three edges, by Cramer's rule: in plain floats an order of
    magnitude faster than a general solver.
    """
    first, *rest = corners
    if not rest:
        return (1.0,)
    edges = [_less(c, first) for c in rest]
    if len(edges) == 1:
        square = _dot(edges[0], edges[0])
        share = -_dot(edges[0], first) / square if square > 0 else -1.0
        return (1.0 - share, share) if 0.0 <= share <= 1.0 else None
    right = [-_dot(e, first) for e in edges]
    shares = _two(edges, right) if len(edges) == 2 else _three(edges, right)
    if shares is None or min(shares) < 0 or sum(shares) > 1:
        return None
    return (1.0 - sum(shares), *shares)


def _two(edges: list[Point], right: list[float]) -> tuple[float, ...] | None:
    a, b, c = (_dot(edges[i], edges[j]) for i, j in ((0, 0), (0, 1), (1, 1)))
    det = a * c - b * b
    if det <= FLAT * a * c:
        return None
    return (right[0] * c - right[1] * b) / det, (right[1] * a - right[0] * b) / det


def _three(edges: list[Point], right: list[float]) -> tuple[float, ...] | None:
    g = [[_dot(p, q) for q in edges] for p in edges]
    minors = [
        g[1][1] * g[2][2] - g[1][2] * g[2][1],
        g[1][2] * g[2][0] - g[1][0] * g[2][2],
        g[1][0] * g[2][1] - g[1][1] * g[2][0],
    ]
    det = sum(g[0][k] * minors[k] for k in range(3))
    if det <= FLAT * g[0][0] * g[1][1] * g[2][2]:
        return None
    inverse = [
        minors,
        [
            g[0][2] * g[2][1] - g[0][1] * g[2][2],
            g[0][0] * g[2][2] - g[0][2] * g[2][0],
            g[0][1] * g[2][0] - g[0][0] * g[2][1],
        ],
        [
            g[0][1] * g[1][2] - g[0][2] * g[1][1],
            g[0][2] * g[1][0] - g[0][0] * g[1][2],
            g[0][0] * g[1][1] - g[0][1] * g[1][0],
        ],
    ]
    return tuple(sum(inverse[k][i] * right[k] for k in range(3)) / det for i in range(3))


def solids_apart(a: Solid, b: Solid, within: float) -> Nearest | None:
    """Least distance of two solids; None where it is more than ``within`` for sure."""
    between = float(np.sqrt(np.sum((a.middle - b.middle) ** 2)))
    if between - a.reach - b.reach > within:
        return None
    best: Nearest | None = None
    for least, i, j in _pairs(a, b):
        if least > within if best is None else least >= best.gap:
            break
        if a.fills[i] and b.fills[j]:
            return _bricks(least, (a.lows[i], a.highs[i]), (b.lows[j], b.highs[j]))
        most = within if best is None else best.gap
        found = nearest_within(a.pieces[i].reshape(-1, 3), b.pieces[j].reshape(-1, 3), most)
        if found is not None and (best is None or found.gap < best.gap):
            best = found
    return best


def _bricks(least: float, one: tuple[Real, Real], other: tuple[Real, Real]) -> Nearest:
    """Of bricks along the axes what their boxes are apart is their distance."""
    start, end = np.maximum(one[0], other[0]), np.minimum(one[1], other[1])
    middle = (start + end) / 2
    here = np.clip(middle, *one)
    return Nearest(least, here, np.clip(here, *other))


def _pairs(a: Solid, b: Solid) -> list[tuple[float, int, int]]:
    """Pairs of pieces with the least that they can be apart, by the boxes round them."""
    lows = np.maximum(a.lows[:, None] - b.highs, b.lows - a.highs[:, None])
    least = np.sqrt(np.sum(np.maximum(lows, 0.0) ** 2, axis=2))
    return sorted((float(least[i, j]), i, j) for i, j in np.ndindex(least.shape))
