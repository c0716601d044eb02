"""The picture of the box: chambers, what drives and opens them, what radiates; all selectable."""

from functools import partial

from PySide6.QtCore import QPoint, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QKeyEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPolygonF,
    QResizeEvent,
)
from PySide6.QtWidgets import QAbstractButton, QWidget

from firecrest.app.theme.size import canvas, extent, fix, grown, sized
from firecrest.app.theme.style import colour, holder, text_font, title_font
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import tip
from firecrest.design.edits.paths import Path
from firecrest.present.size.boxes import Element, Picture, Room

MARGIN_LEFT, MARGIN_RIGHT, MARGIN_TOP, MARGIN_BOTTOM = 34.0, 46.0, 20.0, 8.0
REACH = 20.0
TURNS = {"right": 0.0, "between": 0.0, "left": 180.0, "top": -90.0}
WAVES = (9.0, 16.0, 23.0)
LEAST_HEIGHT, ELEMENT_HEIGHT, LOW_ROOM = 150, 38.0, 50.0


class PictureItem(QAbstractButton):
    """One room or element of the picture, as a button of its own; Delete takes it away."""

    ended = Signal()
    offered = Signal(QPoint)

    def __init__(self, item: Room | Element, parent: QWidget) -> None:
        super().__init__(parent)
        self.item = item
        self.setCheckable(True)
        self.setAutoExclusive(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.set_item(item)

    def set_item(self, item: Room | Element) -> None:
        """Show the same thing with other figures."""
        self.item = item
        self.setAccessibleName(item.spoken)
        tip(self, item.spoken)
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Delete:
            self.ended.emit()
        else:
            super().keyPressEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        self.offered.emit(event.globalPos())

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, box = canvas(self), extent(self)
        if isinstance(self.item, Room):
            _paint_room(painter, box, self.item, chosen=self.isChecked())
        else:
            _paint_element(painter, box, self.item, chosen=self.isChecked())
        if self.hasFocus():
            paint_ring(painter, box)


def _paint_room(painter: QPainter, box: QRectF, room: Room, *, chosen: bool) -> None:
    """Walls, air, name and figures."""
    painter.setPen(QPen(colour("ink2"), 3))
    painter.setBrush(colour("olivet" if chosen else "field"))
    painter.drawRect(box.adjusted(1.5, 1.5, -1.5, -1.5))
    text = box.adjusted(4, 3, -22, -3)
    flags = Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignVCenter
    painter.setPen(colour("ink"))
    painter.setFont(title_font(12))
    flat = text.height() < LOW_ROOM
    lines = (room.name, ", ".join(room.lines)) if flat else (room.name, *room.lines)
    height = min(16.0, text.height() / len(lines))
    top = text.center().y() - height * len(lines) / 2
    for k, line in enumerate(lines):
        if k == 1:
            painter.setFont(text_font(11))
            painter.setPen(colour("ink" if chosen else "ink2"))
        inset = 22 if room.left > 0 else 4
        row = QRectF(box.left() + inset, top + k * height, box.width() - inset - 22, height)
        shown = painter.fontMetrics().elidedText(
            line, Qt.TextElideMode.ElideRight, int(row.width())
        )
        painter.drawText(row, flags, shown)


def _paint_element(painter: QPainter, box: QRectF, element: Element, *, chosen: bool) -> None:
    """A cone, pair, radiator or port that faces away from its room."""
    painter.save()
    painter.translate(box.center())
    painter.rotate(TURNS[element.edge])
    fill = colour("yolk" if chosen else "sheet")
    painter.setPen(QPen(colour("ink"), 1.6))
    painter.setBrush(fill)
    if element.kind == "port":
        _paint_port(painter, element, fill)
    elif element.kind == "radiator":
        painter.drawRoundedRect(QRectF(-3, -14, 7, 28), 2, 2)
        painter.setBrush(colour("ink"))
        painter.drawRect(QRectF(-5, -4, 11, 8))
    else:
        for shift in (0.0, -11.0) if element.kind == "pair" else (0.0,):
            painter.drawPolygon(_cone(shift))
    painter.restore()
    if element.count > 1:
        painter.setFont(text_font(11, medium=True))
        painter.setPen(colour("ink"))
        painter.drawText(
            box, Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignRight, f"×{element.count}"
        )


def _cone(shift: float) -> QPolygonF:
    """A driver that faces right: magnet, then the cone opening."""
    points = ((-15, -6), (-9, -6), (-9, -4), (5, -14), (5, 14), (-9, 4), (-9, 6), (-15, 6))
    return QPolygonF([QPointF(x + shift, y) for x, y in points])


def _paint_port(painter: QPainter, element: Element, fill: QColor) -> None:
    """A pipe through the wall; a folded one turns once behind it."""
    path = QPainterPath()
    path.moveTo(4, 0)
    path.lineTo(-12 if element.folded else -18, 0)
    if element.folded:
        path.lineTo(-12, 14)
    for ink, width in ((colour("ink"), 11.0), (fill, 8.0)):
        pen = QPen(ink, width)
        pen.setCapStyle(Qt.PenCapStyle.FlatCap)
        pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
        painter.strokePath(path, pen)


def _height(picture: Picture) -> float:
    """Room for every element of the fullest side of each room."""
    least = 0.0
    for room in picture.rooms:
        sides: dict[str, int] = {}
        for element in picture.elements:
            inside = room.top <= element.y <= room.top + room.height
            at_room = room.left - 0.01 <= element.x <= room.left + room.width + 0.01
            if inside and at_room and element.edge != "top":
                sides[element.edge] = sides.get(element.edge, 0) + 1
        fullest = max(sides.values(), default=1)
        least = max(least, fullest * ELEMENT_HEIGHT / room.height)
    return least + MARGIN_TOP + MARGIN_BOTTOM


class BoxPicture(QWidget):
    """Rooms with elements on their sides; ``chosen`` tells the path of what is pressed."""

    chosen = Signal(object)
    ended = Signal(object)
    offered = Signal(object, QPoint)

    def __init__(self) -> None:
        super().__init__()
        fix(self, least_height=LEAST_HEIGHT)
        self.setAccessibleName("Picture of the box")
        self._picture: Picture | None = None
        self.items: dict[Path, PictureItem] = {}
        holder.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(sized(250), sized(160))

    def show_picture(self, picture: Picture, selected: Path) -> None:
        """Show rooms and elements, with the one at ``selected`` down."""
        before, self._picture = self._picture, picture
        everything: tuple[Room | Element, ...] = (*picture.rooms, *picture.elements)
        if {i.path for i in everything} != set(self.items):
            self._rebuild(everything)
        elif before == picture:
            self._choose(selected)
            return
        for item in everything:
            self.items[item.path].set_item(item)
        self._choose(selected)
        fix(self, least_height=max(LEAST_HEIGHT, _height(picture)))
        self._place()
        self.update()

    def _choose(self, selected: Path) -> None:
        """Put down what is selected; the case itself is no part of the picture."""
        for path, item in self.items.items():
            item.setAutoExclusive(False)  # among exclusive ones the last could not come up again
            item.setChecked(path == selected)
        for item in self.items.values():
            item.setAutoExclusive(True)

    def _rebuild(self, everything: tuple[Room | Element, ...]) -> None:
        for old in self.items.values():
            old.hide()
            old.deleteLater()
        self.items = {}
        for item in everything:
            button = PictureItem(item, self)
            button.clicked.connect(lambda _=False, path=item.path: self.chosen.emit(path))
            button.ended.connect(partial(self.ended.emit, item.path))
            button.offered.connect(partial(self.offered.emit, item.path))
            self.items[item.path] = button
            button.show()

    def _area(self) -> QRectF:
        return extent(self).adjusted(MARGIN_LEFT, MARGIN_TOP, -MARGIN_RIGHT, -MARGIN_BOTTOM)

    def _place(self) -> None:
        if self._picture is None:
            return
        area = self._area()
        for room in self._picture.rooms:
            self.items[room.path].setGeometry(
                grown(
                    QRectF(
                        area.left() + room.left * area.width(),
                        area.top() + room.top * area.height(),
                        room.width * area.width() + 2,
                        room.height * area.height() + 1,
                    )
                )
            )
        for element in self._picture.elements:
            spot = self._spot(element)
            button = self.items[element.path]
            button.setGeometry(grown(QRectF(spot.x() - 20, spot.y() - 18, 40, 36)))
            button.raise_()

    def _spot(self, element: Element) -> QPointF:
        area = self._area()
        return QPointF(
            area.left() + element.x * area.width(), area.top() + element.y * area.height()
        )

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._place()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Sound leaves from everything that radiates."""
        if self._picture is None:
            return
        painter = canvas(self)
        painter.setPen(QPen(colour("olive"), 1.6))
        for element in self._picture.elements:
            if element.radiates:
                self._waves(painter, element)
        painter.setPen(colour("ink2"))
        painter.setFont(text_font(11))
        area = self._area()
        painter.drawText(QPointF(area.left(), area.top() - 6), "chambers and what radiates")

    def _waves(self, painter: QPainter, element: Element) -> None:
        """Three arcs before an element, wider with each."""
        painter.save()
        painter.translate(self._spot(element))
        painter.rotate(TURNS[element.edge])
        for radius in WAVES:
            box = QRectF(10 - radius + REACH - 9, -radius, 2 * radius, 2 * radius)
            painter.drawArc(box.translated(-4, 0), -38 * 16, 76 * 16)
        painter.restore()
