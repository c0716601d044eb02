"""What a change of the box holds: tuning with one more opening, air with another kind."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.assessment.assess import cabinet_of
from firecrest.core.errors import RangeError
from firecrest.design.edits.paths import set_number
from firecrest.files.demos import read_demo
from firecrest.present.size.facts import added_words
from firecrest.proposals.holding import with_air_of, with_opening, with_volumes
from firecrest.proposals.inverse import tuning_of
from firecrest.proposals.layouts import kind_of, with_kind


@pytest.mark.parametrize(
    ("demo", "kind", "tuned"),
    [("boathouse", "port", 33.0), ("slipway", "radiators", None), ("breakwater", "port", 42.0)],
)
def test_one_more_opening_keeps_the_tuning_or_says_why_not(demo, kind, tuned):
    design = read_demo(demo)
    wanted = tuned if kind_of(design) == "sealed" else tuning_of(design)
    _, made, trouble = with_opening(design, kind, 0)
    if trouble is None:
        assert tuning_of(made) == pytest.approx(wanted, rel=1e-4)
        assert added_words(made, trouble) == ""
    else:
        assert "can be tuned from" in added_words(made, trouble)
    assert len(made.box.openings) == len(design.box.openings) + 1


def test_equal_radiators_take_equal_masses(slipway):
    made = with_opening(slipway, "radiators", 0)[1]
    masses = [o.added_mass for o in made.box.openings]
    assert masses[0] == masses[1] > slipway.box.openings[0].added_mass


@pytest.mark.parametrize(("demo", "kind"), [("slipway", "port"), ("lantern", "sealed")])
def test_another_kind_holds_the_air_and_its_own_tuning(demo, kind):
    before = read_demo(demo)
    made = with_kind(before, kind)
    held = with_air_of(made, before, 0)
    assert cabinet_of(held).air[0] == pytest.approx(cabinet_of(before).air[0], rel=1e-9)
    if kind != "sealed":
        assert tuning_of(held) == pytest.approx(tuning_of(made), rel=2e-3)


BREAKWATER = read_demo("breakwater")


@settings(max_examples=30)
@given(air=st.lists(st.floats(1e-3, 0.02), min_size=3, max_size=3))
def test_every_chamber_gets_the_air_it_was_given(air):
    made = with_volumes(BREAKWATER, dict(enumerate(air)))
    assert list(cabinet_of(made).air) == pytest.approx(air, rel=1e-9)
    assert (made.box.case.length, made.box.case.height) == (
        BREAKWATER.box.case.length,
        BREAKWATER.box.case.height,
    )


def test_air_beyond_every_depth_is_refused_and_measured_air_is_stated():
    with pytest.raises(RangeError, match="Depth cannot give that much air"):
        with_volumes(BREAKWATER, {0: 4.0})
    stated = set_number(BREAKWATER, ("box", "chambers", 1, "stated_volume"), 0.002)
    made = with_volumes(stated, {0: 0.015, 1: 0.0025})
    assert list(cabinet_of(made).air)[:2] == pytest.approx([0.015, 0.0025])
    assert made.box.chambers[1].stated_volume == 0.0025
