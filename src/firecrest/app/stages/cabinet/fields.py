"""Fields of the case: outside and shape, panels and joints, the place of the chosen part."""

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QComboBox, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import buttons, numbers
from firecrest.app.stages.size.case_fields import material_combo
from firecrest.app.stages.size.rows import Rows, do
from firecrest.app.widgets.choices import CalmCombo, Options, bound_check, bound_combo, labelled
from firecrest.app.widgets.plain import label, paragraph
from firecrest.design.box import OUTSIDE
from firecrest.design.design import Design
from firecrest.design.edits import cabinet as edits
from firecrest.design.edits import outline
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.shapes import panel_names, sides_of
from firecrest.design.standing import is_divider, mountable, panels_of
from firecrest.present.cabinet import words
from firecrest.present.cabinet.words import panel_word
from firecrest.proposals.shaping import SHAPES, with_shape

CASE: Path = ("box", "case")
SIX = ("front", "back", "left", "right", "top", "bottom")
Edit = Callable[[Design], tuple[str, Design]]


def doing(session: Session, edit: Edit) -> Callable[[], None]:
    """A press that makes an edit."""
    return lambda: do(session, edit)


def outside_rows(session: Session, air: QWidget) -> Rows:
    """Shape, outer size, the ``air`` that follows or leads, what the shape adds, the panels."""
    case = session.design.box.case
    rows: Rows = [labelled("Shape", _shape_combo(session))]
    rows += numbers(session, *((*CASE, n) for n in sides_of(case)))
    rows.append(air)
    rows += numbers(session, (*CASE, "wall"))
    rows += _shape_rows(session)
    rows.append(labelled("Panels of", material_combo(session)))
    rows += numbers(session, *((*CASE, n) for n in ("density", "stiffness")))
    if case.printing is None:
        rows += numbers(session, (*CASE, "price_per_area"))
        rows.append(buttons(("Print it", doing(session, partial(edits.printed, on=True)))))
    else:
        names = ("skin", "infill", "layer", "bed_x", "bed_y", "bed_z", "price")
        rows += numbers(session, *((*CASE, "printing", n) for n in names))
        rows.append(
            buttons(("Make it of sheets", doing(session, partial(edits.printed, on=False))))
        )
    return rows


def _shape_combo(session: Session) -> QWidget:
    """The shapes; a change keeps the present air."""
    combo = CalmCombo()
    combo.setAccessibleName("Shape")
    combo.setProperty("path", "box.case.shape")
    combo.addItems([edits.WORDS[kind] for kind in SHAPES])
    combo.setCurrentIndex(list(SHAPES).index(session.design.box.case.shape.kind))

    def _chosen(place: int) -> None:
        kind = list(SHAPES)[place]
        if kind != session.design.box.case.shape.kind:
            do(session, lambda design: with_shape(design, kind))
        combo.setCurrentIndex(list(SHAPES).index(session.design.box.case.shape.kind))

    combo.activated.connect(_chosen)
    return combo


def _shape_rows(session: Session) -> Rows:
    """What a shape adds to the outer size."""
    shape, here = session.design.box.case.shape, (*CASE, "shape")
    if shape.kind == "box":
        rows: Rows = [labelled("Edges", bound_combo(session, (*here, "edges"), words.EDGES))]
        if shape.edges != "square":
            rows += numbers(session, (*here, "radius"))
            rows.append(bound_check(session, (*here, "follow"), "Inside follows the edges"))
        return rows
    if shape.kind == "taper":
        names = ("back_length", "back_height", "shift_right", "shift_up")
        return list(numbers(session, *((*here, n) for n in names)))
    if shape.kind == "prism":
        rows = [labelled("Drawn along", bound_combo(session, (*here, "axis"), words.OUTLINE_AXES))]
        rows += _point_rows(session, "corners", "Corner", ("a", "b"))
        rows.append(bound_check(session, (*here, "ends_through"), "End plates cover the outline"))
        return rows
    if shape.kind == "cylinder":
        return [
            labelled("Lies along", bound_combo(session, (*here, "axis"), words.AXES)),
            bound_check(session, (*here, "ends_through"), "End plates cover the tube"),
        ]
    if shape.kind == "vase":
        return _point_rows(session, "profile", "Profile point", ("height", "radius"))
    if shape.kind == "ball":
        return list(numbers(session, (*here, "front"), (*here, "foot")))
    if shape.kind == "stack":
        names = ("radius", "ring", "solid_front", "solid_back")
        rows = list(numbers(session, *((*here, n) for n in names)))
        rows += _point_rows(session, "corners", "Corner", ("a", "b"))
        free = partial(outline.free_outline, on=not shape.corners)
        said = "Make it a rectangle" if shape.corners else "Draw the outline"
        rows.append(buttons((said, doing(session, free))))
        return rows
    return []


def _point_rows(session: Session, name: str, word: str, figures: tuple[str, str]) -> Rows:
    """Points that a case is drawn through, each with a button that takes it away; one more.

    They are dragged on the drawing, too.
    """
    rows: Rows = []
    shape = session.design.box.case.shape
    points = getattr(shape, name)
    for k in range(len(points)):
        rows.append(label(f"{word} {k + 1}", "hint"))
        rows += numbers(session, *((*CASE, "shape", name, k, n) for n in figures))
        remove = partial(outline.remove_outline_point, place=k)
        rows.append(buttons((f"Remove {word.lower()} {k + 1}", doing(session, remove))))
    if points:
        rows.append(buttons(("Add a point", doing(session, outline.add_outline_point))))
    return rows


def panel_rows(session: Session) -> Rows:
    """Thickness of single panels, and joints of a box."""
    case = session.design.box.case
    there = [n for n in SIX if n in panel_names(case)]
    rows: Rows = [*numbers(session, *((*CASE, "thickness", n) for n in there))]
    if case.shape.kind != "box":
        return rows
    for which, title in (("ring", "Ring"), ("front", "Front"), ("back", "Back")):
        here: Path = (*CASE, "shape", "joints", which)
        joints = words.RING_JOINTS if which == "ring" else words.COVER_JOINTS
        rows.append(_named(f"{title}, joint", bound_combo(session, (*here, "type"), joints)))
        through = words.RING_THROUGH if which == "ring" else words.COVER_THROUGH
        combo = bound_combo(session, (*here, "through"), through)
        rows.append(_named(f"{title}, runs through", combo))
        joint = value_at(session.design, here)
        if joint.type in ("rabbet", "dado"):
            rows += numbers(session, (*here, "depth"))
        if joint.type == "dado":
            rows += numbers(session, (*here, "offset"))
    return rows


def _named(text: str, combo: QComboBox) -> QWidget:
    """A labelled drop-down that says which joint it is of."""
    combo.setAccessibleName(text)
    return labelled(text, combo)


def _panels(session: Session, path: Path) -> Options:
    """Panels that a part can be mounted on, in words.

    Dividers hold what sounds into another chamber, and boards and packs; fittings are outside.
    """
    case = session.design.box.case
    if path[:2] == ("box", "case"):
        return [(name, name) for name in panel_names(case)]
    owner = value_at(session.design, path[:3])
    ahead = getattr(owner, "front", getattr(owner, "opens_to", None))
    frames, inner = panels_of(case), None if ahead is None else ahead != OUTSIDE
    fitting = [n for n in mountable(case) if inner is None or is_divider(n) == inner]
    return [(name, panel_word(name, frames[name])) for name in fitting]


def place_rows(session: Session, path: Path | None) -> Rows:
    """The place of the chosen part: panel, coordinates, what its mounting adds."""
    if path is None or not session.has(path) or value_at(session.design, path) is None:
        return [paragraph("Choose a part on the drawing to type its place.")]
    rows: Rows = [
        labelled("On the", bound_combo(session, (*path, "panel"), _panels(session, path)))
    ]
    rows += numbers(session, (*path, "u"), (*path, "v"), (*path, "rot"))
    if path[:2] in (("box", "groups"), ("box", "openings")):
        rows += numbers(session, (*path, "recess"))
        rows.append(bound_check(session, (*path, "from_inside"), "Fitted from inside"))
    if path[0] == "power":
        rows += numbers(session, (*path, "standoff"))
    if path[:2] == ("power", "source"):
        rows += numbers(session, ("power", "source", "across"), ("power", "source", "wrap"))
        lie = bound_combo(session, ("power", "source", "lie"), words.LIE)
        rows.append(labelled("Cells point", lie))
        rows.append(bound_check(session, ("power", "source", "wrapped"), "Wrapped whole"))
    if path[-2] == "mounts" and len(value_at(session.design, path[:-1])) == 2:
        rows.append(
            buttons(("Mirror the other", doing(session, partial(edits.mirrored, path=path))))
        )
    return rows
