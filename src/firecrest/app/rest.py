"""Work that waits until the hand rests, then goes on piece by piece while the window answers."""

from collections.abc import Callable, Iterable, Iterator

from PySide6.QtCore import QObject, QTimer

REST_MS = 80


class Rest(QObject):
    """Runs the jobs of the newest call to ``start``, one per turn of the event loop."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._jobs: Iterator[Callable[[], object]] = iter(())
        self._take: Callable[[object], None] = lambda _: None
        self._timer = QTimer(self, singleShot=True)
        self._timer.timeout.connect(self._next)
        self.running = False

    def start(self, jobs: Iterable[Callable[[], object]], take: Callable[[object], None]) -> None:
        """Drop what is left of older jobs; after a rest run these and hand over each result."""
        self._jobs, self._take = iter(jobs), take
        self.running = True
        self._timer.start(REST_MS)

    def stop(self) -> None:
        """Leave the rest."""
        self._timer.stop()
        self.running = False

    def _next(self) -> None:
        job = next(self._jobs, None)
        if job is None:
            self.running = False
            return
        self._take(job())
        if self.running:
            self._timer.start(0)
