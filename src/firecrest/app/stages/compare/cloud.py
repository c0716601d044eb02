"""All that was tried as a cloud of points, under two promises drawn as stripes."""

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from firecrest.app.theme.size import canvas, extent, fix, sized
from firecrest.app.theme.style import colour, holder, text_font
from firecrest.present.compare.trail import Axis, Point, place, spoken, ticks

LEFT, BOTTOM, TOP, RIGHT = 40, 20, 8, 10
DISC = 9


class Cloud(QWidget):
    """Points of two promises; variants are lettered discs, the field that keeps both is olive."""

    def __init__(self) -> None:
        super().__init__()
        self._points: Sequence[Point] = ()
        self._axes: tuple[Axis, Axis] | None = None
        fix(self, least_height=130)
        holder.changed.connect(self.update)

    def show_points(self, points: Sequence[Point], x: Axis, y: Axis) -> None:
        """Show points between two axes."""
        self._points, self._axes = points, (x, y)
        self.setAccessibleName(spoken(points, x, y))
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(220), sized(150))

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._axes is None:
            return
        p, whole = canvas(self), extent(self)
        area = whole.adjusted(LEFT, TOP, -RIGHT, -BOTTOM)
        x, y = self._axes
        self._kept_field(p, area, x, y)
        self._grid(p, area, x, y)
        self._stripes(p, area, x, y)
        for point in sorted(self._points, key=lambda one: (bool(one.letter), one.here)):
            if x.key in point.figures and y.key in point.figures:
                spot = QPointF(
                    area.left() + place(point.figures[x.key], x) * area.width(),
                    area.bottom() - place(point.figures[y.key], y) * area.height(),
                )
                self._point(p, spot, point)

    def _kept_field(self, p: QPainter, area: QRectF, x: Axis, y: Axis) -> None:
        if not (x.judged and y.judged):
            return
        left, right = self._side(area.left(), area.right(), x)
        top, bottom = self._up(area, y)
        p.fillRect(QRectF(QPointF(left, top), QPointF(right, bottom)), colour("olivet"))

    def _side(self, low: float, high: float, on: Axis) -> tuple[float, float]:
        at = low + (on.target - on.low) / (on.high - on.low) * (high - low)
        return (at, high) if on.floor else (low, at)

    def _up(self, area: QRectF, on: Axis) -> tuple[float, float]:
        at = area.bottom() - (on.target - on.low) / (on.high - on.low) * area.height()
        return (area.top(), at) if on.floor else (at, area.bottom())

    def _grid(self, p: QPainter, area: QRectF, x: Axis, y: Axis) -> None:
        p.setFont(text_font(11))
        for share, text in ticks(x):
            at = area.left() + share * area.width()
            p.setPen(QPen(colour("grid"), 1))
            p.drawLine(QPointF(at, area.top()), QPointF(at, area.bottom()))
            p.setPen(colour("ink2"))
            where = QRectF(at - 30, area.bottom() + 3, 60, 16)
            p.drawText(where, Qt.AlignmentFlag.AlignHCenter, text)
        for share, text in ticks(y):
            at = area.bottom() - share * area.height()
            p.setPen(QPen(colour("grid"), 1))
            p.drawLine(QPointF(area.left(), at), QPointF(area.right(), at))
            p.setPen(colour("ink2"))
            where = QRectF(0, at - 8, area.left() - 6, 16)
            p.drawText(where, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, text)

    def _stripes(self, p: QPainter, area: QRectF, x: Axis, y: Axis) -> None:
        across = area.left() + (x.target - x.low) / (x.high - x.low) * area.width()
        up = area.bottom() - (y.target - y.low) / (y.high - y.low) * area.height()
        for judged, a, b in (
            (x.judged, QPointF(across, area.top()), QPointF(across, area.bottom())),
            (y.judged, QPointF(area.left(), up), QPointF(area.right(), up)),
        ):
            for role, width in (("brow", 5.0), ("stripe", 2.0)):
                if judged:
                    p.setPen(QPen(colour(role), width))
                    p.drawLine(a, b)

    def _point(self, p: QPainter, spot: QPointF, point: Point) -> None:
        p.setPen(QPen(colour("stripe" if point.here else "rule2"), 1.2))
        if not point.letter:
            p.setBrush(colour("sheet"))
            p.drawEllipse(spot, 3.0, 3.0)
            return
        p.setBrush(colour("olivet" if point.here else "sheet"))
        p.drawEllipse(spot, DISC, DISC)
        p.setFont(text_font(12, medium=True))
        p.setPen(colour("ink"))
        box = QRectF(spot.x() - DISC, spot.y() - DISC, 2 * DISC, 2 * DISC)
        p.drawText(box, Qt.AlignmentFlag.AlignCenter, point.letter)
