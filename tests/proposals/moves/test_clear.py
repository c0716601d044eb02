"""Cures of tight spots as next moves."""

import pytest
from tests.assessment.cabinet.made import bare, placed

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.spots import spots_in, spots_of
from firecrest.design.case_within import Grille, InnerBox
from firecrest.design.edits.cabinet import add_fitting, moved
from firecrest.design.edits.paths import replace_at
from firecrest.design.mount import Mount
from firecrest.present.text.moves import TITLES
from firecrest.proposals.moves.clear import clear
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.ranking import telling

CASE = ("box", "case")
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


def cured(design, code):
    (cure,) = [c for c in cures(design) if c.title.code == code]
    assert TITLES[code](**dict(cure.title.figures))
    return assess(cure.design)


def test_a_grille_too_near_vents_too_low_and_leads_too_short_are_mended():
    grille = replace_at(placed(), (*CASE, "grille"), Grille(gap=0.006))
    clear_of = [s for s in spots_in(cured(grille, "farther grille")) if s.kind == "grille"]
    assert clear_of
    assert not [s for s in clear_of if s.tight]
    warm = InnerBox(mount=Mount(panel="back"), vent=0.001, width=0.15, height=0.12)
    vented = replace_at(placed(), (*CASE, "inner"), (warm,))
    made = cured(vented, "higher vents").design.box.case.inner[0]
    assert made.vent > 0.001
    short = replace_at(placed(), ("power", "speaker_lead", "length"), 0.05)
    assert not [s for s in spots_in(cured(short, "longer lead")) if s.kind == "lead" and s.tight]


def test_a_knob_whose_panel_is_too_thick_gets_a_plate():
    design = add_fitting(placed(), "knob")[1]
    place = Mount(panel="back", u=-0.12, v=-0.07)
    design = replace_at(design, (*CASE, "fittings", 0, "mount"), place)
    made = cured(design, "plate")
    assert made.design.box.case.fittings[1].kind == "plate"
    assert not [s for s in spots_in(made) if s.kind == "knob" and s.tight]


def test_drivers_in_one_place_are_set_anew():
    crowded = moved(placed(), ("box", "groups", 0, "mounts", 0), 0.06, 0.0)
    made = cured(crowded, "set anew")
    assert not [s for s in spots_in(made) if s.impossible]
    assert made.design.box.groups[0].mounts == placed().box.groups[0].mounts
    assert not [c for c in cures(placed()) if c.title.code == "set anew"]
