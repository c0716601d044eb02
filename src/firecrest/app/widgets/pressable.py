"""A widget pressed by click, Enter, Space or assistive software; arrows go to its neighbours."""

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QEnterEvent, QFocusEvent, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QAbstractButton, QSizePolicy, QStyle, QStyleOption

FORWARD = (Qt.Key.Key_Right, Qt.Key.Key_Down)
BACKWARD = (Qt.Key.Key_Left, Qt.Key.Key_Up)
PRESS = (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space)


class Pressable(QAbstractButton):
    """Base of meters, rail rows, chain links and part cards: buttons that are drawn as they are."""

    def __init__(self) -> None:
        super().__init__()
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def paintEvent(self, event: QPaintEvent) -> None:
        """The ground that the style sheet gives it."""
        option = QStyleOption()
        option.initFrom(self)
        painter = QPainter(self)
        self.style().drawPrimitive(QStyle.PrimitiveElement.PE_Widget, option, painter, self)
        painter.end()

    def focus_changed(self) -> None:
        """Draw the focus ring anew; own-drawn groups override it."""
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if key in PRESS:
            self.pressed.emit()
        elif key in FORWARD or key in BACKWARD:
            self._to_neighbour(1 if key in FORWARD else -1)
        else:
            super().keyPressEvent(event)

    def _to_neighbour(self, step: int) -> None:
        """Keyboard to the next or previous one of its kind beside it, round the ends."""
        beside = self.parentWidget()
        alike = [w for w in beside.findChildren(type(self)) if w.isVisible()] if beside else [self]
        alike[(alike.index(self) + step) % len(alike)].setFocus(Qt.FocusReason.TabFocusReason)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.focus_changed()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self.focus_changed()


class Tryable(Pressable):
    """A card whose change is tried while one points at it, or while it has the keyboard."""

    tried = Signal(bool)

    def enterEvent(self, event: QEnterEvent) -> None:
        super().enterEvent(event)
        self.tried.emit(True)

    def leaveEvent(self, event: QEvent) -> None:
        super().leaveEvent(event)
        self.tried.emit(False)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.tried.emit(True)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self.tried.emit(False)
