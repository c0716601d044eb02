"""One part on the shelf, with what the shelf itself knows of it."""

import dataclasses
import json
import uuid
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from firecrest.core.errors import ShelfError
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
        # The link is written into the text, so that the part is made and checked once: a shelf of
        # thousands is read whole.
        text = self.body.rstrip()
        if not text.endswith("}"):
            raise ShelfError("This is no part: its text does not end.")
        link = json.dumps({"part": self.id, "revision": self.revision})
        return part_from(self.kind, f'{text[:-1]}, "shelf": {link}}}')


LONGEST_ID = 64
LONGEST_NOTE = 4000
MOST_REVISIONS = 10**9
COLUMNS = tuple(f.name for f in dataclasses.fields(Entry))


def new_id() -> str:
    """An id for a part of one's own."""
    return uuid.uuid4().hex[:16]


def fit_id(id: str) -> str:
    """An id that a design can hold too; ShelfError when it cannot."""
    if not 0 < len(id) <= LONGEST_ID or not id.isprintable() or not id.isascii():
        raise ShelfError(f"an id has 1 to {LONGEST_ID} plain letters, this one is “{id:.24}…”")
    return id


def fit_notes(notes: str) -> str:
    """A note that can be kept; ShelfError when it is too long or holds what is no letter."""
    if len(notes) > LONGEST_NOTE:
        raise ShelfError(f"A note can have up to {LONGEST_NOTE} letters.")
    if any(0xD800 <= ord(letter) < 0xE000 or letter == "\0" for letter in notes):
        raise ShelfError("A note can hold letters only; this one has half a letter in it.")
    return notes


def checked(entry: Entry) -> Entry:
    """The entry, when its id, kind and part can be what they say; ShelfError when not."""
    fit_id(entry.id)
    if entry.kind not in KINDS:
        raise ShelfError(f"there is no kind of part called {entry.kind:.40}")
    if entry.part.name != entry.name or not 1 <= entry.revision < MOST_REVISIONS:
        raise ShelfError("its name or revision is not that of its part")
    return entry


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
    """A new entry of ``part``; ShelfError when an ``id`` or a note of a file cannot be ours."""
    fit_notes(notes)
    blank = Entry(fit_id(id) if id else new_id(), kind, "", "", 1, "", None, None, None, 0.0, 0.0)
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
    """The entry with another note, found by its words too; ShelfError as ``fit_notes``."""
    fit_notes(notes)
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
