"""The column beside the lanes: the card of what is chosen, and how the ways follow each other."""

from PySide6.QtWidgets import QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import label
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.present.voice import advice, crossplots


class SideColumn(QWidget):
    """Card above, phase and sum of each crossover below."""

    def __init__(self, session: Session, card: QWidget) -> None:
        super().__init__()
        self.session = session
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(6)
        box.addWidget(card)
        self.below = QWidget()
        inner = QVBoxLayout(self.below)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.setSpacing(2)
        self.caption = label("", "section")
        inner.addWidget(self.caption)
        self.chart = Chart(session, height=104)
        inner.addWidget(self.chart)
        self.facts = FactRows()
        inner.addWidget(self.facts)
        self.below.setVisible(False)  # until there is something to tell
        box.addWidget(self.below)
        box.addStretch(1)

    def refresh(self) -> None:
        """Draw the lowest crossover and tell of all."""
        a = self.session.assessment
        met = crossovers(a.design.voice)
        self.below.setVisible(bool(met) and a.acoustic is not None)
        if not met or a.acoustic is None:
            return
        plot = crossplots.pair_phase_plot(a, met[-1])
        self.caption.setText(plot.name)
        self.chart.show_plot(plot)
        self.facts.show_facts(advice.pair_facts(a, a.acoustic))
