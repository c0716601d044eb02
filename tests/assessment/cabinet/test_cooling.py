"""Fins stand upright with air above and below, in the case and in a chamber of their own."""

from math import pi

import pytest
from tests.assessment.cabinet.made import bare, placed

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.cooling_spots import FREE
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.design.case_within import InnerBox
from firecrest.design.edits.paths import replace_at, value_at
from firecrest.design.mount import Mount
from firecrest.proposals.moves.clear import clear
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.siting import placed_all

BOARD = ("power", "boards", 0)
MOUNT = (*BOARD, "mount")


def with_fins(way, mount=None, design=None):
    design = replace_at(design or placed(), (*BOARD, "part", "fins"), way)
    return design if mount is None else replace_at(design, MOUNT, mount)


def told(design):
    return [s for s in spots_in(assess(design)) if s.kind in ("fins", "fins lie")]


@pytest.mark.parametrize(("way", "rot"), [("width", 0.0), ("length", pi / 2)])
def test_fins_stand_when_what_they_run_along_is_upright(way, rot):
    place = Mount(panel="back", u=0.07, v=0.0, rot=rot)
    assert not [s for s in told(with_fins(way, place)) if s.kind == "fins lie"]
    lying = told(with_fins(way, Mount(panel="back", u=0.07, v=0.0, rot=rot + pi / 2)))
    assert [s.kind for s in lying] == ["fins lie"]
    level = told(with_fins(way, Mount(panel="bottom", rot=rot)))
    assert [s.kind for s in level] == ["fins lie"], "nothing stands on a level panel"


def test_without_fins_nothing_is_told():
    assert told(placed()) == []


def test_air_above_them_is_what_is_left_to_the_wall():
    design = with_fins("width")
    half = design.box.case.height / 2 - design.box.case.wall
    side = design.power.boards[0].part.width
    near = Mount(panel="back", u=0.07, v=half - side / 2 - 0.012)
    found = told(with_fins("width", near))
    above = next(s for s in found if s.names[1] == "above")
    assert above.gap == pytest.approx(0.012, abs=2e-5)
    assert above.wanted == FREE
    assert not above.impossible


def test_in_a_chamber_of_its_own_its_walls_count():
    design = with_fins("width", Mount(panel="back", u=0.06, v=0.0))
    part = design.power.boards[0].part
    box = InnerBox(
        mount=Mount(panel="back", u=0.06), width=0.12, height=part.width + 0.03, wall=0.005
    )
    found = told(replace_at(design, ("box", "case", "inner"), (box,)))
    assert {s.names[1]: round(s.gap, 6) for s in found} == {"above": 0.01, "below": 0.01}


def test_boards_are_placed_with_their_fins_upright():
    roomy = replace_at(bare(), ("box", "case", "length"), 0.5)
    made = placed_all(with_fins("length", design=roomy))
    assert not [s for s in told(made) if s.kind == "fins lie"]


def test_lying_fins_are_turned_by_a_next_move():
    lying = with_fins("length", Mount(panel="back", u=-0.07, v=0.0))
    found = [m for m in clear(Scene(assess(lying))) if m.title.code == "fins up"]
    assert found
    assert value_at(found[0].design, (*MOUNT, "rot")) == pytest.approx(pi / 2)
