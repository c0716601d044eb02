"""Inner boxes: what stands in one, what it takes of the air around it, and what it weighs.

Its panel closes it, so it has five walls of its own. Lengths in m, volumes in m3.
"""

from collections.abc import Collection, Iterable, Sequence
from math import cos, sin

import numpy as np

from firecrest.core.arrays import Number
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.cutouts import Rectangle
from firecrest.core.cabinet.cutting import Piece
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.rollup import Item
from firecrest.core.cabinet.solids import Solid, beyond
from firecrest.design.case import Case
from firecrest.design.case_within import InnerBox
from firecrest.design.mount import Mount


def room_inside(box: InnerBox) -> Number:
    """Its own air before anything is in it."""
    a, b, c = box.width - 2 * box.wall, box.height - 2 * box.wall, box.depth - box.wall
    found: Number = np.maximum(a, 0.0) * np.maximum(b, 0.0) * np.maximum(c, 0.0)
    return found


def inner_item(box: InnerBox, case: Case) -> Item:
    """Its walls by weight and price, of what the case is made of, whole."""
    walls = box.width * box.height * box.depth - room_inside(box)
    mass = case.density * walls
    if case.printing is not None:
        return Item(box.name, 1, 0.0, mass, mass * case.printing.price)
    return Item(box.name, 1, 0.0, mass, walls / box.wall * case.price_per_area)


def as_part(box: InnerBox, case: Case) -> core.Board:
    """What it fills of the chamber it stands in."""
    mount = core.Mount(box.mount.panel, box.mount.u, box.mount.v, box.mount.rot, box.chamber)
    size = (box.width, box.height, box.depth)
    return core.Board(box.name, mount, size, 0.0, inner_item(box, case).mass, kind="inner box")


VENT_DEEP = 0.001
"""m that a vent's own solid is thick: it is a hole, and in nobody's way."""


def vents_of(box: InnerBox) -> tuple[core.Cup, ...]:
    """Two slots through its panel, low and high as wide as its inside; none of a sealed one."""
    if _first(box.vent) <= 0:
        return ()
    c, s = cos(_first(box.mount.rot)), sin(_first(box.mount.rot))
    on_side = abs(s) > abs(c)
    wide, high = (box.height, box.width) if on_side else (box.width, box.height)
    off = high / 2 - box.wall - box.vent / 2
    long = wide - 2 * box.wall
    cut = Rectangle(box.vent, long) if on_side else Rectangle(long, box.vent)
    found = []
    for way in (-1.0, 1.0):
        across, up = (way * off, 0.0 * off) if on_side else (0.0 * off, way * off)
        u, v = box.mount.u + across * c - up * s, box.mount.v + across * s + up * c
        mount = core.Mount(box.mount.panel, u, v, box.mount.rot, box.id)
        found.append(core.Cup(f"{box.name}, vent", mount, cut, VENT_DEEP, kind="vent"))
    return tuple(found)


def room_of(boxes: Iterable[InnerBox], mount: Mount, chamber: str) -> str:
    """The room that a board or fitting stands in: a box for boards of its panel round its middle.

    These are rooms by their own id: no chamber's air is taken in them.
    """
    for box in boxes:
        if box.mount.panel == mount.panel and _around(box, mount):
            return box.id
    return chamber


def _around(box: InnerBox, mount: Mount) -> bool:
    c, s = cos(_first(box.mount.rot)), sin(_first(box.mount.rot))
    across, up = _first(mount.u - box.mount.u), _first(mount.v - box.mount.v)
    off = abs(across * c + up * s), abs(up * c - across * s)
    return off[0] < _first(box.width) / 2 and off[1] < _first(box.height) / 2


def _first(value: Number) -> float:
    """Of columns the first: what stands in what does not change along them."""
    return float(np.ravel(value)[0])


def room_name(box: InnerBox, chambers: Collection[str]) -> str:
    """The room that it is: a chamber, or one by its own id where it holds none there is."""
    return box.holds if box.holds in chambers else box.id


def boards_boxes(case: Case, chambers: Collection[str]) -> list[InnerBox]:
    """Inner boxes that are no chamber."""
    return [box for box in case.inner if box.holds not in chambers]


def inner_gap(body: Solid, box: InnerBox, at: Frame) -> float | None:
    """Least distance in m of what lies past the panel to the box's own walls; None of nothing.

    ``at`` is the frame at the box's place; negative where a part stands in a wall.
    """
    found = [p for piece in body.pieces if len(p := beyond(piece, at, at.t - 1e-9))]
    if not found:
        return None
    points = np.concatenate(found) - np.asarray(at.o)
    u, v, w = (np.abs(points @ np.asarray(way)) for way in (at.u, at.v, at.normal))
    clear = (
        box.width / 2 - box.wall - u.max(),
        box.height / 2 - box.wall - v.max(),
        float(at.t) + box.depth - box.wall - w.max(),
    )
    return float(min(clear))


def pieces_of_inner(boxes: Iterable[InnerBox]) -> Sequence[Piece]:
    """Back, two sides over the whole height, top and bottom between them."""
    found = []
    for box in boxes:
        deep, t = box.depth - box.wall, box.wall
        found += [
            Piece(f"{box.name}, back", box.width, box.height, t),
            Piece(f"{box.name}, side", deep, box.height, t, 2),
            Piece(f"{box.name}, level", box.width - 2 * t, deep, t, 2),
        ]
    return found
