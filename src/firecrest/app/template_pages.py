"""Templates on paper at 1:1: tiled pages, crosses where they meet, a bar to check the scale."""

from collections.abc import Sequence
from math import atan, atan2, cos, degrees, hypot, sin

from PySide6.QtCore import QBuffer, QMarginsF, QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QColor, QPageLayout, QPageSize, QPainter, QPainterPath, QPdfWriter, QPen

from firecrest.app.theme.style import text_font
from firecrest.assessment.cabinet.template import Template
from firecrest.core.cabinet.loops import Loop
from firecrest.core.cabinet.templates import MARGIN, OVERLAP, PAGES, tiling

DOTS_PER_INCH, MM, BAR = 1200, 1e3, 100.0
FINE, CROSS, TEXT = 0.2, 4.0, 4
DASHED = ("RECESS", "GRAIN", "CENTRE")


def templates_pdf(templates: Sequence[Template], page: str = "A4", title: str = "") -> bytes:
    """All templates, each on as many pages of A4 or Letter as it takes."""
    buffer = QBuffer()
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setResolution(DOTS_PER_INCH)
    writer.setTitle(title or "Templates")
    wide, high = (side * MM for side in PAGES[page])
    painter: QPainter | None = None
    for template in templates:
        (across, up), lying = tiling(template.size, page)
        size = QSizeF(high, wide) if lying else QSizeF(wide, high)
        for row in range(up):
            for column in range(across):
                layout = QPageLayout(
                    QPageSize(size, QPageSize.Unit.Millimeter, page),
                    QPageLayout.Orientation.Portrait,
                    QMarginsF(0, 0, 0, 0),
                    QPageLayout.Unit.Millimeter,
                )
                layout.setMode(QPageLayout.Mode.FullPageMode)
                writer.setPageLayout(layout)
                if painter is None:
                    painter = QPainter(writer)
                else:
                    writer.newPage()
                name = f"{template.name}, page {row * across + column + 1} of {across * up}"
                _page(painter, template, size, (column, row), name)
    if painter is not None:
        painter.end()
    return bytes(buffer.data().data())


def _page(
    painter: QPainter, template: Template, size: QSizeF, tile: tuple[int, int], name: str
) -> None:
    """One page: its part of the template, and what helps to join and check it."""
    painter.save()
    painter.scale(DOTS_PER_INCH / 25.4, DOTS_PER_INCH / 25.4)
    margin, step_x, step_y = (
        MARGIN * MM,
        size.width() - 2 * MARGIN * MM - OVERLAP * MM,
        size.height() - 2 * MARGIN * MM - OVERLAP * MM,
    )
    area = QRectF(margin, margin, size.width() - 2 * margin, size.height() - 2 * margin)
    painter.save()
    painter.setClipRect(area)
    painter.translate(
        margin - template.low[0] * MM - tile[0] * step_x,
        size.height() - margin + template.low[1] * MM + tile[1] * step_y,
    )
    _paint(painter, template)
    painter.restore()
    _joining(painter, area, name)
    painter.restore()


def _paint(painter: QPainter, template: Template) -> None:
    """Lines of a template in mm, y upwards."""
    for layer, loop in template.loops:
        painter.setPen(_pen(layer))
        painter.drawPath(path_of(loop))
    for layer, x, y, d in template.circles:
        painter.setPen(_pen(layer))
        painter.drawEllipse(QPointF(x * MM, -y * MM), d * MM / 2, d * MM / 2)
    for layer, a, b in template.lines:
        painter.setPen(_pen(layer))
        painter.drawLine(QPointF(a[0] * MM, -a[1] * MM), QPointF(b[0] * MM, -b[1] * MM))
    _font(painter)
    for words in template.words:
        painter.drawText(QPointF(words.at[0] * MM + 2, -words.at[1] * MM - 2), words.text)


def _pen(layer: str) -> QPen:
    pen = QPen(QColor("black"), FINE if layer != "OUTLINE" else 2 * FINE)
    if layer in DASHED:
        pen.setStyle(Qt.PenStyle.DashLine)
    return pen


def _font(painter: QPainter) -> None:
    """Text of 4 mm: a unit of the painter is a millimetre."""
    painter.setFont(text_font(TEXT))
    painter.setPen(QColor("black"))


def _joining(painter: QPainter, area: QRectF, name: str) -> None:
    """Crosses at the corners of what a page shows, a bar of 100 mm, the page's name."""
    painter.setPen(QPen(QColor("black"), FINE))
    for corner in (area.topLeft(), area.topRight(), area.bottomLeft(), area.bottomRight()):
        painter.drawLine(corner - QPointF(CROSS, 0), corner + QPointF(CROSS, 0))
        painter.drawLine(corner - QPointF(0, CROSS), corner + QPointF(0, CROSS))
    y, x = area.bottom() + 5.0, area.left() + 2 * CROSS
    painter.drawLine(QPointF(x, y), QPointF(x + BAR, y))
    for end in (x, x + BAR):
        painter.drawLine(QPointF(end, y - 1.5), QPointF(end, y + 1.5))
    _font(painter)
    painter.drawText(QPointF(x + BAR + 3, y + 1.5), f"100 mm — {name}")


def path_of(loop: Loop) -> QPainterPath:
    """A loop in mm with its arcs, y downwards."""
    x, y, _ = loop[0]
    path = QPainterPath(QPointF(x * MM, -y * MM))
    for (px, py, bulge), (nx, ny, _) in zip(loop, [*loop[1:], loop[0]], strict=True):
        if not bulge:
            path.lineTo(nx * MM, -ny * MM)
            continue
        angle, chord = 4 * atan(bulge), hypot(nx - px, ny - py)
        r = chord / (2 * sin(angle / 2))
        off = r * cos(angle / 2)
        cx = (px + nx) / 2 - off * (ny - py) / chord
        cy = (py + ny) / 2 + off * (nx - px) / chord
        r = abs(r)
        box = QRectF((cx - r) * MM, (-cy - r) * MM, 2 * r * MM, 2 * r * MM)
        path.arcTo(box, degrees(atan2(py - cy, px - cx)), degrees(angle))
    path.closeSubpath()
    return path
