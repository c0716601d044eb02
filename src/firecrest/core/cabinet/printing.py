"""What a printed case takes: material, hours, spools, pieces that the bed holds.

Flow, layer change, purge and one failed start are estimates. Lengths in m, time in s.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import permutations
from math import ceil, pi, sqrt

FILAMENT = 1.75e-3
SPOILT = 1.05
"""Purge and one failed start, on the mass."""


@dataclass(frozen=True)
class Printer:
    """``bed`` (x, y, z) with ``margin`` round x and y; ``layer``; ``flow`` in m3/s.

    ``change``: time for a layer change.
    """

    bed: tuple[float, float, float]
    margin: float
    layer: float
    flow: float
    change: float
    spool: float

    @property
    def room(self) -> tuple[float, float, float]:
        """What the bed holds."""
        x, y, z = self.bed
        return x - 2 * self.margin, y - 2 * self.margin, z


@dataclass(frozen=True)
class Plan:
    """Pieces along x, y, z of the case, which of these stands ``upright``, and what it takes."""

    split: tuple[int, int, int]
    upright: str
    layers: int
    volume: float
    mass: float
    seconds: float
    filament: float
    spools: int
    whole_turned: bool

    @property
    def pieces(self) -> int:
        """How many."""
        return self.split[0] * self.split[1] * self.split[2]


def plan(
    size: Sequence[float], shell: float, share: float, density: float, printer: Printer
) -> Plan:
    """Of a case of outer ``size`` and ``shell`` m3 of wall, of which ``share`` is material."""
    split, upright, height = _split(size, printer)
    volume = shell * share
    pieces = split[0] * split[1] * split[2]
    layers = pieces * ceil(height / printer.layer - 1e-6)
    mass = volume * density
    return Plan(
        split,
        upright,
        layers,
        volume,
        mass,
        volume / printer.flow + layers * printer.change,
        volume / (pi / 4 * FILAMENT**2),
        spools(mass, printer),
        fits_turned(size, printer),
    )


def spools(mass: float, printer: Printer, batch: int = 1) -> int:
    """Spools for a batch of cases of ``mass``."""
    return ceil(SPOILT * batch * mass / printer.spool - 1e-9)


def _split(size: Sequence[float], printer: Printer) -> tuple[tuple[int, int, int], str, float]:
    """Fewest pieces, then the lowest piece, over all six ways to stand."""
    best = None
    for order in permutations(range(3)):
        counts, height = [1, 1, 1], 0.0
        for way, room in zip(order, printer.room, strict=True):
            counts[way] = ceil(size[way] / room - 1e-9)
            height = size[way] / counts[way]
        rank = (counts[0] * counts[1] * counts[2], height)
        if best is None or rank < best[0]:
            best = rank, (counts[0], counts[1], counts[2]), "xyz"[order[2]]
    assert best is not None
    return best[1], best[2], best[0][1]


def fits_turned(size: Sequence[float], printer: Printer) -> bool:
    """Whether a whole case fits the bed, turned in its plane if need be."""
    wide, deep, tall = printer.room
    wide, deep = min(wide, deep), max(wide, deep)
    for x, y, z in permutations(size):
        a, b = max(x, y), min(x, y)
        if z <= tall + 1e-9 and _lies(a, b, deep, wide):
            return True
    return False


def _lies(a: float, b: float, deep: float, wide: float) -> bool:
    """A rectangle a x b in deep x wide, a >= b, deep >= wide (Carver 1957)."""
    if b > wide + 1e-12:
        return False
    if a <= deep + 1e-12:
        return True
    diagonal = a * a + b * b
    turned = (2 * a * b * deep + (a * a - b * b) * sqrt(diagonal - deep * deep)) / diagonal
    return diagonal >= deep * deep and wide >= turned
