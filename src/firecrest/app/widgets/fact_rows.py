"""Rows of what follows: a name, a figure, and a mark where it is judged."""

from collections.abc import Sequence

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from firecrest.app.widgets.choices import set_role
from firecrest.app.widgets.plain import label, tip
from firecrest.present.size.facts import Fact

SIGNS = {"met": "✓ ", "short": "▼ ", "close": "◆ "}
ROLES = {"met": "good", "short": "bad", "close": "close"}


class FactRow(QWidget):
    """One fact; texts are set in place, so that rows do not jump while one drags."""

    def __init__(self) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 1, 0, 1)
        row.setSpacing(8)
        self._name, self._value = label(), label("", "value")
        self._name.setWordWrap(True)
        self._value.setWordWrap(True)
        row.addWidget(self._name, 1)
        row.addWidget(self._value, 1)
        self._shown: Fact | None = None

    def show_fact(self, fact: Fact) -> None:
        """Show a fact; its mark also stands as a sign before the figure."""
        if fact == self._shown:
            return
        self._shown = fact
        self._name.setText(fact.name)
        sign = SIGNS.get(fact.mark, "")
        self._value.setText(sign + fact.value)
        set_role(self._value, ROLES.get(fact.mark, "value"))
        tip(self, fact.help)
        state = {"met": "kept", "short": "short", "close": "look here"}.get(fact.mark, "")
        self.setAccessibleName(f"{fact.name}: {fact.value} {state}".strip())
        self.setAccessibleDescription(fact.help)


class FactRows(QWidget):
    """A column of facts that grows and shrinks."""

    def __init__(self) -> None:
        super().__init__()
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(0)
        self._column.addStretch(1)
        self._rows: list[FactRow] = []

    def show_facts(self, found: Sequence[Fact]) -> None:
        """Show these facts and no others."""
        while len(self._rows) < len(found):
            row = FactRow()
            self._rows.append(row)
            self._column.insertWidget(len(self._rows) - 1, row)
        for row, fact in zip(self._rows, found, strict=False):
            row.show_fact(fact)
        for k, row in enumerate(self._rows):
            row.setVisible(k < len(found))

    def texts(self) -> list[str]:
        """The facts on show, as they are spoken."""
        return [row.accessibleName() for row in self._rows if not row.isHidden()]
