"""Holes in panels: round, round with two flats, rounded rectangle. Lengths in m, areas in m2."""

from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.arrays import Number, Real, root


@dataclass(frozen=True)
class Round:
    """A circle of diameter ``d``."""

    d: Number


@dataclass(frozen=True)
class Truncated:
    """A circle of diameter ``d`` cut by two parallels ``flats`` apart, square to the place's u."""

    d: Number
    flats: Number


@dataclass(frozen=True)
class Rectangle:
    """``a`` along the place's u by ``b`` along its v, corners of radius ``r``."""

    a: Number
    b: Number
    r: Number = 0.0


CutOut = Round | Truncated | Rectangle


def circle_area(d: Number) -> Number:
    """Of a circle of diameter ``d``."""
    return pi / 4 * d * d


def truncated_area(r: Number, half: Number) -> Number:
    """Of a circle of radius ``r`` between two parallels ``half`` off its middle on either side."""
    half = np.clip(half, 0.0, r)
    side = root(np.maximum(r * r - half * half, 0.0))
    return 2 * (half * side + r * r * np.arcsin(half / r))


def area(cut: CutOut) -> Number:
    """Of a cut-out."""
    if isinstance(cut, Round):
        return circle_area(cut.d)
    if isinstance(cut, Truncated):
        return truncated_area(cut.d / 2, cut.flats / 2)
    return cut.a * cut.b - (4 - pi) * cut.r * cut.r


def framed(cut: CutOut, frame: Number) -> CutOut:
    """The outline of a frame of diameter ``frame`` round a cut-out: its flats as far out as it."""
    if isinstance(cut, Truncated):
        return Truncated(frame, cut.flats + frame - cut.d)
    return Round(frame)


def across(cut: CutOut) -> Number:
    """The narrowest way through."""
    if isinstance(cut, Round):
        return cut.d
    if isinstance(cut, Truncated):
        return np.minimum(cut.flats, cut.d)
    return np.minimum(cut.a, cut.b)


def grown(cut: CutOut, by: float) -> CutOut:
    """The outline moved outwards by ``by`` (inwards where negative)."""
    if isinstance(cut, Round):
        return Round(cut.d + 2 * by)
    if isinstance(cut, Truncated):
        return Truncated(cut.d + 2 * by, cut.flats + 2 * by)
    return Rectangle(cut.a + 2 * by, cut.b + 2 * by, max(cut.r + by, 0.0))


def half_size(cut: CutOut) -> tuple[Number, Number]:
    """How far it reaches from its middle along its own u and v."""
    if isinstance(cut, Round):
        return cut.d / 2, cut.d / 2
    if isinstance(cut, Truncated):
        return np.minimum(cut.flats, cut.d) / 2, cut.d / 2
    return cut.a / 2, cut.b / 2


def outline(cut: CutOut, points: int = 360) -> Real:
    """Points (n, 2) round a cut-out, from its right side counter-clockwise; floats only."""
    turn = 2 * np.pi * np.arange(points) / points
    if isinstance(cut, Rectangle):
        return _rectangle(cut, turn)
    ring = cut.d / 2 * np.stack([np.cos(turn), np.sin(turn)], axis=1)
    if isinstance(cut, Truncated):
        half = min(cut.flats / 2, cut.d / 2)
        ring[:, 0] = np.clip(ring[:, 0], -half, half)
        high = np.sqrt(max((cut.d / 2) ** 2 - half**2, 0.0))
        corners = [(half, high), (-half, high), (-half, -high), (half, -high)]
        ring = np.concatenate([ring, corners])
        ring = ring[np.argsort(np.arctan2(ring[:, 1], ring[:, 0]), kind="stable")]
    return ring


def _rectangle(cut: Rectangle, turn: Real) -> Real:
    """Of a rounded rectangle; four corners where they are sharp."""
    a, b, r = cut.a / 2 - cut.r, cut.b / 2 - cut.r, cut.r
    if r <= 0:
        return np.array([(a, b), (-a, b), (-a, -b), (a, -b)])
    x, y = np.cos(turn), np.sin(turn)
    ring = r * np.stack([x, y], axis=1)
    corners = np.stack([np.where(x >= 0, a, -a), np.where(y >= 0, b, -b)], axis=1)
    return np.asarray(ring + corners)
