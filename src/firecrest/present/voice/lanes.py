"""Lanes: each channel as a row of blocks on a wire, each with its drawing and its one figure."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.sound import filter_of
from firecrest.core.arrays import decibel
from firecrest.core.units import THIN_SPACE, figure
from firecrest.core.voice.chain import Filter, block_response
from firecrest.design.blocks import (
    AllPass,
    Block,
    HighPass,
    LinkwitzTransform,
    LowPass,
    Notch,
    OwnCrossover,
)
from firecrest.design.design import Design
from firecrest.design.edits.voice import KINDS, sections_used
from firecrest.design.outputs import dealt
from firecrest.design.voice import Channel
from firecrest.present.text.words import decibels

Line = tuple[tuple[float, float], ...]
"""A drawing: points from (0, 0), bottom left, to (1, 1)."""
POINTS = np.geomspace(20.0, 20e3, 49)
TALL = 18.0
"""DB from the middle of a drawing to its edge."""
SHORT = {"parametric": "Band", "own_crossover": "Board’s own", "linkwitz_transform": "Transform"}


@dataclass(frozen=True)
class Item:
    """One block of a lane: ``key`` names it, ``places`` are those of its filters in the chain.

    Bands that follow each other are one block. ``idle`` ones do nothing, ``open`` ones should be
    set.
    """

    key: str
    title: str
    figure: str
    line: Line
    idle: bool = False
    open: bool = False
    places: tuple[int, ...] = ()
    dashed: Line = ()

    @property
    def spoken(self) -> str:
        """What assistive software says of it."""
        state = ", does nothing" if self.idle else ", not set" if self.open else ""
        return f"{self.title}: {self.figure}{state}"


@dataclass(frozen=True)
class Lane:
    """One channel: its name, what it drives, where it comes out, and its blocks in order."""

    name: str
    drivers: str
    out: str
    items: tuple[Item, ...]


def hertz(value: float) -> str:
    """A frequency as short as a block takes it: 58, 2.2 k."""
    if value < 1000:
        return figure(value, 0 if value >= 100 or value == round(value) else 1)
    return f"{value / 1000:.3g}{THIN_SPACE}k"


def lanes(assessment: Assessment) -> tuple[Lane, ...]:
    """Every channel, in the order of the design."""
    design, memo = assessment.design, assessment.memo
    rate = float(design.power.dsp.sample_rate)
    return tuple(
        _lane(design, channel, memo(_items, channel, rate)) for channel in design.voice.channels
    )


def _items(channel: Channel, rate: float) -> tuple[Item, ...]:
    """The blocks of a channel."""
    items = [_level(channel), _delay(channel)]
    items += [_item(channel, places, rate) for places in grouped(channel)]
    items.append(_limiter(channel))
    return tuple(items)


def _lane(design: Design, channel: Channel, items: tuple[Item, ...]) -> Lane:
    groups = [g for g in design.box.groups if g.channel == channel.id]
    drivers = ", ".join(dict.fromkeys(g.driver.name for g in groups))
    sign = "−" if channel.inverted else "+"
    return Lane(channel.name, drivers, f"out {_outputs(design, channel)}, {sign}", items)


def _outputs(design: Design, channel: Channel) -> str:
    """The numbers of the board's outputs that carry a channel."""
    boards = [board for _, board in design.power.amplifiers]
    place = next(k for k, board in enumerate(boards) if board.id == channel.board)
    names = dealt(boards[place], boards, design.voice.channels)
    found = [str(k + 1) for k, name in enumerate(names) if name == channel.name]
    return ", ".join(found) or "–"


def grouped(channel: Channel) -> list[tuple[int, ...]]:
    """Places of the filters of a chain, bands that follow each other together."""
    found: list[tuple[int, ...]] = []
    for k, block in enumerate(channel.blocks):
        if found and has_handle(block) and has_handle(channel.blocks[found[-1][-1]]):
            found[-1] = (*found[-1], k)
        else:
            found.append((k,))
    return found


def numbered(channel: Channel) -> dict[int, int]:
    """Number of each band on the plot, by its place in the chain."""
    bands = [k for k, b in enumerate(channel.blocks) if has_handle(b)]
    return {place: n + 1 for n, place in enumerate(bands)}


def has_handle(block: Block) -> bool:
    """Whether a block has a handle on the plot: what lifts, lowers or notches."""
    return hasattr(block, "gain") or isinstance(block, Notch)


def _level(channel: Channel) -> Item:
    share = min(max((channel.gain + 24) / 36, 0.0), 1.0)
    line = ((0.0, 0.5), (share, 0.5), (share, 0.8), (share, 0.2), (share, 0.5), (1.0, 0.5))
    return Item("level", "Level", f"{decibels(channel.gain)} dB", line, channel.gain == 0)


def _delay(channel: Channel) -> Item:
    now = min(channel.delay / 0.001, 1.0) * 0.4
    still, late = (tuple(_bump(0.3 + x)) for x in (0.0, now))
    text = f"{figure(channel.delay * 1e3, 3)} ms" if channel.delay else "none"
    idle = channel.delay == 0
    return Item("delay", "Delay", text, late, idle, dashed=() if idle else still)


def _bump(at: float) -> Sequence[tuple[float, float]]:
    x = np.linspace(0.0, 1.0, 33)
    return [(float(a), float(0.15 + 0.7 * np.exp(-(((a - at) / 0.07) ** 2)))) for a in x]


def _limiter(channel: Channel) -> Item:
    parts = [
        f"{figure(v, 1)} V{suffix}"
        for v, suffix in ((channel.limiter, ""), (channel.limiter_rms, " rms"))
        if v is not None
    ]
    if not parts:
        return Item("limiter", "Limiter", "open", ((0.05, 0.1), (0.95, 0.9)), open=True)
    line = ((0.05, 0.1), (0.6, 0.65), (0.95, 0.65))
    return Item("limiter", "Limiter", ", ".join(parts), line)


def _item(channel: Channel, places: tuple[int, ...], rate: float) -> Item:
    """One filter, or some bands together."""
    blocks = [channel.blocks[k] for k in places]
    live = [b for b in blocks if not b.bypassed]
    shown = [_in_force(b) for b in live or blocks]
    level = sum(decibel(block_response(block, POINTS, rate)) for block in shown)
    x = np.linspace(0.0, 1.0, len(POINTS))
    y = np.clip(0.5 + level / (2 * TALL), 0.02, 0.98)
    line = tuple((float(a), float(b)) for a, b in zip(x, y, strict=True))
    title = SHORT.get(blocks[0].kind, KINDS[blocks[0].kind])
    if has_handle(blocks[0]):
        title = "EQ, 1 band" if len(blocks) == 1 else f"EQ, {len(blocks)} bands"
    largest = max(live or blocks, key=lambda b: abs(getattr(b, "gain", 0.0)))
    text = _figure(largest) if live else "bypassed"
    return Item(f"block-{places[0]}", title, text, line, not live, places=places)


def _in_force(block: Block) -> Filter:
    """A block as if it were not bypassed."""
    return replace(filter_of(block), bypassed=False)


def _figure(block: Block) -> str:
    """The one figure of a block."""
    at = hertz(block.frequency)
    if isinstance(block, HighPass | LowPass | OwnCrossover):
        return f"{at}, {6 * block.order} dB"
    if isinstance(block, AllPass):
        return f"{at}, {180 * block.order}°"
    if isinstance(block, LinkwitzTransform):
        return f"{hertz(block.source_frequency)} → {at}"
    if isinstance(block, Notch):
        return f"out at {at}"
    return f"{decibels(block.gain)} at {at}"


def filters_used(design: Design) -> str:
    """How many of the board's filters all chains take."""
    dsp = design.power.dsp
    used = sum(sections_used(channel) for channel in design.voice.channels)
    over = "" if used <= dsp.filters else f": {used - dsp.filters} too many"
    kilohertz = f"{dsp.sample_rate / 1e3:g}{THIN_SPACE}kHz"
    return f"{dsp.name}, {kilohertz}: {used} of {dsp.filters} filters used{over}"


def too_many(design: Design) -> bool:
    """Whether the chains take more filters than the board has."""
    return sum(map(sections_used, design.voice.channels)) > design.power.dsp.filters
