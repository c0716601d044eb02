"""A named horizontal bar with a value, and a stripe where there is a limit."""

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QPaintEvent
from PySide6.QtWidgets import QWidget

from firecrest.app.theme.size import canvas, extent, fix, sized
from firecrest.app.theme.style import colour, text_font


class BarRow(QWidget):
    """Name left, value right, bar below."""

    def __init__(self, *, stripe: bool = False) -> None:
        super().__init__()
        self._stripe = stripe
        self._name, self._value, self._share = "", "", 0.0
        self._limit: float | None = None
        self._short = False
        fix(self, height=30)

    def show_bar(
        self, name: str, value: str, share: float, limit: float | None, *, short: bool
    ) -> None:
        """``share`` and ``limit`` are of the bar's width."""
        self._name, self._value, self._share = name, value, share
        self._limit, self._short = limit, short
        self.setAccessibleName(f"{name}: {value}")
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(160), sized(30))

    def paintEvent(self, event: QPaintEvent) -> None:
        p, area = canvas(self), extent(self)
        p.setFont(text_font(12))
        p.setPen(colour("ink"))
        p.drawText(area, Qt.AlignmentFlag.AlignLeft, self._name)
        p.setFont(text_font(12, medium=True))
        p.setPen(colour("flame" if self._short else "ink"))
        p.drawText(area, Qt.AlignmentFlag.AlignRight, self._value)
        bar = QRectF(0, 19, area.width(), 6)
        p.fillRect(bar, colour("tray"))
        share = min(max(self._share, 0.0), 1.0)
        p.fillRect(
            QRectF(0, 19, bar.width() * share, 6), colour("flame" if self._short else "olive")
        )
        if self._limit is not None:
            x = bar.width() * self._limit
            p.fillRect(QRectF(x - 2, 16, 5, 12), colour("brow"))
            p.fillRect(QRectF(x - 1, 16, 3, 12), colour("stripe"))
