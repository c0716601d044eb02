"""The tray: one card for each part in use."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QMouseEvent, QResizeEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QVBoxLayout

from firecrest.app.widgets.marks import Origin
from firecrest.app.widgets.plain import label, tip
from firecrest.app.widgets.pressable import Pressable
from firecrest.assessment.assess import Assessment
from firecrest.design.edits.paths import Path
from firecrest.present.parts import parts as shown
from firecrest.present.parts.parts import PartCard

PADDING = 10


class CardWidget(Pressable):
    """One part of the design."""

    chosen = Signal(object)
    opened = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setProperty("role", "card")
        tip(self, "Press to see what else would do; press twice for its sheet.")
        self.card: PartCard | None = None
        self.pressed.connect(lambda: self.chosen.emit(self.card))
        box = QVBoxLayout(self)
        box.setContentsMargins(PADDING, 6, PADDING, 8)
        box.setSpacing(1)
        self._lines = [label("", role) for role in ("hint", "figure", "", "second")]
        for line in self._lines:
            box.addWidget(line)
        row = QHBoxLayout()
        row.setSpacing(3)
        self._origins: list[tuple[Origin, QLabel]] = []
        for _ in range(3):
            mark, count = Origin(), label("", "hint")
            row.addWidget(mark)
            row.addWidget(count)
            self._origins.append((mark, count))
        row.addStretch(1)
        self._spare = label("", "figure")
        row.addWidget(self._spare)
        box.addLayout(row)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit_name()

    def _fit_name(self) -> None:
        """As much of the name as there is room for."""
        if self.card is not None:
            room = self.width() - 2 * PADDING
            line = self._lines[1]
            line.setText(
                line.fontMetrics().elidedText(self.card.name, Qt.TextElideMode.ElideRight, room)
            )

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.opened.emit(self.card)

    def show_card(self, card: PartCard, chosen: bool, updated: bool = False) -> None:
        """Show a part; the chosen one is marked, and one with news on the shelf says so."""
        self.card = card
        for line, text in zip(
            self._lines, (card.kind, card.name, card.count, card.cost), strict=True
        ):
            line.setText(text)
        self._fit_name()
        for (mark, count), origin in zip(
            self._origins, ("measured", "sheet", "estimate"), strict=True
        ):
            n = card.origins.get(origin, 0)
            mark.setVisible(n > 0)
            count.setVisible(n > 0)
            mark.set_origin(origin, origin)
            count.setText(str(n))
        self._spare.setText(card.spare)
        self._spare.setProperty("role", "bad" if card.short else "figure")
        if updated:
            self._lines[3].setText("new figures on the shelf")
        news = ", new figures on the shelf" if updated else ""
        said = f"{card.kind}: {card.whose}, {card.count}, {card.spare} dB to spare{news}"
        self.setAccessibleName(said)
        if self.property("chosen") != chosen:
            self.setProperty("chosen", chosen)
        for widget in (self, self._spare):
            widget.style().unpolish(widget)
            widget.style().polish(widget)


class Tray(QFrame):
    """The parts in use, in chain order; a press chooses, a double press opens the sheet."""

    chosen = Signal(object)
    opened = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setProperty("role", "tray")
        box = QVBoxLayout(self)
        box.setContentsMargins(PADDING, 6, PADDING, 8)
        box.setSpacing(4)
        head = QHBoxLayout()
        head.addWidget(label("In this design", "section"))
        self._total = label("", "second")
        head.addWidget(self._total)
        head.addStretch(1)
        self._where = label("", "hint")
        head.addWidget(self._where)
        box.addLayout(head)
        self._row = QHBoxLayout()
        self._row.setSpacing(8)
        box.addLayout(self._row)
        self.cards: list[CardWidget] = []

    def show_parts(self, assessment: Assessment, chosen: Path, updated: set[Path]) -> None:
        """Show all cards; those with news on the shelf say so."""
        cards = shown.cards(assessment)
        while len(self.cards) < len(cards):
            widget = CardWidget()
            widget.chosen.connect(self.chosen)
            widget.opened.connect(self.opened)
            self._row.addWidget(widget, 1)
            self.cards.append(widget)
        for k, widget in enumerate(self.cards):
            widget.setVisible(k < len(cards))
            if k < len(cards):
                card = cards[k]
                widget.show_card(card, card.path == chosen, card.path in updated)
        self._total.setText(shown.totals(assessment))
        self._where.setText(shown.spare_at(assessment))
