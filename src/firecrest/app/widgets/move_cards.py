"""Next moves: cards of proposed changes that are tried by pointing and kept by a press."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.rest import REST_MS, after
from firecrest.app.session import Session
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chips import ChipRow
from firecrest.app.widgets.choices import CalmCombo
from firecrest.app.widgets.plain import label, tip
from firecrest.app.widgets.pressable import Tryable
from firecrest.app.work import Task, advice
from firecrest.design.design import Design
from firecrest.present.frame import moves
from firecrest.present.frame.moves import ORDERS, Move, in_order
from firecrest.shelf.store import shelf_path

FEW = 5
REMEMBERED = 6
"""Designs whose moves are remembered: going back to one shows them at once."""
POINTED_MS = 150
"""A move is tried once the pointer has stayed on it so long."""


class MoveCard(Tryable):
    """One proposal; pointing at it or focus tries it, Enter or the button keeps it."""

    def __init__(self, move: Move, number: int) -> None:
        super().__init__()
        self.move_shown = move
        self.setProperty("role", "card")
        self.setAccessibleName(f"Move {number}: {move.title}")
        self.setAccessibleDescription(f"{move.detail} {', '.join(move.effects)}. Enter keeps it.")
        box = QVBoxLayout(self)
        box.setContentsMargins(10, 7, 10, 8)
        box.setSpacing(3)
        head = QHBoxLayout()
        head.setSpacing(8)
        key = label(str(number), "key")
        fix(key, width=20, height=20)
        tip(key, f"Ctrl+{number} tries it" if number <= 9 else "")
        head.addWidget(key)
        title = label(move.title, "figure")
        title.setWordWrap(True)
        head.addWidget(title, 1)
        self.keep = QPushButton("Keep it")
        self.keep.setProperty("compact", "true")
        self.keep.setAccessibleName(f"Keep it: {move.title}")
        self.keep.clicked.connect(lambda: self.pressed.emit())
        head.addWidget(self.keep, 0, Qt.AlignmentFlag.AlignTop)
        box.addLayout(head)
        if move.detail:
            detail = label(move.detail, "second")
            detail.setWordWrap(True)
            box.addWidget(detail)
        box.addWidget(ChipRow([(chip.text, chip.role) for chip in move.chips]))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Esc drops what is tried."""
        if event.key() == Qt.Key.Key_Escape:
            self.tried.emit(False)
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: object) -> None:
        """A press on the card itself only points at it; the button keeps."""
        self.setFocus()


class Moves(QWidget):
    """The section of next moves; ``counted`` tells how many there are."""

    counted = Signal(int)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.cards: list[MoveCard] = []
        self.found: list[Move] = []
        self._all, self._of = False, session.design
        self._known: dict[int, tuple[Design, list[Move]]] = {}
        self._task = Task(self, advice)
        self._task.some.connect(self._take)
        self._task.finished.connect(self._show)
        self._rest = after(self, 2 * REST_MS, self._start)
        self._pointed = after(self, POINTED_MS, self._try)
        self._at: Move | None = None
        self._build()
        session.changed.connect(self.refresh)
        self.refresh()

    def _build(self) -> None:
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 10, 0, 0)
        self._column.setSpacing(6)
        head = QHBoxLayout()
        head.addWidget(label("Next moves", "panel"))
        head.addStretch(1)
        self._hint = label("point at one to try it", "hint")
        head.addWidget(self._hint)
        self._column.addLayout(head)
        self.more = QPushButton()
        self.more.clicked.connect(lambda _=False: self._turn())
        self.order = CalmCombo()
        self.order.setAccessibleName("Order of the moves")
        for key, name in ORDERS.items():
            self.order.addItem(name, key)
        tip(self.order, "Most for least: dB of the worst promise for what it weighs and costs")
        self.order.currentIndexChanged.connect(lambda _: self._show())
        foot = QHBoxLayout()
        foot.addWidget(self.more)
        foot.addWidget(self.order)
        foot.addStretch(1)
        self._column.addLayout(foot)

    @property
    def busy(self) -> bool:
        """Whether proposals are still being worked out."""
        return self._rest.isActive() or self._task.running

    def stop(self) -> None:
        """Leave what is under way."""
        self._rest.stop()
        self._task.stop()

    # working out -------------------------------------------------------------------

    def refresh(self) -> None:
        """Old cards go; those of this design come once the hand rests, or at once if known."""
        self.stop()
        self._at, self.found = None, []
        design = self.session.design
        known = self._known.get(id(design))
        if known is not None:
            self.found = known[1]
        else:
            self._rest.start()
        self._show()

    def _start(self) -> None:
        self._of = self.session.design
        self._task.start(moves.moves_of, self._of, shelf_path())

    def _take(self, found: list[Move]) -> None:
        if self._of is not self.session.design:
            return
        self.found = found
        kept = dict(list(self._known.items())[-REMEMBERED:])
        self._known = {**kept, id(self._of): (self._of, found)}
        self._show()

    # what is shown -------------------------------------------------------------------

    def _turn(self) -> None:
        self._all = not self._all
        self._show()

    def _show(self) -> None:
        focused = next((k for k, c in enumerate(self.cards) if c.hasFocus()), None)
        found = in_order(self.found, self.order.currentData())
        shown = found if self._all else found[:FEW]
        if [c.move_shown for c in self.cards] != shown:
            for card in self.cards:
                card.hide()
                card.deleteLater()
            self.cards = []
            for place, move in enumerate(shown):
                card = MoveCard(move, place + 1)
                card.tried.connect(lambda on, move=move: self._point(move, on=on))
                card.pressed.connect(lambda move=move: self._keep(move))
                self.cards.append(card)
                self._column.insertWidget(1 + place, card)
                if focused == place:
                    card.setFocus()
        beyond = len(found) - FEW
        self.more.setVisible(beyond > 0)
        self.more.setText("Show five" if self._all else f"{beyond} more")
        self.order.setVisible(len(found) > 1)
        self._hint.setText("being worked out…" if self.busy else "point at one to try it")
        self.setVisible(bool(found) or self.busy)
        self.counted.emit(len(self.found))

    def arm(self, number: int) -> bool:
        """Try move ``number`` (from 1) as if one pointed at it; whether there is one."""
        if not 0 < number <= len(self.cards):
            return False
        self.cards[number - 1].setFocus()
        return True

    def _point(self, move: Move, *, on: bool) -> None:
        """Try it once the pointer has stayed; leaving drops it."""
        if on:
            self._at = move
            self._pointed.start()
        else:
            self._pointed.stop()
            self._at = None
            self.session.drop_trial()

    def _try(self) -> None:
        if self._at is not None:
            self.session.try_design(self._at.design)

    def _keep(self, move: Move) -> None:
        self._at = None
        self._pointed.stop()
        self.session.apply(move.title, move.design)
