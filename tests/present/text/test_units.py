"""Units as chosen: one object for fields and texts."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.present.frame.effects import changes
from firecrest.present.size.facts import facts
from firecrest.present.text.units import ShownUnits, units
from firecrest.present.text.words import box_facts, margin_text, promise_unit


@pytest.fixture
def inches():
    chosen = {("length", "mm"): "in", ("mass", "kg"): "lb", ("mass", "g"): "oz"}
    units.follow(lambda quantity, usual: chosen.get((quantity, usual), usual))
    yield
    units.follow(lambda quantity, usual: usual)


def test_the_usual_unit_stands_where_none_of_its_own_is_chosen():
    own = ShownUnits()
    assert own.text(0.188, "length", "mm", 0) == "188\u202fmm"
    own.follow(lambda quantity, usual: "parsec")
    assert own.text(0.188, "length", "mm", 0) == "188\u202fmm"
    own.follow(lambda quantity, usual: {"length": "in", "mass": "kg"}.get(quantity, usual))
    assert own.text(0.188, "length", "mm", 0) == "7.40\u202fin"
    assert own.of(0.0254, 0.0508, "length", "mm", (1, 0)) == "1.000 of 2.00\u202fin"
    assert own.sides((0.0254, 0.0508)) == "1.00 × 2.00\u202fin"
    assert own.text(0.012, "mass", "g", 0) == "0.012\u202fkg"
    assert own.text(0.001, "volume", "L", 1) == "1.0\u202fL", "each kind of figure by itself"


def test_texts_of_a_design_follow(slipway, inches):
    before = assess(slipway)
    size = before.promise("size")
    assert promise_unit("size", slipway).suffix == "in to spare"
    assert margin_text(before.promise("weight"), slipway).endswith("lb in hand")
    told = {fact.name: fact.value for fact in facts(before, ("box", "openings", 0))}
    assert told["Moves in all"].endswith("oz each")
    assert told["Sag"].endswith("in")
    assert "L" in box_facts(before)
    heavier = [p if p.key != "weight" else size for p in before.promises]
    assert changes(heavier, before.promises) == []
