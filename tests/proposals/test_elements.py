"""Chambers, channels and driver groups are added, moved, duplicated and removed."""

import pytest

from firecrest.assessment.assess import assess, cabinet_of
from firecrest.core.errors import DesignError
from firecrest.design.edits.boards import add_board
from firecrest.files.demos import read_demo
from firecrest.proposals import elements


@pytest.fixture
def breakwater():
    return read_demo("breakwater")


def heard(design):
    return {p.key: p.predicted for p in assess(design).promises if p.predicted is not None}


@pytest.mark.parametrize("path", [("box", "chambers", 2), ("box", "groups", 2)])
def test_another_order_changes_nothing_but_where_the_boards_are(breakwater, path):
    """Boards and cells are in the first chamber."""
    said, made = elements.moved(breakwater, path, -2)
    assert said.startswith("Move ")
    if path[1] == "groups":
        assert heard(made) == pytest.approx(heard(breakwater), rel=1e-9)
    assert sum(cabinet_of(made).air) == pytest.approx(sum(cabinet_of(breakwater).air))
    assert elements.moved(made, (*path[:-1], 0), 5)[1] == breakwater
    assert elements.moved(breakwater, path, 9)[1] == breakwater


def test_an_empty_chamber_takes_air_and_gives_it_back(slipway):
    said, made = elements.add_chamber(slipway, 0)
    assert (said, len(made.box.chambers)) == ("Add chamber", 2)
    assert sum(cabinet_of(made).air) == pytest.approx(sum(cabinet_of(slipway).air))
    assert assess(made).promise("loudness").predicted is not None
    assert elements.remove_chamber(made, 1)[1] == slipway
    with pytest.raises(DesignError, match=r"Alder W13-4.*in chamber main"):
        elements.remove_chamber(made, 0)
    with pytest.raises(DesignError, match="one chamber at least"):
        elements.remove_chamber(slipway, 0)


def test_drivers_are_duplicated_and_the_last_of_a_channel_stays(slipway):
    made = elements.duplicate_group(slipway, 0)[1]
    assert [g.id for g in made.box.groups] == ["drivers", "drivers-2"]
    assert assess(made).promise("loudness").predicted > 0
    assert elements.remove_group(made, 1)[1] == slipway
    with pytest.raises(DesignError, match="remove that way"):
        elements.remove_group(slipway, 0)


def test_a_way_is_duplicated_with_its_drivers_until_outputs_run_out(breakwater):
    made = elements.duplicate_way(breakwater, 1)[1]
    assert [c.name for c in made.voice.channels] == ["sub", "left", "left 2", "right"]
    assert sum(g.channel == "left-2" for g in made.box.groups) == 1
    assert assess(made).promise("loudness").predicted is not None
    with pytest.raises(DesignError, match=r"one more output.*add one in Power"):
        elements.duplicate_way(made, 0)
    more = add_board(made)[1]
    assert elements.duplicate_way(more, 0)[1].voice.channels[1].board == "amplifier-2"
