"""A box whose back is smaller (or larger) than its front, shifted or not: four slanted sides."""

from collections.abc import Callable
from dataclasses import dataclass
from math import sqrt

import numpy as np

from firecrest.core.arrays import Number, Real, root
from firecrest.core.cabinet.frames import Frame, Vector, cross, frame, unit
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, plane

SIDES = ("left", "right", "bottom", "top")


@dataclass(frozen=True)
class Taper:
    """Front ``length`` x ``height``, back ``back_length`` x ``back_height`` shifted by (ox, oy)."""

    length: Number
    height: Number
    depth: Number
    back_length: Number
    back_height: Number
    ox: Number
    oy: Number
    t: dict[str, Number]

    def slope(self, side: str) -> Number:
        """How much a side moves outwards per metre of depth."""
        across = side in ("left", "right")
        narrower = self.back_length - self.length if across else self.back_height - self.height
        shift = self.ox if across else self.oy
        sign = 1.0 if side in ("right", "top") else -1.0
        return (narrower / 2 + sign * shift) / self.depth

    def stands_in(self, side: str) -> Number:
        """Wall of a side as it is cut square to z: its thickness is square to the face."""
        return self.t[side] * root(1.0 + self.slope(side) ** 2)

    def outer_at(self, side: str, deep: Number) -> Number:
        """Where a side's outer face is, ``deep`` behind the front; outwards from the axis."""
        half = (self.length if side in ("left", "right") else self.height) / 2
        return half + self.slope(side) * deep

    def outer_sides(self, deep: Number) -> tuple[Number, Number]:
        """Outer length and height at a depth."""
        return (
            self.outer_at("left", deep) + self.outer_at("right", deep),
            self.outer_at("bottom", deep) + self.outer_at("top", deep),
        )

    def inner_sides(self, deep: Number) -> tuple[Number, Number]:
        """Inner length and height at a depth."""
        length, height = self.outer_sides(deep)
        return (
            length - self.stands_in("left") - self.stands_in("right"),
            height - self.stands_in("bottom") - self.stands_in("top"),
        )


Sides = Callable[[Number], tuple[Number, Number]]


def between(sides: Sides, start: Number, end: Number) -> Number:
    """Volume between two depths: the area is a square of the depth, so Simpson's rule is exact."""

    def _area(deep: Number) -> Number:
        a, b = sides(deep)
        return a * b

    return (end - start) / 6 * (_area(start) + 4 * _area((start + end) / 2) + _area(end))


def volumes(taper: Taper) -> tuple[Number, Number]:
    """Outside and inside in m3, of floats or columns."""
    start, end = taper.t["front"], taper.depth - taper.t["back"]
    return (between(taper.outer_sides, 0.0, taper.depth), between(taper.inner_sides, start, end))


def _middle(taper: Taper, sides: Sides, start: Number, end: Number, inner: bool) -> Vector:
    """Centroid: moments are cubics of the depth, exact by the same rule."""
    total, moment = 0.0, np.zeros(3)
    for deep, weight in ((start, 1.0), ((start + end) / 2, 4.0), (end, 1.0)):
        a, b = sides(deep)
        low = {s: taper.stands_in(s) if inner else 0.0 for s in SIDES}
        x = (taper.outer_at("right", deep) - low["right"]) - a / 2
        y = (taper.outer_at("top", deep) - low["top"]) - b / 2
        total += float(weight * a * b)
        moment += weight * a * b * np.array([x, y, -deep])
    x, y, z = moment / total
    return float(x), float(y), float(z)


def outer_size(taper: Taper) -> Vector:
    """Size over everything."""

    def _over(low: str, high: str) -> Number:
        total: Number = 0.0
        for side in (low, high):
            ends = taper.outer_at(side, 0.0), taper.outer_at(side, taper.depth)
            total = total + np.maximum(*ends)
        return total

    return _over("left", "right"), _over("bottom", "top"), taper.depth


def corners(taper: Taper) -> tuple[Vector, Vector]:
    """Lowest and highest corner of what holds the inside."""
    start, end = taper.t["front"], taper.depth - taper.t["back"]

    def _reach(side: str) -> Number:
        first, last = (taper.outer_at(side, deep) for deep in (start, end))
        return np.maximum(first, last) - taper.stands_in(side)

    return (-_reach("left"), -_reach("bottom"), -end), (_reach("right"), _reach("top"), -start)


def shell(taper: Taper) -> Shell:
    """A taper of floats."""
    outside, inside = (float(v) for v in volumes(taper))
    start, end = taper.t["front"], taper.depth - taper.t["back"]
    frames = panel_frames(taper)
    low, high = corners(taper)
    return Shell(
        size=outer_size(taper),
        outside=Body(outside, _middle(taper, taper.outer_sides, 0.0, taper.depth, False)),
        inside=Body(inside, _middle(taper, taper.inner_sides, start, end, True)),
        frames=frames,
        walls=tuple(plane(n, f) for n, f in frames.items()),
        fields=_fields(taper),
        lowest=-float(max(taper.outer_at("bottom", 0.0), taper.outer_at("bottom", taper.depth))),
        stands_on=_foot(taper),
        low=low,
        high=high,
        printed_wall=float(taper.t["front"]),
    )


def panel_frames(taper: Taper) -> dict[str, Frame]:
    """Outer faces; v of left and right is as upright as their slant lets it be."""
    frames = {
        "front": frame("front", (0.0, 0.0, 0.0), taper.t["front"]),
        "back": frame("back", (taper.ox, taper.oy, -taper.depth), taper.t["back"]),
    }
    half = taper.depth / 2
    middle = {
        "x": (taper.outer_at("right", half) - taper.outer_at("left", half)) / 2,
        "y": (taper.outer_at("top", half) - taper.outer_at("bottom", half)) / 2,
    }
    for side in SIDES:
        k, at = taper.slope(side), taper.outer_at(side, half)
        if side in ("left", "right"):
            sign = 1.0 if side == "right" else -1.0
            o: Vector = (sign * at, middle["y"], -half)
            normal = unit((sign, 0.0, k))
            v: Vector = (0.0, 1.0, 0.0)
        else:
            sign = 1.0 if side == "top" else -1.0
            o = (middle["x"], sign * at, -half)
            normal = unit((0.0, sign, k))
            v = cross(normal, (1.0, 0.0, 0.0))
        frames[side] = Frame(o, cross(v, normal), v, taper.t[side])
    return frames


def _fields(taper: Taper) -> dict[str, Field]:
    """Front and back between inner faces; a side as mean of its parallel sides x their distance."""
    start, end = taper.t["front"], taper.depth - taper.t["back"]
    near, far = taper.inner_sides(start), taper.inner_sides(end)
    found = {
        "front": Field(taper.t["front"], *(float(s) for s in near)),
        "back": Field(taper.t["back"], *(float(s) for s in far)),
    }
    for side in SIDES:
        which = 1 if side in ("left", "right") else 0
        distance = (end - start) * sqrt(1 + float(taper.slope(side)) ** 2)
        found[side] = Field(taper.t[side], float(near[which] + far[which]) / 2, distance)
    return found


def _foot(taper: Taper) -> Real:
    """Outline of the bottom."""
    front, back = taper.length / 2, taper.back_length / 2
    return np.array(
        [
            (taper.ox - back, -taper.depth),
            (taper.ox + back, -taper.depth),
            (front, 0.0),
            (-front, 0.0),
        ]
    )
