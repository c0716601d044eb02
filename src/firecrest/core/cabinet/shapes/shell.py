"""What every shape of case gives: volumes, flat panels, inner walls, fields that can ring."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.cabinet.frames import Frame, Vector, dot


@dataclass(frozen=True)
class Body:
    """A volume in m3 and where its middle is."""

    volume: Number
    centre: Vector


@dataclass(frozen=True)
class Field:
    """The free part of a flat panel in m: ``a`` x ``b``, or a disc of radius ``r``; ``t`` thick."""

    t: Number
    a: Number = 0.0
    b: Number = 0.0
    r: Number | None = None


@dataclass(frozen=True)
class Wall:
    """An inner face: ``gap`` gives how far points (n, 3) are inside of it, negative outside.

    A plane is known by its inward normal and its level along it, too.
    """

    name: str
    gap: Callable[[Real], Real]
    plane: tuple[Real, float] | None = None


@dataclass(frozen=True, eq=False)
class Shell:
    """A case without anything in it. ``stands_on`` (n, 2) is the outline of its foot in x and z.

    ``fields`` are whole fields between inner faces, before braces split them; ``reach`` is the
    inner size along each axis that braces stand square to.
    """

    size: Vector
    outside: Body
    inside: Body
    frames: Mapping[str, Frame]
    walls: tuple[Wall, ...]
    fields: Mapping[str, Field]
    lowest: Number
    stands_on: Real
    low: Vector
    high: Vector
    recess: Number = 0.0
    printed_wall: Number = 0.012


def plane(name: str, frame: Frame, depth: float | None = None) -> Wall:
    """The inner face of a flat panel: an endless plane ``depth`` (its thickness) inwards."""
    inward = -np.asarray(frame.normal)
    level = np.asarray(frame.o) @ inward + (frame.t if depth is None else depth)
    return Wall(name, lambda points: points @ inward - level, (inward, float(level)))


def gaps_to(walls: Sequence[Wall], points: Real) -> Real:
    """Gaps (walls, n) of points (n, 3) to each of ``walls``; all planes at once."""
    found = np.empty((len(walls), len(points)))
    flat = [k for k, wall in enumerate(walls) if wall.plane is not None]
    if flat:
        planes = [walls[k].plane for k in flat]
        normals = np.array([p[0] for p in planes if p is not None], dtype=float)
        levels = np.array([p[1] for p in planes if p is not None])
        found[flat] = normals @ points.T - levels[:, None]
    for k, wall in enumerate(walls):
        if wall.plane is None:
            found[k] = wall.gap(points)
    return found


def round_wall(name: str, through: Vector, axis: Vector, radius: Number) -> Wall:
    """The inside of a round tube about the line ``through`` a point along ``axis``."""
    point, along = np.asarray(through), np.asarray(axis)

    def _gap(points: Real) -> Real:
        off = points - point
        off = off - (off @ along)[:, None] * along
        return np.asarray(radius - np.sqrt(np.sum(off**2, axis=1)))

    return Wall(name, _gap)


def ball_wall(name: str, centre: Vector, radius: Number) -> Wall:
    """The inside of a whole sphere."""
    middle = np.asarray(centre)
    return Wall(name, lambda points: radius - np.sqrt(np.sum((points - middle) ** 2, axis=1)))


def difference(outer: Body, *inner: Body) -> Body:
    """What is left of a body when others are taken out of it."""
    volume = outer.volume - sum((b.volume for b in inner), 0.0)
    moment = [
        outer.volume * outer.centre[k] - sum(b.volume * b.centre[k] for b in inner)
        for k in range(3)
    ]
    if isinstance(volume, float) and volume == 0:
        return Body(0.0, outer.centre)
    x, y, z = (m / volume for m in moment)
    return Body(volume, (x, y, z))


def facing(frame: Frame, direction: Vector) -> bool:
    """Whether a panel looks along ``direction``, within 45 degrees."""
    return float(dot(frame.normal, direction)) > 0.7071
