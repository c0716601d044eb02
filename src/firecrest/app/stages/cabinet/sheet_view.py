"""The drawing on graph paper: three views at one scale, whose parts can be dragged and stepped."""

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QResizeEvent,
)
from PySide6.QtWidgets import QAbstractButton, QWidget

from firecrest.app.session import Session
from firecrest.app.theme.size import canvas, extent, fix, grown, sized, text_size
from firecrest.app.theme.style import colour, holder, text_font, theme, title_font
from firecrest.app.theme.tokens import TINTS
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import tip
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import Path, value_at
from firecrest.present.cabinet.sheet import Ink, Movable, SheetView
from firecrest.present.cabinet.snapping import snapped

HEAD, SIDE, FOOT, GAP = 40.0, 42.0, 10.0, 44.0
"""Room above a view for its title and measure, to its left, below all, and between two."""
SQUARE, DRAWS = 10.0, 5.0
"""Squares of the paper; how near, in pixels, a line draws a dragged part."""
STEP, FAR, PALE = 1e-3, 10, 0.4
WOOD = {False: "#EFE0BE", True: "#4A4028"}
WOOD_LINE = {False: "#8A7440", True: "#9C8A5C"}
FRAME = {False: "#4A5142", True: "#0E120B"}
CONE = {False: "#6A715C", True: "#4E5643"}
BASKET = {False: "#2C3226", True: "#23291C"}
"""Paint of the things in a case, light and dark."""


class PlaceItem(QAbstractButton):
    """A part on a view: drag it, or step it with the arrows; Shift goes ten times as far."""

    chosen = Signal(object)

    def __init__(self, sheet: "SheetCanvas") -> None:
        super().__init__(sheet)
        self.sheet = sheet
        self.movable: Movable | None = None
        self.on = False
        self._grip: QPointF | None = None
        self._start = (0.0, 0.0)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.SizeAllCursor)

    def show_movable(self, movable: Movable, *, on: bool) -> None:
        """Stand for a part."""
        if self.movable == movable and self.on == on:
            return
        self.movable, self.on = movable, on
        self.setAccessibleName(movable.spoken)
        tip(self, f"{movable.spoken}.\nDrag, or arrows: 1 mm, with Shift 10. Ctrl: no snapping.")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        p, box = canvas(self), extent(self).adjusted(0.5, 0.5, -0.5, -0.5)
        if self.on:
            p.setPen(QPen(colour("stripe"), 1.4, Qt.PenStyle.DotLine))
            p.drawRect(box)
        if self.hasFocus():
            paint_ring(p, extent(self))

    # moving -------------------------------------------------------------------

    def _place(self) -> tuple[float, float]:
        assert self.movable is not None
        mount = value_at(self.sheet.session.design, self.movable.path)
        return mount.u, mount.v

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton and self.movable is not None:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self._grip, self._start = event.globalPosition(), self._place()
            self.chosen.emit(self.movable.path)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grip is None or self.movable is None:
            return
        off = (event.globalPosition() - self._grip) / (self.sheet.scale * text_size.factor)
        m = self.movable
        u = self._start[0] + off.x() * m.across[0] - off.y() * m.upwards[0]
        v = self._start[1] + off.x() * m.across[1] - off.y() * m.upwards[1]
        free = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        self.sheet.move_part(m, u, v, snap=not free)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._grip = None
        self.sheet.session.history.end_fold()

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
            self.sheet.move_part(m, u + du, v + dv, snap=False)
        elif m is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Space):
            self.chosen.emit(m.path)
        else:
            super().keyPressEvent(event)

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        if not event.isAutoRepeat():
            self.sheet.session.history.end_fold()
        super().keyReleaseEvent(event)


def _whole(share: float) -> float:
    """A step of a whole millimetre along the panel also where it is slanted."""
    return 0.0 if abs(share) < 0.3 else (1.0 if share > 0 else -1.0)


class SheetCanvas(QWidget):
    """Three views and their parts; ``chosen`` tells the place of what is pressed."""

    chosen = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.scale = 1.0
        self._views: Sequence[SheetView] = ()
        self._origins: dict[str, QPointF] = {}
        self._drawing: Drawing | None = None
        self._chosen: Path | None = None
        self._placed = True
        self.items: dict[tuple[str, Path], PlaceItem] = {}
        self.setAccessibleName("Drawing of the case")
        fix(self, least_height=260)
        holder.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(sized(560), sized(430))

    def show_views(
        self,
        views: Sequence[SheetView],
        drawing: Drawing,
        chosen: Path | None,
        *,
        placed: bool = True,
    ) -> None:
        """Draw front, end and plan; the ``chosen`` part is framed.

        What has no place yet is drawn paler, and cannot be moved.
        """
        self._views, self._drawing, self._chosen = views, drawing, chosen
        self._placed = placed
        self._lay()
        self.update()

    def move_part(self, movable: Movable, u: float, v: float, *, snap: bool) -> None:
        """A part to a place; one drag is one step of undo."""
        if snap and self._drawing is not None:
            u, v = snapped(self._drawing, movable.path, u, v, DRAWS / self.scale)
        session = self.session

        def _edit() -> None:
            design = moved(session.design, movable.path, u, v)
            session.apply(f"{movable.name} moved", design, fold=f"place {movable.path}")

        session.attempt(_edit)

    # laying out ------------------------------------------------------------------

    def _lay(self) -> None:
        if len(self._views) < 3:
            return
        front, end, plan = self._views
        area = extent(self)
        wide = [v.high[0] - v.low[0] for v in (front, end, plan)]
        tall = [v.high[1] - v.low[1] for v in (front, end, plan)]
        across = max(wide[0], wide[2]) + wide[1]
        upright = max(tall[0], tall[1]) + tall[2]
        room_x = area.width() - 2 * SIDE - GAP - FOOT
        room_y = area.height() - 2 * HEAD - 2 * FOOT
        self.scale = max(min(room_x / across, room_y / upright), 10.0)
        s = self.scale
        left = SIDE + 8
        second = left + s * max(wide[0], wide[2]) + GAP + SIDE / 2
        top = HEAD + 4
        below = top + s * max(tall[0], tall[1]) + HEAD + FOOT
        for view, x, y in ((front, left, top), (end, second, top), (plan, left, below)):
            self._origins[view.key] = QPointF(x - s * view.low[0], y + s * view.high[1])
        self._place_items()

    def free_corner(self) -> QRectF:
        """What no view takes, right below: for the card of tight spots."""
        if len(self._views) < 3:
            return QRectF()
        _, end, plan = self._views
        area = extent(self)
        left = self._spot(end, (end.low[0], 0.0)).x()
        top = self._spot(plan, (0.0, plan.high[1])).y()
        return QRectF(left - 12, top - 14, area.width() - left + 4, area.height() - top + 4)

    def _spot(self, view: SheetView, at: tuple[float, float]) -> QPointF:
        o = self._origins[view.key]
        return QPointF(o.x() + self.scale * at[0], o.y() - self.scale * at[1])

    def _place_items(self) -> None:
        views = self._views if self._placed else ()
        wanted = {(v.key, m.path): (v, m) for v in views for m in v.movables}
        for key in [k for k in self.items if k not in wanted]:
            old = self.items.pop(key)
            old.hide()
            old.deleteLater()
        for key, (view, movable) in wanted.items():
            item = self.items.get(key)
            if item is None:
                item = PlaceItem(self)
                item.chosen.connect(self.chosen.emit)
                self.items[key] = item
                item.show()
            item.show_movable(movable, on=movable.path == self._chosen)
            a, b = self._spot(view, movable.low), self._spot(view, movable.high)
            item.setGeometry(grown(QRectF(a, b).normalized().adjusted(-3, -3, 3, 3)))
        smallest = sorted(self.items.values(), key=lambda i: i.width() * i.height(), reverse=True)
        for item in smallest:
            item.raise_()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._lay()

    # painting ---------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        p, area = canvas(self), extent(self)
        _paper(p, area)
        for view in self._views:
            if view.key in self._origins:
                self._paint_view(p, view)

    def _paint_view(self, p: QPainter, view: SheetView) -> None:
        self._paint_title(p, view)
        for ink in view.inks:
            p.setOpacity(PALE if ink.path is not None and not self._placed else 1.0)
            _paint_ink(p, ink, self._polygon(view, ink))
        p.setOpacity(1.0)
        self._paint_promise(p, view)
        self._paint_measures(p, view)
        if view.heavy is not None:
            _paint_heavy(p, self._spot(view, view.heavy))
        for mark in view.marks:
            p.setBrush(Qt.BrushStyle.NoBrush)
            p.setPen(QPen(colour("flame" if mark.impossible else "amber"), 2.2))
            p.drawEllipse(self._spot(view, mark.at), 11, 11)

    def _polygon(self, view: SheetView, ink: Ink) -> QPolygonF:
        o, s = self._origins[view.key], self.scale
        return QPolygonF([QPointF(o.x() + s * x, o.y() - s * y) for x, y in ink.points])

    def _paint_title(self, p: QPainter, view: SheetView) -> None:
        p.setPen(colour("ink"))
        p.setFont(title_font(13))
        corner = self._spot(view, (view.low[0], view.high[1]))
        p.drawText(QPointF(corner.x(), corner.y() - 26), view.title)

    def _paint_promise(self, p: QPainter, view: SheetView) -> None:
        """The promised outline, centred on the case."""
        if view.promised is None:
            return
        middle = ((view.low[0] + view.high[0]) / 2, (view.low[1] + view.high[1]) / 2)
        half = (view.promised[0] / 2, view.promised[1] / 2)
        a = self._spot(view, (middle[0] - half[0], middle[1] + half[1]))
        b = self._spot(view, (middle[0] + half[0], middle[1] - half[1]))
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour("stripe"), 1.6, Qt.PenStyle.DashLine))
        p.drawRect(QRectF(a, b))

    def _paint_measures(self, p: QPainter, view: SheetView) -> None:
        """Measures above and, of front and plan, to the left."""
        p.setFont(text_font(12, medium=True))
        a = self._spot(view, (view.low[0], view.high[1]))
        b = self._spot(view, (view.high[0], view.low[1]))
        _measure(p, QPointF(a.x(), a.y() - 12), QPointF(b.x(), a.y() - 12), view.sizes[0])
        if view.key in ("front", "plan"):
            _measure(p, QPointF(a.x() - 18, b.y()), QPointF(a.x() - 18, a.y()), view.sizes[1])


def _dark() -> bool:
    return theme().dark


def _tint(name: str) -> QColor:
    """Fill of a tint of the house."""
    tint = TINTS[name]
    return QColor((tint.dark if _dark() else tint.light)[0])


def _paper(p: QPainter, area: QRectF) -> None:
    """Graph paper."""
    p.fillRect(area, colour("sheet"))
    p.setPen(QPen(colour("grid"), 1))
    x = area.left() + 0.5
    while x < area.right():
        p.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()))
        x += SQUARE
    y = area.top() + 0.5
    while y < area.bottom():
        p.drawLine(QPointF(area.left(), y), QPointF(area.right(), y))
        y += SQUARE


def _measure(p: QPainter, a: QPointF, b: QPointF, text: str) -> None:
    """A measured line between two ticks with its words in the middle, on paper."""
    p.setPen(QPen(colour("ink2"), 1))
    p.drawLine(a, b)
    upright = abs(b.x() - a.x()) < 1
    tick = QPointF(5, 0) if upright else QPointF(0, 5)
    for end in (a, b):
        p.drawLine(end - tick, end + tick)
    wide = p.fontMetrics().horizontalAdvance(text) / text_size.factor + 8
    middle = (a + b) / 2
    p.save()
    p.translate(middle)
    if upright:
        p.rotate(-90)
    box = QRectF(-wide / 2, -8, wide, 16)
    p.fillRect(box, colour("sheet"))
    p.setPen(colour("ink"))
    p.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
    p.restore()


def _paint_heavy(p: QPainter, at: QPointF) -> None:
    """The centre of gravity: a quartered disc."""
    box = QRectF(at.x() - 8, at.y() - 8, 16, 16)
    p.setPen(QPen(colour("stripe"), 1.2))
    p.setBrush(colour("field"))
    p.drawEllipse(box)
    p.setBrush(colour("stripe"))
    p.drawPie(box, 0, 90 * 16)
    p.drawPie(box, 180 * 16, 90 * 16)


def _paint_ink(p: QPainter, ink: Ink, polygon: QPolygonF) -> None:
    """One outline in the paint of what it is."""
    dark = _dark()
    line = QPen(QColor(WOOD_LINE[dark]) if ink.style in ("panel", "wall") else colour("ink"), 1.3)
    fills: dict[str, QColor] = {
        "panel": QColor(WOOD[dark]),
        "wall": QColor(WOOD[dark]),
        "air": colour("field"),
        "frame": QColor(FRAME[dark]),
        "basket": QColor(BASKET[dark]),
        "cone": QColor(CONE[dark]),
        "dust": QColor(FRAME[dark]),
        "board": _tint("upright"),
        "pack": _tint("level"),
        "cell": colour("field"),
        "port": colour("tray"),
        "hole": colour("stripe"),
        "cup": colour("ink2"),
        "brace": QColor(WOOD[dark]),
        "foot": colour("ink2"),
    }
    if ink.style == "travel":
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour("flame"), 1.2, Qt.PenStyle.DashLine))
        p.drawPolygon(polygon)
        return
    p.setPen(QPen(colour("ink"), 1.6) if ink.style in ("panel", "wall") else line)
    p.setBrush(fills[ink.style])
    p.drawPolygon(polygon)
    if ink.style in ("wall", "brace"):
        p.setPen(Qt.PenStyle.NoPen)
        p.setBrush(QColor(WOOD_LINE[dark]))
        brush = p.brush()
        brush.setStyle(Qt.BrushStyle.BDiagPattern)
        p.setBrush(brush)
        p.drawPolygon(polygon)
