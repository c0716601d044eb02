"""Patterns of the limits: 8 px tiles drawn at the screen's own scale."""

from collections.abc import Callable
from functools import lru_cache

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPen, QPixmap, QPolygonF

from firecrest.present.plot.plot import tint_of

TILE = 8


def _lines(*ends: tuple[float, float, float, float]) -> Callable[[QPainter], None]:
    def draw(painter: QPainter) -> None:
        for x1, y1, x2, y2 in ends:
            painter.drawLine(QPointF(x1, y1), QPointF(x2, y2))

    return draw


def _rings(painter: QPainter) -> None:
    painter.drawEllipse(QRectF(2, 2, 4, 4))


def _dots(painter: QPainter) -> None:
    painter.setBrush(painter.pen().color())
    for x, y in ((2, 2), (6, 6)):
        painter.drawEllipse(QPointF(x, y), 0.7, 0.7)


def _zigzag(painter: QPainter) -> None:
    painter.drawPolyline(QPolygonF([QPointF(0, 6), QPointF(4, 2), QPointF(8, 6)]))


TILES_ACROSS, TILES_DOWN = 64, 8
DRAWINGS: dict[str, Callable[[QPainter], None]] = {
    "upright": _lines((2, 0, 2, 8), (6, 0, 6, 8)),
    "rings": _rings,
    "dots": _dots,
    "net": _lines((0, 0, 8, 8), (0, 8, 8, 0)),
    "level": _lines((0, 2, 8, 2), (0, 6, 8, 6)),
    "rising": _lines((0, 8, 8, 0), (-4, 8, 4, 0), (4, 8, 12, 0)),
    "zigzag": _zigzag,
    "dashes": _lines((0, 2, 4, 2), (4, 6, 8, 6)),
    "hatch": _lines((0, 8, 8, 0), (-1, 1, 1, -1), (7, 9, 9, 7)),
}


@lru_cache(maxsize=64)
def pattern_tile(name: str, ink: str, ground: str, ratio: float) -> QBrush:
    """Brush of a pattern in ``ink`` on ``ground`` ("" for none) at a device pixel ratio.

    Many tiles are laid into one picture: a fill is painted in strips as wide as its picture, and
    strips of one tile cost several times as much.
    """
    tile = QPixmap(round(TILE * ratio), round(TILE * ratio))
    tile.setDevicePixelRatio(ratio)
    tile.fill(QColor(ground) if ground else Qt.GlobalColor.transparent)
    painter = QPainter(tile)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(QColor(ink), 1.1))
    DRAWINGS[name](painter)
    painter.end()
    sheet = QPixmap(tile.width() * TILES_ACROSS, tile.height() * TILES_DOWN)
    sheet.fill(QColor(ground) if ground else Qt.GlobalColor.transparent)
    painter = QPainter(sheet)
    tile.setDevicePixelRatio(1.0)
    painter.drawTiledPixmap(sheet.rect(), tile)
    painter.end()
    sheet.setDevicePixelRatio(ratio)
    return QBrush(sheet)


def limit_brush(code: str, fill: str, line: str, ratio: float) -> QBrush:
    """Pattern of a limit on its own fill."""
    return pattern_tile(tint_of(code), line, fill, ratio)
