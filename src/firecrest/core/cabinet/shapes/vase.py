"""A profile turned about an upright axis, with a floor and a top; for prints.

The wall is measured level: perimeters of a print are.
"""

from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.frames import Vector, frame
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, Wall, plane


@dataclass(frozen=True, eq=False)
class Vase:
    """``profile`` (n, 2): (height from the floor, radius), straight between its points."""

    profile: Real
    t: float
    t_floor: float
    t_top: float

    @property
    def inner(self) -> Real:
        """The inside's profile, from floor to top."""
        heights, radii = self.profile[:, 0], self.profile[:, 1]
        low, high = heights[0] + self.t_floor, heights[-1] - self.t_top
        between = heights[(heights > low) & (heights < high)]
        at = np.concatenate([[low], between, [high]])
        return np.stack([at, np.interp(at, heights, radii) - self.t], axis=1)


def turned(profile: Real) -> tuple[float, float]:
    """Volume of a turned profile, and the height of its middle: frusta between its points."""
    y, r = profile[:, 0], profile[:, 1]
    step, a, b = np.diff(y), r[:-1], r[1:]
    pieces = pi * step / 3 * (a * a + a * b + b * b)
    share = (a * a + 2 * a * b + 3 * b * b) / (4 * (a * a + a * b + b * b))
    volume = float(pieces.sum())
    return volume, float(np.sum(pieces * (y[:-1] + step * share)) / volume)


def shell(vase: Vase) -> Shell:
    """A vase; its axis is its largest radius behind the front, its mid-height at y = 0."""
    heights, radii = vase.profile[:, 0], vase.profile[:, 1]
    r, tall = float(radii.max()), float(heights[-1] - heights[0])
    base = -tall / 2 - float(heights[0])
    inner = vase.inner
    bodies = []
    for profile in (vase.profile, inner):
        volume, middle = turned(profile)
        bodies.append(Body(volume, (0.0, middle + base, -r)))
    ends: dict[str, tuple[float, float]] = {
        "bottom": (-tall / 2, vase.t_floor),
        "top": (tall / 2, vase.t_top),
    }
    frames = {n: frame(n, (0.0, y, -r), t) for n, (y, t) in ends.items()}
    turn = 2 * np.pi * np.arange(720) / 720
    foot = float(radii[0])
    most = float(inner[:, 1].max())
    return Shell(
        size=(2 * r, tall, 2 * r),
        outside=bodies[0],
        inside=bodies[1],
        frames=frames,
        walls=(*(plane(n, f) for n, f in frames.items()), _turned_wall((0.0, base, -r), inner)),
        fields={
            "bottom": Field(vase.t_floor, r=float(inner[0, 1])),
            "top": Field(vase.t_top, r=float(inner[-1, 1])),
        },
        lowest=-tall / 2,
        stands_on=np.stack([foot * np.cos(turn), foot * np.sin(turn) - r], axis=1),
        low=(-most, -tall / 2 + vase.t_floor, -r - most),
        high=(most, tall / 2 - vase.t_top, -r + most),
        printed_wall=vase.t,
    )


def _turned_wall(axis: Vector, profile: Real) -> Wall:
    """Distance to the nearest point of the inside's profile."""
    starts, ends = profile[:-1], profile[1:]
    along = ends - starts
    square = np.sum(along**2, axis=1)

    def gap(points: Real) -> Real:
        off = points - np.asarray(axis)
        flat = np.stack([off[:, 1], np.hypot(off[:, 0], off[:, 2])], axis=1)
        away = flat[:, None, :] - starts
        share = np.clip(np.sum(away * along, axis=2) / square, 0.0, 1.0)
        least = np.sqrt(np.sum((away - share[:, :, None] * along) ** 2, axis=2)).min(axis=1)
        wide = np.interp(flat[:, 0], profile[:, 0], profile[:, 1])
        return np.asarray(np.where(flat[:, 1] <= wide, least, -least))

    return Wall("wall", gap)
