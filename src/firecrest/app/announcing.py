"""What assistive software is told without being asked: how the promises stand, and notices."""

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtGui import QAccessible, QAccessibleAnnouncementEvent
from PySide6.QtWidgets import QWidget

from firecrest.app.session import Session
from firecrest.present.frame.meters import standing

REST_MS = 700
"""After the last edit: a row of steps is told once."""


def announce(widget: QWidget, text: str) -> None:
    """Have a screen reader say a text, after what it is saying."""
    if QAccessible.isActive():
        QAccessible.updateAccessibility(QAccessibleAnnouncementEvent(widget, text))


class Announcer(QObject):
    """Tells how the promises stand once the hand rests, when they stand otherwise than before."""

    said = Signal(str)

    def __init__(self, session: Session, window: QWidget) -> None:
        super().__init__(window)
        self._session, self._window = session, window
        self._last = standing(session.assessment)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(REST_MS)
        self._timer.timeout.connect(self._say)
        session.changed.connect(self._timer.start)
        session.doubted.connect(self._timer.start)

    def _say(self) -> None:
        text = standing(self._session.assessment)
        if text != self._last:
            self._last = text
            announce(self._window, text)
            self.said.emit(text)
