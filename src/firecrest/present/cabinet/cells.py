"""The cells of a pack, as they lie, looked at from above."""

from collections.abc import Iterator

import numpy as np

from firecrest.assessment.cabinet.drawing import Sited
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.outlines import PLAN, projected
from firecrest.present.cabinet.inks import Ink, rectangle


def cells(s: Sited, pack: core.Pack) -> Iterator[Ink]:
    """Each cell of a pack as it lies: round from its end, else a rectangle."""
    a, b, c = (float(x) for x in pack.size)
    start = float(s.at.t) + float(pack.standoff)
    sides = [
        float(pack.cell_length if way == pack.axis else pack.cell_d) for way in ("u", "v", "w")
    ]
    wrap = float(pack.wrap)
    seen: set[tuple[float, float]] = set()
    counts = [round(float(n)) for n in pack.n]
    for i in range(counts[0]):
        for j in range(counts[1]):
            for k in range(counts[2]):
                middle = (
                    -a / 2 + wrap + (i + 0.5) * sides[0],
                    -b / 2 + wrap + (j + 0.5) * sides[1],
                    start + wrap + (k + 0.5) * sides[2],
                )
                points = _cell(s.at, pack, middle, sides)
                spot = tuple(np.round(points.mean(axis=0), 4))
                if spot not in seen:
                    seen.add((float(spot[0]), float(spot[1])))
                    yield Ink("cell", points, s.path)
    del c


def _cell(
    at: Frame, pack: core.Pack, middle: tuple[float, float, float], sides: list[float]
) -> Real:
    """Outline of one cell from above: a circle where it stands, a rectangle where it lies."""
    way = {"u": at.u, "v": at.v, "w": at.normal}[pack.axis]
    centre = np.array([at.at(*middle)], dtype=float)
    spot = projected(centre, PLAN)[0]
    if abs(float(way[1])) > 0.7:
        turn = np.linspace(0, 2 * np.pi, 40)
        r = float(pack.cell_d) / 2
        return np.asarray(spot + r * np.stack([np.cos(turn), np.sin(turn)], axis=1))
    corners = [
        at.at(
            middle[0] + i * sides[0] / 2, middle[1] + j * sides[1] / 2, middle[2] + k * sides[2] / 2
        )
        for i in (-1, 1)
        for j in (-1, 1)
        for k in (-1, 1)
    ]
    flat = projected(np.array(corners, dtype=float), PLAN)
    return rectangle(flat.min(axis=0), flat.max(axis=0))
