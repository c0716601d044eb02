"""Power: the printed watts meet the real pack."""

from typing import Any

from PySide6.QtWidgets import QVBoxLayout, QWidget

from firecrest.app.rest import Rest
from firecrest.app.stages.base import Stage, columns
from firecrest.app.stages.power.board_fields import board_column
from firecrest.app.stages.power.energy_column import EnergyColumn
from firecrest.app.stages.power.heart import BoardsPage, HoursPage, LevelsPage
from firecrest.app.stages.power.source_column import SourceColumn
from firecrest.app.stages.power.supplies_page import SuppliesPage
from firecrest.app.stages.power.wiring_column import WiringColumn
from firecrest.app.stages.power.wiring_page import WiringPage
from firecrest.app.stages.views import POWER
from firecrest.app.widgets.choices import Segments
from firecrest.app.widgets.pages import Pages
from firecrest.design.amplifiers import Amplifier
from firecrest.present.power import hours
from firecrest.present.power.currents import row_count
from firecrest.present.text import words


class PowerStage(Stage):
    """What each board gives, for how long, and what stands in the way."""

    key, title, subtitle = "power", "Power", "what the amp really gets, and for how long"

    def build_heart(self) -> None:
        self._rest, self._built_anew, self._runs_empty = Rest(self), True, True
        self.views = Segments(POWER, "View")
        self.views.chosen.connect(self.show_view)
        self.bar.addWidget(self.views)
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 2, 0, 0)
        self.pages = Pages()
        box.addWidget(self.pages)
        s = self.session
        self.hours, self.boards, self.levels = HoursPage(s), BoardsPage(s), LevelsPage(s)
        self.supplies, self.wiring = SuppliesPage(s), WiringPage(s)
        for page in (self.hours, self.boards, self.levels, self.supplies, self.wiring):
            self.pages.addWidget(page)
        self.hours.uses.chosen.connect(self._play)
        self.views.choose("hours")
        self.splitter.setSizes([330, 250])

    def show_view(self, view: object) -> None:
        """Show a view of the heart."""
        self._choose(view)
        self._page().refresh()

    def _choose(self, view: object) -> None:
        self.views.choose(view)
        self.pages.setCurrentIndex([key for key, _ in POWER].index(str(view)))

    def _page(self) -> Any:
        return self.pages.currentWidget()

    def _play(self, use: object) -> None:
        self.hours.use = str(use)
        self.refresh()

    def structure(self) -> Any:
        p = self.session.design.power
        source = p.source
        pack = source if source.kind == "pack" else None
        return (
            source.kind,
            words.source_name(self.session.design),
            (pack and pack.board is not None, pack and pack.charger is not None),
            (source.behaviour, tuple(s.voltage for s in source.steps))
            if source.kind == "wall"
            else "",
            tuple((_shape(board.part), board.rail) for _, board in p.amplifiers),
            row_count(self.session.assessment),
            tuple((load.name, load.rail) for load in p.other_loads),
            tuple(c.name for c in p.converters),
            tuple(b.part.name for b in p.boards if b.kind == "receiver"),
            len(self.session.design.voice.channels),
            (p.fuse is None, p.switch is None),
        )

    def build_lower(self) -> QWidget:
        self._built_anew = True
        self._rest.stop()  # what waits was for the columns that go
        s = self.session
        runs_empty = hours.runs_empty(s.design)
        if runs_empty != self._runs_empty:
            self._runs_empty = runs_empty
            self._choose("hours" if runs_empty else "boards")
        self.source, self.energy, self.wires = SourceColumn(s), EnergyColumn(s), WiringColumn(s)
        holder = QWidget()
        rows = QVBoxLayout(holder)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(12)
        rows.addWidget(columns(self.source.build(), self.energy.build(), self.wires.build()))
        rows.addWidget(board_column(s))
        return holder

    @property
    def busy(self) -> bool:
        """Whether something on show still waits for the hand to rest."""
        return self._rest.running or self.supplies.busy

    def refresh(self) -> None:
        """Draw the view on show and the columns: what is new at once, else most of it at rest."""
        jobs = [
            self._page().refresh,
            lambda: self.source.refresh(self.hours.use),
            lambda: self.energy.refresh(self.hours.use),
            self.wires.refresh,
        ]
        if self._built_anew:
            self._built_anew = False
            for job in jobs:
                job()
            return
        if self._page() is self.hours:
            self.hours.follow()
        self._rest.start(jobs, lambda _: None)


def _shape(part: Amplifier) -> tuple[str, int, tuple[int, ...]]:
    """What decides which fields a board has."""
    return part.name, len(part.claims), tuple(len(kind.claims) for kind in part.other_outputs)
