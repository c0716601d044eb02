"""Layers of one sheet from the front backwards: solid plates and hollow rings of one outline."""

from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.frames import Frame, frame
from firecrest.core.cabinet.shapes.polygon import area_and_middle, moved_in
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, Wall, plane


@dataclass(frozen=True, eq=False)
class Stack:
    """``corners`` (n, 2) in x and y of a convex outline, all filleted by ``radius``.

    ``wall`` of the rings; ``solid_front`` and ``solid_back`` layers close ``rings`` of them.
    """

    corners: Real
    radius: float
    wall: float
    layer: float
    solid_front: int
    rings: int
    solid_back: int

    @property
    def hollow(self) -> tuple[Real, float]:
        """Corners and fillet of the hollow."""
        moved = moved_in(self.corners, [self.wall] * len(self.corners))
        return moved, max(self.radius - self.wall, 0.0)

    @property
    def layers(self) -> int:
        """How many."""
        return self.solid_front + self.rings + self.solid_back


def rectangle(a: float, b: float) -> Real:
    """Corners of an outline a x b about the middle."""
    return np.array([(-a / 2, -b / 2), (a / 2, -b / 2), (a / 2, b / 2), (-a / 2, b / 2)])


def filleted(corners: Real, r: float) -> tuple[float, Real]:
    """Area of a convex outline with all corners filleted, and its middle."""
    area, middle = area_and_middle(corners)
    area = abs(area)
    if r <= 0:
        return area, middle
    total, moment = area, area * middle
    count = len(corners)
    for k in range(count):
        before, here, after = corners[k - 1], corners[k], corners[(k + 1) % count]
        a, b = before - here, after - here
        a, b = a / np.sqrt(a @ a), b / np.sqrt(b @ b)
        half = float(np.arccos(np.clip(a @ b, -1, 1))) / 2
        inwards = (a + b) / np.sqrt((a + b) @ (a + b))
        centre = here + r / np.sin(half) * inwards
        open_angle = pi / 2 - half
        kite, sector = r * r / np.tan(half), r * r * open_angle
        kite_middle = (2 * here + 2 * centre + (a + b) * r / np.tan(half)) / 6
        kite_middle = _kite_middle(here, centre, here + a * r / np.tan(half))
        sector_middle = centre - 2 / 3 * r * np.sin(open_angle) / open_angle * inwards
        total -= kite - sector
        moment = moment - kite * kite_middle + sector * sector_middle
    return float(total), np.asarray(moment / total)


def _kite_middle(tip: Real, centre: Real, side: Real) -> Real:
    """Of two mirrored right triangles tip - side - centre: on the axis, at their mean."""
    axis = (centre - tip) / np.sqrt((centre - tip) @ (centre - tip))
    mean = (tip + centre + side) / 3
    return np.asarray(tip + ((mean - tip) @ axis) * axis)


def outline_points(corners: Real, r: float, points: int = 24) -> Real:
    """Points round a filleted outline."""
    made, count = [], len(corners)
    for k in range(count):
        before, here, after = corners[k - 1], corners[k], corners[(k + 1) % count]
        if r <= 0:
            made.append(here)
            continue
        a, b = before - here, after - here
        a, b = a / np.sqrt(a @ a), b / np.sqrt(b @ b)
        half = float(np.arccos(np.clip(a @ b, -1, 1))) / 2
        inwards = (a + b) / np.sqrt((a + b) @ (a + b))
        centre = here + r / np.sin(half) * inwards
        start, end = (here + s * r / np.tan(half) - centre for s in (a, b))
        from_angle = np.arctan2(start[1], start[0])
        turn = (np.arctan2(end[1], end[0]) - from_angle + np.pi) % (2 * np.pi) - np.pi
        for share in np.linspace(0.0, 1.0, points):
            angle = from_angle + share * turn
            made.append(centre + r * np.array([np.cos(angle), np.sin(angle)]))
    return np.array(made)


def shell(stack: Stack) -> Shell:
    """A stack: front at z = 0."""
    depth = stack.layers * stack.layer
    front, back = stack.solid_front * stack.layer, stack.solid_back * stack.layer
    outer, middle = filleted(stack.corners, stack.radius)
    inner, hole = filleted(*stack.hollow)
    low, high = stack.corners.min(axis=0), stack.corners.max(axis=0)
    frames = _frames(stack, depth, front, back)
    ring_depth = depth - front - back
    at = -front - ring_depth / 2
    free = stack.hollow[0].max(axis=0) - stack.hollow[0].min(axis=0)
    lower, upper = stack.hollow[0].min(axis=0), stack.hollow[0].max(axis=0)
    half = (high[0] - low[0]) / 2 - stack.radius
    return Shell(
        size=(float(high[0] - low[0]), float(high[1] - low[1]), depth),
        outside=Body(outer * depth, (float(middle[0]), float(middle[1]), -depth / 2)),
        inside=Body(inner * ring_depth, (float(hole[0]), float(hole[1]), at)),
        frames=frames,
        walls=(*(plane(n, f) for n, f in frames.items()), _ring_wall(*stack.hollow)),
        fields={n: Field(f.t, float(free[0]), float(free[1])) for n, f in frames.items()},
        lowest=float(low[1]),
        stands_on=np.array([(-half, -depth), (half, -depth), (half, 0.0), (-half, 0.0)]),
        low=(float(lower[0]), float(lower[1]), -depth + back),
        high=(float(upper[0]), float(upper[1]), -front),
        printed_wall=stack.wall,
    )


def _frames(stack: Stack, depth: float, front: float, back: float) -> dict[str, Frame]:
    middle = (stack.corners.min(axis=0) + stack.corners.max(axis=0)) / 2
    x, y = float(middle[0]), float(middle[1])
    return {
        "front": frame("front", (x, y, 0.0), front),
        "back": frame("back", (x, y, -depth), back),
    }


def _ring_wall(corners: Real, r: float) -> Wall:
    """The hollow: how far a point is within its filleted outline."""
    core = moved_in(corners, [r] * len(corners)) if r > 0 else corners
    turning = 1.0 if area_and_middle(core)[0] > 0 else -1.0
    edges = np.roll(core, -1, axis=0) - core
    length = np.sqrt(np.sum(edges**2, axis=1))
    inward = turning * np.stack([-edges[:, 1], edges[:, 0]], axis=1) / length[:, None]

    def gap(points: Real) -> Real:
        flat = points[:, None, :2] - core
        within = np.sum(flat * inward, axis=2)
        inside = within.min(axis=1)
        share = np.clip(np.sum(flat * edges, axis=2) / length**2, 0.0, 1.0)
        off = np.sqrt(np.sum((flat - share[:, :, None] * edges) ** 2, axis=2)).min(axis=1)
        return np.asarray(np.where(inside >= 0, r + inside, r - off))

    return Wall("ring", gap)
