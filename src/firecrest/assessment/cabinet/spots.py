"""Tight spots: where parts are nearer to walls or each other than they should, and what cannot be.

Wanted: 5 mm between still things, 3 mm from what moves, 10 mm behind a magnet, 15 mm for plugs,
20 mm above and below fins.
"""

from collections.abc import Iterable, Iterator
from functools import lru_cache
from itertools import combinations

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet.cooling_spots import fins, vents
from firecrest.assessment.cabinet.divider_spots import ahead, beside, side_by_side, through
from firecrest.assessment.cabinet.drawing import Drawing, Sited, Standing, drawing_of
from firecrest.assessment.cabinet.fitted_spots import around, grille, plugs, within
from firecrest.assessment.cabinet.leads import short_leads
from firecrest.assessment.cabinet.rollup import slab_of
from firecrest.assessment.cabinet.spot import KEPT_GAPS, SEEN, Spot, between, point, wanted
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.clearance import (
    MAGNET,
    Gap,
    down_firing_height,
    frames_apart,
    free_length,
    knob_fit,
    margins,
    removable,
    wall_gap,
)
from firecrest.core.cabinet.cutouts import across, half_size
from firecrest.core.cabinet.frames import Frame, dot
from firecrest.core.cabinet.shapes.shell import Shell
from firecrest.core.cabinet.solids import Solid
from firecrest.design.edits.paths import Path

RIM, EDGE = 0.003, 0.004
"""Least between frames, and from a frame or cut-out to the edge of its panel: estimates."""
FITTINGS: Path = ("box", "case", "fittings")


def spots_of(drawing: Drawing) -> tuple[Spot, ...]:
    """Every distance looked at, the tightest against what is wanted first."""
    found = [
        *_walls(drawing),
        *_pairs(drawing),
        *_braces(drawing),
        *_edges(drawing),
        *_frames(drawing),
        *_singles(drawing),
        *_chambers(drawing),
        *plugs(drawing),
        *within(drawing),
        *grille(drawing),
        *ahead(drawing),
        *fins(drawing),
        *vents(drawing),
    ]
    return _sorted(found)


def _sorted(found: Iterable[Spot]) -> tuple[Spot, ...]:
    return tuple(sorted(found, key=lambda s: (not s.impossible, s.gap - s.wanted)))


def spots_in(assessment: Assessment) -> tuple[Spot, ...]:
    """The same of an assessed design, remembered while neither case nor places change; and leads
    that do not reach.
    """
    drawing = drawing_of(assessment)
    leads = tuple(short_leads(assessment, drawing))
    return _sorted((*assessment.memo(spots_of, drawing), *leads))


def _walls(drawing: Drawing) -> Iterator[Spot]:
    for s in drawing.sited:
        yield from _wall_spots(s, drawing.shell)


@lru_cache(KEPT_GAPS)
def _wall_spots(s: Sited, shell: Shell) -> tuple[Spot, ...]:
    """A part against the walls, and a magnet against the one behind it."""
    solid, found = s.solid(), []
    gap = None if solid is None else wall_gap(solid, s.part.mount.panel, s.at, shell)
    if gap is not None:
        names, poked = (s.part.name, gap.wall), gap.gap < -1e-6
        found.append(Spot("wall", names, gap.gap, wanted(s.part), gap.at, (s.path,), poked))
    if solid is not None and isinstance(s.part, core.Driver):
        behind = _rear_gap(solid, s.part.mount.panel, s.at, shell)
        if behind is not None:
            names = (s.part.name, behind.wall)
            found.append(Spot("magnet", names, behind.gap, MAGNET, behind.at, (s.path,)))
    return tuple(found)


def _rear_gap(solid: Solid, own: str, at: Frame, shell: Shell) -> Gap | None:
    """Of a solid's last face to the walls that it looks at; None where there are none."""
    rear = solid.pieces[-1][-1]
    inward = point([-float(c) for c in at.normal])
    opposite = [
        (float(w.gap(rear).min()), w.name)
        for w in shell.walls
        if w.name != own
        and (w.name not in shell.frames or dot(shell.frames[w.name].normal, inward) > 0.5)
    ]
    if not opposite:
        return None
    return Gap(*min(opposite), point(rear.mean(axis=0)))


def _pairs(drawing: Drawing) -> Iterator[Spot]:
    for one, other in combinations(drawing.sited, 2):
        if one.part.mount.chamber == other.part.mount.chamber:
            found = _pair_spot(one, other)
            if found is not None:
                yield found


@lru_cache(KEPT_GAPS)
def _pair_spot(one: Sited, other: Sited) -> Spot | None:
    """Two parts in one room; None of those far apart."""
    a, b = one.solid(), other.solid()
    near = None if a is None or b is None else between(a, b)
    if near is None or near.gap > SEEN:
        return None
    names, paths = (one.part.name, other.part.name), (one.path, other.path)
    at, met = point((near.here + near.there) / 2), near.gap <= 1e-6
    return Spot("pair", names, near.gap, wanted(one.part, other.part), at, paths, met)


def _braces(drawing: Drawing) -> Iterator[Spot]:
    for s in drawing.sited:
        for standing in beside(drawing, s):
            found = _brace_spot(s, standing)
            if found is not None:
                yield found


@lru_cache(KEPT_GAPS)
def _brace_spot(s: Sited, standing: Standing) -> Spot | None:
    solid = s.solid()
    near = None if solid is None else between(solid, standing.solid)
    if near is None or near.gap > SEEN:
        return None
    at, met = point((near.here + near.there) / 2), near.gap <= 1e-6
    names = (s.part.name, standing.brace.name)
    return Spot("brace", names, near.gap, wanted(s.part), at, (s.path,), met)


def _edges(drawing: Drawing) -> Iterator[Spot]:
    """Cut-outs and frames within the flat of their panels."""
    shape = drawing.case.shape
    rounding = shape.radius if shape.kind == "box" and shape.edges != "square" else 0.0
    for s in drawing.sited:
        yield from _edge_spots(s, drawing.shell, rounding)


@lru_cache(KEPT_GAPS)
def _edge_spots(s: Sited, shell: Shell, rounding: float) -> tuple[Spot, ...]:
    cut, frame = margins(s.part, s.at, shell, rounding)
    at, names, found = point(s.at.o), (s.part.name, s.part.mount.panel), []
    if cut < SEEN:
        found.append(Spot("cut-out edge", names, cut, 0.0, at, (s.path,), cut < -1e-6))
    if frame < SEEN:
        found.append(Spot("frame edge", names, frame, EDGE, at, (s.path,), frame < -1e-6))
    return tuple(found)


@lru_cache(KEPT_GAPS)
def _frames_gap(one: Sited, other: Sited) -> float:
    """How far apart the frames of two in one panel are; a divider's faces are one."""
    behind = one.part.mount.panel != other.part.mount.panel
    return frames_apart((one.part, one.at), (other.part, through(other.at, behind)))


def _frames(drawing: Drawing) -> Iterator[Spot]:
    """Frames side by side on one panel."""
    for one, other in combinations(drawing.sited, 2):
        if not side_by_side(one, other) or _on_plate(drawing, one, other):
            continue
        gap = _frames_gap(one, other)
        if gap < SEEN:
            at = point([(a + b) / 2 for a, b in zip(one.at.o, other.at.o, strict=True)])
            names, paths = (one.part.name, other.part.name), (one.path, other.path)
            yield Spot("frames", names, gap, RIM, at, paths, gap <= 1e-6)


def plate_under(drawing: Drawing, knob: Sited) -> core.Cup | None:
    """The plate that a knob sits in; None of one in the panel itself."""
    for s in drawing.sited:
        if s.path[:3] != FITTINGS or s.part.mount.panel != knob.part.mount.panel:
            continue
        fitting = drawing.case.fittings[int(s.path[3])]
        if fitting.kind == "plate" and isinstance(s.part, core.Cup) and _covers(s, knob):
            return s.part
    return None


def _covers(plate: Sited, other: Sited) -> bool:
    """Whether the middle of a thing is over the hole that a plate closes."""
    away = [a - b for a, b in zip(other.at.o, plate.at.o, strict=True)]
    off = abs(float(dot((away[0], away[1], away[2]), plate.at.u)))
    up = abs(float(dot((away[0], away[1], away[2]), plate.at.v)))
    cut = core.cut_of(plate.part)
    assert cut is not None
    half_a, half_b = (float(h) for h in half_size(cut))
    return off < half_a and up < half_b


def _on_plate(drawing: Drawing, one: Sited, other: Sited) -> bool:
    """Whether one of two is a knob in the plate that the other is."""
    pairs = ((one, other), (other, one))
    return any(
        isinstance(knob.part, core.Knob) and plate_under(drawing, knob) is plate.part
        for knob, plate in pairs
    )


def _singles(drawing: Drawing) -> Iterator[Spot]:
    """What is looked at part by part."""
    for s in drawing.sited:
        part, at = s.part, point(s.at.o)
        if isinstance(part, core.Driver):
            over = float(part.magnet_d) - float(across(part.cut))
            if not removable(part, _ways_out(drawing, s)):
                gap = -over if not part.from_inside else 0.0
                yield Spot("removable", (part.name,), gap, 0.0, at, (s.path,), True)
        if isinstance(part, core.Driver | core.Radiator) and _looks_down(s):
            yield _ground(drawing, s, part)
        if isinstance(part, core.Port) and part.slot is None:
            yield _port_end(drawing, s, part)
        if isinstance(part, core.Knob):
            plate = plate_under(drawing, s)
            fit = knob_fit(part, float(s.at.t) if plate is None else float(plate.depth))
            yield Spot("knob", (part.name,), -fit.thin_by, 0.0, at, (s.path,))


def _chambers(drawing: Drawing) -> Iterator[Spot]:
    """Parts that stand in another chamber than they are said to."""
    owners = drawing.rolled.slabs
    dividers = [b for b in drawing.rolled.braces if b.divider]
    for s in drawing.sited:
        if s.part.kind == "knob" or s.part.mount.chamber not in owners:
            continue
        if owners[slab_of(s.part, drawing.frames, dividers)] != s.part.mount.chamber:
            yield Spot("chamber", (s.part.name,), 0.0, 0.0, point(s.at.o), (s.path,), True)


def _ways_out(drawing: Drawing, own: Sited) -> Iterator[float]:
    for s in drawing.sited:
        cut = core.cut_of(s.part)
        if s.path != own.path and cut is not None:
            yield float(across(cut))


def _looks_down(s: Sited) -> bool:
    return float(s.at.normal[1]) < -0.7


def _ground(drawing: Drawing, s: Sited, part: core.Driver | core.Radiator) -> Spot:
    """Feet high enough below what fires down."""
    feet = drawing.case.feet
    have = 0.0 if feet is None else feet.height
    wanted = down_firing_height(part)
    return Spot("ground", (part.name,), have, wanted, point(s.at.o), (s.path,))


def _port_end(drawing: Drawing, s: Sited, part: core.Port) -> Spot:
    """A bore's length free before the open end."""
    others = around(drawing, s)
    free, end = free_length(part, s.at, drawing.shell, others)
    bore = float(part.bore)
    return Spot("port end", (part.name,), free, bore, point(end), (s.path,), free <= 1e-6)
