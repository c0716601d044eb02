"""A part on the drawing as a button of its own: dragged, or stepped with the arrows."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractButton, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.size.rows import do
from firecrest.app.theme.size import canvas, extent, text_size
from firecrest.app.theme.style import colour
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import tip
from firecrest.design.edits.cabinet import place_at
from firecrest.design.edits.outline import remove_outline_point
from firecrest.present.cabinet.inks import Movable

STEP, FAR = 1e-3, 10
GONE = (Qt.Key.Key_Delete, Qt.Key.Key_Backspace)
HANDLE = QPointF(4.5, 4.5)
Move = Callable[[Movable, float, float, bool], None]
"""Moves a part to (u, v); whether lines draw it."""


class PlaceItem(QAbstractButton):
    """A part on a view: drag it, or step it with the arrows; Shift goes ten times as far."""

    chosen = Signal(object)

    def __init__(
        self, parent: QWidget, session: Session, scale: Callable[[], float], move: Move
    ) -> None:
        super().__init__(parent)
        self.session, self._scale, self._move = session, scale, move
        self.movable: Movable | None = None
        self.on = False
        self._grip: QPointF | None = None
        self._start = (0.0, 0.0)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.SizeAllCursor)

    def show_movable(self, movable: Movable, view: str, *, on: bool) -> None:
        """Stand for a part on the view of that title."""
        if self.movable == movable and self.on == on:
            return
        self.movable, self.on = movable, on
        self.setAccessibleName(f"{movable.spoken}; {view}")
        more = " Delete takes it away." if movable.handle else ""
        ways = f"Drag, or arrows: 1 mm, with Shift 10. Ctrl: no snapping.{more}"
        tip(self, f"{movable.spoken}.\n{ways}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        p, box = canvas(self), extent(self).adjusted(0.5, 0.5, -0.5, -0.5)
        if self.movable is not None and self.movable.handle:
            p.setPen(QPen(colour("card"), 1))
            p.setBrush(colour("olive"))
            p.drawRect(QRectF(box.center() - HANDLE, box.center() + HANDLE))
            p.setBrush(Qt.BrushStyle.NoBrush)
        if self.on:
            p.setPen(QPen(colour("stripe"), 1.4, Qt.PenStyle.DotLine))
            p.drawRect(box)
        if self.hasFocus():
            paint_ring(p, extent(self))

    # moving -------------------------------------------------------------------

    def _place(self) -> tuple[float, float]:
        assert self.movable is not None
        return place_at(self.session.design, self.movable.path)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton and self.movable is not None:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self._grip, self._start = event.globalPosition(), self._place()
            self.chosen.emit(self.movable.path)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grip is None or self.movable is None:
            return
        off = (event.globalPosition() - self._grip) / (self._scale() * text_size.factor)
        m = self.movable
        u = self._start[0] + off.x() * m.across[0] - off.y() * m.upwards[0]
        v = self._start[1] + off.x() * m.across[1] - off.y() * m.upwards[1]
        free = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        self._move(m, u, v, not free)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._grip = None
        self.session.history.end_fold()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        far = FAR if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        steps = {
            Qt.Key.Key_Left: (-1, 0),
            Qt.Key.Key_Right: (1, 0),
            Qt.Key.Key_Up: (0, 1),
            Qt.Key.Key_Down: (0, -1),
        }
        m = self.movable
        if m is not None and event.key() in steps:
            x, y = (STEP * far * s for s in steps[Qt.Key(event.key())])
            u, v = self._place()
            du = x * _whole(m.across[0]) + y * _whole(m.upwards[0])
            dv = x * _whole(m.across[1]) + y * _whole(m.upwards[1])
            self.chosen.emit(m.path)
            self._move(m, u + du, v + dv, False)
        elif m is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Space):
            self.chosen.emit(m.path)
        elif m is not None and m.handle and event.key() in GONE:
            place = int(m.path[-1])
            do(self.session, lambda design: remove_outline_point(design, place))
        else:
            super().keyPressEvent(event)

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        if not event.isAutoRepeat():
            self.session.history.end_fold()
        super().keyReleaseEvent(event)


def _whole(share: float) -> float:
    """A step of a whole millimetre along the panel also where it is slanted."""
    return 0.0 if abs(share) < 0.3 else (1.0 if share > 0 else -1.0)
