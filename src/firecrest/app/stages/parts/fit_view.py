"""What a measured impedance says of a driver: beside its sheet, and to be taken."""

from PySide6.QtWidgets import QPushButton, QWidget

from firecrest.app.editing import Editing
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import label, paragraph, tip
from firecrest.core.curve_text import CurvePoints
from firecrest.design.edits.paths import Path
from firecrest.design.parts import DriverPart
from firecrest.present.parts.fitting import fit_facts, fit_of, with_fit


def fit_widgets(
    editing: Editing, path: Path, part: object, measured: CurvePoints | None
) -> list[QWidget]:
    """Rows of the fit and the button that takes it; nothing without a curve."""
    if not isinstance(part, DriverPart):
        return []
    found = fit_of(part, measured)
    if found is None:
        return []
    if isinstance(found, str):
        return [paragraph(found, "hint")]
    rows = FactRows()
    rows.show_facts(fit_facts(part, found))
    take = QPushButton("Take these figures")
    tip(take, "They replace those in force, as measured, with their ranges; undo brings them back")
    fit = found
    take.clicked.connect(
        lambda: editing.attempt(lambda: editing.apply(*with_fit(editing.design, path, fit)))
    )
    return [label("From the measured impedance", "section"), rows, take]
