"""Works candidates out in a thread of its own, some at a time, and can be stopped."""

import threading
from collections.abc import Sequence

from PySide6.QtCore import QObject, Signal

from firecrest.design.design import Design
from firecrest.search.choose import Candidate, choose

AT_ONCE = 24
"""Candidates between two reports: small, so that the window stays quick."""


class Chooser(QObject):
    """Starts, stops and reports runs; only reports of the newest run come through.

    Its thread is Python's own: waiting for it lets it run on. A thread pool that Qt takes down
    while an event loop runs in Python's lock would wait for ever.
    """

    reported = Signal(int, object)
    some = Signal(object)
    finished = Signal()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._number = 0
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None
        self.running = False
        self.done = self.total = 0
        self.reported.connect(self._take)

    def start(
        self, design: Design, candidates: Sequence[Candidate], place: int, retune: bool
    ) -> None:
        """Work out candidates from the first on, instead of what is being worked out."""
        self.stop()
        before, self._stop = self._thread, threading.Event()
        self._number += 1
        self.done, self.total, self.running = 0, len(candidates), True
        self._thread = threading.Thread(
            target=self._work,
            args=(self._number, self._stop, before, (design, candidates, place, retune)),
            daemon=True,
        )
        self._thread.start()

    def _work(
        self,
        number: int,
        stop: threading.Event,
        before: threading.Thread | None,
        job: tuple[Design, Sequence[Candidate], int, bool],
    ) -> None:
        """One run, in its thread, once the run before has left off."""
        if before is not None:
            before.join()
        design, candidates, place, retune = job
        for some in choose(design, candidates, place=place, retune=retune, chunk=AT_ONCE):
            if stop.is_set():
                return
            self.reported.emit(number, some)
        self.reported.emit(number, [])

    def stop(self) -> None:
        """Leave the rest; what is there stays."""
        self._stop.set()
        self._number += 1
        self.running = False

    def wait(self) -> None:
        """Stop and wait for the thread, before the window goes."""
        self.stop()
        if self._thread is not None:
            self._thread.join()

    def _take(self, number: int, outcomes: list[object]) -> None:
        if number != self._number:
            return
        if not outcomes:
            self.running = False
            self.finished.emit()
            return
        self.done += len(outcomes)
        self.some.emit(outcomes)
