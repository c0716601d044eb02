"""A design to plain numbers: the first step of every assessment, of one design or of many."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from math import ceil, sqrt
from typing import TypeVar

import numpy as np

from firecrest.assessment.lower import inputs
from firecrest.assessment.lower.parts import (
    lower_amplifier,
    lower_cell,
    lower_driver,
    lower_dsp,
    lower_radiator,
    lower_receiver,
    lower_supply,
)
from firecrest.assessment.memo import Memo
from firecrest.assessment.openings import kind_of_opening
from firecrest.core.acoustics.fill import FIBRE_BAND
from firecrest.core.arrays import Number
from firecrest.core.note import Note, note
from firecrest.core.power.amplifier import CURRENT_RESERVE, DEFAULT_LOSS, DEFAULT_THD
from firecrest.design.amplifiers import Amplifier, OutputKind
from firecrest.design.box import Chamber, DriverGroup, Opening, Port
from firecrest.design.case import Case
from firecrest.design.design import Design
from firecrest.design.ids import place_of
from firecrest.design.outputs import carried
from firecrest.design.power import BUS, Board, FittedReceiver, OtherLoad, Power
from firecrest.design.sources import Pack, WallSupply


@dataclass(frozen=True)
class Lowered:
    """Numbers of a design.

    ``blocked`` says what stands in the way of solving it at all, ``missing`` which figures of what
    its parts bear are not known, ``estimates`` which stand in for them.
    """

    inputs: inputs.Inputs
    blocked: Note | None
    missing: tuple[Note, ...]
    estimates: tuple[Note, ...]


def lower(design: Design, memo: Memo) -> Lowered:
    """Numbers of ``design``; what belongs to unchanged branches stays the same objects."""
    box = memo(
        _box,
        design.box.case,
        design.box.chambers,
        tuple(memo(_lower_group, group) for group in design.box.groups),
        tuple(memo(_lower_opening, item) for item in design.box.openings),
    )
    power = memo(_lower_power, design.power)
    outputs, _ = carried([b for _, b in design.power.amplifiers], design.voice.channels)
    lacks = [g.driver.lacks for g in box.groups]
    lacks += [kind_of_opening(item).lacks(item) for item in box.openings]
    return Lowered(
        inputs.Inputs(design.brief, box, power, design.voice, tuple(outputs)),
        next(filter(None, lacks), None),
        tuple(_missing(box, design.power)),
        tuple(_estimates(box, design.power)),
    )


def _box(
    case: Case,
    chambers: tuple[Chamber, ...],
    groups: tuple[inputs.Group, ...],
    openings: tuple[inputs.Opening, ...],
) -> inputs.Box:
    return inputs.Box(chambers, groups, openings, case)


def _lower_group(group: DriverGroup) -> inputs.Group:
    return inputs.Group(
        lower_driver(group.driver, group.coils),
        group.chamber,
        group.front,
        group.channel,
        group.in_series,
        group.in_parallel,
        group.pair,
        group.pair_in,
        group.trapped,
        group.place,
        group.mounts,
    )


def _lower_opening(item: Opening) -> inputs.Opening:
    """Radiators as their constants; a port is plain numbers already."""
    if isinstance(item, Port):
        return item
    return inputs.Radiators(
        lower_radiator(item.radiator),
        item.count,
        item.added_mass,
        item.horizontal,
        item.chamber,
        item.opens_to,
        item.place,
        item.mounts,
    )


def _lower_power(power: Power) -> inputs.Power:
    source: inputs.Pack | inputs.Supply | None = None
    if isinstance(power.source, Pack):
        pack = power.source
        cell = lower_cell(pack.cell)
        source = inputs.Pack(
            cell, pack.series, pack.parallel, pack.board, pack.health, pack.spread, _layout(pack)
        )
    elif isinstance(power.source, WallSupply):
        source = lower_supply(power.source)
    amplifiers = [board for _, board in power.amplifiers]
    receivers = [board for board in power.boards if isinstance(board, FittedReceiver)]

    return inputs.Power(
        tuple(_mounted(power, lower_amplifier(board.part), board) for board in amplifiers),
        _rails(power, amplifiers),
        _mounted(power, lower_dsp(power.dsp), power.boards[power.dsp_place]),
        _rail(power, power.boards[power.dsp_place].rail),
        tuple(_mounted(power, lower_receiver(board.part), board) for board in receivers),
        _rails(power, receivers),
        source,
        power.converters,
        power.other_loads,
        _rails(power, power.other_loads),
        power.lead,
    )


Fitted = TypeVar("Fitted", inputs.Amplifier, inputs.Dsp, inputs.Receiver)


def _mounted(power: Power, numbers: Fitted, board: Board) -> Fitted:
    """A board with where it is mounted, and its place among the boards."""
    if board.mount is None:
        return numbers
    return replace(numbers, mount=board.mount, place=power.boards.index(board))


def _layout(pack: Pack) -> inputs.Layout | None:
    """Cells side by side as many as said, or nearly square; the rest in rows behind these."""
    if pack.mount is None:
        return None
    count = pack.series * pack.parallel
    across = np.minimum(pack.across, count) if pack.across else _square(count)
    rows = np.ceil(count / across - 1e-9)
    n: dict[str, tuple[Number, Number, Number]] = {
        "u": (1, across, rows),
        "v": (across, 1, rows),
        "w": (across, rows, 1),
    }
    return inputs.Layout(pack.mount, n[pack.lie], pack.lie, pack.wrap, pack.wrapped)


def _square(count: Number) -> Number:
    """The width of the squarest block of so many cells; of columns each its own."""
    if isinstance(count, np.ndarray):
        return np.array([_square(int(n)) for n in count.ravel()], dtype=float).reshape(count.shape)
    whole = int(count)
    return next(n for n in range(ceil(sqrt(whole) - 1e-9), whole + 1) if whole % n == 0)


def _rails(power: Power, items: Iterable[Board | OtherLoad]) -> tuple[int | None, ...]:
    return tuple(_rail(power, item.rail) for item in items)


def _rail(power: Power, rail: str) -> int | None:
    """Place of the converter that a rail is; None of the source itself."""
    return None if rail == BUS else place_of(power.converters, rail)


def _missing(box: inputs.Box, power: Power) -> Iterator[Note]:
    """Limits of parts that are not known."""
    for group in box.groups:
        for figure in ("xmax", "pe"):
            if getattr(group.driver, figure) is None:
                yield note("figure", figure=figure, part=group.driver.bulk.name)
    for item in box.openings:
        yield from kind_of_opening(item).missing(box, item)
    source = power.source
    if isinstance(source, Pack):
        if source.cell.max_current is None:
            yield note("figure", figure="max_current", part=source.cell.name)
        if source.board is not None and source.board.max_current is None:
            yield note("protection board")
    for converter in power.converters:
        if converter.input_current is None:
            yield note("figure", figure="input_current", part=converter.name)


def _estimates(box: inputs.Box, power: Power) -> Iterator[Note]:
    """Stated defaults that stand in for figures."""
    for chamber in box.chambers:
        if chamber.fill_resistivity is not None:
            yield note("fibre", chamber=chamber.name, share=FIBRE_BAND)
    said = [line for _, board in power.amplifiers for line in _board_estimates(board.part)]
    yield from dict.fromkeys(said)
    said = [line for o in box.openings for line in kind_of_opening(o).estimates(box, o)]
    yield from dict.fromkeys(said)


def _board_estimates(part: Amplifier) -> Iterator[Note]:
    kinds: list[Amplifier | OutputKind] = [part, *part.other_outputs]
    if any(kind.current_limit is None for kind in kinds):
        yield note("current limit", part=part.name, reserve=CURRENT_RESERVE)
    if part.efficiency is None:
        yield note("losses", part=part.name, share=DEFAULT_LOSS)
    if any(claim.thd is None for kind in kinds for claim in kind.claims):
        yield note("claims", part=part.name, thd=DEFAULT_THD)
