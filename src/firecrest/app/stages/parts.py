"""Parts: those in use and their data; a missing figure is shown as missing, never as zero."""

from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import Stage, column, columns, grid_of, numbers
from firecrest.app.widgets.choices import bound_text, label, labelled
from firecrest.app.widgets.marks import Origin
from firecrest.app.widgets.pressable import Pressable
from firecrest.present import parts as shown
from firecrest.present.parts import PartCard


class CardWidget(Pressable):
    """One part of the design."""

    clicked = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setProperty("role", "card")
        self.card: PartCard | None = None
        self.pressed.connect(lambda: self.clicked.emit(self.card))
        box = QVBoxLayout(self)
        box.setContentsMargins(10, 6, 10, 8)
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

    def show_card(self, card: PartCard, chosen: bool) -> None:
        """Show a part; the chosen one is marked."""
        self.card = card
        for line, text in zip(
            self._lines, (card.kind, card.name, card.count, card.cost), strict=True
        ):
            line.setText(text)
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
        self.setAccessibleName(f"{card.kind}: {card.name}, {card.count}, {card.spare} dB to spare")
        if self.property("chosen") != chosen:
            self.setProperty("chosen", chosen)
        for widget in (self, self._spare):
            widget.style().unpolish(widget)
            widget.style().polish(widget)


class PartsStage(Stage):
    """A tray of the parts in use over the data of the chosen one."""

    key, title, subtitle = "parts", "Parts", "what you chose, and what is known of it"

    def __init__(self, session: Session) -> None:
        self._chosen: Any = ("box", "groups", 0, "driver")
        super().__init__(session)

    def build_heart(self) -> None:
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 4, 0, 4)
        tray = QFrame()
        tray.setProperty("role", "tray")
        inner = QVBoxLayout(tray)
        inner.setContentsMargins(10, 6, 10, 10)
        head = QHBoxLayout()
        head.addWidget(label("In this design", "section"))
        self._total = label("", "second")
        head.addWidget(self._total)
        head.addStretch(1)
        self._where = label("", "hint")
        head.addWidget(self._where)
        inner.addLayout(head)
        self._cards_row = QHBoxLayout()
        self._cards_row.setSpacing(8)
        inner.addLayout(self._cards_row)
        self.cards: list[CardWidget] = []
        box.addWidget(tray)
        self.splitter.setSizes([160, 440])
        self.splitter.setStretchFactor(0, 0)
        self.splitter.setStretchFactor(1, 1)

    def structure(self) -> Any:
        cards = shown.cards(self.session.assessment)
        if self._chosen not in [c.path for c in cards]:
            self._chosen = cards[0].path
        return self._chosen, tuple(c.path for c in cards)

    def choose(self, card: PartCard) -> None:
        """Show the data of another part."""
        self._chosen = card.path
        self._renew()

    def reveal(self, path: Any) -> bool:
        for card in shown.cards(self.session.assessment):
            if path[: len(card.path)] == card.path and self.isVisible():
                self.choose(card)
        return super().reveal(path)

    def build_lower(self) -> QWidget:
        session = self.session
        groups = shown.figure_groups(session.design, self._chosen)
        parts = []
        for k, (title, paths) in enumerate(groups):
            rows: list[QWidget] = []
            if k == 0:
                name = bound_text(session, (*self._chosen, "name"))
                name.setFixedWidth(150)
                rows.append(labelled("Name", name))
            parts.append(column(title, "", *rows, *numbers(session, *paths)))
        parts.append(self._derived_column())
        return columns(*parts)

    def _derived_column(self) -> QWidget:
        self._notes = label("", "caution")
        self._notes.setWordWrap(True)
        self._derived = [
            [label("", "second"), label("", "figure"), label("", "hint")] for _ in range(9)
        ]
        return column("Follows from these", "", self._notes, grid_of(self._derived))

    def refresh(self) -> None:
        """Draw tray and derived figures."""
        a = self.session.assessment
        cards = shown.cards(a)
        while len(self.cards) < len(cards):
            widget = CardWidget()
            widget.clicked.connect(self.choose)
            self._cards_row.addWidget(widget, 1)
            self.cards.append(widget)
        for k, widget in enumerate(self.cards):
            widget.setVisible(k < len(cards))
            if k < len(cards):
                widget.show_card(cards[k], cards[k].path == self._chosen)
        self._total.setText(shown.totals(a))
        self._where.setText(shown.spare_at(a))
        facts = shown.derived(self.session.design, self._chosen)
        self._notes.setVisible(bool(facts.notes))
        self._notes.setText("\n".join(facts.notes))
        for k, row in enumerate(self._derived):
            texts = facts.rows[k] if k < len(facts.rows) else ("", "", "")
            for cell, text in zip(row, texts, strict=True):
                cell.setText(text)
                cell.setVisible(bool(text))
