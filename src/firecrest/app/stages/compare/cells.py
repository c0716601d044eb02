"""One promise of one variant: mark, value, margin, and its bar with stripe and likely range."""

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QFontMetricsF, QPaintEvent
from PySide6.QtWidgets import QWidget

from firecrest.app.theme.size import canvas, extent, fix, ratio, sized
from firecrest.app.theme.style import colour, holder, text_font
from firecrest.app.widgets.bar_paint import paint_bar
from firecrest.app.widgets.marks import paint_mark
from firecrest.app.widgets.plain import tip
from firecrest.present.frame.meters import Meter

HEIGHT, BAR = 31, 5


class PromiseCell(QWidget):
    """A promise's meter as small as it can be read."""

    def __init__(self) -> None:
        super().__init__()
        self.meter: Meter | None = None
        fix(self, height=HEIGHT)
        holder.changed.connect(self.update)

    def show_meter(self, meter: Meter, letter: str) -> None:
        """Show a meter; told as one value with the letter of its variant."""
        self.meter = meter
        self.setAccessibleName(f"{letter}, {meter.name}: {meter.spoken}")
        tip(self, meter.tooltip)
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(120), sized(HEIGHT))

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.meter is None:
            return
        p, m = canvas(self), self.meter
        area = extent(self).adjusted(6, 2, -6, -2)
        paint_mark(p, QRectF(area.left(), area.top() + 4, 10, 10), m.mark)
        p.setFont(text_font(13, medium=True))
        p.setPen(colour("ink"))
        text = area.adjusted(16, 0, 0, 0)
        unit = "" if m.unit == "" else f" {m.unit}"
        p.drawText(text, Qt.AlignmentFlag.AlignLeft, m.numeral + unit)
        used = 16 + QFontMetricsF(p.font()).horizontalAdvance(m.numeral + unit) + 8
        p.setFont(text_font(12))
        p.setPen(colour(m.role))
        for margin in (m.margin, m.short_margin):
            if QFontMetricsF(p.font()).horizontalAdvance(margin) <= area.width() - used:
                p.drawText(area, Qt.AlignmentFlag.AlignRight, margin)
                break
        bar = QRectF(area.left(), area.bottom() - BAR - 4, area.width(), BAR)
        paint_bar(p, bar, m, ratio(self))
