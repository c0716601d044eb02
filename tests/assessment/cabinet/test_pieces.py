"""Pieces to cut: their weight is that of the case, their grain, what a batch costs."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.pieces import batch_of, pieces_of
from firecrest.design.edits.paths import replace_at
from firecrest.design.mount import Mount
from firecrest.files.demos import read_demo
from firecrest.proposals.shaping import with_shape

SHEET = ("box", "case", "sheet")


def drawn(design):
    return drawing_of(assess(design))


def bare(kind):
    """A case of a kind without anything mounted or glued in."""
    made = read_demo("slipway") if kind == "box" else with_shape(read_demo("slipway"), kind)[1]
    return replace_at(made, ("box", "case", "braces"), ())


@pytest.mark.parametrize(("kind", "more"), [("box", 0), ("stack", 0), ("taper", 0.12),
                                            ("prism", 0.06)])  # fmt: skip
def test_pieces_weigh_what_the_case_weighs(kind, more):
    """Slanted panels are cut square and lose their bevels: what is cut weighs a little more."""
    drawing = drawn(bare(kind))
    rows = [p for stock in pieces_of(drawing).stocks for p in stock.pieces]
    cut = sum(p.count * p.a * p.b * p.filled * p.t for p in rows)
    shell = float(drawing.shell.outside.volume - drawing.shell.inside.volume)
    assert shell * (1 - 1e-6) <= cut <= shell * (1 + more + 1e-6)


@pytest.mark.parametrize(
    ("grain", "front"), [("free", (0.338, 0.198)), ("longer", (0.338, 0.198)),
                         ("upright", (0.198, 0.338))],
)  # fmt: skip
def test_grain_runs_along_the_first_side_and_is_not_turned(grain, front):
    design = replace_at(bare("box"), (*SHEET, "grain"), grain)
    (stock,) = pieces_of(drawn(design)).stocks
    piece = next(p for p in stock.pieces if "front" in p.name)
    assert (piece.a, piece.b) == pytest.approx(front)
    assert piece.grain == (grain != "free")
    for laid in stock.sheets.laid:
        if laid.piece.grain:
            assert (laid.a, laid.b) == (laid.piece.a, laid.piece.b)


def test_a_batch_buys_whole_sheets_and_shares_its_jigs():
    one = drawn(bare("box"))
    alone = batch_of(one, pieces_of(one))
    case = one.case
    sheet = case.sheet.width * case.sheet.height * case.price_per_area
    assert alone.material == pytest.approx(sheet)
    assert alone.material + alone.parts - float(one.rolled.price) == pytest.approx(
        sheet - float(one.rolled.items[0].price)
    )
    ten = replace_at(replace_at(bare("box"), (*SHEET, "batch"), 10), (*SHEET, "once"), 50.0)
    many = drawn(ten)
    batch = batch_of(many, pieces_of(many))
    assert batch.parts == pytest.approx(10 * alone.parts)
    assert batch.material < 10 * alone.material
    assert batch.each == pytest.approx((batch.material + batch.parts + 50) / 10)


def test_an_opening_changes_no_piece():
    """Openings are cut after the pieces."""
    fitted = replace_at(bare("box"), ("box", "groups", 0, "mounts"), (Mount(panel="front"),))
    pieces = [pieces_of(drawn(d)).stocks[0].pieces for d in (fitted, bare("box"))]
    assert pieces[0] == pieces[1]
