"""What is tight and how a case stands, on a card in a corner of the drawing."""

from collections.abc import Sequence

from PySide6.QtWidgets import QFrame, QLabel, QVBoxLayout, QWidget

from firecrest.app.widgets.choices import set_role
from firecrest.app.widgets.fact_rows import ROLES, SIGNS
from firecrest.app.widgets.plain import label, tip
from firecrest.present.size.facts import Fact


class TightCard(QFrame):
    """What is tight and how it stands, on a card."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setProperty("role", "card")
        self._box = QVBoxLayout(self)
        self._box.setContentsMargins(10, 6, 10, 6)
        self._box.setSpacing(2)
        self._box.addWidget(label("Tight spots", "section"))
        self._rows: list[QLabel] = []

    def show_facts(self, facts: Sequence[Fact]) -> None:
        """One line for each fact, with its mark as a sign."""
        while len(self._rows) < len(facts):
            row = label("")
            row.setWordWrap(True)
            self._rows.append(row)
            self._box.addWidget(row)
        for k, row in enumerate(self._rows):
            row.setVisible(k < len(facts))
            if k < len(facts):
                fact = facts[k]
                sign = SIGNS.get(fact.mark, "")
                text = f"{sign}{fact.name} {fact.value}".strip()
                if row.text() != text:
                    row.setText(text)
                    set_role(row, ROLES.get(fact.mark, ""))
                    tip(row, fact.help)
