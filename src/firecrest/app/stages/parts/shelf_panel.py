"""The shelf below the tray: search, filters, and what each part would give in this design."""

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtWidgets import (
    QHBoxLayout,
    QMenu,
    QProgressBar,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.session import Session
from firecrest.app.stages.parts.exchanging import tell_exchange
from firecrest.app.stages.parts.judged import Job, Judged
from firecrest.app.stages.parts.row_menu import fill_menu
from firecrest.app.stages.parts.search_bar import SearchBar
from firecrest.app.stages.parts.table import ShelfTable
from firecrest.app.theme.size import fix
from firecrest.app.widgets.plain import label, tip
from firecrest.app.widgets.stepper import Stepper
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.present.parts import ordering
from firecrest.present.parts import shelf as shown
from firecrest.present.parts.shelf import Row
from firecrest.proposals.placing import put
from firecrest.search.choose import Candidate, take
from firecrest.shelf.entry import Entry
from firecrest.shelf.kinds import KINDS
from firecrest.shelf.query import matching, of_kind, parse_query
from firecrest.shelf.store import MOST_STOCK, counts

REST_MS = 150
SLOW = 100
"""Candidates from which on progress is shown."""


class ShelfPanel(QWidget):
    """Search row, chips, table, and what can be done with the row that is tried."""

    opened = Signal(str)
    kind_changed = Signal(str)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session, self.kind, self.place = session, "driver", 0
        self._sort: tuple[int, bool] | None = None
        self._shown: tuple[object, ...] | None = None
        self._pool: tuple[object, tuple[str, bool], list[Entry]] | None = None
        self.judged = Judged(session.shelf, self)
        self.judged.filled.connect(self._fill)
        self.judged.progressed.connect(self._progressed)
        self.judged.finished.connect(self._finished)
        self.judged.failed.connect(self._failed)
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(REST_MS)
        self._rest.timeout.connect(self._work_out)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 2, 0, 0)
        box.setSpacing(4)
        self.bar = SearchBar()
        self.bar.changed.connect(self.refresh)
        self.bar.left_down.connect(self._into_table)
        self.bar.kind_chosen.connect(self.choose_kind)
        self.bar.view_chosen.connect(self._choose_view)
        self.view = "results"
        box.addWidget(self.bar)
        box.addWidget(self._progress())
        self.table = ShelfTable()
        self.table.tried.connect(self._try)
        self.table.taken.connect(lambda row: self.take(row))
        self.table.opened.connect(self._open)
        self.table.sorted_by.connect(self._sort_by)
        self.table.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.table.customContextMenuRequested.connect(
            lambda spot: self._menu().exec(self.table.viewport().mapToGlobal(spot))
        )
        box.addWidget(self.table, 1)
        box.addLayout(self._foot())
        session.shelf.changed.connect(self.refresh)

    # building -----------------------------------------------------------------

    def _progress(self) -> QWidget:
        self.progress = QWidget()
        row = QHBoxLayout(self.progress)
        row.setContentsMargins(0, 0, 0, 0)
        self.progress_text = label("", "hint")
        self.progress_bar = QProgressBar()
        self.progress_bar.setTextVisible(False)
        fix(self.progress_bar, height=3)
        stop = QPushButton("Stop")
        stop.clicked.connect(self.stop)
        for widget, stretch in ((self.progress_text, 0), (self.progress_bar, 1), (stop, 0)):
            row.addWidget(widget, stretch)
        self.progress.hide()
        return self.progress

    def _foot(self) -> QHBoxLayout:
        row = QHBoxLayout()
        self.said = label("", "second")
        row.addWidget(self.said)
        row.addStretch(1)
        self.have = Stepper("have", "Pieces you have", 0, MOST_STOCK)
        self.have.stepped.connect(self._set_stock)
        row.addWidget(self.have)
        self.more = QToolButton()
        self.more.setText("More ▾")
        self.more.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.more_menu = QMenu(self.more)
        self.more_menu.aboutToShow.connect(self._fill_more)
        self.more.setMenu(self.more_menu)
        row.addWidget(self.more)
        self.open_button = QPushButton("Sheet")
        tip(self.open_button, "Open its data sheet (double click, Alt+Enter)")
        self.open_button.clicked.connect(lambda: self._open(self.table.current))
        row.addWidget(self.open_button)
        self.take_button = QPushButton("Take it")
        self.take_button.setProperty("role", "main")
        tip(self.take_button, "Put it into the design: one undo step (Enter)")
        self.take_button.clicked.connect(lambda: self.take(self.table.current))
        row.addWidget(self.take_button)
        return row

    # which parts -------------------------------------------------------------------

    def choose_kind(self, kind: str, place: int = 0) -> None:
        """Another kind of part, in place of the one numbered ``place``."""
        self.kind, self.place, self._sort = kind, place, None
        self.bar.kinds.choose(kind)
        self.session.drop_trial()
        self.kind_changed.emit(kind)
        self.refresh()

    def to_row(self) -> None:
        """The keyboard goes to the row that it was on, or to the search."""
        field = self.table if self.table.current is not None else self.bar.search
        field.setFocus(Qt.FocusReason.OtherFocusReason)

    def _into_table(self) -> None:
        """Keyboard from the search to the first part that was found."""
        if self.table.rows_model.rows:
            self.table.setFocus(Qt.FocusReason.OtherFocusReason)
            self.table.selectRow(0)

    def _choose_view(self, view: str) -> None:
        self.view, self._sort = view, None
        self.refresh()

    def _sort_by(self, section: int) -> None:
        """First press sorts, the second turns round, the third gives back the usual order."""
        if self._sort is None or self._sort[0] != section:
            self._sort = (section, False)
        elif not self._sort[1]:
            self._sort = (section, True)
        else:
            self._sort = None
        self.refresh()

    def _selected(self) -> list[Entry]:
        """Entries that search and chips leave over."""
        on = self.bar.on
        rules = []
        if "have" in on:
            rules.append(lambda e: e.stock > 0)
        if "favourite" in on:
            rules.append(lambda e: e.favourite)
        if "whole" in on:
            rules.append(shown.whole_data)
        return matching(self._of_kind("archived" in on), parse_query(self.bar.search.text()), rules)

    def _of_kind(self, archived: bool) -> list[Entry]:
        """Entries of the kind on show, kept for the next letter that is typed."""
        entries, which = self.session.shelf.entries(), (self.kind, archived)
        if self._pool is None or self._pool[0] is not entries or self._pool[1] != which:
            found = of_kind(entries.values(), self.kind, archived=archived)
            self._pool = (entries, which, found)
        return self._pool[2]

    def _kept(self, rows: list[Row]) -> list[Row]:
        """Rows that the chips about results leave over; rows not worked out yet stay."""
        if "fits" in self.bar.on:
            rows = [r for r in rows if r.outcome is None or r.outcome.fit.fits is True]
        if "loud" in self.bar.on:
            rows = [
                r for r in rows if r.outcome is None or shown.state_of(r.outcome, "loudness") in
                ("met", "close")
            ]  # fmt: skip
        return rows

    @property
    def retune_possible(self) -> bool:
        """Whether there is anything to be tuned: a port or radiators, or radiators to come."""
        box = self.session.design.box
        return bool(box.openings) or self.kind == "radiator"

    # showing ----------------------------------------------------------------------

    @property
    def results(self) -> bool:
        """Whether the table shows what parts would give."""
        return self.view == "results" and bool(self.kind)

    def refresh(self) -> None:
        """Search, order and show; results that are missing are worked out after a rest."""
        if not self.isVisible():
            return
        state, before = self._state(), self._shown
        same = before and state[0] is before[0] and state[1] is before[1]
        if before and same and state[2] == before[2]:
            return
        self._shown = state
        if before is None or state[0] is not before[0]:
            entries = self.session.shelf.entries().values()
            self.bar.show_counts(counts([e for e in entries if not e.archived]))
        self._show()
        if self.results and self.judged.waiting(self._job()):
            self.table.rows_model.faded = not self.judged.holds_for(self._job())
            self._wait()

    def leave(self) -> None:
        """Nothing new is begun, and what is under way is left."""
        self._rest.stop()
        self.judged.stop()

    def _state(self) -> tuple[object, ...]:
        """All that decides what is shown."""
        chips = (self.bar.on, self.bar.retune.isChecked())
        where = (self.kind, self.place, self.view, self._sort, self.bar.search.text(), chips)
        return self.session.shelf.entries(), self.session.design, where

    def _show(self) -> None:
        session, model = self.session, self.table.rows_model
        columns = shown.RESULTS if self.results else shown.figure_columns(self.kind)
        found = shown.rows(self._selected(), session.design, self.judged.outcomes, self.place)
        found = self._kept(found)
        column = columns[self._sort[0]] if self._sort else None
        if column is None and not self.results:
            column = columns[0]
        found = ordering.ordered(found, column, backwards=bool(self._sort and self._sort[1]))
        held = self.table.current.entry.id if self.table.current else ""
        other_columns = columns != model.columns or model.design is None
        ids = ([r.entry.id for r in rows] for rows in (found, model.rows))
        same = len(found) == len(model.rows) and next(ids) == next(ids)
        if same and not other_columns:
            model.design = session.design
            model.renew(found)
        else:
            self.table.blockSignals(True)
            model.show_rows(found, columns, session.design)
            if other_columns:
                self.table.set_widths()
            self._reselect(held)
            self.table.blockSignals(False)
        self.bar.retune.setEnabled(self.retune_possible)
        self._tell()

    def _reselect(self, id: str) -> None:
        """The row that was tried stays so; without one the table begins at its top."""
        for k, row in enumerate(self.table.rows_model.rows):
            if row.entry.id == id:
                self.table.selectRow(k)
                return
        self.table.scrollToTop()

    def _tell(self) -> None:
        row = self.table.current
        rows = self.table.rows_model.rows
        for widget in (self.have, self.more, self.open_button):
            widget.setEnabled(row is not None)
        possible = (
            row is not None
            and (not row.in_force or self.bar.retune.isChecked())
            and (row.outcome is None or row.outcome.design is not None)
        )
        self.take_button.setEnabled(bool(possible and self.kind))
        if row is None:
            empty = "Nothing on the shelf is like that."
            if self.session.shelf.waiting:
                empty = "The shelf is in use by another program; its parts come when it is free."
            elif rows:
                empty = shown.summary(rows)
            self.said.setText(empty)
            return
        self.have.show_value(row.entry.stock)
        if row.outcome is None:
            self.said.setText(row.entry.name)
        elif shown.trouble(row):
            self.said.setText(f"{row.entry.name}: {shown.trouble(row)}")
        else:
            change = shown.effect(row.outcome, self.session.assessment.promises)
            self.said.setText(f"{row.entry.name}: {change}")

    # working out ----------------------------------------------------------------------

    def _job(self) -> Job:
        """What the table asks for."""
        retune = self.bar.retune.isChecked()
        return Job(self.session.design, self.kind, self.place, retune)

    def _wait(self) -> None:
        """Work out what is missing once the hand rests."""
        self.table.rows_model.working = True
        self._rest.start()

    def _work_out(self) -> None:
        if self.isVisible() and self.results:
            first = [row.entry for row in self.table.rows_model.rows]
            self.judged.start(self._job(), first)
        else:
            self.table.rows_model.working = False

    def _fill(self) -> None:
        """Rows fill from the top while the rest is worked out; they are ordered at the end."""
        found = self.judged.outcomes
        rows = self.table.rows_model.rows
        self.table.rows_model.renew(
            [r._replace(outcome=found.get(r.entry.id, r.outcome)) for r in rows]
        )

    def _progressed(self, done: int, total: int) -> None:
        slow = total > SLOW and done < total
        self.progress.setVisible(slow)
        if slow:
            self.progress_bar.setRange(0, total)
            self.progress_bar.setValue(done)
            self.progress_text.setText(f"{done} of {total} worked out")

    def _finished(self) -> None:
        self.progress.hide()
        self.table.rows_model.faded = self.table.rows_model.working = False
        self._show()

    def _failed(self, reason: str) -> None:
        self._finished()
        told = reason.strip().splitlines()[-1]
        self.session.refused.emit(
            f"The parts could not all be worked out ({told}). What is there stays; change "
            "something, or restart Firecrest."
        )

    def stop(self) -> None:
        """Leave the rest of the candidates until something changes; those done stay."""
        self.judged.stop()
        self._finished()

    # doing -----------------------------------------------------------------------------

    def _try(self, row: Row | None) -> None:
        self._tell()
        design = None if row is None or row.in_force else self._with(row)
        if design is None:
            self.session.drop_trial()
        else:
            self.session.try_design(design)

    def _with(self, row: Row) -> Design | None:
        """The present design with a row's part; None where it cannot be put in."""
        if row.outcome is not None and self.judged.holds_for(self._job()):
            return row.outcome.design
        try:
            return put(self.session.design, row.entry.part, self.place)
        except FirecrestError:
            return None

    def take(self, row: Row | None) -> None:
        """Put a part into the design as it is now, as one undo step."""
        if row is None or not self.kind:
            return
        session, word = self.session, KINDS[row.entry.kind].word
        retune = self.bar.retune.isChecked()
        candidate, before = Candidate(row.entry.id, row.entry.part), session.assessment
        if session.attempt(
            lambda: session.apply(*take(session.design, candidate, word, self.place, retune))
        ):
            tell_exchange(session, before)

    def _open(self, row: Row | None) -> None:
        if row is not None:
            self.opened.emit(row.entry.id)

    def _set_stock(self, count: int) -> None:
        row = self.table.current
        if row is not None:
            self.session.shelf.attempt(lambda shelf: shelf.mark(row.entry.id, stock=count))

    def _menu(self) -> QMenu:
        self._fill_more()
        return self.more_menu

    def _fill_more(self) -> None:
        """What can be done with the row."""
        self.more_menu.clear()
        if self.table.current is not None:
            fill_menu(self.more_menu, self.session.shelf, self.table.current.entry)
