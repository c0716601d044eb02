"""Pieces laid out on sheets with kerf between them and a margin at the rim.

Guillotine cuts only, so that a saw can follow: each piece goes into a free rectangle, which is then
split in two. Several orders and rules of choice are tried and the fewest sheets kept, then the
largest rest (Jylänki 2010 describes the family). Lengths in m.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from math import ceil
from random import Random

from firecrest.core.cabinet.cutting import Piece

ORDERS = 24
OFFCUT = 0.06
"""m that both sides of a rest have at least for it to be kept as an offcut."""
SLACK = 1e-9


@dataclass(frozen=True)
class Sheet:
    """A sheet: ``width`` x ``height``, saw ``kerf``, ``margin`` at its rim."""

    width: float
    height: float
    kerf: float
    margin: float


@dataclass(frozen=True)
class Laid:
    """A piece on a sheet: its lower left corner, and its size as it lies."""

    piece: Piece
    sheet: int
    x: float
    y: float
    a: float
    b: float


@dataclass(frozen=True)
class Offcut:
    """A whole rectangle ``a`` x ``b`` left of a sheet, its lower left corner at (x, y)."""

    sheet: int
    x: float
    y: float
    a: float
    b: float


@dataclass(frozen=True)
class Layout:
    """Where all pieces lie; ``too_large`` names those that no sheet holds.

    ``offcuts`` are the rests worth keeping, largest first.
    """

    laid: tuple[Laid, ...]
    sheets: int
    used: float
    too_large: tuple[str, ...]
    offcuts: tuple[Offcut, ...] = ()


Rect = tuple[float, float, float, float]


def lower_bound(pieces: Iterable[Piece], sheet: Sheet) -> int:
    """Sheets that the area alone asks for."""
    k, m = sheet.kerf, sheet.margin
    asks = sum(p.count * (p.a + k) * (p.b + k) for p in pieces)
    return ceil(asks / ((sheet.width - 2 * m + k) * (sheet.height - 2 * m + k)) - SLACK)


def layout(pieces: Sequence[Piece], sheet: Sheet, orders: int = ORDERS) -> Layout:
    """The best of several guillotine layouts of all pieces as one job."""
    fits = [p for p in pieces if _fits(p, sheet)]
    each = [p for p in fits for _ in range(p.count)]
    large = tuple(p.name for p in pieces if not _fits(p, sheet))
    best: tuple[tuple[int, float], list[Laid], list[list[Rect]]] | None = None
    least = lower_bound(fits, sheet)
    for order in _orders(each, orders):
        for tall in (False, True):
            laid, free = in_order(order, sheet, tall)
            sheets = max((p.sheet for p in laid), default=-1) + 1
            last = sum(p.a * p.b for p in laid if p.sheet == sheets - 1)
            if best is None or (sheets, last) < best[0]:
                best = (sheets, last), laid, free
        if best is not None and best[0][0] <= least:
            break
    laid, free = ([], []) if best is None else best[1:]
    count = 0 if best is None else best[0][0]
    area = sum(p.a * p.b for p in laid)
    used = area / (count * sheet.width * sheet.height) if count else 0.0
    return Layout(tuple(laid), count, used, large, _offcuts(free, sheet.kerf))


def _offcuts(free: list[list[Rect]], kerf: float) -> tuple[Offcut, ...]:
    """Free rectangles less the kerf towards what lies beside, largest first."""
    rests = [
        Offcut(number, x, y, w - kerf, h - kerf)
        for number, rects in enumerate(free)
        for x, y, w, h in rects
    ]
    kept = [r for r in rests if min(r.a, r.b) >= OFFCUT]
    return tuple(sorted(kept, key=lambda r: -r.a * r.b))


def _fits(piece: Piece, sheet: Sheet) -> bool:
    w, h = sheet.width - 2 * sheet.margin + SLACK, sheet.height - 2 * sheet.margin + SLACK
    straight = piece.a <= w and piece.b <= h
    return straight or (not piece.grain and piece.b <= w and piece.a <= h)


def _orders(pieces: list[Piece], count: int) -> Iterator[list[Piece]]:
    """By area, long side, short side, sum of sides; then shuffles of the first, always the same."""
    keys = (
        lambda p: p.a * p.b,
        lambda p: max(p.a, p.b),
        lambda p: min(p.a, p.b),
        lambda p: p.a + p.b,
    )
    for key in keys:
        yield sorted(pieces, key=key, reverse=True)
    chance = Random(7)
    base = sorted(pieces, key=keys[0], reverse=True)
    for _ in range(count - len(keys)):
        order = sorted(base, key=lambda p: p.a * p.b * chance.uniform(0.6, 1.4), reverse=True)
        yield order


def in_order(order: list[Piece], sheet: Sheet, tall: bool) -> tuple[list[Laid], list[list[Rect]]]:
    """Each piece into the free rectangle it fills best, and what stays free of each sheet.

    A new sheet where none holds it.
    """
    k, m = sheet.kerf, sheet.margin
    whole: Rect = (m, m, sheet.width - 2 * m + k, sheet.height - 2 * m + k)
    free: list[list[Rect]] = []
    laid = []
    for piece in order:
        spot = _best(piece, free, k)
        if spot is None:
            free.append([whole])
            spot = _best(piece, free[-1:], k)
            assert spot is not None
            spot = (len(free) - 1, *spot[1:])
        number, rect, a, b = spot
        free[number].remove(rect)
        free[number] += _rest(rect, a + k, b + k, tall)
        laid.append(Laid(piece, number, rect[0], rect[1], a, b))
    return laid, free


def _best(
    piece: Piece, free: list[list[Rect]], kerf: float
) -> tuple[int, Rect, float, float] | None:
    """The free rectangle with the least left over on its shorter way; earlier sheets first."""
    found = None
    for number, rects in enumerate(free):
        for rect in rects:
            ways = (
                ((piece.a, piece.b),) if piece.grain else ((piece.a, piece.b), (piece.b, piece.a))
            )
            for a, b in ways:
                over = rect[2] - a - kerf, rect[3] - b - kerf
                if min(over) < -SLACK:
                    continue
                rank = (number, min(over), max(over))
                if found is None or rank < found[0]:
                    found = rank, (number, rect, a, b)
        if found is not None:
            break
    return None if found is None else found[1]


def _rest(rect: Rect, a: float, b: float, tall: bool) -> list[Rect]:
    """Two rectangles that a guillotine cut leaves: along the shorter rest, or the longer."""
    x, y, w, h = rect
    if ((w - a) < (h - b)) != tall:
        rest = [(x + a, y, w - a, b), (x, y + b, w, h - b)]
    else:
        rest = [(x + a, y, w - a, h), (x, y + b, a, h - b)]
    return [r for r in rest if r[2] > SLACK and r[3] > SLACK]
