"""Lanes: every channel as a row of blocks on a wire; blocks are buttons with a small drawing."""

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QMimeData, QPoint, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QContextMenuEvent,
    QDrag,
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
)
from PySide6.QtWidgets import QApplication, QHBoxLayout, QMenu, QVBoxLayout, QWidget

from firecrest.app.theme.size import canvas, extent, fix
from firecrest.app.theme.style import colour, text_font
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import tip
from firecrest.app.widgets.pressable import Pressable
from firecrest.present.voice.lanes import Item, Lane, Line

WIDTH, HEIGHT, PLATE = 70, 62, 80
GAP = 8
WIRE = 6
TOP = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
BOTTOM = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignBottom)
MIME = "application/x-firecrest-block"


class BlockButton(Pressable):
    """One block: press to open its card; B bypasses, Ctrl+Shift+arrows move, Delete removes."""

    asked = Signal(str)

    def __init__(self, channel: int, lane: str, item: Item) -> None:
        super().__init__()
        self.channel, self.lane, self.item, self.on = channel, lane, item, False
        self._from: QPoint | None = None
        fix(self, width=WIDTH, height=HEIGHT)
        self.setAcceptDrops(True)
        self.setProperty("path", f"lane.{channel}.{item.key}")
        self._shown: tuple[Item, bool] | None = None
        self.show_item(item, False)

    def show_item(self, item: Item, on: bool) -> None:
        """Show another state of the same block; nothing is drawn where it is as it was."""
        if self._shown == (item, on):
            return
        self.item, self.on, self._shown = item, on, (item, on)
        self.setAccessibleName(f"{self.lane}, {item.spoken}")
        tip(
            self,
            f"{item.title}: {item.figure}. Press to change it."
            + (" B bypasses, Ctrl+Shift+arrows move, Delete removes." if item.places else ""),
        )
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = canvas(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area, item = extent(self).adjusted(1, 1, -1, -1), self.item
        edge = "flame" if item.open else "crest" if self.on else "rule2"
        painter.setPen(QPen(colour(edge), 2 if self.on or item.open else 1))
        painter.setBrush(colour("olivet" if self.on else "sheet" if item.idle else "field"))
        painter.drawRoundedRect(area, 4, 4)
        ink = colour("ink2" if item.idle else "ink")
        painter.setPen(ink)
        painter.setFont(text_font(11))
        room = area.adjusted(5, 3, -2, -3)
        painter.drawText(room, TOP, item.title)
        if item.open:
            painter.setPen(colour("flame"))
        painter.drawText(room, BOTTOM, item.figure)
        box = room.adjusted(0, 17, 0, -17)
        painter.setPen(QPen(colour("rule"), 1))
        middle = box.center().y()
        painter.drawLine(QPointF(box.left(), middle), QPointF(box.right(), middle))
        dashed, solid = Qt.PenStyle.DashLine, Qt.PenStyle.SolidLine
        for line, style in ((item.dashed, dashed), (item.line, solid)):
            painter.setPen(QPen(colour("ink2" if item.idle or item.open else "olive"), 1.8, style))
            painter.drawPolyline(_polygon(line, box))
        if self.hasFocus():
            paint_ring(painter, extent(self), 4.0)
        painter.end()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        both = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier
        key, moving = event.key(), event.modifiers() & both == both
        asked = {Qt.Key.Key_B: "bypass", Qt.Key.Key_Delete: "remove"}.get(Qt.Key(key))
        if moving and key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            asked = "earlier" if key == Qt.Key.Key_Left else "later"
        if asked and self.item.places:
            self.asked.emit(asked)
        else:
            super().keyPressEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        if not self.item.places:
            return
        menu = QMenu(self)
        for text, what in (
            ("Bypass, or back in\tB", "bypass"),
            ("Move earlier\tCtrl+Shift+←", "earlier"),
            ("Move later\tCtrl+Shift+→", "later"),
            ("Remove\tDel", "remove"),
        ):
            menu.addAction(text, partial(self.asked.emit, what))
        menu.exec(event.globalPos())
        menu.deleteLater()

    # drag and drop ----------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        super().mousePressEvent(event)
        self._from = event.position().toPoint()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        held = event.buttons() & Qt.MouseButton.LeftButton
        if not held or self._from is None or not self.item.places:
            return
        away = (event.position().toPoint() - self._from).manhattanLength()
        if away < QApplication.startDragDistance():
            return
        data, drag = QMimeData(), QDrag(self)
        data.setData(MIME, f"{self.channel} {self.item.places[0]}".encode())
        drag.setMimeData(data)
        drag.setPixmap(self.grab())
        self._from = None
        self.setDown(False)
        drag.exec(Qt.DropAction.MoveAction)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if _dragged(event.mimeData(), self.channel) is not None and self.item.places:
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        place = _dragged(event.mimeData(), self.channel)
        if place is not None:
            event.acceptProposedAction()
            self.asked.emit(f"drop {place}")


def _dragged(data: QMimeData, channel: int) -> int | None:
    """Place of a block of the same channel that is being dragged."""
    if not data.hasFormat(MIME):
        return None
    own, place = bytes(data.data(MIME).data()).decode().split()
    return int(place) if int(own) == channel else None


def _polygon(line: Line, area: QRectF) -> QPolygonF:
    return QPolygonF(
        [
            QPointF(area.left() + x * area.width(), area.bottom() - y * area.height())
            for x, y in line
        ]
    )


class Plate(Pressable):
    """What a lane drives: name, drivers, outputs and polarity."""

    def __init__(self, channel: int, lane: Lane) -> None:
        super().__init__()
        self.channel, self.lane, self.on = channel, lane, False
        fix(self, width=PLATE, height=HEIGHT)
        self.setProperty("path", f"lane.{channel}.way")
        self._shown: tuple[str, str, str, bool] | None = None
        self.show_lane(lane, False)

    def show_lane(self, lane: Lane, on: bool) -> None:
        """Show another state of the same channel."""
        shown = (lane.name, lane.drivers, lane.out, on)
        if self._shown == shown:
            return
        self.lane, self.on, self._shown = lane, on, shown
        self.setAccessibleName(f"Channel {lane.name}: {lane.drivers}, {lane.out}")
        tip(self, f"{lane.name}: {lane.drivers}. Press for its input, outputs, curves and links.")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = canvas(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area = extent(self).adjusted(1, 1, -1, -1)
        painter.setPen(QPen(colour("crest" if self.on else "tray"), 2 if self.on else 1))
        painter.setBrush(colour("tray"))
        painter.drawRoundedRect(area, 4, 4)
        room = area.adjusted(7, 4, -4, -4)
        painter.setPen(colour("ink"))
        painter.setFont(text_font(13, medium=True))
        flags = int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        painter.drawText(room, flags, self.lane.name)
        painter.setFont(text_font(11))
        painter.setPen(colour("ink2"))
        metrics = painter.fontMetrics()
        name = metrics.elidedText(self.lane.drivers, Qt.TextElideMode.ElideRight, int(room.width()))
        painter.drawText(room.adjusted(0, 20, 0, 0), flags, name)
        painter.drawText(room.adjusted(0, 37, 0, 0), flags, self.lane.out)
        if self.hasFocus():
            paint_ring(painter, extent(self), 4.0)
        painter.end()


class Wire(QWidget):
    """The piece of wire between two blocks."""

    def __init__(self) -> None:
        super().__init__()
        fix(self, width=WIRE, height=HEIGHT)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = canvas(self)
        area = extent(self)
        painter.setPen(QPen(colour("olive"), 3))
        painter.drawLine(QPointF(0, area.center().y()), QPointF(area.width(), area.center().y()))
        painter.end()


class LaneRow(QWidget):
    """One channel: its plate, then its blocks."""

    chosen = Signal(str)
    asked = Signal(str, str)

    def __init__(self, channel: int, lane: Lane) -> None:
        super().__init__()
        self.setAccessibleName(f"Lane {lane.name}")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.plate = Plate(channel, lane)
        self.plate.pressed.connect(lambda: self.chosen.emit("way"))
        row.addWidget(self.plate)
        self.blocks: list[BlockButton] = []
        for item in lane.items:
            row.addWidget(Wire())
            block = BlockButton(channel, lane.name, item)
            block.pressed.connect(lambda b=block: self.chosen.emit(b.item.key))
            block.asked.connect(lambda what, b=block: self.asked.emit(b.item.key, what))
            row.addWidget(block)
            self.blocks.append(block)
        row.addStretch(1)

    def show_lane(self, lane: Lane, chosen: str | None) -> None:
        """Another state of the same blocks; the ``chosen`` one is marked."""
        self.plate.show_lane(lane, chosen == "way")
        for block, item in zip(self.blocks, lane.items, strict=False):
            block.show_item(item, item.key == chosen)


class LaneView(QWidget):
    """All lanes, one below the other."""

    def __init__(
        self,
        lanes: tuple[Lane, ...],
        choose: Callable[[int, str], None],
        ask: Callable[[int, str, str], None],
    ) -> None:
        super().__init__()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 2, 0, 2)
        box.setSpacing(GAP)
        self.rows: list[LaneRow] = []
        for k, lane in enumerate(lanes):
            row = LaneRow(k, lane)
            row.chosen.connect(lambda key, k=k: choose(k, key))
            row.asked.connect(lambda key, what, k=k: ask(k, key, what))
            box.addWidget(row)
            self.rows.append(row)
        box.addStretch(1)

    @property
    def whole(self) -> int:
        """Height of all lanes, before the size of the text."""
        return len(self.rows) * (HEIGHT + GAP)

    def show_lanes(self, lanes: tuple[Lane, ...], chosen: tuple[int, str] | None) -> None:
        """Another state of the same lanes."""
        for k, (row, lane) in enumerate(zip(self.rows, lanes, strict=False)):
            row.show_lane(lane, chosen[1] if chosen is not None and chosen[0] == k else None)
