"""Tight spots of what has to stay cool: fins of boards, vents of their chambers."""

from collections.abc import Iterator

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.assessment.cabinet.fitted_spots import around
from firecrest.assessment.cabinet.spot import Spot, point
from firecrest.assessment.cabinet.within import room_name
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.clearance import free_ahead, vent_area
from firecrest.core.cabinet.frames import Frame
from firecrest.design.case_within import InnerBox
from firecrest.design.edits.paths import Path

FREE = 0.020
"""m that fins want free above and below: an estimate."""
STEEP = 0.9
"""How much of the way along fins has to be height: they lean by 26 degrees at most."""
UPRIGHT = 0.5
"""How much of a slot's distance to the other has to be height for a draught."""


def fins_lie(s: Sited) -> bool:
    """Whether a part has cooling fins that do not stand upright."""
    along = _along(s)
    return along is not None and abs(float(along[1])) < STEEP


def _along(s: Sited) -> Real | None:
    """The way that fins run; None of what has none."""
    if not isinstance(s.part, core.Board) or not s.part.fins:
        return None
    return np.asarray(s.at.u if s.part.fins == "u" else s.at.v, dtype=float)


def fins(drawing: Drawing) -> Iterator[Spot]:
    """Fins upright, and free above and below."""
    for s in drawing.sited:
        along = _along(s)
        if along is None or not isinstance(s.part, core.Board):
            continue
        if fins_lie(s):
            yield Spot("fins lie", (s.part.name,), 0.0, 1e-3, point(s.at.o), (s.path,))
            continue
        ways = (along, -along) if along[1] > 0 else (-along, along)
        for way, word in zip(ways, ("above", "below"), strict=True):
            rim = _end(s.part, s.at, way)
            free = min(
                free_ahead(rim, way, drawing.shell, around(drawing, s), FREE),
                _in_its_box(drawing, s, rim, way),
            )
            if free < FREE - 1e-6:
                where = point(rim.mean(axis=0))
                names = (s.part.name, word)
                yield Spot("fins", names, max(free, 0.0), FREE, where, (s.path,))


def _end(part: core.Board, at: Frame, way: Real) -> Real:
    """Corners (4, 3) of a board's side that looks along ``way``."""
    a, b, c = (float(side) for side in part.size)
    long, wide = (a, b) if part.fins == "u" else (b, a)
    across = np.asarray(at.v if part.fins == "u" else at.u, dtype=float)
    inward = -np.asarray(at.normal, dtype=float)
    start = float(at.t) + float(part.standoff)
    middle = np.asarray(at.o, dtype=float) + way * long / 2
    flat = ((-wide / 2, start), (wide / 2, start), (wide / 2, start + c), (-wide / 2, start + c))
    return np.array([middle + across * x + inward * w for x, w in flat])


def _in_its_box(drawing: Drawing, s: Sited, rim: Real, way: Real) -> float:
    """How far it is to the wall of the inner box that a board stands in; endless without one."""
    for box in drawing.case.inner:
        if room_name(box, drawing.rolled.rooms) != s.part.mount.chamber:
            continue
        at = drawing.frames[box.mount.panel].placed(box.mount.u, box.mount.v, box.mount.rot)
        half = {"u": box.width / 2 - box.wall, "v": box.height / 2 - box.wall}
        axis = "u" if abs(float(way @ np.asarray(at.u))) > 0.5 else "v"
        reach = float(((rim - np.asarray(at.o, dtype=float)) @ way).max())
        return half[axis] - reach
    return np.inf


def vents(drawing: Drawing) -> Iterator[Spot]:
    """Slots of vented chambers for the heat in them."""
    for k, box in enumerate(drawing.case.inner):
        if box.mount.panel not in drawing.frames or box.holds in drawing.rolled.rooms:
            continue
        if box.vent > 0 and drawing.heat > 0:
            at = drawing.frames[box.mount.panel].placed(box.mount.u, box.mount.v, box.mount.rot)
            yield _vents(box, at, drawing.heat, ("box", "case", "inner", k, "mount"))


def _vents(box: InnerBox, at: Frame, heat: float, own: Path) -> Spot:
    """Its slots for the heat in it; a panel that lies has no draught."""
    high, wide = box.height - 2 * box.wall, box.width - 2 * box.wall
    up, across = abs(float(at.v[1])), abs(float(at.u[1]))
    if across > up:
        high, wide, up = wide, high, across
    if up < UPRIGHT:
        return Spot("draught", (box.name,), 0.0, 1e-3, point(at.o), (own,))
    asked = vent_area(heat, max(up * (high - box.vent), 1e-3), box.rise) / max(wide, 1e-3)
    return Spot("vents", (box.name,), box.vent, asked, point(at.o), (own,))
