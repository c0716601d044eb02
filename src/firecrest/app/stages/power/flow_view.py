"""Where the energy goes, drawn: one trunk that parts into streams as wide as their share."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from firecrest.app.theme.size import canvas, extent, fix, sized
from firecrest.app.theme.style import colour, holder, text_font
from firecrest.app.widgets.plain import tip
from firecrest.present.power.flows import FlowPicture, Stream

TRUNK, GATE, APART = 12.0, 5.0, 9.0
LEAST_TEXT = 17.0
HEIGHT = 178


class FlowView(QWidget):
    """The streams of a ``FlowPicture``; empty without one."""

    def __init__(self) -> None:
        super().__init__()
        self.picture: FlowPicture | None = None
        fix(self, height=HEIGHT)
        holder.changed.connect(self.update)

    def show_flow(self, picture: FlowPicture | None) -> None:
        """Show another one; told to assistive software in words."""
        if picture == self.picture:
            return
        self.picture = picture
        streams = () if picture is None else (*picture.streams, picture.sound)
        said = ", ".join(f"{s.name} {s.text}" for s in streams)
        self.setAccessibleName("Where the energy goes")
        self.setAccessibleDescription(said)
        tip(self, "" if picture is None else f"{picture.title}: {said}")
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(240), sized(HEIGHT))

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.picture is None:
            return
        p, area = canvas(self), extent(self)
        streams = self.picture.streams
        gaps = APART * (len(streams) - 1)
        high = area.height() - gaps - 30
        left, right = 0.0, max(area.width() * 0.42, 80.0)
        top = 4.0 + gaps / 2
        trunk = QRectF(left, top, TRUNK, high)
        p.fillRect(trunk, colour("olive"))
        y, at = top, 4.0
        text = -LEAST_TEXT
        for stream in streams:
            width = max(high * stream.share, 1.0)
            self._ribbon(p, (TRUNK, y), (right, at), width)
            p.fillRect(QRectF(right, at, GATE, width), colour("olive"))
            text = max(at + width / 2, text + LEAST_TEXT)
            self._name(p, stream, right + GATE + 7, text, area.right())
            y, at = y + high * stream.share, at + width + APART
        self._thread(p, QPointF(TRUNK, y), right, max(text + LEAST_TEXT, at), area.right())

    def _ribbon(
        self, p: QPainter, start: tuple[float, float], end: tuple[float, float], width: float
    ) -> None:
        (x0, y0), (x1, y1) = start, end
        middle = (x0 + x1) / 2
        path = QPainterPath(QPointF(x0, y0))
        path.cubicTo(middle, y0, middle, y1, x1, y1)
        path.lineTo(x1, y1 + width)
        path.cubicTo(middle, y1 + width, middle, y0 + width, x0, y0 + width)
        path.closeSubpath()
        fill = QColor(colour("olive"))
        fill.setAlphaF(0.2)
        p.fillPath(path, fill)

    def _thread(self, p: QPainter, start: QPointF, x: float, y: float, right: float) -> None:
        """Sound, a thread out of the drivers: never part of the sum."""
        assert self.picture is not None
        middle = (start.x() + x) / 2
        path = QPainterPath(start)
        path.cubicTo(middle, start.y(), middle, y, x, y)
        p.setPen(QPen(colour("crest"), 1.6))
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.drawPath(path)
        p.fillRect(QRectF(x, y - 1.5, GATE, 3), colour("crest"))
        self._name(p, self.picture.sound, x + GATE + 7, y, right)

    def _name(self, p: QPainter, stream: Stream, x: float, middle: float, right: float) -> None:
        box = QRectF(x, middle - 9, right - x, 18)
        p.setPen(colour("ink"))
        p.setFont(text_font(12))
        upright = Qt.AlignmentFlag.AlignVCenter
        p.drawText(box, Qt.AlignmentFlag.AlignLeft | upright, stream.name)
        p.setFont(text_font(12, medium=True))
        p.drawText(box, Qt.AlignmentFlag.AlignRight | upright, stream.text)
