"""A chart of a part's measured curve, and what can be done with that curve."""

from collections.abc import Callable

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.editing import Editing
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import CalmCombo
from firecrest.app.widgets.plain import label, tip
from firecrest.core.errors import FirecrestError
from firecrest.design.curve import FREQUENCY_UNITS, LONGEST, CurveOf, MeasuredCurve
from firecrest.design.design import Design
from firecrest.design.edits.curves import curve_of, in_unit, with_curve, without_curve
from firecrest.design.edits.paths import Path, value_at
from firecrest.files.atomic import write_file
from firecrest.files.bounded import read_bytes
from firecrest.files.curves import measured_curve
from firecrest.shelf.table import decoded

KINDS = "Curves (*.txt *.csv *.frd *.zma *.dat);;All files (*)"


class CurveView(QWidget):
    """Attach, read otherwise, export and remove; each change of the part is one undo step."""

    def __init__(
        self, editing: Editing, path: Path, what: CurveOf, title: str, chart: Chart
    ) -> None:
        super().__init__()
        self.editing, self.path, self.what = editing, path, what
        self.attach_button = self._link("Attach a curve…", "Attach a measured {}", self.attach)
        self.export_button = self._link("Export…", "Export the measured {}", self.export)
        self.remove_button = self._link("Remove", "Remove the measured {}", self.remove)
        self.unit = CalmCombo()
        self.unit.addItems(FREQUENCY_UNITS)
        self.unit.setAccessibleName(f"Frequencies of the measured {what} in")
        tip(self.unit, "Frequencies of the file are read in this unit")
        self.unit.textActivated.connect(
            lambda unit: self._do(lambda design: in_unit(design, self.path, what, unit))
        )
        head = QHBoxLayout()
        head.addWidget(label(title, "section"))
        head.addStretch(1)
        head.addWidget(self.attach_button)
        self.below = QWidget()
        foot = QHBoxLayout(self.below)
        foot.setContentsMargins(0, 0, 0, 0)
        foot.setSpacing(4)
        self.said = label("", "hint")
        foot.addWidget(self.said)
        foot.addWidget(self.unit)
        foot.addStretch(1)
        foot.addWidget(self.export_button)
        foot.addWidget(self.remove_button)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(head)
        box.addWidget(chart)
        box.addWidget(self.below)
        box.addStretch(1)
        self.refresh()

    def _link(self, text: str, name: str, press: Callable[[], None]) -> QPushButton:
        button = QPushButton(text)
        button.setProperty("role", "link")
        button.setAccessibleName(name.format(self.what))
        button.clicked.connect(press)
        return button

    @property
    def curve(self) -> MeasuredCurve | None:
        """The measured curve, if there is one."""
        return curve_of(value_at(self.editing.design, self.path), self.what)

    def refresh(self) -> None:
        """Show what can be done now."""
        curve = self.curve
        self.attach_button.setText("Replace…" if curve else "Attach a curve…")
        self.below.setVisible(curve is not None)
        if curve is not None:
            self.unit.setCurrentText(curve.unit)
            self.said.setText("read in")
            tip(self.said, curve.name)
            tip(self.export_button, f"Write {curve.name} to a file again")

    def attach(self) -> None:
        """A curve from a text file."""
        path = self.window().messages.open_any(f"Attach {self.what}", KINDS)  # type: ignore[attr-defined]
        if path is None:
            return

        def edit() -> None:
            text = decoded(read_bytes(path, LONGEST))
            curve = measured_curve(text, path.name, self.what)
            self.editing.apply(*with_curve(self.editing.design, self.path, curve))

        self.editing.attempt(edit)

    def export(self) -> None:
        """The curve as it was read, to a file."""
        curve = self.curve
        if curve is None:
            return
        path = self.window().messages.save_as(f"Export {self.what}", curve.name, KINDS)  # type: ignore[attr-defined]
        if path is None:
            return
        try:
            write_file(path, curve.content.encode())
        except FirecrestError as error:
            self.editing.refused.emit(str(error))

    def remove(self) -> None:
        """Take the curve away; undo brings it back."""
        self._do(lambda design: without_curve(design, self.path, self.what))

    def _do(self, edit: Callable[[Design], tuple[str, Design]]) -> None:
        self.editing.attempt(lambda: self.editing.apply(*edit(self.editing.design)))
