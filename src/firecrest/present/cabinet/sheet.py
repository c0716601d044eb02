"""The drawing of a case on paper: front, end and a plan cut through, in metres of the case."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet.drawing import Drawing, Sited, Standing, case_outline, feet_of
from firecrest.assessment.cabinet.spot import Spot
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.cutouts import CutOut, Rectangle, Round, framed, grown, outline
from firecrest.core.cabinet.frames import Frame, dot
from firecrest.core.cabinet.outlines import DRAWN, PLAN, VIEWS, View, projected, solid_outlines
from firecrest.core.cabinet.solids import prism, slice_at, solid
from firecrest.design.case import Case
from firecrest.design.case_within import InnerBox
from firecrest.design.standing import is_divider
from firecrest.present.cabinet.cells import cells
from firecrest.present.cabinet.handles import handles
from firecrest.present.cabinet.inks import Ink, Movable, Style, rectangle, shifted
from firecrest.present.cabinet.words import panel_word
from firecrest.present.text.units import told


@dataclass(frozen=True)
class Mark:
    """A tight spot on the paper."""

    at: tuple[float, float]
    impossible: bool
    text: str


@dataclass(frozen=True, eq=False)
class SheetView:
    """One view: inks from below upwards, what can be moved, its size and the promised one.

    ``low`` and ``high`` are the corners of the case; ``sizes`` its measures across and up in words.
    ``heavy`` is where the centre of gravity is.
    """

    key: str
    title: str
    low: tuple[float, float]
    high: tuple[float, float]
    inks: tuple[Ink, ...]
    movables: tuple[Movable, ...]
    sizes: tuple[str, str]
    promised: tuple[float, float] | None
    marks: tuple[Mark, ...] = ()
    heavy: tuple[float, float] | None = None


ENDS = ("right", "left", "back", "top", "bottom")
SCREWS, SCREW, SMALL = 4, 0.0022, 16
"""Screws drawn of a frame, m of their radius, points round one."""
KEPT, KEPT_CASES = 512, 64
"""Drawn parts and cases that are remembered, by value."""


TITLES = {"right": "Right end", "left": "Left end"}


def sheet_views(
    assessment: Assessment, drawing: Drawing, spots: Sequence[Spot], end: str | None = None
) -> tuple[SheetView, ...]:
    """Front, one ``end`` (that with most on it where none is said) and the plan."""
    end = end or _busiest(drawing)
    return (
        _face(assessment, drawing, "front", "Front"),
        _face(assessment, drawing, end, TITLES.get(end, end.capitalize())),
        _plan(assessment, drawing, spots),
    )


def _busiest(drawing: Drawing) -> str:
    """The end with most mounted on it through its panel."""

    def _count(name: str) -> int:
        on = [s for s in drawing.sited if s.part.mount.panel == name]
        return sum(core.cut_of(s.part) is not None for s in on)

    return max(ENDS, key=_count)


def _asked(assessment: Assessment, key: str) -> tuple[float, float] | None:
    """Promised size across and up on a view; None without a size promise."""
    size = assessment.design.brief.size
    if size.importance == "open":
        return None
    across = size.depth if key in ("left", "right") else size.length
    return across, size.depth if key in ("plan", "top", "bottom") else size.height


def _face(assessment: Assessment, drawing: Drawing, key: str, title: str) -> SheetView:
    """A side of the case with what is mounted on it."""
    view = VIEWS[key]
    inks = [_outer(drawing.case, view, "panel")]
    on, within = [], []
    for s in drawing.sited:
        facing = float(dot(s.at.normal, _towards(key)))
        if is_divider(s.part.mount.panel):
            within += [s] if abs(facing) > 0.7 else []
        elif facing > 0.3:
            on.append(s)
            inks += _mounted(s, view)
    inks += [ink for s in within for ink in _hidden(s, view)]
    if key != "top":
        inks += _feet(drawing.case, view)
    movables = tuple(m for s in (*on, *within) if (m := _movable(s, view)) is not None)
    movables += tuple(handles(drawing, view))
    return _view(assessment, drawing, key, title, view, inks, movables)


def _towards(key: str) -> tuple[float, float, float]:
    """Where a viewed side looks."""
    return {
        "front": (0.0, 0.0, 1.0),
        "back": (0.0, 0.0, -1.0),
        "left": (-1.0, 0.0, 0.0),
        "right": (1.0, 0.0, 0.0),
        "top": (0.0, 1.0, 0.0),
        "bottom": (0.0, -1.0, 0.0),
    }[key]


def _ring(cut: CutOut, at: Frame, view: View, points: int = DRAWN) -> Real:
    return projected(slice_at(at, outline(cut, points), 0.0), view)


@lru_cache(KEPT)
def _hidden(s: Sited, view: View) -> tuple[Ink, ...]:
    """A part on a divider behind the panel that is looked at."""
    return tuple(replace(ink, style="hidden", rest=None) for ink in _mounted(s, view))[:2]


@lru_cache(KEPT)
def _mounted(s: Sited, view: View) -> tuple[Ink, ...]:
    """A part as it is seen from outside; remembered, as most stay where they are."""
    return shifted(_outside_at_rest(s.at_rest, view), _origin(s, view), s.path)


def _origin(s: Sited, view: View) -> Real:
    return np.asarray(projected(np.array([s.at.o], dtype=float), view)[0])


@lru_cache(KEPT)
def _outside_at_rest(s: Sited, view: View) -> tuple[Ink, ...]:
    return tuple(_from_outside(s, view))


def _from_outside(s: Sited, view: View) -> Iterator[Ink]:
    part = s.part
    if isinstance(part, core.Driver | core.Radiator):
        yield Ink("frame", _ring(framed(part.cut, part.frame), s.at, view), s.path)
        yield Ink("basket", _ring(part.cut, s.at, view), s.path)
        shrink = float(part.cut.d) if not hasattr(part.cut, "a") else float(part.cut.a)
        yield Ink("cone", _ring(grown(part.cut, -0.07 * shrink), s.at, view), s.path)
        share = 0.36 if isinstance(part, core.Driver) else 0.16
        yield Ink("dust", _ring(Round(share * shrink), s.at, view), s.path)
        yield from _screws(s, view)
    elif isinstance(part, core.Port):
        cut = core.cut_of(part)
        assert cut is not None
        if part.slot is None:
            yield Ink("frame", _ring(Round(part.bore + 2 * part.wall), s.at, view), s.path)
        yield Ink("hole", _ring(cut, s.at, view), s.path)
    elif isinstance(part, core.Cup | core.Knob):
        yield Ink("cup", _ring(part.cut, s.at, view), s.path)


def _screws(s: Sited, view: View) -> Iterator[Ink]:
    """Screws between frame and cut-out, where there is room for them."""
    part = s.part
    assert isinstance(part, core.Driver | core.Radiator)
    d = float(part.cut.d if not hasattr(part.cut, "a") else part.cut.a)
    circle = (float(part.frame) + d) / 2
    if float(part.frame) - d < 4 * SCREW:
        return
    for k in range(SCREWS):
        turn = np.pi / 4 + k * np.pi / 2
        spot = s.at.placed(circle / 2 * np.cos(turn), circle / 2 * np.sin(turn), 0.0)
        yield Ink("cup", _ring(Round(2 * SCREW), spot, view, SMALL), s.path)


@lru_cache(KEPT_CASES)
def _outer(case: Case, view: View, style: Style, inside: bool = False) -> Ink:
    """The outline of a case; the same ink as long as it stays, so that it is painted once."""
    return Ink(style, case_outline(case, view, inside))


@lru_cache(KEPT_CASES)
def _feet(case: Case, view: View) -> tuple[Ink, ...]:
    feet = case.feet
    if feet is None:
        return ()
    low = float(case_outline(case, VIEWS["front"])[:, 1].min())
    half = max(0.8 * feet.height, 0.008)
    found = []
    for x, z in feet_of(case):
        points = np.array(
            [(x + i * half, y, z + k * half) for i in (-1, 1) for k in (-1, 1)
             for y in (low, low - feet.height)]
        )  # fmt: skip
        flat = projected(points, view)
        found.append(Ink("foot", rectangle(flat.min(axis=0), flat.max(axis=0))))
    return tuple(found)


@lru_cache(KEPT)
def _movable(s: Sited, view: View) -> Movable | None:
    """A part on a view; None where no direction of the paper moves it."""
    if s.part.kind == "vent":  # it goes where its box goes
        return None
    right, up = view
    u, v = s.at.turned(-float(s.part.mount.rot)).u, s.at.turned(-float(s.part.mount.rot)).v
    across = (float(dot(right, u)), float(dot(right, v)))
    upwards = (float(dot(up, u)), float(dot(up, v)))
    if max(map(abs, (*across, *upwards))) < 0.3:
        return None
    cut, solid = core.cut_of(s.part), s.solid(swept=False)
    if isinstance(s.part, core.Driver | core.Radiator):
        rim = _ring(framed(s.part.cut, s.part.frame), s.at, view)
    elif cut is not None:
        rim = _ring(cut, s.at, view)
    else:
        rim = np.zeros((0, 2))
    pieces: Sequence[Real] = [rim] if len(rim) and _faces(s, view) else []
    if not pieces:
        pieces = solid_outlines(solid, view) if solid is not None else [rim]
    every = np.concatenate(pieces)
    low, high = every.min(axis=0), every.max(axis=0)
    return Movable(
        s.path,
        s.part.name,
        spoken(s),
        (float(low[0]), float(low[1])),
        (float(high[0]), float(high[1])),
        across,
        upwards,
    )


def _faces(s: Sited, view: View) -> bool:
    """Whether a part's panel is seen from outside on a view."""
    right, up = (np.asarray(way, dtype=float) for way in view)
    towards = np.cross(right, up)
    return float(np.dot(towards, np.asarray(s.at.normal, dtype=float))) > 0.3


def spoken(s: Sited) -> str:
    """A part's place in words."""
    mount = s.part.mount
    across, high = (told(float(x), "length", "mm", 0) for x in (mount.u, mount.v))
    panel = panel_word(mount.panel, s.at)
    return f"{s.part.name}, on the {panel}: {across} right, {high} up of its middle"


def _plan(assessment: Assessment, drawing: Drawing, spots: Sequence[Spot]) -> SheetView:
    """Cut through and looked into from above, the front at the bottom."""
    inks = [_outer(drawing.case, PLAN, "wall"), _outer(drawing.case, PLAN, "air", True)]
    inks += _plates(drawing.standing)
    inks += _rooms(drawing)
    inks += [ink for s in _from_below(drawing.sited) for ink in _inside(s)]
    movables = tuple(m for s in drawing.sited if (m := _movable(s, PLAN)) is not None)
    movables += tuple(handles(drawing, PLAN))
    marks = tuple(
        Mark(_flat(spot.at, PLAN), spot.impossible, "")
        for spot in spots
        if spot.tight and spot.at is not None
    )
    centre = drawing.balance.centre
    made = _view(assessment, drawing, "plan", "Plan, cut through", PLAN, inks, movables)
    return SheetView(
        made.key,
        made.title,
        made.low,
        made.high,
        made.inks,
        made.movables,
        made.sizes,
        made.promised,
        marks,
        _flat((float(centre[0]), float(centre[1]), float(centre[2])), PLAN),
    )


@lru_cache(KEPT_CASES)
def _plates(standing: tuple[Standing, ...]) -> tuple[Ink, ...]:
    """Braces and dividers that are not level, cut through."""
    upright = (s.solid for s in standing if s.brace.axis != "y")
    return tuple(Ink("brace", points) for body in upright for points in solid_outlines(body, PLAN))


def _from_below(sited: Sequence[Sited]) -> list[Sited]:
    """What stands higher is drawn later; inner boxes are drawn before what is in them."""
    parts = [s for s in sited if s.part.kind != "inner box"]
    return sorted(parts, key=lambda s: float(s.at.o[1]))


def _rooms(drawing: Drawing) -> Iterator[Ink]:
    """Inner boxes, cut through: their walls round their own air."""
    for s in drawing.sited:
        if s.part.kind == "inner box":
            yield from _room(s, drawing.case.inner[int(s.path[3])])


@lru_cache(KEPT)
def _room(s: Sited, box: InnerBox) -> tuple[Ink, ...]:
    found: list[Ink] = []
    start = float(s.at.t)
    layers: tuple[tuple[float, Style], ...] = ((0.0, "brace"), (box.wall, "air"))
    for wall, style in layers:
        cut = Rectangle(box.width - 2 * wall, box.height - 2 * wall)
        body = solid([prism(s.at, cut, start, start + box.depth - wall)])
        found += [Ink(style, points, s.path) for points in solid_outlines(body, PLAN)]
    return tuple(found)


def _flat(point: tuple[float, float, float], view: View) -> tuple[float, float]:
    x, y = projected(np.array([point]), view)[0]
    return float(x), float(y)


@lru_cache(KEPT)
def _inside(s: Sited) -> tuple[Ink, ...]:
    """A part looked at from above, through the open case; remembered."""
    return shifted(_above_at_rest(s.at_rest), _origin(s, PLAN), s.path)


@lru_cache(KEPT)
def _above_at_rest(s: Sited) -> tuple[Ink, ...]:
    return tuple(_from_above(s))


def _from_above(s: Sited) -> Iterator[Ink]:
    style: dict[str, Style] = {
        "driver": "cone", "radiator": "cone", "board": "board", "pack": "pack", "port": "port",
        "cup": "cup", "knob": "cup", "vent": "cup",
    }  # fmt: skip
    solid = s.solid(swept=False)
    if solid is None:
        return
    own = style[s.part.kind]
    outlines = solid_outlines(solid, PLAN)
    for k, points in enumerate(outlines):
        last = isinstance(s.part, core.Driver) and k == len(outlines) - 1
        yield Ink("frame" if last else own, points, s.path)
    if isinstance(s.part, core.Pack):
        yield from cells(s, s.part)
    if isinstance(s.part, core.Radiator):
        swept = s.solid()
        assert swept is not None
        for points in solid_outlines(swept, PLAN):
            yield Ink("travel", points, s.path)


def _view(
    assessment: Assessment,
    drawing: Drawing,
    key: str,
    title: str,
    view: View,
    inks: Sequence[Ink],
    movables: tuple[Movable, ...],
) -> SheetView:
    outer = case_outline(drawing.case, view)
    low, high = outer.min(axis=0), outer.max(axis=0)
    sizes = (
        told(float(high[0] - low[0]), "length", "mm", 0),
        told(float(high[1] - low[1]), "length", "mm", 0),
    )
    return SheetView(
        key,
        title,
        (float(low[0]), float(low[1])),
        (float(high[0]), float(high[1])),
        tuple(inks),
        movables,
        sizes,
        _asked(assessment, key),
    )
