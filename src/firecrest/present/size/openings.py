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
    """The name of an opening, with chamber and number where there are several of its kind."""
    name = opening_name(item)
    alike = [o for _, o in placed(box.openings, type(item))]
    if len(alike) < 2:
        return name
    beside = [o.id for o in alike if o.chamber == item.chamber]
    number = f" {beside.index(item.id) + 1}" if len(beside) > 1 else ""
    chamber = found(box.chambers, item.chamber).name
    if isinstance(item, Port):
        return f"port{number} of {chamber}"
    return f"{name}{number and ','}{number}, {chamber}"
