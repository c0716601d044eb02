"""Tight spots of what is mounted on dividers: its front is inside the case, too."""

from collections.abc import Iterator

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing, Sited, Standing
from firecrest.assessment.cabinet.rollup import slab_of
from firecrest.assessment.cabinet.spot import SEEN, Spot, between, point, wanted
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.clearance import free_ahead
from firecrest.core.cabinet.cutouts import CutOut, framed
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.solids import Solid, prism, solid
from firecrest.design.standing import FAR, is_divider, plate_of


def beside(drawing: Drawing, s: Sited) -> Iterator[Standing]:
    """Braces and dividers but the one that a part is mounted on."""
    dividers = [b for b in drawing.rolled.braces if b.divider]
    panel = s.part.mount.panel
    own = dividers[plate_of(panel)] if is_divider(panel) else None
    yield from (standing for standing in drawing.standing if standing.brace != own)


def side_by_side(one: Sited, other: Sited) -> bool:
    """Whether two are in one panel: on either face of a divider, too."""
    a, b = one.part.mount.panel, other.part.mount.panel
    return a == b or (is_divider(a) and is_divider(b) and plate_of(a) == plate_of(b))


def through(at: Frame, behind: bool) -> Frame:
    """A place, or one ``behind`` a divider as it comes out on the other face."""
    return Frame(at.at(0.0, 0.0, at.t), at.u, at.v, at.t) if behind else at


def ahead(drawing: Drawing) -> Iterator[Spot]:
    """What is before a divider: frames with their travel, and a bore's length before ports."""
    for s in drawing.sited:
        if not is_divider(s.part.mount.panel):
            continue
        others = list(_beyond(drawing, s))
        if isinstance(s.part, core.Port):
            yield _mouth(drawing, s, s.part, [solid for _, solid in others])
        elif isinstance(s.part, core.Driver | core.Radiator):
            yield from _fronts(drawing, s, s.part, others)


def _beyond(drawing: Drawing, s: Sited) -> Iterator[tuple[Sited | None, Solid]]:
    """What stands in the room before a part on a divider, other plates included."""
    owners, dividers = drawing.rolled.slabs, [b for b in drawing.rolled.braces if b.divider]
    if owners:
        slab = slab_of(s.part, drawing.frames, dividers)
        next_to = slab - 1 if s.part.mount.panel.endswith(FAR) else slab + 1
        room = owners[next_to] if 0 <= next_to < len(owners) else ""
        for other in drawing.sited:
            body = other.solid()
            if other.part.mount.chamber == room and body is not None:
                yield other, body
    for standing in beside(drawing, s):
        yield None, standing.solid


def _fronts(
    drawing: Drawing, s: Sited, part: core.Framed, others: list[tuple[Sited | None, Solid]]
) -> Iterator[Spot]:
    """The frame and what moves before it, against walls and what stands there."""
    body, rim = _front(s, part)
    walls = [(float(np.min(wall.gap(rim))), wall.name) for wall in drawing.shell.walls]
    gap, name = min(walls)
    at = point(rim.mean(axis=0))
    if gap < SEEN:
        yield Spot("wall", (part.name, name), gap, wanted(part), at, (s.path,), gap < -1e-6)
    for other, solid_ in others:
        near = between(body, solid_)
        if near is None or near.gap > SEEN or other is None:
            continue
        names, paths = (part.name, other.part.name), (s.path, other.path)
        where, least = point((near.here + near.there) / 2), wanted(part, other.part)
        yield Spot("pair", names, near.gap, least, where, paths, near.gap <= 1e-6)


def _front(s: Sited, part: core.Framed) -> tuple[Solid, Real]:
    """What a frame and its travel take before the face, and the outline farthest from it."""
    proud = 0.0 if part.from_inside else max(core.FLANGE - float(part.recess), 0.0)
    moving = float(part.xmax or 0.0)
    if isinstance(part, core.Radiator):
        moving += abs(float(part.sag))
    cut: CutOut = framed(part.cut, part.frame)
    piece = prism(s.at, cut, -(proud + moving), -1e-4)
    return solid([piece]), piece[0]


def _mouth(drawing: Drawing, s: Sited, port: core.Port, others: list[Solid]) -> Spot:
    """A bore's length free before the mouth in the divider."""
    cut = core.cut_of(port)
    assert cut is not None
    rim = prism(s.at, cut, -1e-4, 0.0)[0]
    free = free_ahead(rim, np.asarray(s.at.normal, dtype=float), drawing.shell, others, 3.0)
    bore, at = float(port.bore), point(s.at.o)
    return Spot("port end", (port.name,), free, bore, at, (s.path,), free <= 1e-6)
