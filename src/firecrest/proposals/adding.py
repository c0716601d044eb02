"""Fittings added where their panel has most room."""

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.clearance import STILL
from firecrest.core.cabinet.cutouts import framed
from firecrest.core.cabinet.solids import prism, solid
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import add_fitting
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.proposals.roominess import KNOB_DEEP, UNSEEN, Block, blocks_of, boxes_of, roomiest
from firecrest.proposals.siting import flats, moved_by


def with_fitting(design: Design, kind: str) -> tuple[str, Design]:
    """(label, design) with a terminal, handle, knob or plate more, where there is room.

    On its usual panel if it has room there, else on the one that has most.
    """
    said, made = add_fitting(design, kind)
    path: Path = ("box", "case", "fittings", len(made.box.case.fittings) - 1, "mount")
    own, room = value_at(made, path), flats(made)
    best: tuple[float, Design] | None = None
    for panel in (own.panel, *(name for name in room if name != own.panel)):
        if panel not in room:
            continue
        there = replace_at(made, path, rebuilt(own, panel=panel))
        free, sited = _sited(there, path, room[panel])
        if best is None or free > best[0] + 1e-6:
            best = free, sited
        if best[0] >= STILL:
            break
    return said, made if best is None else best[1]


def _sited(design: Design, path: Path, half: tuple[float, float]) -> tuple[float, Design]:
    """How much room a fitting has at most on its panel, and the design with it there."""
    drawing = Drawing(design.box.case, cabinet_of(design), UNSEEN)
    mine = [s for s in drawing.sited if s.path == path]
    known = boxes_of(design, path) + _fronts(drawing, path)
    room, u, v = roomiest(mine, drawing.shell, half, known)
    return room, moved_by(design, path, u, v)


def _fronts(drawing: Drawing, path: Path) -> list[Block]:
    """What lies on the panels: frames, and holes with the room that is behind a knob's."""
    others = [s for s in drawing.sited if s.path != path]
    found = []
    for s in others:
        part = s.part
        cut = framed(part.cut, part.frame) if isinstance(part, core.Framed) else core.cut_of(part)
        if cut is not None:
            deep = float(s.at.t) + (KNOB_DEEP if isinstance(part, core.Knob) else 0.0)
            found += blocks_of(solid([prism(s.at, cut, 0.0, deep)]))
    return found
