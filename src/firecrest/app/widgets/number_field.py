"""The number field: any unit, sums and fractions; ghosts while typing; bad input refused.

Enter keeps, Esc restores. Arrows and wheel step the last shown digit (Shift ten times, Ctrl a
tenth); dragging the label does the same. The accepted range comes from the model's declaration.
"""

from functools import partial

from PySide6.QtCore import QEvent, QPoint, Qt
from PySide6.QtGui import (
    QContextMenuEvent,
    QFocusEvent,
    QHideEvent,
    QKeyEvent,
    QKeySequence,
    QWheelEvent,
)
from PySide6.QtWidgets import QApplication, QLabel, QLineEdit, QMenu

from firecrest.app.editing import Editing, Typed
from firecrest.app.settings import chosen_unit, settings, unit_key
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import set_role
from firecrest.app.widgets.number_card import NumberCard
from firecrest.app.widgets.plain import label, tip
from firecrest.core.errors import FirecrestError
from firecrest.core.units import QUANTITIES, THIN_SPACE, from_si, to_si
from firecrest.design.history import ARROW
from firecrest.present.frame.bindings import Binding
from firecrest.present.frame.owners import named, owner_of
from firecrest.present.text.units import told, units

DRAG_PIXELS = 4
FIELD_WIDTH = 102
HINT = "fieldHint"
"""The one note under a field, of each window."""


def _forget(typed: list[Typed], key: int, *_: object) -> None:
    """A field that is gone is no longer typed into."""
    typed[:] = [field for field in typed if id(field) != key]


class NumberEdit(QLineEdit):
    """The box itself."""

    def __init__(self, session: Editing, binding: Binding) -> None:
        super().__init__()
        self.session, self.binding = session, binding
        self._hint: QLabel | None = None
        self._typing = False
        self._unit: str | None = None
        self.setProperty("kind", "number")
        self.setAlignment(Qt.AlignmentFlag.AlignRight)
        fix(self, width=FIELD_WIDTH)
        facts = binding.facts
        self._accepted = facts.range_text()
        owner = owner_of(session.design, binding.path)
        self.setAccessibleName(named(f"{facts.label} {facts.symbol}".strip(), owner))
        self.textEdited.connect(self._typed)
        self._known: tuple[float | None, str, str] | None = None
        self.show_value()

    # what is shown ----------------------------------------------------------

    @property
    def unit(self) -> str:
        """Unit in force for this kind of figure."""
        if self._unit is None:
            self._unit = self._chosen_unit()
        return self._unit

    def _chosen_unit(self) -> str:
        return units.unit(self.binding.facts.quantity, self.binding.facts.unit)

    def show_value(self) -> None:
        """The value in force, unless something is being typed."""
        if self._typing:
            return
        value = self.binding.read(self.session.assessment)
        here = (value, self.unit, self.text())
        if value is not None and here == self._known and not self.property("refused"):
            return
        self.setText(self._text(value))
        self._known = (value, self.unit, self.text())
        empty = self.binding.placeholder(self.session.assessment) if value is None else ""
        self.setPlaceholderText(empty)
        self._describe(empty)
        self._flag("unknown", empty == "not known")
        self._flag("refused", False)

    def _describe(self, empty: str) -> None:
        """What it is for, what is accepted, and what stands for the figure where it has none."""
        help = f"{self.binding.facts.help} Accepted: {self._accepted}.".strip()
        said = f"Empty: {empty.strip('()')}. {help}" if empty else help
        if self.accessibleDescription() != said:
            self.setAccessibleDescription(said)

    def _text(self, value: float | None) -> str:
        if value is None:
            return ""
        facts = self.binding.facts
        if self.unit == facts.unit:
            return facts.show(value).replace(THIN_SPACE, " ")
        return told(value, facts.quantity, facts.unit, facts.digits).replace(THIN_SPACE, " ")

    def _flag(self, name: str, on: bool) -> None:
        if self.property(name) != on:
            self.setProperty(name, on)
            self.style().unpolish(self)
            self.style().polish(self)

    # typing ------------------------------------------------------------------

    def _typed(self, text: str) -> None:
        self._open(True)
        self._flag("refused", False)
        try:
            label, design = self.binding.typed(self.session.assessment, text, self.unit)
        except FirecrestError as error:
            self.session.drop_trial()
            self._say(str(error), "reading")
            return
        self._say(f"= {label.split(ARROW)[-1]}".replace("= empty", "not known"), "reading")
        self.session.try_design(design)

    def _open(self, on: bool) -> None:
        """Whether something is being typed, or stands refused, here."""
        if on and not self._typing:
            self.session.typed.append(self)
            self.destroyed.connect(partial(_forget, self.session.typed, id(self)))
        elif self._typing and not on:
            self.session.typed.remove(self)
        self._typing = on

    def keep(self) -> bool:
        """Put what is typed in force; False (and the old value stays) when it is refused."""
        if not self._typing:
            return True
        try:
            label, design = self.binding.typed(self.session.assessment, self.text(), self.unit)
        except FirecrestError as error:
            self.session.drop_trial()
            self._flag("refused", True)
            self.setAccessibleDescription(f"Refused. {error}")
            before = self._text(self.binding.read(self.session.assessment)) or "not known"
            self._say(f"{error}\n{before} stays in force.", "refusal")
            return False
        self._open(False)
        self._quiet()
        self.session.apply(label, design)
        self.show_value()
        return True

    def restore(self) -> None:
        """Back to the value in force."""
        self._open(False)
        self._quiet()
        self.session.drop_trial()
        if self._stands():
            self.show_value()

    def step(self, steps: float) -> None:
        """Move by ``steps`` of the last shown digit; one undo step for a row of them."""
        value = self.binding.read(self.session.assessment)
        if self._typing or value is None:
            return
        self._move(value, steps)

    def _move(self, value: float, steps: float) -> None:
        facts, unit = self.binding.facts, self.unit
        digits = units.digits(facts.quantity, facts.unit, facts.digits)
        smallest = 1.0 if facts.whole else 10.0**-digits
        steps = round(steps) or (1 if steps > 0 else -1) if facts.whole else steps
        moved = to_si(from_si(value, facts.quantity, unit) + steps * smallest, facts.quantity, unit)
        moved = min(max(moved, facts.low), facts.high)
        try:
            label, design = self.binding.edited(self.session.assessment, moved)
        except FirecrestError as error:
            self._say(str(error), "refusal")
            return
        self.session.apply(label, design, fold=f"step {self.binding.path}")

    # the small note under the field -----------------------------------------

    def _say(self, text: str, role: str) -> None:
        if not self.isVisible():
            return
        window = self.window()
        self._hint = window.findChild(QLabel, HINT) or label(parent=window)
        self._hint.setObjectName(HINT)
        self._hint.setText(text)
        set_role(self._hint, role)
        self._hint.adjustSize()
        spot = self.mapTo(window, QPoint(self.width() - self._hint.width(), self.height() + 2))
        x = min(max(spot.x(), 4), window.width() - self._hint.width() - 4)
        y = min(spot.y(), window.height() - self._hint.height() - 4)
        self._hint.move(x, y)
        self._hint.raise_()
        self._hint.show()

    def _quiet(self) -> None:
        if self._hint is not None:
            self._hint.hide()
            self._hint = None

    # events -------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, mods = event.key(), event.modifiers()
        factor = (
            10.0
            if mods & Qt.KeyboardModifier.ShiftModifier
            else (0.1 if mods & Qt.KeyboardModifier.ControlModifier else 1.0)
        )
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            if self.keep():
                self.selectAll()
        elif key == Qt.Key.Key_Escape:
            self.restore()
            self.selectAll()
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.step(factor if key == Qt.Key.Key_Up else -factor)
            if not self._typing:
                self.selectAll()  # what is typed next replaces the figure
        elif key == Qt.Key.Key_F4:
            self.show_card()
        elif event.matches(QKeySequence.StandardKey.Undo):
            self._take_back()
        elif event.matches(QKeySequence.StandardKey.Redo) and not self._typing:
            self.session.redo()
        elif event.matches(QKeySequence.StandardKey.Paste) and self._paste_column():
            return
        else:
            super().keyPressEvent(event)

    def _take_back(self) -> None:
        """A step of what is being typed; a text that is back to what is in force is typed no more.

        Else a step of the document.
        """
        if not self._typing:
            self.session.undo()
            return
        self.undo()
        before = self._text(self.binding.read(self.session.assessment))
        if not self.isUndoAvailable() or self.text() == before:
            self.restore()

    def event(self, event: QEvent) -> bool:
        """Undo and redo belong to the document unless something is being typed."""
        if event.type() == QEvent.Type.ToolTip:
            tip(self, self.binding.about(self.session.assessment))
        if event.type() == QEvent.Type.ShortcutOverride and not self._typing:
            assert isinstance(event, QKeyEvent)
            if event.matches(QKeySequence.StandardKey.Undo) or event.matches(
                QKeySequence.StandardKey.Redo
            ):
                event.ignore()
                return False
        return super().event(event)

    def _paste_column(self) -> bool:
        """A pasted column fills this row and those below; False when it is one value."""
        lines = [line for line in QApplication.clipboard().text().splitlines() if line.strip()]
        if len(lines) < 2:
            return False
        parent = self.parentWidget()
        column = parent.parentWidget() if parent else None
        rows = column.findChildren(NumberEdit) if column else [self]
        rows = [r for r in rows if r.isVisible() or r is self]
        for row, line in zip(rows[rows.index(self) :], lines, strict=False):
            row.setText(line)
            row._typed(line)
            if not row.keep():
                break
        return True

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.selectAll()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if event.reason() != Qt.FocusReason.PopupFocusReason:
            self.keep()
            if not self.property("refused"):
                self._quiet()

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self._quiet()
        if self.property("refused") and not event.spontaneous():
            self.restore()  # out of sight it would stand in the way of undo

    def _stands(self) -> bool:
        """Whether its figure is still there: a field may go because what it is of has gone."""
        return self.binding.path[0] == "computed" or self.session.has(self.binding.path)

    def wheelEvent(self, event: QWheelEvent) -> None:
        """The wheel steps a focused field only, so that scrolling never edits."""
        if not self.hasFocus():
            event.ignore()
            return
        self.step(1.0 if event.angleDelta().y() > 0 else -1.0)
        event.accept()

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        menu = self.createStandardContextMenu()
        menu.addSeparator()
        units = QMenu("Show in", menu)
        for unit in QUANTITIES[self.binding.facts.quantity].units:
            action = units.addAction(unit.label or "plain number")
            action.setCheckable(True)
            action.setChecked(unit.label == self.unit)
            action.triggered.connect(lambda _=False, label=unit.label: self.choose_unit(label))
        if len(units.actions()) > 1:
            menu.addMenu(units)
        about = menu.addAction("Where this number comes from\tF4")
        about.triggered.connect(lambda _=False: self.show_card())
        menu.exec(event.globalPos())
        menu.deleteLater()

    def show_card(self) -> None:
        """Where this number comes from and what it moves."""
        if self.keep():
            self.card = NumberCard(self, self.session, self.binding, self.unit)
            self.card.show()

    def choose_unit(self, label: str) -> None:
        """Show this kind of figure in another unit, here, in every such field and in all texts."""
        settings.put(unit_key(self.binding.facts.quantity, self.binding.facts.unit), label)
        units.follow(chosen_unit)
        for edit in self.window().findChildren(NumberEdit):
            edit._unit = None
        self.session.changed.emit()
