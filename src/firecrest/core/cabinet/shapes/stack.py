"""Layers of one sheet from the front backwards: solid plates and hollow rings of one outline."""

from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.arrays import Number, Real, root
from firecrest.core.cabinet.frames import Frame, Vector, frame
from firecrest.core.cabinet.shapes.polygon import (
    Corners,
    area_and_middle,
    corners_area,
    edge_frames,
    moved_in,
    reach,
)
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, Wall, plane


@dataclass(frozen=True)
class Stack:
    """``corners`` in x and y of a convex outline, all filleted by ``radius``.

    ``wall`` of the rings; ``solid_front`` and ``solid_back`` layers close ``rings`` of them.
    """

    corners: tuple[tuple[Number, Number], ...]
    radius: Number
    wall: Number
    layer: Number
    solid_front: int
    rings: Number
    solid_back: int

    @property
    def hollow(self) -> tuple[Corners, Number]:
        """Corners and fillet of the hollow."""
        moved = moved_in(self.corners, [self.wall] * len(self.corners))
        return moved, np.maximum(self.radius - self.wall, 0.0)

    @property
    def layers(self) -> Number:
        """How many."""
        return self.solid_front + self.rings + self.solid_back


def rectangle(a: Number, b: Number) -> tuple[tuple[Number, Number], ...]:
    """Corners of an outline a x b about the middle."""
    return ((-a / 2, -b / 2), (a / 2, -b / 2), (a / 2, b / 2), (-a / 2, b / 2))


def filleted_area(corners: Corners, r: Number) -> Number:
    """Of a convex outline with all corners filleted: each loses a kite less its sector."""
    total = np.abs(corners_area(corners))
    for loss in fillet_losses(corners, r):
        total = total - loss
    return total


def fillet_losses(corners: Corners, r: Number) -> list[Number]:
    """What each corner of a convex outline loses to its fillet."""
    found, count = [], len(corners)
    for k in range(count):
        (px, py), (x, y), (nx, ny) = corners[k - 1], corners[k], corners[(k + 1) % count]
        a, b = (px - x, py - y), (nx - x, ny - y)
        long = root((a[0] ** 2 + a[1] ** 2) * (b[0] ** 2 + b[1] ** 2))
        half = np.arccos(np.clip((a[0] * b[0] + a[1] * b[1]) / long, -1.0, 1.0)) / 2
        found.append(r * r * (1.0 / np.tan(half) - (pi / 2 - half)))
    return found


def volumes(stack: Stack) -> tuple[Number, Number]:
    """Outside and inside in m3."""
    outside = filleted_area(stack.corners, stack.radius) * stack.layers * stack.layer
    return outside, filleted_area(*stack.hollow) * stack.rings * stack.layer


def _size(corners: Corners, long: Number) -> Vector:
    low, high = reach(corners)
    return high[0] - low[0], high[1] - low[1], long


def outer_size(stack: Stack) -> Vector:
    """Size over everything."""
    return _size(stack.corners, stack.layers * stack.layer)


def corners(stack: Stack) -> tuple[Vector, Vector]:
    """Lowest and highest corner of what holds the inside."""
    low, high = reach(stack.hollow[0])
    front, back = (n * stack.layer for n in (stack.solid_front, stack.solid_back))
    return (low[0], low[1], back - stack.layers * stack.layer), (high[0], high[1], -front)


def _filleted_middle(corners: Real, r: float) -> Real:
    """Middle of a filleted outline."""
    area, middle = area_and_middle(corners)
    total, moment = abs(area), abs(area) * middle
    if r <= 0:
        return middle
    count = len(corners)
    for k in range(count):
        here = corners[k]
        half, inwards, side = _corner(corners[k - 1], here, corners[(k + 1) % count])
        centre = here + r / np.sin(half) * inwards
        open_angle = pi / 2 - half
        kite, sector = r * r / np.tan(half), r * r * open_angle
        kite_middle = _kite_middle(here, centre, here + side * r / np.tan(half))
        sector_middle = centre - 2 / 3 * r * np.sin(open_angle) / open_angle * inwards
        total -= kite - sector
        moment = moment - kite * kite_middle + sector * sector_middle
    return np.asarray(moment / total)


def _corner(before: Real, here: Real, after: Real) -> tuple[float, Real, Real]:
    """Half the inner angle of a corner, its bisector inwards, and the way to the one before."""
    a, b = before - here, after - here
    a, b = a / np.sqrt(a @ a), b / np.sqrt(b @ b)
    half = float(np.arccos(np.clip(a @ b, -1, 1))) / 2
    return half, (a + b) / np.sqrt((a + b) @ (a + b)), a


def _kite_middle(tip: Real, centre: Real, side: Real) -> Real:
    """Of two mirrored right triangles tip - side - centre: on the axis, at their mean."""
    axis = (centre - tip) / np.sqrt((centre - tip) @ (centre - tip))
    mean = (tip + centre + side) / 3
    return np.asarray(tip + ((mean - tip) @ axis) * axis)


def outline_points(corners: Real, r: float, points: int = 24) -> Real:
    """Points round a filleted outline of floats."""
    if r <= 0:
        return corners
    made, count = [], len(corners)
    for k in range(count):
        here = corners[k]
        half, inwards, _ = _corner(corners[k - 1], here, corners[(k + 1) % count])
        centre = here + r / np.sin(half) * inwards
        out = np.arctan2(-inwards[1], -inwards[0])
        angles = out + np.linspace(-(pi / 2 - half), pi / 2 - half, points)
        made.extend(centre + r * np.stack([np.cos(angles), np.sin(angles)], axis=1))
    return np.array(made)


def shell(stack: Stack) -> Shell:
    """A stack of floats: front at z = 0."""
    outer, inner = np.array(stack.corners), np.array(stack.hollow[0])
    radius, hollow_radius = float(stack.radius), float(stack.hollow[1])
    outside, inside = (float(v) for v in volumes(stack))
    depth = float(stack.layers * stack.layer)
    front, back = (n * float(stack.layer) for n in (stack.solid_front, stack.solid_back))
    middle, hole = _filleted_middle(outer, radius), _filleted_middle(inner, hollow_radius)
    low, high = outer.min(axis=0), outer.max(axis=0)
    lower, upper = inner.min(axis=0), inner.max(axis=0)
    frames = panel_frames(stack)
    free = upper - lower
    half = (high[0] - low[0]) / 2 - radius
    return Shell(
        size=outer_size(stack),
        outside=Body(outside, (float(middle[0]), float(middle[1]), -depth / 2)),
        inside=Body(inside, (float(hole[0]), float(hole[1]), (back - depth - front) / 2)),
        frames=frames,
        walls=(*(plane(n, f) for n, f in frames.items()), _ring_wall(inner, hollow_radius)),
        fields={n: Field(f.t, float(free[0]), float(free[1])) for n, f in frames.items()},
        lowest=float(low[1]),
        stands_on=np.array([(-half, -depth), (half, -depth), (half, 0.0), (-half, 0.0)]),
        low=corners(stack)[0],
        high=corners(stack)[1],
        printed_wall=stack.wall,
    )


def panel_frames(stack: Stack) -> dict[str, Frame]:
    """Front and back: all solid layers of an end are one panel."""
    low, high = reach(stack.corners)
    x, y = (low[0] + high[0]) / 2, (low[1] + high[1]) / 2
    return {
        "front": frame("front", (x, y, 0.0), stack.solid_front * stack.layer),
        "back": frame("back", (x, y, -stack.layers * stack.layer), stack.solid_back * stack.layer),
    }


def _ring_wall(corners: Real, r: float) -> Wall:
    """The hollow: how far a point is within its filleted outline."""
    pairs = [(float(x), float(y)) for x, y in corners]
    core = np.array(moved_in(pairs, [r] * len(pairs)))
    lines = edge_frames(pairs)
    inward = np.array([normal for normal, _ in lines])
    levels = np.array([level + r for _, level in lines])
    edges = np.roll(core, -1, axis=0) - core
    square = np.maximum(np.sum(edges**2, axis=1), 1e-18)

    def _gap(points: Real) -> Real:
        flat = points[:, :2]
        inside = (flat @ inward.T - levels).min(axis=1)
        away = flat[:, None, :] - core
        share = np.clip(np.sum(away * edges, axis=2) / square, 0.0, 1.0)
        off = np.sqrt(np.sum((away - share[:, :, None] * edges) ** 2, axis=2)).min(axis=1)
        return np.asarray(np.where(inside >= 0, r + inside, r - off))

    return Wall("ring", _gap)
