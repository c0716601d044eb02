"""A whole number between two buttons; arrows step it, typing is not needed."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QToolButton, QWidget

from firecrest.app.theme.size import fix
from firecrest.app.widgets.plain import label


class Stepper(QWidget):
    """Shows ``word`` and a number from ``low`` to ``high``; tells when a person changes it."""

    stepped = Signal(int)

    def __init__(self, word: str, name: str, low: int, high: int) -> None:
        super().__init__()
        self._word, self._name, self._range = word, name, (low, high)
        self.value = low
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(3)
        self.less, self.more = QToolButton(), QToolButton()
        self.shown = label("", "figure")
        fix(self.shown, least_width=24)
        self.shown.setAlignment(Qt.AlignmentFlag.AlignCenter)
        for button, text, by in ((self.less, "−", -1), (self.more, "+", 1)):
            button.setText(text)
            fix(button, width=24, height=24)
            button.setAccessibleName(f"{name}: one {'less' if by < 0 else 'more'}")
            button.clicked.connect(lambda _=False, by=by: self.step(by))
        for widget in (self.less, self.shown, self.more):
            row.addWidget(widget)
        self.show_value(low)

    def show_value(self, value: int) -> None:
        """Show a number without telling."""
        self.value = value
        self.shown.setText(f"{self._word} {value}".strip())
        self.less.setEnabled(value > self._range[0])
        self.more.setEnabled(value < self._range[1])
        self.setAccessibleName(f"{self._name}: {value}")

    def step(self, by: int) -> None:
        """One up or down, within the range."""
        value = min(max(self.value + by, self._range[0]), self._range[1])
        if value != self.value:
            self.show_value(value)
            self.stepped.emit(value)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1, Qt.Key.Key_Plus: 1, Qt.Key.Key_Minus: -1}
        key = Qt.Key(event.key())
        if key in steps:
            self.step(steps[key])
        else:
            super().keyPressEvent(event)
