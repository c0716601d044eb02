"""Tight spots: where parts are nearer to walls or each other than they should, and what cannot be.

Wanted: 5 mm between still things, 3 mm from what moves, 10 mm behind a magnet, 15 mm for plugs.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from typing import Literal

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet.drawing import Drawing, Sited, drawing_of
from firecrest.assessment.cabinet.rollup import slab_of, slab_owners
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.clearance import (
    MAGNET,
    MOVING,
    STILL,
    Gap,
    down_firing_height,
    frames_apart,
    free_length,
    knob_fit,
    margins,
    removable,
    wall_gap,
)
from firecrest.core.cabinet.cutouts import across
from firecrest.core.cabinet.distance import Nearest, solids_apart
from firecrest.core.cabinet.frames import Frame, dot
from firecrest.core.cabinet.shapes.shell import Shell
from firecrest.core.cabinet.solids import Solid
from firecrest.design.edits.paths import Path

SEEN = 0.06
"""m within which distances are told."""
PLUG = 0.015
RIM, EDGE = 0.003, 0.004
"""Least between frames, and from a frame or cut-out to the edge of its panel: estimates."""
KEPT_GAPS = 4096

Kind = Literal[
    "wall", "pair", "brace", "frames", "frame edge", "cut-out edge", "magnet", "removable",
    "port end", "knob", "ground", "chamber",
]  # fmt: skip


@dataclass(frozen=True)
class Spot:
    """A distance ``gap`` m where ``wanted`` m are called for, between the ``names``, at a point.

    ``paths`` are where the places of the parts concerned stand. What cannot be built at all is
    ``impossible``.
    """

    kind: Kind
    names: tuple[str, ...]
    gap: float
    wanted: float
    at: tuple[float, float, float] | None
    paths: tuple[Path, ...]
    impossible: bool = False

    @property
    def tight(self) -> bool:
        """Whether it is nearer than it should."""
        return self.impossible or self.gap < self.wanted - 1e-9


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
    ]
    return tuple(sorted(found, key=lambda s: (not s.impossible, s.gap - s.wanted)))


def spots_in(assessment: Assessment) -> tuple[Spot, ...]:
    """The same of an assessed design, remembered while neither case nor places change."""
    return assessment.memo(spots_of, drawing_of(assessment))


def _point(at: object) -> tuple[float, float, float]:
    x, y, z = (float(c) for c in at)  # type: ignore[attr-defined]
    return x, y, z


def _wanted(*parts: core.Part) -> float:
    """What is called for between things: of what moves less, of a plug more."""
    if any(p.kind == "radiator" for p in parts):
        return MOVING
    return STILL


def _walls(drawing: Drawing) -> Iterator[Spot]:
    for s in drawing.sited:
        solid = s.solid()
        if solid is None:
            continue
        gap = _wall_gap(solid, s.part.mount.panel, s.at, drawing.shell)
        if gap is not None:
            poked = gap.gap < -1e-6
            names = (s.part.name, gap.wall)
            yield Spot("wall", names, gap.gap, _wanted(s.part), gap.at, (s.path,), poked)
        if isinstance(s.part, core.Driver):
            yield from _behind(drawing, s, s.part)


@lru_cache(KEPT_GAPS)
def _wall_gap(solid: Solid, own: str, at: Frame, shell: Shell) -> Gap | None:
    return wall_gap(solid, own, at, shell)


def _behind(drawing: Drawing, s: Sited, driver: core.Driver) -> Iterator[Spot]:
    """Air behind a magnet: its rear along its axis to the walls."""
    solid = s.solid()
    assert solid is not None
    rear = solid.pieces[-1][-1]
    inward = [-float(c) for c in s.at.normal]
    gaps = [(w.name, w.gap(rear)) for w in drawing.shell.walls if w.name != driver.mount.panel]
    opposite = [
        (float(gap.min()), name)
        for name, gap in gaps
        if name not in drawing.frames or dot(drawing.frames[name].normal, _point(inward)) > 0.5
    ]
    if opposite:
        gap, name = min(opposite)
        at = _point(rear.mean(axis=0))
        yield Spot("magnet", (driver.name, name), gap, MAGNET, at, (s.path,))


@lru_cache(KEPT_GAPS)
def _between(one: Solid, other: Solid) -> Nearest | None:
    """Remembered by the solids, which are remembered by value."""
    return solids_apart(one, other, SEEN)


def _pairs(drawing: Drawing) -> Iterator[Spot]:
    for one, other in combinations(drawing.sited, 2):
        if one.part.mount.chamber != other.part.mount.chamber:
            continue
        a, b = one.solid(), other.solid()
        near = None if a is None or b is None else _between(a, b)
        if near is None or near.gap > SEEN:
            continue
        at = _point((near.here + near.there) / 2)
        names, paths = (one.part.name, other.part.name), (one.path, other.path)
        met = near.gap <= 1e-6
        yield Spot("pair", names, near.gap, _wanted(one.part, other.part), at, paths, met)


def _braces(drawing: Drawing) -> Iterator[Spot]:
    for s in drawing.sited:
        solid = s.solid()
        for standing in drawing.standing if solid is not None else ():
            assert solid is not None
            near = _between(solid, standing.solid)
            if near is None or near.gap > SEEN:
                continue
            at = _point((near.here + near.there) / 2)
            names = (s.part.name, standing.brace.name)
            met = near.gap <= 1e-6
            yield Spot("brace", names, near.gap, _wanted(s.part), at, (s.path,), met)


def _edges(drawing: Drawing) -> Iterator[Spot]:
    """Cut-outs and frames within the flat of their panels."""
    shape = drawing.case.shape
    rounding = shape.radius if shape.kind == "box" and shape.edges != "square" else 0.0
    for s in drawing.sited:
        cut, frame = _margins(s.part, s.at, drawing.shell, rounding)
        at = _point(s.at.o)
        name = (s.part.name, s.part.mount.panel)
        if cut < SEEN:
            yield Spot("cut-out edge", name, cut, 0.0, at, (s.path,), cut < -1e-6)
        if frame < SEEN:
            yield Spot("frame edge", name, frame, EDGE, at, (s.path,), frame < -1e-6)


@lru_cache(KEPT_GAPS)
def _margins(part: core.Part, at: Frame, shell: Shell, rounding: float) -> tuple[float, float]:
    return margins(part, at, shell, rounding)


@lru_cache(KEPT_GAPS)
def _frames_apart(one: tuple[core.Part, Frame], other: tuple[core.Part, Frame]) -> float:
    return frames_apart(one, other)


def _frames(drawing: Drawing) -> Iterator[Spot]:
    """Frames side by side on one panel."""
    for one, other in combinations(drawing.sited, 2):
        if one.part.mount.panel != other.part.mount.panel:
            continue
        gap = _frames_apart((one.part, one.at), (other.part, other.at))
        if gap < SEEN:
            at = _point([(a + b) / 2 for a, b in zip(one.at.o, other.at.o, strict=True)])
            names, paths = (one.part.name, other.part.name), (one.path, other.path)
            yield Spot("frames", names, gap, RIM, at, paths, gap <= 1e-6)


def _singles(drawing: Drawing) -> Iterator[Spot]:
    """What is looked at part by part."""
    for s in drawing.sited:
        part, at = s.part, _point(s.at.o)
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
            fit = knob_fit(part, float(s.at.t))
            yield Spot("knob", (part.name,), -fit.thin_by, 0.0, at, (s.path,))


def _chambers(drawing: Drawing) -> Iterator[Spot]:
    """Parts that stand in another chamber than they are said to."""
    dividers = [b for b in drawing.rolled.braces if b.divider]
    ids = list(drawing.rolled.rooms)
    if len(dividers) != len(ids) - 1 or len({d.axis for d in dividers}) != 1:
        return
    parts = [s.part for s in drawing.sited]
    owners = slab_owners(ids, dividers, parts, drawing.frames)
    for s in drawing.sited:
        if s.part.kind == "knob":
            continue
        own = owners[slab_of(s.part, drawing.frames, dividers)]
        if own != s.part.mount.chamber:
            yield Spot("chamber", (s.part.name,), 0.0, 0.0, _point(s.at.o), (s.path,), True)


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
    return Spot("ground", (part.name,), have, wanted, _point(s.at.o), (s.path,))


def _port_end(drawing: Drawing, s: Sited, part: core.Port) -> Spot:
    """A bore's length free before the open end."""
    others = [o for t in drawing.sited if t.path != s.path and (o := t.solid()) is not None]
    others += [standing.solid for standing in drawing.standing]
    free, end = free_length(part, s.at, drawing.shell, others)
    bore = float(part.bore)
    return Spot("port end", (part.name,), free, bore, _point(end), (s.path,), free <= 1e-6)
