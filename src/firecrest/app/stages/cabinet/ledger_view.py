"""The ledger of the air: each row a link to where its figure stands."""

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.theme.size import canvas, extent, fix, sized
from firecrest.app.theme.style import colour, text_font
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import label, tip
from firecrest.app.widgets.pressable import Pressable
from firecrest.present.cabinet.ledger import LedgerRow

HEIGHT = 27


class LedgerLine(Pressable):
    """Name, litres, and a bar from where the row before left off to where this one does."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.row: LedgerRow | None = None
        fix(self, height=HEIGHT)
        self.pressed.connect(self._go)

    def _go(self) -> None:
        if self.row is not None and self.row.path is not None:
            self.session.go_to(self.row.path)

    def show_row(self, row: LedgerRow) -> None:
        """Show a row; nothing is drawn where it is the same."""
        if row == self.row:
            return
        self.row = row
        self.setAccessibleName(f"{row.name}: {row.value} L")
        tip(self, row.help or ("Shows the field it follows from." if row.path else ""))
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(sized(200), sized(HEIGHT))

    def paintEvent(self, event: QPaintEvent) -> None:
        row = self.row
        if row is None:
            return
        p, area = canvas(self), extent(self)
        p.setPen(colour("ink"))
        p.setFont(text_font(12, medium=row.strong))
        text = QRectF(0, 0, area.width(), 17)
        p.drawText(text, Qt.AlignmentFlag.AlignLeft, row.name)
        p.setFont(text_font(12, medium=True))
        p.drawText(text, Qt.AlignmentFlag.AlignRight, row.value)
        p.fillRect(QRectF(0, 18, area.width(), 5), colour("tray"))
        start, end = (min(max(x, 0.0), 1.0) * area.width() for x in (row.start, row.end))
        ink = "olive" if row.key.startswith("net") else "rule2"
        p.fillRect(QRectF(start, 18, max(end - start, 1.5), 5), colour(ink))
        if self.hasFocus():
            paint_ring(p, area)


class LedgerView(QWidget):
    """All rows below their title."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._box = QVBoxLayout(self)
        self._box.setContentsMargins(0, 0, 0, 0)
        self._box.setSpacing(0)
        self._box.addWidget(label("What eats the air, L", "section"))
        self._note = label("", "hint")
        self._note.setWordWrap(True)
        self.lines: list[LedgerLine] = []
        self._box.addStretch(1)
        self._box.addWidget(self._note)

    def show_rows(self, rows: list[LedgerRow], note: str) -> None:
        """Show rows; ``note`` below them."""
        while len(self.lines) < len(rows):
            line = LedgerLine(self.session)
            self.lines.append(line)
            self._box.insertWidget(len(self.lines), line)
        for k, line in enumerate(self.lines):
            line.setVisible(k < len(rows))
            if k < len(rows):
                line.show_row(rows[k])
        self._note.setText(note)
        self._note.setVisible(bool(note))
