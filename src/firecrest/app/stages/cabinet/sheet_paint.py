"""Paint of the drawing: graph paper, measures, and each thing in its own colours."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen, QPolygonF

from firecrest.app.theme.size import text_size
from firecrest.app.theme.style import colour, theme
from firecrest.app.theme.tokens import TINTS
from firecrest.present.cabinet.inks import Ink

SQUARE = 10.0
"""Squares of the paper, in pixels."""


def _tint(name: str) -> QColor:
    """Fill of a tint of the house."""
    tint = TINTS[name]
    return QColor((tint.dark if theme().dark else tint.light)[0])


def paint_paper(p: QPainter, area: QRectF) -> None:
    """Graph paper."""
    p.fillRect(area, colour("sheet"))
    p.setPen(QPen(colour("grid"), 1))
    x = area.left() + 0.5
    while x < area.right():
        p.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()))
        x += SQUARE
    y = area.top() + 0.5
    while y < area.bottom():
        p.drawLine(QPointF(area.left(), y), QPointF(area.right(), y))
        y += SQUARE


def paint_measure(p: QPainter, a: QPointF, b: QPointF, text: str) -> None:
    """A measured line between two ticks with its words in the middle, on paper."""
    p.setPen(QPen(colour("ink2"), 1))
    p.drawLine(a, b)
    upright = abs(b.x() - a.x()) < 1
    tick = QPointF(5, 0) if upright else QPointF(0, 5)
    for end in (a, b):
        p.drawLine(end - tick, end + tick)
    wide = p.fontMetrics().horizontalAdvance(text) / text_size.factor + 8
    middle = (a + b) / 2
    p.save()
    p.translate(middle)
    if upright:
        p.rotate(-90)
    box = QRectF(-wide / 2, -8, wide, 16)
    p.fillRect(box, colour("sheet"))
    p.setPen(colour("ink"))
    p.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
    p.restore()


def paint_heavy(p: QPainter, at: QPointF) -> None:
    """The centre of gravity: a quartered disc."""
    box = QRectF(at.x() - 8, at.y() - 8, 16, 16)
    p.setPen(QPen(colour("stripe"), 1.2))
    p.setBrush(colour("field"))
    p.drawEllipse(box)
    p.setBrush(colour("stripe"))
    p.drawPie(box, 0, 90 * 16)
    p.drawPie(box, 180 * 16, 90 * 16)


FILLS = {
    "panel": "wood",
    "wall": "wood",
    "air": "field",
    "frame": "frame",
    "basket": "basket",
    "cone": "cone",
    "dust": "frame",
    "cell": "field",
    "port": "tray",
    "hole": "stripe",
    "cup": "ink2",
    "brace": "wood",
    "foot": "ink2",
}
DASHED = {"travel": "flame", "hidden": "ink2"}
TINTED = {"board": "upright", "pack": "level"}


def fill_of(style: str) -> QColor:
    """The colour of a thing."""
    return _tint(TINTED[style]) if style in TINTED else colour(FILLS[style])


def paint_ink(p: QPainter, ink: Ink, polygon: QPolygonF) -> None:
    """One outline in the paint of what it is."""
    line = QPen(colour("woodline") if ink.style in ("panel", "wall") else colour("ink"), 1.3)
    if ink.style in DASHED:
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour(DASHED[ink.style]), 1.2, Qt.PenStyle.DashLine))
        p.drawPolygon(polygon)
        return
    p.setPen(QPen(colour("ink"), 1.6) if ink.style in ("panel", "wall") else line)
    p.setBrush(fill_of(ink.style))
    p.drawPolygon(polygon)
    if ink.style in ("wall", "brace"):
        p.setPen(Qt.PenStyle.NoPen)
        p.setBrush(colour("woodline"))
        brush = p.brush()
        brush.setStyle(Qt.BrushStyle.BDiagPattern)
        p.setBrush(brush)
        p.drawPolygon(polygon)
