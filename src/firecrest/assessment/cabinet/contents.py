"""What is in the case: each kind of thing with its weight and price, and where it has a place, its
solid's figures.

A thing without a place takes the air its sheet says and opens no panel; so does one whose panel the
case does not have. What sounds into another chamber has its place on a divider.
"""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from math import pi
from typing import Literal

import numpy as np

from firecrest.assessment.cabinet.within import as_part, boards_boxes, inner_item, room_of, vents_of
from firecrest.assessment.lower import inputs
from firecrest.assessment.openings import kind_of_opening
from firecrest.assessment.openings.radiator import sag_of
from firecrest.assessment.room import item_of
from firecrest.assessment.wiring import Wiring, cone_count, driver_count
from firecrest.core.arrays import Number
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.cutouts import CutOut, Rectangle, Round, Truncated
from firecrest.core.cabinet.rollup import Item
from firecrest.design.box import OUTSIDE, Port
from firecrest.design.case import Case, Fitting
from firecrest.design.case_within import InnerBox
from firecrest.design.edits.paths import Path
from firecrest.design.mount import Mount
from firecrest.design.standing import is_divider


@dataclass(frozen=True)
class Thing:
    """One kind of things: ``item`` weighs and costs, ``chambers`` share what it takes of the air.

    ``parts`` are those with a place, ``paths`` where each place stands in the design; ``loose`` is
    the share of them that has none. ``kind`` is its row of the ledger.
    """

    item: Item
    kind: str
    chambers: tuple[str, ...]
    parts: tuple[core.Part, ...] = ()
    paths: tuple[Path, ...] = ()
    loose: float = 0.0


Powered = inputs.Amplifier | inputs.Dsp | inputs.Receiver


def things_in(
    box: inputs.Box, power: inputs.Power, wiring: Wiring, depths: Mapping[str, Number]
) -> tuple[Thing, ...]:
    """Everything in a case; ``depths``: how far it goes behind the outer face of each panel, m."""
    panels = tuple(depths)
    outer = tuple(name for name in panels if not is_divider(name))
    first = box.chambers[0].id
    boards = boards_boxes(box.case, [c.id for c in box.chambers])
    return (
        *(_drivers(k, g, wiring, panels) for k, g in enumerate(box.groups)),
        *(_opening(k, o, depths) for k, o in enumerate(box.openings)),
        *_electric(boards, power, first, panels),
        *_others(box.case, boards, outer),
    )


def _mount(mount: Mount, chamber: str) -> core.Mount:
    return core.Mount(mount.panel, mount.u, mount.v, mount.rot, chamber)


def _usable(
    mounts: Sequence[Mount], count: int, panels: Iterable[str], *, inner: bool
) -> list[int]:
    """Which of the first ``count`` places are on a panel that there is: of what sounds into another
    chamber (``inner``) on a divider, of all else on the outside.
    """
    there = [name for name in panels if is_divider(name) == inner]
    return [k for k, m in enumerate(mounts[:count]) if m.panel in there]


def _cut(framed: inputs.Framed) -> CutOut:
    if framed.flats is None:
        return Round(framed.cut_out)
    return Truncated(framed.cut_out, framed.flats)


def _room_each(group: inputs.Group, wiring: Wiring) -> Number:
    """Air in m3 that a cone of a group takes from the chamber behind it, as its sheet says.

    The outer driver of a clamshell sits outside; that of a tunnel and the air between the two are
    taken from the chamber.
    """
    each = group.driver.bulk.volume
    if group.pair == "tunnel":
        return 2 * each + (0.0 if group.trapped is None else group.trapped)
    return each


def _stated(volume: Number) -> Number | None:
    """A maker's figure of the air a thing takes; None where there is none."""
    return None if isinstance(volume, float) and volume == 0 else volume


def _drivers(k: int, group: inputs.Group, wiring: Wiring, panels: Sequence[str]) -> Thing:
    cones, count = cone_count(group, wiring), driver_count(group, wiring)
    each, framed, bulk = _room_each(group, wiring), group.driver.framed, group.driver.bulk
    placed = _usable(group.mounts, cones, panels, inner=group.front != OUTSIDE)
    if framed is None:
        placed = []
    parts = []
    for n in placed:
        assert framed is not None
        mount, constants = group.mounts[n], group.driver.constants
        parts.append(
            core.Driver(
                _numbered(bulk.name, n, cones),
                _mount(mount, group.chamber),
                _cut(framed),
                framed.frame,
                mount.recess,
                framed.depth,
                framed.rear,
                framed.rear_height,
                bulk.mass * count / cones,
                mount.from_inside,
                _stated(each),
                None if constants is None else constants.s_d,
                group.driver.xmax,
                0.0 if constants is None else constants.m_ms,
            )
        )
    item = item_of(bulk, count, volume=each * cones / count)
    paths = tuple(("box", "groups", k, "mounts", n) for n in placed)
    return Thing(item, "driver", (group.chamber,), tuple(parts), paths, 1 - len(placed) / cones)


def _numbered(name: str, n: int, count: int) -> str:
    return name if count == 1 else f"{name} {n + 1}"


def _opening(k: int, item: inputs.Opening, depths: Mapping[str, Number]) -> Thing:
    chambers, bulk = kind_of_opening(item).room(item)
    kind = "port" if isinstance(item, Port) else "radiator"
    placed = _usable(item.mounts, item.count, depths, inner=item.opens_to != OUTSIDE)
    if isinstance(item, Port):
        made: list[core.Part] = [_port(item, n, depths[item.mounts[n].panel]) for n in placed]
    elif item.radiator.framed is None:
        placed, made = [], []
    else:
        made = [_radiator(item, n) for n in placed]
    paths = tuple(("box", "openings", k, "mounts", n) for n in placed)
    return Thing(bulk, kind, chambers, tuple(made), paths, 1 - len(placed) / item.count)


def _radiator(item: inputs.Radiators, n: int) -> core.Radiator:
    radiator, mount = item.radiator, item.mounts[n]
    framed, bulk = radiator.framed, radiator.bulk
    assert framed is not None
    return core.Radiator(
        _numbered(bulk.name, n, item.count),
        _mount(mount, item.chamber),
        _cut(framed),
        framed.frame,
        mount.recess,
        framed.depth,
        framed.rear,
        bulk.mass + item.added_mass,
        mount.from_inside,
        _stated(bulk.volume),
        radiator.sd,
        radiator.xmax,
        sag_of(item),
        (0.0 if radiator.mmp is None else radiator.mmp) + item.added_mass,
    )


FOLDS = {"up": "+v", "down": "-v", "left": "-u", "right": "+u"}
LOOSE_BEND, CLEAR = 1.25, 0.005
"""Radius of a bend's middle over the pipe's outer radius; m between a bend and the wall."""


def _port(item: Port, n: int, depth: Number) -> core.Port:
    """A port; a folded one turns along ``fold``, back to its panel, along it, and so on."""
    slot = (item.width, item.height) if item.shape == "slot" else None
    bore = item.diameter if slot is None else item.height
    return core.Port(
        _numbered("port", n, item.count),
        _mount(item.mounts[n], item.chamber),
        bore,
        item.wall,
        item.length,
        () if slot is not None else _bends(item, depth),
        slot,
    )


def _bends(item: Port, depth: Number) -> tuple[core.Bend, ...]:
    """Bends with runs as long as the ``depth`` behind the panel lets them be, the last the rest.

    Runs along the panel between two bends have no straight of their own.
    """
    outer = item.diameter / 2 + item.wall
    radius = LOOSE_BEND * outer
    run = np.maximum(depth - radius - outer - CLEAR, 0.0)
    back = np.maximum(depth - 2 * radius - 2 * outer - 2 * CLEAR, 0.0)
    rest: Number = item.length - item.bends * pi / 2 * radius
    ways = (FOLDS[item.fold], "out", FOLDS[item.fold], "in")
    made = []
    for k in range(item.bends):
        straight = run if k == 0 else (back if k % 2 == 0 else 0.0 * run)
        straight = np.clip(straight, 0.0, np.maximum(rest, 0.0))
        rest = rest - straight
        made.append(core.Bend(straight, radius, ways[k % 4]))  # type: ignore[arg-type]
    return tuple(made)


def _electric(
    boxes: Sequence[InnerBox], power: inputs.Power, chamber: str, panels: Sequence[str]
) -> Iterator[Thing]:
    """Boards, cells and what belongs to them; without a place they sit in the first chamber."""
    boards: list[Powered] = [*power.amplifiers, power.dsp, *power.receivers]
    for board in boards:
        yield _board(board, _standing_in(boxes, board.mount, chamber), panels)
    source = power.source
    if isinstance(source, inputs.Pack):
        mount = None if source.layout is None else source.layout.mount
        yield _pack(source, _standing_in(boxes, mount, chamber), panels)
        if source.board is not None:
            b = source.board
            item = Item("protection board", 1, b.volume, b.mass, b.price)
            yield Thing(item, "board", (chamber,), loose=1.0)
    elif source is not None:
        yield Thing(item_of(source.bulk, 1), "other", (chamber,), loose=1.0)
    for c in power.converters:
        yield Thing(Item(c.name, 1, 0.0, c.mass, c.price), "board", (chamber,), loose=1.0)


def _standing_in(boxes: Sequence[InnerBox], mount: Mount | None, chamber: str) -> str:
    """The room that a board or pack stands in."""
    return chamber if mount is None else room_of(boxes, mount, chamber)


def _board(
    board: inputs.Amplifier | inputs.Dsp | inputs.Receiver, chamber: str, panels: Sequence[str]
) -> Thing:
    bulk, mount = board.bulk, board.mount
    item = item_of(bulk, 1)
    if mount is None or bulk.size is None or mount.panel not in panels:
        return Thing(item, "board", (chamber,), loose=1.0)
    made = core.Board(
        bulk.name,
        _mount(mount, chamber),
        bulk.size,
        mount.standoff,
        bulk.mass,
        _stated(bulk.volume),
        fins=FINS[bulk.fins],
    )
    path = ("power", "boards", board.place, "mount")
    return Thing(item, "board", (chamber,), (made,), (path,))


FINS: Mapping[str, Literal["", "u", "v"]] = {"none": "", "length": "u", "width": "v"}


def _pack(pack: inputs.Pack, chamber: str, panels: Sequence[str]) -> Thing:
    """The cells; with a place they take the air of their wrapped brick, or of their own bodies."""
    cell, count, layout = pack.cell, pack.series * pack.parallel, pack.layout
    item = item_of(cell.bulk, count)
    if layout is None or layout.mount.panel not in panels:
        return Thing(item, "pack", (chamber,), loose=1.0)
    made = core.Pack(
        cell.bulk.name,
        _mount(layout.mount, chamber),
        cell.diameter,
        cell.length,
        layout.n,
        layout.lie,  # type: ignore[arg-type]
        layout.wrap,
        layout.wrapped,
        layout.mount.standoff,
        cell.bulk.mass * count,
    )
    return Thing(item, "pack", (chamber,), (made,), (("power", "source", "mount"),))


def _others(case: Case, boxes: Sequence[InnerBox], panels: Sequence[str]) -> Iterable[Thing]:
    """Cups, knobs, feet, and what else is said to be in the case."""
    for k, fitting in enumerate(case.fittings):
        yield _fitting(k, fitting, room_of(boxes, fitting.mount, fitting.chamber), panels)
    for k, inner in enumerate(case.inner):
        yield _inner(k, inner, case, panels, chamber=inner not in boxes)
    for c in case.contents:
        item = Item(c.name, c.count, c.volume, c.mass, c.price)
        yield Thing(item, "other", (c.chamber,), loose=1.0)
    if case.grille is not None:
        grille = case.grille
        yield Thing(Item("grille", 1, 0.0, grille.mass, grille.price), "feet", ())
    if case.feet is not None:
        feet = case.feet
        yield Thing(Item("feet", FEET, 0.0, feet.mass, feet.price), "feet", ())


FEET = 4


def _inner(k: int, inner: InnerBox, case: Case, panels: Sequence[str], *, chamber: bool) -> Thing:
    """A box within the case: without a panel to stand on it takes its air all the same.

    One that is a ``chamber`` has no vents.
    """
    made = as_part(inner, case)
    item = replace(inner_item(inner, case), volume=inner.width * inner.height * inner.depth)
    if inner.mount.panel not in panels:
        return Thing(item, "inner box", (inner.chamber,), loose=1.0)
    parts: tuple[core.Part, ...] = (made,) if chamber else (made, *vents_of(inner))
    paths: tuple[Path, ...] = (("box", "case", "inner", k, "mount"),) * len(parts)
    return Thing(item, "inner box", (inner.chamber,), parts, paths)


def _fitting(k: int, fitting: Fitting, chamber: str, panels: Sequence[str]) -> Thing:
    cut: CutOut = Round(fitting.width)
    if not fitting.round:
        cut = Rectangle(fitting.width, fitting.height, fitting.corner)
    mount = _mount(fitting.mount, chamber)
    item = Item(fitting.name, 1, 0.0, fitting.mass, fitting.price)
    made: core.Part
    if fitting.kind != "knob":
        made = core.Cup(fitting.name, mount, cut, fitting.depth, fitting.mass)
    else:
        made = core.Knob(fitting.name, mount, cut, fitting.bushing, fitting.nut, fitting.mass)
    kind = "knob" if fitting.kind == "knob" else "cup"
    if fitting.mount.panel not in panels:
        return Thing(item, kind, (fitting.chamber,), loose=1.0)
    path = ("box", "case", "fittings", k, "mount")
    return Thing(item, kind, (fitting.chamber,), (made,), (path,))
