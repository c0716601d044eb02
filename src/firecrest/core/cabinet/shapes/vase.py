"""A profile turned about an upright axis, with a floor and a top; for prints.

The wall is measured level: perimeters of a print are.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import pi

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.cabinet.frames import Frame, Vector, frame
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, Wall, plane

Profile = Sequence[tuple[Number, Number]]


@dataclass(frozen=True)
class Vase:
    """``profile``: (height, radius) as shares of ``height`` and ``radius``, straight between."""

    profile: tuple[tuple[float, float], ...]
    height: Number
    radius: Number
    t: Number
    t_floor: Number
    t_top: Number

    @property
    def outer(self) -> Profile:
        """Heights and radii of the outside, each a row."""
        return [(h * self.height, r * self.radius) for h, r in self.profile]

    @property
    def inner(self) -> Profile:
        """The inside's, from floor to top; points outside these are moved onto them."""
        heights, radii = (np.array(row, dtype=float) for row in zip(*self.profile, strict=True))
        low, high = self.t_floor / self.height, 1.0 - self.t_top / self.height
        at = [low, *(np.clip(h, low, high) for h in heights[1:-1]), high]
        return [
            (share * self.height, np.interp(share, heights, radii) * self.radius - self.t)
            for share in at
        ]


def _turned(profile: Profile) -> Number:
    """Volume of a turned profile: frusta between its points."""
    total: Number = 0.0
    for (y, a), (after, b) in pairwise(profile):
        total = total + pi * (after - y) / 3 * (a * a + a * b + b * b)
    return total


def _middle(profile: Real) -> float:
    """Height of a turned profile's middle."""
    y, r = profile[:, 0], profile[:, 1]
    step, a, b = np.diff(y), r[:-1], r[1:]
    pieces = step * (a * a + a * b + b * b)
    share = (a * a + 2 * a * b + 3 * b * b) / (4 * (a * a + a * b + b * b))
    return float(np.sum(pieces * (y[:-1] + step * share)) / pieces.sum())


def volumes(vase: Vase) -> tuple[Number, Number]:
    """Outside and inside in m3."""
    return _turned(vase.outer), _turned(vase.inner)


def _widest(profile: Profile) -> Number:
    widest = profile[0][1]
    for _, r in profile[1:]:
        widest = np.maximum(widest, r)
    return widest


def outer_size(vase: Vase) -> Vector:
    """Size over everything."""
    wide = 2 * _widest(vase.outer)
    return wide, vase.height, wide


def corners(vase: Vase) -> tuple[Vector, Vector]:
    """Lowest and highest corner of what holds the inside."""
    wide, axis, half = _widest(vase.inner), -_widest(vase.outer), vase.height / 2
    low = (-wide, vase.t_floor - half, axis - wide)
    return low, (wide, half - vase.t_top, axis + wide)


def panel_frames(vase: Vase) -> dict[str, Frame]:
    """Floor and top."""
    r, half = _widest(vase.outer), vase.height / 2
    return {
        "bottom": frame("bottom", (0.0, -half, -r), vase.t_floor),
        "top": frame("top", (0.0, half, -r), vase.t_top),
    }


def shell(vase: Vase) -> Shell:
    """A vase of floats; its axis is its largest radius behind the front, y = 0 at mid-height."""
    outer, inner = (np.array(p, dtype=float) for p in (vase.outer, vase.inner))
    outside, inside = (float(v) for v in volumes(vase))
    r, base = float(outer[:, 1].max()), -float(vase.height) / 2
    frames = panel_frames(vase)
    turn = 2 * np.pi * np.arange(720) / 720
    foot = float(outer[0, 1])
    return Shell(
        size=outer_size(vase),
        outside=Body(outside, (0.0, _middle(outer) + base, -r)),
        inside=Body(inside, (0.0, _middle(inner) + base, -r)),
        frames=frames,
        walls=(*(plane(n, f) for n, f in frames.items()), _turned_wall((0.0, base, -r), inner)),
        fields={
            "bottom": Field(vase.t_floor, r=float(inner[0, 1])),
            "top": Field(vase.t_top, r=float(inner[-1, 1])),
        },
        lowest=base,
        stands_on=np.stack([foot * np.cos(turn), foot * np.sin(turn) - r], axis=1),
        low=corners(vase)[0],
        high=corners(vase)[1],
        printed_wall=vase.t,
    )


def _turned_wall(axis: Vector, profile: Real) -> Wall:
    """Distance to the nearest point of the inside's profile."""
    profile = profile[np.concatenate([[True], np.diff(profile[:, 0]) > 0])]
    starts, ends = profile[:-1], profile[1:]
    along = ends - starts
    square = np.sum(along**2, axis=1)

    def _gap(points: Real) -> Real:
        off = points - np.asarray(axis)
        flat = np.stack([off[:, 1], np.hypot(off[:, 0], off[:, 2])], axis=1)
        away = flat[:, None, :] - starts
        share = np.clip(np.sum(away * along, axis=2) / square, 0.0, 1.0)
        least = np.sqrt(np.sum((away - share[:, :, None] * along) ** 2, axis=2)).min(axis=1)
        wide = np.interp(flat[:, 0], profile[:, 0], profile[:, 1])
        return np.asarray(np.where(flat[:, 1] <= wide, least, -least))

    return Wall("wall", _gap)
