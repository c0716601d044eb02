"""Seams of a print: holes for pegs across them and a groove for epoxy along them.

Pegs of 6 x 16 mm every 60 mm and two at least, thinner ones where the wall is too thin for these;
holes 0.2 mm wider; a groove of 1 x 1 mm in either face. All estimates. Lengths in m.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from math import ceil
from typing import Any

import numpy as np

from firecrest.core.arrays import Real

PEGS, LONG, WIDER = (0.006, 0.004, 0.003), 0.016, 0.0002
"""Diameters of pegs, the first that the wall holds; their length; how much wider holes are."""
COVER, APART, LEAST = 0.001, 0.06, 2
"""Wall left on either side of a hole; between two pegs along the seam; pegs of a seam."""
GROOVE = 0.001
ROUND = 90
MM = 1e3
TRIES = 24
"""Places tried along the seam for each peg, from its own outwards."""

Seam = tuple[int, float]
"""The axis (0, 1, 2) that a seam is square to, and where it is, m."""


@dataclass(frozen=True)
class Pegged:
    """A solid with holes and grooves at its seams; ``pegs`` by diameter in m and how many."""

    solid: Any
    pegs: tuple[tuple[float, int], ...]


def pegged(solid: Any, outer: Any, seams: Sequence[Seam], wall: float) -> Pegged:
    """Take holes for pegs and grooves off a shell (in m) whose wall is ``wall`` thick.

    ``outer`` is what it encloses, hollow and openings included.
    """
    peg = next((d for d in PEGS if wall >= d + WIDER + 2 * COVER), None)
    counts: dict[float, int] = {}
    whole = solid
    for axis, at in seams:
        others = [seam for seam in seams if seam != (axis, at)]
        turned, around = _turned(solid, axis), _outline(_turned(outer, axis), at)
        middle = _middles(around, wall)
        if wall >= 3 * GROOVE:
            whole -= _turned(_groove(around, at, wall), axis, back=True)
        if peg is None:
            continue
        holes = list(_holes(turned, axis, at, peg, middle, others))
        counts[peg] = counts.get(peg, 0) + len(holes)
        for hole in holes:
            whole -= _turned(hole, axis, back=True)
    return Pegged(whole, tuple(counts.items()))


def _turned(solid: Any, axis: int, *, back: bool = False) -> Any:
    """A solid in mm with an axis made upright; or back to where it was, in m."""
    order = [(axis + 1) % 3, (axis + 2) % 3, axis]
    rows = np.zeros((3, 4))
    for row, column in enumerate(order):
        if back:
            rows[column, row] = 1 / MM
        else:
            rows[row, column] = MM
    return solid.transform(rows)


def _outline(turned: Any, at: float) -> Any:
    """What the walls enclose at a seam."""
    return turned.slice(at * MM)


def _middles(around: Any, wall: float) -> list[Real]:
    """Closed lines in the middle of the wall along a seam, (n, 2) in mm."""
    from manifold3d import JoinType

    inner = around.offset(-wall * MM / 2, JoinType.Miter)
    return [np.asarray(p, dtype=float) for p in inner.to_polygons()]


def _groove(around: Any, at: float, wall: float) -> Any:
    """A ring in the middle of the wall, as deep in either face as it is wide."""
    from manifold3d import JoinType

    half = GROOVE * MM / 2
    outer, inner = (around.offset(-wall * MM / 2 + side * half, JoinType.Miter) for side in (1, -1))
    ring = (outer - inner).extrude(2 * GROOVE * MM)
    return ring.translate([0.0, 0.0, (at - GROOVE) * MM])


def _holes(
    turned: Any, axis: int, at: float, peg: float, lines: Iterable[Real], others: Sequence[Seam]
) -> Iterator[Any]:
    """Holes across a seam, evenly along the wall, where the wall is whole around them."""
    from manifold3d import Manifold

    r, high = (peg + WIDER) / 2 * MM, (LONG + WIDER) * MM
    for line in lines:
        long = _length(line)
        count = max(LEAST, ceil(long / (APART * MM)))
        for k in range(count):
            for off in _outwards(long / count / 2):
                x, y = _along(line, (k + 0.5) * long / count + off)
                if _crosses(others, axis, x, y):
                    continue
                low = at * MM - high / 2
                cover = Manifold.cylinder(high, r + COVER * MM * 0.9).translate([x, y, low])
                if (cover - turned).volume() < 1e-3 * cover.volume():
                    yield Manifold.cylinder(high, r, -1.0, ROUND).translate([x, y, low])
                    break


def _outwards(reach: float) -> list[float]:
    """Steps from nothing to ``reach``, by turns to either side."""
    return sorted(np.linspace(-reach, reach, TRIES + 1).tolist(), key=abs)


def _length(line: Real) -> float:
    steps = np.roll(line, -1, axis=0) - line
    return float(np.sum(np.hypot(steps[:, 0], steps[:, 1])))


def _along(line: Real, way: float) -> tuple[float, float]:
    """The point so far along a closed line."""
    closed = np.vstack([line, line[:1]])
    steps = np.hypot(*np.diff(closed, axis=0).T)
    passed = np.concatenate([[0.0], np.cumsum(steps)])
    way = way % passed[-1]
    return float(np.interp(way, passed, closed[:, 0])), float(np.interp(way, passed, closed[:, 1]))


def _crosses(others: Sequence[Seam], axis: int, x: float, y: float) -> bool:
    """Whether a place on a seam is on another one, too."""
    spot = {(axis + 1) % 3: x, (axis + 2) % 3: y}
    return any(
        other in spot and abs(spot[other] - at * MM) < (LONG / 2 + COVER) * MM
        for other, at in others
    )
