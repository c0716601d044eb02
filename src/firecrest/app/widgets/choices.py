"""Choices that change the design: drop-downs, segments, ticks and texts bound to a path."""

from collections.abc import Callable, Sequence
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QWidget,
)

from firecrest.app.editing import Editing
from firecrest.app.widgets.plain import label
from firecrest.app.widgets.text_field import TextField
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.fields import label_of
from firecrest.present.frame.owners import named, owner_of

Options = Sequence[tuple[Any, str]]
Make = Callable[[Design, Any], tuple[str, Design]]
"""(design, value) -> (label, design): what choosing a value changes beside it."""


class CalmCombo(QComboBox):
    """A drop-down that the wheel does not change in passing."""

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()


class Segments(QWidget):
    """A row of buttons of which one is down."""

    chosen = Signal(object)

    def __init__(self, options: Options, name: str) -> None:
        super().__init__()
        self._group = QButtonGroup(self)
        self._values = [value for value, _ in options]
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(2)
        self.setAccessibleName(name)
        for place, (_, text) in enumerate(options):
            button = QPushButton(text)
            button.setCheckable(True)
            button.setAccessibleName(f"{name}: {text}")
            self._group.addButton(button, place)
            row.addWidget(button)
        self._group.idClicked.connect(lambda place: self.chosen.emit(self._values[place]))

    def choose(self, value: object) -> None:
        """Put the button of ``value`` down without telling."""
        if value in self._values:
            self._group.button(self._values.index(value)).setChecked(True)

    def button(self, value: object) -> QPushButton:
        """The button of ``value``."""
        found = self._group.button(self._values.index(value))
        assert isinstance(found, QPushButton)
        return found


def bound_segments(session: Editing, path: Path, options: Options) -> Segments:
    """Segments that show and set the value at ``path``."""
    segments = Segments(options, _label(session, path))
    segments.chosen.connect(lambda value: session.attempt(lambda: session.edit(path, value)))
    _follow(session, path, segments.choose, segments)
    return segments


def bound_combo(
    session: Editing, path: Path, options: Options, make: Make | None = None
) -> QComboBox:
    """A drop-down that shows and sets the value at ``path``; ``make`` says what else changes."""
    combo = CalmCombo()
    combo.setAccessibleName(_label(session, path))
    combo.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
    values = [value for value, _ in options]
    for _, text in options:
        combo.addItem(text)

    def show(value: object) -> None:
        # Another design may hold another value before the fields are built anew for it.
        combo.setCurrentIndex(values.index(value) if value in values else -1)

    def _chosen(place: int) -> None:
        if not session.attempt(lambda: _set(session, path, values[place], make)):
            show(value_at(session.design, path))

    combo.activated.connect(_chosen)
    _follow(session, path, show, combo)
    return combo


def _set(session: Editing, path: Path, value: Any, make: Make | None) -> None:
    if make is None:
        session.edit(path, value)
    else:
        session.apply(*make(session.design, value))


def bound_check(session: Editing, path: Path, text: str, make: Make | None = None) -> QCheckBox:
    """A tick that shows and sets the yes/no at ``path``; ``make`` says what else changes."""
    box = QCheckBox(text)
    box.setAccessibleName(named(text, owner_of(session.design, path)))

    def _chosen(on: bool) -> None:
        if not session.attempt(lambda: _set(session, path, bool(on), make)):
            box.setChecked(bool(value_at(session.design, path)))

    box.clicked.connect(_chosen)
    _follow(session, path, box.setChecked, box)
    return box


def bound_text(session: Editing, path: Path) -> QLineEdit:
    """A line of text that shows and sets the text at ``path``."""
    edit = TextField(session, path)
    edit.setAccessibleName(_label(session, path))
    _follow(session, path, edit.show_text, edit)
    return edit


def _label(session: Editing, path: Path) -> str:
    name = label_of(type(value_at(session.design, path[:-1])), str(path[-1]))
    return named(name, owner_of(session.design, path))


def _follow(session: Editing, path: Path, show: Callable[[Any], object], widget: QWidget) -> None:
    """Keep ``widget`` showing the value at ``path`` while both exist."""
    widget.setProperty("path", ".".join(map(str, path)))

    def refresh() -> None:
        if session.has(path):
            show(value_at(session.design, path))

    session.changed.connect(refresh)
    widget.destroyed.connect(lambda: unhook(session, refresh))
    refresh()


def unhook(session: Editing, refresh: Callable[[], None]) -> None:
    """Stop a widget that goes from following; the session may have gone before it."""
    try:
        session.changed.disconnect(refresh)
    except (RuntimeError, TypeError):
        return


def labelled(text: str, widget: QWidget) -> QWidget:
    """A row with a text on the left and a widget on the right."""
    holder = QWidget()
    row = QHBoxLayout(holder)
    row.setContentsMargins(0, 1, 0, 1)
    name = label(text)
    name.setBuddy(widget)
    row.addWidget(name)
    row.addStretch(1)
    row.addWidget(widget)
    return holder


def set_role(widget: QWidget, role: str) -> None:
    """Give a widget another role of the style sheet."""
    if widget.property("role") != role:
        widget.setProperty("role", role)
        widget.style().unpolish(widget)
        widget.style().polish(widget)
