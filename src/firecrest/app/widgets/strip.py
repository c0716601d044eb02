"""The promise strip: a summary and six meters, always there."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QFontMetricsF, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from firecrest.app.rest import Coalesced
from firecrest.app.session import Session
from firecrest.app.theme.size import canvas, extent, fix, ratio, sized
from firecrest.app.theme.style import colour, holder, text_font, title_font
from firecrest.app.widgets.bar_paint import paint_bar
from firecrest.app.widgets.marks import Mark, paint_mark, paint_ring
from firecrest.app.widgets.plain import label, tip
from firecrest.app.widgets.pressable import Pressable
from firecrest.present.frame import meters
from firecrest.present.frame.meters import Meter
from firecrest.present.text import words

STRIP_HEIGHT, SMALL_HEIGHT = 92, 72


class MeterWidget(Pressable):
    """One promise: name, state, numeral, bar with its stripe, and the ghost of what is tried."""

    def __init__(self, key: str) -> None:
        super().__init__()
        self.key = key
        self.meter: Meter | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self._small = False
        fix(self, height=STRIP_HEIGHT - 4)
        holder.changed.connect(self.update)

    def show_meter(self, meter: Meter) -> None:
        """Show a meter; told to assistive software as one value."""
        if meter == self.meter:
            return
        self.meter = meter
        self.setAccessibleName(meter.name)
        self.setAccessibleDescription(meter.spoken)
        tip(self, meter.tooltip)
        self.update()

    def set_small(self, small: bool) -> None:
        """Lower, for small windows."""
        self._small = small
        fix(self, height=(SMALL_HEIGHT if small else STRIP_HEIGHT) - 4)

    def sizeHint(self) -> QSize:
        return QSize(sized(170), sized(STRIP_HEIGHT - 4))

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.meter is None:
            return
        p, whole = canvas(self), extent(self)
        area = whole.adjusted(12, 8, -12, -6)
        p.setPen(QPen(colour("rule"), 1))
        p.drawLine(QPointF(0, 10), QPointF(0, whole.height() - 12))
        self._heading(p, area)
        self._figure(p, area)
        low, high = (9, 7) if self._small else (16, 10)
        paint_bar(
            p, QRectF(area.left(), area.bottom() - low, area.width(), high), self.meter, ratio(self)
        )
        if self.hasFocus():
            paint_ring(p, whole.adjusted(1, 1, -1, -1))

    def _heading(self, p: QPainter, area: QRectF) -> None:
        assert self.meter is not None
        m = self.meter
        p.setFont(text_font(12))
        p.setPen(colour("ink"))
        p.drawText(area, Qt.AlignmentFlag.AlignLeft, m.name)
        free = area.width() - QFontMetricsF(p.font()).horizontalAdvance(m.name) - 26
        font = text_font(12, medium=True)
        text = m.margin
        if QFontMetricsF(font).horizontalAdvance(text) > free:
            text = m.short_margin
        if QFontMetricsF(font).horizontalAdvance(text) > free:
            text = ""
        width = QFontMetricsF(font).horizontalAdvance(text)
        p.setFont(font)
        p.setPen(colour(m.role))
        p.drawText(area, Qt.AlignmentFlag.AlignRight, text)
        # Beside the name, or where there is no room for both, beside the figure.
        down = 1.0 if free >= 0 else 20.0
        paint_mark(p, QRectF(area.right() - width - 17, area.top() + down, 12, 12), m.mark)

    def _figure(self, p: QPainter, area: QRectF) -> None:
        assert self.meter is not None
        m = self.meter
        p.setPen(colour("ink"))
        small = self._small
        name = QFontMetricsF(text_font(12)).horizontalAdvance(m.name)
        crowded = name + 26 > area.width()
        font = title_font(17 if crowded else 21 if small else 27)
        p.setFont(font)
        box = QRectF(area.left(), area.top() + (8 if small else 17), area.width(), 34)
        p.drawText(box, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, m.numeral)
        used = QFontMetricsF(font).horizontalAdvance(m.numeral) + 6
        right = area.right()
        if crowded:
            right -= 17
        if m.ghost:
            right = self._ghost_chip(p, area.translated(0, -9 if small else 0))
        p.setFont(text_font(12))
        p.setPen(colour("ink2"))
        for text in (m.suffix, m.unit):
            width = QFontMetricsF(p.font()).horizontalAdvance(text)
            if area.left() + used + width <= right - 4:
                place = QRectF(area.left() + used, box.top() + 5, width + 4, 28)
                p.drawText(place, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, text)
                break

    def _ghost_chip(self, p: QPainter, area: QRectF) -> float:
        assert self.meter is not None
        font = text_font(12, medium=True)
        width = QFontMetricsF(font).horizontalAdvance(self.meter.ghost) + 12
        chip = QRectF(area.right() - width, area.top() + 21, width, 20)
        p.setPen(QPen(colour("crest"), 1))
        p.setBrush(colour("ambert"))
        p.drawRoundedRect(chip, 4, 4)
        p.setFont(font)
        p.setPen(colour("ink"))
        p.drawText(chip, Qt.AlignmentFlag.AlignCenter, self.meter.ghost)
        return chip.left()


class Summary(QWidget):
    """Counts per state."""

    def __init__(self) -> None:
        super().__init__()
        fix(self, width=128)
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 8, 4, 6)
        column.setSpacing(1)
        title = label("Promises", "section")
        column.addWidget(title)
        self._rows: list[tuple[Mark, QLabel, QWidget]] = []
        for _ in range(3):
            holder_widget = QWidget()
            row = QHBoxLayout(holder_widget)
            row.setContentsMargins(0, 0, 0, 0)
            row.setSpacing(6)
            mark, text = Mark("none", 10), label()
            row.addWidget(mark)
            row.addWidget(text)
            row.addStretch(1)
            column.addWidget(holder_widget)
            self._rows.append((mark, text, holder_widget))
        column.addStretch(1)

    def show_counts(self, counts: list[tuple[str, str]]) -> None:
        """(mark, words) of the states that occur, most pressing kept."""
        for place, (mark, text, row) in enumerate(self._rows):
            row.setVisible(place < len(counts))
            if place < len(counts):
                mark.set_state(counts[place][0])
                text.setText(counts[place][1])
        self.setAccessibleName("Promises: " + ", ".join(words for _, words in counts))


class Strip(QWidget):
    """Summary and meters."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.session = session
        fix(self, height=STRIP_HEIGHT)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 2)
        row.setSpacing(0)
        self.summary = Summary()
        row.addWidget(self.summary)
        self.meters = {key: MeterWidget(key) for key in words.PROMISE_NAMES}
        for widget in self.meters.values():
            row.addWidget(widget, 1)
        self._after = Coalesced(self, self.refresh)
        session.changed.connect(self._after.start)
        session.tried.connect(self._after.start)
        session.doubted.connect(self._after.start)
        self.refresh()

    def set_small(self, small: bool) -> None:
        """Lower, for small windows."""
        height = SMALL_HEIGHT if small else STRIP_HEIGHT
        fix(self, height=height)
        for widget in self.meters.values():
            widget.set_small(small)

    def _behind(self) -> str:
        """What the kept ghost is called: the past, or a variant."""
        return self.session.beside or "was"

    def refresh(self) -> None:
        """Show promises and ghosts."""
        a, ghost = self.session.assessment, self.session.ghost
        kept = "" if ghost is None or ghost is not self.session.kept else self._behind()
        for promise in a.promises:
            self.meters[promise.key].show_meter(meters.meter(promise, a.design, ghost, kept=kept))
        self.summary.show_counts(meters.summary(a))
