"""Cut list, sheets and print plan as rows."""

from collections.abc import Sequence

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.cabinet.pieces import Pieces, batch_of, print_plan
from firecrest.core.cabinet.cutting import Piece
from firecrest.core.cabinet.sheets import Offcut
from firecrest.core.units import figure
from firecrest.present.size.facts import Fact
from firecrest.present.text.units import told, told_sides

COLUMNS = ("Piece", "Pieces", "Size", "Thick", "Grain", "Each weighs")


def size_text(piece: Piece) -> str:
    """Both measures of a piece."""
    a, b = (told(side, "length", "mm", 1) for side in (piece.a, piece.b))
    return f"{a} × {b}"


def cut_rows(drawing: Drawing, pieces: Pieces) -> list[tuple[str, ...]]:
    """Rows of the cut list, thickest first."""
    density = drawing.case.density
    rods: list[tuple[str, ...]] = [
        (
            name.capitalize(),
            "1",
            f"{told(long, 'length', 'mm', 1)}, round",
            told(thick, "length", "mm", 1),
            "along it",
            told(np.pi / 4 * thick**2 * long * density, "mass", "kg", 2),
        )
        for name, thick, long in pieces.rods
    ]
    cut: list[tuple[str, ...]] = [
        (
            p.name.capitalize(),
            str(p.count),
            size_text(p),
            told(p.t, "length", "mm", 1),
            f"along {told(p.a, 'length', 'mm', 1)}" if p.grain else "free",
            told(p.a * p.b * p.filled * p.t * density, "mass", "kg", 2),
        )
        for stock in pieces.stocks
        for p in stock.pieces
    ]
    return cut + rods


PRINTED = ("Piece", "Size", "Layers")


def print_rows(drawing: Drawing) -> list[tuple[str, ...]]:
    """Rows of the pieces of a print, as the bed asks for."""
    made = print_plan(drawing)
    if made is None:
        return []
    size = [float(s) / n for s, n in zip(drawing.shell.size, made.split, strict=True)]
    layers = str(round(made.layers / made.pieces))
    return [
        (f"Piece {k + 1} of {made.pieces}", told_sides(size), layers) for k in range(made.pieces)
    ]


PRINT_ADVICE = (
    "Overhangs above 45° from upright need support, or the piece turned.",
    "Seams: pegs of 6 × 16 mm every 60 mm and two at least, holes 0.2 mm wider, epoxy in a groove "
    "of 1 × 1 mm. Inserts M3: holes of 4 × 6 mm with two walls more round them. Estimates.",
    "Sealing: three walls or more and two coats of varnish or epoxy inside; a hollow infill leaks "
    "through one pinhole. Press a radiator: it must stay in for seconds.",
)


def order_text(pieces: Pieces) -> list[str]:
    """The order of cuts in sentences: few settings of the fence, openings before glue."""
    said = []
    for stock in pieces.stocks:
        widths, lengths = (
            ", ".join(told(w, "length", "mm", 1) for w in found)
            for found in (stock.settings.widths, stock.settings.lengths)
        )
        thick = told(stock.thickness, "length", "mm", 1)
        said.append(
            f"{thick}: rip to {widths}, then cross-cut to {lengths}: "
            f"{stock.settings.count} settings of fence and stop."
        )
    said.append("Rabbets and grooves next, by depth; bevels last; openings before glue.")
    return said


def sheet_facts(pieces: Pieces) -> list[Fact]:
    """Sheets of each thickness, how full they are, and the time at the saw."""
    found = []
    for stock in pieces.stocks:
        thick = told(stock.thickness, "length", "mm", 1)
        layout = stock.sheets
        if layout.too_large:
            names = ", ".join(layout.too_large)
            found.append(Fact(f"{thick}: no sheet holds", names, "short"))
            continue
        used = figure(100 * layout.used, 0)
        sheets = "1 sheet" if layout.sheets == 1 else f"{layout.sheets} sheets"
        found.append(Fact(f"Sheets of {thick}", f"{sheets}, {used} % used"))
        found += _offcut_facts(layout.offcuts)
    hours = pieces.seconds / 3600
    found.append(
        Fact(
            "At the saw",
            f"{figure(hours, 1)} h",
            "",
            "An estimate: 3 min a setting, 1.5 min a cut, 6 min a round cut-out.",
        )
    )
    return found


OFFCUTS_TOLD = 2


def _offcut_facts(offcuts: Sequence[Offcut]) -> list[Fact]:
    """The largest rests of the sheets."""
    if not offcuts:
        return []
    told_ones = ", ".join(
        size_text(Piece("", rest.a, rest.b, 0.0)) for rest in offcuts[:OFFCUTS_TOLD]
    )
    more = len(offcuts) - OFFCUTS_TOLD
    help = "Whole rectangles of 60 mm and more that stay over; dashed on the sheets."
    return [Fact("Offcuts", told_ones + (f" and {more} more" if more > 0 else ""), "", help)]


def batch_facts(drawing: Drawing, pieces: Pieces) -> list[Fact]:
    """What the material costs as it is bought, and a whole case with it."""
    batch = batch_of(drawing, pieces)
    printed = drawing.case.printing is not None
    unit = "spools" if printed else "sheets"
    by = "mass" if printed else "area"
    own = _money(batch.by_measure / batch.cases)
    help = f"Whole {unit}. By {by} alone {own} a case, which is what the promised price counts."
    found = [Fact(f"Whole {unit}", _money(batch.material), "", help)]
    if batch.cases > 1:
        each = f"{_money(batch.material / batch.cases)} a case"
        found = [Fact(f"Whole {unit}", f"{_money(batch.material)}, {each}", "", help)]
    cases = "The case" if batch.cases == 1 else f"Each of {batch.cases}"
    shared = f" and {_money(batch.once)} shared by all" if batch.once else ""
    found.append(
        Fact(
            f"{cases}, with its parts",
            _money(batch.each),
            "",
            f"Whole {unit}, {_money(batch.parts / batch.cases)} of parts in each{shared}.",
        )
    )
    return found


def _money(value: float) -> str:
    return told(value, "money", "€", 2)


def print_facts(drawing: Drawing) -> list[Fact]:
    """What printing takes; empty of a case of sheets."""
    made = print_plan(drawing)
    if made is None:
        return []
    along = [f"{n} along {axis}" for axis, n in zip("xyz", made.split, strict=True) if n > 1]
    pieces = "in one piece" if made.pieces == 1 else f"{made.pieces} pieces ({', '.join(along)})"
    seal = "Three walls or more and two coats inside: hollow infill leaks through one pinhole."
    return [
        Fact("Printed", pieces, "met" if made.pieces == 1 else "", "By the bed less its margins."),
        Fact("Stands on", f"its {made.upright} axis upright"),
        Fact("Weighs", told(made.mass, "mass", "kg", 2)),
        Fact("Takes", f"{figure(made.seconds / 3600, 1)} h", "", "8 mm³/s and 5 s a layer."),
        Fact("Filament", f"{told(made.filament, 'length', 'm', 0)}, {made.spools} × 1 kg"),
        Fact("Sealing", "varnish or epoxy inside", "", seal),
    ]
