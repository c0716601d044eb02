"""Lining up as a next move."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.files.demos import read_demo
from firecrest.present.text import moves as words
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.line_up import line_up
from firecrest.proposals.moves.ranking import offered


def test_ways_out_of_step_are_brought_together():
    scene = Scene(assess(read_demo("headland")))
    (move,) = line_up(scene)
    found = offered(scene, move)
    assert found.gain > 8
    assert found.free
    assert words.title(move.title) == "Line up the ways"
    assert "They lose" in words.detail(move.title, move.why)
    assert list(line_up(Scene(assess(move.design)))) == []


@pytest.mark.parametrize("name", ["slipway", "breakwater", "capstan"])
def test_where_nothing_is_out_of_step_nothing_is_said(name):
    assert list(line_up(Scene(assess(read_demo(name))))) == []
