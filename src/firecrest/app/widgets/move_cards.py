"""Next moves: cards of proposed changes that are tried by pointing and kept by a press."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.rest import Rest
from firecrest.app.session import Session
from firecrest.app.widgets.plain import label
from firecrest.app.widgets.pressable import Tryable
from firecrest.present.frame import moves
from firecrest.present.frame.moves import Move


class MoveCard(Tryable):
    """One proposal; pointing at it or focus tries it, Enter or the button keeps it."""

    def __init__(self, move: Move) -> None:
        super().__init__()
        self.move_shown = move
        self.setProperty("role", "card")
        self.setAccessibleName(move.title)
        self.setAccessibleDescription(f"{move.detail} {', '.join(move.effects)}. Enter keeps it.")
        box = QVBoxLayout(self)
        box.setContentsMargins(10, 7, 10, 8)
        box.setSpacing(3)
        title = label(move.title, "figure")
        title.setWordWrap(True)
        detail = label(move.detail, "second")
        detail.setWordWrap(True)
        effects = label(" · ".join(move.effects))
        effects.setWordWrap(True)
        self.keep = QPushButton("Keep it")
        self.keep.setAccessibleName(f"Keep it: {move.title}")
        self.keep.clicked.connect(lambda: self.pressed.emit())
        row = QHBoxLayout()
        row.addWidget(effects, 1)
        row.addWidget(self.keep)
        for part in (title, detail):
            box.addWidget(part)
        box.addLayout(row)

    def mousePressEvent(self, event: object) -> None:
        """A press on the card itself only points at it; the button keeps."""
        self.setFocus()


class Moves(QWidget):
    """The section of next moves; empty while there are none. ``counted`` tells how many."""

    counted = Signal(int)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._rest = Rest(self)
        self.cards: list[MoveCard] = []
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 10, 0, 0)
        self._column.setSpacing(6)
        head = QHBoxLayout()
        head.addWidget(label("Next moves", "panel"))
        head.addStretch(1)
        head.addWidget(label("point at one to try it", "hint"))
        self._column.addLayout(head)
        self.hide()
        session.changed.connect(self.refresh)
        self.refresh()

    @property
    def busy(self) -> bool:
        """Whether proposals are still being worked out."""
        return self._rest.running

    def refresh(self) -> None:
        """Old cards go; new ones come once the hand rests."""
        for card in self.cards:
            card.hide()
            card.deleteLater()
        self.cards = []
        self.hide()
        self.counted.emit(0)
        self._rest.start(moves.jobs(self.session.assessment), self._take)

    def _take(self, found: object) -> None:
        if not isinstance(found, Move):
            return
        card = MoveCard(found)
        card.tried.connect(lambda on, move=found: self._try(move, on=on))
        card.pressed.connect(lambda move=found: self._keep(move))
        self.cards.append(card)
        self._column.addWidget(card)
        self.show()
        self.counted.emit(len(self.cards))

    def _try(self, move: Move, *, on: bool) -> None:
        if on:
            self.session.try_design(move.design)
        else:
            self.session.drop_trial()

    def _keep(self, move: Move) -> None:
        self.session.apply(move.title, move.design)
