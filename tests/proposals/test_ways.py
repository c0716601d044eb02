"""Ways that come and go."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.core.errors import DesignError
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.files.demos import read_demo
from firecrest.proposals.layouts import with_own_chamber
from firecrest.proposals.ways import with_way, without_way


@pytest.fixture
def one_way(slipway):
    """Slipway's drivers on one output, the other one free."""
    design = set_number(slipway, ("box", "groups", 0, "in_parallel"), 2)
    return set_number(design, ("voice", "channels", 0, "outputs"), 1)


def test_a_way_brings_channel_drivers_chamber_and_both_filters(one_way):
    label, made = with_way(one_way)
    assert label == "Add way high"
    low, high = made.voice.channels
    assert (low.blocks[-1].kind, high.blocks[0].kind) == ("low_pass", "high_pass")
    assert low.blocks[-1].frequency == high.blocks[0].frequency
    assert made.box.groups[1].channel == high.id
    own = made.box.groups[1].chamber
    assert own != made.box.groups[0].chamber
    assert sum(c.share for c in made.box.chambers) == pytest.approx(one_way.box.chambers[0].share)
    assert assess(made).promise("bass").predicted is not None


def test_a_way_that_goes_takes_its_drivers_and_gives_back_its_air(one_way):
    _, made = with_way(one_way)
    label, back = without_way(made, 1)
    assert label == "Remove way high"
    assert back.box.chambers[0].share == pytest.approx(one_way.box.chambers[0].share)
    assert [g.id for g in back.box.groups] == [g.id for g in one_way.box.groups]
    assert back.box.openings == one_way.box.openings
    assert [c.name for c in without_way(made, 0)[1].voice.channels] == ["high"]


def test_a_board_without_a_free_output_and_the_last_way_refuse(slipway):
    with pytest.raises(DesignError, match="Sedge 2x60 has 2: choose another board"):
        with_way(slipway)
    with pytest.raises(DesignError, match="last way"):
        without_way(slipway, 0)


def test_ways_are_named_apart_and_can_be_named_anew():
    breakwater = read_demo("breakwater")
    _, made = with_way(breakwater)
    assert [c.name for c in made.voice.channels] == ["sub", "left", "right", "way 4"]
    named = replace_at(made, ("voice", "channels", 3, "name"), "voice range")
    assert assess(named).promise("loudness").predicted is not None


def test_a_chamber_too_many_is_refused_in_words():
    _, four = with_way(read_demo("breakwater"))
    fifth = rebuilt(four.box.groups[1], id="more", chamber=four.box.groups[0].chamber)
    crowded = replace_at(four, ("box", "groups"), (*four.box.groups, fifth))
    with pytest.raises(DesignError, match="at most 4"):
        with_own_chamber(crowded, 4)
