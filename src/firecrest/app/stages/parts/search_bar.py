"""The shelf's search row: words and ranges, kinds with counts, chips, and what columns to see."""

from collections.abc import Mapping
from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLineEdit,
    QMenu,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import Segments
from firecrest.app.widgets.plain import label, tip

SHORT = {"driver": "Drivers", "radiator": "Radiators", "amplifier": "Amps", "cell": "Cells",
         "supply": "Supplies", "dsp": "DSP"}  # fmt: skip
CHIPS = (
    ("fits", "fits in this case"),
    ("have", "pieces here"),
    ("favourite", "favourites"),
    ("whole", "whole data only"),
    ("loud", "keeps loudness"),
    ("archived", "put away"),
)
FILTERS = (
    ("Size class", ("2 in", "3 in", "4 in", "5.25 in", "6.5 in", "8 in", "10 in", "12 in")),
    ("Impedance", ("2 to 3 ohm", "4 ohm", "6 ohm", "8 ohm", "over 10 ohm")),
    ("Price", ("under €10", "under €25", "under €50", "under €100")),
    ("Weight", ("under 100 g", "under 500 g", "under 1 kg", "under 3 kg")),
)


class _SearchEdit(QLineEdit):
    """A line that Down and Enter leave towards what was found."""

    left_down = Signal()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.left_down.emit()
        else:
            super().keyPressEvent(event)


class SearchBar(QWidget):
    """Two rows of what narrows the shelf; it says that something changed, not what."""

    changed = Signal()
    kind_chosen = Signal(object)
    view_chosen = Signal(object)
    left_down = Signal()
    """Down or Enter in the search: on to what was found."""

    def __init__(self) -> None:
        super().__init__()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(4)
        box.addLayout(self._search_row())
        box.addLayout(self._chip_row())

    def _search_row(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.addWidget(label("Shelf", "section"))
        self.search = _SearchEdit()
        self.search.left_down.connect(self.left_down)
        self.search.setPlaceholderText("Ø 140 to 200, under €40")
        self.search.setAccessibleName("Search the shelf")
        tip(
            self.search,
            "Words and ranges, parted by commas: under €40, 4 ohm, 5.25 in, Ø 140 to 200, "
            "fs under 60 Hz, xmax over 6 mm, under 500 g",
        )
        self.search.setClearButtonEnabled(True)
        fix(self.search, width=206)
        self.search.textChanged.connect(self.changed)
        row.addWidget(self.search)
        self.filter = QToolButton()
        self.filter.setText("Filter ▾")
        self.filter.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self.filter)
        for title, words in FILTERS:
            sub = menu.addMenu(title)
            for word in words:
                sub.addAction(word).triggered.connect(partial(self._narrow, word))
        self.filter.setMenu(menu)
        row.addWidget(self.filter)
        row.addStretch(1)
        self.kinds = Segments([("", "All"), *SHORT.items()], "Kind of part")
        self.kinds.chosen.connect(self.kind_chosen)
        self.kinds.setProperty("compact", True)
        row.addWidget(self.kinds)
        return row

    def _chip_row(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setSpacing(5)
        self.chips: dict[str, QPushButton] = {}
        for key, text in CHIPS:
            chip = QPushButton(text)
            chip.setCheckable(True)
            chip.setProperty("role", "chip")
            chip.toggled.connect(self.changed)
            row.addWidget(chip)
            self.chips[key] = chip
        row.addStretch(1)
        self.retune = QPushButton("tune each")
        self.retune.setCheckable(True)
        self.retune.setProperty("role", "chip")
        tip(
            self.retune,
            "Gives every candidate the added mass or port length at which it is loudest, "
            "instead of the present one.",
        )
        self.retune.toggled.connect(self.changed)
        row.addWidget(self.retune)
        self.views = Segments([("results", "In this design"), ("figures", "Figures")], "Columns")
        self.views.setProperty("compact", True)
        self.views.choose("results")
        self.views.chosen.connect(self.view_chosen)
        row.addWidget(self.views)
        return row

    def _narrow(self, word: str, _checked: bool = False) -> None:
        here = self.search.text().strip().rstrip(",")
        self.search.setText(f"{here}, {word}" if here else word)

    @property
    def on(self) -> frozenset[str]:
        """Chips that are down."""
        return frozenset(key for key, chip in self.chips.items() if chip.isChecked())

    def show_counts(self, numbers: Mapping[str, int]) -> None:
        """How many parts there are of each kind."""
        for key, text in SHORT.items():
            self.kinds.button(key).setText(f"{text} {numbers[key]}")
