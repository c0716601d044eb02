"""Works candidates out in the workshop, some at a time, and can be stopped."""

from collections.abc import Sequence

from PySide6.QtCore import QObject, Signal

from firecrest.app.work import Task
from firecrest.design.design import Design
from firecrest.search.choose import Candidate, choose

AT_ONCE = 24
"""Candidates between two reports: small, so that rows fill as they come."""


class Chooser(QObject):
    """Starts, stops and reports runs; only reports of the newest run come through."""

    some = Signal(object)
    finished = Signal()
    failed = Signal(str)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.done = self.total = 0
        self._task = Task(self)
        self._task.some.connect(self._take)
        self._task.began_again.connect(self._from_the_first)
        self._task.failed.connect(self.failed)
        self._task.finished.connect(self.finished)

    @property
    def running(self) -> bool:
        """Whether a run is under way."""
        return self._task.running

    def start(
        self, design: Design, candidates: Sequence[Candidate], place: int, retune: bool
    ) -> None:
        """Work out candidates from the first on, instead of what is being worked out."""
        self.done, self.total = 0, len(candidates)
        self._task.start(
            choose, design, tuple(candidates), place=place, retune=retune, chunk=AT_ONCE
        )

    def stop(self) -> None:
        """Leave the rest; what is there stays."""
        self._task.stop()

    def _from_the_first(self) -> None:
        self.done = 0

    def _take(self, outcomes: list[object]) -> None:
        self.done += len(outcomes)
        self.some.emit(outcomes)
