"""Fields of what is fitted to a case: braces, inner boxes, plates and knobs, a grille, feet."""

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import below, buttons, numbers
from firecrest.app.stages.cabinet.fields import CASE, SIX, Edit, doing
from firecrest.app.stages.size.rows import Rows
from firecrest.app.widgets.choices import bound_check, bound_combo, bound_text, labelled
from firecrest.app.widgets.plain import caution, label
from firecrest.core.cabinet.braces import WAYS
from firecrest.design.case import Brace
from firecrest.design.edits import braces, within
from firecrest.design.edits import cabinet as edits
from firecrest.design.edits.paths import Path
from firecrest.design.shapes import panel_names
from firecrest.design.standing import against
from firecrest.present.cabinet import words
from firecrest.proposals.adding import (
    with_amplifier_chamber,
    with_brace,
    with_divider,
    with_fitting,
)

WARM = (
    "A board runs hotter in a chamber of its own: check it at the loudest for an hour. A pack "
    "belongs outside it."
)


def fitted_rows(session: Session) -> Rows:
    """Braces, inner boxes, terminals, handles, knobs, plates, grille and feet."""
    case = session.design.box.case
    rows: Rows = []
    for k, brace in enumerate(case.braces):
        rows += _brace_rows(session, k, brace)
    for k in range(len(case.inner)):
        rows += _inner_rows(session, k)
    rows += _fitting_rows(session)
    panels = [(n, n) for n in panel_names(case)]
    if case.grille is not None:
        here: Path = (*CASE, "grille")
        rows.append(label("Grille", "section"))
        rows.append(labelled("Before the", bound_combo(session, (*here, "panel"), panels)))
        rows += numbers(session, *((*here, n) for n in ("gap", "thickness", "mass", "price")))
    if case.feet is not None:
        rows.append(label("Feet", "section"))
        feet = ("height", "inset", "mass", "price")
        rows += numbers(session, *((*CASE, "feet", n) for n in feet))
        combo = bound_combo(session, (*CASE, "feet", "ground"), words.GROUNDS)
        rows.append(labelled("Stands on", combo))
    return rows


def _brace_rows(session: Session, k: int, brace: Brace) -> Rows:
    here: Path = (*CASE, "braces", k)
    rows: Rows = [label(brace.name, "section")]
    rows.append(labelled("Name", bound_text(session, (*here, "name"))))
    if not brace.divider:
        rows.append(labelled("Form", bound_combo(session, (*here, "form"), words.FORMS)))
    dowel = brace.form == "dowel" and not brace.divider
    turn = partial(braces.turned_brace, place=k)
    axis = bound_combo(session, (*here, "axis"), words.AXES, lambda d, value: turn(d, axis=value))
    rows.append(labelled("Runs" if dowel else "Square to", axis))
    if dowel:
        rows += numbers(session, *((*here, n) for n in ("thickness", "spot_a", "spot_b")))
    else:
        rows += numbers(session, (*here, "at"), (*here, "thickness"))
    if brace.form == "shelf" and not brace.divider:
        walls = [(n, n) for n in SIX if WAYS[n] != brace.axis]
        combo = bound_combo(session, (*here, "against"), walls)
        combo.setCurrentText(against(brace))
        rows.append(labelled("Stands against", combo))
        rows += numbers(session, (*here, "reach"))
    if brace.form == "plate":
        part = partial(braces.as_divider, place=k)
        check = bound_check(session, (*here, "divider"), "Parts two chambers", part)
        rows.append(check)
    if brace.form == "plate" and not brace.divider:
        names = ("window_a", "window_b", "window_radius")
        rows += numbers(session, *((*here, n) for n in names))
    if not dowel:
        rows += numbers(session, (*here, "groove"))
    remove = partial(braces.remove_brace, place=k)
    rows.append(buttons((f"Remove {brace.name.lower()}", doing(session, remove))))
    return rows


def _inner_rows(session: Session, k: int) -> Rows:
    box, chambers = session.design.box.case.inner[k], session.design.box.chambers
    here: Path = (*CASE, "inner", k)
    rooms = [(c.id, c.name) for c in chambers]
    holds = [("", "none: for boards"), *rooms]
    rows: Rows = [label(box.name, "section")]
    rows.append(labelled("Name", bound_text(session, (*here, "name"))))
    if len(rooms) > 1 or box.holds:
        rows.append(labelled("Is the chamber", bound_combo(session, (*here, "holds"), holds)))
        rows.append(labelled("Stands in", bound_combo(session, (*here, "chamber"), rooms)))
    rows += numbers(session, *((*here, n) for n in ("width", "height", "depth", "wall")))
    if not box.holds:
        rows += numbers(session, (*here, "vent"))
        if box.vent > 0:
            rows += numbers(session, (*here, "rise"))
        rows.append(caution(WARM))
    remove = partial(within.remove_inner, place=k)
    rows.append(buttons((f"Remove {box.name.lower()}", doing(session, remove))))
    return rows


def _fitting_rows(session: Session) -> Rows:
    rows: Rows = []
    for k, fitting in enumerate(session.design.box.case.fittings):
        here: Path = (*CASE, "fittings", k)
        rows.append(label(fitting.name, "section"))
        rows.append(labelled("Name", bound_text(session, (*here, "name"))))
        rows.append(bound_check(session, (*here, "round"), "Round"))
        names: tuple[str, ...] = ("width",) if fitting.round else ("width", "height", "corner")
        names += ("bushing", "nut") if fitting.kind == "knob" else ("depth",)
        rows += numbers(session, *((*here, n) for n in (*names, "mass", "price")))
        remove = partial(edits.remove_fitting, place=k)
        rows.append(buttons((f"Remove {fitting.name.lower()}", doing(session, remove))))
    return rows


def adding_buttons(session: Session) -> QWidget:
    """What can be added to a case."""
    case = session.design.box.case
    bare, standing = case.grille is None, case.feet is None
    rows: list[list[tuple[str, Edit]]] = [
        [
            ("Brace", with_brace),
            ("Shelf", braces.add_shelf),
            ("Dowel", braces.add_dowel),
            ("Divider", with_divider),
        ],
        [
            ("Terminal", partial(with_fitting, kind="terminal")),
            ("Handle", partial(with_fitting, kind="handle")),
            ("Knob", partial(with_fitting, kind="knob")),
            ("Plate", partial(with_fitting, kind="plate")),
        ],
        [("Amplifier chamber", with_amplifier_chamber), ("Inner box", within.add_inner_box)],
        [
            ("Grille" if bare else "No grille", partial(within.with_grille, on=bare)),
            ("Feet" if standing else "No feet", partial(edits.with_feet, on=standing)),
        ],
    ]

    def _press(edit: Edit) -> Callable[[], None]:
        return doing(session, edit)

    holder = below(*(buttons(*((name, _press(edit)) for name, edit in row)) for row in rows))
    layout = holder.layout()
    assert layout is not None
    layout.setSpacing(0)
    return holder
