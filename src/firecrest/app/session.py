"""The session: one document with its file and autosave, where one looks, and the shelf."""

from collections.abc import Iterator
from pathlib import Path as FilePath

from PySide6.QtCore import QTimer, Signal

from firecrest.app.shelf_keeper import ShelfKeeper
from firecrest.app.varying import Varying
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.doubt.judged import with_doubt
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.history import History
from firecrest.design.project import Project, project_of
from firecrest.files.container import (
    SUFFIX,
    Document,
    FileStamp,
    changed_since,
    read_document,
    stamp_of,
    write_document,
)
from firecrest.files.demos import blank_design
from firecrest.files.journal import Journal, LeftOver

AUTOSAVE_AFTER_MS = 1500
"""After the first edit that is not kept yet, whatever goes on; with the writing under 2 s."""


REMEMBERED = 32
"""Designs whose doubt is remembered."""


class Session(Varying):
    """Holds what one window works on: a design, its file, and the shelf all windows share."""

    file_changed = Signal()
    looked = Signal()
    doubted = Signal()
    """The doubt of the present design is there: promises may be close that were kept or short."""
    reveal = Signal(object)
    told = Signal(str, object)
    """What an edit leaves to decide: a text, and offers of a ``Notice``."""

    def __init__(self, begin: Design | Project, journal: Journal | None = None) -> None:
        super().__init__(begin)
        self.frequency: float | None = None
        self.doubts: dict[int, tuple[Design, Doubt]] = {}
        self.path: FilePath | None = None
        self.stamp: FileStamp | None = None
        self.attachments: dict[str, bytes] = {}
        self.shelf = ShelfKeeper(self)
        self.journal = journal or Journal()
        self._autosave = QTimer(self)
        self._autosave.setSingleShot(True)
        self._autosave.setInterval(AUTOSAVE_AFTER_MS)
        self._autosave.timeout.connect(self.keep_journal)
        self._pieces: Iterator[None] = iter(())
        self._storing = QTimer(self)
        self._storing.setSingleShot(True)
        self._storing.timeout.connect(self._store_piece)
        self._kept_well = True

    @property
    def modified(self) -> bool:
        """Whether there is unsaved work."""
        return self.history.modified

    def settled(self) -> None:
        """Unsaved work is written aside soon: later edits do not put it off."""
        self.follow_beside()
        if not self.modified:
            self._forget_journal()
        elif not self._autosave.isActive():
            self._autosave.start()

    # looking ---------------------------------------------------------------

    def look_at(self, frequency: float | None) -> None:
        """Pin the crosshair of all plots, and the chain, at ``frequency``; None lets go."""
        self.frequency = frequency
        self.looked.emit()

    def go_to(self, path: Path) -> None:
        """Show the field at ``path``."""
        self.reveal.emit(path)

    def remember_doubt(self, design: Design, doubt: Doubt) -> None:
        """Keep a design's doubt: going back to it shows it at once."""
        self.doubts.pop(id(design), None)
        self.doubts[id(design)] = (design, doubt)
        if len(self.doubts) > REMEMBERED:
            del self.doubts[next(iter(self.doubts))]

    def doubt_known(self, design: Design) -> Doubt | None:
        """The doubt of a design, as far as it is remembered."""
        found = self.doubts.get(id(design))
        return None if found is None else found[1]

    def take_doubt(self, doubt: Doubt) -> None:
        """Judge the present design by its doubt too."""
        self.assessment = with_doubt(self.assessment, doubt)
        self.doubted.emit()

    # files -----------------------------------------------------------------

    def start(self, document: Document, path: FilePath | None) -> None:
        """Work on another document from now on."""
        self._forget_journal()
        self._begin(document, path, None if path is None else stamp_of(path), document.project)

    def start_blank(self) -> None:
        """A new project."""
        self.start(Document(project_of(blank_design())), None)

    def restore(self, item: LeftOver) -> None:
        """Go on with left-over work; what is kept of it stays as it is until it is saved."""
        self._forget_journal()
        self.journal = item.journal
        path = None if item.document.lost else item.original
        self._begin(item.document, path, item.stamp, None)

    def _begin(
        self,
        document: Document,
        path: FilePath | None,
        stamp: FileStamp | None,
        saved: Project | None,
    ) -> None:
        self.drop_typed()
        self.kept = self.beside = None
        self.trail = []
        self.history = History(document.project, saved=saved)
        self.attachments = dict(document.attachments)
        self.path, self.stamp, self.frequency = path, stamp, None
        self._settle()
        self.file_changed.emit()

    def open(self, path: FilePath) -> Document:
        """Open a file; FileError leaves the present work as it is."""
        document = read_document(path)
        self.start(document, path if path.suffix == SUFFIX and not document.lost else None)
        return document

    def save(self, path: FilePath, *, over: bool = False) -> None:
        """Save to ``path`` and work on that file from now on.

        FileError when it cannot be; ChangedElsewhereError when the file in use was changed
        meanwhile, unless it shall be written ``over``.
        """
        seen = self.stamp if path == self.path and not over else None
        self.stamp = write_document(path, Document(self.project, self.attachments), seen)
        self.path = path
        self.history.saved = self.project
        self.history.end_fold()
        self.shelf.note_use(self.design)
        self._forget_journal()
        self.file_changed.emit()

    def changed_elsewhere(self) -> bool:
        """Whether the file in use is not as it was opened or saved here."""
        return self.path is not None and changed_since(self.path, self.stamp)

    # unsaved work -------------------------------------------------------------

    def keep_journal(self) -> None:
        """Write unsaved work aside, against a crash; a full disk is told, not fatal."""
        if not self.modified:
            return
        try:
            whole = self.journal.keep(
                Document(self.project, self.attachments), self.path, self.stamp
            )
        except (FirecrestError, OSError) as error:
            self._kept_badly(error)
            return
        self._kept_well = True
        if not whole and not self._storing.isActive():
            self._pieces = self.journal.store(Document(self.project, self.attachments))
            self._storing.start(0)

    def _store_piece(self) -> None:
        """A piece of the attachments; once they are all there the design is kept with them."""
        try:
            next(self._pieces)
        except StopIteration:
            self.keep_journal()
        except (FirecrestError, OSError) as error:
            self._kept_badly(error)
        else:
            self._storing.start(0)

    def _kept_badly(self, error: Exception) -> None:
        if self._kept_well:
            self.refused.emit(f"Unsaved work could not be kept aside: {error}. Save it soon.")
        self._kept_well = False

    def keep_now(self) -> None:
        """Write everything that is not saved aside at once, and leave it for the next start."""
        self._storing.stop()
        self.keep_journal()
        while self._storing.isActive():
            self._storing.stop()
            self._store_piece()
        self.journal.let_go()

    def _forget_journal(self) -> None:
        self._autosave.stop()
        self._storing.stop()
        self.journal.drop()

    def close(self) -> None:
        """The window closes in order."""
        self.shelf.close()
        self._forget_journal()
