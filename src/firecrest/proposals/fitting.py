"""Whether a part fits into the case of a design, and what it asks of the cut-outs.

Places of parts are not drawn yet, so the rules are about room: equal frames in one row on a face,
depth behind it, boards as bricks in the interior. What passes may still meet something inside.
"""

from dataclasses import dataclass
from typing import Any

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.memo import Memo
from firecrest.assessment.wiring import cone_count, wiring_of
from firecrest.core.note import Note, note
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.shapes import inner_size, outer_size, shape_of
from firecrest.design.sources import Cell, Pack

SAME_HOLE = 0.001
"""Cut-outs within this many metres count as the same."""


@dataclass(frozen=True)
class Fit:
    """Whether it fits (None: not known) and why."""

    fits: bool | None
    reason: Note | None


def fit_of(
    before: Design, after: Design, part: Any, place: int = 0, memo: Memo | None = None
) -> Fit:
    """How ``part`` fits where ``after`` has it, seen from the design ``before``."""
    if cabinet_of(after, memo).air[0] <= 0:
        return Fit(False, note("leaves no air"))
    if isinstance(part, DriverPart):
        group = after.box.groups[place]
        count = cone_count(group, wiring_of(after.voice.channels))
        old = before.box.groups[place].driver
        return _framed(after, part, count, old, ends=False)
    if isinstance(part, RadiatorPart):
        count = placed(after.box.openings, RadiatorSet)[place][1].count
        olds = placed(before.box.openings, RadiatorSet)
        old_radiator = olds[place][1].radiator if place < len(olds) else None
        return _framed(after, part, count, old_radiator, ends=True)
    source = after.power.source
    if isinstance(part, Cell) and isinstance(source, Pack):
        return Fit(True, note("as pack", series=source.series, parallel=source.parallel))
    return _brick(after, part)


def _framed(design: Design, part: Any, count: int, old: Any, *, ends: bool) -> Fit:
    """Round frames on the faces of the case, and depth behind them."""
    if part.frame is None:
        return Fit(None, note("frame unknown"))
    shape = shape_of(design.box.case)
    length, height, depth = (float(side) for side in outer_size(shape))
    outer, inside = (length, height, depth), [float(side) for side in inner_size(shape)]
    too_wide = _excess(part.frame, count, outer, ends=ends)
    if too_wide > 0:
        return Fit(False, note("too wide", over=too_wide))
    deepest = max(inside) if ends else inside[2]
    if part.depth is not None and part.depth > deepest:
        return Fit(False, note("too deep", over=part.depth - deepest))
    return Fit(True, _hole(part, old))


def _excess(frame: float, count: int, outer: tuple[float, float, float], *, ends: bool) -> float:
    """By how much ``count`` frames in a row pass the best face, m; not above 0 when they fit.

    Radiators may also sit on two opposite faces, half of them on each.
    """
    length, height, depth = outer
    faces = [(length, height), (length, depth), (height, depth)]
    rows = [(face, count) for face in (faces[:1] if not ends else faces)]
    if ends and count % 2 == 0:
        rows += [(face, count // 2) for face in faces]
    return min(max(frame - min(face), many * frame - max(face)) for face, many in rows)


def _hole(part: Any, old: Any) -> Note:
    """What the new part asks of the hole that the old one has."""
    if old is None:
        return note("new cut-out")
    if old.name == part.name:
        return note("in place")
    if part.cut_out is None or old.cut_out is None:
        return note("cut-out unknown")
    if abs(part.cut_out - old.cut_out) <= SAME_HOLE:
        return note("same cut-out")
    return note("adapter" if part.frame <= old.cut_out else "new cut-out")


def _brick(design: Design, part: Any) -> Fit:
    """A board in the interior, any way round."""
    sizes = [getattr(part, name, None) for name in ("length", "width", "height")]
    if any(size is None for size in sizes):
        return Fit(True, note("by volume"))
    inner = sorted(float(side) for side in inner_size(shape_of(design.box.case)))
    over = max(
        float(size or 0) - room
        for size, room in zip(sorted(s or 0 for s in sizes), inner, strict=True)
    )
    return Fit(False, note("too long", over=over)) if over > 0 else Fit(True, note("fits"))
