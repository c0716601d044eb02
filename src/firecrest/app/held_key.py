"""A key that shows something: pressed shortly it stays, held for long it goes again."""

from collections.abc import Callable
from time import monotonic

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QApplication

HELD_S = 0.6


class HeldKey(QObject):
    """Calls ``released`` when ``key`` is let go later than a moment after ``begin``."""

    def __init__(self, parent: QObject, key: Qt.Key, released: Callable[[], None]) -> None:
        super().__init__(parent)
        self._key, self._released = key, released
        self._since: float | None = None

    def begin(self) -> None:
        """The key has just been pressed: wait for it to be let go."""
        application = QApplication.instance()
        if self._since is None and application is not None:
            application.installEventFilter(self)
        self._since = monotonic()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if (
            event.type() == QEvent.Type.KeyRelease
            and isinstance(event, QKeyEvent)
            and event.key() == self._key
            and not event.isAutoRepeat()
        ):
            self._let_go()
        return False

    def _let_go(self) -> None:
        application = QApplication.instance()
        if self._since is None or application is None:
            return
        long = monotonic() - self._since > HELD_S
        self._since = None
        application.removeEventFilter(self)
        if long:
            self._released()
