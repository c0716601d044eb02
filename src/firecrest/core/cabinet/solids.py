"""Solids as convex pieces: each a stack of outlines whose hull it is.

A piece is an array (slices, n, 3): n points round each slice, matched from slice to slice. Circles
are of 360 points: 4 millionths of the radius too small.
"""

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from math import cos, sin

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.cabinet.cutouts import CutOut, Round, Truncated, outline
from firecrest.core.cabinet.frames import Frame, Vector

CUT_SLICES = 33
CORNERS, SAME = 8, 1e-12
"""Of a brick; m within which points are in its corners."""
BEND_SLICES = 24


@dataclass(frozen=True, eq=False)
class Solid:
    """What a thing occupies, with a ball round all of it."""

    pieces: tuple[Real, ...]
    middle: Real
    reach: float
    lows: Real
    highs: Real
    """Corners (pieces, 3) of a box round each piece."""
    still: "Solid | None" = None
    off: Real | None = None
    """The same elsewhere, and how far this is from it: what is moved along keeps its outlines."""

    @cached_property
    def fills(self) -> tuple[bool, ...]:
        """Whether each piece is the whole of its box: a brick along the axes."""
        if self.still is not None:
            return self.still.fills
        return tuple(
            _is_brick(piece.reshape(-1, 3), low, high)
            for piece, low, high in zip(self.pieces, self.lows, self.highs, strict=True)
        )


def _is_brick(points: Real, low: Real, high: Real) -> bool:
    """Eight points, one in every corner."""
    if len(points) != CORNERS:
        return False
    at_high = np.abs(points - high) < SAME
    if not np.all(at_high | (np.abs(points - low) < SAME)):
        return False
    return len({tuple(row) for row in at_high.tolist()}) == CORNERS


def solid(pieces: list[Real]) -> Solid:
    """Of convex pieces."""
    flat = [piece.reshape(-1, 3) for piece in pieces]
    lows, highs = (np.array([end(f, axis=0) for f in flat]) for end in (np.min, np.max))
    return Solid(tuple(pieces), *_ball(np.concatenate(flat)), lows, highs)


def shifted(body: Solid, by: Real) -> Solid:
    """The same solid moved by a vector."""
    return Solid(
        tuple(piece + by for piece in body.pieces),
        body.middle + by,
        body.reach,
        body.lows + by,
        body.highs + by,
        body,
        by,
    )


def _ball(points: Real) -> tuple[Real, float]:
    """Middle and radius of a ball that holds points."""
    middle = (points.min(axis=0) + points.max(axis=0)) / 2
    return middle, float(np.sqrt(np.max(np.sum((points - middle) ** 2, axis=1))))


def slice_at(frame: Frame, ring: Real, w: Number) -> Real:
    """Points (n, 3) of an outline (n, 2) in a frame's u and v, ``w`` inwards of its face."""
    base = np.asarray(frame.at(0.0, 0.0, w))
    return np.asarray(base + ring[:, :1] * np.asarray(frame.u) + ring[:, 1:] * np.asarray(frame.v))


def lathe(frame: Frame, profile: list[tuple[Number, Number]]) -> Real:
    """A convex turned piece about a frame's inward axis: (w, radius) of each slice."""
    ring = outline(Round(2.0))
    return np.stack([slice_at(frame, r * ring, w) for w, r in profile])


def cut_lathe(frame: Frame, profile: list[tuple[Number, Number]], flats: float) -> Real:
    """The same cut by two parallels ``flats`` apart, square to the frame's u."""
    ws, rs = zip(*profile, strict=True)
    fine = np.union1d(np.linspace(ws[0], ws[-1], CUT_SLICES), ws)
    radii = np.interp(fine, ws, rs)
    made = []
    for w, r in zip(fine, radii, strict=True):
        made.append(slice_at(frame, _flattened(float(r), flats / 2), float(w)))
    return np.stack(made)


def _flattened(r: float, half: float) -> Real:
    """A circle of radius ``r`` within ``half`` of its v axis; always as many points."""
    ring = outline(Truncated(2 * r, 2 * half))
    if half >= r:
        extra = np.array([(r, 0.0), (0.0, r), (-r, 0.0), (0.0, -r)])
        ring = np.concatenate([outline(Round(2 * r)), extra])
        ring = ring[np.argsort(np.arctan2(ring[:, 1], ring[:, 0]), kind="stable")]
    return ring


def prism(frame: Frame, cut: CutOut, start: Number, end: Number) -> Real:
    """An outline drawn inwards from ``start`` to ``end``."""
    ring = outline(cut)
    return np.stack([slice_at(frame, ring, start), slice_at(frame, ring, end)])


def brick(low: Vector, high: Vector) -> Real:
    """Between two corners, edges along the axes."""
    (x0, y0, z0), (x1, y1, z1) = low, high
    return np.array(
        [[(x0, y0, z), (x1, y0, z), (x1, y1, z), (x0, y1, z)] for z in (z0, z1)], dtype=float
    )


def disc(centre: Real, a: Real, b: Real, r: float) -> Real:
    """Points (n, 3) of a circle in the plane of the unit vectors ``a`` and ``b``."""
    ring = outline(Round(2 * r))
    return np.asarray(centre + ring[:, :1] * a + ring[:, 1:] * b)


def tube(path: list[tuple[Real, Real, Real]], r: float) -> list[Real]:
    """Convex lengths of a round tube along a path of (centre, a, b), a and b across the way."""
    discs = [disc(centre, a, b, r) for centre, a, b in path]
    return [np.stack(pair) for pair in pairwise(discs)]


def quarter(
    centre: Real, ahead: Real, aside: Real, rho: float
) -> tuple[list[tuple[Real, Real, Real]], Real]:
    """A quarter turn from ``ahead`` towards ``aside``: its path, and where it ends."""
    across = np.cross(ahead, aside)
    pivot = centre + rho * aside
    path = []
    for k in range(BEND_SLICES + 1):
        turn = np.pi / 2 * k / BEND_SLICES
        out = -cos(turn) * aside + sin(turn) * ahead
        path.append((pivot + rho * out, out, across))
    return path, path[-1][0]


def beyond(piece: Real, frame: Frame, w: Number) -> Real:
    """Points (n, 3) whose hull is what of a piece lies at least ``w`` inwards of a frame's face."""
    inward = -np.asarray(frame.normal)
    deep = (piece - np.asarray(frame.o)) @ inward - w
    points = [piece[deep >= 0]]
    for k in range(len(piece) - 1):
        a, b = deep[k], deep[k + 1]
        crossing = (a >= 0) != (b >= 0)
        share = (a[crossing] / (a[crossing] - b[crossing]))[:, None]
        points.append(piece[k][crossing] * (1 - share) + piece[k + 1][crossing] * share)
    return np.concatenate(points)
