"""Ids of elements: how one is found by its id, and how a new one gets its own."""

import re
from collections.abc import Iterable, Sequence
from typing import Protocol, TypeVar

LONGEST = 24


class HasId(Protocol):
    """Anything with an id."""

    @property
    def id(self) -> str:
        """What others refer to it by."""


Element = TypeVar("Element", bound=HasId)


def place_of(items: Sequence[HasId], id: str) -> int:
    """Place in ``items`` of the one with ``id``; ValueError when there is none."""
    return [item.id for item in items].index(id)


def found(items: Sequence[Element], id: str) -> Element:
    """The one with ``id``; ValueError when there is none."""
    return items[place_of(items, id)]


def fresh(taken: Iterable[str], wanted: str) -> str:
    """An id like ``wanted``, which may be any text, that is not among ``taken``."""
    stem = re.sub(r"[^a-z0-9]+", "-", wanted.lower())[:LONGEST].strip("-") or "part"
    used = set(taken)
    made, number = stem, 2
    while made in used:
        made, number = f"{stem}-{number}", number + 1
    return made
