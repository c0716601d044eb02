"""Sensible starts: one row each, with what it is best at and what it costs; focus tries it."""

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from firecrest.app.rest import Rest
from firecrest.app.session import Session
from firecrest.app.widgets.choices import Segments, set_role
from firecrest.app.widgets.plain import label
from firecrest.app.widgets.pressable import Tryable
from firecrest.present.size.sizing import Offer, offer, start_list

QTCS = ((0.5, "0.5"), (0.577, "0.58"), (0.707, "0.71"), (0.9, "0.9"), (1.1, "1.1"))


class StartRow(Tryable):
    """One start; empty until it is worked out."""

    def __init__(self, title: str, best_at: str) -> None:
        super().__init__()
        self.setProperty("role", "card")
        self.offer: Offer | None = None
        self._title = title
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 5, 10, 6)
        row.setSpacing(12)
        words = QVBoxLayout()
        words.setSpacing(0)
        words.addWidget(label(title, "figure"))
        why = label(best_at, "second")
        why.setWordWrap(True)
        words.addWidget(why)
        row.addLayout(words, 4)
        self._box, self._costs = label("…"), label("")
        for part, share in ((self._box, 3), (self._costs, 4)):
            part.setWordWrap(True)
            row.addWidget(part, share)

    def show_offer(self, found: Offer) -> None:
        """The box it makes and what that does to the promises, or why it is not possible."""
        self.offer = found
        self._box.setText(found.box if found.design else "not possible")
        self._costs.setText(found.costs)
        set_role(self._costs, "" if found.design else "second")
        self.setAccessibleName(f"{self._title}: {found.box}")
        self.setAccessibleDescription(f"{found.costs}. Enter takes it.")
        self.setEnabled(found.design is not None)


class StartsPage(QWidget):
    """All starts; ``left`` tells that the maker is done here."""

    left = Signal()

    def __init__(self, session: Session, back: Callable[[], QWidget]) -> None:
        super().__init__()
        self.session, self._qtc = session, 0.707
        self._rest = Rest(self)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 6, 8, 4)
        box.setSpacing(4)
        head = QHBoxLayout()
        head.addWidget(back())
        head.addWidget(label("Sensible starts", "section"))
        head.addWidget(label("point at one to try it, press it to take it", "hint"))
        head.addStretch(1)
        head.addWidget(label("Qtc when closed", "second"))
        self.qtc = Segments(QTCS, "Qtc when closed")
        self.qtc.setProperty("compact", "true")
        self.qtc.choose(self._qtc)
        self.qtc.chosen.connect(self._choose_qtc)
        head.addWidget(self.qtc)
        box.addLayout(head)
        self.rows: dict[str, StartRow] = {}
        for key, title, best_at in start_list(self._qtc):
            row = StartRow(title if key != "closed" else "Closed", best_at)
            row.tried.connect(partial(self._try, row))
            row.pressed.connect(partial(self._take, row))
            self.rows[key] = row
            box.addWidget(row)
        note = label(
            "From Fs, Qts and Vas without loss but the leak; judged by the whole model. The case "
            "keeps its proportions.",
            "hint",
        )
        box.addWidget(note)
        box.addStretch(1)
        session.changed.connect(self.work_out)
        self.work_out()

    @property
    def busy(self) -> bool:
        """Whether starts are still being worked out."""
        return self._rest.running

    def work_out(self) -> None:
        """Each start of the present design, one after another."""
        assessment = self.session.assessment
        self._rest.start(
            [partial(offer, assessment, key, self._qtc) for key in self.rows], self._show
        )

    def _show(self, found: object) -> None:
        assert isinstance(found, Offer)
        self.rows[found.key].show_offer(found)

    def _choose_qtc(self, value: object) -> None:
        self._qtc = float(str(value))
        self.work_out()

    def _try(self, row: StartRow, on: bool) -> None:
        if on and row.offer is not None and row.offer.design is not None:
            self.session.try_design(row.offer.design)
        else:
            self.session.drop_trial()

    def _take(self, row: StartRow) -> None:
        if row.offer is None or row.offer.design is None:
            return
        title, design = row.offer.title, row.offer.design
        self.left.emit()
        self.session.apply(f"Start: {title.lower()}", design)
