"""Lowest safe corners and the range they leave."""

from math import inf

import numpy as np
import pytest

from firecrest.core.voice.chain import Filter, analogue_response
from firecrest.core.voice.crossing import (
    GRID,
    Borne,
    crossing_range,
    lowest_by_heat,
    lowest_by_travel,
    volts_for,
)

CORNER = Filter("high_pass", 1000.0, order=2)


def borne(**changes):
    """A cone whose travel per volt falls with the square of the frequency, a coil of 4 ohm."""
    values = {
        "velocity": 2 * np.pi * GRID * 1e-2 / GRID**2 * 1e3,
        "current": np.full(len(GRID), 0.25),
        "ohms": 4.0,
        "xmax": 5e-4,
        "pe": 4.0,
        "volts": 5.0,
    }
    return Borne(**{**values, **changes})


def test_travel_is_just_kept_at_the_lowest_corner():
    found = borne()
    f = lowest_by_travel(found, CORNER)
    gain = np.abs(analogue_response(Filter("high_pass", f, order=2), GRID))
    travel = np.sqrt(2) * 5.0 * np.abs(found.velocity) / (2 * np.pi * GRID) * gain
    assert np.max(travel) == pytest.approx(5e-4, rel=1e-3)


def test_more_level_needs_a_higher_corner_and_less_none():
    corners = [lowest_by_travel(borne(volts=v), CORNER) for v in (2.0, 5.0, 10.0)]
    assert corners == sorted(corners)
    assert lowest_by_travel(borne(volts=1e-3), CORNER) == 0.0
    assert lowest_by_travel(borne(volts=1e6), CORNER) == inf


def test_heat_and_what_is_not_known():
    assert lowest_by_heat(borne(), CORNER, "music", 9.0) == 0.0
    hot = lowest_by_heat(borne(volts=30.0), CORNER, "music", 9.0)
    assert 100 < hot < 15e3
    assert lowest_by_heat(borne(pe=None), CORNER, "music", 9.0) is None
    assert lowest_by_travel(borne(xmax=None), CORNER) is None


def test_volts_go_with_pressure_and_distance():
    one = volts_for(1.0, 4 * np.pi, 1.0, (4.0, 5e-4, 2.0, 6e-4), 1.204)
    assert volts_for(2.0, 2 * np.pi, 3.0, (4.0, 5e-4, 2.0, 6e-4), 1.204) == pytest.approx(3 * one)


def test_a_range_names_what_bounds_it():
    found = crossing_range(
        [(900.0, "travel"), (1400.0, "heat")], [(4000.0, "sheet"), (2600.0, "beam")]
    )
    assert (found.low, found.high) == (1400.0, 2600.0)
    assert (found.low_reason, found.high_reason) == ("heat", "beam")
    assert found.agrees
    assert not crossing_range([(3000.0, "travel")], [(2000.0, "beam")]).agrees
