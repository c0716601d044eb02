"""The cut list with its order of cuts and the sheets, as one page."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QPainter, QPen

from firecrest.app.exporting import Picture, Table, cell_text
from firecrest.app.theme.style import colour, text_font

PAGE = QSizeF(760.0, 1075.0)
"""Points of the page, as high to its width as A4 is."""
ROW, TEXT, TITLE, GAP = 18.0, 11, 16, 14.0
LEAST_PICTURE = 220.0


def cut_list_page(
    title: str, table: Table, lines: Sequence[str], paint: Callable[[QPainter, QRectF], None]
) -> Picture:
    """A page of a table, sentences below it, and what ``paint`` draws in the rest."""

    def _paint(p: QPainter, area: QRectF) -> None:
        p.fillRect(area, colour("card"))
        p.setPen(colour("ink"))
        p.setFont(text_font(TITLE, medium=True))
        top = area.top() + 2 * ROW
        p.drawText(QRectF(area.left(), area.top(), area.width(), ROW * 1.5), title)
        p.setFont(text_font(TEXT))
        top = _table(p, QRectF(area.left(), top, area.width(), area.height()), table)
        for line in lines:
            top += _line(p, QRectF(area.left(), top, area.width(), area.height()), line)
        top += GAP
        rest = QRectF(area.left(), top, area.width(), max(area.bottom() - top, LEAST_PICTURE))
        p.save()
        p.translate(rest.topLeft())
        paint(p, QRectF(0, 0, rest.width(), rest.height()))
        p.restore()

    rows = (len(table.rows) + len(lines) + 3) * ROW
    return Picture(title, QSizeF(PAGE.width(), max(PAGE.height(), rows + LEAST_PICTURE)), _paint)


def _table(p: QPainter, area: QRectF, table: Table) -> float:
    """Paint rows in columns as wide as their texts ask for; where the next thing begins."""
    texts = [[cell_text(v) for v in row] for row in (table.heads, *table.rows)]
    asks = [
        max(p.fontMetrics().horizontalAdvance(t) for t in column)
        for column in zip(*texts, strict=True)
    ]
    spare = max(area.width() - sum(asks), 0.0) / max(len(asks), 1)
    y = area.top()
    for number, row in enumerate(texts):
        x = area.left()
        p.setPen(colour("ink2" if number == 0 else "ink"))
        for text, wide in zip(row, asks, strict=True):
            p.drawText(QRectF(x, y, wide + spare, ROW), Qt.AlignmentFlag.AlignVCenter, text)
            x += wide + spare
        y += ROW
        p.setPen(QPen(colour("rule"), 1))
        p.drawLine(QPointF(area.left(), y), QPointF(area.right(), y))
    return y + GAP / 2


def _line(p: QPainter, area: QRectF, text: str) -> float:
    """Paint a sentence over as many lines as it takes; how high it is."""
    flags = Qt.TextFlag.TextWordWrap.value
    taken = p.boundingRect(area, flags, text)
    p.setPen(colour("ink2"))
    p.drawText(taken, flags, text)
    return float(taken.height()) + 4
