"""Whose a figure is, in words: what tells two fields of the same label apart."""

from collections.abc import Mapping
from typing import Any

from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.edits.voice import KINDS
from firecrest.design.ids import found
from firecrest.present.power.power import amplifier_names
from firecrest.present.size.openings import named_apart

SOURCES: Mapping[Path, str] = {
    ("power", "source", "board"): "the protection board",
    ("power", "source", "charger"): "the charger",
}
WIRES: Mapping[Path, str] = {
    ("power", "lead"): "the lead",
    ("power", "speaker_lead"): "the leads to the drivers",
    ("power", "fuse"): "the fuse",
    ("power", "switch"): "the switch",
}


def owner_of(design: Design, path: Path) -> str:
    """What the figure at ``path`` is of: "low-pass 2 of channel sub"; "" where there is but one."""
    branch, rest = path[:2], path[2:]
    if branch == ("voice", "channels"):
        return _voice(design, rest)
    if branch == ("power", "boards"):
        return _board(design, rest)
    if branch in (("power", "other_loads"), ("power", "converters")):
        return f"{value_at(design, path[:3]).name}, {int(path[2]) + 1}"
    if path[:3] == ("power", "source", "steps"):
        return f"voltage {int(path[3]) + 1}"
    if path[:3] in SOURCES:
        return SOURCES[path[:3]]
    if branch in WIRES:
        return WIRES[branch]
    if branch == ("box", "case"):
        return _case(design, rest)
    if branch == ("box", "chambers"):
        return f"chamber {design.box.chambers[int(rest[0])].name}"
    if branch == ("box", "groups"):
        group = design.box.groups[int(rest[0])]
        channel = found(design.voice.channels, group.channel).name
        several = len(design.box.groups) > 1
        return f"{group.driver.name} on {channel}" if several else group.driver.name
    if branch == ("box", "openings"):
        return named_apart(design.box, design.box.openings[int(rest[0])])
    return ""


FITTED = ("contents", "braces", "inner", "fittings")
POINTS = {"corners": "corner", "profile": "profile point"}


def _case(design: Design, rest: tuple[Any, ...]) -> str:
    """What of several things in a case, or which point of its outline."""
    if rest[0] in FITTED and len(rest) > 1:
        return f"{getattr(design.box.case, rest[0])[int(rest[1])].name}, {int(rest[1]) + 1}"
    if rest[0] == "shape" and len(rest) > 2 and rest[1] in POINTS:
        return f"{POINTS[rest[1]]} {int(rest[2]) + 1}"
    return ""


def _voice(design: Design, rest: tuple[Any, ...]) -> str:
    channel = design.voice.channels[rest[0]]
    if rest[1:2] != ("blocks",):
        return f"channel {channel.name}"
    block = channel.blocks[rest[2]]
    return f"{KINDS[block.kind].lower()} {rest[2] + 1} of channel {channel.name}"


def _board(design: Design, rest: tuple[Any, ...]) -> str:
    board = design.power.boards[rest[0]]
    name: str = dict(amplifier_names(design)).get(board.id, board.part.name)
    if "claims" not in rest:
        return name
    claim = f"claim {rest[rest.index('claims') + 1] + 1} of {name}"
    if "other_outputs" in rest:
        return f"{claim}, outputs of kind {rest[rest.index('other_outputs') + 1] + 2}"
    return claim


def named(label: str, owner: str) -> str:
    """A label with its owner."""
    return f"{label} of {owner}" if owner else label
