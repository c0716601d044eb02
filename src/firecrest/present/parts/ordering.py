"""In which order rows of the shelf stand."""

from collections.abc import Sequence
from math import inf
from operator import itemgetter
from typing import Any

from firecrest.present.parts.shelf import Column, Row, followed_by
from firecrest.proposals.placing import half_voltage
from firecrest.search.choose import rank
from firecrest.shelf.entry import Entry


def sort_key(row: Row, column: Column) -> tuple[Any, ...]:
    """What a column is sorted by; parts without a value come last."""
    entry, outcome = row.entry, row.outcome
    if column.key == "have":
        return (0, -entry.stock)
    if column.figure:
        return _figure_key(entry, column.figure)
    if outcome is None:
        return (2, 0)
    if column.key in ("fit", "promises"):
        order = {True: 0, None: 1, False: 2}[outcome.fit.fits]
        return (0, order, *rank(outcome)) if column.key == "fit" else (0, *rank(outcome))
    f = outcome.figures
    value = {
        "ceiling": None if f.loudness is None else -f.loudness,
        "loudness": None if f.loudness is None else -f.loudness,
        "bass": f.bass_reach,
        "hours": None if f.hours is None else -f.hours,
        "kg": f.mass if outcome.design else None,
        "cost": f.price if outcome.design else None,
    }[column.key]
    return (1, inf) if value is None else (0, value)


def _figure_key(entry: Entry, name: str) -> tuple[Any, ...]:
    part = entry.part
    if name == "claim":
        return (0, -max(claim.power for claim in part.claims))
    if name == "voltage" and entry.kind == "cell":
        return (0, half_voltage(part))
    value = getattr(part, name, None)
    if value is None:
        value = followed_by(part).get(name)
    if value is None:
        return (1, 0)
    return (0, value if isinstance(value, float | int) else str(value))


def ordered(found: Sequence[Row], column: Column | None, *, backwards: bool = False) -> list[Row]:
    """Rows by a column, or (None) fewest short, fewest missed wishes, then price."""
    if column is None:
        return sorted(found, key=_by_rank)
    if column.key == "part":
        return sorted(found, key=lambda row: row.entry.name.lower(), reverse=backwards)
    keyed = [(sort_key(row, column), row) for row in found]
    known = [pair for pair in keyed if pair[0][0] == 0]
    others = [pair for pair in keyed if pair[0][0] != 0]
    known.sort(key=itemgetter(0), reverse=backwards)
    others.sort(key=itemgetter(0))
    return [row for _, row in (*known, *others)]


def _by_rank(row: Row) -> tuple[Any, ...]:
    if row.outcome is None:
        return (1, row.entry.price, row.entry.name)
    return (0, *rank(row.outcome), row.entry.name)
