"""Measuring a chamber by what fills it: water or rice, and what that weighs."""

from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import buttons
from firecrest.app.stages.size.rows import do
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import CalmCombo, labelled
from firecrest.app.widgets.plain import caution, tip
from firecrest.core.errors import FirecrestError
from firecrest.core.reading import read_quantity
from firecrest.design.edits.cabinet import FILLINGS, measured_by_filling, not_measured

BEFORE = "Fill before any board, pack or driver is in; weigh what went in, not the case."


class Filling(QWidget):
    """What fills which chamber, its weight, and a button that takes the volume."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(3)
        chambers = session.design.box.chambers
        self.chamber, self.filling, self.weight = CalmCombo(), CalmCombo(), QLineEdit()
        self.chamber.addItems([c.name for c in chambers])
        self.filling.addItems(list(FILLINGS))
        self.chamber.setAccessibleName("Chamber filled")
        self.filling.setAccessibleName("Filled with")
        self.weight.setAccessibleName("What filled it weighs")
        self.weight.setPlaceholderText("7.2 kg")
        tip(self.weight, "With its unit: 7.2 kg or 254 oz. Return takes it.")
        self.weight.returnPressed.connect(self._take)
        if len(chambers) > 1:
            box.addWidget(labelled("Chamber", self.chamber))
        box.addWidget(labelled("Filled with", self.filling))
        row = QHBoxLayout()
        take = QPushButton("Take its volume")
        take.clicked.connect(self._take)
        fix(self.weight, width=84)
        row.addWidget(self.weight)
        row.addWidget(take, 1)
        box.addLayout(row)
        for place, chamber in enumerate(chambers):
            if chamber.stated_volume is not None:
                name = "By the drawing again" if len(chambers) == 1 else f"{chamber.name}: drawing"
                back = partial(do, session, partial(not_measured, place=place))
                box.addWidget(buttons((name, back)))
        box.addWidget(caution(BEFORE))

    def _take(self) -> None:
        try:
            mass = read_quantity(self.weight.text(), "mass", "kg")
        except FirecrestError as error:
            self.session.refused.emit(str(error))
            return
        place, filling = max(self.chamber.currentIndex(), 0), self.filling.currentText()
        do(self.session, lambda design: measured_by_filling(design, place, filling, mass))
