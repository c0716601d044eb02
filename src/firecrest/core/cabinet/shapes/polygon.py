"""Plane polygons: points (n, 2) in order, counter-clockwise unless said.

``Corners`` are the same as pairs of numbers, of which each may be a column.
"""

from collections.abc import Sequence

import numpy as np

from firecrest.core.arrays import Number, Real, root

Corners = Sequence[tuple[Number, Number]]


def corners_area(corners: Corners) -> Number:
    """Signed area, positive counter-clockwise."""
    total: Number = 0.0
    for (x, y), (nx, ny) in zip(corners, (*corners[1:], corners[0]), strict=True):
        total = total + (x * ny - nx * y) / 2
    return total


def turning(corners: Corners) -> float:
    """1 of a counter-clockwise outline, -1 of the other way round; the same in all designs."""
    return 1.0 if float(np.ravel(corners_area(corners))[0]) > 0 else -1.0


def edge_frames(corners: Corners) -> list[tuple[tuple[Number, Number], Number]]:
    """(inward unit normal, level) of each edge: points inside have normal . p above level."""
    sign, lines = turning(corners), []
    for (x, y), (nx, ny) in zip(corners, (*corners[1:], corners[0]), strict=True):
        dx, dy = nx - x, ny - y
        long = root(dx * dx + dy * dy)
        a, b = -sign * dy / long, sign * dx / long
        lines.append(((a, b), a * x + b * y))
    return lines


def moved_in(corners: Corners, by: Sequence[Number]) -> list[tuple[Number, Number]]:
    """A convex outline with edge k (from corner k to k + 1) moved inwards by ``by[k]``.

    A corner is where the moved lines of its two edges meet.
    """
    lines = [(n, level + d) for (n, level), d in zip(edge_frames(corners), by, strict=True)]
    made = []
    for k in range(len(lines)):
        ((a, b), p), ((c, d), q) = lines[k - 1], lines[k]
        det = a * d - b * c
        made.append(((p * d - q * b) / det, (a * q - c * p) / det))
    return made


def reach(corners: Corners) -> tuple[tuple[Number, Number], tuple[Number, Number]]:
    """Least and greatest of both coordinates."""
    xs, ys = zip(*corners, strict=True)
    return (_least(xs), _least(ys)), (_most(xs), _most(ys))


def _least(values: Sequence[Number]) -> Number:
    found = values[0]
    for value in values[1:]:
        found = np.minimum(found, value)
    return found


def _most(values: Sequence[Number]) -> Number:
    found = values[0]
    for value in values[1:]:
        found = np.maximum(found, value)
    return found


def area_and_middle(points: Real) -> tuple[float, Real]:
    """Signed area (positive counter-clockwise) and centroid."""
    x, y = points[:, 0], points[:, 1]
    nx, ny = np.roll(x, -1), np.roll(y, -1)
    turn = x * ny - nx * y
    area = float(turn.sum() / 2)
    if area == 0.0:
        return 0.0, points.mean(axis=0)
    middle = np.array([np.sum((x + nx) * turn), np.sum((y + ny) * turn)]) / (6 * area)
    return area, middle


def clipped(points: Real, normal: Real, level: float) -> Real:
    """What of a convex polygon lies where ``normal`` . p <= ``level``."""
    side = points @ normal - level
    kept = []
    for k in range(len(points)):
        after = (k + 1) % len(points)
        if side[k] <= 0:
            kept.append(points[k])
        if (side[k] < 0 < side[after]) or (side[after] < 0 < side[k]):
            share = side[k] / (side[k] - side[after])
            kept.append(points[k] + share * (points[after] - points[k]))
    return np.array(kept).reshape(-1, 2)


def is_convex(points: Real) -> bool:
    """Whether all corners turn the same way."""
    edges = np.roll(points, -1, axis=0) - points
    after = np.roll(edges, -1, axis=0)
    turns = edges[:, 0] * after[:, 1] - edges[:, 1] * after[:, 0]
    return bool(np.all(turns > 0) or np.all(turns < 0))


def hull(points: Real) -> Real:
    """Convex hull, counter-clockwise (Andrew's monotone chain)."""
    ordered = sorted({(float(x), float(y)) for x, y in points})
    if len(ordered) < 3:
        return np.array(ordered)

    def _half(sequence: list[tuple[float, float]]) -> list[tuple[float, float]]:
        chain: list[tuple[float, float]] = []
        for p in sequence:
            while len(chain) > 1 and _turn(chain[-2], chain[-1], p) <= 0:
                chain.pop()
            chain.append(p)
        return chain[:-1]

    return np.array(_half(ordered) + _half(ordered[::-1]))


def _turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def inside_by(points: Real, at: tuple[float, float]) -> float:
    """How far a point lies within a counter-clockwise convex polygon; negative outside an edge."""
    if len(points) < 3:
        return -np.inf
    edges = np.roll(points, -1, axis=0) - points
    away = np.asarray(at) - points
    turn = edges[:, 0] * away[:, 1] - edges[:, 1] * away[:, 0]
    return float(np.min(turn / np.sqrt(np.sum(edges**2, axis=1))))
