"""Autosave: unsaved work of each running window, restored after a crash.

One journal per window: ``<id>.firecrest`` with a small ``<id>.json`` that names the process and
the file it belongs to. A journal whose process is gone is left-over work.
"""

import contextlib
import json
import os
import uuid
from dataclasses import dataclass
from pathlib import Path

from firecrest.core.errors import FirecrestError
from firecrest.files.container import SUFFIX, Document, read_document, write_document


def state_folder() -> Path:
    """Where unsaved work is kept, by the XDG rules."""
    base = os.environ.get("XDG_STATE_HOME") or str(Path.home() / ".local" / "state")
    return Path(base) / "firecrest" / "unsaved"


@dataclass(frozen=True)
class LeftOver:
    """Unsaved work of a window that ended without closing."""

    note: Path
    original: Path | None
    document: Document


class Journal:
    """The unsaved work of one window."""

    def __init__(self, folder: Path | None = None) -> None:
        self._folder = folder or state_folder()
        self._name = uuid.uuid4().hex[:12]

    @property
    def _data(self) -> Path:
        return self._folder / f"{self._name}{SUFFIX}"

    @property
    def _note(self) -> Path:
        return self._folder / f"{self._name}.json"

    def keep(self, document: Document, original: Path | None) -> None:
        """Write the present state; FileError when the disk refuses."""
        self._folder.mkdir(parents=True, exist_ok=True)
        write_document(self._data, document)
        facts = {"process": os.getpid(), "original": str(original) if original else None}
        temporary = self._note.with_suffix(".tmp")
        temporary.write_text(json.dumps(facts))
        os.replace(temporary, self._note)

    def drop(self) -> None:
        """The work is saved or given up."""
        forget(self._note)


def forget(note: Path) -> None:
    """Remove a journal with its note and backup."""
    with contextlib.suppress(OSError):
        for path in note.parent.glob(f"{note.stem}.*"):
            path.unlink(missing_ok=True)


def left_over(folder: Path | None = None) -> list[LeftOver]:
    """Unsaved work of processes that are gone, newest first; unreadable journals are skipped."""
    found: list[tuple[float, LeftOver]] = []
    for note in (folder or state_folder()).glob("*.json"):
        try:
            facts = json.loads(note.read_text())
            if _alive(int(facts["process"])):
                continue
            document = read_document(note.with_suffix(SUFFIX))
            original = Path(facts["original"]) if facts["original"] else None
            found.append((note.stat().st_mtime, LeftOver(note, original, document)))
        except (OSError, ValueError, KeyError, TypeError, FirecrestError):
            continue
    return [item for _, item in sorted(found, key=lambda pair: -pair[0])]


def _alive(process: int) -> bool:
    """Whether a process of this number runs."""
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True
