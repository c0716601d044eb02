"""The rail: stages in working order, free to enter at any time."""

from functools import partial

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.theme.size import canvas, extent, fix, sized
from firecrest.app.theme.style import colour, holder, text_font
from firecrest.app.widgets.marks import paint_mark, paint_ring
from firecrest.app.widgets.plain import tip
from firecrest.app.widgets.pressable import Pressable
from firecrest.present.frame.rail import RailRow, rail

WIDE, NARROW = 140, 56
TALL, LOW, WITH_FACT = 58, 26, 50
"""Heights of a stage's button, and from which its fact is shown."""


class RailButton(Pressable):
    """One stage."""

    def __init__(self, row: RailRow) -> None:
        super().__init__()
        self.row = row
        self.current = False
        self._shown: tuple[RailRow, bool] | None = None
        fix(self, least_height=LOW, most_height=TALL)
        holder.changed.connect(self.update)

    def show_row(self, row: RailRow, current: bool) -> None:
        """Show mark and fact; the current stage joins the sheet."""
        if (row, current) == self._shown:
            return
        self._shown = (row, current)
        self.row, self.current = row, current
        self.setAccessibleName(f"{row.name}, stage {row.number}" + (", current" if current else ""))
        self.setAccessibleDescription(row.fact)
        tip(self, f"{row.name}: {row.fact}\nAlt+{row.number}")
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(WIDE), sized(TALL))

    def paintEvent(self, event: QPaintEvent) -> None:
        p, area = canvas(self), extent(self)
        if self.current:
            p.fillRect(area, colour("sheet"))
            p.fillRect(QRectF(0, 0, 2, area.height()), colour("stripe"))
            p.fillRect(QRectF(2, 0, 2, area.height()), colour("flame"))
            p.fillRect(QRectF(4, 0, 3, area.height()), colour("yolk"))
        middle = area.height() / 2
        paint_mark(p, QRectF(17, middle - 8, 14, 14), self.row.mark)
        narrow = area.width() < 100
        p.setPen(colour("ink2"))
        p.setFont(text_font(11))
        p.drawText(
            area.adjusted(0, max(middle - 17, 2), -12 if not narrow else -6, 0),
            Qt.AlignmentFlag.AlignRight,
            str(self.row.number),
        )
        if not narrow:
            p.setPen(colour("ink"))
            p.setFont(text_font(14, medium=True))
            fact = area.height() >= WITH_FACT
            top = middle - (19 if fact else 10)
            p.drawText(area.adjusted(42, top, 0, 0), Qt.AlignmentFlag.AlignLeft, self.row.name)
            p.setPen(colour("ink2"))
            p.setFont(text_font(12))
            if fact:
                p.drawText(
                    area.adjusted(42, middle + 1, -4, 0), Qt.AlignmentFlag.AlignLeft, self.row.fact
                )
        if self.hasFocus():
            paint_ring(p, area.adjusted(1, 1, -1, -1))


class Rail(QWidget):
    """All stages that exist."""

    chosen = Signal(str)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("rail")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.session = session
        self._current = "promise"
        fix(self, width=WIDE)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 8)
        column.setSpacing(0)
        self.buttons: dict[str, RailButton] = {}
        for row in rail(session.assessment, len(session.project.variants)):
            button = RailButton(row)
            button.pressed.connect(partial(self.chosen.emit, row.key))
            column.addWidget(button, 1)
            self.buttons[row.key] = button
        column.addStretch(0)
        session.changed.connect(self.refresh)
        session.doubted.connect(self.refresh)
        self.refresh()

    def set_current(self, key: str) -> None:
        """Mark the stage on show."""
        self._current = key
        self.refresh()

    def set_narrow(self, narrow: bool) -> None:
        """Marks and numbers only."""
        fix(self, width=NARROW if narrow else WIDE)

    def refresh(self) -> None:
        """Show marks and facts."""
        for row in rail(self.session.assessment, len(self.session.project.variants)):
            self.buttons[row.key].show_row(row, row.key == self._current)
