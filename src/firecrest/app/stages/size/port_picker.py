"""Choosing a port on the picture of area against length: walk over what there is, take one."""

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QObject

from firecrest.app.rest import Rest
from firecrest.app.session import Session
from firecrest.app.widgets.chart import Chart
from firecrest.design.box import Port, placed
from firecrest.design.design import Design
from firecrest.present.plot.plot import Plot, waiting
from firecrest.present.size.portview import SPREAD, choice_text, port_plot
from firecrest.proposals.ports import PortChoice, candidates, choice_of


class PortPicker(QObject):
    """Works the choices out while the view is shown, tries and takes them."""

    def __init__(self, session: Session, chart: Chart, redraw: Callable[[], None]) -> None:
        super().__init__(chart)
        self.session, self._chart, self._redraw = session, chart, redraw
        self.place: int | None = None
        self.choices: list[PortChoice] = []
        self.at: PortChoice | None = None
        self._rest = Rest(self)
        chart.picked.connect(self.try_choice)
        chart.taken.connect(self.take)
        session.changed.connect(self._renew)

    @property
    def busy(self) -> bool:
        """Whether choices are still being worked out."""
        return self._rest.running

    def show_port(self, place: int | None) -> None:
        """Choose for the port at ``place``; None when the view is left."""
        self.place = place
        self._renew()

    def _renew(self) -> None:
        self.choices, self.at = [], None
        self._rest.stop()
        design = self.session.design
        if self.place is None or not self._has_port(design):
            return
        ports = candidates(design, self.place, SPREAD)
        self._rest.start([partial(choice_of, design, self.place, p) for p in ports], self._take_in)

    def _has_port(self, design: Design) -> bool:
        return any(k == self.place for k, _ in placed(design.box.openings, Port))

    def _take_in(self, found: object) -> None:
        if isinstance(found, PortChoice):
            self.choices = sorted([*self.choices, found], key=lambda c: c.area)
            self._redraw()

    def plot(self) -> Plot:
        """The picture, with what is tried as its title."""
        assessment = self.session.assessment
        if self.place is None or not self._has_port(assessment.design):
            plot = waiting("Ports for this tuning", assessment, (20.0, 1000.0))
            return Plot(**{**vars(plot), "message": "this box has no port"})
        plot = port_plot(assessment, self.place, self.choices)
        if self.at is None:
            return plot
        return Plot(**{**vars(plot), "notes": (choice_text(self.at),)})

    def try_choice(self, mark: int) -> None:
        """Ghosts of the choice whose mark was picked; the last mark is the port in force."""
        if self.place is None:
            return
        shown = [m for m in self.plot().marks if not m.chosen]
        self.at = None
        if mark < len(shown):
            picked = shown[mark]
            self.at = next(
                c
                for c in self.choices
                if abs(1e3 * c.length - picked.y) < 1e-6 and abs(1e4 * c.area - picked.x) < 1e-6
            )
            self.session.try_design(self.at.design)
        else:
            self.session.drop_trial()

    def take(self) -> None:
        """Keep the choice that is tried: one undo step."""
        if self.at is not None:
            text = choice_text(self.at).split(",")[0]
            self.session.apply(f"Port {text}", self.at.design)
