"""Edits of the box: openings come and go, presets of loss, whole washers."""

from collections.abc import Sequence
from typing import Literal

from firecrest.core.acoustics.losses import Damping, Tightness
from firecrest.core.errors import DesignError
from firecrest.design.box import OUTSIDE, Box, Opening, Port, RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.ids import fresh
from firecrest.design.starts import START_RADIATOR

Kind = Literal["port", "radiators"]


def add_opening(design: Design, kind: Kind, chamber: str) -> tuple[str, Design]:
    """(label, design) with one more port or set of radiators, like the last one of its kind."""
    openings = design.box.openings
    item = new_opening(openings, kind, chamber)
    alike = placed(openings, type(item))
    if alike:
        changes = {"id": item.id, "chamber": chamber, "opens_to": OUTSIDE}
        item = rebuilt(alike[-1][1], **changes, **({"count": 1} if kind == "radiators" else {}))
    title = "Add port" if kind == "port" else "Add radiator"
    return title, replace_at(design, ("box", "openings"), (*openings, item))


def new_opening(openings: Sequence[Opening], kind: Kind, chamber: str) -> Port | RadiatorSet:
    """A port or one radiator to start with, with an id that none of ``openings`` has."""
    id = fresh([o.id for o in openings], kind)
    if kind == "port":
        return Port(id=id, chamber=chamber, resonances=True)
    return RadiatorSet(id=id, radiator=START_RADIATOR, chamber=chamber)


def remove_opening(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) without the port or radiators at ``path``.

    DesignError when nothing would face outside any more.
    """
    item = value_at(design, path)
    kept = tuple(x for x in design.box.openings if x is not item)
    made = replace_at(design, ("box", "openings"), kept)
    check_faces_outside(made.box)
    return f"Remove {item.kind}", made


def check_faces_outside(box: Box) -> None:
    """DesignError when nothing of a box faces outside."""
    if OUTSIDE not in [g.front for g in box.groups] + [o.opens_to for o in box.openings]:
        raise DesignError("Nothing would face outside: open the chamber before the cone.")


def set_tightness(design: Design, chamber: int, preset: Tightness) -> tuple[str, Design]:
    """(label, design) with a chamber as tight as the words say; a measured leak is dropped."""
    path = ("box", "chambers", chamber)
    made = rebuilt(value_at(design, path), leak_q=preset.leak_q, leak_resistance=None)
    return f"Tightness: {preset.words}", replace_at(design, path, made)


def set_damping(design: Design, chamber: int, preset: Damping) -> tuple[str, Design]:
    """(label, design) with a chamber as filled as the words say."""
    path = ("box", "chambers", chamber)
    made = rebuilt(
        value_at(design, path),
        stuffing=preset.stuffing[0],
        absorption_q=preset.absorption_q[0],
        fill_resistivity=None,
    )
    return f"Inside: {preset.words}", replace_at(design, path, made)


def whole_washers(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) with the added mass of radiators rounded to whole washers.

    DesignError while the weight of one is not known.
    """
    path = ("box", "openings", place, "added_mass")
    item = value_at(design, path[:-1])
    if item.washer is None:
        raise DesignError("Say what one washer weighs first.")
    count = round(item.added_mass / item.washer)
    return f"{count} washers each", replace_at(design, path, count * item.washer)
