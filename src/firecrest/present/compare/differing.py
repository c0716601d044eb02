"""What differs between variants: the fewest stored figures, those that tell most first."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, is_dataclass
from math import isfinite
from typing import Any

from firecrest.assessment.assess import assess
from firecrest.assessment.memo import Memo
from firecrest.assessment.verdicts import Promise
from firecrest.assessment.worth import worst_must, worth
from firecrest.core.errors import FirecrestError
from firecrest.design.box import Box, Chamber, DriverGroup, Port, RadiatorSet
from firecrest.design.design import Design
from firecrest.design.differing import differing_paths
from firecrest.design.edits.paths import Path, replace_at, value_at
from firecrest.design.edits.voice import KINDS
from firecrest.design.fields import field_facts, label_of
from firecrest.design.sheet import Sheet
from firecrest.present.text.units import told, units

UNTOLD = ("name", "note", "brief")
"""Branches that variants share, or that are words about them."""
LONGEST = 40
LEAST, MOST = 1e-9, 1e9


@dataclass(frozen=True)
class Difference:
    """One row: what it is, where it is stored, what each variant has there, and what it weighs.

    ``effect`` is the change in dB of the worst promise when it alone is carried over.
    """

    label: str
    path: Path
    values: Mapping[str, str]
    effect: float = 0.0


def differences(designs: Mapping[str, Design], here: str) -> list[Difference]:
    """All rows in which any variant differs from that ``here``, in the order of the models."""
    base = designs[here]
    paths: dict[Path, None] = {}
    for letter, other in designs.items():
        if letter != here:
            paths |= dict.fromkeys(told_paths(base, other))
    return [
        Difference(_label(base, path), path, {k: _value(d, path) for k, d in designs.items()})
        for path in _outermost(list(paths))
    ]


def told_paths(base: Design, other: Design) -> Iterator[Path]:
    """Where two designs differ; a part that was exchanged is one row, not all its figures, and so
    is a box of other chambers: its elements refer to each other.
    """
    apart = [c.id for c in base.box.chambers] != [c.id for c in other.box.chambers]
    for path in differing_paths(base, other):
        if path[0] == "box" and apart:
            yield ("box",)
        elif path[0] not in UNTOLD:
            yield _as_part(base, other, path)


def _as_part(base: Design, other: Design, path: Path) -> Path:
    for end in range(1, len(path)):
        try:
            a, b = value_at(base, path[:end]), value_at(other, path[:end])
        except FirecrestError:
            return path
        if isinstance(a, Sheet) and isinstance(b, Sheet) and a.name != b.name:
            return path[:end]
    return path


def _outermost(paths: Sequence[Path]) -> list[Path]:
    """Paths that lie in none of the others."""
    return [p for p in paths if not any(q != p and p[: len(q)] == q for q in paths)]


def ranked(designs: Mapping[str, Design], here: str) -> Iterator[list[Difference]]:
    """The rows by their effect, most first; each is carried into the design here and assessed."""
    memo = Memo()
    base = designs[here]
    now = assess(base, memo).promises
    rows = []
    for row in differences(designs, here):
        effects = [0.0]
        for letter, other in designs.items():
            if letter != here:
                effects.append(_effect(base, other, row.path, now, memo))
        rows.append(Difference(row.label, row.path, row.values, max(effects)))
    yield sorted(rows, key=lambda r: -r.effect)


def _effect(base: Design, other: Design, path: Path, now: Sequence[Promise], memo: Memo) -> float:
    """DB by which one row alone changes the promises; what can't be carried over weighs most."""
    try:
        made = replace_at(base, path, value_at(other, path))
    except FirecrestError:
        return MOST
    if made == base:
        return 0.0
    then = assess(made, memo).promises
    worst = abs(_finite(worst_must(then)) - _finite(worst_must(now)))
    further = sum(
        abs(_finite(worth(b)) - _finite(worth(a))) for a, b in zip(now, then, strict=True)
    )
    return worst + 1e-3 * further + LEAST


def _finite(value: float) -> float:
    return value if isfinite(value) else 0.0


def _label(design: Design, path: Path) -> str:
    owner = value_at(design, path[:-1])
    step = path[-1]
    if isinstance(step, int):
        item = value_at(design, path)
        return (
            str(getattr(item, "kind", None) or type(item).__name__).replace("_", " ").capitalize()
        )
    label = label_of(type(owner), step)
    facts = field_facts(type(owner), step)
    if facts is not None and facts.symbol:
        label = f"{label} {facts.symbol}"
    name = getattr(owner, "name", "")
    whose = f", {name}" if name and isinstance(owner, Sheet | Chamber) else ""
    return f"{label[0].upper()}{label[1:]}{whose}"


def _value(design: Design, path: Path) -> str:
    """What stands there, as short as it can be said."""
    try:
        owner, value = value_at(design, path[:-1]), value_at(design, path)
    except FirecrestError:
        return "–"
    facts = field_facts(type(owner), path[-1]) if isinstance(path[-1], str) else None
    if facts is not None:
        if value is None:
            return facts.empty
        return facts.show(value, units.unit(facts.quantity, facts.unit))
    text = told_value(value)
    return text if len(text) <= LONGEST else f"{text[: LONGEST - 1]}…"


def told_value(value: Any) -> str:
    """Elements and lists of them in a few words."""
    if isinstance(value, tuple):
        return ", ".join(told_value(item) for item in value) or "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, Box):
        count = len(value.chambers)
        rooms = "one chamber" if count == 1 else f"{count} chambers"
        return f"{rooms}, {told_value(value.openings) if value.openings else 'sealed'}"
    if isinstance(value, RadiatorSet):
        return f"{value.count} × {value.radiator.name}"
    if isinstance(value, Port):
        many = "" if value.count == 1 else f"{value.count} × "
        size = value.diameter if value.shape == "round" else value.height
        return f"{many}port {told(size, 'length', 'mm', 0)}"
    if isinstance(value, DriverGroup):
        return f"{value.in_series * value.in_parallel} × {value.driver.name}"
    if hasattr(value, "kind") and value.kind in KINDS:
        corner = getattr(value, "frequency", None)
        at = "" if corner is None else f" {told(corner, 'frequency', 'Hz', 0)}"
        return f"{KINDS[value.kind].lower()}{at}"
    if is_dataclass(value):
        return str(getattr(value, "name", "") or type(value).__name__)
    return str(value).replace("_", " ") if value is not None else "–"
