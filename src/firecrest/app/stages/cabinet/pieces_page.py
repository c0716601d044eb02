"""Pieces to cut, sheets they lie on, and what printing takes."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.exporting import Picture, Table
from firecrest.app.session import Session
from firecrest.app.stages.base import column, numbers
from firecrest.app.stages.cabinet.outputs import Outputs, save_table
from firecrest.app.stages.cabinet.pieces_paper import cut_list_page
from firecrest.app.theme.size import canvas, extent, fix, sized
from firecrest.app.theme.style import colour, text_font
from firecrest.app.widgets.choices import bound_combo, labelled
from firecrest.app.widgets.data_table import DataTable
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.pages import scrolled
from firecrest.app.widgets.plain import caution, label, paragraph, tip
from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.pieces import Pieces, pieces_of
from firecrest.core.cabinet.sheets import Laid, Offcut
from firecrest.design.case import SheetStock
from firecrest.design.edits.paths import Path
from firecrest.present.cabinet.cutlist import (
    COLUMNS,
    PRINT_ADVICE,
    PRINTED,
    batch_facts,
    cut_rows,
    order_text,
    print_facts,
    print_rows,
    sheet_facts,
)
from firecrest.present.cabinet.words import GRAINS

SHEET: Path = ("box", "case", "sheet")
CAUTION = (
    "Saws, routers and printers: guards, hold-downs, eye and ear protection; dust and fumes need "
    "extraction or a mask."
)
GAP = 10.0


class SheetPicture(QWidget):
    """Sheets side by side with the pieces on them."""

    def __init__(self) -> None:
        super().__init__()
        self._pieces: Pieces | None = None
        self._stock = SheetStock()
        fix(self, least_height=170)

    def sizeHint(self) -> QSize:
        return QSize(sized(260), sized(200))

    def show_pieces(self, pieces: Pieces, stock: SheetStock) -> None:
        """Show where all pieces lie."""
        self._pieces, self._stock = pieces, stock
        sheets = sum(s.sheets.sheets for s in pieces.stocks)
        self.setAccessibleName(f"Sheet layout: {sheets} sheets")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        self.paint_sheets(canvas(self), extent(self))

    def paint_sheets(self, p: QPainter, area: QRectF) -> None:
        """Paint all sheets into an area that begins at 0, 0."""
        if self._pieces is None:
            return
        every = [(stock, n) for stock in self._pieces.stocks for n in range(stock.sheets.sheets)]
        if not every:
            return
        columns = max(1, round((len(every) * area.width() / area.height()) ** 0.5))
        columns = min(columns, len(every))
        rows = -(-len(every) // columns)
        wide = (area.width() - GAP * (columns - 1)) / columns
        tall = (area.height() - GAP * (rows - 1)) / rows - 16
        scale = min(wide / self._stock.width, tall / self._stock.height)
        for k, (stock, n) in enumerate(every):
            x = (k % columns) * (wide + GAP)
            y = (k // columns) * (tall + 16 + GAP)
            p.setFont(text_font(11))
            p.setPen(colour("ink2"))
            p.drawText(QPointF(x, y + 11), f"{stock.thickness * 1e3:g} mm, sheet {n + 1}")
            laid = [piece for piece in stock.sheets.laid if piece.sheet == n]
            rests = [rest for rest in stock.sheets.offcuts if rest.sheet == n]
            self._paint_sheet(p, QPointF(x, y + 16), scale, laid, rests)

    def _paint_sheet(
        self, p: QPainter, at: QPointF, scale: float, laid: list[Laid], rests: list[Offcut]
    ) -> None:
        high = self._stock.height * scale
        p.setPen(QPen(colour("ink2"), 1))
        p.setBrush(colour("tray"))
        p.drawRect(QRectF(at.x(), at.y(), self._stock.width * scale, high))
        for piece in laid:
            box = QRectF(
                at.x() + piece.x * scale,
                at.y() + high - (piece.y + piece.b) * scale,
                piece.a * scale,
                piece.b * scale,
            )
            p.setBrush(colour("olivet"))
            p.setPen(QPen(colour("ink"), 1))
            p.drawRect(box)
            p.setFont(text_font(10))
            name = p.fontMetrics().elidedText(
                piece.piece.name, Qt.TextElideMode.ElideRight, max(int(box.width()) - 4, 0)
            )
            p.drawText(box, Qt.AlignmentFlag.AlignCenter, name)
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour("ink2"), 1, Qt.PenStyle.DashLine))
        for rest in rests:
            y = at.y() + high - (rest.y + rest.b) * scale
            p.drawRect(QRectF(at.x() + rest.x * scale, y, rest.a * scale, rest.b * scale))


class PiecesPage(QWidget):
    """Cut list with the order of cuts, the sheets, and printing."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(18)
        left = QWidget()
        self._left = QVBoxLayout(left)
        self._left.setContentsMargins(0, 0, 0, 0)
        self._title = label("Cut list", "section")
        self._left.addWidget(self._title)
        self._table: DataTable | None = None
        self._order = paragraph("")
        self._left.addWidget(self._order)
        save = QPushButton("Save cut list or sheets…")
        save.clicked.connect(self._save)
        tip(save, "As a table (CSV), or with order of cuts and sheets as a page (PDF, SVG, PNG)")
        self._left.addWidget(save)
        self._left.addWidget(caution(CAUTION))
        row.addWidget(left, 5)
        self.picture, self.facts, self.prints = SheetPicture(), FactRows(), FactRows()
        names = ("width", "height", "kerf", "margin")
        grain = bound_combo(session, (*SHEET, "grain"), GRAINS)
        grain.setAccessibleName("Grain of the pieces")
        self._fields = [*numbers(session, *((*SHEET, n) for n in names)), labelled("Grain", grain)]
        self._batch = numbers(session, (*SHEET, "batch"), (*SHEET, "once"))
        self.outputs = Outputs(session)
        right = column(
            "Sheets and prints",
            "",
            self.picture,
            self.facts,
            self.prints,
            *self._fields,
            *self._batch,
            self.outputs,
        )
        row.addWidget(scrolled(right), 4)

    def refresh(self) -> None:
        """Show the pieces of the present case."""
        drawing = drawing_of(self.session.assessment)
        pieces = pieces_of(drawing)
        printed = drawing.case.printing is not None
        self._title.setText("Print pieces" if printed else "Cut list")
        for widget in (self.picture, self.facts, *self._fields):
            widget.setVisible(not printed)
        if self._table is not None:
            self._left.removeWidget(self._table)
            self._table.deleteLater()
        self._table = DataTable(self.table(), self._title.text())
        self._left.insertWidget(1, self._table, 1)
        self._order.setText("\n".join(PRINT_ADVICE if printed else order_text(pieces)))
        self.picture.show_pieces(pieces, drawing.case.sheet)
        self.facts.show_facts(sheet_facts(pieces))
        self.prints.show_facts([*print_facts(drawing), *batch_facts(drawing, pieces)])
        self.outputs.refresh()

    def table(self) -> Table:
        """The cut list, or the pieces of a print."""
        drawing = drawing_of(self.session.assessment)
        if drawing.case.printing is not None:
            return Table(PRINTED, tuple(print_rows(drawing)))
        return Table(COLUMNS, tuple(cut_rows(drawing, pieces_of(drawing))))

    def page(self) -> Picture:
        """Cut list, order of cuts and sheets as a page."""
        drawing = drawing_of(self.session.assessment)
        pieces = pieces_of(drawing)
        printed = drawing.case.printing is not None
        facts = [*print_facts(drawing)] if printed else sheet_facts(pieces)
        facts += batch_facts(drawing, pieces)
        lines = [*(PRINT_ADVICE if printed else order_text(pieces))]
        lines += [f"{fact.name}: {fact.value}" for fact in facts]
        title = f"{self.session.design.name}: {self._title.text().lower()}"
        paint = _nothing if printed else self.picture.paint_sheets
        return cut_list_page(title, self.table(), lines, paint)

    def _save(self) -> None:
        save_table(self.session, self.window(), self.table(), self.page())


def _nothing(_painter: QPainter, _area: QRectF) -> None:
    """A print has no sheets."""
