"""Numbered handles on a plot: each band of one channel, to be dragged, typed at and turned."""

from collections.abc import Callable

import numpy as np
from PySide6.QtCore import QPoint, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QAbstractButton

from firecrest.app.session import Session
from firecrest.app.theme.size import fix, sized
from firecrest.app.theme.style import colour, text_font
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import tip
from firecrest.core.units import figure
from firecrest.design.edits.parts import set_figure
from firecrest.design.edits.paths import Path
from firecrest.design.edits.voice import KINDS
from firecrest.present.text.words import decibels
from firecrest.present.voice.lanes import hertz, numbered

SIZE, DISC = 24, 17
STEP = 2 ** (1 / 24)
"""Ratio of one arrow to the side; Shift ten times as far."""
GAIN_STEP, Q_STEP = 0.1, 1.05


class Handle(QAbstractButton):
    """One band: arrows move it, page keys and the wheel turn its Q, Delete takes it away."""

    chosen = Signal(int)
    removed = Signal(int)

    def __init__(self, chart: Chart, session: Session) -> None:
        super().__init__(chart)
        self.chart, self.session = chart, session
        self.path: Path = ()
        self.number, self.on, self.off, self.stem = 0, False, False, 0.0
        self._grip: QPointF | None = None
        fix(self, width=SIZE, height=SIZE)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.SizeAllCursor)

    @property
    def place(self) -> int:
        """Place of the band in its chain."""
        return int(self.path[4])

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle, radius = QPointF(self.width() / 2, self.height() / 2), sized(DISC) / 2
        style = Qt.PenStyle.DashLine if self.off else Qt.PenStyle.SolidLine
        painter.setPen(QPen(colour("ink"), 1.6, style))
        painter.setBrush(colour("yolk") if self.on else colour("field"))
        painter.drawEllipse(middle, radius, radius)
        painter.setFont(text_font(sized(11), medium=True))
        painter.setPen(colour("onyolk" if self.on else "ink"))
        painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, str(self.number))
        if self.hasFocus():
            paint_ring(painter, QRectF(self.rect()), 0.0)
        painter.end()

    # moving ----------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self._grip = event.position() - QPointF(self.width() / 2, self.height() / 2)
            self.chosen.emit(self.place)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grip is None:
            return
        spot = QPointF(self.mapToParent(event.position().toPoint())) - self._grip
        self._to(spot)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._grip = None
        self.session.history.end_fold()

    def _to(self, spot: QPointF) -> None:
        """The band to where the hand is: frequency across, gain by how far it went up."""
        chart = self.chart
        area, content = chart.plot_area(), chart.content
        if content is None:
            return
        low, high = np.log10(content.x_range[0]), np.log10(content.x_range[1])
        share = (spot.x() - area.left()) / area.width()
        frequency = float(10 ** (low + share * (high - low)))
        here = self.mapToParent(QPoint(self.width() // 2, self.height() // 2))
        up = (here.y() - spot.y()) / area.height() * (content.y_range[1] - content.y_range[0])
        self.change(frequency=frequency, gain=self.value("gain") + up)

    def value(self, name: str) -> float:
        """A figure of the band; 0 where it has none of that name."""
        blocks = self.session.design.voice.channels[int(self.path[2])].blocks
        return float(getattr(blocks[self.place], name, 0.0))

    def change(self, **figures: float) -> None:
        """Other figures of the band, held within their ranges; a drag folds into one step."""

        def _edit() -> None:
            design = self.session.design
            for name, value in figures.items():
                path = (*self.path, name)
                if not self.session.has(path):
                    continue
                low, high, digits = RANGES[name]
                top = (
                    min(high, 0.45 * design.power.dsp.sample_rate) if name == "frequency" else high
                )
                wanted = round(min(max(value, low), top), digits)
                design = set_figure(design, path, wanted)
            label = f"Band {self.number} moved"
            self.session.apply(label, design, fold=f"handle {self.path}")

        self.session.attempt(_edit)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        far = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        key, f, gain, q = event.key(), *map(self.value, ("frequency", "gain", "q"))
        moves: dict[int, dict[str, float]] = {
            Qt.Key.Key_Left: {"frequency": f / STEP**far},
            Qt.Key.Key_Right: {"frequency": f * STEP**far},
            Qt.Key.Key_Up: {"gain": gain + GAIN_STEP * far},
            Qt.Key.Key_Down: {"gain": gain - GAIN_STEP * far},
            Qt.Key.Key_PageUp: {"q": q * Q_STEP**far},
            Qt.Key.Key_PageDown: {"q": q / Q_STEP**far},
        }
        if key in moves:
            self.change(**moves[key])
        elif key == Qt.Key.Key_Delete:
            self.removed.emit(self.place)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.chosen.emit(self.place)
        else:
            super().keyPressEvent(event)

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        if not event.isAutoRepeat():
            self.session.history.end_fold()
        super().keyReleaseEvent(event)

    def wheelEvent(self, event: QWheelEvent) -> None:
        turns = event.angleDelta().y() / 120
        self.change(q=self.value("q") * Q_STEP ** (2 * turns))
        event.accept()


RANGES = {"frequency": (5.0, 20000.0, 1), "gain": (-30.0, 30.0, 2), "q": (0.1, 30.0, 3)}
"""Lowest, highest, decimals."""


class Handles:
    """All handles of the channel on show; they sit on the first curve of the plot."""

    def __init__(
        self,
        chart: Chart,
        session: Session,
        choose: Callable[[int], None],
        remove: Callable[[int], None],
    ) -> None:
        self.chart, self.session = chart, session
        self._choose, self._remove = choose, remove
        self.handles: list[Handle] = []

    def show(self, channel: int, chosen: int | None) -> None:
        """One handle for each band of ``channel``; the ``chosen`` place is yellow."""
        own = self.session.design.voice.channels[channel]
        places = list(numbered(own).items())
        while len(self.handles) < len(places):
            handle = Handle(self.chart, self.session)
            handle.chosen.connect(self._choose)
            handle.removed.connect(self._remove)
            self.handles.append(handle)
        for handle, (place, number) in zip(self.handles, places, strict=False):
            block = own.blocks[place]
            handle.path = ("voice", "channels", channel, "blocks", place)
            handle.number, handle.on, handle.off = number, place == chosen, block.bypassed
            said = [f"{hertz(block.frequency)} Hz"]
            if hasattr(block, "gain"):
                said.append(f"{decibels(block.gain)} dB")
            said.append(f"Q {figure(getattr(block, 'q', 0.0), 2)}")
            handle.setAccessibleName(f"{KINDS[block.kind]} {number}: {', '.join(said)}")
            tip(handle, f"{', '.join(said)}. Drag, arrows; page keys or the wheel turn Q.")
            self._put(handle, block.frequency)
        for k, handle in enumerate(self.handles):
            handle.setVisible(k < len(places))

    def _put(self, handle: Handle, frequency: float) -> None:
        content = self.chart.content
        if content is None or not content.curves:
            return
        curve = content.curves[0]
        known = np.isfinite(curve.y)
        if not known.any():
            return
        y = float(np.interp(np.log(frequency), np.log(curve.x[known]), curve.y[known]))
        low, high = content.y_range
        xs, ys = self.chart.to_pixels(np.array([frequency]), np.array([min(max(y, low), high)]))
        spot = QPointF(float(xs[0]), float(ys[0])).toPoint()
        handle.move(spot.x() - handle.width() // 2, spot.y() - handle.height() // 2)
        handle.update()
