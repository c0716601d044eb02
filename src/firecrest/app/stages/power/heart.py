"""The views of the heart of Power: through the hours, boards, levels."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import Segments, set_role
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.pages import scrolled
from firecrest.app.widgets.plain import label, paragraph, tip
from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.uses import PROMISE, course_of
from firecrest.present.power import facts, hours, power, truth
from firecrest.present.text import words
from firecrest.present.text.notes import said


class TextGrid(QWidget):
    """Rows of texts below their titles, set in place."""

    def __init__(self, heads: Sequence[str], name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(3)
        for column, head in enumerate(heads):
            self._grid.addWidget(label(head, "hint"), 0, column)
        self._grid.setColumnStretch(len(heads), 1)
        self._rows: list[list[QLabel]] = []
        self._width = len(heads)

    def show_rows(self, rows: Sequence[Sequence[str]], bad: Sequence[bool] = ()) -> None:
        """Show these rows and no others; ``bad`` ones are marked."""
        while len(self._rows) < len(rows):
            made = [label() for _ in range(self._width)]
            for column, cell in enumerate(made):
                self._grid.addWidget(cell, len(self._rows) + 1, column)
            self._rows.append(made)
        for place, cells in enumerate(self._rows):
            shown = place < len(rows)
            texts = rows[place] if shown else [""] * self._width
            for column, (cell, text) in enumerate(zip(cells, texts, strict=True)):
                cell.setText(text)
                cell.setVisible(shown)
                wrong = shown and place < len(bad) and bad[place]
                set_role(cell, "bad" if wrong and column else "value" if column else "")

    def texts(self) -> list[list[str]]:
        """What is on show."""
        return [[c.text() for c in row] for row in self._rows if not row[0].isHidden()]


class HoursPage(QWidget):
    """Volts over clean watts through the hours, for one of four uses."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session, self.use = session, PROMISE
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        self.uses = Segments(tuple(hours.USE_WORDS.items()), "Played")
        for use, help in hours.USE_HELP.items():
            tip(self.uses.button(use), help)
        line = QHBoxLayout()
        self._what = paragraph()
        line.addWidget(self._what, 1)
        line.addWidget(self.uses)
        column.addLayout(line)
        self.volts, self.watts = Chart(session, height=96), Chart(session, height=96)
        self._caption = label("", "section")
        column.addWidget(self.volts, 1)
        column.addWidget(self._caption)
        column.addWidget(self.watts, 1)
        self._empty = paragraph()
        column.addWidget(self._empty)
        self.uses.choose(self.use)

    def follow(self) -> None:
        """The volts alone: what can be drawn at every move of a drag."""
        a, ghost = self.session.assessment, self.session.ghost
        plot = hours.volts_plot(a, self.use)
        if plot is not None and self.volts.isVisible():
            self.volts.show_plot(plot, hours.volts_plot(ghost, self.use) if ghost else None)

    def refresh(self) -> None:
        """Draw the present assessment, and what is tried as a ghost."""
        a = self.session.assessment
        plots = hours.evening(a, self.use)
        for widget in (self.volts, self.watts, self._caption):
            widget.setVisible(plots is not None)
        self._empty.setVisible(plots is None)
        if plots is None:
            self._what.setText("")
            self._empty.setText(no_hours(a))
            return
        ghost = hours.evening(self.session.ghost, self.use) if self.session.ghost else None
        self.volts.show_plot(plots[0], ghost[0] if ghost else None)
        self.watts.show_plot(plots[1], ghost[1] if ghost else None)
        self._caption.setText(plots[1].name)
        self._what.setText(self._said(a))

    def _said(self, a: Assessment) -> str:
        level, run = hours.level_of(a, self.use), None
        if level is not None:
            run = course_of(a, level)
        if level is None or run is None:
            return ""
        listening = a.design.brief.listening
        played = f"{words.MATERIALS[listening.material]} at {level:.0f} dB mean"
        celsius = a.design.brief.conditions.temperature - 273.15
        most = hours.level_of(a, "flat out")
        loud = "" if most is None or level <= most + 1e-9 else " Louder than it can play."
        text = f"Playing {played}, {celsius:.0f} °C; {words.ending(run.ended_by)}.{loud} "
        return text + hours.drain_sentence(a)


def no_hours(assessment: Assessment) -> str:
    """Why there is no course of hours."""
    source = assessment.design.power.source
    if source.kind == "mains":
        return "It has its own mains supply: there is no runtime to work out."
    if source.kind == "wall" and source.energy is None:
        return (
            "It runs from the wall: there is no runtime to work out. What this supply leaves of "
            "the printed watts stands under Boards, what other supplies would leave under Supplies."
        )
    if assessment.missing:
        return f"No curve yet: {said(assessment.missing[0])}."
    return "The source cannot carry this load even when full: more cells, or a lower level."


class BoardsPage(QWidget):
    """The truth about each amplifier board."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session, self.board = session, 0
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        self._choice = QHBoxLayout()
        self._choice.addStretch(1)
        outer.addLayout(self._choice)
        self._segments: Segments | None = None
        self._names: list[str] = []
        self._sentence = paragraph("", "figure")
        outer.addWidget(self._sentence)
        self.table = TextGrid(truth.HEADS, "Amplifier truth")
        inner = QWidget()
        row = QHBoxLayout(inner)
        row.setContentsMargins(0, 4, 0, 0)
        row.setSpacing(24)
        left = QVBoxLayout()
        left.setSpacing(6)
        left.addWidget(self.table, 0, Qt.AlignmentFlag.AlignTop)
        self._bus = paragraph("", "hint")
        left.addWidget(self._bus)
        self.chart = Chart(session, height=120)
        fix(self.chart, most_height=150)
        left.addWidget(label("Efficiency, below clipping", "section"))
        left.addWidget(self.chart)
        left.addStretch(1)
        row.addLayout(left, 5)
        right = QVBoxLayout()
        right.setSpacing(4)
        self.facts, self.gain, self.hiss = FactRows(), FactRows(), FactRows()
        for title, rows in (("This board", self.facts), ("What drives it", self.gain),
                            ("Silence", self.hiss)):  # fmt: skip
            right.addWidget(label(title, "section"))
            right.addWidget(rows)
        right.addStretch(1)
        row.addLayout(right, 3)
        outer.addWidget(scrolled(inner), 1)

    def _choose(self, board: object) -> None:
        self.board = int(str(board))
        self.refresh()

    def _offer(self, names: list[str]) -> None:
        """One button a board, where there are several."""
        if names == self._names:
            return
        self._names = names
        if self._segments is not None:
            self._segments.setParent(None)
            self._segments.deleteLater()
            self._segments = None
        self.board = min(self.board, len(names) - 1)
        if len(names) > 1:
            self._segments = Segments(tuple(enumerate(names)), "Board")
            self._segments.choose(self.board)
            self._segments.chosen.connect(self._choose)
            self._choice.insertWidget(0, self._segments)

    def refresh(self) -> None:
        """Show the chosen board."""
        a = self.session.assessment
        self._offer([name for _, name in power.amplifier_names(a.design)])
        found = truth.board_truth(a, self.board)
        self._sentence.setText(found.sentence)
        self.table.show_rows(found.rows, found.bad)
        rail = power.bus_words(a, self.board)
        self._bus.setText(
            f"The bus is {rail}. Clean: a burst of a sine on all channels at once, into a "
            "resistor; for long: what heat and the supply's long-term rating leave of it."
        )
        boards = [self.board, *(k for k in range(len(self._names)) if k != self.board)]
        self.chart.show_plot(truth.efficiency_plot(a, boards), None)
        self.facts.show_facts(found.facts)
        self.gain.show_facts(facts.gain_facts(a, self.board))
        self.hiss.show_facts(facts.hiss_facts(a))


class LevelsPage(QWidget):
    """Hours against level, and the four uses, also cold and aged."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        self.chart, self.drain = Chart(session, height=150), Chart(session, height=150)
        beside = QHBoxLayout()
        beside.addWidget(self.chart, 3)
        beside.addWidget(self.drain, 2)
        column.addLayout(beside, 1)
        self._caption = paragraph("", "hint")
        column.addWidget(self._caption)
        self.table = TextGrid(hours.USE_HEADS, "Hours of four uses")
        column.addWidget(self.table)
        self._note = paragraph(
            "Hours. Background: 30 dB below the promised loudness. Half volume: half the volts, "
            "6 dB less. Cold and age by what is usual of the cells: estimates.",
            "hint",
        )
        column.addWidget(self._note)
        self._empty = paragraph()
        column.addWidget(self._empty)
        column.addStretch()

    def refresh(self) -> None:
        """Draw the present assessment."""
        a = self.session.assessment
        plot = hours.level_plot(a)
        self.chart.setVisible(plot is not None)
        self._empty.setVisible(plot is None)
        self._empty.setText("" if plot is not None else no_hours(a))
        if plot is not None:
            ghost = hours.level_plot(self.session.ghost) if self.session.ghost else None
            self.chart.show_plot(plot, ghost)
        drain = hours.drain_plot(a)
        self.drain.setVisible(drain is not None)
        self._caption.setText(hours.drain_sentence(a))
        if drain is not None:
            before = hours.drain_plot(self.session.ghost) if self.session.ghost else None
            self.drain.show_plot(drain, before)
        rows = hours.use_rows(a)
        for widget in (self.table, self._note):
            widget.setVisible(bool(rows))
        self.table.show_rows(rows)
