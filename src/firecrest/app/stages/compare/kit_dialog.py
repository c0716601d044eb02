"""A kit: drivers, bodies and ends; every combination worked out; ticked ones become variants."""

from collections.abc import Sequence
from math import inf, log
from typing import Any

from PySide6.QtWidgets import (
    QCheckBox,
    QDialog,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.session import Session
from firecrest.app.theme.size import sized
from firecrest.app.widgets.marks import Mark
from firecrest.app.widgets.plain import label, tip
from firecrest.app.work import Task, workshop
from firecrest.core.errors import FirecrestError
from firecrest.core.reading import read_quantity
from firecrest.design.edits.variants import add_variant
from firecrest.design.project import MOST_VARIANTS
from firecrest.present.compare.kits import body_name, cell_of, counted, end_name, variant_name
from firecrest.proposals import kits
from firecrest.proposals.kits import Combination, End, ends_of

BODIES = (0.8, 1.0, 1.3)
"""Lengths to begin with, as shares of the present one."""
OFFERED = 12
"""Drivers of the shelf that are offered beside the present one: the likest in size."""


class KitDialog(QDialog):
    """A small matrix; nothing is changed until variants are added, in one step."""

    def __init__(
        self, session: Session, drivers: Sequence[Any], radiators: Sequence[Any], parent: QWidget
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle("A kit of variants")
        self.session = session
        own = session.design.box.groups[0].driver
        others = sorted((d for d in drivers if d.name != own.name), key=lambda d: _apart(d, own))
        others = others[:OFFERED]
        self._drivers = [own, *others]
        self._ends = ends_of(session.design, radiators)
        self._found: list[Combination] = []
        self._asked: tuple[list[Any], list[float], list[End]] = ([], [], [])
        self.ticks: dict[tuple[int, int, int], QCheckBox] = {}
        self._task = Task(self, workshop)
        self._task.some.connect(self._take)
        self._task.finished.connect(self._done)
        self._build()
        self.resize(sized(860), sized(560))

    def _build(self) -> None:
        whole = QHBoxLayout(self)
        left = QVBoxLayout()
        left.addWidget(label("Drivers", "section"))
        self.drivers = [self._choice(left, d.name, k < 3) for k, d in enumerate(self._drivers)]
        left.addWidget(label("Bodies, length outside", "section"))
        length = self.session.design.box.case.length
        self.bodies: list[QLineEdit] = []
        for share in BODIES:
            edit = QLineEdit(body_name(share * length))
            edit.setAccessibleName("Length of a body; empty leaves it out")
            self.bodies.append(edit)
            left.addWidget(edit)
        left.addWidget(label("Ends", "section"))
        self.ends = [self._choice(left, end_name(e), True) for e in self._ends]
        self.work = QPushButton("Work it out")
        self.work.clicked.connect(lambda _=False: self.work_out())
        left.addWidget(self.work)
        self.said = label("", "second")
        self.said.setWordWrap(True)
        left.addWidget(self.said)
        left.addStretch(1)
        whole.addLayout(left, 1)
        right = QVBoxLayout()
        note = label("Loudness and bass reach of each, tuned to the promised bass note.", "hint")
        right.addWidget(note)
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        right.addWidget(self._scroll, 1)
        self.add = QPushButton()
        self.add.setProperty("role", "main")
        self.add.clicked.connect(lambda _=False: self.add_ticked())
        close = QPushButton("Close")
        close.clicked.connect(self.reject)
        line = QHBoxLayout()
        line.addStretch(1)
        line.addWidget(close)
        line.addWidget(self.add)
        right.addLayout(line)
        whole.addLayout(right, 3)
        self._count()

    def _choice(self, box: QVBoxLayout, name: str, on: bool) -> QCheckBox:
        tick = QCheckBox(name.replace("&", "&&"))
        tick.setChecked(on)
        box.addWidget(tick)
        return tick

    # working out -----------------------------------------------------------------------

    @property
    def busy(self) -> bool:
        """Whether combinations are still being worked out."""
        return self._task.running

    def work_out(self) -> None:
        """Every chosen driver in every body with every end."""
        try:
            texts = [edit.text() for edit in self.bodies if edit.text().strip()]
            lengths = [read_quantity(text, "length", "mm") for text in texts]
        except FirecrestError as error:
            self.said.setText(str(error))
            return
        drivers = _ticked(self._drivers, self.drivers)
        ends = _ticked(self._ends, self.ends)
        if not (drivers and lengths and ends):
            self.said.setText("Choose at least one driver, one body and one end.")
            return
        self._found, self._asked = [], (drivers, lengths, ends)
        self.said.setText("being worked out…")
        self._task.start(kits.kit, self.session.design, drivers, lengths, ends)

    def _take(self, found: list[Combination]) -> None:
        self._found += found
        self._show()

    def _done(self) -> None:
        self.said.setText(f"{len(self._found)} combinations")
        self._show()

    def _show(self) -> None:
        drivers, lengths, ends = self._asked
        page = QWidget()
        grid = QGridLayout(page)
        grid.setHorizontalSpacing(14)
        self.ticks = {}
        for e, end in enumerate(ends):
            grid.addWidget(label(end_name(end), "section"), 0, 2 + e)
        for one in self._found:
            row = 1 + one.driver * len(lengths) + one.body
            if one.end == 0:
                name = drivers[one.driver].name if one.body == 0 else ""
                grid.addWidget(label(name, "section"), row, 0)
                grid.addWidget(label(body_name(lengths[one.body])), row, 1)
            grid.addWidget(self._cell(one), row, 2 + one.end)
        grid.setRowStretch(grid.rowCount(), 1)
        grid.setColumnStretch(grid.columnCount(), 1)
        self._scroll.setWidget(page)
        self._count()

    def _cell(self, one: Combination) -> QWidget:
        cell = cell_of(one, self.session.design.brief)
        holder = QWidget()
        line = QHBoxLayout(holder)
        line.setContentsMargins(0, 0, 0, 0)
        line.addWidget(Mark(cell.mark, 10))
        tick = QCheckBox(cell.text)
        tick.setEnabled(one.design is not None)
        tick.setAccessibleName(f"{self._name(one)}: {cell.tip}")
        tip(tick, cell.tip)
        tick.toggled.connect(lambda _: self._count())
        line.addWidget(tick)
        self.ticks[one.driver, one.body, one.end] = tick
        return holder

    def _name(self, one: Combination) -> str:
        drivers, lengths, ends = self._asked
        return variant_name(drivers[one.driver].name, lengths[one.body], ends[one.end])

    # taking -----------------------------------------------------------------------------

    def _chosen(self) -> list[Combination]:
        return [c for c in self._found if self.ticks[c.driver, c.body, c.end].isChecked()]

    def _count(self) -> None:
        free = MOST_VARIANTS - len(self.session.project.variants)
        chosen = len(self._chosen()) if self._found else 0
        self.add.setText(counted(chosen, free))
        self.add.setEnabled(0 < chosen <= free)

    def add_ticked(self) -> None:
        """Ticked combinations become variants, all in one step."""
        project, chosen = self.session.project, self._chosen()
        for one in chosen:
            assert one.design is not None
            _, project = add_variant(project, one.design, self._name(one))
        self.session.apply_project(f"Kit: {len(chosen)} variants", project)
        self.accept()

    def done(self, result: int) -> None:
        self._task.stop()
        super().done(result)


def _ticked(items: Sequence[Any], ticks: Sequence[QCheckBox]) -> list[Any]:
    """Those whose box is ticked."""
    return [item for item, tick in zip(items, ticks, strict=True) if tick.isChecked()]


def _apart(part: Any, own: Any) -> float:
    """How unlike two drivers are in cone area; far where one is not known."""
    return abs(log(part.sd / own.sd)) if part.sd and own.sd else inf
