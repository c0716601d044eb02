"""The map: painted in shares of its area; a cross is set by pointing or by keys."""

from collections.abc import Sequence

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSize, QSizeF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFocusEvent,
    QFontMetricsF,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPolygonF,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from firecrest.app.theme.size import canvas, extent, fix, ratio, sized
from firecrest.app.theme.style import colour, holder, text_font, theme
from firecrest.app.widgets.chart_paint import role_colour
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.patterns import pattern_tile
from firecrest.core.arrays import Real
from firecrest.present.size.mapview import Area, MapPicture, Named, Stripe

LEFT, BOTTOM, TOP, RIGHT = 46, 22, 8, 12
STEP, LARGE = 1 / 60, 1 / 12
"""Shares of the map by which arrows move the cross; with Shift."""
PALE = 150
DISC = 9
ARROWS = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Down: (0, -1),
    Qt.Key.Key_Up: (0, 1),
}
Disc = tuple[float, float, str, bool]
"""Share across and up, letter, and whether it is in force."""


class MapView(QWidget):
    """One map; ``crossed`` tells where the cross is, ``taken`` that it shall be gone to."""

    crossed = Signal(float, float)
    taken = Signal()
    dropped = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._picture: MapPicture | None = None
        self._discs: Sequence[Disc] = ()
        self._cross: tuple[float, float] | None = None
        self._moved: Sequence[Real] = ()
        self.old = False
        self.message = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        fix(self, least_height=170)
        self.setAccessibleName("Map")
        holder.changed.connect(self.update)

    def show_map(self, picture: MapPicture | None, discs: Sequence[Disc]) -> None:
        """Show a map, with the places of all variants."""
        self._picture, self._discs, self.old = picture, discs, False
        self.setAccessibleDescription("" if picture is None else picture.spoken)
        self.update()

    def show_moved(self, lines: Sequence[Real]) -> None:
        """Where loudness would be kept with what is tried, dashed."""
        if len(lines) or len(self._moved):
            self._moved = lines
            self.update()

    def show_old(self) -> None:
        """The map on show is of the design before the last edit."""
        self.old = True
        self.update()

    def set_cross(self, x: float, y: float) -> None:
        """Put the cross at shares of the map."""
        self._cross = (min(max(x, 0.0), 1.0), min(max(y, 0.0), 1.0))
        self.update()

    @property
    def cross(self) -> tuple[float, float] | None:
        """Where the cross is, in shares."""
        return self._cross

    def sizeHint(self) -> QSize:
        return QSize(sized(460), sized(260))

    # hands -----------------------------------------------------------------------------

    def _area(self) -> QRectF:
        return extent(self).adjusted(LEFT, TOP, -RIGHT, -BOTTOM)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        factor = ratio(self) / self.devicePixelRatioF()
        area = self._area()
        spot = event.position() / factor
        self._move(
            (spot.x() - area.left()) / area.width(), (area.bottom() - spot.y()) / area.height()
        )

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if event.buttons() & Qt.MouseButton.LeftButton:
            self.mousePressEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        if key in ARROWS:
            large = event.modifiers() & Qt.KeyboardModifier.ShiftModifier
            step = LARGE if large else STEP
            x, y = self._cross or (0.5, 0.5)
            dx, dy = ARROWS[key]
            self._move(x + dx * step, y + dy * step)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.taken.emit()
        elif key == Qt.Key.Key_Escape:
            self.dropped.emit()
        else:
            super().keyPressEvent(event)

    def _move(self, x: float, y: float) -> None:
        if self._picture is not None:
            self.set_cross(x, y)
            assert self._cross is not None
            self.crossed.emit(*self._cross)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self.update()

    # painting -------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        p, area = canvas(self), self._area()
        p.fillRect(area, colour("tray"))
        m = self._picture
        if m is None:
            p.setFont(text_font(13))
            p.setPen(colour("ink2"))
            p.drawText(area, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self.message)
            return
        p.save()
        p.setClipRect(area)
        self._ground(p, area, m)
        self._lines(p, area, m)
        self._moved_lines(p, area)
        p.restore()
        self._ticks(p, area, m)
        self._words(p, area, m)
        for x, y, letter, here in sorted(self._discs, key=lambda d: d[3]):
            self._disc(p, self._spot(area, x, y), letter, here)
        if self._cross is not None:
            self._crosshair(p, area)
        if self.old:
            self._veil(p, area)
        if self.hasFocus():
            paint_ring(p, area.adjusted(-2, -2, 2, 2))

    def _ground(self, p: QPainter, area: QRectF, m: MapPicture) -> None:
        p.setPen(Qt.PenStyle.NoPen)
        for band in m.areas:
            p.setBrush(QColor(theme().step(band.step)))
            p.drawPath(self._path(area, band))
        if m.outside is not None:
            veil = QColor(colour("sheet"))
            veil.setAlpha(PALE)
            p.setBrush(veil)
            p.drawPath(self._path(area, m.outside))
        for lost in m.lost:
            path = self._path(area, lost)
            p.setBrush(colour("tray"))
            p.drawPath(path)
            p.setBrush(pattern_tile("hatch", theme()["rule2"], "", ratio(self)))
            p.drawPath(path)

    def _lines(self, p: QPainter, area: QRectF, m: MapPicture) -> None:
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour("sheet"), 1))
        for stripe in m.contours:
            self._draw(p, area, stripe.lines)
        p.setPen(QPen(colour("ink2"), 1.2, Qt.PenStyle.DotLine))
        self._draw(p, area, m.borders)
        for stripe in m.promises:
            for role, width in (("brow", 6.0), ("stripe", 2.4)):
                p.setPen(QPen(colour(role), width))
                self._draw(p, area, stripe.lines)

    def _moved_lines(self, p: QPainter, area: QRectF) -> None:
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour("stripe"), 2.0, Qt.PenStyle.DashLine))
        self._draw(p, area, self._moved)

    def _draw(self, p: QPainter, area: QRectF, lines: Sequence[Real]) -> None:
        for line in lines:
            p.drawPolyline(self._points(area, line))

    def _words(self, p: QPainter, area: QRectF, m: MapPicture) -> None:
        p.setFont(text_font(11))
        for stripe in m.contours:
            if stripe.at is not None:
                self._haloed(p, self._spot(area, *stripe.at), stripe.tag, "ink")
        p.setFont(text_font(12, medium=True))
        for named, box in self.names(area, m):
            self._haloed(p, box.center(), named.text, named.role)
        for named, box in self.plates(area, m):
            self._plate(p, box, named)
        for stripe, box in self.tags(area, m):
            self._tag(p, box, stripe)

    def names(self, area: QRectF, m: MapPicture) -> list[tuple[Named, QRectF]]:
        """Territories and where their names stand: clear of plates, tags and each other."""
        metrics = QFontMetricsF(text_font(12, medium=True))
        taken = [box for _, box in (*self.plates(area, m), *self.tags(area, m))]
        found = []
        for named in m.territories:
            size = QSizeF(metrics.horizontalAdvance(named.text) + 4, metrics.ascent() + 4)
            tried = (self._boxed(area, size, spot) for spot in named.spots)
            clear = (b for b in tried if not any(b.intersects(other) for other in taken))
            box = next(clear, None) or self._boxed(area, size, named.spots[0])
            taken.append(box)
            found.append((named, box))
        return found

    def plates(self, area: QRectF, m: MapPicture) -> list[tuple[Named, QRectF]]:
        """Reasons and where they stand; those that have no room are left out."""
        metrics = QFontMetricsF(text_font(12, medium=True))
        found = []
        for named in m.plates:
            lines = named.text.split("\n")
            wide = max(metrics.horizontalAdvance(line) for line in lines) + 14
            size = QSizeF(wide, 18 * len(lines) + 6)
            if size.width() <= area.width() and size.height() <= area.height():
                found.append((named, self._boxed(area, size, named.spots[0])))
        return found

    def tags(self, area: QRectF, m: MapPicture) -> list[tuple[Stripe, QRectF]]:
        """Promises and where their tags stand."""
        metrics = QFontMetricsF(text_font(12, medium=True))
        return [
            (s, self._boxed(area, QSizeF(metrics.horizontalAdvance(s.tag) + 12, 20), s.at))
            for s in m.promises
            if s.at is not None
        ]

    def _boxed(self, area: QRectF, size: QSizeF, at: tuple[float, float]) -> QRectF:
        """Room for words at a spot, all of it on the map."""
        box = QRectF(QPointF(), size)
        box.moveCenter(self._spot(area, *at))
        box.moveLeft(min(max(box.left(), area.left() + 2), area.right() - box.width() - 2))
        box.moveTop(min(max(box.top(), area.top() + 2), area.bottom() - box.height() - 2))
        return box

    def _haloed(self, p: QPainter, spot: QPointF, text: str, role: str) -> None:
        metrics = QFontMetricsF(p.font())
        path = QPainterPath()
        left = spot.x() - metrics.horizontalAdvance(text) / 2
        path.addText(left, spot.y() + metrics.ascent() / 2 - 1, p.font(), text)
        p.strokePath(path, QPen(colour("sheet"), 3.5))
        p.fillPath(path, role_colour(role))

    def _plate(self, p: QPainter, box: QRectF, named: Named) -> None:
        p.fillRect(box, colour("tray"))
        for k, line in enumerate(named.text.split("\n")):
            p.setFont(text_font(12, medium=k == 0))
            p.setPen(colour("ink" if k == 0 else "ink2"))
            where = QRectF(box.left() + 7, box.top() + 3 + 18 * k, box.width(), 18)
            p.drawText(where, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, line)

    def _tag(self, p: QPainter, box: QRectF, stripe: Stripe) -> None:
        p.setFont(text_font(12, medium=True))
        p.setPen(QPen(colour("brow"), 1))
        p.setBrush(colour("stripe"))
        p.drawRoundedRect(box, 3, 3)
        p.setPen(colour("onstripe"))
        p.drawText(box, Qt.AlignmentFlag.AlignCenter, stripe.tag)

    def _ticks(self, p: QPainter, area: QRectF, m: MapPicture) -> None:
        p.setFont(text_font(11))
        p.setPen(colour("ink2"))
        for share, text in m.x_ticks:
            x = area.left() + share * area.width()
            where = QRectF(x - 30, area.bottom() + 4, 60, 16)
            p.drawText(where, Qt.AlignmentFlag.AlignHCenter, text)
        for share, text in m.y_ticks:
            y = area.bottom() - share * area.height()
            where = QRectF(0, y - 8, LEFT - 6, 16)
            p.drawText(where, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, text)

    def _disc(self, p: QPainter, spot: QPointF, letter: str, here: bool) -> None:
        p.setPen(QPen(colour("stripe"), 1.4))
        p.setBrush(colour("olivet" if here else "sheet"))
        p.drawEllipse(spot, DISC, DISC)
        p.setFont(text_font(12, medium=True))
        p.setPen(colour("ink"))
        box = QRectF(spot.x() - DISC, spot.y() - DISC, 2 * DISC, 2 * DISC)
        p.drawText(box, Qt.AlignmentFlag.AlignCenter, letter)

    def _crosshair(self, p: QPainter, area: QRectF) -> None:
        assert self._cross is not None
        spot = self._spot(area, *self._cross)
        p.setPen(QPen(colour("ink2"), 1))
        p.drawLine(QPointF(area.left(), spot.y()), QPointF(area.right(), spot.y()))
        p.drawLine(QPointF(spot.x(), area.top()), QPointF(spot.x(), area.bottom()))
        p.setPen(QPen(colour("stripe"), 1.4))
        p.setBrush(colour("yolk"))
        p.drawEllipse(spot, 5.5, 5.5)

    def _veil(self, p: QPainter, area: QRectF) -> None:
        veil = QColor(colour("sheet"))
        veil.setAlpha(140)
        p.fillRect(area, veil)
        p.setFont(text_font(12, medium=True))
        p.setPen(colour("ink"))
        p.drawText(area, Qt.AlignmentFlag.AlignCenter, "before this edit")

    def _spot(self, area: QRectF, x: float, y: float) -> QPointF:
        return QPointF(area.left() + x * area.width(), area.bottom() - y * area.height())

    def _points(self, area: QRectF, line: Real) -> QPolygonF:
        xs = area.left() + np.asarray(line)[:, 0] * area.width()
        ys = area.bottom() - np.asarray(line)[:, 1] * area.height()
        return QPolygonF([QPointF(x, y) for x, y in zip(xs.tolist(), ys.tolist(), strict=True)])

    def _path(self, area: QRectF, band: Area) -> QPainterPath:
        path = QPainterPath()
        path.setFillRule(Qt.FillRule.OddEvenFill)
        for rings in band.rings:
            for ring in rings:
                path.addPolygon(self._points(area, ring))
                path.closeSubpath()
        return path
