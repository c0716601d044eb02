"""Crosshair, labels, tags and the read-out of a plot: none is ever printed over another."""

from collections.abc import Callable
from functools import lru_cache

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPaintEngine, QPainter, QPainterPath, QPen, QPixmap

from firecrest.app.theme.style import colour, text_font, theme, title_font
from firecrest.app.widgets.chart_paint import BAND, ChartPainter, role_colour
from firecrest.app.widgets.patterns import limit_brush
from firecrest.present.plot.placement import Rect, Request, around, place
from firecrest.present.plot.plot import Curve, Line, Mark, Plot, Readout, Row, TintRun


@lru_cache(maxsize=128)
def _text_path(text: str, medium: bool) -> QPainterPath:
    """Outline of a label with its top at 0."""
    font = text_font(12, medium=medium)
    path = QPainterPath()
    path.addText(0.0, QFontMetricsF(font).ascent(), font, text)
    return path


def _paint_halo(painter: QPainter, path: QPainterPath, ink: QColor, sheet: QColor) -> None:
    """Letters in ``ink`` with a soft edge of ``sheet`` about them."""
    edge = QPen(sheet, 3.5)
    edge.setCapStyle(Qt.PenCapStyle.RoundCap)
    edge.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
    painter.strokePath(path, edge)
    painter.fillPath(path, ink)


@lru_cache(maxsize=128)
def _label_picture(text: str, medium: bool, ink: str, sheet: str, ratio: float) -> QPixmap:
    """A label with its halo, kept: stroking letters anew costs more than the rest of a chart."""
    path = _text_path(text, medium).translated(3.0, 0.0)
    size = path.boundingRect().size()
    picture = QPixmap(round((size.width() + 8) * ratio), round((size.height() + 14) * ratio))
    picture.setDevicePixelRatio(ratio)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _paint_halo(painter, path, QColor(ink), QColor(sheet))
    painter.end()
    return picture


class LabelPainter(ChartPainter):
    """Paints what stands over the curves."""

    def over(self, plot: Plot) -> None:
        """Crosshair, labels, tags and the read-out, none over another."""
        if plot.message:
            self._message(plot.message)
            return
        if plot.crosshair is not None:
            (x,), _ = self.map(np.array([plot.crosshair]), np.array([plot.y_range[0]]))
            self.p.setPen(QPen(colour("ink"), 1))
            self.p.drawLine(QPointF(x, self.area.top()), QPointF(x, self.area.bottom()))
        self._labels(plot)

    def _message(self, text: str) -> None:
        small = self.area.height() < 120
        self.p.setFont(text_font(11 if small else 13, medium=not small))
        self.p.setPen(colour("ink2"))
        flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
        self.p.drawText(self.area, flags, f"No curve yet: {text}")

    def _labels(self, plot: Plot) -> None:
        area = Rect(
            self.area.x() + 2, self.area.y() + 2, self.area.width() - 4, self.area.height() - 4
        )
        jobs: list[tuple[Request, Callable[[Rect], None]]] = []
        taken = self._taken(plot)
        if plot.readout is not None:
            taken.append(self._read_out(plot, plot.readout, area, taken))
        if plot.shortfall is not None:
            jobs.append(self._shortfall_job(plot))
        if plot.promise is not None:
            jobs.append(self._promise_job(plot.promise))
        jobs += [self._line_job(line) for line in plot.lines if line.label]
        jobs += [job for run in plot.tints if (job := self._tint_job(run)) is not None]
        jobs += [self._mark_job(mark) for mark in plot.marks if self._seen_mark(mark)]
        jobs += [self._curve_job(c) for c in plot.curves if c.label_at is not None]
        rects = place([request for request, _ in jobs], area, taken)
        for (_, draw), rect in zip(jobs, rects, strict=True):
            if rect is not None:
                draw(rect)

    def _read_out(self, plot: Plot, readout: Readout, area: Rect, taken: list[Rect]) -> Rect:
        """Draw the read-out where no curve is, or where it hides least: it is never left out."""
        request, draw = self._readout_job(plot, readout)
        (rect,) = place([request], area, taken)
        if rect is None:
            spots = [Rect(*spot, request.width, request.height) for spot in request.spots]
            rect = min(spots, key=lambda spot: sum(spot.overlaps(other) for other in taken))
        draw(rect)
        return rect

    def _taken(self, plot: Plot) -> list[Rect]:
        """Small rectangles along the main curve, which labels keep clear of."""
        if not plot.curves:
            return []
        curves = [plot.curves[0], *([plot.promise] if plot.promise is not None else [])]
        found = []
        for curve in curves:
            good = np.isfinite(curve.y)
            x, y = self.map(curve.x[good][::6], curve.y[good][::6])
            spots = zip(x.tolist(), y.tolist(), strict=True)
            found += [Rect(a - 6, b - 4, 12, 8) for a, b in spots]
        return found

    def _size(self, text: str, pixels: int = 12, *, medium: bool = False) -> tuple[float, float]:
        metrics = QFontMetricsF(text_font(pixels, medium=medium))
        return metrics.horizontalAdvance(text) + 2, metrics.height()

    def _halo(self, rect: Rect, text: str, ink: QColor, *, medium: bool = False) -> None:
        sheet = colour("sheet")
        if self.p.paintEngine().type() == QPaintEngine.Type.SVG:
            path = _text_path(text, medium).translated(rect.x + 1, rect.y)
            _paint_halo(self.p, path, ink, sheet)
            return
        picture = _label_picture(text, medium, ink.name(), sheet.name(), self.ratio)
        self.p.drawPixmap(QPointF(round(rect.x) - 2, round(rect.y)), picture)

    def _seen_mark(self, mark: Mark) -> bool:
        (x,), (y,) = self.map(np.array([mark.x]), np.array([mark.y]))
        return self.area.contains(QPointF(x, y))

    def _mark_job(self, mark: Mark) -> tuple[Request, Callable[[Rect], None]]:
        (x,), (y,) = self.map(np.array([mark.x]), np.array([mark.y]))
        width, height = self._size(mark.label, medium=mark.chosen)
        ink = colour("ink") if mark.chosen else role_colour(mark.role)
        return (
            Request(width, height, around(x, y, width, height, 7)),
            lambda rect: self._halo(rect, mark.label, ink, medium=mark.chosen),
        )

    def _curve_job(self, curve: Curve) -> tuple[Request, Callable[[Rect], None]]:
        at = float(curve.label_at or 100.0)
        level = float(np.interp(at, curve.x, curve.y))
        (x,), (y,) = self.map(np.array([at]), np.array([level]))
        width, height = self._size(curve.label)
        ink = role_colour(curve.role)
        return (
            Request(width, height, around(x, y, width, height, 5)),
            lambda rect: self._halo(rect, curve.label, ink),
        )

    def _tint_job(self, run: TintRun) -> tuple[Request, Callable[[Rect], None]] | None:
        x, y = self.map(run.x, run.y)
        left, right = max(x[0], self.area.left()), min(x[-1], self.area.right())
        if right - left < 10:
            return None
        text = run.name
        width, height = self._size(text, medium=True)
        if width > right - left + 40:
            text = run.code
            width, height = self._size(text, medium=True)
        spots = []
        for share in (0.5, 0.75, 0.9, 0.3):
            middle = left + share * (right - left)
            base = float(np.interp(middle, x, y)) + BAND + 4
            start = min(
                max(middle - width / 2, self.area.left() + 4), self.area.right() - width - 4
            )
            spots += [(start, base + down) for down in (0.0, 14.0, 32.0)]
        ink = QColor(theme().line(run.code))
        return (
            Request(width, height, spots),
            lambda rect: self._halo(rect, text, ink, medium=True),
        )

    def _line_job(self, line: Line) -> tuple[Request, Callable[[Rect], None]]:
        a, _ = self.ends(line)
        width, height = self._size(line.label, medium=line.kind == "promise")
        if line.upright:
            spots = [
                (a.x() - width - 12, self.area.top() + 4),
                (a.x() + 8, self.area.top() + 4),
                (a.x() - width - 12, self.area.top() + 24),
                (a.x() + 8, self.area.top() + 24),
            ]
        else:
            right = self.area.right() - width - 8
            spots = [
                (right, a.y() - height - 4),
                (right, a.y() + 3),
                (self.area.left() + 6, a.y() - height - 4),
            ]
        if line.kind == "promise":
            return Request(width + 8, height + 2, spots), lambda r: self._tag(r, line.label)
        ink = colour("ink2")
        return Request(width, height, spots), lambda rect: self._halo(rect, line.label, ink)

    def _promise_job(self, curve: Curve) -> tuple[Request, Callable[[Rect], None]]:
        width, height = self._size(curve.label, medium=True)
        x, y = self.map(curve.x, curve.y)
        inside = (x >= self.area.left()) & (x <= self.area.right())
        end = int(np.nonzero(inside)[0][-1]) if inside.any() else -1
        width, height = width + 12, height + 4
        right = self.area.right() - width - 6
        spots = [
            (right - k, y[end] - height / 2 + d)
            for d in (0.0, 18.0, -18.0)
            for k in (0, 120, 240, 360)
        ]
        spots += around(x[end] - width, y[end], width, height)
        return Request(width, height, spots), lambda rect: self._tag(rect, curve.label)

    def _tag(self, rect: Rect, text: str) -> None:
        box = QRectF(rect.x, rect.y, rect.width, rect.height)
        self.p.setPen(QPen(colour("brow"), 1))
        self.p.setBrush(colour("stripe"))
        self.p.drawRoundedRect(box, 3, 3)
        self.p.setFont(text_font(12, medium=True))
        self.p.setPen(colour("onstripe"))
        self.p.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def _shortfall_job(self, plot: Plot) -> tuple[Request, Callable[[Rect], None]]:
        short = plot.shortfall
        assert short is not None
        level = float(np.interp(short.at, short.x, short.low))
        (x,), (y,) = self.map(np.array([short.at]), np.array([level]))
        width, height = self._size(short.label, medium=True)
        width, height = width + 14, height + 6
        spots = [
            (x - width - 16, y - height - 18),
            (x - width - 30, y - height - 40),
            (x + 14, y + 30),
            (x - width - 14, y + 8),
            *around(x, y, width, height, 14),
        ]

        def draw(rect: Rect) -> None:
            box = QRectF(rect.x, rect.y, rect.width, rect.height)
            self.p.setPen(QPen(colour("stripe"), 1))
            corner = QPointF(
                rect.x + rect.width if rect.x < x else rect.x, rect.y + rect.height / 2
            )
            self.p.drawLine(corner, QPointF(x, y))
            self.p.setPen(QPen(colour("crest"), 1.2))
            self.p.setBrush(colour("yolk"))
            self.p.drawEllipse(QPointF(x, y), 4.5, 4.5)
            self.p.drawRoundedRect(box, 3, 3)
            self.p.setFont(text_font(12, medium=True))
            self.p.setPen(colour("onyolk"))
            self.p.drawText(box, Qt.AlignmentFlag.AlignCenter, short.label)

        return Request(width, height, spots), draw

    def _readout_job(self, plot: Plot, readout: Readout) -> tuple[Request, Callable[[Rect], None]]:
        row_height, width = 18.0, 218.0
        height = 30.0 + row_height * len(readout.rows)
        left, right = self.area.left() + 10, self.area.right() - width - 10
        top, bottom = self.area.top() + 8, self.area.bottom() - height - 10
        spots = [
            (right, bottom),
            (right, top),
            (left, top),
            (left, bottom),
            (self.area.center().x() - width / 2, bottom),
        ]

        def draw(rect: Rect) -> None:
            self._card(rect, readout, row_height)

        return Request(width, height, spots), draw

    def _card(self, rect: Rect, readout: Readout, row_height: float) -> None:
        box = QRectF(rect.x, rect.y, rect.width, rect.height)
        self.p.setPen(QPen(colour("rule"), 1))
        self.p.setBrush(colour("card"))
        self.p.drawRoundedRect(box, 5, 5)
        inner = box.adjusted(10, 6, -10, -4)
        self.p.setPen(colour("ink"))
        self.p.setFont(title_font(13))
        self.p.drawText(
            inner, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop, readout.title
        )
        self.p.setFont(text_font(11))
        self.p.setPen(colour("ink2"))
        self.p.drawText(
            inner, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop, readout.note
        )
        for k, row in enumerate(readout.rows):
            y = inner.top() + 22 + k * row_height
            self._swatch(row, QRectF(inner.left(), y + 3, 13, 10))
            text = QRectF(inner.left() + 20, y, inner.width() - 20, row_height)
            self.p.setFont(text_font(12, medium=k == 0))
            self.p.setPen(colour("ink"))
            self.p.drawText(text, Qt.AlignmentFlag.AlignLeft, row.name)
            self.p.setPen(colour("flame" if row.short else "ink"))
            self.p.drawText(text, Qt.AlignmentFlag.AlignRight, row.value)

    def _swatch(self, row: Row, box: QRectF) -> None:
        """The tint of a limit, or a stroke in a curve's colour."""
        if not row.code:
            self.p.setPen(QPen(role_colour(row.role), 3))
            self.p.drawLine(
                QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y())
            )
            return
        fill, line = theme().fill(row.code), theme().line(row.code)
        self.p.setPen(QPen(QColor(line), 1))
        self.p.setBrush(limit_brush(row.code, fill, line, self.ratio))
        self.p.setBrushOrigin(box.topLeft())
        self.p.drawRect(box)
