"""Things in a case: where each is mounted, what it takes of the air, and its solid.

Depths count inwards from a panel's outer face. The seal plane of drivers and radiators is the rear
of the flange: as deep as the recess. Lengths in m, volumes in m3, masses in kg.
"""

from dataclasses import dataclass
from itertools import pairwise
from math import pi
from typing import Literal

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.cabinet.cutouts import (
    CutOut,
    Rectangle,
    Round,
    Truncated,
    area,
    circle_area,
    framed,
    truncated_area,
)
from firecrest.core.cabinet.frames import Frame, Vector, added, scaled
from firecrest.core.cabinet.solids import Solid, cut_lathe, lathe, prism, quarter, solid, tube

FLANGE = 0.004
FRAME_OVER = 0.014
MAGNET_SHARE = 0.6
MAGNET_DEEP = 0.3
END_SHARE = 0.5
LOOSE_CELLS = 1.10
"""Estimates: flange, frame over its cut-out, magnet of cut-out and depth, a radiator's end of its
cut-out, and what nickel and glue add to bare cells."""
NODES, WEIGHTS = np.polynomial.legendre.leggauss(48)


@dataclass(frozen=True)
class Mount:
    """A place: on which panel, (u, v) from the middle of its outer face, turned by ``rot`` rad."""

    panel: str
    u: Number = 0.0
    v: Number = 0.0
    rot: Number = 0.0
    chamber: str = "main"


@dataclass(frozen=True)
class Driver:
    """A driver as a frustum and a magnet; ``depth`` from the seal plane, magnet included.

    ``displacement`` is a maker's figure: it replaces the solid in the air, not in what fits.
    """

    name: str
    mount: Mount
    cut: CutOut
    frame: Number
    recess: Number
    depth: Number
    magnet_d: Number
    magnet_h: Number
    mass: Number = 0.0
    from_inside: bool = False
    displacement: Number | None = None
    sd: Number | None = None
    xmax: Number | None = None
    moving_mass: Number = 0.0
    kind: Literal["driver"] = "driver"


@dataclass(frozen=True)
class Radiator:
    """A passive radiator as a frustum to ``end_d``; ``sag`` of one that lies."""

    name: str
    mount: Mount
    cut: CutOut
    frame: Number
    recess: Number
    depth: Number
    end_d: Number
    mass: Number = 0.0
    from_inside: bool = False
    displacement: Number | None = None
    sd: Number | None = None
    xmax: Number | None = None
    sag: Number = 0.0
    moving_mass: Number = 0.0
    kind: Literal["radiator"] = "radiator"


@dataclass(frozen=True)
class Board:
    """A brick (along u, along v, inwards) at ``standoff`` from the inner face.

    An inner box is one, too: its panel closes it. ``fins``: along "u" or "v", "" of none.
    """

    name: str
    mount: Mount
    size: tuple[Number, Number, Number]
    standoff: Number
    mass: Number = 0.0
    displacement: Number | None = None
    kind: Literal["board", "inner box"] = "board"
    fins: Literal["", "u", "v"] = ""


@dataclass(frozen=True)
class Pack:
    """Cells along u, v and inwards; ``axis``: which way they lie. Fit is by the whole brick."""

    name: str
    mount: Mount
    cell_d: Number
    cell_length: Number
    n: tuple[Number, Number, Number]
    axis: Literal["u", "v", "w"]
    wrap: Number
    wrapped: bool
    standoff: Number
    mass: Number = 0.0
    displacement: Number | None = None
    kind: Literal["pack"] = "pack"

    @property
    def size(self) -> tuple[Number, Number, Number]:
        """Along u, v and inwards, with its wrap."""
        a, b, c = (
            n * (self.cell_length if way == self.axis else self.cell_d) + 2 * self.wrap
            for n, way in zip(self.n, "uvw", strict=True)
        )
        return a, b, c


@dataclass(frozen=True)
class Cup:
    """A terminal or handle cup: its cut-out, ``depth`` deep from the outer face; or a vent."""

    name: str
    mount: Mount
    cut: CutOut
    depth: Number
    mass: Number = 0.0
    displacement: Number | None = None
    kind: Literal["cup", "vent"] = "cup"


@dataclass(frozen=True)
class Bend:
    """Straight for ``after``, then a quarter turn of ``radius`` along the panel, in or out."""

    after: Number
    radius: Number
    to: Literal["+u", "-u", "+v", "-v", "in", "out"]


@dataclass(frozen=True)
class Port:
    """A pipe along its middle line from the outer face, or a slot where ``slot`` is given.

    ``slot``: its inner width and height; a slot shares one wall each way with the case.
    """

    name: str
    mount: Mount
    bore: Number
    wall: Number
    length: Number
    bends: tuple[Bend, ...] = ()
    slot: tuple[Number, Number] | None = None
    mass: Number = 0.0
    displacement: Number | None = None
    kind: Literal["port"] = "port"

    @property
    def outer_area(self) -> Number:
        """Square to its middle line, wall included."""
        if self.slot is not None:
            return (self.slot[0] + self.wall) * (self.slot[1] + self.wall)
        return pi * (self.bore / 2 + self.wall) ** 2


@dataclass(frozen=True)
class Knob:
    """A knob's hole; its ``bushing`` is long enough for so much panel and its ``nut``."""

    name: str
    mount: Mount
    cut: CutOut
    bushing: Number
    nut: Number
    mass: Number = 0.0
    displacement: Number | None = None
    kind: Literal["knob"] = "knob"


@dataclass(frozen=True)
class Loose:
    """Something without a place: it takes its air and weighs, and has no solid."""

    name: str
    kind: str
    chambers: tuple[str, ...]
    volume: Number
    mass: Number


Part = Driver | Radiator | Board | Pack | Cup | Port | Knob
Framed = Driver | Radiator


def cut_of(part: Part) -> CutOut | None:
    """The hole it needs in its panel."""
    if isinstance(part, Board | Pack):
        return None
    if isinstance(part, Port):
        return Rectangle(*part.slot) if part.slot is not None else Round(part.bore)
    return part.cut


def _frustum(cut: CutOut, end: Number, deep: Number) -> Number:
    """Volume of a frustum from a cut-out to a circle of diameter ``end``, its flats kept."""
    if not isinstance(cut, Truncated):
        start = cut.d / 2 if isinstance(cut, Round) else cut.a / 2
        return pi * deep / 3 * (start**2 + start * end / 2 + end**2 / 4)
    total: Number = 0.0
    for node, weight in zip(NODES, WEIGHTS, strict=True):
        r = cut.d / 2 + (end - cut.d) / 2 * (node + 1) / 2
        total = total + weight * truncated_area(r, cut.flats / 2)
    return total * deep / 2


def solid_volume(part: Part) -> Number:
    """What its solid takes behind the seal plane or the outer face, floats or columns."""
    if isinstance(part, Driver):
        magnet = circle_area(part.magnet_d)
        if isinstance(part.cut, Truncated):
            magnet = truncated_area(part.magnet_d / 2, part.cut.flats / 2)
        cone = _frustum(part.cut, part.magnet_d, part.depth - part.magnet_h)
        return cone + magnet * part.magnet_h
    if isinstance(part, Radiator):
        return _frustum(part.cut, part.end_d, part.depth)
    if isinstance(part, Pack):
        if not part.wrapped:
            count = part.n[0] * part.n[1] * part.n[2]
            return LOOSE_CELLS * count * circle_area(part.cell_d) * part.cell_length
        a, b, c = part.size
        return a * b * c
    if isinstance(part, Board):
        return part.size[0] * part.size[1] * part.size[2]
    if isinstance(part, Cup):
        return area(part.cut) * part.depth
    if isinstance(part, Port):
        return part.outer_area * part.length
    return 0.0


def air_taken(part: Part) -> Number:
    """What it takes of the air in the ledger: a maker's displacement before the solid."""
    return solid_volume(part) if part.displacement is None else part.displacement


def opening(part: Part, t: Number) -> Number:
    """Air between seal plane and inner face of a panel ``t`` thick, which belongs to the box."""
    if isinstance(part, Driver | Radiator):
        return area(part.cut) * (t - seal_plane(part, t))
    if isinstance(part, Cup):
        return area(part.cut) * t
    return part.outer_area * t if isinstance(part, Port) else 0.0


def hole(part: Part, t: Number) -> Number:
    """Material gone from the panel, but for the recess."""
    if isinstance(part, Knob):
        return area(part.cut) * t
    if isinstance(part, Driver | Radiator) and part.from_inside:
        return area(part.cut) * t
    return opening(part, t)


def recess(part: Part) -> Number:
    """Material gone under the flange, openings included."""
    if isinstance(part, Driver | Radiator) and not part.from_inside:
        return area(framed(part.cut, part.frame)) * part.recess
    return 0.0


def seal_plane(part: Framed, t: Number) -> Number:
    """How deep the rear of the flange is; the inner face where it is mounted from inside."""
    return t if part.from_inside else part.recess


def placed(part: Part, frames: dict[str, Frame]) -> Frame:
    """The frame at its place."""
    m = part.mount
    return frames[m.panel].placed(float(m.u), float(m.v), float(m.rot))


def solid_of(part: Part, at: Frame, swept: bool = False) -> Solid | None:
    """Its solid; ``swept``: a radiator wherever its travel and sag take it. None of a knob."""
    if isinstance(part, Driver | Radiator):
        return _turned(part, at, swept)
    if isinstance(part, Board | Pack):
        a, b, c = part.size
        start = at.t + float(part.standoff)
        return solid([prism(at, Rectangle(a, b), start, start + float(c))])
    if isinstance(part, Cup):
        cut = part.cut
        sharp = Rectangle(cut.a, cut.b) if isinstance(cut, Rectangle) else cut
        return solid([prism(at, sharp, 0.0, float(part.depth))])
    if isinstance(part, Port):
        return _pipe(part, at)
    return None


def _turned(part: Framed, at: Frame, swept: bool) -> Solid:
    start, r = float(seal_plane(part, at.t)), _radius(part.cut)
    if isinstance(part, Driver):
        back, neck = start + part.depth, start + part.depth - part.magnet_h
        m = part.magnet_d / 2
        profiles = [[(start, r), (neck, m)], [(neck, m), (back, m)]]
    else:
        travel = float(part.xmax or 0.0) + float(part.sag) if swept else 0.0
        profile = [(start, r), (start + travel, r), (start + travel + part.depth, part.end_d / 2)]
        profiles = [profile if travel else [profile[0], profile[2]]]
    if isinstance(part.cut, Truncated):
        return solid([cut_lathe(at, p, float(part.cut.flats)) for p in profiles])
    return solid([lathe(at, p) for p in profiles])


def _radius(cut: CutOut) -> float:
    return float(cut.a if isinstance(cut, Rectangle) else cut.d) / 2


Path = list[tuple[Real, Real, Real]]


def middle_line(part: Port, at: Frame) -> tuple[list[Path], Real, Real]:
    """Stretches of a port's middle line, straight or bent, its open end and where that looks."""
    point, ahead = np.asarray(at.o), -np.asarray(at.normal)
    u, v = np.asarray(at.u), np.asarray(at.v)
    ways = {"+u": u, "-u": -u, "+v": v, "-v": -v, "in": ahead, "out": -ahead}
    stretches: list[Path] = []
    gone, a, b = 0.0, u, v
    for bend in part.bends:
        end = point + ahead * float(bend.after)
        stretches.append([(point, a, b), (end, a, b)])
        aside = ways[bend.to]
        path, point = quarter(end, ahead, aside, float(bend.radius))
        stretches.append(path)
        _, a, b = path[-1]
        ahead = aside
        gone += float(bend.after) + pi / 2 * float(bend.radius)
    end = point + ahead * (float(part.length) - gone)
    stretches.append([(point, a, b), (end, a, b)])
    return stretches, end, ahead


def _pipe(part: Port, at: Frame) -> Solid:
    if part.slot is not None:
        outer = Rectangle(part.slot[0] + part.wall, part.slot[1] + part.wall)
        return solid([prism(at, outer, 0.0, float(part.length))])
    stretches, _, _ = middle_line(part, at)
    r = float(part.bore) / 2 + float(part.wall)
    return solid([piece for path in stretches for piece in tube(path, r)])


def centre(part: Part, at: Frame) -> Vector:
    """Where its mass is taken to sit: of a driver 80 % in its magnet, 20 % at the seal plane."""
    if isinstance(part, Driver):
        seal = float(seal_plane(part, at.t))
        return at.at(0.0, 0.0, seal + 0.8 * float(part.depth - part.magnet_h / 2))
    if isinstance(part, Radiator):
        return at.at(0.0, 0.0, float(seal_plane(part, at.t)) + float(part.depth) / 3)
    if isinstance(part, Board | Pack):
        return at.at(0.0, 0.0, at.t + float(part.standoff) + float(part.size[2]) / 2)
    if isinstance(part, Cup):
        return at.at(0.0, 0.0, float(part.depth) / 2)
    if isinstance(part, Port):
        return _along(part, at)
    return at.o


def _along(part: Port, at: Frame) -> Vector:
    """The middle of a port's middle line."""
    stretches, _, _ = middle_line(part, at)
    moment: Vector = (0.0, 0.0, 0.0)
    total = 0.0
    for path in stretches:
        for (p, _, _), (q, _, _) in pairwise(path):
            long = float(np.sqrt(np.sum((q - p) ** 2)))
            x, y, z = (p + q) / 2
            moment, total = added(moment, (x, y, z), long), total + long
    return scaled(moment, 1.0 / total)
