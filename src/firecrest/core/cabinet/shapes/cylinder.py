"""A round tube along x, y or z with two end plates."""

from dataclasses import dataclass
from math import pi
from typing import Literal

import numpy as np

from firecrest.core.arrays import Number
from firecrest.core.cabinet.frames import Vector, X, Y, Z, frame
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, plane, round_wall

ENDS = {"x": ("left", "right"), "y": ("bottom", "top"), "z": ("back", "front")}
ALONG = {"x": X, "y": Y, "z": Z}


@dataclass(frozen=True)
class Cylinder:
    """Radius, length, wall; ``ends``: thickness at the lower and the upper end of the axis."""

    axis: Literal["x", "y", "z"]
    radius: Number
    length: Number
    t: Number
    ends: tuple[Number, Number]
    ends_through: bool = False


def volumes(case: Cylinder) -> tuple[Number, Number]:
    """Outside and inside in m3, of floats or columns."""
    inner = case.radius - case.t
    clear = case.length - case.ends[0] - case.ends[1]
    return pi * case.radius**2 * case.length, pi * inner * inner * clear


def shell(case: Cylinder) -> Shell:
    """A cylinder of floats; its axis is a radius behind the front, or through its middle."""
    r, half = float(case.radius), float(case.length) / 2
    outside, inside = (float(v) for v in volumes(case))
    middle: Vector = (0.0, 0.0, -half if case.axis == "z" else -r)
    along = ALONG[case.axis]
    shift = (float(case.ends[0]) - float(case.ends[1])) / 2
    ends = ENDS[case.axis]
    frames = {}
    for name, sign, t in zip(ends, (-1.0, 1.0), case.ends, strict=True):
        o = tuple(m + sign * half * a for m, a in zip(middle, along, strict=True))
        frames[name] = frame(name, (o[0], o[1], o[2]), float(t))
    size = tuple(2 * half if name == case.axis else 2 * r for name in "xyz")
    inner = r - float(case.t)
    air = tuple(m + shift * a for m, a in zip(middle, along, strict=True))
    clear = half - (float(case.ends[0]) + float(case.ends[1])) / 2
    reach = [clear if name == case.axis else inner for name in "xyz"]
    flat = case.axis == "y"
    turn = 2 * np.pi * np.arange(720) / 720
    ring = np.stack([r * np.cos(turn), r * np.sin(turn) + middle[2]], axis=1)
    ridge = (
        np.array([(-half, -r), (half, -r)])
        if case.axis == "x"
        else np.array([(0.0, -2 * half), (0.0, 0.0)])
    )
    return Shell(
        size=(size[0], size[1], size[2]),
        outside=Body(outside, middle),
        inside=Body(inside, (air[0], air[1], air[2])),
        frames=frames,
        walls=(*(plane(n, f) for n, f in frames.items()), round_wall("wall", middle, along, inner)),
        fields={n: Field(f.t, r=inner) for n, f in frames.items()},
        lowest=middle[1] - (half if flat else r),
        stands_on=ring if flat else ridge,
        low=tuple(a - d for a, d in zip(air, reach, strict=True)),  # type: ignore[arg-type]
        high=tuple(a + d for a, d in zip(air, reach, strict=True)),  # type: ignore[arg-type]
        printed_wall=float(case.t),
    )
