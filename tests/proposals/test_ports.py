"""Ports that take the place of others."""

import pytest

from firecrest.assessment.openings.port import port_area
from firecrest.design.edits.paths import set_number
from firecrest.proposals.inverse import tuning_of
from firecrest.proposals.layouts import with_kind
from firecrest.proposals.ports import with_shape


def test_a_slot_has_the_area_and_tuning_of_the_round_port_it_replaces_and_back(slipway):
    ported = set_number(with_kind(slipway, "port"), ("box", "openings", 0, "diameter"), 0.05)
    label, slot = with_shape(ported, 0, "slot")
    (port,) = slot.box.openings
    assert label == "Shape: round → slot"
    assert port_area(port) == pytest.approx(port_area(ported.box.openings[0]))
    assert port.width == pytest.approx(4 * port.height)
    assert tuning_of(slot) == pytest.approx(tuning_of(ported))
    _, back = with_shape(slot, 0, "round")
    assert back.box.openings[0].diameter == pytest.approx(0.05)
    assert with_shape(back, 0, "round") == ("", back)
