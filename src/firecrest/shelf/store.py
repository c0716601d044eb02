"""The shelf itself: every change one transaction, one undo step, and safe beside other windows."""

import dataclasses
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from firecrest.core.errors import FirecrestError, ShelfBusyError, ShelfError
from firecrest.design.edits.paths import rebuilt
from firecrest.folders import data_folder
from firecrest.shelf.entry import COLUMNS, Entry, checked, made_entry, new_id, with_notes, with_part
from firecrest.shelf.kinds import KINDS, part_text
from firecrest.shelf.schema import NAME, PATIENCE_MS, connect, told
from firecrest.shelf.stock import STOCK, shipped_entries

YES_NO = ("favourite", "archived", "shipped")
MOST_STOCK = 100_000
MOST_STEPS = 200
_INSERT = (
    f"INSERT OR REPLACE INTO part ({', '.join(COLUMNS)}) VALUES ({', '.join('?' * len(COLUMNS))})"
)
_UPDATE = f"UPDATE part SET {', '.join(f'{c} = ?' for c in COLUMNS)} WHERE id = ?"


@dataclass(frozen=True)
class Change:
    """One undo step: entries by id as they were and as they became (None: not there)."""

    label: str
    before: Mapping[str, Entry | None]
    after: Mapping[str, Entry | None]


def shelf_path() -> Path:
    """Where the shelf is kept."""
    return data_folder() / NAME


class Shelf:
    """Parts on disk; entries are read once and again whenever somebody has written."""

    def __init__(self, path: Path | None = None) -> None:
        self.path = path or shelf_path()
        self._db = connect(self.path)
        self._version = -1
        self._entries: dict[str, Entry] = {}
        self.skipped: dict[str, str] = {}
        self.past: list[Change] = []
        self.future: list[Change] = []
        try:
            self._stock_up()
        except FirecrestError:
            self._db.close()
            raise

    def close(self) -> None:
        """Let go of the database."""
        self._db.close()

    @contextmanager
    def at_once(self) -> Iterator[None]:
        """Without any patience: what meets another writer fails at once."""
        self._db.execute("PRAGMA busy_timeout = 0")
        try:
            yield
        finally:
            self._db.execute(f"PRAGMA busy_timeout = {PATIENCE_MS}")

    # reading -----------------------------------------------------------------

    def changed_elsewhere(self) -> bool:
        """Whether another window has written since the entries were read."""
        return self._data_version() != self._version

    def _data_version(self) -> int:
        with told("read"):
            return int(self._db.execute("PRAGMA data_version").fetchone()[0])

    def entries(self) -> Mapping[str, Entry]:
        """All entries by id, archived ones too, in order of kind and name.

        Rows that are no part (damaged, or of a newer program) are left alone: see ``skipped``.
        """
        if self._version < 0 or self.changed_elsewhere():
            self._read()
        return self._entries

    def _read(self) -> None:
        version = self._data_version()
        with told("read"):
            rows = self._db.execute(
                f"SELECT {', '.join(COLUMNS)} FROM part ORDER BY kind, name COLLATE NOCASE, id"
            ).fetchall()
        known, skipped = self._entries, {}
        found: dict[str, Entry] = {}
        for row in rows:
            id = str(row[0])
            try:
                entry = _entry(row)
                found[id] = known[id] if known.get(id) == entry else checked(entry)
            except (FirecrestError, TypeError, ValueError) as error:
                skipped[id] = f"{row[2]!s:.80}: {error}"
        self._version, self._entries, self.skipped = version, found, skipped

    def entry(self, id: str) -> Entry:
        """One entry; ShelfError when it is gone."""
        try:
            return self.entries()[id]
        except KeyError:
            raise ShelfError("This part is no longer on the shelf.") from None

    # changing -----------------------------------------------------------------

    def add(self, kind: str, part: Any, notes: str = "", stock: int = 0) -> Entry:
        """A new part."""
        return self.add_all([made_entry(kind, part, notes=notes, stock=stock)])[0]

    def add_all(self, entries: Sequence[Entry], label: str = "") -> list[Entry]:
        """New parts, all or none."""
        name = label or f"Add {entries[0].name}"
        self._write(name, {e.id: e for e in entries}, {e.id: None for e in entries})
        return [self._entries[e.id] for e in entries]

    def write_all(self, label: str, entries: Sequence[Entry]) -> None:
        """New and changed parts as one step."""
        present = self.entries()
        self._write(label, {e.id: e for e in entries}, {e.id: present.get(e.id) for e in entries})

    def keep_part(self, entry: Entry, part: Any) -> Entry:
        """The part of ``entry`` with other figures; ShelfError when it was changed meanwhile."""
        if part_text(part) == entry.body:
            return entry
        changed = dataclasses.replace(with_part(entry, part), revision=entry.revision + 1)
        self._write(f"Change {part.name}", {entry.id: changed}, {entry.id: entry})
        return self._entries[entry.id]

    def mark(
        self,
        id: str,
        *,
        favourite: bool | None = None,
        stock: int | None = None,
        notes: str | None = None,
        archived: bool | None = None,
    ) -> Entry:
        """Favourite, pieces you have, notes, archived; ShelfError with the accepted range."""
        entry = self.entry(id)
        if stock is not None and not 0 <= stock <= MOST_STOCK:
            raise ShelfError(f"Pieces you have can be 0 to {MOST_STOCK}.")
        changed = entry if notes is None else with_notes(entry, notes)
        given = {"favourite": favourite, "stock": stock, "archived": archived}
        changed = dataclasses.replace(
            changed,
            **{k: v for k, v in given.items() if v is not None},  # type: ignore[arg-type]
        )
        if changed != entry:
            self._write(f"Mark {entry.name}", {id: changed}, {id: entry})
        return self._entries[id]

    def duplicate(self, id: str) -> Entry:
        """A copy under another name, yours."""
        entry = self.entry(id)
        part = rebuilt(entry.part, name=f"{entry.name} copy"[:80], shelf=None)
        copy = made_entry(entry.kind, part, id=new_id(), notes=entry.notes)
        return self.add_all([copy], f"Duplicate {entry.name}")[0]

    def undo(self) -> str:
        """Take back this window's last change of the shelf; its label."""
        if not self.past:
            return ""
        change = self.past[-1]
        self._swap(change.after, change.before)
        self.future.append(self.past.pop())
        return change.label

    def redo(self) -> str:
        """Make again what was taken back; its label."""
        if not self.future:
            return ""
        change = self.future[-1]
        self._swap(change.before, change.after)
        self.past.append(self.future.pop())
        return change.label

    def _swap(self, now: Mapping[str, Entry | None], then: Mapping[str, Entry | None]) -> None:
        """Write ``then`` where ``now`` stands; a changed part gets a new revision again."""
        present = self.entries()
        wanted: dict[str, Entry | None] = {}
        for id, entry in then.items():
            here = present.get(id)
            if (here is None) != (now[id] is None) or (
                here is not None and here.body != getattr(now[id], "body", None)
            ):
                raise ShelfError("This part was changed in another window since: nothing undone.")
            if entry is not None and here is not None and entry.body != here.body:
                entry = dataclasses.replace(entry, revision=here.revision + 1)
            wanted[id] = entry
        self._commit(wanted, {id: present.get(id) for id in then})

    def _write(
        self, label: str, after: Mapping[str, Entry | None], before: Mapping[str, Entry | None]
    ) -> None:
        self._commit(after, before)
        self.past = [*self.past[-MOST_STEPS + 1 :], Change(label, before, after)]
        self.future.clear()

    def _commit(
        self, after: Mapping[str, Entry | None], before: Mapping[str, Entry | None]
    ) -> None:
        """One transaction; refused when a part is not as ``before`` any more."""
        with told("written"), self._transaction():
            for id, entry in after.items():
                self._expect(id, before[id])
                if entry is None:
                    self._db.execute("DELETE FROM part WHERE id = ?", (id,))
                elif before[id] is None:
                    self._db.execute(_INSERT, _row(entry))
                else:
                    self._db.execute(_UPDATE, (*_row(entry), id))
        try:
            self._read()
        except ShelfBusyError:
            # It is written; it is only read back a little later.
            self._version = -1
            there = {**self._entries, **after}
            self._entries = {id: entry for id, entry in there.items() if entry is not None}

    def _expect(self, id: str, entry: Entry | None) -> None:
        found = self._db.execute("SELECT revision, kind FROM part WHERE id = ?", (id,)).fetchone()
        if found != (entry and (entry.revision, entry.kind)):
            name = entry.name if entry else id
            raise ShelfError(f"{name} was changed in another window: look at it again first.")

    @contextmanager
    def _transaction(self) -> Iterator[None]:
        self._db.execute("BEGIN IMMEDIATE")
        try:
            yield
        except BaseException:
            self._db.execute("ROLLBACK")
            raise
        self._db.execute("COMMIT")

    def _stock_up(self) -> None:
        """Put the shipped parts on a new shelf, and those that came with a newer program."""
        with told("written"), self._transaction():
            row = self._db.execute("SELECT value FROM fact WHERE name = 'stock'").fetchone()
            if row is not None and row[0] >= STOCK:
                return
            there = {r[0] for r in self._db.execute("SELECT id FROM part")}
            fresh = [_row(e) for e in shipped_entries() if e.id not in there]
            self._db.executemany(_INSERT, fresh)
            self._db.execute("INSERT OR REPLACE INTO fact VALUES ('stock', ?)", (STOCK,))

    # use -------------------------------------------------------------

    def note_use(self, project: str, parts: Sequence[str]) -> None:
        """Remember that ``project`` holds these parts, and no others any more."""
        now = datetime.now(UTC).date().isoformat()
        known = [id for id in dict.fromkeys(parts) if id in self.entries()]
        with told("written"), self._transaction():
            self._db.execute("DELETE FROM used WHERE project = ?", (project,))
            self._db.executemany(
                "INSERT INTO used VALUES (?, ?, ?)", [(id, project, now) for id in known]
            )

    def used_in(self, id: str) -> list[tuple[str, str]]:
        """(project, day last saved) of the designs that hold a part."""
        with told("read"):
            return self._db.execute(
                "SELECT project, seen FROM used WHERE part = ? ORDER BY seen DESC, project", (id,)
            ).fetchall()


def _row(entry: Entry) -> tuple[Any, ...]:
    return tuple(
        int(value) if name in YES_NO else value
        for name, value in ((c, getattr(entry, c)) for c in COLUMNS)
    )


def _entry(row: Sequence[Any]) -> Entry:
    values: dict[str, Any] = dict(zip(COLUMNS, row, strict=True))
    return Entry(**{**values, **{name: bool(values[name]) for name in YES_NO}})


def counts(entries: Sequence[Entry]) -> dict[str, int]:
    """Parts by kind."""
    found = Counter(e.kind for e in entries)
    return {key: found[key] for key in KINDS}
