"""What follows from stated figures, where they contradict each other, and which one is to blame.

Works on any set of relations between positive figures; drivers and radiators each have their own.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import isfinite
from typing import Any

import numpy as np

TOLERANCE = 0.02
"""Figures that agree within this share are not called a contradiction (rounding on sheets)."""
ROUNDING = 0.005
"""Share by which three printed digits may round a figure."""
STEP = 1e-6


def apart(a: float, b: float) -> float:
    """Difference of two positive values as a share of the larger."""
    return 1.0 - min(a, b) / max(a, b)


@dataclass(frozen=True)
class Relation:
    """One way to compute ``gives`` from ``needs``; ``text`` is the formula as shown."""

    gives: str
    needs: tuple[str, ...]
    formula: Callable[..., Any]
    text: str


@dataclass(frozen=True)
class Contradiction:
    """A stated figure that disagrees with the figures ranked before it."""

    figure: str
    stated: float
    derived: float
    needs: tuple[str, ...]

    @property
    def apart(self) -> float:
        """Difference as a share of the larger value: the same whichever one trusts."""
        return apart(self.stated, self.derived)


@dataclass(frozen=True)
class Derivation:
    """Every known figure, the relation behind each derived one, contradictions, and gaps."""

    figures: Mapping[str, float]
    derived: Mapping[str, Relation]
    contradictions: tuple[Contradiction, ...]
    missing: tuple[str, ...]


def _closure(
    known: dict[str, float], used: dict[str, Relation], relations: Sequence[Relation]
) -> None:
    """Apply the relations until nothing new follows; adds to both arguments."""
    progress = True
    while progress:
        progress = False
        for relation in relations:
            if relation.gives in known or not all(n in known for n in relation.needs):
                continue
            value = _value(relation, known)
            if value is not None:
                known[relation.gives] = value
                used[relation.gives] = relation
                progress = True


def _slack(
    key: str, known: Mapping[str, float], used: Mapping[str, Relation], depth: int = 0
) -> float:
    """By how much rounding of stated figures alone may move one that follows from them.

    First order: the shares of what it needs, times how strongly it goes with each. Qms from Qts and
    Qes, for one, is the difference of two near figures: a per mille there is a per cent here.
    """
    relation = used.get(key)
    if relation is None or depth > len(known):
        return ROUNDING
    values = [known[n] for n in relation.needs]
    here = relation.formula(*values)
    total = 0.0
    for k, need in enumerate(relation.needs):
        moved = [v * (1 + STEP) if j == k else v for j, v in enumerate(values)]
        total += (
            abs(relation.formula(*moved) / here - 1) / STEP * _slack(need, known, used, depth + 1)
        )
    return total


def follow(
    stated: Mapping[str, float | None],
    relations: Sequence[Relation],
    rank: Sequence[str],
    needed: Sequence[str],
) -> Derivation:
    """Derive what is not stated and report where the statement contradicts itself.

    Figures (SI or None) are taken in order of ``rank``; one that already follows from those
    before it is checked against them, never averaged. ``needed`` names what must be known.
    Columns (designs, 1) of figures follow by the relations that hold for the first design.
    """
    if any(isinstance(value, np.ndarray) for value in stated.values()):
        return _columns(stated, relations, rank, needed)
    known: dict[str, float] = {}
    used: dict[str, Relation] = {}
    contradictions = []
    for key in rank:
        value = stated.get(key)
        if value is None:
            continue
        if key not in known:
            known[key] = value
        elif (far := apart(value, known[key])) > TOLERANCE and far > _slack(key, known, used):
            contradictions.append(Contradiction(key, value, known[key], used[key].needs))
        _closure(known, used, relations)
    contradictions += _late(stated, known, used, relations, contradictions)
    missing = tuple(key for key in needed if key not in known)
    return Derivation(known, used, tuple(contradictions), missing)


def _columns(
    stated: Mapping[str, float | None],
    relations: Sequence[Relation],
    rank: Sequence[str],
    needed: Sequence[str],
) -> Derivation:
    first = {key: None if v is None else float(np.ravel(v)[0]) for key, v in stated.items()}
    found = follow(first, relations, rank, needed)
    known: dict[str, Any] = {}
    with np.errstate(all="ignore"):
        for key in found.figures:
            relation = found.derived.get(key)
            if relation is None:
                known[key] = stated[key]
            else:
                known[key] = relation.formula(*(known[n] for n in relation.needs))
    return Derivation(known, found.derived, (), found.missing)


def _late(
    stated: Mapping[str, float | None],
    known: Mapping[str, float],
    used: Mapping[str, Relation],
    relations: Sequence[Relation],
    found: Sequence[Contradiction],
) -> list[Contradiction]:
    """Stated figures that were taken before what contradicts them could follow."""
    told = {c.figure for c in found}
    late: dict[str, Contradiction] = {}
    for relation in relations:
        key, value = relation.gives, stated.get(relation.gives)
        if value is None or key in told or not all(n in known for n in relation.needs):
            continue
        given = _value(relation, known)
        if given is None or key in late or apart(value, given) <= TOLERANCE:
            continue
        if apart(value, given) > _slack(key, known, {**used, key: relation}):
            late[key] = Contradiction(key, value, given, relation.needs)
    return list(late.values())


def _value(relation: Relation, known: Mapping[str, float]) -> float | None:
    """What a relation gives; None where it gives nothing that can be."""
    try:
        value = relation.formula(*(known[n] for n in relation.needs))
    except (ValueError, ZeroDivisionError):
        return None
    if isinstance(value, float) and value > 0 and isfinite(value):
        return value
    return None


def suspects(
    stated: Mapping[str, float | None],
    relations: Sequence[Relation],
    rank: Sequence[str],
    needed: Sequence[str],
) -> tuple[str, ...]:
    """Figures any one of which, left out, leaves the rest in agreement.

    One is the likely culprit; several cannot be told apart by this sheet; none of a
    contradicting sheet means that more than one figure is wrong. Empty when nothing disagrees.
    """
    if not follow(stated, relations, rank, needed).contradictions:
        return ()
    given = [key for key in rank if stated.get(key) is not None]
    return tuple(
        key
        for key in given
        if not follow({**stated, key: None}, relations, rank, needed).contradictions
    )
