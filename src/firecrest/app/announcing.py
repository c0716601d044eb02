"""What assistive software is told without being asked: how the promises stand, and notices."""

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtGui import QAccessible, QAccessibleAnnouncementEvent
from PySide6.QtWidgets import QWidget

from firecrest.app.session import Session
from firecrest.present.frame.meters import standing

REST_MS = 700
"""After the last edit: a row of steps is told once."""

PATIENCE = 6
"""Rests for which the doubt of a design is waited for."""


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
        self._waited = 0
        session.changed.connect(self._again)
        session.doubted.connect(self._timer.start)

    def _again(self) -> None:
        self._waited = 0
        self._timer.start()

    def _say(self) -> None:
        """Once the doubt is there too, or does not come: a promise is not told twice."""
        sound = self._session.assessment.acoustic is not None
        if sound and self._session.assessment.doubt is None and self._waited < PATIENCE:
            self._waited += 1
            self._timer.start()
            return
        text = standing(self._session.assessment)
        if text != self._last:
            self._last = text
            announce(self._window, text)
            self.said.emit(text)
