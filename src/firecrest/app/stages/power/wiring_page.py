"""The wiring picture of the whole chain, to look at, print and label by."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import QPointF, QRectF, QSize, QSizeF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent, QTextDocument
from PySide6.QtWidgets import QDialog, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.exporting import Picture, Table, document_pdf, export, kinds
from firecrest.app.session import Session
from firecrest.app.theme.size import canvas, extent, fix, sized, text_size
from firecrest.app.theme.style import colour, holder, text_font
from firecrest.app.widgets.data_table import DataTable
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.pages import scrolled
from firecrest.app.widgets.plain import label, markup, tip
from firecrest.files.atomic import write_file
from firecrest.present.power.hum import hum_list
from firecrest.present.power.picture import (
    FOOT,
    LABEL_HEADS,
    MAINS,
    PLUS,
    SIGNAL,
    Box,
    Wire,
    WiringPicture,
    label_rows,
    wiring_picture,
)

ROLES = {PLUS: "flame", SIGNAL: "ink2"}
SMALLEST = 0.94
"""Of its full size: below that it scrolls."""
RETURN = 3.0
"""Pixels by which the return runs beside its wire."""


class WiringView(QWidget):
    """Boxes and wires; poles are told by + and − beside them, not by colour alone."""

    def __init__(self) -> None:
        super().__init__()
        self.drawn: WiringPicture | None = None
        self.setAccessibleName("Wiring of the whole chain")
        holder.changed.connect(self.update)
        text_size.changed.connect(self._fit)

    def show_wiring(self, drawn: WiringPicture) -> None:
        """Show another chain."""
        if drawn == self.drawn:
            return
        self.drawn = drawn
        said = [f"W{w.number}: {w.start} to {w.end}, {w.what}" for w in drawn.wires]
        self.setAccessibleDescription(". ".join(said))
        tip(self, "\n".join(said))
        self._fit()
        self.update()

    def _fit(self) -> None:
        if self.drawn is not None:
            fix(
                self,
                least_width=SMALLEST * self.drawn.width,
                least_height=self.drawn.height * (self._share() if self.isVisible() else 1.0),
            )

    def _share(self) -> float:
        """How much smaller than life it is drawn, so that it fits across."""
        assert self.drawn is not None
        return min(1.0, max(extent(self).width() / self.drawn.width, SMALLEST))

    def sizeHint(self) -> QSize:
        if self.drawn is None:
            return QSize(sized(300), sized(120))
        return QSize(sized(SMALLEST * self.drawn.width), sized(self.drawn.height))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.drawn is not None:
            painter = canvas(self)
            painter.scale(self._share(), self._share())
            paint_wiring(painter, self.drawn)

    def picture(self, title: str) -> Picture:
        """To be painted elsewhere, on paper."""
        drawn = self.drawn
        assert drawn is not None

        def _paint(painter: QPainter, area: QRectF) -> None:
            with holder.on_paper():
                painter.fillRect(area, colour("field"))
                paint_wiring(painter, drawn)

        return Picture(title, QSizeF(drawn.width, drawn.height), _paint)


def paint_wiring(p: QPainter, drawn: WiringPicture) -> None:
    """Wires below, boxes above."""
    p.setRenderHint(QPainter.RenderHint.Antialiasing)
    for wire in drawn.wires:
        _wire(p, wire)
    for box in drawn.boxes:
        _box(p, box)
    for wire in drawn.wires:
        _number(p, wire)
    p.setFont(text_font(11))
    p.setPen(colour("ink2"))
    text = (
        "Thick: +, thin beside it: its own return −. Dashed: screened signal. Dotted: mains, for "
        "licensed people. All returns meet at the source (star), nowhere else."
    )
    area = QRectF(14, drawn.height - FOOT, drawn.width - 28, FOOT)
    p.drawText(area, Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap, text)


def _wire(p: QPainter, wire: Wire) -> None:
    points = QPolygonF([QPointF(x, y) for x, y in wire.corners])
    p.setBrush(Qt.BrushStyle.NoBrush)
    if wire.kind in (SIGNAL, MAINS):
        dashed, dotted = Qt.PenStyle.DashLine, Qt.PenStyle.DotLine
        signal = wire.kind == SIGNAL
        p.setPen(QPen(colour("ink2" if signal else "ink"), 1.4, dashed if signal else dotted))
        p.drawPolyline(points)
        return
    p.setPen(QPen(colour(ROLES.get(wire.kind, "olive")), 2.6))
    p.drawPolyline(points)
    back = QPolygonF([QPointF(x, y + RETURN + 2) for x, y in wire.corners])
    p.setPen(QPen(colour("ink"), 1.2))
    p.drawPolyline(back)


def _number(p: QPainter, wire: Wire) -> None:
    """The wire's number on a plate at its last stretch, with its poles."""
    x, y = wire.corners[-1]
    p.setFont(text_font(11, medium=True))
    plate = QRectF(x - 35, y - 7, 23, 14)
    p.setPen(QPen(colour("rule2"), 1))
    p.setBrush(colour("sheet"))
    p.drawRoundedRect(plate, 3, 3)
    p.setPen(colour("ink"))
    p.drawText(plate, Qt.AlignmentFlag.AlignCenter, f"W{wire.number}")
    if wire.kind in (SIGNAL, MAINS):
        return
    for text, beside in (("+", -8.0), ("−", RETURN + 8)):
        p.drawText(QRectF(x - 11, y + beside - 6, 9, 12), Qt.AlignmentFlag.AlignCenter, text)


def _box(p: QPainter, box: Box) -> None:
    area = QRectF(box.x, box.y, box.width, box.height)
    p.setPen(QPen(colour("rule2"), 1.2))
    p.setBrush(colour("field"))
    p.drawRoundedRect(area, 4, 4)
    inner = area.adjusted(9, 5, -6, -5)
    p.setPen(colour("ink"))
    p.setFont(text_font(12, medium=True))
    top = QRectF(inner.left(), inner.top(), inner.width(), 18)
    metrics = p.fontMetrics()
    title = metrics.elidedText(box.title, Qt.TextElideMode.ElideRight, int(inner.width()))
    p.drawText(top, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, title)
    p.setPen(colour("ink2"))
    p.setFont(text_font(11))
    below = QRectF(inner.left(), inner.top() + 18, inner.width(), 16)
    line = p.fontMetrics().elidedText(box.line, Qt.TextElideMode.ElideRight, int(inner.width()))
    p.drawText(below, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, line)


LABEL_KINDS = "Page (*.pdf);;Table (*.csv)"


def labels_page(title: str, table: Table) -> QTextDocument:
    """A page with one row a wire, to cut into labels."""

    def _cells(tag: str, row: Sequence[object]) -> str:
        return "".join(f"<{tag} align='left'>{markup(str(c))}</{tag}>" for c in row)

    rows = "".join(f"<tr>{_cells('td', row)}</tr>" for row in table.rows)
    document = QTextDocument()
    document.setHtml(
        f"<h2>{markup(title)}</h2><table border='1' cellspacing='0' cellpadding='5'>"
        f"<tr>{_cells('th', table.heads)}</tr>{rows}</table>"
    )
    return document


class WiringPage(QWidget):
    """The picture with its ways out, and what may hum."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        head = QHBoxLayout()
        head.addWidget(label("The whole chain, as it is wired", "second"), 1)
        for text, action, help in (
            ("Labels…", self.show_labels, "Every wire as a row, to copy or print"),
            ("Save the picture…", self.save, "As a drawing (SVG), a page (PDF) or a picture"),
        ):
            button = QPushButton(text)
            button.clicked.connect(action)
            tip(button, help)
            head.addWidget(button)
        box.addLayout(head)
        self.view, self.hum = WiringView(), FactRows()
        inner = QWidget()
        column = QVBoxLayout(inner)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.view)
        column.addWidget(label("What may hum, hiss or thump here", "section"))
        column.addWidget(self.hum)
        column.addStretch(1)
        box.addWidget(scrolled(inner), 1)

    def refresh(self) -> None:
        """Draw the present design."""
        design = self.session.assessment.design
        self.view.show_wiring(wiring_picture(design))
        self.hum.show_facts(hum_list(design))

    def labels(self) -> Table:
        """Every wire as a row."""
        return Table(LABEL_HEADS, label_rows(self.session.design))

    def show_labels(self) -> None:
        """The labels as a table, to read and copy."""
        dialog = QDialog(self)
        dialog.setWindowTitle("Wire labels")
        column = QVBoxLayout(dialog)
        column.addWidget(DataTable(self.labels(), "Wire labels"))
        save = QPushButton("Save as a page or table…")
        save.clicked.connect(self.save_labels)
        column.addWidget(save)
        dialog.resize(sized(620), sized(380))
        dialog.exec()
        dialog.deleteLater()

    def save_labels(self) -> None:
        """Ask where to, and write the labels as a page to print, or as a table."""
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Save the labels", "wire-labels.pdf", LABEL_KINDS)
        if path is not None:
            self.session.attempt(lambda: self.export_labels(path))

    def export_labels(self, path: Path) -> None:
        """Labels as a page or a table by the suffix of ``path``; FileError if not."""
        if path.suffix.lower() == ".pdf":
            title = f"{self.session.design.name}: wire labels"
            write_file(path, document_pdf(labels_page(title, self.labels()), title))
        else:
            export(path, None, self.labels())

    def save(self) -> None:
        """Ask where to, and write the picture or, as a table, the labels."""
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Save the wiring", "wiring.pdf", kinds())
        if path is not None:
            self.session.attempt(lambda: self.export(path))

    def export(self, path: Path) -> None:
        """Write the picture or the labels in the format of the suffix; FileError if not."""
        self.refresh()
        export(path, self.view.picture(f"{self.session.design.name}: wiring"), self.labels())
