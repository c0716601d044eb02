"""A round tube along x, y or z with two end plates."""

from dataclasses import dataclass
from math import pi
from typing import Literal

import numpy as np

from firecrest.core.arrays import Number
from firecrest.core.cabinet.frames import Frame, Vector, X, Y, Z, added, frame, scaled
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


def _size(case: Cylinder, wide: Number, long: Number) -> Vector:
    x, y, z = (long if name == case.axis else wide for name in "xyz")
    return x, y, z


def outer_size(case: Cylinder) -> Vector:
    """Size over everything."""
    return _size(case, 2 * case.radius, case.length)


def corners(case: Cylinder) -> tuple[Vector, Vector]:
    """Lowest and highest corner of what holds the inside."""
    clear = case.length - case.ends[0] - case.ends[1]
    half = scaled(_size(case, 2 * (case.radius - case.t), clear), 0.5)
    middle = added(_middle(case), ALONG[case.axis], (case.ends[0] - case.ends[1]) / 2)
    return added(middle, half, -1.0), added(middle, half)


def _middle(case: Cylinder) -> Vector:
    """Of the outside: its axis is a radius behind the front, or through the front's middle."""
    return 0.0, 0.0, -case.length / 2 if case.axis == "z" else -case.radius


def panel_frames(case: Cylinder) -> dict[str, Frame]:
    """The end plates."""
    frames, middle, along = {}, _middle(case), ALONG[case.axis]
    for name, way, t in zip(ENDS[case.axis], (-0.5, 0.5), case.ends, strict=True):
        frames[name] = frame(name, added(middle, along, way * case.length), t)
    return frames


def shell(case: Cylinder) -> Shell:
    """A cylinder of floats; its axis is a radius behind the front, or through its middle."""
    r, half = float(case.radius), float(case.length) / 2
    outside, inside = (float(v) for v in volumes(case))
    middle, along = _middle(case), ALONG[case.axis]
    shift = (float(case.ends[0]) - float(case.ends[1])) / 2
    frames = panel_frames(case)
    inner = r - float(case.t)
    air = added(middle, along, shift)
    flat = case.axis == "y"
    turn = 2 * np.pi * np.arange(720) / 720
    ring = np.stack([r * np.cos(turn), r * np.sin(turn) + middle[2]], axis=1)
    ridge = (
        np.array([(-half, -r), (half, -r)])
        if case.axis == "x"
        else np.array([(0.0, -2 * half), (0.0, 0.0)])
    )
    return Shell(
        size=outer_size(case),
        outside=Body(outside, middle),
        inside=Body(inside, air),
        frames=frames,
        walls=(*(plane(n, f) for n, f in frames.items()), round_wall("wall", middle, along, inner)),
        fields={n: Field(f.t, r=inner) for n, f in frames.items()},
        lowest=middle[1] - (half if flat else r),
        stands_on=ring if flat else ridge,
        low=corners(case)[0],
        high=corners(case)[1],
        printed_wall=float(case.t),
    )
