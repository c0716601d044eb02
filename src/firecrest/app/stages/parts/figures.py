"""Figure rows of a sheet: the field, where it comes from, and its likely range to be set."""

from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QInputDialog, QMenu, QToolButton, QWidget

from firecrest.app.editing import Editing
from firecrest.app.theme.size import fix
from firecrest.app.widgets.number_row import NumberRow
from firecrest.app.widgets.plain import label, tip
from firecrest.design.edits.parts import ORIGINS, set_origin, set_tolerance
from firecrest.design.edits.paths import Path, value_at
from firecrest.present.frame.bindings import ORIGIN_WORDS, at_path
from firecrest.present.parts.datasheet import back_edit, range_text, set_aside_text
from firecrest.present.parts.parts import short_label

FIELD, RANGE = 90, 35
RANGES = (1, 2, 5, 10, 20, 40)


class FigureRow(QWidget):
    """A number row with its range; a figure set aside stands struck through beside it."""

    def __init__(self, editing: Editing, path: Path) -> None:
        super().__init__()
        self.editing, self.path = editing, path
        self.row = NumberRow(editing, at_path(editing.design, path), short_label(str(path[-1])))
        fix(self.row.edit, width=FIELD)
        self.row.edit.setProperty("dense", True)
        self.range = QToolButton()
        self.range.setProperty("role", "range")
        fix(self.range, width=RANGE)
        self.range.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.menu = QMenu(self.range)
        self.menu.aboutToShow.connect(self._fill)
        self.range.setMenu(self.menu)
        self.aside = label("", "struck")
        box = QHBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.row, 1)
        box.addWidget(self.aside)
        box.addWidget(self.range)
        editing.changed.connect(self.refresh)
        self.refresh()

    @property
    def name(self) -> str:
        """Key of the figure."""
        return str(self.path[-1])

    def set_doubted(self, on: bool) -> None:
        """Tint the field of a figure that others contradict."""
        edit = self.row.edit
        if bool(edit.property("doubted")) != on:
            edit.setProperty("doubted", on)
            edit.style().unpolish(edit)
            edit.style().polish(edit)

    def refresh(self) -> None:
        """Show range and what was set aside."""
        if not self.editing.has(self.path):
            return
        part = value_at(self.editing.design, self.path[:-1])
        text = range_text(part, self.name)
        self.range.setText(text or "–")
        facts = self.row.binding.facts
        self.range.setAccessibleName(f"Origin and likely range of {facts.label}: {text or 'none'}")
        tip(self.range, "Where this figure comes from, and how far off it may be")
        aside = set_aside_text(part, self.name)
        self.aside.setText(f"<s>{aside}</s>" if aside else "")
        self.aside.setVisible(bool(aside))

    def _fill(self) -> None:
        """Origins and ranges to choose from."""
        self.menu.clear()
        part = value_at(self.editing.design, self.path[:-1])
        if set_aside_text(part, self.name):
            back = self.menu.addAction(f"Bring back {set_aside_text(part, self.name)}")
            back.triggered.connect(lambda: self._do(back_edit(self.path[:-1], self.name)))
            self.menu.addSeparator()
        for origin in ORIGINS:
            action = self.menu.addAction(ORIGIN_WORDS[origin].capitalize())
            action.setCheckable(True)
            action.setChecked(part.origins.get(self.name) == origin)
            action.triggered.connect(partial(self.choose_origin, origin))
        self.menu.addSeparator()
        for percent in RANGES:
            action = self.menu.addAction(f"±{percent} %")
            action.triggered.connect(partial(self.choose_range, percent / 100))
        self.menu.addAction("Another range…").triggered.connect(self._ask)

    def choose_origin(self, origin: str, _checked: bool = False) -> None:
        """Another origin; the range follows it."""
        self._do(lambda design: set_origin(design, self.path, origin))  # type: ignore[arg-type]

    def choose_range(self, share: float, _checked: bool = False) -> None:
        """Another likely range."""
        self._do(lambda design: set_tolerance(design, self.path, share))

    def _ask(self) -> None:
        percent, good = QInputDialog.getDouble(
            self, "Likely range", "How far off may it be, ± per cent?", 5.0, 0.01, 200.0, 1
        )
        if good:
            self.choose_range(percent / 100)

    def _do(self, edit: "object") -> None:
        editing = self.editing
        editing.attempt(lambda: editing.apply(*edit(editing.design)))  # type: ignore[operator]
