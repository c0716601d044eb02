"""Work that may wait: until the hand rests, or until what matters more has been drawn."""

from collections.abc import Callable, Iterable, Iterator
from time import monotonic

from PySide6.QtCore import QObject, QTimer

REST_MS = 80
APART_MS = 50
READ_MS = 100
"""Between two states of a text that is read: nobody follows sentences any faster."""


def after(parent: QObject, pause: int, work: Callable[[], None]) -> QTimer:
    """A timer that does ``work`` once, ``pause`` ms after it was started last."""
    timer = QTimer(parent)
    timer.setSingleShot(True)
    timer.setInterval(pause)
    timer.timeout.connect(work)
    return timer


class Rest(QObject):
    """Runs the jobs of the newest call to ``start``, one per turn of the event loop."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._jobs: Iterator[Callable[[], object]] = iter(())
        self._take: Callable[[object], None] = lambda _: None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
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
        try:
            self._take(job())
        finally:  # a job that fails is told by the watch over mistakes; the others are not held up
            if self.running:
                self._timer.start(0)


class Coalesced(QObject):
    """Runs ``work`` after what is being drawn now; while one drags, once in ``apart`` ms at most.

    The heart of a stage follows every move; what stands beside it may follow a little later.
    """

    def __init__(self, parent: QObject, work: Callable[[], None], apart: int = APART_MS) -> None:
        super().__init__(parent)
        self._work, self._apart, self._last = work, apart, 0.0
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._run)

    def start(self) -> None:
        """Run soon, unless that is under way already."""
        if not self._timer.isActive():
            since = 1000 * (monotonic() - self._last)
            self._timer.start(max(0, round(self._apart - since)))

    def stop(self) -> None:
        """Leave it."""
        self._timer.stop()

    def flush(self) -> None:
        """Run at once what is under way."""
        if self._timer.isActive():
            self._timer.stop()
            self._run()

    def _run(self) -> None:
        self._work()
        self._last = monotonic()
