"""The made-up parts that ship with the shelf, one JSON file per kind."""

import json
from functools import cache
from importlib import resources

from firecrest.shelf.entry import Entry, made_entry
from firecrest.shelf.kinds import made_part

STOCK = 1
"""Raised when parts are added to the files: an older shelf then gets those it lacks."""


@cache
def shipped_entries() -> tuple[Entry, ...]:
    """All shipped parts."""
    files = sorted(
        (f for f in resources.files("firecrest.shelf.stock").iterdir() if f.name.endswith(".json")),
        key=lambda f: f.name,
    )
    rows = [row for file in files for row in json.loads(file.read_text(encoding="utf-8"))]
    return tuple(
        made_entry(
            row["kind"],
            made_part(row["kind"], row["part"]),
            id=row["id"],
            notes=row.get("notes", ""),
            stock=row.get("stock", 0),
            favourite=row.get("favourite", False),
            shipped=True,
        )
        for row in rows
    )
