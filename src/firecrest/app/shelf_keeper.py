"""The shelf as the window sees it: opened when first looked at, and followed when others write.

While another program holds it, nothing waits in front of the person: reading goes on with what was
last known, changes queue up and are made when the shelf is free.
"""

import tempfile
from collections.abc import Callable, Mapping
from pathlib import Path
from time import monotonic, sleep
from typing import Any

from PySide6.QtCore import QObject, QTimer, Signal

from firecrest.core.errors import FirecrestError, ShelfBusyError, ShelfError
from firecrest.design.design import Design
from firecrest.present.parts.updates import shelf_ids
from firecrest.shelf.entry import Entry
from firecrest.shelf.store import Shelf

LOOK_EVERY_MS = 1500
TRY_EVERY_MS = 300
LAST_CHANCE_S = 2.0
Ask = Callable[[Shelf], Any]

WAITING = object()
"""What a change gives that is made later."""


class ShelfKeeper(QObject):
    """Opens the shelf late, tells of changes here and elsewhere, and of troubles once."""

    changed = Signal()
    refused = Signal(str)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._shelf: Shelf | None = None
        self._spare: tempfile.TemporaryDirectory[str] | None = None
        self._known: Mapping[str, Entry] = {}
        self._queue: dict[object, Ask] = {}
        self._told: str = ""
        self._looking = self._timer(LOOK_EVERY_MS, self.look)
        self._trying = self._timer(TRY_EVERY_MS, self._try_again)

    def _timer(self, interval: int, work: Callable[[], None]) -> QTimer:
        timer = QTimer(self)
        timer.setInterval(interval)
        timer.timeout.connect(work)
        return timer

    @property
    def waiting(self) -> bool:
        """Whether the shelf is in use elsewhere, and something waits for it."""
        return self._trying.isActive()

    @property
    def store(self) -> Shelf:
        """The shelf; ShelfBusyError while it cannot be opened because another program has it.

        One that cannot be opened at all is told of, and a spare one stands in.
        """
        if self._shelf is None:
            try:
                self._shelf = Shelf()
            except ShelfBusyError:
                raise
            except ShelfError as error:
                self._spare = tempfile.TemporaryDirectory()
                self._shelf = Shelf(Path(self._spare.name) / "spare.sqlite")
                self._tell(f"{error}\nUntil then a spare shelf stands in, which is not kept.")
            self._looking.start()
        return self._shelf

    def entries(self) -> Mapping[str, Entry]:
        """All parts by id; the last known ones while the shelf is in use elsewhere."""
        if self._shelf is None and self.waiting:
            return self._known
        try:
            self._known = self.store.entries()
            self._tell_skipped()
        except ShelfBusyError:
            self._wait("The shelf is in use by another program. It is joined when it is free.")
        except ShelfError as error:
            self._tell(str(error))
        return self._known

    def look(self) -> None:
        """Whether another window has written meanwhile."""
        if self._shelf is None:
            return
        try:
            with self._shelf.at_once():
                if self._shelf.changed_elsewhere():
                    self.changed.emit()
        except ShelfError:
            return  # it is looked at again; what is asked meanwhile tells what is wrong

    def ask(self, question: Ask) -> Any:
        """Something the shelf knows; a refusal is told and gives None."""
        try:
            return question(self.store)
        except FirecrestError as error:
            self.refused.emit(str(error))
            return None

    def attempt(self, action: Ask, key: object = None) -> Any:
        """Change the shelf; a refusal is told, changes nothing, and gives None.

        While the shelf is in use elsewhere the change waits, and WAITING is given; a later change
        with the same ``key`` takes its place.
        """
        try:
            if self._queue:
                raise ShelfBusyError("Changes before this one wait already.")
            answer = action(self.store)
        except ShelfBusyError:
            self._queue[key or object()] = action
            self._wait(
                "The shelf is in use by another program. Your change is made as soon as it is free."
            )
            return WAITING
        except FirecrestError as error:
            self.refused.emit(str(error))
            answer = None
        self.changed.emit()
        return answer

    def _wait(self, text: str) -> None:
        if not self.waiting:
            self._trying.start()
            self._tell(text)

    def _try_again(self) -> None:
        """Open the shelf, and make the changes that wait, if it is free now."""
        try:
            store = self.store
            with store.at_once():
                store.entries()
                while self._queue:
                    key = next(iter(self._queue))
                    try:
                        self._queue[key](store)
                    except ShelfBusyError:
                        raise
                    except FirecrestError as error:
                        self.refused.emit(str(error))
                    del self._queue[key]
        except ShelfBusyError:
            return
        except ShelfError as error:
            self._tell(str(error))
        self._trying.stop()
        self._told = ""
        self.changed.emit()

    def _tell(self, text: str) -> None:
        """Say something once, when the window is drawn; what was said last is not said again."""
        if text != self._told:
            self._told = text
            QTimer.singleShot(0, self, lambda: self.refused.emit(text))

    def _tell_skipped(self) -> None:
        skipped = self._shelf.skipped if self._shelf else {}
        if skipped:
            some = "\n".join(list(skipped.values())[:3])
            self._tell(
                f"{len(skipped)} rows of the shelf are no parts this Firecrest reads; they were "
                f"left alone:\n{some}"
            )

    def note_use(self, design: Design) -> None:
        """Remember on the shelf which parts a saved design holds."""
        ids = shelf_ids(design)
        if ids:
            self.attempt(lambda shelf: shelf.note_use(design.name, ids), key=("use", design.name))

    def close(self) -> None:
        """Let go of the database; changes that still wait get a last chance."""
        self._looking.stop()
        until = monotonic() + LAST_CHANCE_S
        while self._queue and monotonic() < until:
            self._try_again()
            sleep(0.05 if self._queue else 0.0)
        self._trying.stop()
        if self._shelf is not None:
            self._shelf.close()
            self._shelf = None
        if self._spare is not None:
            self._spare.cleanup()
