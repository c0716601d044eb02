"""Leads are as long as the way along the walls, and a panel's width of slack more."""

import pytest
from tests.assessment.cabinet.made import bare, drawn, placed

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.leads import reaches
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import replace_at


def found(design):
    _, drawing = drawn(design)
    return {reach.key: reach for reach in reaches(design, drawing)}


def test_nothing_without_places():
    assert found(bare()) == {}


@pytest.mark.parametrize("step", [0.03, 0.06])
def test_a_driver_moved_away_asks_for_so_much_more(step):
    mount = placed().box.groups[0].mounts[1]
    before = found(placed())["drivers"].needs
    away = moved(placed(), ("box", "groups", 0, "mounts", 1), mount.u + step, mount.v)
    assert found(away)["drivers"].needs == pytest.approx(before + step, abs=0.0101)


def test_a_lead_that_does_not_reach_is_tight_and_one_not_stated_is_not_judged():
    path = ("power", "speaker_lead", "length")
    asks = found(placed())["drivers"].needs
    for length, tight in ((asks - 0.02, True), (asks, False), (None, False)):
        design = replace_at(placed(), path, length)
        spots = [s for s in spots_in(assess(design)) if s.kind == "lead" and "drivers" in s.names]
        assert [s.tight for s in spots] == ([] if length is None else [tight])
