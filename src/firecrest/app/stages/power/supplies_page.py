"""Supplies of the shelf in this design, the best first: point at one to try it."""

from functools import partial

from PySide6.QtWidgets import QGridLayout, QLabel, QVBoxLayout, QWidget

from firecrest.app.rest import Rest
from firecrest.app.session import Session
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import set_role
from firecrest.app.widgets.pages import scrolled
from firecrest.app.widgets.plain import label, tip
from firecrest.app.widgets.pressable import Tryable
from firecrest.design.sources import WallSupply
from firecrest.present.power.supplies import Offered, best_first, offers

HEADS = ("supply", "gives", "long / burst", "clean a channel", "flat out", "gives first",
         "loudness", "price")  # fmt: skip
WIDTHS = (176, 44, 78, 84, 64, 112, 104, 40)


class SupplyRow(Tryable):
    """One supply."""

    def __init__(self) -> None:
        super().__init__()
        self.setProperty("role", "card")
        self.offered: Offered | None = None
        grid = QGridLayout(self)
        grid.setContentsMargins(10, 4, 10, 4)
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(0)
        self._cells: list[QLabel] = []
        for column, width in enumerate(WIDTHS):
            cell = label("", "figure" if column == 0 else "")
            fix(cell, width=width)
            grid.addWidget(cell, 0, column)
            self._cells.append(cell)
        self._why = label("", "second")
        self._why.setWordWrap(True)
        grid.addWidget(self._why, 1, 0, 1, len(WIDTHS))
        grid.setColumnStretch(len(WIDTHS), 1)

    def show_offer(self, found: Offered) -> None:
        """Show what it comes to."""
        self.offered = found
        texts = (found.name, found.volts, found.amperes, found.clean, found.flat_out,
                 found.gives_first, found.loudness, found.price)  # fmt: skip
        for cell, text in zip(self._cells, texts, strict=True):
            cell.setText(text)
            tip(cell, text)
        words = "in force" if found.in_force else found.why_not
        self._why.setText(words)
        self._why.setVisible(bool(words))
        set_role(self._why, "bad" if found.why_not else "second")
        self.setAccessibleName(f"{found.name}, {found.volts}")
        said = ", ".join(f"{h} {t}" for h, t in zip(HEADS[3:], texts[3:], strict=True))
        self.setAccessibleDescription(f"{said}. {words} Enter takes it.")


class SuppliesPage(QWidget):
    """The ranking; worked out one after another when the page is on show."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._rest = Rest(self)
        self._found: list[Offered] = []
        self._wanted = 0
        self._for: object = None
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        self._title = label("", "second")
        box.addWidget(self._title)
        heads = QWidget()
        row = QGridLayout(heads)
        row.setContentsMargins(10, 0, 10, 0)
        row.setHorizontalSpacing(8)
        for column, (head, width) in enumerate(zip(HEADS, WIDTHS, strict=True)):
            cell = label(head, "hint")
            fix(cell, width=width)
            row.addWidget(cell, 0, column)
        row.setColumnStretch(len(HEADS), 1)
        inner = QWidget()
        self._list = QVBoxLayout(inner)
        self._list.setContentsMargins(0, 0, 0, 0)
        self._list.setSpacing(3)
        self._list.addWidget(heads)
        self.rows: list[SupplyRow] = []
        self._list.addStretch(1)
        box.addWidget(scrolled(inner), 1)

    @property
    def busy(self) -> bool:
        """Whether supplies are still being worked out."""
        return self._rest.running

    def refresh(self) -> None:
        """Work all of them out for the present design, where that is another one."""
        a = self.session.assessment
        if a.design is self._for:
            return
        self._for = a.design
        parts = [
            e.part
            for e in self.session.shelf.entries().values()
            if isinstance(e.part, WallSupply) and not e.archived
        ]
        jobs = list(offers(a, parts))
        self._found, self._wanted = [], len(jobs)
        self._title.setText(f"Working out {self._wanted} supplies …")
        self._rest.start(jobs, self._take_in)

    def _take_in(self, found: object) -> None:
        assert isinstance(found, Offered)
        self._found.append(found)
        if len(self._found) == self._wanted:
            self._show()

    def _show(self) -> None:
        ranked = best_first(self._found)
        while len(self.rows) < len(ranked):
            row = SupplyRow()
            row.tried.connect(partial(self._try, row))
            row.pressed.connect(partial(self._take, row))
            self._list.insertWidget(self._list.count() - 1, row)
            self.rows.append(row)
        for place, row in enumerate(self.rows):
            row.setVisible(place < len(ranked))
            if place < len(ranked):
                row.show_offer(ranked[place])
        self._title.setText(
            "Supplies of your shelf in this design, the best first. Point at one to try it, press "
            "it to take it."
        )

    def _try(self, row: SupplyRow, on: bool) -> None:
        if on and row.offered is not None and row.offered.design is not None:
            self.session.try_design(row.offered.design)
        else:
            self.session.drop_trial()

    def _take(self, row: SupplyRow) -> None:
        if row.offered is not None and row.offered.design is not None:
            self.session.apply(f"Supply: {row.offered.name}", row.offered.design)
