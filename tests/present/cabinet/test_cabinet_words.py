"""The ledger, tight spots, balance and pieces in words."""

from itertools import pairwise

import pytest
from tests.assessment.cabinet.made import drawn, placed

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.pieces import pieces_of
from firecrest.assessment.cabinet.spots import spots_of
from firecrest.design.case import Printing
from firecrest.design.edits.cabinet import measured_by_filling, moved, not_measured
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.files.demos import read_demo
from firecrest.present.cabinet.cutlist import cut_rows, order_text, print_facts, sheet_facts
from firecrest.present.cabinet.ledger import ledger_rows, measured_note
from firecrest.present.cabinet.tight import balance_facts, card_facts, panel_facts, tight_facts
from firecrest.present.text.sentences import why
from firecrest.proposals.shaping import with_shape


def test_the_ledger_goes_from_outside_to_net_bar_by_bar():
    assessed = assess(placed())
    rows = ledger_rows(assessed)
    assert [r.name for r in rows][:3] == ["Outside", "Walls, 12.0\u202fmm", "Openings"]
    assert rows[-1].name == "Air left, Vb"
    assert rows[-1].value == f"{float(assessed.cabinet.air[0]) * 1e3:.2f}"
    taken = [r for r in rows if not r.strong]
    for before, after in pairwise(taken):
        assert {before.start, before.end} & {after.start, after.end}
    assert min(taken[-1].start, taken[-1].end) == pytest.approx(rows[-1].end)


def test_a_measured_volume_overrules_and_the_difference_is_told():
    label, made = measured_by_filling(placed(), 0, "water", 8.0)
    assert label == "Measured volume of main"
    assessed = assess(made)
    assert float(assessed.cabinet.air[0]) == pytest.approx(8.0 / 998)
    assert "less than the drawing gives" in measured_note(assessed)
    assert ledger_rows(assessed)[-1].name.endswith("measured")
    assert not_measured(made, 0)[1] == placed()


def test_every_chamber_has_its_net_air():
    rows = ledger_rows(assess(read_demo("breakwater")))
    assert [r.name for r in rows if r.key.startswith("net")] == ["sub, Vb", "left, Vb", "right, Vb"]


def test_tight_spots_come_first_then_how_far_all_else_is():
    loose = tight_facts(spots_of(drawn(placed())[1]))
    assert [f.mark for f in loose] == ["met"]
    crowded = drawn(moved(placed(), ("power", "source", "mount"), -0.115, 0.0))[1]
    facts = tight_facts(spots_of(crowded))
    assert facts[0].mark == "short"
    names = [f.name for f in facts]
    assert "Flint 21 stands 14\u202fmm into the right" in names
    assert "Rowan R16 2 and Flint 21 are in one place" in names
    assert [f.name for f in card_facts(crowded, spots_of(crowded))][-2:] == [
        "All else",
        "Tips over at",
    ]
    flat = drawn(set_number(placed(), ("box", "case", "depth"), 0.11))[1]
    card = card_facts(flat, spots_of(flat))
    tight = [s for s in spots_of(flat) if s.tight]
    assert len(tight) > 2
    assert card[2].name == f"{len(tight) - 2} more", "nothing is called apart while more is told"
    assert card[2].mark == "short"


def test_balance_says_where_the_weight_is_and_whether_it_walks():
    assessed, drawing = drawn(placed())
    facts = {f.name: f for f in balance_facts(assessed, drawing)}
    assert "the middle" in facts["Weight sits"].value
    assert facts["Tips over at"].mark == "met"
    assert "Walks" in facts or "Stands still" in facts
    names = [f.name for f in panel_facts(drawing)]
    assert names == ["Front", "Back", "Left", "Right", "Top", "Bottom"]


def test_cut_list_order_sheets_and_time():
    drawing = drawn(placed())[1]
    pieces = pieces_of(drawing)
    rows = cut_rows(drawing, pieces)
    assert rows[0][:3] == ("Front, back", "2", "338.0\u202fmm × 198.0\u202fmm")
    assert "settings of fence and stop" in order_text(pieces)[0]
    facts = sheet_facts(pieces)
    assert facts[0].value.startswith("1 sheet")
    assert print_facts(drawing) == []
    printed = replace_at(placed(), ("box", "case", "printing"), Printing())
    said = {f.name: f.value for f in print_facts(drawn(printed)[1])}
    assert "pieces" in said["Printed"]
    assert "spool" not in said["Weighs"]


@pytest.mark.parametrize("kind", ["taper", "prism", "stack"])
def test_other_shapes_of_wood_have_a_cut_list_too(kind):
    made = with_shape(read_demo("slipway"), kind)[1]
    drawing = drawing_of(assess(made))
    rows = cut_rows(drawing, pieces_of(drawing))
    assert len(rows) >= 2
    if kind == "stack":
        assert "Ring layer" in [row[0] for row in rows]


def test_why_begins_with_what_cannot_be_built_and_leads_to_its_place():
    crowded = assess(moved(placed(), ("power", "source", "mount"), 0.092, -0.02))
    first = why(crowded)[0]
    assert first.plain == "Sedge 2x60 and Flint 21 are in one place: it cannot be built."
    assert first.pieces[0].path == ("power", "source", "mount", "u")
    assert not [s for s in why(assess(placed())) if "built" in s.plain]
