"""Edits of what lies between the source and the boards: lead, fuse, switch."""

from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.power import FittedFuse, Switch

START_FUSE = 5.0


def with_fuse(design: Design, on: bool, fuse: FittedFuse | None = None) -> tuple[str, Design]:
    """(label, design) with a fuse at the source, or without."""
    fitted = (fuse or FittedFuse(rating=START_FUSE)) if on else None
    return f"{'Fit' if on else 'Remove'} fuse", replace_at(design, ("power", "fuse"), fitted)


def with_switch(design: Design, on: bool) -> tuple[str, Design]:
    """(label, design) with a switch behind the source, or without."""
    fitted = Switch() if on else None
    return f"{'Add' if on else 'Remove'} switch", replace_at(design, ("power", "switch"), fitted)


def with_wire(design: Design, area: float | None) -> tuple[str, Design]:
    """(label, design) with wire of ``area`` m2 from the source; DesignError without one."""
    if area is None:
        raise DesignError("No wire of the list bears it: shorten the lead, or draw less.")
    lead = rebuilt(design.power.lead, area=area)
    return "Wire of the lead", replace_at(design, ("power", "lead"), lead)
