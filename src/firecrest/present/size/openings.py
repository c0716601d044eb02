"""What ports and radiators are called, and which of the kinds of thing in a box an owner is."""

from firecrest.design.box import Box, Opening, Port, RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.ids import found


def owner_kind(design: Design, owner: Path) -> str:
    """Of the case, a room or an element: "case", "chambers", "groups", "port" or "radiators"."""
    if owner[1] != "openings":
        return str(owner[1])
    return str(value_at(design, owner).kind)


def opening_name(item: Opening) -> str:
    """A port, or the radiator by its name."""
    return item.radiator.name if isinstance(item, RadiatorSet) else "port"


def named_apart(box: Box, item: Opening) -> str:
    """The name of an opening, with its chamber where there are several of its kind."""
    name = opening_name(item)
    if len(placed(box.openings, type(item))) < 2:
        return name
    chamber = found(box.chambers, item.chamber).name
    return f"port of {chamber}" if isinstance(item, Port) else f"{name}, {chamber}"
