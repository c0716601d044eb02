"""Cures of tight spots as next moves."""

import pytest
from tests.assessment.cabinet.made import bare, placed

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.spots import spots_of
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import replace_at
from firecrest.design.mount import Mount
from firecrest.present.text.moves import TITLES
from firecrest.proposals.moves.clear import clear
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.ranking import telling

PACK = ("power", "source", "mount")


def cures(design):
    return list(clear(Scene(assess(design))))


def test_nothing_is_offered_where_nothing_is_tight_or_has_a_place():
    assert cures(placed()) == []
    assert cures(bare()) == []


def test_a_pack_in_a_radiator_is_offered_a_place_with_room():
    crowded = moved(placed(), PACK, -0.115, 0.0)
    found = next(c for c in cures(crowded) if c.path == (*PACK, "u"))
    assert found.title.code == "clear"
    spots = spots_of(drawing_of(assess(found.design)))
    assert not [s for s in spots if s.impossible and PACK in s.paths]
    assert "Move Flint 21" in TITLES["clear"](**dict(found.title.figures))


def test_what_is_in_the_way_of_most_is_moved_first():
    twice = moved(placed(), PACK, 0.092, -0.02)
    first = telling(Scene(assess(twice)))[0].proposal
    assert "Flint 21" in str(first.title.figures)
    assert not [s for s in spots_of(drawing_of(assess(first.design))) if s.impossible]


def test_feet_too_low_below_a_radiator_are_offered_higher():
    mounts = (Mount(panel="bottom"), Mount(panel="top"))
    low = replace_at(placed(), ("box", "openings", 0, "mounts"), mounts)
    (cure,) = [c for c in cures(low) if c.title.code == "higher feet"]
    ground = [s for s in spots_of(drawing_of(assess(cure.design))) if s.kind == "ground"]
    assert not ground[0].tight


def test_a_thin_panel_that_rings_in_the_bass_is_offered_a_brace():
    thin = replace_at(placed(), ("box", "case", "stiffness"), 2e7)
    (cure,) = [c for c in cures(thin) if c.title.code == "brace"]
    before, after = (drawing_of(assess(d)).resonances["front"] for d in (thin, cure.design))
    assert after.supported > 1.3 * before.supported


@pytest.mark.parametrize(("u", "kind"), [(-0.115, "room"), (-0.076, "clear")])
def test_a_cure_is_a_next_move_although_no_promise_moves(u, kind):
    found = telling(Scene(assess(moved(placed(), PACK, u, 0.0))))
    place = [o.proposal.kind for o in found].index(kind)
    assert found[place].gain < 0.05
    assert (place == 0) == (kind == "room")
