"""Inner boxes: what they take, hold and weigh; what stands in them."""

from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.assessment.cabinet.made import drawn, placed

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.assessment.cabinet.template import template_of
from firecrest.core.cabinet.clearance import vent_area
from firecrest.core.cabinet.loops import area
from firecrest.core.errors import DesignError
from firecrest.design.box import Chamber
from firecrest.design.case_within import Grille, InnerBox
from firecrest.design.edits import within as edits
from firecrest.design.edits.braces import add_shelf, turned_brace
from firecrest.design.edits.cabinet import add_fitting
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.mount import Mount
from firecrest.proposals.holding import with_volumes
from firecrest.proposals.inverse import with_air_volume

CASE = ("box", "case")
INNER = (*CASE, "inner")


def with_inner(design, **figures):
    return replace_at(design, INNER, (InnerBox(**figures),))


def net(design):
    return [float(v) for v in assess(design).cabinet.air]


def of_kind(design, kind):
    return [s for s in spots_in(assess(design)) if s.kind == kind]


def test_a_box_for_boards_takes_its_outside_and_frees_what_is_in_it():
    before, made = placed(), edits.add_amplifier_chamber(placed())[1]
    box = made.box.case.inner[0]
    things = assess(made).cabinet.things
    boards = [p for t in things for p in t.parts if p.kind == "board"]
    freed = sum(
        p.displacement if p.displacement is not None else p.size[0] * p.size[1] * p.size[2]
        for p in boards
        if p.mount.chamber == box.id
    )
    assert any(p.mount.chamber == box.id for p in boards)
    outside = box.width * box.height * box.depth
    assert net(made)[0] == pytest.approx(net(before)[0] - outside + freed, abs=1e-9)


def test_a_box_for_boards_that_stand_too_far_apart_is_refused_in_words():
    design, boards = placed(), placed().power.boards
    for k, board in enumerate(boards):
        if board.mount is not None:
            apart = rebuilt(board.mount, panel="back", u=2.9 if k else -2.9)
            design = replace_at(design, ("power", "boards", k, "mount"), apart)
    with pytest.raises(DesignError, match="width"):
        edits.add_amplifier_chamber(design)


@given(st.floats(0.03, 0.1), st.floats(0.03, 0.1), st.floats(0.02, 0.08), st.floats(0.001, 0.009))
def test_its_walls_weigh_what_is_between_outside_and_inside(a, b, c, t):
    made = with_inner(placed(), width=a, height=b, depth=c, wall=t)
    more = assess(made).cabinet.mass - assess(placed()).cabinet.mass
    inside = (a - 2 * t) * (b - 2 * t) * (c - t)
    assert more == pytest.approx(placed().box.case.density * (a * b * c - inside), rel=1e-6)


def test_a_chamber_that_is_an_inner_box_holds_its_inside_and_shares_nothing():
    """The other chamber has all the rest; what is mounted in the box counts there."""
    chambers = (*placed().box.chambers, Chamber(id="mid", name="mid", share=0.2))
    halved = rebuilt(chambers[0], share=0.8)
    two = replace_at(placed(), ("box", "chambers"), (halved, chambers[1]))
    made = with_inner(two, holds="mid", chamber="main", width=0.1, height=0.08, depth=0.06)
    outside, inside = 0.1 * 0.08 * 0.06, 0.088 * 0.068 * 0.054
    assert net(made) == pytest.approx([net(placed())[0] - outside, inside])
    alone = rebuilt(made.box.case.inner[0], holds="main", chamber="mid")
    assert sum(net(replace_at(made, INNER, (alone, made.box.case.inner[0])))) > 0


def test_what_stands_in_a_box_is_measured_against_its_walls():
    made = edits.add_amplifier_chamber(placed())[1]
    inside = of_kind(made, "within")
    assert inside
    assert min(s.gap for s in inside) == pytest.approx(edits.SPARE, abs=1e-4)
    assert not [s for s in inside if s.tight]
    low = rebuilt(made.box.case.inner[0], depth=0.02)
    assert [s for s in of_kind(replace_at(made, INNER, (low,)), "within") if s.impossible]


def test_vents_carry_the_heat_or_are_tight_and_a_level_panel_has_no_draught():
    made = edits.add_amplifier_chamber(placed())[1]
    upright = rebuilt(
        made.box.case.inner[0], mount=Mount(panel="back"), vent=0.002, height=0.1, width=0.1
    )
    assessed, drawing = drawn(replace_at(made, INNER, (upright,)))
    (spot,) = [s for s in spots_in(assessed) if s.kind == "vents"]
    assert drawing.heat > 0
    asked = vent_area(drawing.heat, 0.1 - 0.012 - 0.002, 20.0) / (0.1 - 0.012)
    assert spot.wanted == pytest.approx(asked)
    assert spot.tight
    turned = rebuilt(upright, mount=Mount(panel="back", rot=pi / 2))
    (same,) = of_kind(replace_at(made, INNER, (turned,)), "vents")
    assert same.wanted == pytest.approx(spot.wanted)
    level = rebuilt(upright, mount=Mount(panel="bottom"))
    assert of_kind(replace_at(made, INNER, (level,)), "draught")
    sealed = rebuilt(upright, vent=0.0)
    assert not of_kind(replace_at(made, INNER, (sealed,)), "vents")


def test_a_grille_makes_the_box_deeper_and_stays_clear_of_the_cones():
    made = replace_at(placed(), (*CASE, "grille"), Grille(gap=0.012, thickness=0.002))
    deeper = assess(made).cabinet.outer[2] - assess(placed()).cabinet.outer[2]
    assert deeper == pytest.approx(0.014)
    driver = made.box.groups[0].driver
    for spot in of_kind(made, "grille"):
        assert spot.gap == pytest.approx(0.012 - 0.004 - driver.xmax)
    near = replace_at(made, (*CASE, "grille", "gap"), 0.006)
    assert all(s.impossible for s in of_kind(near, "grille"))


def test_boards_and_terminals_keep_room_for_plugs():
    assert not [s for s in of_kind(placed(), "plug") if s.tight]
    cup = add_fitting(placed(), "terminal")[1]
    on_pack = replace_at(cup, (*CASE, "fittings", 0, "mount"), placed().power.source.mount)
    assert [s for s in of_kind(on_pack, "plug") if s.tight]


def test_a_knob_in_a_plate_has_the_plate_under_its_nut():
    knob = add_fitting(placed(), "knob")[1]
    place = Mount(panel="back", u=-0.12, v=-0.07)
    knob = replace_at(knob, (*CASE, "fittings", 0, "mount"), place)
    (spot,) = of_kind(knob, "knob")
    assert spot.gap == pytest.approx(-(0.012 - 0.006))
    plated = add_fitting(knob, "plate")[1]
    plated = replace_at(plated, (*CASE, "fittings", 1, "mount"), place)
    (spot,) = of_kind(plated, "knob")
    assert not spot.tight
    assert not [s for s in of_kind(plated, "frames") if "Knob" in s.names]


def test_a_shelf_stays_on_a_wall_beside_it_when_it_is_turned():
    shelf = add_shelf(placed())[1]
    turned = turned_brace(shelf, 0, "z")[1].box.case.braces[0]
    assert (turned.axis, turned.against) == ("z", "bottom")
    assert turned_brace(shelf, 0, "x")[1].box.case.braces[0].against == "back"


def test_asked_air_of_an_inner_box_is_given_by_its_depth_and_the_others_keep_theirs():
    chambers = placed().box.chambers
    two = (rebuilt(chambers[0], share=0.8), Chamber(id="mid", name="mid", share=0.2))
    made = with_inner(replace_at(placed(), ("box", "chambers"), two), holds="mid", chamber="main")
    deeper = with_air_volume(made, 0.0006, 1)
    assert net(deeper)[1] == pytest.approx(0.0006, rel=1e-6)
    assert deeper.box.case.inner[0].depth > made.box.case.inner[0].depth
    both = with_volumes(made, {0: 0.008, 1: 0.0005})
    assert net(both) == pytest.approx([0.008, 0.0005], rel=1e-6)
    kept = with_volumes(made, {1: 0.0007})
    assert net(kept) == pytest.approx([net(made)[0], 0.0007], rel=1e-6)


def test_a_box_whose_chamber_is_gone_is_one_for_boards():
    made = edits.add_amplifier_chamber(placed())[1]
    gone = replace_at(made, (*INNER, 0, "holds"), "elsewhere")
    assert net(gone) == net(made)
    assert [s.kind for s in spots_in(assess(gone))] == [s.kind for s in spots_in(assess(made))]


@pytest.mark.parametrize("rot", [0.0, pi / 2])
def test_vents_are_holes_in_the_panel_one_low_and_one_high(rot):
    """In its template, off its weight, and in nobody's way."""
    made = edits.add_amplifier_chamber(placed())[1]
    box = rebuilt(made.box.case.inner[0], mount=Mount(panel="back", rot=rot), width=0.12)
    sealed = replace_at(made, INNER, (box,))
    vented = replace_at(made, (*INNER,), (rebuilt(box, vent=0.01),))
    before, drawing = assess(sealed), drawn(vented)[1]
    holes = [s for s in drawing.sited if s.part.kind == "vent"]
    ups = sorted(float(s.at.o[1]) for s in holes)
    high = 0.12 if rot else box.height
    assert ups[1] - ups[0] == pytest.approx(high - 2 * box.wall - 0.01)
    long = (box.height if rot else 0.12) - 2 * box.wall
    gone = 2 * long * 0.01 * 0.012 * placed().box.case.density
    assert assess(vented).cabinet.mass == pytest.approx(before.cabinet.mass - gone)
    assert net(vented) == pytest.approx(net(sealed))
    slots = [loop for layer, loop in template_of(drawing, "back").loops if layer == "THROUGH"]
    assert len(slots) == 2
    assert area(slots[0]) == pytest.approx(long * 0.01, rel=1e-3)
    assert {s.kind for s in spots_in(assess(vented))} - {s.kind for s in spots_in(before)} <= {
        "vents", "cut-out edge", "frame edge", "frames"
    }  # fmt: skip
