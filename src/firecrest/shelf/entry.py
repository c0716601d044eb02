"""One part on the shelf, with what the shelf itself knows of it."""

import dataclasses
import uuid
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from firecrest.design.sheet import ShelfLink
from firecrest.shelf.kinds import KINDS, part_from, part_text


@dataclass(frozen=True)
class Entry:
    """A part as JSON text (``body``) and the columns it is found by.

    ``revision`` counts changes of the part itself; stock, notes and marks do not count. ``size``
    (m) is the size class, ``frame`` (m) the frame's diameter, ``impedance`` in ohm.
    """

    id: str
    kind: str
    name: str
    body: str
    revision: int
    words: str
    size: float | None
    frame: float | None
    impedance: float | None
    price: float
    mass: float
    favourite: bool = False
    stock: int = 0
    notes: str = ""
    archived: bool = False
    shipped: bool = False

    @cached_property
    def part(self) -> Any:
        """The part itself, tied to this revision of the shelf."""
        part = part_from(self.kind, self.body)
        return dataclasses.replace(part, shelf=ShelfLink(part=self.id, revision=self.revision))


COLUMNS = tuple(f.name for f in dataclasses.fields(Entry))


def new_id() -> str:
    """An id for a part of one's own."""
    return uuid.uuid4().hex[:16]


def made_entry(
    kind: str,
    part: Any,
    *,
    id: str = "",
    notes: str = "",
    stock: int = 0,
    favourite: bool = False,
    shipped: bool = False,
) -> Entry:
    """A new entry of ``part``."""
    blank = Entry(id or new_id(), kind, "", "", 1, "", None, None, None, 0.0, 0.0)
    blank = dataclasses.replace(
        blank, notes=notes, stock=stock, favourite=favourite, shipped=shipped
    )
    return with_part(blank, part)


def with_part(entry: Entry, part: Any) -> Entry:
    """The entry with other figures; the columns follow them."""
    return dataclasses.replace(
        entry,
        name=part.name,
        body=part_text(part),
        words=_words(entry, part),
        size=getattr(part, "size", None),
        frame=getattr(part, "frame", None),
        impedance=_impedance(part),
        price=float(part.price),
        mass=float(part.mass),
    )


def with_notes(entry: Entry, notes: str) -> Entry:
    """The entry with another note, found by its words too."""
    return dataclasses.replace(
        entry, notes=notes, words=_words(dataclasses.replace(entry, notes=notes), entry.part)
    )


def _words(entry: Entry, part: Any) -> str:
    """Everything the search reads, in small letters."""
    said = [
        part.name,
        KINDS[entry.kind].word,
        *(
            str(getattr(part, key))
            for key in ("kind", "form", "chemistry")
            if entry.kind != "supply" or key != "kind"
            if hasattr(part, key)
        ),
        *(["dual coil"] if getattr(part, "coils", 1) == 2 else []),
        entry.notes,
    ]
    return " ".join(said).lower()


def _impedance(part: Any) -> float | None:
    """Nominal impedance of a driver, least load of an amplifier."""
    if hasattr(part, "nominal"):
        return None if part.nominal is None else float(part.nominal)
    if hasattr(part, "claims"):
        return float(part.least_load or min(claim.load for claim in part.claims))
    return None
