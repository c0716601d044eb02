"""Chips: a few words each, on the ground of what they mean, as many in a row as fit."""

from collections.abc import Sequence

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QFontMetricsF, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from firecrest.app.theme.size import canvas, sized, text_size
from firecrest.app.theme.style import colour, holder, text_font

HIGH, GAP, PAD = 19, 4, 6
GROUNDS = {"good": "olivet", "bad": "flamet", "plain": "tray"}


class ChipRow(QWidget):
    """Chips from left to right, in as many lines as they need; told as one text."""

    def __init__(self, chips: Sequence[tuple[str, str]]) -> None:
        super().__init__()
        self._chips = list(chips)
        self.setAccessibleName(", ".join(text for text, _ in chips))
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)
        holder.changed.connect(self.update)

    def _places(self, width: float) -> list[QRectF]:
        """Where each chip stands, in pixels at 100 %."""
        metrics = QFontMetricsF(text_font(12, medium=True))
        x, y, found = 0.0, 0.0, []
        for text, _ in self._chips:
            wide = min(metrics.horizontalAdvance(text) + 2 * PAD, width)
            if x > 0 and x + wide > width:
                x, y = 0.0, y + HIGH + GAP
            found.append(QRectF(x, y, wide, HIGH))
            x += wide + GAP
        return found

    def heightForWidth(self, width: int) -> int:
        places = self._places(width / text_size.factor)
        return sized(max((p.bottom() for p in places), default=0.0) + 1)

    def sizeHint(self) -> QSize:
        width = max(self.width(), sized(200))
        return QSize(sized(200), self.heightForWidth(width))

    def minimumSizeHint(self) -> QSize:
        return QSize(sized(60), self.heightForWidth(max(self.width(), sized(60))))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if event.size().width() != event.oldSize().width():
            self.updateGeometry()

    def paintEvent(self, event: QPaintEvent) -> None:
        p = canvas(self)
        p.setFont(text_font(12, medium=True))
        places = self._places(self.width() / text_size.factor)
        for (text, role), place in zip(self._chips, places, strict=True):
            p.setPen(Qt.PenStyle.NoPen)
            p.setBrush(colour(GROUNDS[role]))
            p.drawRoundedRect(place, 3, 3)
            p.setPen(colour("ink"))
            p.drawText(place, Qt.AlignmentFlag.AlignCenter, text)
