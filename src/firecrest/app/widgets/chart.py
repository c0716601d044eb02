"""A plot: axes, curves, tints, labels and read-outs, painted in pixels on one plain widget.

Nothing is in data coordinates, so patterns neither stretch nor swim. One placement function sets
all labels.
"""

from dataclasses import replace
from pathlib import Path

import numpy as np
from PySide6.QtCore import QRectF, QSize, QSizeF, Qt, Signal
from PySide6.QtGui import (
    QAccessible,
    QContextMenuEvent,
    QFocusEvent,
    QFontMetricsF,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QResizeEvent,
)
from PySide6.QtWidgets import QApplication, QDialog, QMenu, QSizePolicy, QVBoxLayout, QWidget

from firecrest.app.exporting import Picture, Table, export, kinds
from firecrest.app.session import Session
from firecrest.app.theme.size import fix, ratio, shrunk, sized, text_size
from firecrest.app.theme.style import colour, holder, text_font
from firecrest.app.widgets.chart_axes import Axes
from firecrest.app.widgets.chart_labels import LabelPainter
from firecrest.app.widgets.chart_paint import ToPixels
from firecrest.app.widgets.data_table import DataTable
from firecrest.app.widgets.marks import paint_ring
from firecrest.present.plot.axes import x_ticks, y_ticks
from firecrest.present.plot.placement import apart
from firecrest.present.plot.plot import STRAIGHT, Plot

LEFT, ABOVE, RIGHT, BELOW = 50, 6, 24, 20
"""Pixels around the plot area."""
THIRD = 2 ** (1 / 3)
MOST_ZOOM = 3
ZOOMS = {Qt.Key.Key_Plus: 1, Qt.Key.Key_Equal: 1, Qt.Key.Key_Minus: -1, Qt.Key.Key_0: 0}
"""Keys of a plot: halvings of its axis; 0 shows it whole."""


class Chart(QWidget):
    """A plot of one ``Plot`` description, with an optional ghost of another.

    On an axis of areas its marks can be picked: ``picked`` tells which (its place among the marks),
    ``taken`` that Enter was pressed.
    """

    picked = Signal(int)
    taken = Signal()

    def __init__(self, session: Session, *, height: int = 120) -> None:
        super().__init__()
        self.session = session
        self.content: Plot | None = None
        self.ghost: Plot | None = None
        self._whole: Plot | None = None
        self._behind: Plot | None = None
        self._zoom, self._zoom_at = 0, 100.0
        self._span = (0.0, 1.0)
        self._axes = Axes((), ())
        self._at = -1
        fix(self, least_height=height)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        holder.changed.connect(self.update)
        text_size.changed.connect(self._scale)

    # geometry ----------------------------------------------------------------

    def plot_area(self) -> QRectF:
        """Inner rectangle of the plot in pixels of the screen."""
        around = (sized(LEFT), sized(ABOVE), -sized(RIGHT), -sized(BELOW))
        return QRectF(self.rect().adjusted(*around))

    def pixels_in(self, area: QRectF) -> ToPixels:
        """What finds the place in ``area`` of data points; all axes but hours are logarithmic."""
        assert self.content is not None
        (x0, x1), (y0, y1) = self._span, self.content.y_range
        right, up = area.width() / (x1 - x0), -area.height() / (y1 - y0)
        left, bottom = area.left() - right * x0, area.bottom() - up * y0
        axis = self._axis

        def _places(x: np.ndarray, y: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
            return left + right * axis(x), bottom + up * y

        return _places

    def to_pixels(self, x: np.ndarray, y: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Pixels of data points on the screen."""
        return self.pixels_in(self.plot_area())(x, y)

    def _axis(self, x: np.ndarray) -> np.ndarray:
        assert self.content is not None
        return x if self.content.x_axis in STRAIGHT else np.log10(np.maximum(x, 1e-9))

    def _x_range(self) -> tuple[float, float]:
        assert self.content is not None
        low, high = self._axis(np.asarray(self.content.x_range, dtype=float))
        return float(low), float(high)

    # content -----------------------------------------------------------------

    def show_plot(self, plot: Plot, ghost: Plot | None = None) -> None:
        """Draw ``plot``; a ghost never changes the range."""
        before = self.content
        self._whole, self._behind = plot, ghost
        if self._zoom:
            plot = replace(plot, x_range=self._zoomed(plot))
        self.content, self.ghost = plot, ghost
        self._span = self._x_range()
        if before is None or (before.x_range, before.y_range, before.y_step, before.unit) != (
            plot.x_range,
            plot.y_range,
            plot.y_step,
            plot.unit,
        ):
            self._scale()
        self.setAccessibleName(f"{plot.name} plot")
        self.setAccessibleDescription(self._spoken())
        self.update()

    def _zoomed(self, plot: Plot) -> tuple[float, float]:
        """The part of the frequency axis on show: narrower about where one zoomed in."""
        low, high = plot.x_range
        if plot.x_axis != "frequency":
            return low, high
        share = 0.5**self._zoom
        span = np.log(high / low) * share
        middle = np.log(min(max(self._zoom_at, low), high))
        start = min(max(middle - span / 2, np.log(low)), np.log(high) - span)
        return float(np.exp(start)), float(np.exp(start + span))

    def zoom(self, steps: int) -> None:
        """In by ``steps`` halvings of the axis about the crosshair, or out; 0 shows it whole."""
        if self._whole is None or self._whole.x_axis != "frequency":
            return
        if self._zoom == 0:
            low, high = self._whole.x_range
            here = self.session.frequency or self._whole.crosshair
            self._zoom_at = here or float(np.sqrt(low * high))
        self._zoom = min(max(self._zoom + steps, 0), MOST_ZOOM) if steps else 0
        self.show_plot(self._whole, self._behind)

    def _scale(self) -> None:
        """The texts of the axes, where they find room."""
        if self.content is not None:
            high = round(self.height() / text_size.factor)
            self._axes = Axes(self._apart(x_ticks(self.content)), y_ticks(self.content, high))
        self.update()

    def _apart(self, ticks: list[tuple[float, str]]) -> list[tuple[float, str]]:
        """The ticks whose texts do not touch; round numbers stay first."""
        (low, high), metrics = self._span, QFontMetricsF(text_font(sized(11)))
        room = self.width() - sized(LEFT + RIGHT)
        places = [(x - low) / (high - low) * room for x, _ in ticks]
        widths = [metrics.horizontalAdvance(text) for _, text in ticks]
        ranks = ["125".find(text[:1]) % 9 for _, text in ticks]
        shown = apart(places, widths, ranks)
        return [tick for tick, on in zip(ticks, shown, strict=True) if on]

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._scale()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        self._paint(painter)
        if self.hasFocus():
            paint_ring(painter, self.plot_area(), 0.0)
        painter.end()

    def _paint(self, painter: QPainter) -> None:
        """Everything but the ring of the keyboard, at the text size in force."""
        painter.fillRect(self.rect(), colour("sheet"))
        if self.content is None:
            return
        inner = shrunk(self.plot_area())
        painter.save()
        painter.scale(text_size.factor, text_size.factor)
        painter.setLayoutDirection(Qt.LayoutDirection.LeftToRight)
        painter.save()
        painter.setClipRect(inner, Qt.ClipOperation.IntersectClip)
        worker = LabelPainter(painter, inner, self.pixels_in(inner), ratio(self))
        worker.under(self.content, self.ghost)
        worker.over(self.content)
        painter.restore()
        self._axes.paint(painter, inner, self._span, self.content.y_range)
        painter.restore()

    def _spoken(self) -> str:
        assert self.content is not None
        lines = [self.content.message] if self.content.message else []
        if self.content.readout:
            r = self.content.readout
            lines.append(
                f"{r.title}, {r.note}: " + ", ".join(f"{x.name} {x.value}" for x in r.rows)
            )
        lines += [mark.label for mark in self.content.marks]
        lines += self.content.notes
        # Worked out for those who hear it only: a drag draws it anew sixty times a second.
        heard = self.hasFocus() or QAccessible.isActive()
        summary = [self.content.summary()] if heard else []
        return ". ".join([*lines, *summary, "T shows the data as a table"])

    # crosshair, keys, mouse ----------------------------------------------------

    def _pin(self, frequency: float | None) -> None:
        if self.content is not None and self.content.x_axis == "frequency":
            if frequency is not None:
                low, high = self.content.x_range
                frequency = min(max(frequency, low), high)
            self.session.look_at(frequency)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        area = self.plot_area()
        spot = event.position()
        if event.button() == Qt.MouseButton.LeftButton and area.contains(spot) and self.content:
            if self.content.x_axis == "area":
                self._pick_near(spot.x(), spot.y())
            else:
                low, high = self._x_range()
                share = (spot.x() - area.left()) / area.width()
                self._pin(float(10 ** (low + share * (high - low))))
        event.accept()

    def _pick_near(self, x: float, y: float) -> None:
        assert self.content is not None
        marks = self.content.marks
        if marks:
            xs, ys = self.to_pixels(np.array([m.x for m in marks]), np.array([m.y for m in marks]))
            self._pick(int(np.argmin((xs - x) ** 2 + (ys - y) ** 2)))

    def _pick(self, place: int) -> None:
        self._at = place
        self.picked.emit(place)

    def _pick_by_key(self, key: int) -> bool:
        """Arrows walk over the marks of an area axis, Enter takes the one picked."""
        assert self.content is not None
        marks = self.content.marks
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.taken.emit()
        elif key in (Qt.Key.Key_Left, Qt.Key.Key_Right) and marks:
            order = sorted(range(len(marks)), key=lambda k: marks[k].x)
            here = next((k for k, m in enumerate(marks) if m.chosen), 0)
            at = order.index(self._at if 0 <= self._at < len(marks) else here)
            step = 1 if key == Qt.Key.Key_Right else -1
            self._pick(order[min(max(at + step, 0), len(order) - 1)])
        else:
            return False
        return True

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if event.buttons() & Qt.MouseButton.LeftButton:
            self.mousePressEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if self.content and self.content.x_axis == "area" and self._pick_by_key(key):
            return
        here = self.session.frequency or (self.content.crosshair if self.content else None) or 50.0
        step = THIRD if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 10 ** (1 / 120)
        ends = self.content.x_range if self.content else (20.0, 1000.0)
        moves = {
            Qt.Key.Key_Left: here / step,
            Qt.Key.Key_Right: here * step,
            Qt.Key.Key_Home: ends[0],
            Qt.Key.Key_End: ends[1],
        }
        if key in moves:
            self._pin(moves[Qt.Key(key)])
        elif key in (Qt.Key.Key_W, Qt.Key.Key_Escape):
            self._pin(None)
        elif key == Qt.Key.Key_T:
            self.show_table()
        elif key in ZOOMS:
            self.zoom(ZOOMS[Qt.Key(key)])
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        if self.content is not None:
            self.setAccessibleDescription(self._spoken())
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(300), self.minimumHeight())

    # export --------------------------------------------------------------------

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        menu = QMenu(self)
        menu.addAction("Show as table\tT", self.show_table)
        menu.addAction("Zoom in\t+", lambda: self.zoom(1))
        menu.addAction("Zoom out\t−", lambda: self.zoom(-1))
        menu.addAction("Whole range\t0", lambda: self.zoom(0))
        menu.addAction("Worst frequency\tW", lambda: self._pin(None))
        menu.addSeparator()
        menu.addAction("Save as…", self.save)
        menu.addAction("Copy picture", lambda: QApplication.clipboard().setPixmap(self.grab()))
        menu.exec(event.globalPos())
        menu.deleteLater()

    def save(self) -> None:
        """Ask for a file, and write the plot or its table to it."""
        assert self.content is not None
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Save the plot", f"{self.content.name}.png", kinds())
        if path is not None:
            self.session.attempt(lambda: self.export(path))

    def export(self, path: Path) -> None:
        """Write the plot or its table in the format of the suffix of ``path``; FileError if not."""
        export(path, self.picture(), self.table())

    def picture(self) -> Picture:
        """The plot as it is on show, to be painted elsewhere."""
        assert self.content is not None
        return Picture(self.content.name, QSizeF(self.size()), self._paint_into)

    def _paint_into(self, painter: QPainter, area: QRectF) -> None:
        """The plot as large as ``area`` allows, from its top left corner."""
        painter.save()
        painter.translate(area.topLeft())
        share = min(area.width() / self.width(), area.height() / self.height())
        painter.scale(share, share)
        self._paint(painter)
        painter.restore()

    def table(self) -> Table:
        """The data of the plot."""
        assert self.content is not None
        return Table(*self.content.table())

    def show_table(self) -> None:
        """The data as a table, to read and copy."""
        assert self.content is not None
        dialog = QDialog(self)
        dialog.setWindowTitle(f"{self.content.name} as a table")
        dialog.resize(sized(520), sized(480))
        QVBoxLayout(dialog).addWidget(DataTable(self.table(), dialog.windowTitle()))
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.show()
