"""Pieces to cut and to print: cut list, sheets, layers, print plan; of one design."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.cabinet.rollup import infill_of
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.braces import sides
from firecrest.core.cabinet.cutting import Piece, Settings, merged, saw_time, settings
from firecrest.core.cabinet.joints import cut_panels
from firecrest.core.cabinet.materials import material_share
from firecrest.core.cabinet.printing import Plan, Printer, plan
from firecrest.core.cabinet.shapes import box, prism, stack, taper
from firecrest.core.cabinet.sheets import Layout, Sheet, layout
from firecrest.core.cabinet.weighing import shell_body

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
    """All pieces of a case of sheets; ``seconds`` at the saw, an estimate."""

    stocks: tuple[Stock, ...]
    cuts: int
    rounds: int
    seconds: float


def pieces_of(drawing: Drawing) -> Pieces:
    """Cut list and sheets of a wooden case, for as many cases as are cut at once."""
    stock = drawing.case.sheet
    sheet = Sheet(stock.width, stock.height, stock.kerf, stock.margin)
    rows = merged(_pieces(drawing))
    found = []
    for t in sorted({round(p.t, 5) for p in rows}, reverse=True):
        mine = [p for p in rows if round(p.t, 5) == t]
        batch = [replace(p, count=p.count * stock.batch) for p in mine]
        found.append(Stock(t, tuple(mine), layout(batch, sheet), settings(mine)))
    count = sum(p.count for p in rows)
    rounds = sum(core.cut_of(s.part) is not None for s in drawing.sited)
    settled = sum(s.settings.count for s in found)
    return Pieces(tuple(found), 2 * count, rounds, saw_time(settled, 2 * count, rounds))


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
        yield Piece("whole layer", a, b, float(shape.layer), solid)
        rings = round(float(shape.rings))
        yield Piece("ring layer", a, b, float(shape.layer), rings, form="ring")
    inner = [
        float(h) - float(lo) for lo, h in zip(drawing.shell.low, drawing.shell.high, strict=True)
    ]
    for brace in drawing.rolled.braces:
        a, b = (float(s) + 2 * float(brace.groove) for s in sides(brace, inner))
        yield Piece(brace.name, a, b, float(brace.t))


def _tapered(shape: taper.Taper) -> Iterator[Piece]:
    """Front and back, and four trapezoids as long side x height."""
    length, height = float(shape.length), float(shape.height)
    yield Piece("front", length, height, float(shape.t["front"]))
    back = float(shape.back_length), float(shape.back_height)
    yield Piece("back", *back, float(shape.t["back"]))
    for side in taper.SIDES:
        upright = side in ("left", "right")
        long = max(height, back[1]) if upright else max(length, back[0])
        slant = float(shape.depth) * float(np.sqrt(1 + float(shape.slope(side)) ** 2))
        yield Piece(side, long, slant, float(shape.t[side]))


def _outlined(shape: prism.Prism) -> Iterator[Piece]:
    """Edges between the end plates, or over them; the plates as their bounding boxes."""
    long = float(shape.clear if shape.ends_through else shape.length)
    for name, t, edge in zip(shape.names, shape.t, prism.edge_lengths(shape), strict=True):
        yield Piece(name, long, float(edge), float(t))
    points = np.array(shape.points if shape.ends_through else shape.inner, dtype=float)
    a, b = points.max(axis=0) - points.min(axis=0)
    for name, t in zip(shape.end_names, shape.ends, strict=True):
        yield Piece(name, float(a), float(b), float(t))


def print_plan(drawing: Drawing) -> Plan | None:
    """What printing the case takes; None of a case of sheets."""
    said = drawing.case.printing
    if said is None:
        return None
    bed = (said.bed_x, said.bed_y, said.bed_z)
    printer = Printer(bed, BED_MARGIN, said.layer, FLOW, CHANGE, SPOOL)
    body = shell_body(drawing.shell, [s.part for s in drawing.sited])
    share = float(material_share(infill_of(drawing.case), float(drawing.shell.printed_wall)))
    size = [float(s) for s in drawing.shell.size]
    return plan(size, float(body.volume), share, drawing.case.density, printer)
