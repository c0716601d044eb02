"""The session: one document, its history, its assessment, what is tried, and where one looks.

Only this class turns changes into Qt signals; everything it computes comes from below ``app``.
"""

from collections.abc import Callable
from pathlib import Path as FilePath
from typing import Any

from PySide6.QtCore import QObject, QTimer, Signal

from firecrest.assessment.assess import Assessment, assess
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, change_label, replace_at, set_number, value_at
from firecrest.design.history import History
from firecrest.files.container import SUFFIX, Document, read_document, write_document
from firecrest.files.demos import blank_design
from firecrest.files.journal import Journal

AUTOSAVE_AFTER_MS = 2000


class Session(QObject):
    """Holds what one window works on."""

    changed = Signal()
    tried = Signal()
    file_changed = Signal()
    looked = Signal()
    reveal = Signal(object)
    refused = Signal(str)

    def __init__(self, design: Design, journal: Journal | None = None) -> None:
        super().__init__()
        self.history = History(design, saved=design)
        self.assessment = assess(design)
        self.trial: Assessment | None = None
        self.frequency: float | None = None
        self.path: FilePath | None = None
        self.attachments: dict[str, bytes] = {}
        self.journal = journal or Journal()
        self._autosave = QTimer(self, singleShot=True, interval=AUTOSAVE_AFTER_MS)
        self._autosave.timeout.connect(self.keep_journal)

    @property
    def design(self) -> Design:
        """The present design."""
        return self.history.present

    @property
    def modified(self) -> bool:
        """Whether there is unsaved work."""
        return self.history.modified

    # edits -----------------------------------------------------------------

    def apply(self, label: str, design: Design, fold: str | None = None) -> None:
        """A new design as one undo step (or joined to the step of the same ``fold``)."""
        if design == self.design:
            self.drop_trial()
            return
        self.history.push(label, design, fold)
        self._settle()

    def edit(self, path: Path, value: Any, fold: str | None = None) -> None:
        """Another value at ``path``; FirecrestError when the design refuses it."""
        design = replace_at(self.design, path, value)
        self.apply(change_label(self.design, design, path), design, fold)

    def edit_number(self, path: Path, value: float | None, fold: str | None = None) -> None:
        """A number at ``path`` within its range."""
        design = set_number(self.design, path, value)
        self.apply(change_label(self.design, design, path), design, fold)

    def attempt(self, action: Callable[[], None]) -> bool:
        """Run an edit; a refusal is told and nothing changes."""
        try:
            action()
        except FirecrestError as error:
            self.refused.emit(str(error))
            return False
        return True

    def undo(self) -> None:
        """Back one step."""
        self.history.undo()
        self._settle()

    def redo(self) -> None:
        """Forward one step."""
        self.history.redo()
        self._settle()

    def _settle(self) -> None:
        self.trial = None
        self.assessment = assess(self.design)
        self.changed.emit()
        if self.modified:
            self._autosave.start()
        else:
            self._autosave.stop()
            self.journal.drop()

    # try before keep -------------------------------------------------------

    def try_design(self, design: Design) -> None:
        """Show ghosts of ``design`` without changing anything."""
        self.trial = None if design == self.design else assess(design)
        self.tried.emit()

    def drop_trial(self) -> None:
        """No ghosts any more."""
        if self.trial is not None:
            self.trial = None
            self.tried.emit()

    # looking ---------------------------------------------------------------

    def look_at(self, frequency: float | None) -> None:
        """Pin the crosshair of all plots, and the chain, at ``frequency``; None lets go."""
        self.frequency = frequency
        self.looked.emit()

    def go_to(self, path: Path) -> None:
        """Show the field at ``path``."""
        self.reveal.emit(path)

    def has(self, path: Path) -> bool:
        """Whether the design has a place at ``path``."""
        try:
            value_at(self.design, path)
        except FirecrestError:
            return False
        return True

    # files -----------------------------------------------------------------

    def start(self, document: Document, path: FilePath | None, *, saved: bool = True) -> None:
        """Work on another document from now on."""
        self.journal.drop()
        self.history = History(document.design, saved=document.design if saved else None)
        self.attachments = dict(document.attachments)
        self.path = path
        self.frequency = None
        self._settle()
        self.file_changed.emit()

    def start_blank(self) -> None:
        """A new project."""
        self.start(Document(blank_design()), None)

    def open(self, path: FilePath) -> Document:
        """Open a file; FileError leaves the present work as it is."""
        document = read_document(path)
        self.start(document, path if path.suffix == SUFFIX and not document.lost else None)
        return document

    def save(self, path: FilePath) -> None:
        """Save to ``path`` and work on that file from now on; FileError when it cannot be."""
        write_document(path, Document(self.design, self.attachments))
        self.path = path
        self.history.saved = self.design
        self._autosave.stop()
        self.journal.drop()
        self.file_changed.emit()

    def keep_journal(self) -> None:
        """Write unsaved work aside, against a crash; a full disk is told, not fatal."""
        if not self.modified:
            return
        try:
            self.journal.keep(Document(self.design, self.attachments), self.path)
        except (FirecrestError, OSError) as error:
            self.refused.emit(f"Unsaved work could not be kept aside: {error}")

    def close(self) -> None:
        """The window closes in order."""
        self._autosave.stop()
        self.journal.drop()
