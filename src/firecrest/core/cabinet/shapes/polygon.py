"""Plane polygons: points (n, 2) in order, counter-clockwise unless said."""

import numpy as np

from firecrest.core.arrays import Real


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


def moved_in(points: Real, by: list[float]) -> Real:
    """A convex polygon with edge k (from point k to k + 1) moved inwards by ``by[k]``."""
    count = len(points)
    edges = np.roll(points, -1, axis=0) - points
    along = edges / np.sqrt(np.sum(edges**2, axis=1))[:, None]
    turning = 1.0 if area_and_middle(points)[0] > 0 else -1.0
    inward = turning * np.stack([-along[:, 1], along[:, 0]], axis=1)
    levels = np.sum(points * inward, axis=1) + np.asarray(by)
    corners = []
    for k in range(count):
        pair = [k - 1, k]
        corners.append(np.linalg.solve(inward[pair], levels[pair]))
    return np.array(corners)


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

    def half(sequence: list[tuple[float, float]]) -> list[tuple[float, float]]:
        chain: list[tuple[float, float]] = []
        for p in sequence:
            while len(chain) > 1 and _turn(chain[-2], chain[-1], p) <= 0:
                chain.pop()
            chain.append(p)
        return chain[:-1]

    return np.array(half(ordered) + half(ordered[::-1]))


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
