"""Amplifier boards and converters come and go; outputs are dealt out visibly."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.core.errors import DesignError
from firecrest.design.edits import boards
from firecrest.design.edits.paths import replace_at
from firecrest.design.power import BUS
from firecrest.files.demos import read_demo
from firecrest.present.power.power import amplifier_names, outputs_words, rails


def test_a_converter_feeds_a_board_and_leaves_it_on_the_source(slipway):
    said, fed = boards.add_converter(slipway)
    assert (said, fed.power.boards[0].rail) == ("Add converter", "converter")
    assert fed.power.converters[0].output_voltage == 24.0
    assert [name for _, name in rails(fed)] == ["the pack", "Converter"]
    assert assess(fed).promise("loudness").predicted is not None
    with pytest.raises(DesignError, match="has a converter"):
        boards.add_converter(fed)
    fed = replace_at(fed, ("power", "other_loads", 0, "rail"), "converter")
    assert boards.remove_converter(fed, 0)[1] == slipway


def test_a_second_board_can_take_a_channel_and_goes_when_it_carries_none(slipway):
    two = boards.add_board(slipway)[1]
    assert [n for _, n in amplifier_names(two)] == ["Sedge 2x60, 1", "Sedge 2x60, 2"]
    words = [outputs_words(two, k) for k in (0, 1)]
    assert words == ["Outputs: all on 1 and 2", "Outputs: 1 and 2 free"]
    moved = boards.on_board(two, 0, two.power.boards[1].id)[1]
    assert outputs_words(moved, 0) == "Outputs: 1 and 2 free"
    quieter = [assess(d).promise("loudness").predicted for d in (moved, slipway)]
    assert 0 < quieter[1] - quieter[0] < 0.3, "the idle board loads the same pack"
    assert boards.remove_board(moved, 0)[1].power.boards[0].rail == BUS
    with pytest.raises(DesignError, match="carries all"):
        boards.remove_board(moved, 1)


def test_unequal_outputs_are_told_by_channel():
    design = read_demo("breakwater")
    assert outputs_words(design, 0) == "Outputs: sub on 1, left on 2, right on 3, 4 free"
