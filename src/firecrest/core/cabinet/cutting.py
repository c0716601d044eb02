"""Cut list and the order of cuts with the fewest settings of fence and stop."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import product
from math import ceil

ALIKE = 1e-4
"""m within which two sizes are cut at one setting."""
SAME = 1e-3
"""Share within which outlines fill their sizes alike."""
MOST_TURNED = 12
"""Distinct sizes up to which all turnings are tried; beyond, each is turned by itself."""


@dataclass(frozen=True)
class Piece:
    """``count`` pieces ``a`` x ``b`` of thickness ``t``, in m; with ``grain`` a is not turned.

    ``filled`` is the share of a x b that its outline leaves: a ring is no plate.
    """

    name: str
    a: float
    b: float
    t: float
    count: int = 1
    grain: bool = False
    filled: float = 1.0


def merged(pieces: Iterable[Piece]) -> list[Piece]:
    """Pieces of one size (within 0.1 mm) and thickness as one row, in the order they first come."""
    rows: list[Piece] = []
    for piece in pieces:
        for k, row in enumerate(rows):
            if _alike(row, piece):
                name = (
                    row.name if piece.name in row.name.split(", ") else f"{row.name}, {piece.name}"
                )
                count = row.count + piece.count
                rows[k] = replace(row, name=name, count=count, grain=row.grain or piece.grain)
                break
        else:
            rows.append(piece)
    return rows


def _alike(one: Piece, other: Piece) -> bool:
    if abs(one.t - other.t) > ALIKE or abs(one.filled - other.filled) > SAME:
        return False
    straight = abs(one.a - other.a) <= ALIKE and abs(one.b - other.b) <= ALIKE
    turned = abs(one.a - other.b) <= ALIKE and abs(one.b - other.a) <= ALIKE
    return straight or (turned and not (one.grain or other.grain))


def _distinct(values: Iterable[float]) -> int:
    count, last = 0, None
    for value in sorted(values):
        if last is None or value - last > ALIKE:
            count, last = count + 1, value
    return count


@dataclass(frozen=True)
class Settings:
    """Rip widths from wide to narrow, and cross-cut lengths from long to short, in m."""

    widths: tuple[float, ...]
    lengths: tuple[float, ...]

    @property
    def count(self) -> int:
        """Settings of fence and stop together."""
        return len(self.widths) + len(self.lengths)


def settings(pieces: Iterable[Piece]) -> Settings:
    """The turning of pieces of one thickness that asks for the fewest settings."""
    sizes = [(p.a, p.b, p.grain) for p in merged(pieces)]
    best: tuple[int, list[float], list[float]] | None = None
    for turned in _turnings(sizes):
        widths = [a if t else b for (a, b, _), t in zip(sizes, turned, strict=True)]
        lengths = [b if t else a for (a, b, _), t in zip(sizes, turned, strict=True)]
        count = _distinct(widths) + _distinct(lengths)
        if best is None or count < best[0]:
            best = count, widths, lengths
    if best is None:
        return Settings((), ())
    return Settings(_ordered(best[1]), _ordered(best[2]))


def _turnings(sizes: list[tuple[float, float, bool]]) -> Iterable[tuple[bool, ...]]:
    """Which pieces are turned; lengthwise the long way first."""
    if len(sizes) > MOST_TURNED:
        return [tuple(b > a and not grain for a, b, grain in sizes)]
    choices = [(False,) if grain else (b > a, a >= b) for a, b, grain in sizes]
    return product(*choices)


def _ordered(values: list[float]) -> tuple[float, ...]:
    kept: list[float] = []
    for value in sorted(values, reverse=True):
        if not kept or kept[-1] - value > ALIKE:
            kept.append(value)
    return tuple(kept)


def stack_layers(depth: float, sheet: float) -> int:
    """Layers of one sheet that a depth takes."""
    return ceil(depth / sheet - 1e-9)


SETTING, CUT, ROUND = 180.0, 90.0, 360.0
"""s for a setting, a straight cut and a round cut-out: estimates."""


def saw_time(setting_count: int, cuts: int, rounds: int) -> float:
    """Time at the saw in s."""
    return SETTING * setting_count + CUT * cuts + ROUND * rounds
