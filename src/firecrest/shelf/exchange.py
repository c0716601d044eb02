"""Parts as JSON, and what taking a file onto the shelf would do."""

import dataclasses
import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import repeat
from math import isclose
from typing import Any

from firecrest.core.errors import ShelfError
from firecrest.shelf.entry import Entry, made_entry, with_notes, with_part
from firecrest.shelf.kinds import KINDS, made_part, part_body
from firecrest.shelf.store import Shelf
from firecrest.shelf.table import Problem, Table, decoded, read_table

MARK = "firecrest_parts"
VERSION = 1
LARGEST = 32 * 2**20


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
    try:
        body = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise ShelfError(f"This is not readable JSON: {error}.") from error
    if not isinstance(body, dict) or not isinstance(body.get("parts"), list):
        raise ShelfError(f'This holds no parts: it has no list called "parts" beside "{MARK}".')
    if body.get(MARK, VERSION) != VERSION:
        raise ShelfError(f"These parts have version {body[MARK]}; this program reads {VERSION}.")
    entries, problems = [], []
    for number, row in enumerate(body["parts"], 1):
        try:
            kind = str(row["kind"])
            if kind not in KINDS:
                raise ShelfError(f"there is no kind called {kind}")
            have = int(row.get("have", 0))
            entry = made_entry(
                kind,
                made_part(kind, dict(row["part"])),
                id=str(row.get("id", ""))[:64],
                notes=str(row.get("notes", "")),
                stock=max(have, 0),
                favourite=bool(row.get("favourite", False)),
            )
        except (ShelfError, KeyError, TypeError, ValueError) as error:
            problems.append(Problem(number, "", f"part {number}", f"{error}; left out"))
            continue
        entries.append(entry)
    return Table(tuple(entries), tuple(problems))


def read_file(data: bytes, name: str, kind: str = "driver") -> Table:
    """Parts in a file; ShelfError when nothing of it can be read."""
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
            new[entry.id] = dataclasses.replace(entry, shipped=False)
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
    entries = (*taking.new, *taking.changed)
    if entries:
        shelf.write_all(f"Take {len(entries)} parts", entries)
