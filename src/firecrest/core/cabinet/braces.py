"""Braces and dividers: plates square to an axis, over the inside cross-section or a part of it.

A shelf stands against one wall and reaches so far from it; a dowel is a rod between two walls. Of
a case that is no box a shelf takes its share of the whole section, and a dowel reaches from one end
of the inside to the other.
"""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.cabinet.cutouts import Rectangle, Round, area, circle_area, half_size
from firecrest.core.cabinet.frames import Frame, Vector, frame
from firecrest.core.cabinet.sections import ACROSS, ORDER, Inside
from firecrest.core.cabinet.shapes.polygon import area_and_middle, clipped
from firecrest.core.cabinet.shapes.shell import Field
from firecrest.core.cabinet.solids import Solid, disc, solid

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


def air_taken(brace: Brace, inside: Inside) -> Number:
    """Air that it takes of the inside."""
    if brace.spot is not None:
        return circle_area(brace.t) * inside.size[ORDER.index(brace.axis)]
    plate = inside.between(brace.axis, *brace.faces)
    if brace.against:
        k = ORDER.index(WAYS[brace.against])
        plate = plate * np.minimum(brace.reach / inside.size[k], 1.0)
    window = 0.0 if brace.window is None else area(brace.window)
    return plate - window * brace.t


def outlines(brace: Brace, inside: Inside) -> list[Real]:
    """Convex outlines (n, 2) whose union the whole plate is, along ``ACROSS``; of floats."""
    if brace.spot is not None:
        return []
    found = inside.section(brace.axis, float(brace.at))
    if brace.against:
        way = WAYS[brace.against]
        k, column = ORDER.index(way), ACROSS[brace.axis].index(way)
        reach, normal = float(brace.reach), np.zeros(2)
        normal[column] = 1.0 if brace.against in FIRST else -1.0
        level = (
            float(inside.low[k]) + reach if normal[column] > 0 else reach - float(inside.high[k])
        )
        found = [clipped(outline, normal, level) for outline in found]
    return [outline for outline in found if len(outline) > 2]


def sides(brace: Brace, inside: Inside) -> tuple[float, float]:
    """Width and height of what a plate is cut from, without its tongues; 0 of one outside."""
    points = [p for outline in outlines(brace, inside) for p in outline]
    if not points:
        return 0.0, 0.0
    a, b = np.ptp(np.array(points), axis=0)
    return float(a), float(b)


def filled(brace: Brace, inside: Inside) -> float:
    """Share of that rectangle that the plate is, less its window."""
    a, b = sides(brace, inside)
    if a * b <= 0:
        return 0.0
    whole = sum(abs(area_and_middle(outline)[0]) for outline in outlines(brace, inside))
    window = 0.0 if brace.window is None else float(area(brace.window))
    return (whole - window) / (a * b)


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
    """Material that its grooves take of each panel of a box of inner size (x, y, z)."""
    a, b = (inner[ORDER.index(axis)] for axis in ACROSS[brace.axis])
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


def solid_of(brace: Brace, inside: Inside) -> Solid | None:
    """A brace as plates round its window, whose corners are taken sharp; None of one outside."""
    if brace.spot is not None:
        return _rod(brace, inside)
    pieces = [
        _plate(brace, rim)
        for outline in outlines(brace, inside)
        for rim in _round_window(brace, outline, inside)
    ]
    return solid(pieces) if pieces else None


def _round_window(brace: Brace, outline: Real, inside: Inside) -> Iterator[Real]:
    """Convex parts of an outline left, right, below and above a window in the middle."""
    if brace.window is None:
        yield outline
        return
    half = [float(h) for h in half_size(brace.window)]
    mid = [float(inside.low[k] + inside.high[k]) / 2
           for k in (ORDER.index(a) for a in ACROSS[brace.axis])]  # fmt: skip
    right, up = np.array([1.0, 0.0]), np.array([0.0, 1.0])
    strip = clipped(clipped(outline, right, mid[0] + half[0]), -right, half[0] - mid[0])
    for part in (
        clipped(outline, right, mid[0] - half[0]),
        clipped(outline, -right, -mid[0] - half[0]),
        clipped(strip, up, mid[1] - half[1]),
        clipped(strip, -up, -mid[1] - half[1]),
    ):
        if len(part) > 2:
            yield part


def _plate(brace: Brace, outline: Real) -> Real:
    """An outline between the two faces."""
    ends = []
    for face in brace.faces:
        points = np.zeros((len(outline), 3))
        points[:, ORDER.index(brace.axis)] = float(face)
        for column, axis in enumerate(ACROSS[brace.axis]):
            points[:, ORDER.index(axis)] = outline[:, column]
        ends.append(points)
    return np.stack(ends)


def _rod(brace: Brace, inside: Inside) -> Solid:
    """A dowel from wall to wall."""
    k = ORDER.index(brace.axis)
    a, b = (np.eye(3)[ORDER.index(axis)] for axis in ACROSS[brace.axis])
    ends = []
    for end in (inside.low[k], inside.high[k]):
        at = np.array([float(c) for c in middle(brace, inside.low, inside.high)])
        at[k] = float(end)
        ends.append(disc(at, a, b, float(brace.t) / 2))
    return solid([np.stack(ends)])
