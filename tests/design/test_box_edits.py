"""Edits of the box: openings come and go, presets, washers."""

import json

import pytest

from firecrest.core.acoustics.losses import DAMPING, TIGHTNESS
from firecrest.core.errors import DesignError
from firecrest.design.edits import box as edits
from firecrest.design.edits.cabinet import printed
from firecrest.design.edits.case import with_material
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of
from firecrest.design.text import project_from_json, project_to_json


def test_openings_are_added_like_the_last_one_and_removed(slipway):
    label, made = edits.add_opening(slipway, "radiators", "main")
    assert label == "Add radiator"
    assert made.box.openings[1].radiator is slipway.box.openings[0].radiator
    _, ported = edits.add_opening(made, "port", "main")
    assert [o.id for o in ported.box.openings] == ["radiators", "radiators-2", "port"]
    assert ported.box.openings[2].resonances
    label, made = edits.remove_opening(made, ("box", "openings", 1))
    assert label == "Remove radiators"
    assert made.box.openings == slipway.box.openings


def test_the_last_way_out_stays(slipway):
    body = json.loads(project_to_json(project_of(slipway)))
    inside = body["variants"][0]
    inside["box"]["chambers"] = [
        {**inside["box"]["chambers"][0], "share": 0.5},
        {"id": "front", "name": "front", "share": 0.5},
    ]
    inside["box"]["groups"][0]["front"] = "front"
    design = project_from_json(json.dumps(body)).design
    with pytest.raises(DesignError, match="Nothing would face outside"):
        edits.remove_opening(design, ("box", "openings", 0))


def test_presets_set_their_figures_and_drop_a_measured_leak(slipway):
    measured = set_number(slipway, ("box", "chambers", 0, "leak_resistance"), 1e6)
    label, made = edits.set_tightness(measured, 0, TIGHTNESS[3])
    assert label == "Tightness: leaky lid"
    chamber = made.box.chambers[0]
    assert (chamber.leak_q, chamber.leak_resistance) == (4.0, None)
    label, made = edits.set_damping(made, 0, DAMPING[2])
    assert label == "Inside: filled"
    assert (made.box.chambers[0].stuffing, made.box.chambers[0].absorption_q) == (0.15, 8.0)


def test_whole_washers(slipway):
    with pytest.raises(DesignError, match="one washer weighs"):
        edits.whole_washers(slipway, 0)
    made = set_number(slipway, ("box", "openings", 0, "washer"), 0.0062)
    made = set_number(made, ("box", "openings", 0, "added_mass"), 0.030)
    label, made = edits.whole_washers(made, 0)
    assert label == "5 washers each"
    assert made.box.openings[0].added_mass == pytest.approx(0.031)


def test_a_print_is_of_filament_and_a_case_of_sheets_is_not(slipway):
    _, made = printed(slipway, on=True)
    assert made.box.case.density == 1240
    _, petg = with_material(slipway, "PETG print")
    assert printed(petg, on=True)[1].box.case.density == 1270
    _, back = printed(made, on=False)
    assert (back.box.case.printing, back.box.case.density) == (None, 680)
    assert printed(slipway, on=False)[1].box.case == slipway.box.case
