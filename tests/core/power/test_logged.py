"""Logged discharges: charge, energy, resistance."""

import numpy as np
import pytest

from firecrest.core.errors import RangeError
from firecrest.core.power.logged import Logged, drawn

TIME = np.arange(0.0, 3601.0, 10.0)


def test_two_amperes_for_an_hour():
    log = Logged(TIME, np.linspace(21.0, 15.0, len(TIME)), np.full(len(TIME), 2.0))
    found = drawn(log)
    assert found.charge == pytest.approx(7200.0)
    assert found.energy == pytest.approx(2.0 * 18.0 * 3600.0)
    assert (found.amperes, found.starts_at, found.ends_at) == pytest.approx((2.0, 21.0, 15.0))
    assert found.resistance is None


def test_it_counts_to_the_first_row_below_the_cut_off():
    log = Logged(TIME, np.linspace(21.0, 15.0, len(TIME)), np.full(len(TIME), 2.0))
    half = drawn(log, 18.0)
    assert half.charge == pytest.approx(3600.0, rel=0.01)
    assert half.ends_at < 18.0
    assert drawn(log, 10.0).charge == drawn(log).charge


def test_pulses_tell_the_resistance():
    amperes = np.where((TIME // 100) % 2 == 0, 4.0, 1.0)
    volts = np.linspace(20.0, 17.0, len(TIME)) - 0.12 * amperes
    assert drawn(Logged(TIME, volts, amperes)).resistance == pytest.approx(0.12, rel=0.05)


@pytest.mark.parametrize(
    ("time", "amperes", "says"),
    [
        (np.arange(3.0), np.ones(3), "rows"),
        (np.zeros(9), np.ones(9), "rise"),
        (np.arange(9.0), np.zeros(9), "Nothing was drawn"),
    ],
)
def test_a_log_that_tells_nothing_is_refused(time, amperes, says):
    with pytest.raises(RangeError, match=says):
        drawn(Logged(time, np.full(len(time), 20.0), amperes))
