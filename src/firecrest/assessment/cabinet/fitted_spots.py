"""Tight spots of what is fitted: plugs, inner boxes, a grille."""

from collections.abc import Iterator
from functools import lru_cache

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.assessment.cabinet.spot import KEPT_GAPS, Spot, between, point, wanted
from firecrest.assessment.cabinet.within import inner_gap, room_name
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.clearance import MOVING, free_ahead
from firecrest.core.cabinet.cutouts import CutOut, Rectangle, outline
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.solids import Solid, prism, slice_at, solid
from firecrest.design.edits.paths import Path

PLUG = 0.015


def around(drawing: Drawing, own: Sited) -> list[Solid]:
    """Solids of all else in the room that a part stands in, braces included."""
    room = own.part.mount.chamber
    found = [
        solid
        for other in drawing.sited
        if other.path != own.path
        and other.part.mount.chamber == room
        and (solid := other.solid()) is not None
    ]
    return found + [standing.solid for standing in drawing.standing]


def plugs(drawing: Drawing) -> Iterator[Spot]:
    """Room for plugs and the bend of their wires: behind terminals, and before boards."""
    rooms = drawing.rolled.rooms
    for s in drawing.sited:
        rear = _plug_side(drawing, s)
        if rear is None:
            continue
        cut, deep = rear
        rim, ahead, plug = _plug(s.at, cut, deep)
        others = [o for o in around(drawing, s) if _meets(plug, o)]
        free = free_ahead(rim, ahead, drawing.shell, others, PLUG)
        own = s.part.mount.chamber
        box = next((b for b in drawing.case.inner if room_name(b, rooms) == own), None)
        if box is not None:
            free = min(free, float(s.at.t) + box.depth - box.wall - deep)
        if free < PLUG - 1e-6:
            where = point(rim.mean(axis=0))
            yield Spot("plug", (s.part.name,), max(free, 0.0), PLUG, where, (s.path,))


@lru_cache(KEPT_GAPS)
def _plug(at: Frame, cut: CutOut, deep: float) -> tuple[Real, Real, Solid]:
    """Outline that plugs come out of, where they go, and the room for them as a solid."""
    ahead = -np.asarray(at.normal, dtype=float)
    return slice_at(at, outline(cut), deep), ahead, solid([prism(at, cut, deep, deep + PLUG)])


def _meets(plug: Solid, other: Solid) -> bool:
    near = between(plug, other)
    return near is not None and near.gap <= 1e-6


def _plug_side(drawing: Drawing, s: Sited) -> tuple[CutOut, float] | None:
    """Outline and depth of the side that plugs are on; None of what has none."""
    part = s.part
    if isinstance(part, core.Board) and part.kind == "board":
        a, b, c = part.size
        return Rectangle(a, b), float(s.at.t) + float(part.standoff) + float(c)
    if not isinstance(part, core.Cup) or part.kind == "vent":
        return None
    fitting = drawing.case.fittings[int(s.path[3])]
    return (part.cut, float(part.depth)) if fitting.kind == "terminal" else None


def within(drawing: Drawing) -> Iterator[Spot]:
    """What stands in an inner box, against its walls."""
    for k, box in enumerate(drawing.case.inner):
        if box.mount.panel not in drawing.frames:
            continue
        own: Path = ("box", "case", "inner", k, "mount")
        at = drawing.frames[box.mount.panel].placed(box.mount.u, box.mount.v, box.mount.rot)
        for s in drawing.sited:
            if s.part.mount.chamber != room_name(box, drawing.rolled.rooms) or s.path == own:
                continue
            solid = s.solid()
            gap = None if solid is None else inner_gap(solid, box, at)
            if gap is not None:
                names = (s.part.name, box.name)
                where = point(s.at.o)
                yield Spot("within", names, gap, wanted(s.part), where, (s.path,), gap < -1e-6)


def grille(drawing: Drawing) -> Iterator[Spot]:
    """What moves, at full travel, behind a grille."""
    grille = drawing.case.grille
    for s in drawing.sited if grille is not None else ():
        part = s.part
        if grille is None or part.mount.panel != grille.panel:
            continue
        if isinstance(part, core.Driver | core.Radiator):
            proud = 0.0 if part.from_inside else max(core.FLANGE - float(part.recess), 0.0)
            gap = grille.gap - proud - float(part.xmax or 0.0)
            yield Spot("grille", (part.name,), gap, MOVING, point(s.at.o), (s.path,), gap < -1e-6)
