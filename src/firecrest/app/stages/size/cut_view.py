"""A cut through the map: loudness along what runs up, tinted by what gives first."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from firecrest.app.stages.size.map_view import BOTTOM, TOP
from firecrest.app.theme.size import canvas, extent, fix, ratio, sized
from firecrest.app.theme.style import colour, holder, text_font, theme
from firecrest.app.widgets.patterns import limit_brush
from firecrest.core.units import figure
from firecrest.present.size.crossing import Cut

BAND = 14.0


class CutView(QWidget):
    """Loudness to the right, the figure of the map upwards, the promise as a stripe."""

    def __init__(self) -> None:
        super().__init__()
        self._cut: Cut | None = None
        self._at = 0.5
        fix(self, width=104)
        holder.changed.connect(self.update)

    def show_cut(self, cut: Cut | None, at: float) -> None:
        """Show a cut, with the cross at the share ``at``."""
        self._cut, self._at = cut, at
        if cut is not None and cut.points:
            levels = [level for _, level, _ in cut.points]
            self.setAccessibleName(
                f"Cut: {min(levels):.1f} to {max(levels):.1f} dB, promise {cut.target:g} dB"
            )
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(104), sized(200))

    def paintEvent(self, event: QPaintEvent) -> None:
        p, cut = canvas(self), self._cut
        area = extent(self).adjusted(4, TOP, -6, -BOTTOM)
        p.fillRect(area, colour("sheet"))
        if cut is None:
            return

        def _x(level: float) -> float:
            return area.left() + (level - cut.low) / (cut.high - cut.low) * area.width()

        p.save()
        p.setClipRect(area)
        p.setPen(Qt.PenStyle.NoPen)
        for (ya, la, code), (yb, lb, _) in zip(cut.points, cut.points[1:], strict=False):
            tops = [
                QPointF(_x(la), area.bottom() - ya * area.height()),
                QPointF(_x(lb), area.bottom() - yb * area.height()),
            ]
            fill, line = QColor(theme().fill(code)), theme().line(code)
            ground = QColor(fill)
            ground.setAlphaF(0.35)
            self._strip(p, tops, area.width(), ground)
            self._strip(p, tops, BAND, limit_brush(code, fill.name(), line, ratio(self)))
            p.setPen(QPen(QColor(line), 2.2))
            p.drawLine(*tops)
            p.setPen(Qt.PenStyle.NoPen)
        p.restore()
        x = _x(cut.target)
        for role, width in (("brow", 5.0), ("stripe", 2.0)):
            p.setPen(QPen(colour(role), width))
            p.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()))
        y = area.bottom() - self._at * area.height()
        p.setPen(QPen(colour("ink2"), 1))
        p.drawLine(QPointF(area.left(), y), QPointF(area.right(), y))
        p.setFont(text_font(11))
        p.setPen(colour("ink2"))
        for level, side in (
            (cut.low, Qt.AlignmentFlag.AlignLeft),
            (cut.high, Qt.AlignmentFlag.AlignRight),
        ):
            text = figure(level, 0) + (" dB" if level == cut.high else "")
            p.drawText(QRectF(area.left(), area.bottom() + 4, area.width(), 16), side, text)

    def _strip(self, p: object, tops: list[QPointF], width: float, brush: object) -> None:
        a, b = tops
        p.setBrush(brush)  # type: ignore[attr-defined]
        corners = [a, b, QPointF(b.x() - width, b.y()), QPointF(a.x() - width, a.y())]
        p.drawPolygon(QPolygonF(corners))  # type: ignore[attr-defined]
