"""What differs between the design here and another state of it, in lines to read."""

import dataclasses
from typing import Any

from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.differing import differing_paths
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.fields import field_facts, label_of

MOST = 40
PARTS = {"box": "Box", "brief": "Promise", "power": "Power", "voice": "Voice"}


def differing_text(here: Design, there: Design) -> str:
    """One line for each difference: where, what stands here, and what stands in the file."""
    paths = differing_paths(here, there)
    if not paths:
        return "Nothing differs: both hold the same figures."
    lines = [_line(here, there, path) for path in paths[:MOST]]
    more = [f"and {len(paths) - MOST} more"] if len(paths) > MOST else []
    return "\n".join([*lines, *more])


def _line(here: Design, there: Design, path: Path) -> str:
    owner = value_at(here, path[:-1])
    name = path[-1]
    place = PARTS.get(str(path[0]), "") if len(path) > 1 else ""
    whose = getattr(owner, "name", "") if len(path) > 1 else ""
    label = label_of(type(owner), name) if isinstance(name, str) else f"number {name + 1}"
    where = ", ".join(filter(None, [place, whose, label]))
    return f"{where}: {_shown(here, path)} here, {_shown(there, path)} in the file"


def _shown(design: Design, path: Path) -> str:
    """A figure with its unit, a word, a part by its name, or how many there are."""
    try:
        owner, value = value_at(design, path[:-1]), value_at(design, path)
    except DesignError:
        return "nothing"
    facts = field_facts(type(owner), path[-1]) if isinstance(path[-1], str) else None
    if facts is not None:
        return facts.show(value) or "empty"
    return _word(value)


def _word(value: Any) -> str:
    if isinstance(value, tuple | dict):
        return f"{len(value)} of them"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if dataclasses.is_dataclass(value):
        return str(getattr(value, "name", type(value).__name__))
    return f"“{value}”" if isinstance(value, str) else str(value)
