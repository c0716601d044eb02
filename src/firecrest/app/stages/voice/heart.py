"""The views of the heart of Voice: the sum over its ceiling, and everything else of the sum."""

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from firecrest.app.rest import Coalesced
from firecrest.app.session import Session
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import CalmCombo
from firecrest.app.widgets.plain import label, paragraph, tip
from firecrest.assessment.assess import Assessment
from firecrest.assessment.voicing.crossing import crossing
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.core.reading import read_quantity
from firecrest.design.edits.ways import crossed_at
from firecrest.present.plot import ceiling
from firecrest.present.plot.plot import FULL, Plot, waiting
from firecrest.present.voice import advice, crossplots, plots

Draw = Callable[[Assessment, float | None], Plot]


class SumPage(QWidget):
    """The summed response with handles, over the ceiling after the voice."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._later = Coalesced(self, self._draw_ceiling)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(_line("Summed response", "on axis; drag a handle, or type in its card"))
        self.response = Chart(session, height=110)
        box.addWidget(self.response, 6)
        box.addLayout(
            _line("Ceiling after voice", "how loud the voice goes before a note gives out")
        )
        self.ceiling = Chart(session, height=96)
        box.addWidget(self.ceiling, 5)

    def refresh(self) -> None:
        """Draw the sum, with a ghost, and a little later the ceiling."""
        a, t, at = self.session.assessment, self.session.ghost, self.session.frequency
        self.response.show_plot(plots.sum_plot(a, at), plots.sum_plot(t) if t else None)
        self._later.start()

    def _draw_ceiling(self) -> None:
        a, t = self.session.assessment, self.session.ghost
        self.ceiling.show_plot(
            ceiling.voice_ceiling_plot(a), ceiling.voice_ceiling_plot(t) if t else None
        )


class PlotPage(QWidget):
    """One plot with what it assumes below it."""

    def __init__(self, session: Session, title: str, hint: str, draw: Draw) -> None:
        super().__init__()
        self.session, self._draw = session, draw
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(_line(title, hint))
        self.chart = Chart(session, height=150)
        box.addWidget(self.chart, 1)
        self._notes = paragraph("", "hint")
        box.addWidget(self._notes)

    def refresh(self) -> None:
        """Draw it, with a ghost."""
        a, t = self.session.assessment, self.session.ghost
        plot = self._draw(a, self.session.frequency)
        self._notes.setText(" ".join(plot.notes))
        self.chart.show_plot(plot, self._draw(t, None) if t else None)


class CrossingPage(QWidget):
    """Where two ways may meet: both schools on one plot, and the range in words."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        line = _line("Where to cross", "both ways without filters, and what bounds each")
        self.pair = CalmCombo()
        self.pair.setAccessibleName("Crossover")
        self.pair.setSizeAdjustPolicy(CalmCombo.SizeAdjustPolicy.AdjustToContents)
        self.pair.activated.connect(lambda _: self.refresh())
        line.addWidget(self.pair)
        self.at = QLineEdit()
        self.at.setAccessibleName("Cross at")
        fix(self.at, width=90)
        self.at.returnPressed.connect(self.cross)
        tip(self.at, "Sets the corners of both ways; family and slope stay")
        self.set_button = QPushButton("Cross here")
        self.set_button.clicked.connect(self.cross)
        line.addWidget(self.at)
        line.addWidget(self.set_button)
        box.addLayout(line)
        self.chart = Chart(session, height=150)
        box.addWidget(self.chart, 1)
        self.said = paragraph("", "second")
        box.addWidget(self.said)

    def refresh(self) -> None:
        """Draw the crossover chosen."""
        a = self.session.assessment
        met = crossovers(a.design.voice)
        names = advice.names_of(a.design)
        texts = [f"{names[c.lower]} to {names[c.higher]}, {plots.hz(c.frequency)}" for c in met]
        if [self.pair.itemText(k) for k in range(self.pair.count())] != texts:
            place = max(self.pair.currentIndex(), 0)
            self.pair.clear()
            self.pair.addItems(texts)
            self.pair.setCurrentIndex(min(place, len(texts) - 1))
        self.pair.setVisible(len(met) > 1)
        self.at.setVisible(bool(met))
        self.set_button.setVisible(bool(met))
        if not met or a.acoustic is None:
            empty = "no two ways meet: give one a low-pass and another a high-pass"
            missing = waiting("Where to cross", a, FULL)
            plot = (
                missing
                if met
                else Plot("Where to cross", "frequency", FULL, (-36, 6), 6, "dB", message=empty)
            )
            self.chart.show_plot(plot)
            self.said.setText("")
            return
        found = crossing(a, a.acoustic, met[max(self.pair.currentIndex(), 0)])
        if not self.at.hasFocus():
            self.at.setText(f"{found.crossover.frequency:.0f} Hz")
        self.chart.show_plot(crossplots.crossing_plot(a, found))
        facts = advice.crossing_facts(a.design, found)
        rows = "; ".join(f"{fact.name}: {fact.value}" for fact in facts)
        self.said.setText(f"{advice.range_sentence(a.design, found)} {rows}.")

    def cross(self) -> None:
        """Both corners to what is typed."""
        s = self.session

        def _edit() -> None:
            met = crossovers(s.design.voice)
            if not met:
                return
            c = met[max(self.pair.currentIndex(), 0)]
            frequency = read_quantity(self.at.text(), "frequency", "Hz")
            places = (c.lower, c.low_pass), (c.higher, c.high_pass)
            s.apply(*crossed_at(s.design, *places, frequency))

        s.attempt(_edit)


def _line(title: str, hint: str) -> QHBoxLayout:
    line = QHBoxLayout()
    line.setSpacing(10)
    line.addWidget(label(title, "section"))
    line.addWidget(label(hint, "second"))
    line.addStretch(1)
    return line


def impulse(assessment: Assessment, frequency: float | None) -> Plot:
    """Impulse and step; time has no crosshair of a frequency."""
    del frequency
    return plots.impulse_plot(assessment)


def pages(session: Session) -> dict[str, QWidget]:
    """Every view but the sum, by its key."""
    page = partial(PlotPage, session)
    return {
        "fan": page("Off the axis", "the sum at every angle that is known", plots.fan_plot),
        "power": page(
            "Power average", "on axis, in the cone of the fan, and the index", plots.power_plot
        ),
        "phase": page("Phase of the sum", "without its own delay", plots.phase_plot),
        "impulse": page("Impulse and step", "of the sum", impulse),
        "delay": page("Group delay of the sum", "with all delays", plots.delay_plot),
        "cross": CrossingPage(session),
    }
