"""Braces and dividers: plates square to an axis, over the inside cross-section or a part of it.

A shelf stands against one wall and reaches so far from it; a dowel is a rod between two walls.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from firecrest.core.arrays import Number
from firecrest.core.cabinet.cutouts import Rectangle, Round, area, circle_area, half_size
from firecrest.core.cabinet.frames import Frame, Vector, frame
from firecrest.core.cabinet.shapes.shell import Field
from firecrest.core.cabinet.solids import Solid, brick, disc, solid

ACROSS = {"x": ("z", "y"), "y": ("x", "z"), "z": ("x", "y")}
"""The axes that a window's a and b lie along."""
ORDER = "xyz"
WAYS = {"left": "x", "right": "x", "top": "y", "bottom": "y", "front": "z", "back": "z"}
"""The axis that each panel of a box is square to."""
FIRST = ("left", "bottom", "back")
"""Panels at the low end of their axes."""


@dataclass(frozen=True)
class Brace:
    """A plate of thickness ``t`` with its middle ``at`` along ``axis``; ``groove`` deep in walls.

    A divider has no window and parts two chambers. A shelf stands ``against`` a wall beside it and
    has a ``reach``. A dowel has its ``spot`` from the middle, along the axes of ``ACROSS``, and
    ``t`` is its diameter.
    """

    name: str
    axis: str
    at: Number
    t: Number
    window: Rectangle | Round | None = None
    divider: bool = False
    groove: Number = 0.0
    against: str = ""
    reach: Number = 0.0
    spot: tuple[Number, Number] | None = None

    @property
    def faces(self) -> tuple[Number, Number]:
        """Where its two faces are along its axis."""
        return self.at - self.t / 2, self.at + self.t / 2


def sides(brace: Brace, inner: Sequence[Number]) -> tuple[Number, Number]:
    """The inside cross-section that a plate spans, of a block of inner size (x, y, z)."""
    a, b = (
        np.minimum(brace.reach, inner[ORDER.index(axis)])
        if WAYS.get(brace.against) == axis
        else inner[ORDER.index(axis)]
        for axis in ACROSS[brace.axis]
    )
    return a, b


def air_taken(brace: Brace, inner: Sequence[Number]) -> Number:
    """Air that it takes of a block of inner size (x, y, z)."""
    if brace.spot is not None:
        return circle_area(brace.t) * inner[ORDER.index(brace.axis)]
    a, b = sides(brace, inner)
    window = 0.0 if brace.window is None else area(brace.window)
    return (a * b - window) * brace.t


def middle(brace: Brace, low: Sequence[Number], high: Sequence[Number]) -> Vector:
    """Where its middle is, in a block from ``low`` to ``high``."""
    at = [(h + lo) / 2 for lo, h in zip(low, high, strict=True)]
    if brace.spot is not None:
        for axis, off in zip(ACROSS[brace.axis], brace.spot, strict=True):
            at[ORDER.index(axis)] = at[ORDER.index(axis)] + off
        return at[0], at[1], at[2]
    at[ORDER.index(brace.axis)] = brace.at
    if brace.against:
        k = ORDER.index(WAYS[brace.against])
        inner = [h - lo for lo, h in zip(low, high, strict=True)]
        half = np.minimum(brace.reach, inner[k]) / 2
        at[k] = low[k] + half if brace.against in FIRST else high[k] - half
    return at[0], at[1], at[2]


def grooves(brace: Brace, inner: Sequence[Number]) -> dict[str, Number]:
    """Material that its grooves take of each panel."""
    a, b = sides(brace, inner)
    ends = {"x": ("left", "right"), "y": ("bottom", "top"), "z": ("back", "front")}
    along_a, along_b = ACROSS[brace.axis]
    gone: dict[str, Number] = {}
    for axis, long in ((along_a, b), (along_b, a)):
        for panel in ends[axis]:
            gone[panel] = brace.groove * brace.t * long
    return gone


FACES = {"x": ("right", "left"), "y": ("top", "bottom"), "z": ("front", "back")}
"""Panels that look as the faces of a plate do: its higher one, then its lower one."""


def face_frames(brace: Brace, low: Sequence[Number], high: Sequence[Number]) -> tuple[Frame, Frame]:
    """Its higher and its lower face as panels, from their middles; the plate is behind each."""
    k, middles = ORDER.index(brace.axis), []
    for face in reversed(brace.faces):
        at = [(h + lo) / 2 for lo, h in zip(low, high, strict=True)]
        at[k] = face
        middles.append((at[0], at[1], at[2]))
    near, far = FACES[brace.axis]
    return frame(near, middles[0], brace.t), frame(far, middles[1], brace.t)


def split(
    fields: Mapping[str, Field], braces: Iterable[Brace], low: Vector, high: Vector
) -> dict[str, Field]:
    """Fields of a box with the largest rest each way that braces leave of them.

    What a dowel holds at one point is not reckoned.
    """
    ways = {
        "front": ("x", "y"), "back": ("x", "y"), "left": ("z", "y"), "right": ("z", "y"),
        "top": ("x", "z"), "bottom": ("x", "z"),
    }  # fmt: skip
    plates = [b for b in braces if b.spot is None]

    def _rest(name: str, axis: str) -> tuple[float, float]:
        """The largest rest of a panel along an axis, and the whole; a shelf parts its own wall."""
        k = ORDER.index(axis)
        held = [b for b in plates if b.axis == axis and b.against in ("", name)]
        faces = sorted(tuple(float(f) for f in b.faces) for b in held)
        starts = [low[k], *(f[1] for f in faces)]
        ends = [*(f[0] for f in faces), high[k]]
        free = max(float(e - s) for s, e in zip(starts, ends, strict=True))
        return free, float(high[k] - low[k])

    found = {}
    for name, field in fields.items():
        if name not in ways or field.r is not None:
            found[name] = field
            continue
        a, b = (_least(size, *_rest(name, way)) for size, way in zip((field.a, field.b), ways[name],
                                                              strict=True))  # fmt: skip
        found[name] = replace(field, a=a, b=b)
    return found


def _least(size: Number, rest: float, whole: float) -> float:
    """A way that no brace parts stays as it is, rounded edges included."""
    return float(size) if rest >= whole - 1e-12 else min(float(size), rest)


def solid_of(brace: Brace, lowest: Vector, highest: Vector) -> Solid:
    """A brace as bricks round its window, whose corners are taken sharp."""
    k = ORDER.index(brace.axis)
    start, end = (float(f) for f in brace.faces)
    a, b = (ORDER.index(axis) for axis in ACROSS[brace.axis])

    low, high = ([float(c) for c in corner] for corner in (lowest, highest))
    if brace.spot is not None:
        return _rod(brace, low, high)
    if brace.against:
        wall = ORDER.index(WAYS[brace.against])
        reach = min(float(brace.reach), high[wall] - low[wall])
        if brace.against in FIRST:
            high[wall] = low[wall] + reach
        else:
            low[wall] = high[wall] - reach

    def _piece(a0: float, a1: float, b0: float, b1: float) -> tuple[Vector, Vector]:
        first, last = [0.0] * 3, [0.0] * 3
        first[k], last[k] = start, end
        first[a], last[a], first[b], last[b] = a0, a1, b0, b1
        return (first[0], first[1], first[2]), (last[0], last[1], last[2])

    if brace.window is None:
        return solid([brick(*_piece(low[a], high[a], low[b], high[b]))])
    half_a, half_b = (float(h) for h in half_size(brace.window))
    mid_a, mid_b = (low[a] + high[a]) / 2, (low[b] + high[b]) / 2
    rims = [
        _piece(low[a], mid_a - half_a, low[b], high[b]),
        _piece(mid_a + half_a, high[a], low[b], high[b]),
        _piece(mid_a - half_a, mid_a + half_a, low[b], mid_b - half_b),
        _piece(mid_a - half_a, mid_a + half_a, mid_b + half_b, high[b]),
    ]
    return solid([brick(*rim) for rim in rims])


def _rod(brace: Brace, low: Sequence[float], high: Sequence[float]) -> Solid:
    """A dowel from wall to wall."""
    k = ORDER.index(brace.axis)
    a, b = (np.eye(3)[ORDER.index(axis)] for axis in ACROSS[brace.axis])
    ends = []
    for end in (low[k], high[k]):
        at = np.array([float(c) for c in middle(brace, low, high)])
        at[k] = end
        ends.append(disc(at, a, b, float(brace.t) / 2))
    return solid([np.stack(ends)])
