"""Plane sections of the inside of a case: what is below a plane, and the outline that it cuts.

Planes are square to an axis of the case. Volumes take floats or columns, outlines floats alone.
What rounded corners lose is taken to go as that of a square one.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import singledispatch
from itertools import pairwise
from math import pi

import numpy as np

from firecrest.core.arrays import Number, Real, root
from firecrest.core.cabinet.frames import Vector
from firecrest.core.cabinet.outlines import cloud
from firecrest.core.cabinet.shapes import ball, box, cylinder, prism, stack, taper, vase
from firecrest.core.cabinet.shapes.polygon import Corners, corners_area, hull

ACROSS = {"x": ("z", "y"), "y": ("x", "z"), "z": ("x", "y")}
"""The axes that an outline's first and second coordinate lie along."""
ORDER = "xyz"
NODES, WEIGHTS = np.polynomial.legendre.leggauss(48)
STEPS, TURN = 40, 180
"""Pieces of a turned profile's stretch that is cut upright; points round a circle."""


@dataclass(frozen=True)
class Inside:
    """The inside of a shape between the corners ``low`` and ``high`` of what holds it, in m."""

    shape: object
    volume: Number
    low: Vector
    high: Vector

    @property
    def size(self) -> Vector:
        """Over everything."""
        x, y, z = (h - lo for lo, h in zip(self.low, self.high, strict=True))
        return x, y, z

    def below(self, axis: str, level: Number) -> Number:
        """Volume in m3 of what is lower than ``level`` along ``axis``."""
        return _below(self.shape, self, axis, level)

    def between(self, axis: str, start: Number, end: Number) -> Number:
        """Volume in m3 between two levels along ``axis``."""
        return self.below(axis, end) - self.below(axis, start)

    def section(self, axis: str, level: float) -> list[Real]:
        """Convex outlines (n, 2) whose union a plane cuts, along ``ACROSS[axis]``; none outside."""
        k = ORDER.index(axis)
        if not float(self.low[k]) < level < float(self.high[k]):
            return []
        return _section(self.shape, self, axis, level)


@singledispatch
def _below(shape: object, inside: Inside, axis: str, level: Number) -> Number:
    raise TypeError(f"no section of {type(shape).__name__}")


@_below.register
def _(shape: box.Box, inside: Inside, axis: str, level: Number) -> Number:
    """The section in the middle, less what rounded ends lack."""
    k, (length, height, depth) = ORDER.index(axis), inside.size
    sides = {"x": (height, depth), "y": (length, depth), "z": (length, height)}[axis]
    section, edges = sides[0] * sides[1], shape.rounding.edges if shape.rounding else ""
    rounded = {"": "", "vertical": "y", "all": "xyz", "front": "xy"}[edges]
    r = shape.inner_radius
    if axis in rounded:
        loss = (4 - pi) * r**2
        section = section - (loss / 2 if edges == "front" else loss)
    whole = section * (level - inside.low[k])
    if not edges or (edges == "vertical" and axis == "y"):
        return whole
    lost = section * inside.size[k] - inside.volume
    if edges == "front" and axis == "z":
        return whole - lost * _gone(level, inside.high[k], r, high=True)
    ends = _gone(level, inside.low[k], r, high=False) + _gone(level, inside.high[k], r, high=True)
    return whole - lost / 2 * ends


def _gone(level: Number, end: Number, r: Number, *, high: bool) -> Number:
    """Share below ``level`` of what a square corner at ``end`` loses to its rounding.

    At s radii into the rounding its width is 1 - sqrt(1 - s^2) radii short.
    """
    into = (level - end) / np.maximum(r, 1e-12)
    share = np.clip(1.0 + into if high else 1.0 - into, 0.0, 1.0)
    gone: Number = share - (share * root(1.0 - share**2) + np.arcsin(share)) / 2
    return gone / (1 - pi / 4) if high else 1.0 - gone / (1 - pi / 4)


@_below.register
def _(shape: taper.Taper, inside: Inside, axis: str, level: Number) -> Number:
    """Along z exact; across, the clipped width times the height at each depth."""
    start, end = shape.t["front"], shape.depth - shape.t["back"]
    if axis == "z":
        return taper.between(shape.inner_sides, -1.0 * level, end)
    low, high = ("left", "right") if axis == "x" else ("bottom", "top")

    def _area(deep: Number) -> Number:
        ends = [shape.outer_at(side, deep) - shape.stands_in(side) for side in (low, high)]
        width = np.clip(level + ends[0], 0.0, ends[0] + ends[1])
        found: Number = width * shape.inner_sides(deep)[1 if axis == "x" else 0]
        return found

    return _summed(_area, start, end)


def _summed(area: Callable[[Number], Number], start: Number, end: Number) -> Number:
    """Integral of an area from ``start`` to ``end``, by Gauss's rule."""
    total: Number = 0.0
    half, middle = (end - start) / 2, (end + start) / 2
    for node, weight in zip(NODES, WEIGHTS, strict=True):
        total = total + float(weight) * area(middle + float(node) * half)
    return total * half


@_below.register
def _(shape: prism.Prism, inside: Inside, axis: str, level: Number) -> Number:
    if axis == shape.axis:
        section: Number = np.abs(corners_area(shape.inner))
        return section * (level - inside.low[ORDER.index(axis)])
    first = "z" if shape.axis == "x" else "x"
    return corners_below(shape.inner, 0 if axis == first else 1, level) * shape.clear


def corners_below(corners: Corners, k: int, level: Number) -> Number:
    """Area in m2 of what of an outline has coordinate ``k`` below ``level``.

    Green's theorem with the field min(x, level): its divergence is 1 below the level, 0 above.
    """
    total: Number = 0.0
    for here, after in zip(corners, (*corners[1:], corners[0]), strict=True):
        rise = after[1 - k] - here[1 - k]
        total = total + rise * _mean_of_least(here[k], after[k], level)
    found: Number = np.abs(total)
    return found


def _mean_of_least(a: Number, b: Number, level: Number) -> Number:
    """Mean of min(x, level) as x goes evenly from ``a`` to ``b``."""
    low, high = np.minimum(a, b), np.maximum(a, b)
    width = np.maximum(high - low, 1e-12)
    under: Number = np.clip((level - low) / width, 0.0, 1.0)
    return under * (low + np.minimum(high, np.maximum(level, low))) / 2 + (1 - under) * level


@_below.register
def _(shape: cylinder.Cylinder, inside: Inside, axis: str, level: Number) -> Number:
    r, k = shape.radius - shape.t, ORDER.index(axis)
    if axis == shape.axis:
        return pi * r * r * (level - inside.low[k])
    clear = inside.size[ORDER.index(shape.axis)]
    return circle_below(r, level - (inside.low[k] + inside.high[k]) / 2) * clear


def circle_below(r: Number, off: Number) -> Number:
    """Area of a circle on one side of a chord ``off`` beyond its centre."""
    share: Number = np.clip(off / r, -1.0, 1.0)
    return r * r * (pi - np.arccos(share) + share * root(1.0 - share * share))


@_below.register
def _(shape: ball.Ball, inside: Inside, axis: str, level: Number) -> Number:
    """Circles less what the flats cut off them, which never meet."""
    r, k = shape.radius - shape.t, ORDER.index(axis)
    centre = (0.0, 0.0, -shape.front)[k]
    flats = {"z": shape.front - shape.t_front, "y": shape.foot - shape.t_foot}
    cut = [off for way, off in flats.items() if way != axis]

    def _area(at: Number) -> Number:
        wide = root(np.maximum(r * r - (at - centre) ** 2, 1e-18))
        gone = sum((circle_below(wide, -off) for off in cut), 0.0)
        return pi * wide * wide - gone

    return _summed(_area, inside.low[k], level)


@_below.register
def _(shape: vase.Vase, inside: Inside, axis: str, level: Number) -> Number:
    total: Number = 0.0
    k = ORDER.index(axis)
    if axis == "y":
        at = level + shape.height / 2
        for (y, a), (after, b) in pairwise(shape.inner):
            share = np.clip((at - y) / np.maximum(after - y, 1e-12), 0.0, 1.0)
            top = a + share * (b - a)
            total = total + share * (after - y) * pi / 3 * (a * a + a * top + top * top)
        return total
    off = level - (inside.low[k] + inside.high[k]) / 2
    for (y, a), (after, b) in pairwise(shape.inner):

        def _area(at: Number, y: Number = y, a: Number = a, after: Number = after,
                  b: Number = b) -> Number:  # fmt: skip
            return circle_below(a + (at - y) / np.maximum(after - y, 1e-12) * (b - a), off)

        total = total + _summed(_area, y, after)
    return total


@_below.register
def _(shape: stack.Stack, inside: Inside, axis: str, level: Number) -> Number:
    corners, r = shape.hollow
    if axis == "z":
        return stack.filleted_area(corners, r) * (level - inside.low[2])
    k = ORDER.index(axis)
    area = corners_below(corners, k, level)
    middle = (inside.low[k] + inside.high[k]) / 2
    for corner, loss in zip(corners, stack.fillet_losses(corners, r), strict=True):
        low = _gone(level, corner[k], r, high=False)
        gone = np.where(corner[k] < middle, low, _gone(level, corner[k], r, high=True))
        area = area - loss * gone
    return area * inside.size[2]


@singledispatch
def _section(shape: object, inside: Inside, axis: str, level: float) -> list[Real]:
    """Of a convex inside: where the lines between its points cross the plane."""
    points = np.unique(np.round(cloud(shape, inside=True), 9), axis=0)
    k, (first, second) = ORDER.index(axis), (ORDER.index(a) for a in ACROSS[axis])
    under, over = points[points[:, k] <= level], points[points[:, k] > level]
    share = (level - under[:, None, k]) / (over[None, :, k] - under[:, None, k])
    met = under[:, None, :] + share[:, :, None] * (over[None, :, :] - under[:, None, :])
    return [hull(np.round(met[:, :, (first, second)].reshape(-1, 2), 9))]


@_section.register
def _(shape: box.Box, inside: Inside, axis: str, level: float) -> list[Real]:
    return [_rectangle(*(_reach(inside, a) for a in ACROSS[axis]))]


@_section.register
def _(shape: cylinder.Cylinder, inside: Inside, axis: str, level: float) -> list[Real]:
    r = float(shape.radius - shape.t)
    if axis == shape.axis:
        return [_ring([_middle(inside, a) for a in ACROSS[axis]], r)]
    half = float(root(max(r * r - (level - _middle(inside, axis)) ** 2, 0.0)))
    reaches = []
    for a in ACROSS[axis]:
        middle = _middle(inside, a)
        reaches.append(_reach(inside, a) if a == shape.axis else (middle - half, middle + half))
    return [_rectangle(*reaches)]


@_section.register
def _(shape: ball.Ball, inside: Inside, axis: str, level: float) -> list[Real]:
    r, centre = float(shape.radius - shape.t), {"x": 0.0, "y": 0.0, "z": -float(shape.front)}
    wide = float(root(max(r * r - (level - centre[axis]) ** 2, 0.0)))
    ring = _ring([centre[a] for a in ACROSS[axis]], wide)
    for column, way in enumerate(ACROSS[axis]):  # a circle pressed against a flat
        low, high = _reach(inside, way)
        ring[:, column] = np.clip(ring[:, column], low, high)
    return [hull(ring)]


@_section.register
def _(shape: vase.Vase, inside: Inside, axis: str, level: float) -> list[Real]:
    profile = np.array(shape.inner, dtype=float)
    heights = profile[:, 0] - float(shape.height) / 2
    if axis == "y":
        r = float(np.interp(level, heights, profile[:, 1]))
        return [_ring([_middle(inside, a) for a in ACROSS[axis]], r)]
    off = level - _middle(inside, axis)
    at = np.unique(np.concatenate([np.linspace(a, b, STEPS + 1) for a, b in pairwise(heights)]))
    wide = np.interp(at, heights, profile[:, 1]) ** 2 - off**2
    found, upright = [], ACROSS[axis].index("y")
    middle = _middle(inside, ACROSS[axis][1 - upright])
    for (y, a), (after, b) in pairwise(zip(at, wide, strict=True)):
        if a <= 0 or b <= 0:
            continue
        ends = [
            (middle + way * float(root(w)), h) for h, w in ((y, a), (after, b)) for way in (-1, 1)
        ]
        found.append(hull(np.array([e if upright else e[::-1] for e in ends])))
    return found


def _middle(inside: Inside, axis: str) -> float:
    low, high = _reach(inside, axis)
    return (low + high) / 2


def _reach(inside: Inside, axis: str) -> tuple[float, float]:
    k = ORDER.index(axis)
    return float(inside.low[k]), float(inside.high[k])


def _rectangle(first: tuple[float, float], second: tuple[float, float]) -> Real:
    (a0, a1), (b0, b1) = first, second
    return np.array([(a0, b0), (a1, b0), (a1, b1), (a0, b1)])


def _ring(centre: Sequence[float], r: float) -> Real:
    turn = np.linspace(0.0, 2 * np.pi, TURN, endpoint=False)
    return np.stack([centre[0] + r * np.cos(turn), centre[1] + r * np.sin(turn)], axis=1)
