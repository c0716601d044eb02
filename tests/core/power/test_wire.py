"""Leads: handbook values of wire, drop, and the wire that a fuse asks for."""

import pytest

from firecrest.core.power import wire


def test_gauges_have_their_handbook_areas():
    """AWG 12: 3.31 mm2, 20: 0.518, 26: 0.129."""
    for gauge, area in ((12, 3.31), (20, 0.518), (26, 0.129)):
        assert wire.gauge_area(gauge) * 1e6 == pytest.approx(area, rel=3e-3)
        assert wire.closest_gauge(area * 1e-6) == gauge


def test_both_ways_count():
    """1 mm2 and 1 m one way: 34.5 milliohm."""
    assert wire.resistance(1.0, 1e-6) == pytest.approx(0.03448)


def test_allowed_current_goes_through_the_table_and_on():
    for area, amperes in zip(wire.AREAS, wire.BEARS, strict=True):
        assert wire.allowed_current(area * 1e-6) == pytest.approx(amperes)
    areas = [0.05e-6 * 1.5**k for k in range(16)]
    found = [wire.allowed_current(a) for a in areas]
    assert found == sorted(found)
    assert wire.allowed_current(20e-6) > 55.0


def test_the_wire_is_the_thinnest_that_bears_both():
    for length, amperes, volts, fuse in ((0.3, 4.0, 18.0, 5.0), (4.0, 9.0, 12.0, 10.0)):
        area = wire.area_for(length, amperes, volts, fuse)
        assert wire.bears(area, length, amperes, volts, fuse)
        thinner = [a * 1e-6 for a in wire.AREAS if a * 1e-6 < area]
        assert not any(wire.bears(a, length, amperes, volts, fuse) for a in thinner)
        gauge = wire.gauge_for(length, amperes, volts, fuse)
        assert wire.bears(wire.gauge_area(gauge), length, amperes, volts, fuse)
    assert wire.area_for(50.0, 40.0, 5.0, 40.0) is None
    assert wire.gauge_for(50.0, 40.0, 5.0, 40.0) is None


def test_a_speaker_lead_of_a_tenth_of_the_load_costs_0_8_db():
    assert wire.speaker_loss(0.4, 4.0) == pytest.approx(0.828, abs=1e-3)
