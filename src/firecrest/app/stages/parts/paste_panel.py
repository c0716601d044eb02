"""A pasted sheet: the text as pasted with what was read boxed, and a row per figure to take."""

from collections.abc import Callable

from PySide6.QtGui import QTextCharFormat, QTextCursor
from PySide6.QtWidgets import (
    QApplication,
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QPlainTextEdit,
    QPushButton,
    QScrollArea,
    QTextEdit,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.theme.size import fix
from firecrest.app.theme.style import colour
from firecrest.app.widgets.plain import label, tip
from firecrest.core.errors import FirecrestError
from firecrest.present.parts.pasting import Offer, offers
from firecrest.shelf.pasting import Reading, name_in, read_sheet

STATES = {"clear": "olivet", "check": "ambert", "note": "tray"}


class PastePanel(QWidget):
    """Text on the left, readings on the right; figures that differ start unticked."""

    def __init__(
        self,
        part: Callable[[], object],
        kind: str,
        take: Callable[[list[Offer]], None],
        drop: Callable[[], None],
    ) -> None:
        super().__init__()
        self._part, self._kind, self._take, self._drop = part, kind, take, drop
        self.readings: list[Reading] = []
        self.boxes: list[tuple[QCheckBox, Offer]] = []
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(14)
        self.text = QPlainTextEdit()
        self.text.setAccessibleName("Pasted sheet")
        self.text.setTabChangesFocus(True)
        self.text.setPlaceholderText("Paste the text of a data sheet here, in any units and order.")
        fix(self.text, least_height=150)
        self.text.textChanged.connect(self.read)
        row.addWidget(self.text, 2)
        right = QVBoxLayout()
        self.said = label("", "second")
        self.said.setWordWrap(True)
        right.addWidget(self.said)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setObjectName("scroll")
        right.addWidget(self._scroll, 1)
        buttons = QHBoxLayout()
        self.take_button = QPushButton("Take")
        self.take_button.setProperty("role", "main")
        self.take_button.clicked.connect(self.take)
        drop_button = QPushButton("Drop")
        drop_button.clicked.connect(drop)
        buttons.addWidget(self.take_button)
        buttons.addWidget(drop_button)
        self.all_button = QPushButton("Tick all")
        self.all_button.clicked.connect(self.tick_all)
        buttons.addWidget(self.all_button)
        buttons.addStretch(1)
        right.addLayout(buttons)
        row.addLayout(right, 3)
        clipboard = QApplication.clipboard().text()
        if self._likely(clipboard):
            self.text.setPlainText(clipboard)
        else:
            self.read()

    def _likely(self, text: str) -> bool:
        """Whether a text holds figures of a sheet."""
        try:
            return sum(r.figure != "" for r in read_sheet(text, self._kind)) >= 2
        except FirecrestError:
            return False

    @property
    def name(self) -> str:
        """The part's name as the text seems to have it."""
        return name_in(self.text.toPlainText(), self.readings)

    def read(self) -> None:
        """Read the text again: boxes in it, and rows beside it."""
        try:
            self.readings = read_sheet(self.text.toPlainText(), self._kind)
            problem = ""
        except FirecrestError as error:
            self.readings, problem = [], str(error)
        self._mark()
        found = offers(self._part(), self.readings)
        self._rows(found)
        notes = sum(r.state == "note" for r in self.readings)
        differ = sum(o.differs for o in found)
        summary = f"{len(found)} figures read, {differ} differ, {notes} kept as notes"
        self.said.setText(problem or summary)
        self._count()

    def _mark(self) -> None:
        """Readings boxed in place: olive clear, amber to be checked, grey a note."""
        marks = []
        for reading in self.readings:
            mark = QTextEdit.ExtraSelection()
            form = QTextCharFormat()
            form.setBackground(colour(STATES[reading.state]))
            tip(form, reading.remark)
            cursor = QTextCursor(self.text.document())
            cursor.setPosition(reading.start)
            cursor.setPosition(reading.end, QTextCursor.MoveMode.KeepAnchor)
            mark.format, mark.cursor = form, cursor
            marks.append(mark)
        self.text.setExtraSelections(marks)

    def _rows(self, found: list[Offer]) -> None:
        """One row per figure: take or not, in the sheet, here now."""
        holder = QWidget()
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 0, 6, 0)
        grid.setHorizontalSpacing(14)
        grid.setVerticalSpacing(1)
        for c, title in enumerate(("figure", "in the sheet", "here now", "")):
            grid.addWidget(label(title, "hint"), 0, c)
        self.boxes = []
        for r, offer in enumerate(found, 1):
            box = QCheckBox(offer.symbol)
            box.setAccessibleName(f"Take {offer.symbol} {offer.value_text}")
            box.setChecked(not offer.differs)
            box.toggled.connect(self._count)
            grid.addWidget(box, r, 0)
            grid.addWidget(label(offer.value_text, "figure"), r, 1)
            grid.addWidget(label(offer.here or "–", "bad" if offer.differs else "second"), r, 2)
            remark = label(offer.remark, "hint")
            remark.setWordWrap(True)
            grid.addWidget(remark, r, 3)
            self.boxes.append((box, offer))
        grid.setColumnStretch(3, 1)
        grid.setRowStretch(len(found) + 1, 1)
        self._scroll.setWidget(holder)

    @property
    def ticked(self) -> list[Offer]:
        """Figures to be taken."""
        return [offer for box, offer in self.boxes if box.isChecked()]

    def tick_all(self) -> None:
        """Tick every figure, those that differ too."""
        for box, _ in self.boxes:
            box.setChecked(True)

    def _count(self) -> None:
        count = len(self.ticked)
        self.take_button.setText(f"Take {count} figure{'s' if count != 1 else ''}")
        self.take_button.setEnabled(count > 0)

    def take(self) -> None:
        """Take what is ticked."""
        if self.ticked:
            self._take(self.ticked)
