"""Kinds and layouts come back as they were left, with the drivers as they are now."""

import pytest

from firecrest.design.edits.paths import set_number
from firecrest.files.demos import read_demo
from firecrest.proposals.layouts import kind_of, layout_of, with_kind
from firecrest.proposals.recalling import switched_kind, switched_layout

MASS = ("box", "openings", 0, "added_mass")


def test_radiators_come_back_with_their_mass(slipway):
    own = set_number(slipway, MASS, 0.079)
    ported = switched_kind(own, "port", 0, [slipway])
    back = switched_kind(ported, "radiators", 0, [own, slipway])
    assert back.box.openings == own.box.openings
    assert switched_kind(ported, "radiators", 0, []) == with_kind(ported, "radiators")
    assert kind_of(switched_kind(own, "sealed", 0, [ported])) == "sealed"


@pytest.mark.parametrize("layout", ["bandpass4", "bandpass6"])
def test_a_layout_comes_back_with_its_openings_and_the_drivers_of_now(slipway, layout):
    folded = switched_layout(slipway, layout, [])
    loud = set_number(folded, ("box", "groups", 0, "driver", "pe"), 55.0)
    back = switched_layout(loud, "one", [folded, slipway])
    assert layout_of(back) == "one"
    assert back.box.openings == slipway.box.openings
    assert back.box.groups[0].driver.pe == 55.0
    again = switched_layout(back, layout, [loud, folded, slipway])
    assert again.box.openings == folded.box.openings


def test_other_drivers_start_anew():
    design = read_demo("breakwater")
    one = switched_layout(design, "one", [read_demo("slipway")])
    assert layout_of(one) == "one"
    assert len(one.box.groups) == len(design.box.groups)
