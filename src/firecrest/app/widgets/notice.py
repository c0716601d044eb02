"""What is told for a while over the page: a refusal, or what an edit leaves to decide."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.announcing import announce
from firecrest.app.theme.size import sized
from firecrest.app.widgets.plain import label, menu_text

Offer = tuple[str, Callable[[], None]]
"""What a button says, and what it does."""
TEXT, TOP = 420, 140
REFUSAL_MS, OFFER_MS = 9000, 30_000


class Notice(QFrame):
    """A text, with buttons where something can be done about it; the newest one counts."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setProperty("role", "notice")
        self._text = label()
        self._text.setWordWrap(True)
        self._row = QHBoxLayout()
        self._buttons: list[QPushButton] = []
        self._box = box = QVBoxLayout(self)
        box.setContentsMargins(10, 6, 10, 6)
        box.addWidget(self._text)
        box.addLayout(self._row)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.hide)
        self.hide()

    def text(self) -> str:
        """What was told last."""
        return self._text.text()

    def tell(self, text: str, offers: Sequence[Offer] = (), *, bad: bool = False) -> None:
        """Show a text where one looks; with ``offers`` it is no refusal, but for a ``bad`` one,
        and stays longer.
        """
        for button in self._buttons:
            self._row.removeWidget(button)
            button.deleteLater()
        self._buttons = [self._button(*offer) for offer in offers]
        self.setProperty("refusal", bad or not offers)
        self.style().polish(self)
        self._text.setText(text)
        self.setAccessibleName(text)
        announce(self, text)
        self.show()
        width = sized(TEXT)
        self._text.setFixedSize(width, self._text.heightForWidth(width))
        for button in self._buttons:
            button.show()  # the layout counts them only then
        self._box.activate()
        self.setFixedSize(self._box.totalSizeHint())
        parent = self.parentWidget()
        assert parent is not None
        self.move((parent.width() - self.width()) // 2, TOP)
        self.raise_()
        self._timer.start(OFFER_MS if offers else REFUSAL_MS)

    def drop_offers(self) -> None:
        """The design is another one: what was offered for the one before goes."""
        if self._buttons and not self.property("refusal"):
            self.hide()

    def _button(self, text: str, action: Callable[[], None]) -> QPushButton:
        button = QPushButton(menu_text(text))
        button.clicked.connect(self.hide)
        button.clicked.connect(lambda: action())
        self._row.addWidget(button)
        return button
