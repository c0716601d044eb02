"""Small ceilings for rows: tints, patterns, promise stripe and shortfall in 104 x 29 pixels."""

from itertools import groupby

import numpy as np
from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen

from firecrest.app.theme.style import colour, text_font, theme
from firecrest.app.widgets.chart_paint import polygon
from firecrest.app.widgets.patterns import limit_brush, pattern_tile
from firecrest.present.parts.shelf import Mini


def paint_mini(painter: QPainter, area: QRectF, mini: Mini | None, ratio: float) -> None:
    """One small ceiling; a dashed frame where there is none."""
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    if mini is None:
        painter.setPen(QPen(colour("rule2"), 1, Qt.PenStyle.DashLine))
        painter.drawRoundedRect(area, 3, 3)
        painter.setFont(text_font(11))
        painter.drawText(area, int(Qt.AlignmentFlag.AlignCenter), "no curve yet")
    else:
        _ceiling(painter, area, mini, ratio)
    painter.restore()


def _ceiling(p: QPainter, area: QRectF, mini: Mini, ratio: float) -> None:
    x = area.left() + mini.x * area.width()
    y = area.bottom() - mini.ceiling * area.height()
    asked = area.bottom() - mini.promise * area.height()
    p.setPen(Qt.PenStyle.NoPen)
    start = 0
    for code, run in groupby(mini.codes):
        stop = start + len(list(run))
        span = slice(start, min(stop + 1, len(x)))
        floor = np.full(len(x[span]), area.bottom())
        shape = polygon(np.r_[x[span], x[span][::-1]], np.r_[y[span], floor])
        fill, line = theme().fill(code), theme().line(code)
        wide = x[min(stop, len(x) - 1)] - x[start] >= 10
        p.setBrush(limit_brush(code, fill, line, ratio) if wide else QColor(fill))
        p.setBrushOrigin(area.topLeft())
        p.drawPolygon(shape)
        start = stop
    short = asked < y - 0.2
    if short.any():
        low = np.where(short, y, asked)
        p.setBrush(pattern_tile("hatch", theme()["flame"], theme()["yolk"], ratio))
        p.drawPolygon(polygon(np.r_[x, x[::-1]], np.r_[low, asked[::-1]]))
    p.setBrush(Qt.BrushStyle.NoBrush)
    p.setPen(QPen(colour("olive"), 1.4))
    p.drawPolyline(polygon(x, y))
    p.setPen(QPen(colour("brow"), 3.2))
    p.drawPolyline(polygon(x, asked))
    p.setPen(QPen(colour("stripe"), 1.6))
    p.drawPolyline(polygon(x, asked))
    p.setPen(QPen(colour("rule"), 1))
    p.drawLine(area.bottomLeft(), area.bottomRight())
