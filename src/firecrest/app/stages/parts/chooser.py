"""Works candidates out in a thread of its own, some at a time, and can be stopped."""

import threading
from collections.abc import Sequence

from PySide6.QtCore import QObject, QRunnable, QThreadPool, Signal

from firecrest.design.design import Design
from firecrest.search.choose import Candidate, choose

AT_ONCE = 24
"""Candidates between two reports: small, so that the window stays quick."""


class _Work(QRunnable):
    """One run; ``number`` tells its reports from those of older runs."""

    def __init__(self, chooser: "Chooser", number: int, stop: threading.Event) -> None:
        super().__init__()
        self._chooser, self._number, self._stop = chooser, number, stop
        self.job: tuple[Design, Sequence[Candidate], int, bool]

    def run(self) -> None:
        design, candidates, place, retune = self.job
        for some in choose(design, candidates, place=place, retune=retune, chunk=AT_ONCE):
            if self._stop.is_set():
                return
            self._chooser.reported.emit(self._number, some)
        self._chooser.reported.emit(self._number, [])


class Chooser(QObject):
    """Starts, stops and reports runs; only reports of the newest run come through."""

    reported = Signal(int, object)
    some = Signal(object)
    finished = Signal()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._number = 0
        self._stop = threading.Event()
        self.running = False
        self.done = self.total = 0
        self.reported.connect(self._take)

    def start(
        self, design: Design, candidates: Sequence[Candidate], place: int, retune: bool
    ) -> None:
        """Work out candidates from the first on, instead of what is being worked out."""
        self.stop()
        self._stop = threading.Event()
        self._number += 1
        self.done, self.total, self.running = 0, len(candidates), True
        work = _Work(self, self._number, self._stop)
        work.job = (design, candidates, place, retune)
        self._pool.start(work)

    def stop(self) -> None:
        """Leave the rest; what is there stays."""
        self._stop.set()
        self._number += 1
        self.running = False

    def wait(self) -> None:
        """Stop and wait for the thread, before the window goes."""
        self.stop()
        self._pool.waitForDone()

    def _take(self, number: int, outcomes: list[object]) -> None:
        if number != self._number:
            return
        if not outcomes:
            self.running = False
            self.finished.emit()
            return
        self.done += len(outcomes)
        self.some.emit(outcomes)
