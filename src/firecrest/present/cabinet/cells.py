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
    sides = [pack.cell_length if way == pack.axis else pack.cell_d for way in ("u", "v", "w")]
    a, b, _ = (float(x) for x in pack.size)
    starts = (-a / 2, -b / 2, float(s.at.t) + float(pack.standoff))
    rows = [
        start + float(pack.wrap) + (np.arange(round(float(n))) + 0.5) * float(side)
        for start, n, side in zip(starts, pack.n, sides, strict=True)
    ]
    middles = np.stack(np.meshgrid(*rows, indexing="ij"), axis=-1).reshape(-1, 3)
    axes = np.array([s.at.u, s.at.v, [-c for c in s.at.normal]], dtype=float)
    spots = projected(np.asarray(s.at.o, dtype=float) + middles @ axes, PLAN)
    outline = _outline(s.at, pack, np.array(sides, dtype=float), axes)
    for spot in np.unique(np.round(spots, 5), axis=0):
        yield Ink("cell", spot + outline, s.path)


def _outline(at: Frame, pack: core.Pack, sides: Real, axes: Real) -> Real:
    """A cell about its middle from above: a circle where it stands, a rectangle where it lies."""
    way = {"u": at.u, "v": at.v, "w": at.normal}[pack.axis]
    if abs(float(way[1])) > 0.7:
        turn = np.linspace(0, 2 * np.pi, 40)
        return float(pack.cell_d) / 2 * np.stack([np.cos(turn), np.sin(turn)], axis=1)
    flat = projected(CORNERS * sides / 2 @ axes, PLAN)
    return rectangle(flat.min(axis=0), flat.max(axis=0))


CORNERS = np.array([(i, j, k) for i in (-1.0, 1.0) for j in (-1.0, 1.0) for k in (-1.0, 1.0)])
