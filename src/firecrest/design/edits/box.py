"""Edits of the box: openings come and go, presets of loss, whole washers."""

from collections.abc import Sequence

from firecrest.core.acoustics.losses import Damping, Tightness
from firecrest.core.errors import DesignError
from firecrest.design.box import OUTSIDE, Port, RadiatorSet
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.starts import START_RADIATOR


def add_radiators(design: Design, chamber: str) -> tuple[str, Design]:
    """(label, design) with one more set of radiators on a chamber."""
    item = RadiatorSet(radiator=START_RADIATOR, chamber=chamber)
    if design.box.radiators:
        item = rebuilt(design.box.radiators[-1], count=1, chamber=chamber)
    made = (*design.box.radiators, item)
    return "Add radiator", replace_at(design, ("box", "radiators"), made)


def add_port(design: Design, chamber: str) -> tuple[str, Design]:
    """(label, design) with one more port on a chamber, like the last one there is."""
    port = Port(chamber=chamber, resonances=True)
    if design.box.ports:
        port = rebuilt(design.box.ports[-1], chamber=chamber, opens_to=OUTSIDE)
    return "Add port", replace_at(design, ("box", "ports"), (*design.box.ports, port))


def remove_opening(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) without the port or radiators at ``path``.

    DesignError when nothing would face outside any more.
    """
    kind, place = str(path[1]), int(path[2])
    kept = tuple(x for k, x in enumerate(value_at(design, path[:2])) if k != place)
    made = replace_at(design, path[:2], kept)
    box = made.box
    openings: Sequence[RadiatorSet | Port] = (*box.radiators, *box.ports)
    if OUTSIDE not in [g.front for g in box.groups] + [o.opens_to for o in openings]:
        raise DesignError("Nothing would face outside: open the chamber before the cone.")
    return f"Remove {'port' if kind == 'ports' else 'radiators'}", made


def set_tightness(design: Design, chamber: int, preset: Tightness) -> tuple[str, Design]:
    """(label, design) with a chamber as tight as the words say; a measured leak is dropped."""
    path = ("box", "chambers", chamber)
    made = rebuilt(value_at(design, path), leak_q=preset.leak_q, leak_resistance=None)
    return f"Tightness: {preset.words}", replace_at(design, path, made)


def set_damping(design: Design, chamber: int, preset: Damping) -> tuple[str, Design]:
    """(label, design) with a chamber as filled as the words say."""
    path = ("box", "chambers", chamber)
    made = rebuilt(
        value_at(design, path), stuffing=preset.stuffing[0], absorption_q=preset.absorption_q[0]
    )
    return f"Inside: {preset.words}", replace_at(design, path, made)


def whole_washers(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) with the added mass of radiators rounded to whole washers.

    DesignError while the weight of one is not known.
    """
    item = design.box.radiators[place]
    if item.washer is None:
        raise DesignError("Say what one washer weighs first.")
    count = round(item.added_mass / item.washer)
    path = ("box", "radiators", place, "added_mass")
    return f"{count} washers each", replace_at(design, path, count * item.washer)
