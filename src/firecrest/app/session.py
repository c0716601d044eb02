"""The session: one document with its file and autosave, where one looks, and the shelf."""

from pathlib import Path as FilePath

from PySide6.QtCore import QTimer, Signal

from firecrest.app.editing import Editing
from firecrest.app.shelf_keeper import ShelfKeeper
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.history import History
from firecrest.files.container import SUFFIX, Document, read_document, write_document
from firecrest.files.demos import blank_design
from firecrest.files.journal import Journal

AUTOSAVE_AFTER_MS = 2000


class Session(Editing):
    """Holds what one window works on: a design, its file, and the shelf all windows share."""

    file_changed = Signal()
    looked = Signal()
    reveal = Signal(object)

    def __init__(self, design: Design, journal: Journal | None = None) -> None:
        super().__init__(design)
        self.frequency: float | None = None
        self.path: FilePath | None = None
        self.attachments: dict[str, bytes] = {}
        self.shelf = ShelfKeeper(self)
        self.journal = journal or Journal()
        self._autosave = QTimer(self)
        self._autosave.setSingleShot(True)
        self._autosave.setInterval(AUTOSAVE_AFTER_MS)
        self._autosave.timeout.connect(self.keep_journal)

    @property
    def modified(self) -> bool:
        """Whether there is unsaved work."""
        return self.history.modified

    def settled(self) -> None:
        """Unsaved work is written aside after a while."""
        if self.modified:
            self._autosave.start()
        else:
            self._autosave.stop()
            self.journal.drop()

    # looking ---------------------------------------------------------------

    def look_at(self, frequency: float | None) -> None:
        """Pin the crosshair of all plots, and the chain, at ``frequency``; None lets go."""
        self.frequency = frequency
        self.looked.emit()

    def go_to(self, path: Path) -> None:
        """Show the field at ``path``."""
        self.reveal.emit(path)

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
        self.shelf.note_use(self.design)
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
        self.shelf.close()
        self._autosave.stop()
        self.journal.drop()
