"""Edits of the voice: filters come, go and change places; chains are copied and linked."""

from collections.abc import Sequence
from dataclasses import fields
from math import sqrt

from firecrest.core.errors import DesignError
from firecrest.core.voice.alignment import to_sample
from firecrest.design.blocks import (
    AllPass,
    Block,
    HighPass,
    HighShelf,
    LinkwitzTransform,
    LowPass,
    LowShelf,
    Notch,
    OwnCrossover,
    Parametric,
    followed,
)
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.ids import found
from firecrest.design.voice import Chain, Channel

KINDS = {
    "high_pass": "High-pass",
    "low_pass": "Low-pass",
    "low_shelf": "Low shelf",
    "high_shelf": "High shelf",
    "parametric": "Band",
    "notch": "Notch",
    "all_pass": "All-pass",
    "linkwitz_transform": "Linkwitz transform",
    "own_crossover": "Amplifier's crossover",
}
FIGURES = {
    "high_pass": ("frequency",),
    "low_pass": ("frequency",),
    "low_shelf": ("frequency", "gain", "q"),
    "high_shelf": ("frequency", "gain", "q"),
    "parametric": ("frequency", "gain", "q"),
    "notch": ("frequency", "q"),
    "all_pass": ("frequency", "q"),
    "linkwitz_transform": ("source_frequency", "source_q", "frequency", "q"),
    "own_crossover": ("frequency", "level", "turn"),
}
CHAIN = tuple(field.name for field in fields(Chain))
"""What belongs to a chain, and goes with it when it is copied, linked or stored."""


def new_block(kind: str, design: Design) -> Block:
    """A block that starts where it is usually wanted."""
    note = design.brief.bass.frequency
    if kind == "high_pass":
        return HighPass(kind="high_pass", frequency=round(0.8 * note, 1))
    if kind == "low_pass":
        return LowPass(kind="low_pass", frequency=12000.0)
    if kind == "low_shelf":
        return LowShelf(kind="low_shelf", frequency=2 * note, gain=3.0)
    if kind == "high_shelf":
        return HighShelf(kind="high_shelf", frequency=4000.0, gain=-2.0)
    if kind == "parametric":
        return Parametric(kind="parametric", frequency=2 * note, gain=0.0)
    if kind == "notch":
        return Notch(kind="notch", frequency=1000.0)
    if kind == "all_pass":
        return AllPass(kind="all_pass", frequency=1000.0)
    if kind == "linkwitz_transform":
        return LinkwitzTransform(
            kind="linkwitz_transform", source_frequency=round(1.6 * note, 1), frequency=note
        )
    if kind == "own_crossover":
        return OwnCrossover(kind="own_crossover")
    raise DesignError(f"There is no filter called {kind}.")


def sections_used(channel: Chain) -> int:
    """Second-order sections the board spends on a chain; a bypassed or analogue one costs none."""
    return sum(
        (getattr(block, "order", 2) + 1) // 2
        for block in channel.blocks
        if not block.bypassed and not isinstance(block, OwnCrossover)
    )


def _path(channel: int) -> Path:
    return ("voice", "channels", channel, "blocks")


def add_block(design: Design, channel: int, kind: str) -> tuple[str, Design]:
    """(label, design) with a new filter at the end of the chain."""
    return with_block(design, channel, new_block(kind, design))


def with_block(design: Design, channel: int, block: Block) -> tuple[str, Design]:
    """(label, design) with a filter at the end of the board's own, before an amplifier's."""
    if isinstance(block, OwnCrossover):
        block = _of_board(design, channel)
    blocks = design.voice.channels[channel].blocks
    return f"Add {KINDS[block.kind].lower()}", replace_at(
        design, _path(channel), followed(blocks, block)
    )


def _of_board(design: Design, channel: int) -> OwnCrossover:
    """The crossover that the amplifier of a channel has built in, at the middle of its reach."""
    own = design.voice.channels[channel]
    part = found([board for _, board in design.power.amplifiers], own.board).part
    built_in = part.own_filter
    if built_in is None:
        raise DesignError(
            f"{part.name} has no crossover of its own. Add a low-pass or high-pass of the DSP, or "
            "state the amplifier's on its sheet in Parts."
        )
    if any(isinstance(block, OwnCrossover) for block in own.blocks):
        raise DesignError(f"The crossover of {part.name} is in this lane already.")
    return OwnCrossover(
        kind="own_crossover",
        side=built_in.side,
        family=built_in.family,
        order=built_in.order,
        frequency=round(sqrt(built_in.lowest * built_in.highest), 0),
    )


def add_beside(design: Design, channel: int, kind: str) -> tuple[str, Design]:
    """(label, design) with a new band after the last one that is there, else at the end."""
    blocks = list(design.voice.channels[channel].blocks)
    bands = [k for k, b in enumerate(blocks) if hasattr(b, "gain") or isinstance(b, Notch)]
    if not bands:
        return add_block(design, channel, kind)
    blocks.insert(bands[-1] + 1, new_block(kind, design))
    return f"Add {KINDS[kind].lower()}", replace_at(design, _path(channel), tuple(blocks))


def remove_block(design: Design, channel: int, place: int) -> tuple[str, Design]:
    """(label, design) without the filter at ``place``."""
    blocks = design.voice.channels[channel].blocks
    kept = (*blocks[:place], *blocks[place + 1 :])
    name = KINDS[blocks[place].kind].lower()
    return f"Remove {name}", replace_at(design, _path(channel), kept)


def move_block(design: Design, channel: int, place: int, by: int) -> tuple[str, Design]:
    """(label, design) with the filter at ``place`` moved; at the ends it stays."""
    blocks = list(design.voice.channels[channel].blocks)
    target = min(max(place + by, 0), len(blocks) - 1)
    block = blocks.pop(place)
    blocks.insert(target, block)
    return f"Move {KINDS[block.kind].lower()}", replace_at(design, _path(channel), tuple(blocks))


def bypass(design: Design, channel: int, place: int) -> tuple[str, Design]:
    """(label, design) with the filter at ``place`` bypassed, or back in force."""
    path = (*_path(channel), place, "bypassed")
    off, block = value_at(design, path), design.voice.channels[channel].blocks[place]
    label = f"{KINDS[block.kind]} {'back in' if off else 'bypassed'}"
    return label, replace_at(design, path, not off)


def bypass_all(design: Design, channel: int, places: Sequence[int]) -> tuple[str, Design]:
    """(label, design) with some filters bypassed; back in force where all of them were."""
    blocks = design.voice.channels[channel].blocks
    off = not all(blocks[k].bypassed for k in places)
    made = tuple(rebuilt(b, bypassed=off) if k in places else b for k, b in enumerate(blocks))
    label = f"{KINDS[blocks[places[0]].kind]} {'bypassed' if off else 'back in'}"
    return label, replace_at(design, _path(channel), made)


def remove_blocks(design: Design, channel: int, places: Sequence[int]) -> tuple[str, Design]:
    """(label, design) without some filters."""
    blocks = design.voice.channels[channel].blocks
    kept = tuple(b for k, b in enumerate(blocks) if k not in places)
    name = KINDS[blocks[places[0]].kind].lower()
    label = f"Remove {name}" if len(places) == 1 else f"Remove {len(places)} bands"
    return label, replace_at(design, _path(channel), kept)


def move_group(
    design: Design, channel: int, groups: Sequence[Sequence[int]], here: int, there: int
) -> tuple[str, Design]:
    """(label, design) with the filters of group ``here`` where group ``there`` stands."""
    blocks = design.voice.channels[channel].blocks
    order = list(groups)
    there = min(max(there, 0), len(order) - 1)
    last = [k for k, g in enumerate(order) if isinstance(blocks[g[0]], OwnCrossover)]
    if here in last or there in last:
        raise DesignError("The amplifier's own crossover stays last: it lies behind the DSP.")
    order.insert(there, order.pop(here))
    made = tuple(blocks[k] for group in order for k in group)
    name = KINDS[blocks[groups[here][0]].kind].lower()
    return f"Move {name}", replace_at(design, _path(channel), made)


def copy_chain(design: Design, source: int, target: int) -> tuple[str, Design]:
    """(label, design) with the chain of one channel put into another."""
    channels = design.voice.channels
    made = chain_put(channels[target], channels[source])
    label = f"Chain of {channels[source].name} copied to {channels[target].name}"
    return label, replace_at(design, ("voice", "channels", target), made)


def chain_put(channel: Channel, chain: Chain) -> Channel:
    """A channel with all that belongs to another chain; the same object where nothing differs."""
    changes = {
        name: getattr(chain, name)
        for name in CHAIN
        if getattr(chain, name) != getattr(channel, name)
    }
    return rebuilt(channel, **changes) if changes else channel


def lined_up(
    design: Design, gains: Sequence[float], delays: Sequence[float], inverted: Sequence[bool]
) -> Design:
    """The design with these levels (dB), delays (s) and polarities of its channels."""
    channels = tuple(
        rebuilt(channel, gain=round(gain, 2), delay=round(delay, 6), inverted=turned)
        for channel, gain, delay, turned in zip(
            design.voice.channels, gains, delays, inverted, strict=True
        )
    )
    return replace_at(design, ("voice", "channels"), channels)


def with_links(before: Design, after: Design) -> Design:
    """``after`` with every chain that changed written to the channels linked with it.

    Left and right of a linked pair keep their own side as their input.
    """
    old = {channel.id: channel for channel in before.voice.channels}
    linked = [channel for channel in after.voice.channels if channel.link]
    stayed = [c for c in linked if c.id in old and old[c.id].link == c.link]
    changed = {c.link: c for c in stayed if old[c.id] is not c}
    if len(stayed) < len(linked):  # who joins takes what is there
        changed = {c.link: c for c in stayed} | changed
    if not changed:
        return after
    channels = tuple(
        _linked(channel, changed.get(channel.link)) for channel in after.voice.channels
    )
    if all(a is b for a, b in zip(channels, after.voice.channels, strict=True)):
        return after
    return replace_at(after, ("voice", "channels"), channels)


def as_the_board_plays(before: Design, after: Design) -> Design:
    """``after`` with linked chains alike, and whole samples of delay where it has no others."""
    return with_links(before, in_samples(after))


def in_samples(design: Design) -> Design:
    """The design with the delays that its board can make."""
    dsp = design.power.dsp
    if not dsp.whole_samples:
        return design
    for k, channel in enumerate(design.voice.channels):
        rounded = to_sample(channel.delay, dsp.sample_rate)
        if abs(rounded - channel.delay) > 1e-12:
            design = replace_at(design, ("voice", "channels", k, "delay"), rounded)
    return design


def link(design: Design, channel: int, other: int | None) -> tuple[str, Design]:
    """(label, design) with a channel sharing the chain of another; None: of its own."""
    channels = design.voice.channels
    own = channels[channel]
    if other is None:
        path = ("voice", "channels", channel, "link")
        return f"{own.name} on its own", replace_at(design, path, "")
    word = channels[other].link or channels[other].id[:20]
    base = replace_at(design, ("voice", "channels", other, "link"), word)
    made = replace_at(base, ("voice", "channels", channel, "link"), word)
    return f"{own.name} linked with {channels[other].name}", with_links(base, made)


def _linked(channel: Channel, source: Channel | None) -> Channel:
    if source is None or source is channel:
        return channel
    side = channel.mix if {channel.mix, source.mix} <= {"left", "right"} else source.mix
    return chain_put(channel, rebuilt(source, mix=side))
