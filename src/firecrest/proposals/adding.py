"""Fittings added where their panel has most room, dividers where chambers keep their shares."""

from collections.abc import Sequence
from itertools import accumulate

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.cabinet.rollup import open_chambers
from firecrest.assessment.cabinet.spots import spots_of
from firecrest.core.arrays import Number
from firecrest.core.cabinet.clearance import STILL
from firecrest.design.case import Brace
from firecrest.design.case_shape import Axis
from firecrest.design.design import Design
from firecrest.design.edits.braces import BRACES, add_brace
from firecrest.design.edits.cabinet import add_fitting, kept
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.edits.within import add_amplifier_chamber
from firecrest.design.mount import Mount
from firecrest.design.shapes import inner_corners, inner_size, shape_of
from firecrest.design.standing import is_divider
from firecrest.proposals.roominess import UNSEEN, boxes_of, fronts_of, roomiest
from firecrest.proposals.siting import faced, flats, moved_by


def with_fitting(design: Design, kind: str) -> tuple[str, Design]:
    """(label, design) with a terminal, handle, knob or plate more, where there is room.

    On its usual panel if it has room there, else on the one that has most.
    """
    said, made = add_fitting(design, kind)
    path: Path = ("box", "case", "fittings", len(made.box.case.fittings) - 1, "mount")
    own = value_at(made, path)
    room = {name: half for name, half in flats(made).items() if not is_divider(name)}
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


TRIED = (0.4, 0.45, 0.5, 0.35, 0.6, 0.3, 0.65, 0.7, 0.25)
"""Where a brace parts the inside, as shares of its way: not the middle first. An estimate."""


def with_brace(design: Design) -> tuple[str, Design]:
    """(label, design) with one more windowed brace across the longest way, where it meets least."""
    label, made = add_brace(design)
    brace = made.box.case.braces[-1]
    path: Path = (*BRACES, len(made.box.case.braces) - 1, "at")
    k = AXES.index(brace.axis)
    low, high = (float(corner[k]) for corner in inner_corners(shape_of(made.box.case)))
    spots = (round(low + share * (high - low), 3) for share in TRIED)
    tried = [replace_at(made, path, at) for at in (brace.at, *spots)]
    return label, min(tried, key=_met)


def _met(design: Design) -> int:
    """How much cannot be where it is."""
    drawing = Drawing(design.box.case, cabinet_of(design), UNSEEN)
    return sum(spot.impossible for spot in spots_of(drawing))


def with_divider(design: Design) -> tuple[str, Design]:
    """(label, design) with one more divider, where the chambers keep their shares of the inside.

    It stands square to the way of the dividers there are; else to the longest way of those where
    least of what has a place is impossible.
    """
    case = design.box.case
    there = [b.axis for b in case.braces if b.divider]
    sides = dict(zip(AXES, inner_size(shape_of(case)), strict=True))
    axes = there[:1] or sorted(AXES, key=lambda axis: -float(sides[axis]))
    return "Add divider", min((_divided(design, axis) for axis in axes), key=_impossible)


def _impossible(design: Design) -> int:
    """How much is impossible, with drivers on the divider where they go there."""
    return _met(faced(design))


def _divided(design: Design, axis: Axis) -> Design:
    """One more divider square to ``axis``."""
    case = design.box.case
    path: Path = (*BRACES, len(case.braces), "at")
    made = replace_at(
        design, BRACES, (*case.braces, Brace(name="Divider", axis=axis, at=0.0, divider=True))
    )
    shares = {c.id: c.share for c in open_chambers(case, design.box.chambers)}
    low, high = (corner[AXES.index(axis)] for corner in inner_corners(shape_of(case)))
    order = sum(b.divider for b in case.braces)
    for _ in range(2):  # which chamber is on which side is known once it stands
        slabs = cabinet_of(made).slabs or tuple(shares)
        at = _boundary([shares[id] for id in slabs], order, case.wall, low, high)
        made = replace_at(made, path, round(at, 4))
    return made


def _boundary(
    shares: Sequence[float], order: int, thick: float, low: Number, high: Number
) -> float:
    """The middle of the plate after slab number ``order``; halfway where no slab ends."""
    ends = [s / sum(shares) for s in accumulate(shares)]
    plates = max(len(shares) - 1, order + 1)
    share = ends[order] if order < len(shares) - 1 else 0.5
    free = float(high) - float(low) - plates * thick
    return float(low) + free * share + (order + 0.5) * thick


AXES: tuple[Axis, ...] = ("x", "y", "z")


def with_amplifier_chamber(design: Design) -> tuple[str, Design]:
    """(label, design) with a box round the boards; where something is in its way both go to a panel
    where they have room, and stay where none has.

    DesignError while no board has a place and its sides.
    """
    said, made = add_amplifier_chamber(design)
    place = len(made.box.case.inner) - 1
    path: Path = ("box", "case", "inner", place, "mount")
    if not _blocked(made, path):
        return said, made
    panel = made.box.case.inner[place].mount.panel
    boards = [("power", "boards", k, "mount") for k, b in enumerate(made.power.boards)
              if b.mount is not None and b.mount.panel == panel]  # fmt: skip
    alone = made
    for board in boards:
        alone = replace_at(alone, board, None)
    for other in (panel, *(n for n in flats(made) if n != panel and not is_divider(n))):
        middle = Mount(panel=other)
        _, sited = _sited(replace_at(alone, path, middle), path, flats(made)[other])
        moved = _together(made, sited, path, boards)
        if not _blocked(moved, path):
            return said, moved
    return said, made


def _blocked(design: Design, path: Path) -> bool:
    """Whether what is at a place meets a wall or another thing."""
    drawing = Drawing(design.box.case, cabinet_of(design), UNSEEN)
    return any(spot.impossible and path in spot.paths for spot in spots_of(drawing))


def _together(design: Design, sited: Design, path: Path, boards: Sequence[Path]) -> Design:
    """The box where it is in ``sited``, and its boards moved along with it."""
    before, after = value_at(design, path), value_at(sited, path)
    for board in boards:
        mount = value_at(design, board)
        u, v = after.u + mount.u - before.u, after.v + mount.v - before.v
        design = replace_at(design, board, rebuilt(mount, panel=after.panel, u=kept(u), v=kept(v)))
    return replace_at(design, path, after)


def _sited(design: Design, path: Path, half: tuple[float, float]) -> tuple[float, Design]:
    """How much room a fitting has at most on its panel, and the design with it there."""
    drawing = Drawing(design.box.case, cabinet_of(design), UNSEEN)
    mine = [s for s in drawing.sited if s.path == path]
    known = boxes_of(design, path) + fronts_of(drawing, path)
    room, u, v = roomiest(mine, drawing.shell, half, known)
    return room, moved_by(design, path, u, v)
