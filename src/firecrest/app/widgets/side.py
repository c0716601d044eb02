"""The side panel: why the promises stand as they do, next moves, what the figures assume."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QCheckBox,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.doubting import Doubting
from firecrest.app.rest import READ_MS, REST_MS, Coalesced, after
from firecrest.app.session import Session
from firecrest.app.theme.size import fix
from firecrest.app.theme.style import holder, theme
from firecrest.app.widgets.choices import bound_check
from firecrest.app.widgets.marks import Mark
from firecrest.app.widgets.move_cards import Moves
from firecrest.app.widgets.plain import label, markup, rich_label, tip
from firecrest.app.work import Task, advice
from firecrest.design.brief import Edges
from firecrest.design.design import Design
from firecrest.design.fields import help_of
from firecrest.present.text.edges import EDGES, Edge, edges_of
from firecrest.present.text.helping import helping, why_not_loud, with_help
from firecrest.present.text.notes import said
from firecrest.present.text.pieces import Sentence
from firecrest.present.text.sentences import why
from firecrest.present.text.unsure import unsure_sentences

WIDTH = 288


class SentenceRow(QWidget):
    """A mark and one sentence whose links lead to fields and frequencies."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._sentence: Sentence | None = None
        self._shown: tuple[Sentence, bool, bool] | None = None
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 3, 0, 3)
        row.setSpacing(8)
        self._mark = Mark("none")
        self._text = rich_label()
        self._text.setProperty("role", "said")
        self._text.setWordWrap(True)
        self._text.setTextInteractionFlags(
            Qt.TextInteractionFlag.LinksAccessibleByKeyboard
            | Qt.TextInteractionFlag.LinksAccessibleByMouse
        )
        self._text.linkActivated.connect(self._follow)
        row.addWidget(self._mark, 0, Qt.AlignmentFlag.AlignTop)
        row.addWidget(self._text, 1)

    def show_sentence(self, sentence: Sentence, first: bool) -> None:
        """Show a sentence; the first one is bold."""
        if (sentence, first, theme().dark) == self._shown:
            return
        self._shown = (sentence, first, theme().dark)
        self._sentence = sentence
        self._mark.set_state(sentence.mark)
        ink = theme()["ink"]
        parts = []
        for k, piece in enumerate(sentence.pieces):
            text = markup(piece.text)
            if piece.path is not None or piece.frequency is not None:
                text = (
                    f'<a href="{k}" style="color:{ink};text-decoration:none;'
                    f'border-bottom:1px dotted">{text}</a>'
                )
            parts.append(text)
        body = "".join(parts)
        self._text.setText(f"<b>{body}</b>" if first else body)
        self._text.setAccessibleName(sentence.plain)

    def _follow(self, link: str) -> None:
        assert self._sentence is not None
        piece = self._sentence.pieces[int(link)]
        if piece.frequency is not None:
            self._session.look_at(piece.frequency)
        if piece.path is not None:
            self._session.go_to(piece.path)

    def plain(self) -> str:
        """The words on show."""
        return self._sentence.plain if self._sentence else ""


class EdgeRows(QWidget):
    """What is reckoned with beyond small signals: a switch for each, and what it does here."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 2, 0, 2)
        column.setSpacing(1)
        self.rows: dict[str, tuple[QCheckBox, QLabel]] = {}
        for key, name in EDGES.items():
            tick, text = bound_check(session, ("brief", "edges", key), name), label("", "second")
            tip(tick, help_of(Edges, key))
            text.setWordWrap(True)
            self.rows[key] = tick, text
            column.addWidget(tick)
            column.addWidget(text)

    def show_edges(self, edges: Sequence[Edge]) -> bool:
        """Show those that matter; whether there are any."""
        found = {edge.key: edge.text for edge in edges}
        for key, (tick, text) in self.rows.items():
            tick.setVisible(key in found)
            text.setVisible(key in found)
            text.setText(found.get(key, ""))
        return bool(found)


class UnsureRows(QWidget):
    """Which figures make the doubt of the worst promise, each with the test that settles it."""

    def __init__(self, session: Session, doubting: Doubting) -> None:
        super().__init__()
        self._session, self._doubting = session, doubting
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 12, 0, 0)
        self._column.setSpacing(2)
        self._column.addWidget(label("Not sure of", "panel"))
        self._waiting = label("being worked out…", "second")
        self._column.addWidget(self._waiting)
        self._ranges = QPushButton("All likely ranges")
        self._ranges.clicked.connect(lambda _=False: self._go_to_ranges())
        tip(self._ranges, "How far figures that no part's sheet states may be off, to be edited.")
        self._column.addWidget(self._ranges)
        self.rows: list[SentenceRow] = []
        doubting.found.connect(self.refresh)
        holder.changed.connect(self.refresh)
        self.refresh()

    def _go_to_ranges(self) -> None:
        self._session.go_to(("brief", "tolerances", "losses"))

    def refresh(self) -> None:
        """Show what is known of the present design's doubt."""
        found, assessment = self._doubting.unsure, self._session.assessment
        sentences = unsure_sentences(assessment, found or ())
        while len(self.rows) < len(sentences):
            row = SentenceRow(self._session)
            self._column.insertWidget(2 + len(self.rows), row)
            self.rows.append(row)
        for k, row in enumerate(self.rows):
            row.setVisible(k < len(sentences))
            if k < len(sentences):
                row.show_sentence(sentences[k], first=False)
        self._waiting.setVisible(found is None)
        nothing = found is not None and not found
        self.setVisible(assessment.acoustic is not None and not nothing)

    def sentences(self) -> list[str]:
        """The sentences of now."""
        return [row.plain() for row in self.rows if not row.isHidden()]


class SidePanel(QWidget):
    """Why, and what is assumed."""

    def __init__(self, session: Session, doubting: Doubting) -> None:
        super().__init__()
        self.setObjectName("side")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.session = session
        fix(self, width=WIDTH)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        scroll.viewport().setAutoFillBackground(False)
        inner = QWidget()
        inner.setAutoFillBackground(False)
        self._column = QVBoxLayout(inner)
        self._column.setContentsMargins(16, 12, 16, 12)
        self._column.setSpacing(2)
        scroll.setWidget(inner)
        outer.addWidget(scroll)
        self._column.addWidget(label("Why", "panel"))
        self.rows: list[SentenceRow] = []
        self._rows_at = self._column.count()
        self._assumed = label("What the figures assume", "section")
        self._notes = label("", "second")
        self._notes.setWordWrap(True)
        self._edges = EdgeRows(session)
        self.moves = Moves(session)
        self._column.addWidget(self.moves)
        self.unsure = UnsureRows(session, doubting)
        self._column.addWidget(self.unsure)
        self._column.addSpacing(14)
        self._column.addWidget(self._assumed)
        self._column.addWidget(self._edges)
        self._column.addWidget(self._notes)
        self._column.addStretch(1)
        self._help = ""
        self._task = Task(self, advice)
        self._task.some.connect(self._take_help)
        self._of: Design | None = None
        self._rest = after(self, REST_MS, self._ask_help)
        self._after = Coalesced(self, self.refresh, READ_MS)
        session.changed.connect(self._after.start)
        session.doubted.connect(self._after.start)
        holder.changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show the sentences of the present assessment; what helps comes once the hand rests."""
        if self._of is not self.session.design:
            self._help = ""
            self._of = self.session.design
            self._task.stop()
            if why_not_loud(self.session.assessment):
                self._rest.start()
        self._show()

    @property
    def busy(self) -> bool:
        """Whether what helps is still being worked out."""
        return self._rest.isActive() or self._task.running

    def stop(self) -> None:
        """Leave what is under way."""
        self._rest.stop()
        self._task.stop()
        self.moves.stop()

    def _ask_help(self) -> None:
        self._task.start(helping, self.session.design)

    def _take_help(self, found: str) -> None:
        if self._of is self.session.design:
            self._help = found
            self._show()

    def _show(self) -> None:
        sentences = with_help(why(self.session.assessment), self._help)
        while len(self.rows) < len(sentences):
            row = SentenceRow(self.session)
            self._column.insertWidget(self._rows_at + len(self.rows), row)
            self.rows.append(row)
        for k, row in enumerate(self.rows):
            row.setVisible(k < len(sentences))
            if k < len(sentences):
                row.show_sentence(sentences[k], first=k == 0)
        estimates = self.session.assessment.estimates
        some = self._edges.show_edges(edges_of(self.session.assessment))
        self._assumed.setVisible(some or bool(estimates))
        self._notes.setText("\n".join(f"· {said(e)}" for e in estimates))

    def sentences(self) -> list[str]:
        """The sentences of now."""
        self._after.flush()
        return [row.plain() for row in self.rows if not row.isHidden()]
