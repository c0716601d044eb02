"""A place for everything: the rule that a case without places is drawn by, and can take.

Drivers stand on the front, in a row or a column, the largest in the middle or at the bottom.
Radiators go to both ends, or to a pair of panels that is wide enough. Ports, boards and the pack
then take, one after the other and the largest first, the place that leaves most room around them;
room is reckoned by the boxes that hold the solids.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import pi
from typing import Literal

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet.cooling_spots import fins_lie
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.wiring import cone_count, wiring_of
from firecrest.core.cabinet.sections import ACROSS
from firecrest.core.cabinet.shapes.shell import Shell
from firecrest.design.box import OUTSIDE, Port, RadiatorSet
from firecrest.design.case_within import InnerBox
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.fields import field_facts
from firecrest.design.mount import Mount
from firecrest.design.shapes import panel_names
from firecrest.design.standing import divider_faces, is_divider, plate_of
from firecrest.proposals.parting import faces_between, other_rooms
from firecrest.proposals.roominess import ENOUGH, UNSEEN, boxes_of, fronts_of, roomiest

PAIRS = (("left", "right"), ("top", "bottom"), ("front", "back"))
INSIDE = ("back", "bottom", "left", "right", "top", "front")
"""Panels that boards and packs are tried on, in order."""
OUTLETS = ("back", "front", "bottom", "top", "left", "right")
"""Panels that ports are tried on, in order."""
APART = 0.012


def placed_all(design: Design) -> Design:
    """The design with a place for all that has none and can have one."""
    design = faced(design)
    for path in _inner_paths(design):
        design = _best(design, path)
    return design


def faced(design: Design) -> Design:
    """The design with places for drivers and radiators: quick, for a first look."""
    return _radiators(_drivers(design))


def loose_paths(design: Design) -> list[Path]:
    """Where places are that could be given and are not."""
    found: list[Path] = [
        ("box", "groups", k, "mounts")
        for k, g in enumerate(design.box.groups)
        if _homeless(design, g.mounts, g.chamber, g.front)
    ]
    found += [
        ("box", "openings", k, "mounts")
        for k, o in enumerate(design.box.openings)
        if _homeless(design, o.mounts, o.chamber, o.opens_to)
    ]
    return found + [p for p in _inner_paths(design) if p not in found]


def _homeless(design: Design, mounts: Sequence[Mount], chamber: str, ahead: str) -> bool:
    """Whether what is between two rooms has no place, and the case a panel between them."""
    if ahead != OUTSIDE:
        faces = faces_between(design, chamber, ahead)
        return bool(faces) and not any(m.panel in faces for m in mounts)
    there = panel_names(design.box.case)
    return bool(there) and not any(m.panel in there for m in mounts)


def resited(design: Design, path: Path) -> Design:
    """The thing at ``path`` (a mount, or the mounts of equal ports) where it has most room."""
    return _best(design, path)


def flats(design: Design) -> dict[str, tuple[float, float]]:
    """Half the inner size of each flat panel along its own u and v, m."""
    shell = Drawing(design.box.case, cabinet_of(design), UNSEEN).shell
    found = dict(_faces(design, shell))
    for name in panel_names(design.box.case):
        field = shell.fields.get(name)
        if field is None:
            found[name] = _by_reach(shell, name)
        elif field.r is not None:
            found[name] = (float(field.r) * 0.7, float(field.r) * 0.7)
        else:
            a, b = float(field.a) / 2, float(field.b) / 2
            found[name] = (b, a) if name in ("left", "right") and _taper(design) else (a, b)
    return found


def _faces(design: Design, shell: Shell) -> Iterator[tuple[str, tuple[float, float]]]:
    """Half the size of each face of the dividers; of those of no box with a margin."""
    size = [float(h) - float(lo) for lo, h in zip(shell.low, shell.high, strict=True)]
    share = 1.0 if design.box.case.shape.kind == "box" else 0.7
    dividers = [b for b in design.box.case.braces if b.divider]
    for name in divider_faces(design.box.case):
        a, b = (size["xyz".index(axis)] for axis in ACROSS[dividers[plate_of(name)].axis])
        yield name, (share * a / 2, share * b / 2)


def _taper(design: Design) -> bool:
    """Side panels of a taper have their parallel sides upright."""
    return design.box.case.shape.kind == "taper"


def _by_reach(shell: Shell, name: str) -> tuple[float, float]:
    """Of a plate whose field is not reckoned: from the reach of the inside, with a margin."""
    size = [float(h) - float(lo) for lo, h in zip(shell.low, shell.high, strict=True)]
    across = {"left": (2, 1), "right": (2, 1), "top": (0, 2), "bottom": (0, 2)}
    i, j = across.get(name, (0, 1))
    return 0.35 * size[i], 0.35 * size[j]


def _front(design: Design) -> str:
    """The panel that drivers go on: the front, or the first flat there is."""
    names = panel_names(design.box.case)
    return next((n for n in ("front", "top", *names) if n in names), names[0])


@dataclass(frozen=True)
class _Framed:
    path: Path
    frame: float
    recess: float = 0.0


def _drivers(design: Design) -> Design:
    """All cones in one row or column on the front; groups that have places keep them."""
    wiring, wanted = wiring_of(design.voice.channels), []
    for k, group in enumerate(design.box.groups):
        if not _homeless(design, group.mounts, group.chamber, group.front):
            continue
        frame = _frame_of(group.driver)
        path: Path = ("box", "groups", k, "mounts")
        if group.front != OUTSIDE:
            face = faces_between(design, group.chamber, group.front)[0]
            cones = _in_a_row(design, face, [frame] * cone_count(group, wiring))
            design = replace_at(design, path, cones)
            continue
        own = next((b for b in design.box.case.inner if b.holds == group.chamber), None)
        if own is not None:
            design = replace_at(design, path, _within(own, frame, cone_count(group, wiring)))
            continue
        wanted += [_Framed(path, frame)] * cone_count(group, wiring)
    if not wanted:
        return design
    panel = _front(design)
    half_u, half_v = flats(design)[panel]
    row = half_u >= half_v
    order = _from_the_middle(wanted) if row else sorted(wanted, key=lambda w: w.frame)[::-1]
    spots = _spread([w.frame for w in order], half_u if row else half_v)
    mounts: dict[Path, list[Mount]] = {}
    for one, at in zip(order, spots, strict=True):
        u, v = (at, 0.0) if row else (0.0, at)
        mounts.setdefault(one.path, []).append(_mount(panel, u, v))
    for path, places in mounts.items():
        design = replace_at(design, path, tuple(sorted(places, key=lambda m: m.u)))
    return design


def _mount(panel: str, u: float, v: float) -> Mount:
    """A place, to 0.1 mm; what would lie farther out than any place can is as far as one can be."""
    return Mount(panel=panel, u=_kept(u), v=_kept(v))


def _kept(value: float) -> float:
    facts = field_facts(Mount, "u")  # as far upwards
    assert facts is not None
    return round(min(max(value, facts.low), facts.high), 4)


def _in_a_row(design: Design, panel: str, frames: Sequence[float]) -> tuple[Mount, ...]:
    """Equal things along the longer way of a panel."""
    half_u, half_v = flats(design)[panel]
    wide, made = half_u > half_v, []
    for at in _spread(frames, max(half_u, half_v)):
        u, v = (at, 0.0) if wide else (0.0, at)
        made.append(_mount(panel, u, v))
    return tuple(made)


def _within(box: InnerBox, frame: float, count: int) -> tuple[Mount, ...]:
    """Cones in the box that is their chamber, one above the other."""
    middle = box.mount
    return tuple(
        _mount(middle.panel, middle.u, middle.v + at)
        for at in _spread([frame] * count, box.height / 2)
    )


def _frame_of(part: object) -> float:
    """Diameter of a frame, or what stands for it."""
    for name, more in (("frame", 0.0), ("cut_out", 0.014), ("size", 0.0)):
        value = getattr(part, name, None)
        if value is not None:
            return float(value) + more
    return 0.1


def _from_the_middle(wanted: Sequence[_Framed]) -> list[_Framed]:
    """The largest in the middle, the rest by turns to its left and right."""
    found: list[_Framed] = []
    for k, one in enumerate(sorted(wanted, key=lambda w: -w.frame)):
        found.insert(0 if k % 2 else len(found), one)
    return found


def _spread(sizes: Sequence[float], half: float) -> list[float]:
    """Middles of things in a row over -half..half with equal gaps; touching where it is short."""
    gap = max((2 * half - sum(sizes)) / (len(sizes) + 1), 0.0)
    at, found = -(sum(sizes) + gap * (len(sizes) - 1)) / 2, []
    for size in sizes:
        found.append(at + size / 2)
        at += size + gap
    return found


def _radiators(design: Design) -> Design:
    """Radiators in pairs on opposite panels that hold their frames, one above the other."""
    for k, item in enumerate(design.box.openings):
        if not isinstance(item, RadiatorSet):
            continue
        if not _homeless(design, item.mounts, item.chamber, item.opens_to):
            continue
        if item.opens_to != OUTSIDE:
            face = faces_between(design, item.chamber, item.opens_to)[0]
            row = _in_a_row(design, face, [_frame_of(item.radiator)] * item.count)
            design = replace_at(design, ("box", "openings", k, "mounts"), row)
            continue
        frame, room = _frame_of(item.radiator), flats(design)
        used = {m.panel for g in design.box.groups for m in g.mounts}
        pairs: list[tuple[str, ...]] = [
            p for p in PAIRS if p[0] in room and p[1] in room and not used & set(p)
        ]
        if item.count == 1:
            panels: tuple[str, ...] = (next((n for n in OUTLETS if n in room), _front(design)),)
        else:
            best = [p for p in pairs if 2 * min(room[p[0]]) >= frame - 0.02]
            free = [(name,) for name in room if name not in used and not is_divider(name)]
            panels = (best or pairs or free or [(_front(design),)])[0]
        mounts: list[Mount] = []
        for n, panel in enumerate(panels):
            count = item.count // len(panels) + (n < item.count % len(panels))
            mounts += _in_a_row(design, panel, [frame] * count)
        design = replace_at(design, ("box", "openings", k, "mounts"), tuple(mounts))
    return design


def _inner_paths(design: Design) -> list[Path]:
    """Places of ports, boards and the pack that are still open, the bulkiest first."""
    found: list[tuple[float, Path]] = []
    for k, item in enumerate(design.box.openings):
        loose = _homeless(design, item.mounts, item.chamber, item.opens_to)
        if isinstance(item, Port) and loose:
            found.append((1.0, ("box", "openings", k, "mounts")))
    for k, board in enumerate(design.power.boards):
        if board.mount is None:
            found.append((board.part.volume, ("power", "boards", k, "mount")))
    source = design.power.source
    if source.kind == "pack" and source.mount is None:
        volume = source.cell.volume * source.series * source.parallel
        found.append((volume, ("power", "source", "mount")))
    return [path for _, path in sorted(found, key=lambda f: -f[0])]


def _best(design: Design, path: Path) -> Design:
    """The place for one thing that leaves most room around it, with fins upright; equal ports move
    along.
    """
    best: tuple[tuple[bool, bool, float], Design, float, float] | None = None
    for made in _ways(design, path):
        drawing = Drawing(made.box.case, cabinet_of(made), UNSEEN)
        mine = [s for s in drawing.sited if s.path[: len(path)] == path]
        if not mine:
            return design
        known = boxes_of(design, path, mine[0].part.mount.panel)
        if path[:2] == ("box", "openings"):
            known += other_rooms(drawing, mine[0].part.mount.chamber)
        if is_divider(mine[0].part.mount.panel):
            known += fronts_of(drawing, path)
        panel = mine[0].part.mount.panel
        room, u, v = roomiest(mine, drawing.shell, flats(made)[panel], known)
        upright = not fins_lie(mine[0])
        if best is None or (room > 0, upright, room - 1e-6) > best[0]:
            best = (room > 0, upright, room), made, u, v
        if best[0] >= (True, True, ENOUGH):
            break
    return design if best is None else moved_by(best[1], path, best[2], best[3])


def _ways(design: Design, path: Path) -> Iterator[Design]:
    """Designs with the thing on the middle of each panel, turned or folded every way."""
    port = path[:2] == ("box", "openings")
    for panel in _tried(design, path):
        if port:
            item = design.box.openings[int(path[2])]
            assert isinstance(item, Port)
            mounts = _row(item.count, panel, item)
            for fold in FOLDS if item.bends else (item.fold,):
                yield replace_at(design, path[:-1], rebuilt(item, mounts=mounts, fold=fold))
        else:
            for rot in (0.0, pi / 2):
                yield replace_at(design, path, Mount(panel=panel, rot=rot))


def _tried(design: Design, path: Path) -> Sequence[str]:
    """Panels that a thing may go on, the most usual first."""
    port, outer = path[:2] == ("box", "openings"), panel_names(design.box.case)
    if port:
        item = design.box.openings[int(path[2])]
        if item.opens_to != OUTSIDE:
            return faces_between(design, item.chamber, item.opens_to)
    return [n for n in (OUTLETS if port else INSIDE) if n in outer] or outer


FOLDS: tuple[Literal["up", "down", "left", "right"], ...] = ("up", "down", "left", "right")


def _row(count: int, panel: str, item: Port) -> tuple[Mount, ...]:
    """Equal ports side by side about the middle."""
    wide = item.diameter if item.shape == "round" else item.width
    step = wide + 2 * item.wall + APART
    return tuple(_mount(panel, (k - (count - 1) / 2) * step, 0.0) for k in range(count))


def moved_by(design: Design, path: Path, u: float, v: float) -> Design:
    """All mounts at ``path`` moved along their panel."""
    found = value_at(design, path)
    mounts = found if isinstance(found, tuple) else (found,)
    made = tuple(rebuilt(m, u=round(m.u + u, 4), v=round(m.v + v, 4)) for m in mounts)
    return replace_at(design, path, made if isinstance(found, tuple) else made[0])
