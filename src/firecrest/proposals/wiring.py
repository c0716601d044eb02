"""Fuse and wire as the currents of a design want them."""

from typing import Literal

from firecrest.assessment.assess import assess
from firecrest.assessment.power.wiring import wiring
from firecrest.core.errors import DesignError
from firecrest.core.power.fuse import Fuse
from firecrest.design.design import Design
from firecrest.design.edits import wiring as edits
from firecrest.design.power import FittedFuse


def with_wanted_fuse(design: Design) -> tuple[str, Design]:
    """(label, design) with the fuse that its currents want; DesignError where none will do."""
    found = wiring(assess(design))
    if found is None:
        raise DesignError("No currents are known yet: fill in what is missing first.")
    if found.fuse is None:
        raise DesignError("No usual fuse bears the surge when it is switched on: a soft start is.")
    return edits.with_fuse(design, on=True, fuse=fitted(found.fuse))


def fitted(fuse: Fuse) -> FittedFuse:
    """A fuse as a part of a design."""
    kind: Literal["blade", "ceramic tube, slow"] = "blade"
    if fuse.kind.name != kind:
        kind = "ceramic tube, slow"
    return FittedFuse(kind=kind, rating=float(fuse.rating))


def with_wanted_wire(design: Design) -> tuple[str, Design]:
    """(label, design) with the thinnest wire that loses little enough and that its fuse protects;
    DesignError where the length is not known, or none will do.
    """
    found = wiring(assess(design))
    if found is None or found.lead is None:
        raise DesignError("How long is the lead? Fill in its length first.")
    return edits.with_wire(design, found.lead.area)
