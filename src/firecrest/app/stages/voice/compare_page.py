"""Compare: two presets, or with and without EQ, matched in level as the ear weighs them."""

from PySide6.QtWidgets import QHBoxLayout, QPushButton

from firecrest.app.session import Session
from firecrest.app.stages.voice.pages import Page
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import CalmCombo
from firecrest.app.widgets.plain import label, paragraph, tip
from firecrest.present.voice import compare


class ComparePage(Page):
    """Both sums on one plot, the louder one turned down."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        top = QHBoxLayout()
        top.addWidget(label("Compare", "second"))
        self.first, self.second = CalmCombo(), CalmCombo()
        for combo, name in ((self.first, "First"), (self.second, "Second")):
            combo.setAccessibleName(f"{name} setting")
            combo.activated.connect(lambda _: self.refresh())
        top.addWidget(self.first)
        top.addWidget(label("with", "second"))
        top.addWidget(self.second)
        top.addStretch(1)
        self.swap = QPushButton("Swap")
        tip(self.swap, "The other way round")
        self.swap.clicked.connect(self._swap)
        top.addWidget(self.swap)
        self.box.addLayout(top)
        self.chart = Chart(session, height=110)
        self.box.addWidget(self.chart, 1)
        self.said = paragraph("", "second")
        self.box.addWidget(self.said)

    def _swap(self) -> None:
        a, b = self.first.currentIndex(), self.second.currentIndex()
        self.first.setCurrentIndex(b)
        self.second.setCurrentIndex(a)
        self.refresh()

    def refresh(self) -> None:
        a = self.session.assessment
        names = compare.settings_of(a.design)
        for combo, start in ((self.first, 0), (self.second, 1)):
            if [combo.itemText(k) for k in range(combo.count())] != names:
                place = combo.currentIndex() if combo.count() else start
                combo.clear()
                combo.addItems(names)
                combo.setCurrentIndex(min(max(place, 0), len(names) - 1))
        if a.acoustic is None:
            self.said.setText("Nothing can be compared yet: figures are missing.")
            return
        found = compare.compared(a, a.acoustic, self.first.currentText(), self.second.currentText())
        self.chart.show_plot(compare.compare_plot(found))
        self.said.setText(compare.sentence(found))
