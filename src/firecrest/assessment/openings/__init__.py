"""Ports and radiators of a design: one module per kind, told apart here and nowhere else."""

from collections.abc import Mapping
from typing import Any

from firecrest.assessment.lower import inputs
from firecrest.assessment.openings import port, radiator
from firecrest.assessment.openings.kind import OpeningKind
from firecrest.design.box import Port, RadiatorSet

_KINDS: Mapping[type, OpeningKind] = {
    Port: port.KIND,
    RadiatorSet: radiator.KIND,
    inputs.Radiators: radiator.KIND,
}


def kind_of_opening(item: Any) -> OpeningKind:
    """The kind of an opening of a design, or of its lowered numbers."""
    return _KINDS[type(item)]
