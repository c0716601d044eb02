"""What a view is drawn of: closed outlines, and what of it can be moved."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

import numpy as np

from firecrest.core.arrays import Real
from firecrest.design.edits.paths import Path

Style = Literal[
    "panel", "wall", "air", "frame", "basket", "cone", "dust", "board", "pack", "cell",
    "port", "hole", "cup", "brace", "foot", "travel", "hidden",
]  # fmt: skip


@dataclass(frozen=True, eq=False)
class Ink:
    """A closed outline (n, 2) in m on the paper; ``path`` of the place it belongs to.

    One that is moved is of the ink ``rest``, so far off on the paper: painted once, then shifted.
    """

    style: Style
    points: Real
    path: Path | None = None
    rest: "tuple[Ink, tuple[float, float]] | None" = None


@dataclass(frozen=True)
class Movable:
    """A part that can be moved on a view: its rectangle, and how the paper's axes are its own.

    ``across`` and ``upwards``: (du, dv) of a step of 1 to the right and up on the paper. A
    ``handle`` is a point that the case itself is drawn through.
    """

    path: Path
    name: str
    spoken: str
    low: tuple[float, float]
    high: tuple[float, float]
    across: tuple[float, float]
    upwards: tuple[float, float]
    handle: bool = False


def shifted(inks: Iterable[Ink], off: Real, path: Path) -> tuple[Ink, ...]:
    """Inks moved by (2,) on the paper, of the place at ``path``."""
    by = float(off[0]), float(off[1])
    return tuple(Ink(ink.style, ink.points + off, path, (ink, by)) for ink in inks)


def rectangle(low: Real, high: Real) -> Real:
    """Corners of an upright rectangle."""
    return np.array([(low[0], low[1]), (high[0], low[1]), (high[0], high[1]), (low[0], high[1])])
