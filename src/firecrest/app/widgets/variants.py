"""The variants in the menu line: a button each, one for a copy, the name of the one here."""

from collections.abc import Callable

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QHBoxLayout, QMenu, QToolButton, QWidget

from firecrest.app.session import Session
from firecrest.app.theme.size import fix
from firecrest.app.widgets.plain import label, tip
from firecrest.design.project import Letter

SHOWN_NAME = 24


class VariantRow(QWidget):
    """Buttons A, B, C…; a press switches, the menu key or a right click tells what else."""

    def __init__(
        self, session: Session, copy: Callable[[], None], fill: Callable[[QMenu, Letter], None]
    ) -> None:
        super().__init__()
        self._session, self._fill = session, fill
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(4)
        self.word = label("variant", "second")
        self._row.addWidget(self.word)
        self.buttons: dict[str, QToolButton] = {}
        self.copy = QToolButton()
        self.copy.setText("+")
        fix(self.copy, width=24, height=24)
        self.copy.setAccessibleName("Copy this variant")
        tip(self.copy, "Copy this variant and work on the copy (Ctrl+D)")
        self.copy.clicked.connect(copy)
        self._row.addWidget(self.copy)
        self.name = label("", "second")
        self._row.addWidget(self.name)
        session.changed.connect(self.refresh)
        session.file_changed.connect(self.refresh)
        session.beside_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """One button a variant, the one in force pressed."""
        project = self._session.project
        letters = [v.letter for v in project.variants]
        if list(self.buttons) != letters:
            self._build(letters)
        for variant in project.variants:
            button = self.buttons[variant.letter]
            here = variant.letter == project.in_force
            button.setChecked(here)
            beside = variant.letter == self._session.beside
            if button.property("beside") != beside:
                button.setProperty("beside", beside)
                button.style().polish(button)
            named = f"Variant {variant.letter}" + (f", {variant.name}" if variant.name else "")
            state = ", in force" if here else ""
            behind = ", shown behind" if variant.letter == self._session.beside else ""
            button.setAccessibleName(named + state + behind)
            tip(button, f"{named}\n{variant.standing}{state}{behind}\nCtrl+Tab: the next one")
        name = next(v.name for v in project.variants if v.letter == project.in_force)
        short = name if len(name) <= SHOWN_NAME else name[: SHOWN_NAME - 1] + "…"
        self.name.setText(f"“{short}”" if name else "")

    def _build(self, letters: list[Letter]) -> None:
        for button in self.buttons.values():
            button.deleteLater()
        self.buttons = {}
        for place, letter in enumerate(letters, start=1):
            button = QToolButton()
            button.setText(letter)
            button.setCheckable(True)
            button.setProperty("role", "variant")
            fix(button, width=26, height=24)
            button.clicked.connect(lambda _=False, one=letter: self._switch(one))
            button.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
            button.customContextMenuRequested.connect(
                lambda where, one=letter: self._menu(one, where)
            )
            self._row.insertWidget(place, button)
            self.buttons[letter] = button

    def _switch(self, letter: Letter) -> None:
        self._session.switch(letter)
        self.refresh()

    def _menu(self, letter: Letter, where: QPoint) -> None:
        menu = QMenu(self)
        self._fill(menu, letter)
        menu.exec(self.buttons[letter].mapToGlobal(where))
        menu.deleteLater()
