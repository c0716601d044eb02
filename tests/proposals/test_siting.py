"""Everything gets a place by rule, and what has one keeps it; nothing ends up in something else."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.spots import spots_of
from firecrest.design.case import Brace
from firecrest.design.case_within import InnerBox
from firecrest.design.edits.braces import add_brace
from firecrest.design.edits.cabinet import placed_paths, without_places
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.design.mount import Mount
from firecrest.design.shapes import panel_names
from firecrest.design.standing import is_divider
from firecrest.files.demos import read_demo
from firecrest.proposals.adding import (
    with_amplifier_chamber,
    with_brace,
    with_divider,
    with_fitting,
)
from firecrest.proposals.shaping import with_shape
from firecrest.proposals.siting import _within, faced, flats, loose_paths, placed_all

BARE = without_places(read_demo("slipway"))[1]
ROOMY = ["slipway", "boathouse", "boathouse-radiators", "breakwater", "headland", "regatta"]


@pytest.mark.parametrize("name", ROOMY)
def test_a_roomy_demo_is_placed_without_a_conflict(name):
    made = placed_all(without_places(read_demo(name))[1])
    assert loose_paths(made) == []
    spots = spots_of(drawing_of(assess(made)))
    assert not [s for s in spots if s.impossible]


def test_two_drivers_stand_with_equal_margins_and_radiators_on_both_ends():
    made = faced(BARE)
    left, right = made.box.groups[0].mounts
    assert left.u == -right.u
    half = flats(made)["front"][0]
    gap, rim = right.u - left.u - 0.132, half - right.u - 0.066
    assert gap == pytest.approx(rim, abs=2e-4)
    assert [m.panel for m in made.box.openings[0].mounts] == ["left", "right"]


def test_a_tall_front_has_the_largest_at_the_bottom():
    made = faced(read_demo("headland"))
    woofer, mid, tweeter = (g.mounts[0].v for g in made.box.groups)
    assert woofer < mid < tweeter


def test_what_has_a_place_keeps_it():
    begun = replace_at(
        read_demo("slipway"), ("power", "source", "mount"), Mount(panel="top", u=0.03)
    )
    made = placed_all(begun)
    assert made.power.source.mount == begun.power.source.mount
    assert placed_all(made) == made


def test_places_are_taken_back_all_at_once():
    label, bare = without_places(placed_all(BARE))
    assert label == "Take all places back"
    assert bare == BARE
    assert placed_paths(bare) == []


@pytest.mark.parametrize("kind", ["cylinder", "ball", "vase", "stack", "prism", "taper"])
def test_other_shapes_have_panels_to_place_on(kind):
    made = placed_all(with_shape(BARE, kind)[1])
    assert placed_paths(made)
    for path in placed_paths(made):
        assert isinstance(value_at(made, path), Mount)
    assert assess(made).promises
    assert spots_of(drawing_of(assess(made)))


def test_fittings_go_where_their_panel_has_room():
    """Four kinds one after the other: none meets another, nor anything that was there."""
    design = placed_all(BARE)
    for kind in ("terminal", "handle", "knob", "plate"):
        label, design = with_fitting(design, kind)
        assert label.startswith("Add")
    spots = spots_of(drawing_of(assess(design)))
    own = ("box", "case", "fittings")
    assert not [s for s in spots if s.impossible and any(p[:3] == own for p in s.paths)]


def test_no_fitting_goes_on_a_divider():
    """Not even where no panel outside has room; nor where the divider stands outside the case."""
    parted = with_divider(read_demo("boathouse-bandpass"))[1]
    low = replace_at(parted, ("box", "case", "height"), 0.06)
    beside = set_number(parted, ("box", "case", "braces", len(parted.box.case.braces) - 1, "at"), 2)
    for design in (parted, low, beside):
        _, fitted = with_fitting(design, "terminal")
        assert not is_divider(fitted.box.case.fittings[-1].mount.panel)


def test_radiators_to_the_outside_do_not_go_on_a_divider():
    case = BARE.box.case
    parted = replace_at(BARE, ("box", "case", "braces"), (Brace(axis="x", divider=True),))
    everywhere = tuple(Mount(panel=name) for name in panel_names(case))
    taken = replace_at(parted, ("box", "groups", 0, "mounts"), everywhere)
    assert not any(is_divider(m.panel) for m in faced(taken).box.openings[0].mounts)


def test_a_row_ends_where_places_do():
    """Cones in a box that stands at the end of what a place can be were refused without words."""
    rows = _within(InnerBox(id="room", holds="main", mount=Mount(v=-2.99), height=1.2), 0.4, 3)
    assert [m.v for m in rows] == pytest.approx([-3.0, -2.99, -2.56], abs=0.2)


def test_a_brace_is_added_where_it_meets_nothing():
    design = replace_at(read_demo("slipway"), ("box", "case", "braces"), ())
    usual = add_brace(design)[1]
    assert [s for s in spots_of(drawing_of(assess(usual))) if s.impossible]
    assert not [s for s in spots_of(drawing_of(assess(with_brace(design)[1]))) if s.impossible]


def test_an_amplifier_chamber_goes_with_its_boards_to_where_it_meets_nothing():
    design = read_demo("slipway")
    made = with_amplifier_chamber(design)[1]
    (box,) = made.box.case.inner
    assert not [s for s in spots_of(drawing_of(assess(made))) if s.impossible]
    before = [b.mount for b in design.power.boards]
    after = [b.mount for b in made.power.boards]
    assert after != before, "its middle brace is in the way of where they were"
    for board in made.power.boards:
        assert abs(board.mount.u - box.mount.u) + board.part.length / 2 < box.width / 2
    assert before[0].v - before[1].v == pytest.approx(after[0].v - after[1].v)
