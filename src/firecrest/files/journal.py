"""Autosave: unsaved work of each running window, restored after a crash.

One private folder per window: ``work.json`` (the design, and which attachments belong to it),
``attachments/`` (each written once, by content) and ``lock``, held as long as the window lives. A
folder whose lock nobody holds is left-over work; the number of a process plays no part in it.
"""

import contextlib
import dataclasses
import fcntl
import hashlib
import json
import os
import shutil
import uuid
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import BinaryIO

from firecrest.core.errors import FileError, FirecrestError, guarded
from firecrest.design.text import parsed
from firecrest.files.atomic import clean_litter, replace_file
from firecrest.files.bounded import read_bytes
from firecrest.files.container import (
    LARGEST_MEMBER,
    Document,
    FileStamp,
    document_of,
    members_of,
    read_document,
)
from firecrest.folders import PRIVATE_FILE, make_private, state_folder, touch_private

WORK, LOCK, ATTACHMENTS = "work.json", "lock", "attachments"
LARGEST_WORK = 16 * 2**20
PIECE = 2**20
"""Bytes of an attachment that are written between two looks at the window."""


@dataclass(frozen=True)
class LeftOver:
    """Unsaved work of a window that ended without closing; its folder is held meanwhile."""

    journal: "Journal"
    original: Path | None
    document: Document
    stamp: FileStamp | None


class Journal:
    """The unsaved work of one window."""

    def __init__(self, folder: Path | None = None, name: str = "") -> None:
        self._folder = (folder or state_folder()) / (name or uuid.uuid4().hex[:12])
        self._lock: BinaryIO | None = None
        self._stored: dict[str, tuple[bytes, str]] = {}

    def keep(
        self, document: Document, original: Path | None, stamp: FileStamp | None = None
    ) -> bool:
        """Write the present state; whether every attachment is there too (else see ``store``).

        ``stamp`` is how the original was when it was last seen.
        FileError or OSError when the disk refuses; what was kept before is untouched.
        """
        self._take_hold()
        body, members = members_of(document)
        digests = {
            name: self._stored[name][1] for name, data in members.items() if self._has(name, data)
        }
        facts = {
            "original": os.fspath(original) if original else None,
            "stamp": dataclasses.astuple(stamp) if stamp else None,
            "attachments": {name: digests.get(name, "") for name in members},
            "design": body,
        }
        text = json.dumps(facts).encode()
        replace_file(self._folder / WORK, lambda stream: stream.write(text), mode=PRIVATE_FILE)
        return len(digests) == len(members)

    def _has(self, name: str, data: bytes) -> bool:
        """Whether a member is there as it is now."""
        return name in self._stored and self._stored[name][0] == data

    def store(self, document: Document) -> Iterator[None]:
        """Write attachments and curves not there yet, a piece at a step; OSError as ``keep``."""
        self._take_hold()
        make_private(self._folder / ATTACHMENTS)
        for name, data in members_of(document)[1].items():
            if self._has(name, data):
                continue
            digest = hashlib.sha256()
            for start in range(0, len(data), PIECE):
                digest.update(data[start : start + PIECE])
                yield
            yield from self._store_one(digest.hexdigest(), data)
            self._stored[name] = (data, digest.hexdigest())

    def _store_one(self, digest: str, data: bytes) -> Iterator[None]:
        path = self._folder / ATTACHMENTS / digest
        if path.exists():
            return
        part = path.with_suffix(".part")
        touch_private(part)
        with part.open("wb") as stream:
            for start in range(0, len(data), PIECE):
                stream.write(data[start : start + PIECE])
                stream.flush()
                os.fdatasync(stream.fileno())
                yield
        os.replace(part, path)

    def drop(self) -> None:
        """The work is saved or given up."""
        if self._lock is not None:
            shutil.rmtree(self._folder, ignore_errors=True)
            self._lock.close()
            self._lock = None
        self._stored.clear()

    def _take_hold(self) -> None:
        """Make the folder, and hold its lock as long as this window lives."""
        if self._lock is None:
            make_private(self._folder.parent)
            make_private(self._folder)
            if not self.hold():
                raise FileError("the folder for unsaved work is in use by another window")

    def hold(self) -> bool:
        """Take the lock of a folder that is there; False when somebody has it."""
        path = self._folder / LOCK
        touch_private(path)
        stream = path.open("r+b")
        try:
            fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            stream.close()
            return False
        self._lock = stream
        return True

    def let_go(self) -> None:
        """Leave the work for the next start."""
        if self._lock is not None:
            self._lock.close()
            self._lock = None

    def read(self) -> LeftOver:
        """What is kept in a folder that is held; FileError when it cannot be read."""
        with guarded("Unsaved work", FileError):
            text = read_bytes(self._folder / WORK, LARGEST_WORK)
            facts = parsed(text, "Unsaved work", kind=FileError)
            if not isinstance(facts, dict) or {"design", "attachments", "original"} - set(facts):
                raise FileError("Unsaved work does not say what it is.")
            named = dict(facts["attachments"])
            original = Path(facts["original"]) if facts["original"] else None
            stamp = FileStamp(*facts["stamp"]) if facts.get("stamp") else None
        members, lost = self._members(named, original)
        with guarded("Unsaved work", FileError):
            document = document_of(facts["design"], members, lost)
        return LeftOver(self, original, document, stamp)

    def _members(
        self, named: Mapping[str, str], original: Path | None
    ) -> tuple[dict[str, bytes], tuple[str, ...]]:
        """Those that were kept; those that had not been yet, from the original if it has them."""
        found = {name: self._attachment(str(digest)) for name, digest in named.items()}
        there = {name: data for name, data in found.items() if data is not None}
        self._stored = {name: (data, named[name]) for name, data in there.items()}
        if len(there) < len(named) and original is not None:
            with contextlib.suppress(FirecrestError):
                saved = members_of(read_document(original))[1]
                there.update({n: saved[n] for n in named if n not in there and n in saved})
        return there, tuple(f"{n}: had not been kept yet" for n in named if n not in there)

    def _attachment(self, digest: str) -> bytes | None:
        try:
            data = read_bytes(self._folder / ATTACHMENTS / Path(digest).name, LARGEST_MEMBER)
        except FileError:
            return None
        return data if hashlib.sha256(data).hexdigest() == digest else None


def left_over(folder: Path | None = None) -> list[LeftOver]:
    """Unsaved work that no window holds, newest first; each is held until it is let go or dropped.

    Work that cannot be read is left where it is. Folders with no work in them, and what killed
    writers left, are removed.
    """
    base = folder or state_folder()
    clean_litter(base)
    found: list[tuple[float, LeftOver]] = []
    with contextlib.suppress(OSError):
        for place in filter(Path.is_dir, sorted(base.iterdir())):
            item = _of_folder(place)
            if item is not None:
                found.append(item)
    return [item for _, item in sorted(found, key=lambda pair: -pair[0])]


def _of_folder(place: Path) -> tuple[float, LeftOver] | None:
    journal = Journal(place.parent, place.name)
    try:
        if not journal.hold():
            return None
        if not (place / WORK).exists():
            journal.drop()
            return None
        clean_litter(place)
        return (place / WORK).stat().st_mtime, journal.read()
    except (OSError, FirecrestError):
        journal.let_go()
        return None
