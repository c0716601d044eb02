"""Parts that a move may take: those of the shelf that are likest what a design has now."""

from collections.abc import Sequence
from functools import lru_cache
from math import log
from pathlib import Path
from typing import Any

from firecrest.core.errors import FirecrestError
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.shelf.entry import Entry
from firecrest.shelf.store import Shelf

MOST = 60
"""Parts of a kind that are tried; of more the likest in size, then in price."""


def parts_at_hand(path: Path | None, design: Design) -> dict[str, list[Any]]:
    """Parts by kind; none while the shelf can't be read."""
    if path is None:
        return {}
    wanted = _sizes(design)
    found: dict[str, list[Any]] = {}
    for kind, entries in _entries(path).items():
        for entry in _likest(entries, wanted.get(kind)):
            try:
                found.setdefault(kind, []).append(entry.part)
            except FirecrestError:
                continue
    return found


def _entries(path: Path) -> dict[str, list[Entry]]:
    by_kind: dict[str, list[Entry]] = {}
    try:
        for entry in _shelf(path).entries().values():
            if not entry.archived:
                by_kind.setdefault(entry.kind, []).append(entry)
    except FirecrestError:
        return {}
    return by_kind


@lru_cache(maxsize=2)
def _shelf(path: Path) -> Shelf:
    """The shelf, kept open: its entries are read again when somebody has written."""
    return Shelf(path)


def _sizes(design: Design) -> dict[str, float | None]:
    """Size class of what is there now, by kind."""
    radiators = [item.radiator.size for _, item in placed(design.box.openings, RadiatorSet)]
    return {"driver": design.box.groups[0].driver.size, "radiator": next(iter(radiators), None)}


def _likest(entries: Sequence[Entry], size: float | None) -> list[Entry]:
    def _apart(entry: Entry) -> tuple[float, float]:
        known = size is not None and entry.size is not None and entry.size > 0
        return (abs(log(entry.size / size)) if known else 0.0, entry.price)  # type: ignore[operator]

    return sorted(entries, key=_apart)[:MOST] if len(entries) > MOST else list(entries)
