"""The case in the round: dragged or stepped to turn, whole, open or taken apart."""

import numpy as np
from PySide6.QtCore import QPointF, QSize, Qt
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.cabinet.sheet_paint import fill_of
from firecrest.app.theme.size import canvas, extent, fix, sized
from firecrest.app.theme.style import colour, holder
from firecrest.app.widgets.choices import Segments
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import label
from firecrest.assessment.cabinet.drawing import Drawing, drawing_of
from firecrest.present.cabinet.solid import Seen, faces_of, seen, turned
from firecrest.present.text.units import told_sides

PER_PIXEL, STEP = 0.01, np.radians(5.0)
"""Rad a dragged pixel and an arrow turn it by."""
STEEPEST = 1.5
ROOM = 0.42
SHOWN = (("whole", "Whole"), ("open", "Open"), ("apart", "Apart"))


class SolidCanvas(QWidget):
    """Turns with the hand or the arrows; Home brings it back."""

    def __init__(self) -> None:
        super().__init__()
        self.yaw, self.pitch, self.shown = -0.55, 0.42, "open"
        self._drawing: Drawing | None = None
        self._grip: QPointF | None = None
        fix(self, least_height=220)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.OpenHandCursor)
        holder.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(sized(560), sized(380))

    def show_drawing(self, drawing: Drawing) -> None:
        """Show a case."""
        self._drawing = drawing
        size = told_sides([float(s) for s in drawing.shell.size])
        self.setAccessibleName(f"Solid view, {size}, {len(drawing.sited)} parts in place")
        self.update()

    def turn(self, yaw: float, pitch: float) -> None:
        """Turn by so many rad."""
        self.yaw += yaw
        self.pitch = min(max(self.pitch + pitch, -STEEPEST), STEEPEST)
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        self._grip = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grip is not None:
            off = event.position() - self._grip
            self._grip = event.position()
            self.turn(off.x() * PER_PIXEL, off.y() * PER_PIXEL)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._grip = None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {
            Qt.Key.Key_Left: (-STEP, 0.0),
            Qt.Key.Key_Right: (STEP, 0.0),
            Qt.Key.Key_Up: (0.0, -STEP),
            Qt.Key.Key_Down: (0.0, STEP),
        }
        if event.key() in steps:
            self.turn(*steps[Qt.Key(event.key())])
        elif event.key() == Qt.Key.Key_Home:
            self.turn(-0.55 - self.yaw, 0.42 - self.pitch)
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        p, area = canvas(self), extent(self)
        p.fillRect(area, colour("sheet"))
        if self._drawing is None:
            return
        size = [float(s) for s in self._drawing.shell.size]
        reach = float(np.sqrt(sum(s * s for s in size)))
        spread = 2.0 if self.shown == "apart" else 1.0
        scale = 2 * ROOM * min(area.width(), area.height() * 1.25) / (reach * spread)
        low, high = self._drawing.shell.low, self._drawing.shell.high
        middle = np.array([(float(a) + float(b)) / 2 for a, b in zip(low, high, strict=True)])
        faces = faces_of(self._drawing, self.shown, self.yaw, self.pitch)
        origin = turned(self.yaw, self.pitch)[:2] @ middle
        for face in seen(faces, self.yaw, self.pitch):
            points = [
                QPointF(
                    area.center().x() + scale * (x - origin[0]),
                    area.center().y() - scale * (y - origin[1]),
                )
                for x, y in face.points
            ]
            _paint(p, face, QPolygonF(points))
        if self.hasFocus():
            paint_ring(p, area)


def _paint(p: QPainter, face: Seen, polygon: QPolygonF) -> None:
    """A face in its thing's colour, darker where less light falls."""
    if face.hollow:
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour("woodline"), 1.2, Qt.PenStyle.DashLine))
    else:
        fill = fill_of(face.style)
        p.setBrush(QColor.fromHsvF(fill.hueF(), fill.saturationF(), fill.valueF() * face.light))
        p.setPen(QPen(colour("ink"), 0.6))
    p.drawPolygon(polygon)


class SolidPage(QWidget):
    """The solid view with what is shown of it."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        head = QHBoxLayout()
        head.addWidget(label("Drag or use the arrows to turn it; Home brings it back", "hint"), 1)
        self.shown = Segments(SHOWN, "Case")
        self.shown.choose("open")
        self.shown.chosen.connect(self._show)
        head.addWidget(self.shown)
        box.addLayout(head)
        self.canvas = SolidCanvas()
        box.addWidget(self.canvas, 1)

    def _show(self, shown: object) -> None:
        self.canvas.shown = str(shown)
        self.canvas.update()

    def refresh(self) -> None:
        """Show the present case."""
        self.canvas.show_drawing(drawing_of(self.session.assessment))
