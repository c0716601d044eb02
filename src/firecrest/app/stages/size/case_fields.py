"""Fields of the case: what its panels are made of, and what else is in it."""

from PySide6.QtWidgets import QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import buttons, number, numbers
from firecrest.app.stages.size.rows import Rows, do, preset_combo
from firecrest.app.widgets.choices import bound_combo, bound_text, labelled
from firecrest.app.widgets.plain import label
from firecrest.core.cabinet.materials import MATERIALS
from firecrest.design.design import Design
from firecrest.design.edits import case as edits
from firecrest.design.edits.paths import Path
from firecrest.present.frame.bindings import held_volume

CASE: Path = ("box", "case")


def case_rows(session: Session) -> Rows:
    """Panels, then everything else in the case, one thing below the other."""
    rows: Rows = [
        labelled("Panels of", material_combo(session)),
        *numbers(session, *((*CASE, n) for n in ("density", "price_per_area"))),
        *_volumes(session),
        label("Also in the case", "section"),
    ]
    for place in range(len(session.design.box.case.contents)):
        rows += _item(session, place)
    rows.append(buttons(("Add something", lambda: do(session, edits.add_content))))
    return rows


def _volumes(session: Session) -> Rows:
    """Net air of every chamber, each held while another is typed; of several chambers only."""
    chambers = session.design.box.chambers
    if len(chambers) < 2:
        return []
    hint = label("Length, height and the other chambers' air are held; depth and shares follow.")
    hint.setProperty("role", "hint")
    hint.setWordWrap(True)
    rows: Rows = [label("Net air of each chamber", "section"), hint]
    return rows + [number(session, held_volume(k, c.name)) for k, c in enumerate(chambers)]


def _item(session: Session, place: int) -> list[QWidget]:
    here: Path = (*CASE, "contents", place)
    rows: list[QWidget] = [labelled("Name", bound_text(session, (*here, "name")))]
    rows += numbers(session, *((*here, n) for n in ("count", "volume", "mass", "price")))
    chambers = [(c.id, c.name) for c in session.design.box.chambers]
    if len(chambers) > 1:
        rows.append(labelled("In chamber", bound_combo(session, (*here, "chamber"), chambers)))

    def _remove() -> None:
        do(session, lambda design: edits.remove_content(design, place))

    name = session.design.box.case.contents[place].name
    rows.append(buttons((f"Remove {name}", _remove)))
    return rows


def material_combo(session: Session) -> QWidget:
    """Usual panel materials by name; any other density is own figures."""
    words = list(MATERIALS)

    def _choose(design: Design, place: int) -> tuple[str, Design]:
        return edits.with_material(design, words[place])

    return preset_combo(session, "Panel material", words, edits.material_in_force, _choose)
