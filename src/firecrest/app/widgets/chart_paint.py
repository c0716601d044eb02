"""How a ``Plot`` is painted, in pixels: grid, tints, curves, promise, labels, read-out."""

from collections.abc import Callable
from typing import Any

import numpy as np
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen, QPolygonF
from shiboken6 import VoidPtr

from firecrest.app.theme.style import colour, theme
from firecrest.app.widgets.patterns import limit_brush, pattern_tile
from firecrest.present.plot.plot import Curve, Likely, Line, Mark, Plot, Shortfall, Taken, TintRun
from firecrest.present.size.portview import area_ticks

BAND = 34.0
NARROW = 24.0
SMOOTH = 4
"""The promise has no corners: every fourth point of it draws the same line."""
STYLES = {
    "solid": Qt.PenStyle.SolidLine,
    "dashed": Qt.PenStyle.DashLine,
    "dotted": Qt.PenStyle.DotLine,
}
POINT = 16
"""Bytes of a point: two numbers of double precision."""
ToPixels = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray]]


def polygon(x: np.ndarray, y: np.ndarray) -> QPolygonF:
    """A polygon from pixel arrays: its points are written where it keeps them."""
    made = QPolygonF()
    if len(x) == 0:
        return made  # it keeps no points to be written to
    made.resize(len(x))
    memory: Any = VoidPtr(made.data(), len(x) * POINT, True)  # type: ignore[call-arg,arg-type]
    points = np.frombuffer(memory, dtype=np.float64).reshape(-1, 2)
    points[:, 0], points[:, 1] = x, y
    return made


def closed(x: np.ndarray, y: np.ndarray, back: np.ndarray, under: np.ndarray) -> QPolygonF:
    """The polygon along a line and back along another one."""
    return polygon(np.concatenate((x, back)), np.concatenate((y, under)))


def role_colour(role: str) -> QColor:
    """Colour of a curve's role; ``limit:X`` is the line of a tint."""
    if role.startswith("limit:"):
        return QColor(theme().line(role[-1]))
    return colour(role)


def mixed(fill: str, share: float) -> QColor:
    """``share`` of a colour on the sheet: opaque, so that nothing needs to be blended."""
    top, sheet = QColor(fill), colour("sheet")
    parts = zip(top.getRgb()[:3], sheet.getRgb()[:3], strict=True)  # type: ignore[index]
    return QColor(*(round(share * a + (1 - share) * b) for a, b in parts))


class ChartPainter:
    """Paints grid, fills and curves of one plot with one painter."""

    def __init__(self, painter: QPainter, area: QRectF, to_pixels: ToPixels, ratio: float) -> None:
        self.p, self.area, self.map, self.ratio = painter, area, to_pixels, ratio
        self.x_range = (0.0, float("inf"))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)

    # under the labels -----------------------------------------------------------

    def under(self, plot: Plot, ghost: Plot | None) -> None:
        """Grid, fills, curves and ghosts."""
        self.x_range = plot.x_range
        self.p.fillRect(self.area, colour("sheet"))
        for run in plot.tints:
            self._ground(run)
        self._grid(plot)
        for run in plot.tints:
            self._tint(run)
        if plot.shortfall is not None:
            self._hatched(plot.shortfall, theme()["flame"], theme()["yolk"])
        if plot.taken is not None:
            self._hatched(plot.taken, theme()["amber"], theme()["ambert"])
        if plot.likely is not None:
            self._likely(plot.likely)
        for curve in plot.curves:
            if not (plot.tints and curve.label in ("ceiling", "after voice")):
                self._curve(curve)
        for run in plot.tints:
            self._top(run)
        if plot.promise is not None:
            self._stripe(plot.promise)
        for line in plot.lines:
            self._line(line)
        for mark in plot.marks:
            self._mark(mark)
        if ghost is not None:
            self._ghost(ghost)

    def _likely(self, band: Likely) -> None:
        """The ground a curve likely runs over, with its edges."""
        known = np.isfinite(band.low) & np.isfinite(band.high)
        if not known.any():
            return
        x, low = self._seen(band.x[known], band.low[known])
        _, high = self._seen(band.x[known], band.high[known])
        ground = QColor(colour("yolk"))
        ground.setAlpha(70)
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(ground)
        self.p.drawPolygon(closed(x, low, x[::-1], high[::-1]))
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.setPen(QPen(colour("crest"), 1))
        for y in (low, high):
            self.p.drawPolyline(polygon(x, y))

    def _mark(self, mark: Mark) -> None:
        """A disc at a point; the one in force is yellow with a dark edge."""
        (x,), (y,) = self.map(np.array([mark.x]), np.array([mark.y]))
        if not self.area.adjusted(-4, -4, 4, 4).contains(QPointF(x, y)):
            return
        self.p.setPen(QPen(colour("stripe" if mark.chosen else "sheet"), 1.4))
        self.p.setBrush(colour("yolk") if mark.chosen else role_colour(mark.role))
        radius = 6.0 if mark.chosen else 4.5
        self.p.drawEllipse(QPointF(x, y), radius, radius)

    def _grid(self, plot: Plot) -> None:
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        self.p.setPen(QPen(colour("grid"), 1))
        bottom, top = plot.y_range
        values = np.arange(bottom, top + plot.y_step / 2, plot.y_step)
        _, ys = self.map(np.full(len(values), plot.x_range[0]), values)
        left, right = self.area.left(), self.area.right()
        self.p.drawLines([QLineF(left, y, right, y) for y in ys.tolist()])
        if plot.x_axis == "frequency":
            marks = [float(d * 10**k) for k in (1, 2, 3, 4) for d in range(1, 10)]
        elif plot.x_axis == "distance":
            marks = [1, 2, 4, 8, 16]
        elif plot.x_axis == "area":
            marks = area_ticks(*plot.x_range)
        else:
            marks = list(range(int(plot.x_range[1]) + 1))
        xs, _ = self.map(np.array(marks, dtype=float), np.full(len(marks), bottom))
        top, floor = self.area.top(), self.area.bottom()
        self.p.drawLines([QLineF(x, top, x, floor) for x in xs.tolist() if left <= x <= right])
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing)

    def _seen(self, x: np.ndarray, y: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Pixels of the points in the plot's range, and one beyond at each end."""
        inside = np.nonzero((x >= self.x_range[0]) & (x <= self.x_range[1]))[0]
        if len(inside) == 0:
            return self.map(x, y)
        span = slice(max(inside[0] - 1, 0), inside[-1] + 2)
        return self.map(x[span], y[span])

    def _spread(self, run: TintRun) -> tuple[np.ndarray, np.ndarray] | None:
        """Pixels of a run; None when none of it is in the plot."""
        x, y = self._seen(run.x, run.y)
        out = len(x) < 2 or x[-1] < self.area.left() or x[0] > self.area.right()
        return None if out else (x, y)

    def _under_line(self, x: np.ndarray, y: np.ndarray, fill: QColor) -> None:
        """Everything below a line in one opaque colour, without smoothing: the cheapest fill."""
        floor = np.full(2, self.area.bottom())
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(fill)
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        self.p.drawPolygon(closed(x, y, x[[-1, 0]], floor))
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing)

    def _ground(self, run: TintRun) -> None:
        spread = self._spread(run)
        if spread is not None:
            self._under_line(*spread, mixed(theme().fill(run.code), 0.3))

    def _tint(self, run: TintRun) -> None:
        spread = self._spread(run)
        if spread is None:
            return
        x, y = spread
        fill, line = theme().fill(run.code), theme().line(run.code)
        wide = min(x[-1], self.area.right()) - max(x[0], self.area.left()) >= NARROW
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(limit_brush(run.code, fill, line, self.ratio) if wide else QColor(fill))
        self.p.setBrushOrigin(self.area.topLeft())
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        self.p.drawPolygon(closed(x, y, x[::-1], (y + BAND)[::-1]))
        self.p.setPen(QPen(QColor(line), 1, Qt.PenStyle.DotLine))
        self.p.drawLine(QPointF(x[-1], y[-1]), QPointF(x[-1], self.area.bottom()))
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing)

    def _top(self, run: TintRun) -> None:
        x, y = self._seen(run.x, run.y)
        self.p.setPen(QPen(QColor(theme().line(run.code)), 3))
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.drawPolyline(polygon(x, y))

    def _hatched(self, run: Shortfall | Taken, line: str, ground: str) -> None:
        x, low = self.map(run.x, run.low)
        _, high = self.map(run.x, run.high)
        shape = closed(x, low, x[::-1], high[::-1])
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(pattern_tile("hatch", line, ground, self.ratio))
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        self.p.drawPolygon(shape)
        self.p.setRenderHint(QPainter.RenderHint.Antialiasing)

    def _curve(self, curve: Curve) -> None:
        good = np.isfinite(curve.y)
        pen = QPen(role_colour(curve.role), curve.width, STYLES[curve.style])
        for part in _stretches(good):
            x, y = self._seen(curve.x[part], curve.y[part])
            if curve.fill:
                tint = theme().fill(curve.role[-1]) if ":" in curve.role else pen.color().name()
                self._under_line(x, y, mixed(tint, 0.6))
            self.p.setPen(pen)
            self.p.setBrush(Qt.BrushStyle.NoBrush)
            hair = curve.style == "dotted" and curve.width <= 1
            self.p.setRenderHint(QPainter.RenderHint.Antialiasing, not hair)
            self.p.drawPolyline(polygon(x, y))
            self.p.setRenderHint(QPainter.RenderHint.Antialiasing)

    def _stripe(self, curve: Curve) -> None:
        x, y = self._seen(curve.x, curve.y)
        ends = [
            np.concatenate((values[: len(values) - 1 : SMOOTH], values[-1:])) for values in (x, y)
        ]
        line = polygon(*ends)
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        for role, width in (("brow", 5.0), ("stripe", 2.0)):
            self.p.setPen(QPen(colour(role), width))
            self.p.drawPolyline(line)

    def _line(self, line: Line) -> None:
        a, b = self.ends(line)
        if line.kind == "promise":
            self.p.setPen(QPen(colour("brow"), 4))
            self.p.drawLine(a, b)
        role = {"promise": "stripe", "end": "ink"}.get(line.kind, "rule2")
        style = Qt.PenStyle.DashLine if line.kind == "limit" else Qt.PenStyle.SolidLine
        self.p.setPen(QPen(colour(role), 1.6, style))
        self.p.drawLine(a, b)

    def ends(self, line: Line) -> tuple[QPointF, QPointF]:
        if line.upright:
            (x,), _ = self.map(np.array([line.at]), np.array([0.0]))
            return QPointF(x, self.area.top()), QPointF(x, self.area.bottom())
        _, (y,) = self.map(np.array([100.0]), np.array([line.at]))
        return QPointF(self.area.left(), y), QPointF(self.area.right(), y)

    def _ghost(self, ghost: Plot) -> None:
        pen = QPen(colour("ink"), 1.8, Qt.PenStyle.DashLine)
        self.p.setPen(pen)
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        for curve in ghost.curves[: 1 if ghost.tints else None]:
            good = np.isfinite(curve.y)
            if curve.style != "dotted" and good.any():
                x, y = self._seen(curve.x[good], curve.y[good])
                self.p.drawPolyline(polygon(x, y))
        if ghost.promise is not None:
            x, y = self._seen(ghost.promise.x, ghost.promise.y)
            self.p.drawPolyline(polygon(x, y))


def _stretches(good: np.ndarray) -> list[slice]:
    """Slices of consecutive True values, at least two long."""
    if good.all():
        return [slice(0, len(good))] if len(good) > 1 else []
    edges = np.diff(np.r_[0, good.astype(int), 0])
    starts, stops = np.nonzero(edges == 1)[0], np.nonzero(edges == -1)[0]
    return [slice(a, b) for a, b in zip(starts.tolist(), stops.tolist(), strict=True) if b - a > 1]
