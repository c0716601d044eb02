"""A convex outline drawn along x or y: wedges, sloped baffles, columns; two end plates."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.frames import AXES, Frame, Vector, cross, unit
from firecrest.core.cabinet.shapes.polygon import area_and_middle, clipped, moved_in
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, plane

LEVEL = 0.1
"""Of the outward normal's upright share above which a face counts as lying flat."""


@dataclass(frozen=True, eq=False)
class Prism:
    """Outline ``points`` (n, 2): (z, y) along x, (x, z) along y; edge k from point k to k + 1.

    ``ends``: thickness at the lower and the upper end of the axis; through ends cover the outline.
    """

    axis: Literal["x", "y"]
    length: float
    points: Real
    names: tuple[str, ...]
    t: tuple[float, ...]
    ends: tuple[float, float]
    ends_through: bool

    @property
    def end_names(self) -> tuple[str, str]:
        """Names of the end plates."""
        return ("left", "right") if self.axis == "x" else ("bottom", "top")

    @property
    def inner(self) -> Real:
        """The outline with its edges moved in."""
        return moved_in(self.points, list(self.t))

    def point(self, across: Real | tuple[float, float], along: float) -> Vector:
        """A point of the outline at a place along the axis."""
        a, b = float(across[0]), float(across[1])
        return (along, b, a) if self.axis == "x" else (a, along, b)


def shell(prism: Prism) -> Shell:
    """A prism."""
    outer, inner = area_and_middle(prism.points), area_and_middle(prism.inner)
    clear = prism.length - sum(prism.ends)
    shift = (prism.ends[0] - prism.ends[1]) / 2
    frames = panel_frames(prism)
    reach = [(p.min(axis=0), p.max(axis=0)) for p in (prism.points, prism.inner)]
    half = prism.length / 2
    low, high = (prism.point(reach[1][k], shift + (clear / 2 if k else -clear / 2)) for k in (0, 1))
    least, most = prism.point(reach[0][0], -half), prism.point(reach[0][1], half)
    return Shell(
        size=(most[0] - least[0], most[1] - least[1], most[2] - least[2]),
        outside=Body(abs(outer[0]) * prism.length, prism.point(outer[1], 0.0)),
        inside=Body(abs(inner[0]) * clear, prism.point(inner[1], shift)),
        frames=frames,
        walls=tuple(plane(n, f) for n, f in frames.items()),
        fields=_fields(prism, clear),
        lowest=least[1],
        stands_on=_foot(prism, float(least[1])),
        low=low,
        high=high,
        printed_wall=prism.t[0],
    )


def panel_frames(prism: Prism) -> dict[str, Frame]:
    """Outer faces: one for each edge, and the two end plates."""
    turning = 1.0 if area_and_middle(prism.points)[0] > 0 else -1.0
    frames = {}
    after = np.roll(prism.points, -1, axis=0)
    for k, name in enumerate(prism.names):
        along = after[k] - prism.points[k]
        along = along / np.sqrt(along @ along)
        outward = turning * np.array([along[1], -along[0]])
        normal = unit(prism.point(outward, 0.0))
        middle = prism.point((prism.points[k] + after[k]) / 2, 0.0)
        v = _upwards(prism, normal)
        frames[name] = Frame(middle, cross(v, normal), v, prism.t[k])
    box = (prism.points.min(axis=0) + prism.points.max(axis=0)) / 2
    for name, at, t in zip(
        prism.end_names, (-prism.length / 2, prism.length / 2), prism.ends, strict=True
    ):
        u, v = AXES[name]
        frames[name] = Frame(prism.point(box, at), u, v, t)
    return frames


def _upwards(prism: Prism, normal: Vector) -> Vector:
    """V of a slanted face: along it upwards; a level one lies like a box's top or bottom."""
    if prism.axis == "y":
        return 0.0, 1.0, 0.0
    rise = float(normal[1])
    if abs(rise) > 1 - 1e-9:
        return AXES["top" if rise > 0 else "bottom"][1]
    v = cross(normal, (1.0, 0.0, 0.0))
    return v if float(v[1]) > 0 else (-v[0], -v[1], -v[2])


def _fields(prism: Prism, clear: float) -> dict[str, Field]:
    """Edges: clear length x inner edge. End plates that are not rectangles: not reckoned."""
    inner = prism.inner
    edges = np.roll(inner, -1, axis=0) - inner
    lengths = np.sqrt(np.sum(edges**2, axis=1))
    return {name: Field(prism.t[k], clear, float(lengths[k])) for k, name in enumerate(prism.names)}


def corner_regions(prism: Prism) -> list[Real]:
    """What each edge's panel is in the outline: between it and its inner edge, to the corners."""
    inner, outer = prism.inner, prism.points
    after, inner_after = np.roll(outer, -1, axis=0), np.roll(inner, -1, axis=0)
    return [np.array([outer[k], after[k], inner_after[k], inner[k]]) for k in range(len(outer))]


def bevels(prism: Prism) -> list[tuple[float, float]]:
    """Saw tilts in rad at the start and end of each edge: half of what the corner turns by."""
    edges = np.roll(prism.points, -1, axis=0) - prism.points
    turns = np.arctan2(edges[:, 1], edges[:, 0])
    bend = np.abs((turns - np.roll(turns, 1) + np.pi) % (2 * np.pi) - np.pi) / 2
    after = np.roll(bend, -1)
    return [(float(bend[k]), float(after[k])) for k in range(len(bend))]


def _foot(prism: Prism, lowest: float) -> Real:
    """What touches the floor."""
    if prism.axis == "y":
        return prism.points
    points, half = prism.points, prism.length / 2
    low = points[points[:, 1] < lowest + 1e-6]
    if len(low) < 2:
        near = clipped(points, np.array([0.0, 1.0]), lowest + 1e-3)
        low = near
    z0, z1 = float(low[:, 0].min()), float(low[:, 0].max())
    return np.array([(-half, z0), (half, z0), (half, z1), (-half, z1)])
