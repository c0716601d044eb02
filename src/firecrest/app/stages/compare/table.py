"""Variants as columns: their promises, how low they go, and what differs between them."""

from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from firecrest.app.stages.compare.cells import PromiseCell
from firecrest.app.theme.size import fix, sized
from firecrest.app.widgets.plain import label, tip
from firecrest.design.edits.paths import Path
from firecrest.present.compare.columns import Compared, reaches
from firecrest.present.compare.differing import Difference
from firecrest.present.text import words

FEW = 6
NAMES, COLUMN = 108, 126
REACHES = (("small", "F3 / F6 / F10, Hz"), ("level", "at the promise, Hz"))
HINTS = {
    "F3 / F6 / F10, Hz": "Of small signals: where the response is 3, 6 and 10 dB down",
    "at the promise, Hz": "The same at the promised level",
}


class VariantTable(QWidget):
    """One column a variant; the one in force is framed."""

    def __init__(self, switch: Callable[[str], None], bring: Callable[[Path, str], None]) -> None:
        super().__init__()
        self._switch, self._bring = switch, bring
        self._box = QVBoxLayout(self)
        self._box.setContentsMargins(0, 0, 0, 0)
        self._box.setSpacing(4)
        self._columns: list[str] = []
        self._here = ""
        self._rows: Sequence[Difference] = ()
        self._all = False
        self._frame = QFrame(self)
        self._frame.setProperty("role", "column")
        self._promises, self._differences = QWidget(), QWidget()
        self._box.addWidget(self._promises)
        self._box.addWidget(self._differences)
        self._box.addStretch(1)
        self.heads: dict[str, QPushButton] = {}
        self.cells: dict[tuple[str, str], PromiseCell] = {}
        self.texts: dict[tuple[str, str], QLabel] = {}
        self.carried: dict[tuple[str, Path], QPushButton] = {}

    def _anew(self, old: QWidget) -> tuple[QWidget, QGridLayout]:
        """An empty grid in the place of an older one."""
        made = QWidget()
        grid = QGridLayout(made)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(4)
        grid.setVerticalSpacing(1)
        grid.setColumnMinimumWidth(0, sized(NAMES))
        for c in range(1, len(self._columns) + 1):
            grid.setColumnMinimumWidth(c, sized(COLUMN))
        grid.setColumnStretch(len(self._columns) + 1, 1)
        self._box.replaceWidget(old, made)
        old.hide()
        old.deleteLater()
        return made, grid

    # promises ---------------------------------------------------------------------

    def show_columns(self, columns: Sequence[Compared]) -> None:
        """Show all variants."""
        if [c.letter for c in columns] != self._columns:
            self._columns = [c.letter for c in columns]
            self._build()
        here = next(c.letter for c in columns if c.here)
        if here != self._here:
            self._here = here
            self._show_rows()
        for column in columns:
            self._show(column)
        self._place_frame()

    def _show(self, column: Compared) -> None:
        head = self.heads[column.letter]
        room = sized(COLUMN - 26)
        title = head.fontMetrics().elidedText(column.title, Qt.TextElideMode.ElideRight, room)
        head.setText(title.replace("&", "&&"))
        head.setChecked(column.here)
        head.setAccessibleName(f"{column.title}, {column.standing}")
        tip(head, f"{column.title}\n{column.standing}\nPress to work on it")
        for key, meter in column.meters.items():
            self.cells[column.letter, key].show_meter(meter, column.letter)
        small, level = reaches(column.assessment)
        for key, text in (("standing", column.standing), ("small", small), ("level", level)):
            self.texts[column.letter, key].setText(text)

    def _build(self) -> None:
        self._promises, grid = self._anew(self._promises)
        self.heads, self.cells, self.texts = {}, {}, {}
        grid.addWidget(label("Promises", "section"), 0, 0)
        rows = [*words.PROMISE_NAMES.items(), *REACHES]
        for r, (_, name) in enumerate(rows, start=2):
            named = label(name)
            tip(named, HINTS.get(name, name))
            grid.addWidget(named, r, 0)
        for c, letter in enumerate(self._columns, start=1):
            self.heads[letter] = head = QPushButton()
            head.setCheckable(True)
            head.setProperty("compact", "true")
            fix(head, width=COLUMN)
            head.clicked.connect(partial(self._press, letter))
            grid.addWidget(head, 0, c)
            self.texts[letter, "standing"] = label("", "hint")
            grid.addWidget(self.texts[letter, "standing"], 1, c)
            for r, (key, _) in enumerate(rows, start=2):
                grid.addWidget(self._cell(letter, key), r, c)

    def _cell(self, letter: str, key: str) -> QWidget:
        if key in words.PROMISE_NAMES:
            self.cells[letter, key] = PromiseCell()
            return self.cells[letter, key]
        self.texts[letter, key] = label("", "value")
        return self.texts[letter, key]

    def _press(self, letter: str, _checked: bool = False) -> None:
        self.heads[letter].setChecked(letter == self._here)
        self._switch(letter)

    # what differs ----------------------------------------------------------------

    def show_differences(self, rows: Sequence[Difference]) -> None:
        """Show what differs, those that tell most first."""
        self._rows = rows
        self._show_rows()

    def _turn(self) -> None:
        self._all = not self._all
        self._show_rows()

    def _show_rows(self) -> None:
        self._differences, grid = self._anew(self._differences)
        self.carried = {}
        grid.addWidget(label("What differs", "section"), 0, 0)
        shown = self._rows if self._all else self._rows[:FEW]
        for r, row in enumerate(shown, start=1):
            named = label(row.label)
            named.setWordWrap(True)
            fix(named, width=NAMES)
            grid.addWidget(named, r, 0)
            for c, letter in enumerate(self._columns, start=1):
                grid.addWidget(self._value(row, letter), r, c)
        if len(self._rows) > FEW:
            more = QPushButton("Show the first six" if self._all else f"All {len(self._rows)}")
            more.setProperty("compact", "true")
            more.clicked.connect(lambda _=False: self._turn())
            grid.addWidget(more, len(shown) + 1, 0)
        if not self._rows:
            only = "one variant: Ctrl+D copies it" if len(self._columns) == 1 else "nothing"
            grid.addWidget(label(only, "second"), 1, 0, 1, 2)
        self._place_frame()

    def _value(self, row: Difference, letter: str) -> QWidget:
        """A value; one of another variant can be brought into the one in force."""
        text, here = row.values.get(letter, "–"), row.values.get(self._here, "–")
        if letter == self._here or text == here:
            shown = label(text, "value")
            shown.setWordWrap(True)
            fix(shown, width=COLUMN)
            return shown
        button = QPushButton()
        button.setProperty("role", "value")
        fix(button, width=COLUMN)
        room = sized(COLUMN - 12)
        elided = button.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, room)
        button.setText(elided.replace("&", "&&"))
        button.setAccessibleName(f"{row.label} of {letter}: {text}. Press to bring it into here")
        tip(button, f"Bring {text} from {letter} into {self._here}")
        button.clicked.connect(lambda _=False, one=row.path: self._bring(one, letter))
        self.carried[letter, row.path] = button
        return button

    # the frame round the column in force ---------------------------------------------

    def _place_frame(self) -> None:
        if self._here in self.heads:
            head = self.heads[self._here].geometry()
            bottom = self._differences.geometry().bottom() + 2
            self._frame.setGeometry(head.x() - 2, 0, head.width() + 4, bottom)
            self._frame.lower()
            self._frame.show()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        QTimer.singleShot(0, self, self._place_frame)
