"""Layers of a view: what lies below and above the outlines that change, as pictures."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from PySide6.QtCore import QRectF
from PySide6.QtGui import QPixmap

from firecrest.present.cabinet.inks import Ink


@dataclass(frozen=True)
class Layers:
    """The first ``below`` and the last ``above`` of ``inks`` as pictures of an ``area``; None while
    unpainted.

    ``where`` is all else that they are painted by.
    """

    where: Any
    inks: tuple[Ink, ...]
    below: int = 0
    above: int = 0
    area: QRectF = field(default_factory=QRectF)
    under: QPixmap | None = None
    over: QPixmap | None = None

    def holds(self, inks: tuple[Ink, ...]) -> bool:
        """Whether the pictures show what lies below and above in ``inks``, too."""
        if self.under is None or len(inks) != len(self.inks):
            return False
        below, above = shared(self.inks, inks)
        return below >= self.below and above >= self.above


def shared(one: Sequence[Ink], other: Sequence[Ink]) -> tuple[int, int]:
    """How many outlines of two are the same from the start, and of the rest from the end."""
    most = min(len(one), len(other))
    below = next((k for k in range(most) if one[k] is not other[k]), most)
    above = next((k for k in range(most - below) if one[-1 - k] is not other[-1 - k]), most - below)
    return below, above
