"""Where things are mounted is where they sound from; doubts of ports reach the ceiling."""

import numpy as np
import pytest
from tests.assessment.cabinet.made import bare

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.places import place_of
from firecrest.assessment.columns import put
from firecrest.assessment.lower.whole import lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.sounding import sounding
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.design.mount import Mount
from firecrest.files.demos import read_demo

SLIPWAY = bare()
GROUP, ENDS = ("box", "groups", 0, "mounts"), ("box", "openings", 0, "mounts")


@pytest.mark.parametrize("figure", ["air_speed", "air_loss"])
def test_what_is_doubted_of_ports_changes_their_ceiling(figure):
    numbers = lower(read_demo("breakwater"), Memo(AFRESH)).inputs
    tops = [
        sounding(put(numbers, ("box", figure), np.array([[value]])), EDIT_GRID, Memo(AFRESH)).top
        for value in (1.0, 0.5)
    ]
    assert np.max(np.abs(tops[1].level - tops[0].level)) > 0.5


def test_a_pair_sounds_from_the_middle_between_its_places():
    pair = (Mount(u=-0.07, v=0.02), Mount(u=0.09, v=0.02))
    made = replace_at(SLIPWAY, GROUP, pair)
    place = place_of(made.box.case, made.box.groups[0])
    assert (place.right, place.up, place.forward) == pytest.approx((0.01, 0.02, 0.0))


def test_radiators_on_the_ends_sound_from_half_the_depth_which_follows_the_case():
    made = replace_at(SLIPWAY, ENDS, (Mount(panel="left"), Mount(panel="right")))
    for depth in (0.188, 0.25):
        deep = set_number(made, ("box", "case", "depth"), depth)
        place = place_of(deep.box.case, deep.box.openings[0])
        assert (place.right, place.forward) == pytest.approx((0.0, -depth / 2))
        spots = assess(deep).acoustic.scene.model.places.opening[0]
        assert spots == pytest.approx((0.0, 0.0, -depth / 2))


def test_a_place_on_a_panel_that_is_not_there_leaves_the_thing_without_one():
    made = replace_at(SLIPWAY, GROUP, (Mount(panel="nowhere"), Mount(u=0.1)))
    place = place_of(made.box.case, made.box.groups[0])
    assert place.right == pytest.approx(0.1)
    assert assess(made).promises


@pytest.mark.parametrize("name", ["slipway", "lantern"])
def test_what_is_moved_leaves_the_network_and_its_solution_as_they_are(name):
    design, memo = read_demo(name), Memo()
    path = ("box", "groups", 0, "mounts", 0)
    before = assess(design, memo)
    solved = memo.runs["solve"]
    after = assess(moved(design, path, 0.012, -0.004), memo)
    assert after.acoustic.model.network is before.acoustic.model.network
    assert memo.runs["solve"] == solved
    assert after.acoustic.model.places != before.acoustic.model.places
    fresh = assess(moved(design, path, 0.012, -0.004))
    assert [p.predicted for p in after.promises] == [p.predicted for p in fresh.promises]
