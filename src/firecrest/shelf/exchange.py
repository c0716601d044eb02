"""Parts as JSON, and what taking a file onto the shelf would do."""

import dataclasses
import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import repeat
from math import isclose
from typing import Any

from firecrest.core.errors import ShelfError, guarded
from firecrest.design.text import parsed
from firecrest.shelf.entry import Entry, made_entry, new_id, with_notes, with_part
from firecrest.shelf.kinds import KINDS, made_part, part_body
from firecrest.shelf.store import MOST_STOCK, Shelf
from firecrest.shelf.table import MOST_ROWS, Problem, Table, decoded, read_table

MARK = "firecrest_parts"
VERSION = 1
LARGEST = 16 * 2**20
MOST_VALUES = 1_000_000


def write_parts(entries: Sequence[Entry]) -> str:
    """JSON of parts, SI, keys as in docs/format.md."""
    parts = [
        {
            "id": e.id,
            "kind": e.kind,
            "have": e.stock,
            "favourite": e.favourite,
            "notes": e.notes,
            "part": part_body(e.part),
        }
        for e in entries
    ]
    return json.dumps({MARK: VERSION, "parts": parts}, indent=1, ensure_ascii=False) + "\n"


def read_parts(text: str) -> Table:
    """Parts in a JSON text; rows that do not fit are reported and left out."""
    body = parsed(text, "These are no parts", kind=ShelfError, most=MOST_VALUES)
    if not isinstance(body, dict) or not isinstance(body.get("parts"), list):
        raise ShelfError(f'This holds no parts: it has no list called "parts" beside "{MARK}".')
    if body.get(MARK, VERSION) != VERSION:
        told = f"{body[MARK]!s:.12}"
        raise ShelfError(f"These parts have version {told}; this program reads {VERSION}.")
    if len(body["parts"]) > MOST_ROWS:
        count = len(body["parts"])
        raise ShelfError(f"The file has {count} parts; up to {MOST_ROWS} are read at once.")
    entries, problems = [], []
    for number, row in enumerate(body["parts"], 1):
        try:
            with guarded("this part", ShelfError):
                entries.append(_part_of(row))
        except ShelfError as error:
            problems.append(Problem(number, "", f"part {number}", f"{error!s:.300}; left out"))
    return Table(tuple(entries), tuple(problems))


def _part_of(row: Any) -> Entry:
    """One part of a file; ShelfError says what does not fit."""
    if not isinstance(row, dict) or not isinstance(row.get("part"), dict):
        raise ShelfError('it is no object with a "kind" and a "part"')
    kind, have = row.get("kind"), row.get("have", 0)
    if not isinstance(kind, str) or kind not in KINDS:
        raise ShelfError(f"there is no kind called {kind!s:.40}")
    if type(have) is not int or not 0 <= have <= MOST_STOCK:
        raise ShelfError(f"pieces you have can be 0 to {MOST_STOCK}")
    return made_entry(
        kind,
        made_part(kind, row["part"]),
        id=str(row.get("id", "")),
        notes=str(row.get("notes", "")),
        stock=have,
        favourite=row.get("favourite") is True,
    )


def read_file(data: bytes, name: str, kind: str = "driver") -> Table:
    """Parts in a file; ShelfError when nothing of it can be read."""
    with guarded(name, ShelfError):
        if len(data) > LARGEST:
            raise ShelfError(f"{name} is larger than {LARGEST // 2**20} MB: not a list of parts.")
        text = decoded(data)
        return read_parts(text) if text.lstrip()[:1] in ("{", "[") else read_table(text, kind)


@dataclass(frozen=True)
class Taking:
    """What taking a table does: parts that are new, changed (as they would become), or the same."""

    new: tuple[Entry, ...]
    changed: tuple[Entry, ...]
    same: tuple[Entry, ...]


def planned(table: Table, present: Mapping[str, Entry]) -> Taking:
    """Compare a table with the shelf: by id, else by kind and name."""
    by_name = {(e.kind, e.name.casefold()): e for e in present.values()}
    new: dict[str, Entry] = {}
    changed: dict[str, Entry] = {}
    same = []
    for entry, stated in zip(table.entries, table.stated or repeat({}), strict=False):
        here = present.get(entry.id) or by_name.get((entry.kind, entry.name.casefold()))
        if here is None or here.kind != entry.kind:
            # An id that a part of another kind has, here or in the file, would take its place.
            taken = here is not None or new.get(entry.id, entry).kind != entry.kind
            id = new_id() if taken else entry.id
            new[id] = dataclasses.replace(entry, id=id, shipped=False)
            continue
        part = _merged(here, stated) if stated else entry.part
        merged = with_notes(with_part(here, part), entry.notes or here.notes)
        merged = dataclasses.replace(
            merged, stock=entry.stock or here.stock, favourite=entry.favourite or here.favourite
        )
        if merged == here:
            same.append(here)
        else:
            grown = here.revision + (merged.body != here.body)
            changed[here.id] = dataclasses.replace(merged, revision=grown)
    return Taking(tuple(new.values()), tuple(changed.values()), tuple(same))


def _merged(here: Entry, stated: Mapping[str, Any]) -> Any:
    """The shelf's part with the figures that a row gives; equal ones keep their origin."""
    body = part_body(here.part)
    before = body.get("origins", {})
    differing = {k: v for k, v in stated.items() if k != "origins" and not _equal(v, body.get(k))}
    kept = {
        key: origin if key in differing else before.get(key, origin)
        for key, origin in stated.get("origins", {}).items()
    }
    return made_part(here.kind, {**body, **differing, "origins": {**before, **kept}})


def _equal(a: Any, b: Any) -> bool:
    """Whether two figures are the same but for rounding in a text."""
    both = isinstance(a, float | int) and isinstance(b, float | int)
    return isclose(a, b, rel_tol=1e-7) if both else a == b


def take(shelf: Shelf, taking: Taking) -> None:
    """Put parts on the shelf: one transaction and one undo step, all or none."""
    fresh = [
        dataclasses.replace(e, id=new_id()) if e.id in shelf.skipped else e for e in taking.new
    ]
    entries = (*fresh, *taking.changed)
    if entries:
        shelf.write_all(f"Take {len(entries)} parts", entries)
