"""The shelf as the window sees it: opened when first looked at, and followed when others write."""

import tempfile
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any

from PySide6.QtCore import QObject, QTimer, Signal

from firecrest.core.errors import FirecrestError, ShelfError
from firecrest.design.design import Design
from firecrest.present.updates import shelf_ids
from firecrest.shelf.entry import Entry
from firecrest.shelf.store import Shelf

LOOK_EVERY_MS = 1500


class ShelfKeeper(QObject):
    """Opens the shelf late, tells of changes here and elsewhere, and of troubles once."""

    changed = Signal()
    refused = Signal(str)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._shelf: Shelf | None = None
        self._spare: tempfile.TemporaryDirectory[str] | None = None
        self._timer = QTimer(self)
        self._timer.setInterval(LOOK_EVERY_MS)
        self._timer.timeout.connect(self.look)

    @property
    def store(self) -> Shelf:
        """The shelf; one that cannot be opened is told of, and a spare one stands in."""
        if self._shelf is None:
            try:
                self._shelf = Shelf()
            except ShelfError as error:
                self._spare = tempfile.TemporaryDirectory()
                self._shelf = Shelf(Path(self._spare.name) / "spare.sqlite")
                text = f"{error}\nUntil then a spare shelf stands in, which is not kept."
                QTimer.singleShot(0, self, lambda: self.refused.emit(text))
            self._timer.start()
        return self._shelf

    def entries(self) -> Mapping[str, Entry]:
        """All parts by id; the last known ones while the database is busy."""
        try:
            return self.store.entries()
        except ShelfError as error:
            self.refused.emit(str(error))
            return {}

    def look(self) -> None:
        """Whether another window has written meanwhile."""
        if self._shelf is None:
            return
        try:
            if self._shelf.changed_elsewhere():
                self.changed.emit()
        except ShelfError:
            self._timer.stop()

    def ask(self, question: Callable[[Shelf], Any]) -> Any:
        """Something the shelf knows; a refusal is told and gives None."""
        try:
            return question(self.store)
        except FirecrestError as error:
            self.refused.emit(str(error))
            return None

    def attempt(self, action: Callable[[Shelf], Any]) -> Any:
        """Change the shelf; a refusal is told, changes nothing, and gives None."""
        answer = self.ask(action)
        self.changed.emit()
        return answer

    def note_use(self, design: Design) -> None:
        """Remember on the shelf which parts a saved design holds."""
        ids = shelf_ids(design)
        if ids:
            self.ask(lambda shelf: shelf.note_use(design.name, ids))

    def close(self) -> None:
        """Let go of the database."""
        self._timer.stop()
        if self._shelf is not None:
            self._shelf.close()
            self._shelf = None
        if self._spare is not None:
            self._spare.cleanup()
