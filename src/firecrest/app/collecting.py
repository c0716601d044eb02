"""Collects garbage in the main thread only, when the hand rests.

Python collects in whichever thread happens to allocate. A widget in a cycle would then be destroyed
outside the thread that owns it, which ends the program; so automatic collection is off.
"""

import gc
from collections.abc import Callable
from functools import cache

from PySide6.QtCore import QObject, Qt, QTimer
from PySide6.QtGui import QGuiApplication

EVERY_MS = 1000
WHOLE_EVERY = 10
"""Turns between two collections of everything; the others take what is young."""
GIVE_BACK_EVERY = 60


class Collector(QObject):
    """A timer of the main thread that collects, never while a button of the mouse is down."""

    def __init__(self, parent: QObject, collect: Callable[[int], int] = gc.collect) -> None:
        super().__init__(parent)
        gc.disable()
        self._collect = collect
        self._turn = 0
        self._timer = QTimer(self)
        self._timer.setInterval(EVERY_MS)
        self._timer.timeout.connect(self.collect)
        self._timer.start()

    def collect(self) -> None:
        """One turn."""
        if QGuiApplication.mouseButtons() != Qt.MouseButton.NoButton:
            return
        self._turn += 1
        whole = self._turn % WHOLE_EVERY == 0
        self._collect(2 if whole else 1)
        if self._turn % GIVE_BACK_EVERY == 0:
            give_back()


@cache
def keep_loaded() -> None:
    """Let no collection look through modules and classes any more; once is enough."""
    gc.freeze()


@cache
def _trim() -> Callable[[int], int] | None:
    """The allocator's own way to give memory back; None where it has none."""
    import ctypes

    try:
        found: Callable[[int], int] = ctypes.CDLL(None).malloc_trim
    except (OSError, AttributeError):
        return None
    return found


def give_back() -> None:
    """Return free memory to the system: large designs leave holes that small ones never fill."""
    trim = _trim()
    if trim is not None:
        trim(0)
