"""What every part carries besides its figures: where they come from, how good, which shelf part.

A part in a design is a copy; ``shelf`` names the shelf's part it was taken from, and which
revision of it, so that a later change of the shelf's part can be offered, never forced.
"""

import dataclasses
from collections.abc import Mapping
from typing import Any, Literal

from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, number, text

Origin = Literal["measured", "sheet", "derived", "estimate"]

TOLERANCES: Mapping[str, float] = {
    "measured": 0.02,
    "sheet": 0.10,
    "derived": 0.10,
    "estimate": 0.40,
}
"""Likely range of a figure by its origin, as a share either way, until it is set by hand."""


@dataclass(frozen=True, kw_only=True, config=MODEL)
class ShelfLink:
    """The shelf's part a copy was taken from, and its revision then."""

    part: str = text("Shelf part", longest=64)
    revision: int = number("Shelf revision", "number", 1, 1e9, "", digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Sheet:
    """Base of all parts."""

    name: str = text("Name")
    origins: Mapping[str, Origin] = choice("Where figures come from", default={})
    tolerances: Mapping[str, float] = choice(
        "Likely range of figures",
        default={},
        help="Share either way, by figure; a figure not named has the range of its origin.",
    )
    set_aside: Mapping[str, float] = choice(
        "Figures set aside",
        default={},
        help="Stated figures that others overrule; kept so that nothing is lost.",
    )
    shelf: ShelfLink | None = choice("From the shelf", default=None)

    def __getstate__(self) -> dict[str, Any]:
        """The fields alone: what was worked out from a part stays where it was worked out."""
        return {f.name: getattr(self, f.name) for f in dataclasses.fields(self)}


def tolerance_of(part: Any, figure: str) -> float | None:
    """Likely range of a figure as a share either way; None when its origin is not stated."""
    if figure in part.tolerances:
        return float(part.tolerances[figure])
    return TOLERANCES.get(part.origins.get(figure, ""))
