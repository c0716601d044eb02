"""One tight spot: what is how near to what, where, and how far it should be."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.clearance import MOVING, STILL
from firecrest.core.cabinet.distance import Nearest, solids_apart
from firecrest.core.cabinet.solids import Solid
from firecrest.design.edits.paths import Path

SEEN = 0.03
"""m within which distances are told."""
KEPT_GAPS = 4096
Kind = Literal[
    "wall", "pair", "brace", "frames", "frame edge", "cut-out edge", "magnet", "removable",
    "port end", "knob", "ground", "chamber", "within", "vents", "grille", "plug", "draught", "lead",
    "fins", "fins lie",
]  # fmt: skip


@dataclass(frozen=True)
class Spot:
    """A distance ``gap`` m where ``wanted`` m are called for, between the ``names``, at a point.

    ``paths`` are where the places of the parts concerned stand. What cannot be built at all is
    ``impossible``.
    """

    kind: Kind
    names: tuple[str, ...]
    gap: float
    wanted: float
    at: tuple[float, float, float] | None
    paths: tuple[Path, ...]
    impossible: bool = False

    @property
    def tight(self) -> bool:
        """Whether it is nearer than it should."""
        return self.impossible or self.gap < self.wanted - 1e-9


def point(at: object) -> tuple[float, float, float]:
    """A point in the case as three floats."""
    x, y, z = (float(c) for c in at)  # type: ignore[attr-defined]
    return x, y, z


def wanted(*parts: core.Part) -> float:
    """What is called for between things: of what moves less; an inner box may stand at a wall."""
    if all(p.kind == "inner box" for p in parts):
        return 0.0
    if any(p.kind == "radiator" for p in parts):
        return MOVING
    return STILL


@lru_cache(KEPT_GAPS)
def between(one: Solid, other: Solid) -> Nearest | None:
    """Remembered by the solids, which are remembered by value."""
    return solids_apart(one, other, SEEN)
