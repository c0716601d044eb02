"""The card of a number (F4): where it comes from, what it moves, what it was before."""

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QFrame, QLabel, QVBoxLayout, QWidget

from firecrest.app.editing import Editing
from firecrest.app.rest import Rest
from firecrest.app.theme.size import fix
from firecrest.app.widgets.plain import label
from firecrest.present.frame import sensitivity
from firecrest.present.frame.bindings import Binding
from firecrest.present.frame.sensitivity import Moves


class NumberCard(QFrame):
    """Stands under its field until something else is pressed, or Esc."""

    def __init__(self, field: QWidget, session: Editing, binding: Binding, unit: str) -> None:
        super().__init__(field, Qt.WindowType.Popup)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setProperty("role", "card")
        fix(self, width=340)
        box = QVBoxLayout(self)
        box.setContentsMargins(12, 8, 12, 10)
        box.setSpacing(3)
        head, _, rest = binding.about(session.assessment).partition("\n")
        box.addWidget(label(head, "section"))
        self._texts: list[QLabel] = []
        design, assessment = session.design, session.assessment
        self._box = box
        for text in (
            *rest.split("\n"),
            sensitivity.used_by(design, binding),
            sensitivity.history(session.past_designs(), assessment, binding, unit),
        ):
            self._line(text, "second")
        self._line("What it moves", "section")
        self._rest = Rest(self)
        self._rest.start(sensitivity.jobs(assessment, binding, unit), self._take)
        self.setAccessibleName(f"About {head}")
        self._speak()
        self.adjustSize()
        self.move(field.mapToGlobal(QPoint(0, field.height() + 2)))

    def _line(self, text: str, role: str) -> None:
        if text:
            line = label(text, role)
            line.setWordWrap(True)
            self._box.addWidget(line)
            self._texts.append(line)

    def _take(self, found: object) -> None:
        assert isinstance(found, Moves)
        self._line(found.said, "")
        self._speak()
        self.adjustSize()

    def _speak(self) -> None:
        self.setAccessibleDescription(" ".join(line.text() for line in self._texts))

    @property
    def busy(self) -> bool:
        """Whether what it moves is still being worked out."""
        return self._rest.running

    def lines(self) -> list[str]:
        """The words on show."""
        return [line.text() for line in self._texts]
