"""Edits of the voice: filters come, go and change places."""

from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, replace_at
from firecrest.design.voice import (
    Block,
    Channel,
    HighPass,
    HighShelf,
    LowPass,
    LowShelf,
    Parametric,
)

KINDS = {
    "high_pass": "High-pass",
    "low_pass": "Low-pass",
    "low_shelf": "Low shelf",
    "high_shelf": "High shelf",
    "parametric": "Band",
}
FIGURES = {
    "high_pass": ("frequency",),
    "low_pass": ("frequency",),
    "low_shelf": ("frequency", "gain", "q"),
    "high_shelf": ("frequency", "gain", "q"),
    "parametric": ("frequency", "gain", "q"),
}


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
    raise DesignError(f"There is no filter called {kind}.")


def sections_used(channel: Channel) -> int:
    """Second-order sections the board spends on a chain."""
    return sum((getattr(block, "order", 2) + 1) // 2 for block in channel.blocks)


def _path(channel: int) -> Path:
    return ("voice", "channels", channel, "blocks")


def add_block(design: Design, channel: int, kind: str) -> tuple[str, Design]:
    """(label, design) with a new filter at the end of the chain."""
    blocks = (*design.voice.channels[channel].blocks, new_block(kind, design))
    return f"Add {KINDS[kind].lower()}", replace_at(design, _path(channel), blocks)


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
