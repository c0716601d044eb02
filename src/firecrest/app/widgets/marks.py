"""State marks, drawn the same everywhere: shape and colour say the state together."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from firecrest.app.theme.size import canvas, fix, sized
from firecrest.app.theme.style import colour
from firecrest.app.widgets.plain import tip

ORIGIN = "origin:"
"""Begins the name of a mark that is the square of a figure's origin."""


def paint_ring(p: QPainter, area: QRectF, radius: float = 4.0) -> None:
    """The ring of what has the keyboard: crest outside, stripe inside, on any ground."""
    p.setBrush(Qt.BrushStyle.NoBrush)
    for role, inset in (("crest", 1.0), ("stripe", 3.0)):
        p.setPen(QPen(colour(role), 2))
        p.drawRoundedRect(area.adjusted(inset, inset, -inset, -inset), radius, radius)


def paint_mark(painter: QPainter, rect: QRectF, state: str) -> None:
    """One mark: met, close, short, wish, unknown, half, ``origin:…``; ``none`` draws nothing."""
    if state.startswith(ORIGIN):
        side = 0.62 * rect.width()
        paint_origin(painter, QRectF(rect.x(), rect.y() + 2, side, side), state[len(ORIGIN) :])
        return
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    {
        "met": _disc,
        "close": _diamond,
        "short": _triangle,
        "wish": _hollow_triangle,
        "unknown": _ring,
        "half": _half,
    }.get(state, lambda *_: None)(painter, rect)
    painter.restore()


def _disc(painter: QPainter, r: QRectF) -> None:
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(colour("olive"))
    painter.drawEllipse(r)
    pen = QPen(colour("onolive"), r.width() / 7, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
    painter.setPen(pen)
    x, y, w = r.x(), r.y(), r.width()
    painter.drawPolyline(
        QPolygonF(
            [
                QPointF(x + 0.27 * w, y + 0.52 * w),
                QPointF(x + 0.44 * w, y + 0.68 * w),
                QPointF(x + 0.74 * w, y + 0.34 * w),
            ]
        )
    )


def _outlined(painter: QPainter, path: QPainterPath, fill: QColor, edge: QColor) -> None:
    painter.setPen(QPen(edge, 1.2))
    painter.setBrush(fill)
    painter.drawPath(path)


def _diamond(painter: QPainter, r: QRectF) -> None:
    path = QPainterPath()
    c = r.center()
    path.addPolygon(
        QPolygonF(
            [
                QPointF(c.x(), r.top()),
                QPointF(r.right(), c.y()),
                QPointF(c.x(), r.bottom()),
                QPointF(r.left(), c.y()),
            ]
        )
    )
    path.closeSubpath()
    _outlined(painter, path, colour("yolk"), colour("amber"))


def _triangle_path(r: QRectF) -> QPainterPath:
    path = QPainterPath()
    path.addPolygon(
        QPolygonF(
            [
                QPointF(r.left(), r.top() + r.height() * 0.12),
                QPointF(r.right(), r.top() + r.height() * 0.12),
                QPointF(r.center().x(), r.bottom()),
            ]
        )
    )
    path.closeSubpath()
    return path


def _triangle(painter: QPainter, r: QRectF) -> None:
    _outlined(painter, _triangle_path(r), colour("flame"), colour("flame"))


def _hollow_triangle(painter: QPainter, r: QRectF) -> None:
    _outlined(
        painter, _triangle_path(r.adjusted(1, 1, -1, -1)), QColor(0, 0, 0, 0), colour("amber")
    )


def _ring(painter: QPainter, r: QRectF) -> None:
    painter.setPen(QPen(colour("rule2"), 1.4, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(r.adjusted(1, 1, -1, -1))


def _half(painter: QPainter, r: QRectF) -> None:
    painter.setPen(QPen(colour("olive"), 1.4))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(r.adjusted(0.7, 0.7, -0.7, -0.7))
    painter.setBrush(colour("olive"))
    painter.drawPie(r.adjusted(0.7, 0.7, -0.7, -0.7), 90 * 16, 180 * 16)


class Mark(QWidget):
    """A mark as a widget of its own."""

    def __init__(self, state: str = "none", size: int = 12) -> None:
        super().__init__()
        self._state = state
        self._size = size
        fix(self, width=size + 2, height=size + 4)

    def set_state(self, state: str) -> None:
        """Show another state."""
        self._state = state
        self.setAccessibleName(state)
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(self._size + 2), sized(self._size + 4))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = canvas(self)
        paint_mark(painter, QRectF(1, 2, self._size, self._size), self._state)


def paint_origin(painter: QPainter, rect: QRectF, origin: str) -> None:
    """Origin square: filled measured, open sheet, dashed flame estimate, none your choice."""
    painter.save()
    if origin == "measured":
        painter.fillRect(rect, colour("olive"))
    elif origin in ("sheet", "derived"):
        painter.setPen(QPen(colour("olive"), 1.4))
        painter.drawRect(rect)
    elif origin == "estimate":
        painter.setPen(QPen(colour("flame"), 1.4, Qt.PenStyle.DotLine))
        painter.drawRect(rect)
    painter.restore()


class Origin(QWidget):
    """An origin square as a widget."""

    def __init__(self) -> None:
        super().__init__()
        self._origin = ""
        fix(self, width=12, height=24)

    def set_origin(self, origin: str, words: str) -> None:
        """Show where a figure comes from; the square is drawn anew only for another origin."""
        if (origin, words) == (self._origin, self.accessibleName()):
            return
        self._origin = origin
        tip(self, words)
        self.setAccessibleName(words)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = canvas(self)
        paint_origin(painter, QRectF(2, 8, 7, 7), self._origin)
