"""A convex outline drawn along x or y: wedges, sloped baffles, columns; two end plates."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from firecrest.core.arrays import Number, Real, root
from firecrest.core.cabinet.frames import AXES, Frame, Vector, cross, unit
from firecrest.core.cabinet.shapes.polygon import (
    Corners,
    area_and_middle,
    corners_area,
    edge_frames,
    moved_in,
    reach,
)
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, plane


@dataclass(frozen=True)
class Prism:
    """Outline ``points``: (z, y) along x, (x, z) along y; edge k from point k to k + 1.

    ``ends``: thickness at the lower and the upper end of the axis; through ends cover the outline.
    """

    axis: Literal["x", "y"]
    length: Number
    points: tuple[tuple[Number, Number], ...]
    names: tuple[str, ...]
    t: tuple[Number, ...]
    ends: tuple[Number, Number]
    ends_through: bool

    @property
    def end_names(self) -> tuple[str, str]:
        """Names of the end plates."""
        return ("left", "right") if self.axis == "x" else ("bottom", "top")

    @property
    def inner(self) -> list[tuple[Number, Number]]:
        """The outline with its edges moved in."""
        return moved_in(self.points, self.t)

    @property
    def clear(self) -> Number:
        """Length between the end plates."""
        return self.length - self.ends[0] - self.ends[1]

    def point(self, across: Sequence[Number] | Real, along: Number) -> Vector:
        """A point of the outline at a place along the axis."""
        a, b = across
        return (along, b, a) if self.axis == "x" else (a, along, b)


def volumes(prism: Prism) -> tuple[Number, Number]:
    """Outside and inside in m3."""
    outer, inner = (np.abs(corners_area(c)) for c in (prism.points, prism.inner))
    return outer * prism.length, inner * prism.clear


def _size(prism: Prism, corners: Corners, long: Number) -> Vector:
    low, high = reach(corners)
    return prism.point((high[0] - low[0], high[1] - low[1]), long)


def outer_size(prism: Prism) -> Vector:
    """Size over everything."""
    return _size(prism, prism.points, prism.length)


def corners(prism: Prism) -> tuple[Vector, Vector]:
    """Lowest and highest corner of what holds the inside."""
    low, high = reach(prism.inner)
    shift, half = (prism.ends[0] - prism.ends[1]) / 2, prism.clear / 2
    return prism.point(low, shift - half), prism.point(high, shift + half)


def shell(prism: Prism) -> Shell:
    """A prism of floats."""
    points, inner = np.array(prism.points), np.array(prism.inner)
    outside, inside = (float(v) for v in volumes(prism))
    shift = (prism.ends[0] - prism.ends[1]) / 2
    frames = panel_frames(prism)
    low, high = corners(prism)
    lowest = float(prism.point(points.min(axis=0), -prism.length / 2)[1])
    return Shell(
        size=outer_size(prism),
        outside=Body(outside, prism.point(area_and_middle(points)[1], 0.0)),
        inside=Body(inside, prism.point(area_and_middle(inner)[1], shift)),
        frames=frames,
        walls=tuple(plane(n, f) for n, f in frames.items()),
        fields=_fields(prism, inner),
        lowest=lowest,
        stands_on=_foot(prism, points, lowest),
        low=low,
        high=high,
        printed_wall=prism.t[0],
    )


def panel_frames(prism: Prism) -> dict[str, Frame]:
    """Outer faces: one for each edge, and the two end plates."""
    frames = {}
    after = (*prism.points[1:], prism.points[0])
    lines = edge_frames(prism.points)
    for k, name in enumerate(prism.names):
        (a, b), _ = lines[k]
        normal = unit(prism.point((-a, -b), 0.0))
        start, end = prism.points[k], after[k]
        middle = prism.point(((start[0] + end[0]) / 2, (start[1] + end[1]) / 2), 0.0)
        v = _upwards(prism, normal)
        frames[name] = Frame(middle, cross(v, normal), v, prism.t[k])
    low, high = reach(prism.points)
    box = (low[0] + high[0]) / 2, (low[1] + high[1]) / 2
    for name, way, t in zip(prism.end_names, (-0.5, 0.5), prism.ends, strict=True):
        u, v = AXES[name]
        frames[name] = Frame(prism.point(box, way * prism.length), u, v, t)
    return frames


def _upwards(prism: Prism, normal: Vector) -> Vector:
    """V of a slanted face: along it upwards; a level one lies like a box's top or bottom."""
    if prism.axis == "y":
        return 0.0, 1.0, 0.0
    rise = float(np.ravel(normal[1])[0])
    if abs(rise) > 1 - 1e-9:
        return AXES["top" if rise > 0 else "bottom"][1]
    # square to x and to the normal, with the upright part positive
    return 0.0, np.abs(normal[2]), -normal[1] * np.sign(normal[2])


def _fields(prism: Prism, inner: Real) -> dict[str, Field]:
    """Edges: clear length x inner edge. End plates that are not rectangles: not reckoned."""
    edges = np.roll(inner, -1, axis=0) - inner
    lengths = np.sqrt(np.sum(edges**2, axis=1))
    return {
        name: Field(prism.t[k], prism.clear, float(lengths[k]))
        for k, name in enumerate(prism.names)
    }


def corner_regions(prism: Prism) -> list[Real]:
    """What each edge's panel is in the outline: between it and its inner edge, to the corners."""
    outer, inner = np.array(prism.points), np.array(prism.inner)
    after, inner_after = np.roll(outer, -1, axis=0), np.roll(inner, -1, axis=0)
    return [np.array([outer[k], after[k], inner_after[k], inner[k]]) for k in range(len(outer))]


def edge_lengths(prism: Prism) -> list[Number]:
    """Of the outline."""
    after = (*prism.points[1:], prism.points[0])
    return [
        root((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2)
        for a, b in zip(prism.points, after, strict=True)
    ]


def bevels(prism: Prism) -> list[tuple[float, float]]:
    """Saw tilts in rad at the start and end of each edge: half of what the corner turns by."""
    points = np.array(prism.points)
    edges = np.roll(points, -1, axis=0) - points
    turns = np.arctan2(edges[:, 1], edges[:, 0])
    bend = np.abs((turns - np.roll(turns, 1) + np.pi) % (2 * np.pi) - np.pi) / 2
    after = np.roll(bend, -1)
    return [(float(bend[k]), float(after[k])) for k in range(len(bend))]


def _foot(prism: Prism, points: Real, lowest: float) -> Real:
    """What touches the floor."""
    if prism.axis == "y":
        return points
    low = points[points[:, 1] < lowest + 1e-6]
    half = float(prism.length) / 2
    z0, z1 = float(low[:, 0].min()), float(low[:, 0].max())
    return np.array([(-half, z0), (half, z0), (half, z1), (-half, z1)])
