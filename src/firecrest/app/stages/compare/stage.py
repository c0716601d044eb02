"""Compare: variants beside each other, what made the difference, and all that was tried."""

from collections.abc import Mapping
from functools import partial
from typing import Any

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QVBoxLayout, QWidget

from firecrest.app.exporting import Picture, Table, export, kinds
from firecrest.app.stages.base import Stage
from firecrest.app.stages.compare.cloud import Cloud
from firecrest.app.stages.compare.kit_dialog import KitDialog
from firecrest.app.stages.compare.ribbons import Ribbons
from firecrest.app.stages.compare.table import VariantTable
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import CalmCombo, Segments
from firecrest.app.widgets.plain import label, tip
from firecrest.app.work import Task, advice
from firecrest.assessment.assess import Assessment
from firecrest.assessment.doubt import doubt as doubt_work
from firecrest.assessment.doubt.bands import Doubt
from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.edits.variants import add_variant, bring_over
from firecrest.design.project import Project, switched
from firecrest.present.compare import differing
from firecrest.present.compare.columns import Compared, compared, verdict_of
from firecrest.present.compare.differing import Difference
from firecrest.present.compare.kits import HELD_NAMES, KIND_NAMES
from firecrest.present.compare.plots import VIEWS, legend, overlaid, ribbon
from firecrest.present.compare.sheet import HEADS, comparison_rows
from firecrest.present.compare.trail import AXES, axis, point_of
from firecrest.present.parts.at_hand import parts_at_hand
from firecrest.present.plot.plot import BASS, FULL
from firecrest.present.text import words
from firecrest.proposals.kits import other_kinds
from firecrest.shelf.store import shelf_path

KINDS_ASKED = 3
"""Limits that the caption line names."""


class CompareStage(Stage):
    """Variants as curves, columns and points."""

    key, title, subtitle = (
        "compare",
        "Compare",
        "what each try keeps, and what makes the difference",
    )

    def build_heart(self) -> None:
        self.view, self.full = "ceiling", False
        self._rows: tuple[Difference, ...] = ()
        self._of: dict[str, Design] = {}
        self._asked: dict[str, Design] = {}
        self._differing, self._doubts = Task(self, advice), Task(self, advice)
        self._differing.some.connect(self._take_rows)
        self._doubts.some.connect(self._take_doubt)
        views = Segments(tuple(VIEWS.items()), "Curves of all variants")
        views.choose(self.view)
        views.chosen.connect(self._choose_view)
        save = QPushButton("Save as…")
        tip(save, "The comparison as a picture, a page or a table")
        save.clicked.connect(lambda _=False: self.save())
        for widget in (views, save):
            self.bar.addWidget(widget)
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 2, 0, 0)
        box.setSpacing(2)
        line = QHBoxLayout()
        self._verdict = label("", "section")
        line.addWidget(self._verdict)
        line.addStretch(1)
        self._legend = label("", "second")
        line.addWidget(self._legend)
        spans = Segments(((False, "Bass"), (True, "Full range")), "Frequency range")
        spans.setProperty("compact", "true")
        spans.choose(False)
        spans.chosen.connect(self._choose_span)
        line.addWidget(spans)
        box.addLayout(line)
        self.chart = Chart(self.session, height=130)
        box.addWidget(self.chart, 1)
        self.ribbons = Ribbons()
        box.addWidget(self.ribbons)
        self.splitter.setSizes([235, 355])

    def _kinds_button(self) -> QPushButton:
        """The other kinds of box as variants, at equal air or in the same case."""
        button = QPushButton("Kinds of box")
        tip(button, "Add the other kinds of box as variants, to compare them")
        menu = QMenu(button)
        for held, words_ in HELD_NAMES.items():
            menu.addAction(words_.capitalize()).triggered.connect(
                lambda _=False, h=held: self.add_kinds(h)
            )
        button.setMenu(menu)
        return button

    def _kit_button(self) -> QPushButton:
        button = QPushButton("Kit…")
        tip(button, "Every combination of drivers, bodies and ends; what you tick becomes variants")
        button.clicked.connect(lambda _=False: self.open_kit())
        return button

    def add_kinds(self, held: str) -> None:
        """Variants of the other kinds of box beside the one in force, which stays in force."""
        session = self.session
        session.attempt(lambda: session.apply_project(*self._with_kinds(held)))

    def _with_kinds(self, held: str) -> tuple[str, Project]:
        project = self.session.project
        here, made = project.in_force, project
        found = other_kinds(project.design, held)  # type: ignore[arg-type]
        if not found:
            raise DesignError("No other kind of box can be made of this one.")
        for kind, design in found:
            _, made = add_variant(made, design, f"{KIND_NAMES[kind]}, {HELD_NAMES[held]}")
        return f"Kinds of box {HELD_NAMES[held]}", switched(made, here)

    def open_kit(self) -> None:
        """The matrix of a kit."""
        parts = parts_at_hand(shelf_path(), self.session.design)
        self.kit = KitDialog(
            self.session, parts.get("driver", ()), parts.get("radiator", ()), self.window()
        )
        self.kit.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.kit.show()

    def build_lower(self) -> QWidget:
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 6, 8, 4)
        row.setSpacing(18)
        self.table = VariantTable(self._switch, self._bring)
        row.addWidget(self.table, 0)
        right = QVBoxLayout()
        right.setSpacing(4)
        more = QHBoxLayout()
        more.addWidget(self._kinds_button())
        more.addWidget(self._kit_button())
        more.addStretch(1)
        right.addLayout(more)
        right.addWidget(label("All that was tried", "section"))
        self.cloud = Cloud()
        self.axes: dict[str, CalmCombo] = {}
        right.addWidget(self.cloud, 1)
        line = QHBoxLayout()
        for name, start in (("across", "weight"), ("up", "loudness")):
            combo = CalmCombo()
            for key in AXES:
                combo.addItem(words.PROMISE_NAMES[key], key)
            combo.setCurrentIndex(AXES.index(start))
            combo.setAccessibleName(f"Promise {name}")
            combo.currentIndexChanged.connect(lambda _=0: self._show_cloud())
            self.axes[name] = combo
            line.addWidget(label(name, "hint"))
            line.addWidget(combo)
        line.addStretch(1)
        right.addLayout(line)
        right.addStretch(1)
        row.addLayout(right, 1)
        return holder

    # what is shown -----------------------------------------------------------------------

    def columns(self) -> list[Compared]:
        """The variants as they stand."""
        session = self.session
        letters = [v.letter for v in session.project.variants]
        assessed: dict[str, Assessment] = {k: session.assessed(k) for k in letters}
        doubts: dict[str, Doubt] = {}
        for letter in letters:
            doubt = session.doubt_known(session.design_at(letter))
            if doubt is not None:
                doubts[letter] = doubt
        return compared(session.project, assessed, doubts)

    def refresh(self) -> None:
        """Draw everything; what takes longer comes from the worker."""
        session, columns = self.session, self.columns()
        plot = overlaid(columns, self.view, full=self.full, frequency=session.frequency)
        self.chart.show_plot(plot)
        span = FULL if self.full else BASS
        self.ribbons.show_rows([(c.letter, c.here, ribbon(c)) for c in columns], span)
        self.ribbons.setVisible(self.view == "ceiling")
        named = [name for _, name in legend(columns, full=self.full)][:KINDS_ASKED]
        self._legend.setText(f"gives first: {', '.join(named)}" if named else "")
        self._show_columns(columns)
        self._ask(columns)
        self._show_cloud()

    def _show_columns(self, columns: list[Compared]) -> None:
        self._verdict.setText(" ".join(verdict_of(columns)))
        self.table.show_columns(columns)

    def _ask(self, columns: list[Compared]) -> None:
        """Rows of differences, and doubts that are not known yet."""
        session = self.session
        designs = {c.letter: session.design_at(c.letter) for c in columns}
        here = session.project.in_force
        now = {"": designs[here], **designs}
        if not _same(now, self._of):
            self._of = now
            self._rows = ()
            self.table.show_differences(differing.differences(designs, here))
            self._differing.start(differing.ranked, designs, here)
        wanted = {
            letter: design
            for letter, design in designs.items()
            if session.doubt_known(design) is None and letter != here
        }
        if wanted and not _same(wanted, self._asked):
            self._asked = wanted
            self._doubts.start(doubt_work.doubts_of, wanted)

    def _take_rows(self, rows: Any) -> None:
        self._rows = tuple(rows)
        self.table.show_differences(self._rows)

    def _take_doubt(self, found: tuple[str, Doubt]) -> None:
        letter, doubt = found
        self.session.remember_doubt(self._asked[letter], doubt)
        if self.isVisible():
            self._show_columns(self.columns())

    def _show_cloud(self) -> None:
        session = self.session
        variants = [
            point_of(
                session.assessed(v.letter), v.letter, here=v.letter == session.project.in_force
            )
            for v in session.project.variants
        ]
        points = [*session.trail, *variants]
        brief = session.design.brief
        x, y = (axis(self.axes[n].currentData(), points, brief) for n in ("across", "up"))
        self.cloud.show_points(points, x, y)

    @property
    def busy(self) -> bool:
        """Whether anything is still being worked out."""
        return self._differing.running or self._doubts.running

    def leave(self) -> None:
        self._differing.stop()
        self._doubts.stop()

    # what is done ---------------------------------------------------------------------------

    def _choose_view(self, view: object) -> None:
        self.view = str(view)
        self.refresh()

    def _choose_span(self, full: object) -> None:
        self.full = bool(full)
        self.refresh()

    def _switch(self, letter: str) -> None:
        self.session.switch(letter)  # type: ignore[arg-type]

    def _bring(self, path: Path, letter: str) -> None:
        session = self.session
        here = session.project.in_force
        session.attempt(
            lambda: session.apply_project(*bring_over(session.project, path, letter, here))  # type: ignore[arg-type]
        )

    # what leaves ---------------------------------------------------------------------------

    def save(self) -> None:
        """Ask for a file, and write the comparison to it."""
        name = f"{self.session.design.name} compared.pdf"
        window: Any = self.window()
        path = window.messages.save_as("Save the comparison", name, kinds())
        if path is not None:
            self.session.attempt(partial(export, path, self.comparison(), self.comparison_table()))

    def comparison(self) -> Picture:
        """Curves above, columns below, as they are on show."""
        chart, below = self.chart.picture(), [self.ribbons.grab(), self.table.grab()]
        width = max(chart.size.width(), *(shot.width() for shot in below))
        height = chart.size.height() + sum(shot.height() for shot in below)

        def _paint(painter: QPainter, area: QRectF) -> None:
            chart.paint(painter, QRectF(area.topLeft(), chart.size))
            top = area.top() + chart.size.height()
            for shot in below:
                painter.drawPixmap(QPointF(area.left(), top), shot)
                top += shot.height()

        return Picture(f"{self.session.design.name}, compared", QSizeF(width, height), _paint)

    def comparison_table(self) -> Table:
        """The columns as rows of text."""
        columns = self.columns()
        return Table((*HEADS, *(c.title for c in columns)), comparison_rows(columns, self._rows))


def _same(a: Mapping[str, Design], b: Mapping[str, Design]) -> bool:
    """Whether both hold the same design objects under the same letters, in the same order."""
    return list(a) == list(b) and all(a[key] is b[key] for key in a)
