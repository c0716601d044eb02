"""A number field with its label, which can be dragged, its symbol and the square of its origin."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QMouseEvent, QShowEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QWidget

from firecrest.app.editing import Editing
from firecrest.app.widgets.marks import Origin
from firecrest.app.widgets.number_field import DRAG_PIXELS, NumberEdit
from firecrest.app.widgets.plain import label
from firecrest.present.frame.bindings import ORIGIN_WORDS, Binding


class DragLabel(QLabel):
    """The label of a field; dragging it sideways moves the value with ghosts."""

    def __init__(self, text: str, edit: NumberEdit) -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(text)
        self._edit = edit
        self._from: tuple[float, float] | None = None
        self.setCursor(Qt.CursorShape.SizeHorCursor)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        value = self._edit.binding.read(self._edit.session.assessment)
        self._from = None if value is None else (event.globalPosition().x(), value)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._from is not None:
            start, value = self._from
            steps = int((event.globalPosition().x() - start) / DRAG_PIXELS)
            if steps:
                self._edit._move(value, steps)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._from = None
        self._edit.session.history.end_fold()


class NumberRow(QWidget):
    """Label, symbol, origin square and box of one figure."""

    def __init__(self, session: Editing, binding: Binding, title: str | None = None) -> None:
        super().__init__()
        self.session, self.binding = session, binding
        self.edit = NumberEdit(session, binding)
        self._origin = Origin()
        facts = binding.facts
        name = DragLabel(title or facts.label, self.edit)
        name.setBuddy(self.edit)
        symbol = label(facts.symbol, "symbol")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 1, 0, 1)
        row.setSpacing(5)
        row.addWidget(name)
        row.addWidget(symbol)
        row.addStretch(1)
        row.addWidget(self._origin)
        row.addWidget(self.edit)
        session.changed.connect(self.refresh)
        self._stale = True

    def showEvent(self, event: QShowEvent) -> None:
        """Rows that are not seen wait with their refresh until they are."""
        super().showEvent(event)
        if self._stale:
            self.refresh()

    def refresh(self) -> None:
        """Show what is in force."""
        path = self.binding.path
        self._stale = not self.isVisible()
        if self._stale or (path[0] != "computed" and not self.session.has(path)):
            return
        self.edit.show_value()
        origin = self.binding.origin(self.session.assessment)
        self._origin.set_origin(origin, ORIGIN_WORDS.get(origin, ""))

    def focus(self) -> None:
        """Take the keyboard."""
        self.edit.setFocus(Qt.FocusReason.OtherFocusReason)
