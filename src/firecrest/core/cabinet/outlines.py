"""Outlines of a case and of solids as they are seen along an axis.

A view has two directions of the case's frame: to the right and up on the paper.
"""

from functools import lru_cache, singledispatch

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.frames import AXES, Vector
from firecrest.core.cabinet.shapes.ball import Ball
from firecrest.core.cabinet.shapes.box import Box, corners
from firecrest.core.cabinet.shapes.cylinder import Cylinder
from firecrest.core.cabinet.shapes.polygon import hull
from firecrest.core.cabinet.shapes.prism import Prism
from firecrest.core.cabinet.shapes.stack import Stack, outline_points
from firecrest.core.cabinet.shapes.taper import Taper
from firecrest.core.cabinet.shapes.vase import Vase
from firecrest.core.cabinet.solids import Solid

View = tuple[Vector, Vector]
VIEWS: dict[str, View] = dict(AXES)
PLAN: View = ((1.0, 0.0, 0.0), (0.0, 0.0, -1.0))
"""From above, the front at the bottom of the paper."""
ARC = np.linspace(0.0, np.pi / 2, 19)
DRAWN = 60
"""Points round a drawn circle."""
TURN = np.linspace(0.0, 2 * np.pi, 180, endpoint=False)


def projected(points: Real, view: View) -> Real:
    """Points (n, 3) on the paper, (n, 2)."""
    right, up = (np.asarray(way, dtype=float) for way in view)
    return np.stack([points @ right, points @ up], axis=1)


def outline(shape: object, view: View, *, inside: bool = False) -> Real:
    """Outline (n, 2) of the outside, or of the inside, counter-clockwise; floats only."""
    if isinstance(shape, Vase) and view[1] == (0.0, 1.0, 0.0):
        return _profile(shape, view, inside)
    return hull(projected(cloud(shape, inside=inside), view))


def cloud(shape: object, *, inside: bool = False) -> Real:
    """Points (n, 3) whose hull the outside or inside is, but for a turned profile with a waist."""
    return np.asarray(_cloud(shape, inside), dtype=float)


@lru_cache(512)
def solid_outlines(solid: Solid, view: View) -> tuple[Real, ...]:
    """Outline of each piece of a solid, as fine as is drawn."""
    if solid.still is not None and solid.off is not None:
        off = projected(solid.off[None], view)
        return tuple(points + off for points in solid_outlines(solid.still, view))
    thinned = (p[:, :: max(p.shape[1] // DRAWN, 1)] for p in solid.pieces)
    return tuple(hull(projected(piece.reshape(-1, 3), view)) for piece in thinned)


@singledispatch
def _cloud(shape: object, inside: bool) -> Real:
    """Points whose hull a convex case is."""
    raise TypeError(f"no outline of {type(shape).__name__}")


def _block(low: Vector, high: Vector) -> Real:
    return np.array([(x, y, z) for x in (low[0], high[0]) for y in (low[1], high[1])
                     for z in (low[2], high[2])])  # fmt: skip


@_cloud.register
def _(box: Box, inside: bool) -> Real:
    low: Vector = (-box.length / 2, -box.height / 2, -box.depth)
    high: Vector = (box.length / 2, box.height / 2, 0.0)
    r = 0.0 if box.rounding is None else float(box.rounding.radius)
    if inside:
        (low, high), r = corners(box), float(box.inner_radius)
    if box.rounding is None or r <= 0:
        return _block(low, high)
    if box.rounding.edges == "front":
        return _front_rounded(low, high, r)
    upright = r if box.rounding.edges == "all" else 0.0
    least = (low[0] + r, low[1] + upright, low[2] + r)
    core = _block(least, (high[0] - r, high[1] - upright, high[2] - r))
    ring = r * np.stack([np.cos(TURN), np.zeros_like(TURN), np.sin(TURN)], axis=1)
    if box.rounding.edges == "all":
        tilts = [ring * np.cos(a) + [0.0, r * np.sin(a), 0.0] for a in (*-ARC, *ARC)]
        ring = np.concatenate(tilts)
    return np.asarray(core[:, None, :] + ring).reshape(-1, 3)


def _front_rounded(low: Vector, high: Vector, r: float) -> Real:
    """Rectangles that shrink towards the front."""
    made = [_block(low, (high[0], high[1], float(high[2]) - r))]
    for turn in ARC:
        over = r * (1 - np.cos(turn))
        at = float(high[2]) - r + r * np.sin(turn)
        made.append(
            _block((low[0] + over, low[1] + over, at), (high[0] - over, high[1] - over, at))
        )
    return np.concatenate(made)


@_cloud.register
def _(taper: Taper, inside: bool) -> Real:
    start, end = (taper.t["front"], taper.depth - taper.t["back"]) if inside else (0.0, taper.depth)
    points = []
    for deep in (start, end):
        less = {
            s: taper.stands_in(s) if inside else 0.0 for s in ("left", "right", "bottom", "top")
        }
        at = {s: float(taper.outer_at(s, deep) - less[s]) for s in less}
        points += [(x, y, -float(deep)) for x in (-at["left"], at["right"])
                   for y in (-at["bottom"], at["top"])]  # fmt: skip
    return np.array(points)


@_cloud.register
def _(prism: Prism, inside: bool) -> Real:
    half = float(prism.length) / 2
    low, high = -half, half
    if inside:
        low, high = low + float(prism.ends[0]), high - float(prism.ends[1])
    outline = prism.inner if inside else prism.points
    return np.array([prism.point(p, at) for p in outline for at in (low, high)], dtype=float)


@_cloud.register
def _(case: Cylinder, inside: bool) -> Real:
    r = float(case.radius - case.t) if inside else float(case.radius)
    ends = [-float(case.length) / 2, float(case.length) / 2]
    if inside:
        ends = [ends[0] + float(case.ends[0]), ends[1] - float(case.ends[1])]
    k = "xyz".index(case.axis)
    ring = np.zeros((len(TURN), 3))
    ring[:, (k + 1) % 3], ring[:, (k + 2) % 3] = r * np.cos(TURN), r * np.sin(TURN)
    middle = np.array([0.0, 0.0, -float(case.length / 2 if case.axis == "z" else case.radius)])
    along = np.eye(3)[k]
    return np.concatenate([ring + middle + at * along for at in ends])


@_cloud.register
def _(ball: Ball, inside: bool) -> Real:
    r, front, foot = (float(x) for x in (ball.radius, ball.front, ball.foot))
    if inside:
        r, front, foot = r - float(ball.t), front - float(ball.t_front), foot - float(ball.t_foot)
    points = []
    for tilt in np.linspace(-np.pi / 2, np.pi / 2, 61):
        wide = r * np.cos(tilt)
        points.append(
            np.stack(
                [wide * np.cos(TURN), np.full(len(TURN), r * np.sin(tilt)), wide * np.sin(TURN)],
                axis=1,
            )
        )
    cloud = np.concatenate(points)
    # what the flats cut off is brought onto them, along the ball's own circles
    for axis, sign, level in ((2, 1.0, front), (1, -1.0, foot)):
        over = sign * cloud[:, axis] > level
        others = [k for k in range(3) if k != axis]
        wide = np.sqrt(np.sum(cloud[over][:, others] ** 2, axis=1))
        scale = np.sqrt(max(r * r - level * level, 0.0)) / np.maximum(wide, 1e-12)
        for k in others:
            cloud[over, k] *= np.minimum(scale, 1.0)
        cloud[over, axis] = sign * level
    return np.asarray(cloud + np.array([0.0, 0.0, -float(ball.front)]))


@_cloud.register
def _(vase: Vase, inside: bool) -> Real:
    profile = np.array(vase.inner if inside else vase.outer, dtype=float)
    r, base = float(np.array(vase.outer)[:, 1].max()), -float(vase.height) / 2
    rings = [
        np.stack([w * np.cos(TURN), np.full(len(TURN), y + base), w * np.sin(TURN) - r], axis=1)
        for y, w in profile
    ]
    return np.concatenate(rings)


def _profile(vase: Vase, view: View, inside: bool) -> Real:
    """A turned profile from the side: itself and its mirror image."""
    profile = np.array(vase.inner if inside else vase.outer, dtype=float)
    r, base = float(np.array(vase.outer)[:, 1].max()), -float(vase.height) / 2
    middle = float(np.dot(np.array([0.0, 0.0, -r]), np.asarray(view[0], dtype=float)))
    right = np.stack([middle + profile[:, 1], profile[:, 0] + base], axis=1)
    left = np.stack([middle - profile[:, 1], profile[:, 0] + base], axis=1)
    return np.concatenate([right, left[::-1]])


@_cloud.register
def _(stack: Stack, inside: bool) -> Real:
    depth = float(stack.layers * stack.layer)
    ends = [-depth, 0.0]
    edge, r = np.array(stack.corners, dtype=float), float(stack.radius)
    if inside:
        hollow, radius = stack.hollow
        edge, r = np.array(hollow, dtype=float), float(radius)
        ends = [
            -depth + float(stack.solid_back * stack.layer),
            -float(stack.solid_front * stack.layer),
        ]
    flat = outline_points(edge, r)
    return np.concatenate([np.column_stack([flat, np.full(len(flat), at)]) for at in ends])
