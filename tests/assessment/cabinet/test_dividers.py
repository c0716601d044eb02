"""Dividers as panels: what is between two chambers stands on one, weighs and takes air so."""

from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.assessment.cabinet.made import bare, drawn

from firecrest.assessment.assess import assess, cabinet_of
from firecrest.assessment.cabinet.pieces import pieces_of
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.assessment.cabinet.template import template_of, templates_of
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.loops import area as loop_area
from firecrest.design.edits import braces
from firecrest.design.edits.paths import rebuilt, replace_at, set_number, value_at
from firecrest.design.mount import Mount
from firecrest.files.demos import read_demo
from firecrest.present.cabinet.tight import spot_text
from firecrest.present.cabinet.words import panel_word
from firecrest.proposals.adding import with_divider
from firecrest.proposals.shaping import with_shape
from firecrest.proposals.siting import loose_paths, placed_all

BANDPASS = read_demo("boathouse-bandpass")
CONE = ("box", "groups", 0, "mounts", 0)
PORT = ("box", "openings", 0)
AT = ("box", "case", "braces", 0, "at")
BOARD = ("power", "boards", 0, "mount")


def spots(design, kind):
    return [s for s in spots_in(assess(design)) if s.kind == kind]


def cone_of(design):
    parts = [p for thing in cabinet_of(design).things for p in thing.parts]
    return next(p for p in parts if isinstance(p, core.Driver))


def test_the_bandpass_is_drawn_whole_and_nothing_is_in_anything_else():
    assessed, drawing = drawn(BANDPASS)
    assert len(drawing.sited) == 4
    assert not [s for s in spots_in(assessed) if s.impossible]
    assert drawing.rolled.slabs == ("rear", "front")


def test_the_hole_in_a_divider_is_air_behind_it_and_off_its_weight():
    rolled, cone = cabinet_of(BANDPASS), cone_of(BANDPASS)
    none = cabinet_of(replace_at(BANDPASS, CONE[:-1], ()))
    thick = BANDPASS.box.case.wall
    hole = pi / 4 * cone.cut.d**2 * thick
    assert rolled.rooms["rear"].openings == pytest.approx(hole)
    assert float(none.mass - rolled.mass) == pytest.approx(hole * BANDPASS.box.case.density)
    inside = float(rolled.inside)
    plate = inside / float(rolled.inner[0]) * thick
    rooms = sum(float(r.gross) for r in rolled.rooms.values())
    assert rooms == pytest.approx(inside - plate)


@given(st.floats(-0.08, 0.08), st.floats(0.0, 0.012))
def test_weights_of_single_parts_add_up_to_the_whole(at, recess):
    design = set_number(set_number(BANDPASS, AT, at), (*CONE, "recess"), recess)
    _, drawing = drawn(design)
    assert sum(w.mass for w in drawing.weighed) == pytest.approx(float(drawing.rolled.mass))


def test_its_own_plate_is_no_obstacle_but_a_wall_is():
    assert not [s for s in spots(BANDPASS, "brace") if CONE in s.paths and s.impossible]
    close = set_number(BANDPASS, AT, -0.14)
    assert any(s.impossible for s in spots(close, "wall"))
    off = set_number(BANDPASS, (*CONE, "u"), 0.1)
    (over,) = (s for s in spots(off, "frame edge") if s.impossible)
    assert over.names[1] == "divider-1"
    assert spot_text(over).endswith("beyond divider 1")


def test_what_stands_before_a_cone_on_a_divider_is_seen():
    beside = set_number(BANDPASS, (*PORT, "mounts", 0, "u"), 0.09)
    met = [s for s in spots(beside, "pair") if s.impossible]
    assert {n for s in met for n in s.names} == {"Hornbeam S25-4", "port"}


def test_a_port_between_chambers_stands_on_a_divider_and_keeps_its_mouth_free():
    design = bare("boathouse-bandpass")
    port = rebuilt(design.box.openings[0], opens_to="rear", length=0.05, diameter=0.05)
    made = placed_all(with_divider(replace_at(design, PORT, port))[1])
    (mount,) = made.box.openings[0].mounts
    cones = made.box.groups[0].mounts
    assert {mount.panel, cones[0].panel} == {"divider-1", "divider-1-far"}
    assert len(spots(made, "port end")) == 2
    assert not [s for s in spots(made, "frames") if s.impossible]
    met = replace_at(made, (*PORT, "mounts"), (rebuilt(mount, u=0.0, v=0.0),))
    assert [s for s in spots(met, "frames") if s.impossible]


def test_a_board_belongs_to_the_chamber_that_it_stands_in():
    taken = [cabinet_of(BANDPASS).rooms[c].taken["board"] for c in ("rear", "front")]
    other = replace_at(BANDPASS, BOARD, Mount(panel="right", v=0.12))
    moved = [cabinet_of(other).rooms[c].taken["board"] for c in ("rear", "front")]
    volume = BANDPASS.power.boards[0].part.volume
    assert moved == pytest.approx([taken[0] - volume, taken[1] + volume])
    assert not spots(other, "chamber")


def test_a_divider_has_a_template_with_what_is_on_either_face():
    _, drawing = drawn(BANDPASS)
    names = [t.name for t in templates_of(drawing)]
    assert names == ["front", "back", "left", "right", "top", "bottom", "divider-1"]
    made = template_of(drawing, "divider-1")
    assert made.size == pytest.approx((0.433 - 0.036, 0.404))
    holes = [abs(loop_area(loop)) for layer, loop in made.loops if layer == "THROUGH"]
    assert holes == [pytest.approx(pi / 4 * cone_of(BANDPASS).cut.d ** 2, rel=1e-3)]
    near = replace_at(BANDPASS, CONE, Mount(panel="divider-1", u=0.03, v=0.01))
    far = replace_at(BANDPASS, CONE, Mount(panel="divider-1-far", u=0.03, v=0.01))
    at = [template_of(drawn(d)[1], "divider-1").words[0].at for d in (near, far)]
    assert at == [pytest.approx((0.03, 0.01)), pytest.approx((-0.03, 0.01))]


def test_places_follow_the_numbers_of_dividers_and_go_with_theirs():
    two = with_divider(BANDPASS)[1]
    on_second = replace_at(two, CONE, Mount(panel="divider-2-far"))
    first_gone = braces.remove_brace(on_second, 0)[1]
    assert value_at(first_gone, CONE).panel == "divider-1-far"
    assert braces.remove_brace(on_second, 1)[1].box.groups[0].mounts == ()
    plain = braces.as_divider(on_second, False, place=0)[1]
    assert value_at(plain, CONE).panel == "divider-1-far"
    assert not plain.box.case.braces[0].divider


@pytest.mark.parametrize("share", [0.3, 0.5, 0.7])
def test_a_divider_is_added_where_chambers_keep_their_shares(share):
    design = bare("boathouse-bandpass")
    rear, front = design.box.chambers
    parted = (rebuilt(rear, share=share), rebuilt(front, share=1 - share))
    design = replace_at(design, ("box", "chambers"), parted)
    made = placed_all(with_divider(design)[1])
    rooms = cabinet_of(made).rooms
    whole = sum(float(r.gross) for r in rooms.values())
    assert float(rooms["rear"].gross) / whole == pytest.approx(share, abs=5e-4)
    assert loose_paths(made) == []


def test_without_a_divider_nothing_between_chambers_is_called_loose():
    assert ("box", "groups", 0, "mounts") not in loose_paths(bare("boathouse-bandpass"))


def test_faces_of_dividers_are_told_by_where_they_look():
    _, drawing = drawn(BANDPASS)
    said = [panel_word(name, drawing.frames[name]) for name in ("divider-1", "divider-1-far")]
    assert said == ["right of divider 1", "left of divider 1"]


@pytest.mark.parametrize("shape", ["box", "cylinder", "prism"])
def test_a_divider_outside_the_case_is_no_plate_and_no_mistake(shape):
    design = BANDPASS if shape == "box" else with_shape(BANDPASS, shape)[1]
    assessed, drawing = drawn(set_number(design, AT, 0.9))
    assert drawing.standing == ()
    assert spots_in(assessed)
    assert templates_of(drawing)
    assert "Divider" not in [p.name for stock in pieces_of(drawing).stocks for p in stock.pieces]
