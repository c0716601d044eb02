"""Pieces to cut and to print: cut list, sheets, layers, print plan; of one design."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.cabinet.rollup import infill_of
from firecrest.assessment.cabinet.within import pieces_of_inner
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.braces import filled, sides
from firecrest.core.cabinet.cutting import Piece, Settings, merged, saw_time, settings
from firecrest.core.cabinet.joints import cut_panels
from firecrest.core.cabinet.materials import material_share
from firecrest.core.cabinet.printing import Plan, Printer, plan, spools
from firecrest.core.cabinet.shapes import box, prism, stack, taper
from firecrest.core.cabinet.shapes.polygon import area_and_middle
from firecrest.core.cabinet.sheets import Layout, Sheet, layout
from firecrest.core.cabinet.weighing import shell_body
from firecrest.design.case import Printing


def _rods(drawing: Drawing) -> tuple[tuple[str, float, float], ...]:
    """Dowels, from wall to wall."""
    low, high = drawing.shell.low, drawing.shell.high
    long = {axis: float(high[k]) - float(low[k]) for k, axis in enumerate("xyz")}
    dowels = [b for b in drawing.rolled.braces if b.spot is not None]
    return tuple((b.name, float(b.t), long[b.axis]) for b in dowels)


LEVEL = ("top", "bottom")
"""Panels that have no upright way; their grain runs along the longer side."""
FLOW, CHANGE, SPOOL, BED_MARGIN = 8e-9, 5.0, 1.0, 0.005
"""m3/s of filament, s a layer change, kg a spool, m left at the bed's rim: estimates."""


@dataclass(frozen=True)
class Stock:
    """Pieces of one thickness: as they are cut, on sheets, and the settings they ask for."""

    thickness: float
    pieces: tuple[Piece, ...]
    sheets: Layout
    settings: Settings


@dataclass(frozen=True)
class Pieces:
    """All pieces of a case of sheets; ``seconds`` at the saw, an estimate.

    ``rods`` are dowels as (name, diameter, length) in m.
    """

    stocks: tuple[Stock, ...]
    rods: tuple[tuple[str, float, float], ...]
    cuts: int
    rounds: int
    seconds: float


def pieces_of(drawing: Drawing) -> Pieces:
    """Cut list and sheets of a wooden case, for as many cases as are cut at once."""
    stock = drawing.case.sheet
    sheet = Sheet(stock.width, stock.height, stock.kerf, stock.margin)
    rows = merged(_grained(p, stock.grain) for p in _pieces(drawing))
    found = []
    for t in sorted({round(p.t, 5) for p in rows}, reverse=True):
        mine = [p for p in rows if round(p.t, 5) == t]
        batch = [replace(p, count=p.count * stock.batch) for p in mine]
        found.append(Stock(t, tuple(mine), layout(batch, sheet), settings(mine)))
    count = sum(p.count for p in rows)
    rounds = sum(core.cut_of(s.part) is not None for s in drawing.sited)
    settled = sum(s.settings.count for s in found)
    return Pieces(
        tuple(found), _rods(drawing), 2 * count, rounds, saw_time(settled, 2 * count, rounds)
    )


def _grained(piece: Piece, grain: str) -> Piece:
    """A piece with its grain along a: its longer side, or upright as the case stands."""
    if grain == "free":
        return piece
    level = piece.name in LEVEL or grain == "longer"
    turned = piece.b > piece.a if level else True
    a, b = (piece.b, piece.a) if turned else (piece.a, piece.b)
    return replace(piece, a=a, b=b, grain=True)


def _pieces(drawing: Drawing) -> Iterator[Piece]:
    shape = drawing.rolled.shape
    if isinstance(shape, box.Box):
        for cut in cut_panels(shape):
            yield Piece(cut.name, cut.a, cut.b, cut.t)
    elif isinstance(shape, taper.Taper):
        yield from _tapered(shape)
    elif isinstance(shape, prism.Prism):
        yield from _outlined(shape)
    elif isinstance(shape, stack.Stack):
        a, b, _ = (float(s) for s in stack.outer_size(shape))
        solid = shape.solid_front + shape.solid_back
        whole = float(stack.filleted_area(shape.corners, shape.radius))
        hollow = float(stack.filleted_area(*shape.hollow))
        yield Piece("whole layer", a, b, float(shape.layer), solid, filled=whole / (a * b))
        rings = round(float(shape.rings))
        ring = (whole - hollow) / (a * b)
        yield Piece("ring layer", a, b, float(shape.layer), rings, filled=ring)
    yield from pieces_of_inner(drawing.case.inner)
    for brace in drawing.rolled.braces:
        if brace.spot is not None:
            continue
        a, b = (side + 2 * float(brace.groove) for side in sides(brace, drawing.inside))
        if a <= 0 or b <= 0:
            continue  # a plate that stands outside the case is cut from nothing
        share = filled(brace, drawing.inside)
        yield Piece(brace.name, a, b, float(brace.t), filled=share)


def _tapered(shape: taper.Taper) -> Iterator[Piece]:
    """Front and back, and four trapezoids as long side x height."""
    length, height = float(shape.length), float(shape.height)
    yield Piece("front", length, height, float(shape.t["front"]))
    back = float(shape.back_length), float(shape.back_height)
    yield Piece("back", *back, float(shape.t["back"]))
    for side in taper.SIDES:
        upright = side in ("left", "right")
        ends = (height, back[1]) if upright else (length, back[0])
        long, filled = max(ends), (ends[0] + ends[1]) / (2 * max(ends))
        slant = float(shape.depth) * float(np.sqrt(1 + float(shape.slope(side)) ** 2))
        yield Piece(side, long, slant, float(shape.t[side]), filled=filled)


def _outlined(shape: prism.Prism) -> Iterator[Piece]:
    """Edges between the end plates, or over them; the plates as their bounding boxes."""
    long = float(shape.clear if shape.ends_through else shape.length)
    for name, t, edge in zip(shape.names, shape.t, prism.edge_lengths(shape), strict=True):
        yield Piece(name, long, float(edge), float(t))
    points = np.array(shape.points if shape.ends_through else shape.inner, dtype=float)
    a, b = points.max(axis=0) - points.min(axis=0)
    filled = abs(area_and_middle(points)[0]) / float(a * b)
    for name, t in zip(shape.end_names, shape.ends, strict=True):
        yield Piece(name, float(a), float(b), float(t), filled=filled)


@dataclass(frozen=True)
class Batch:
    """Cost of all cases of a batch: what it takes of material as it is bought, and the rest.

    ``material`` are whole sheets or whole spools, ``by_measure`` the area or mass that is in the
    cases, as their price has it; ``parts`` all else in them, ``once`` what is shared.
    """

    cases: int
    material: float
    by_measure: float
    parts: float
    once: float

    @property
    def each(self) -> float:
        """A case's part of it all."""
        return (self.material + self.parts + self.once) / self.cases


def batch_of(drawing: Drawing, pieces: Pieces) -> Batch:
    """What the batch costs; sheets of all thicknesses at the panel price per area."""
    case, stock = drawing.case, drawing.case.sheet
    first = drawing.rolled.items[0]
    shell = float(first.count * first.price)
    made = print_plan(drawing)
    if case.printing is not None and made is not None:
        material = spools(made.mass, _printer(case.printing), stock.batch) * SPOOL
        material *= case.printing.price
    else:
        sheets = sum(s.sheets.sheets for s in pieces.stocks)
        material = sheets * stock.width * stock.height * case.price_per_area
    parts = stock.batch * (float(drawing.rolled.price) - shell)
    return Batch(stock.batch, material, stock.batch * shell, parts, stock.once)


def _printer(said: Printing) -> Printer:
    bed = (said.bed_x, said.bed_y, said.bed_z)
    return Printer(bed, BED_MARGIN, said.layer, FLOW, CHANGE, SPOOL)


def print_plan(drawing: Drawing) -> Plan | None:
    """What printing the case takes; None of a case of sheets."""
    said = drawing.case.printing
    if said is None:
        return None
    body = shell_body(drawing.shell, [s.part for s in drawing.sited])
    share = float(material_share(infill_of(drawing.case), float(drawing.shell.printed_wall)))
    size = [float(s) for s in drawing.shell.size]
    return plan(size, float(body.volume), share, drawing.case.density, _printer(said))
