"""Bass reach on responses of known corner."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.limits.reach import (
    INSIDE,
    LOWER,
    NONE,
    REACH_NOTES,
    mean_band,
    reach_of,
    reference_band,
    way_from,
)
from firecrest.core.limits.reach import crossing as crossing_on

F = np.geomspace(10, 1000, 241)


def band_mean(frequency, level, low, high):
    return mean_band(frequency, low, high).of(level)


def crossing(frequency, values, drop, f_a):
    return crossing_on(way_from(frequency, f_a), values, drop)


def high_pass_4(corner):
    return -10 * np.log10(1 + (corner / F) ** 8)


def test_small_signal_reach_of_a_known_high_pass():
    low, high = reference_band(50.0, None)
    assert (low, high) == (100.0, 400.0)
    r = high_pass_4(50.0) - band_mean(F, high_pass_4(50.0), low, high)
    assert reach_of(crossing(F, r, 3, low)).frequency == pytest.approx(50.0, rel=2e-3)


def test_dips_inside_the_band_do_not_count():
    dipped = high_pass_4(50.0) - 12 * np.exp(-((np.log(F / 200) / 0.1) ** 2))
    assert reach_of(crossing(F, dipped, 3, 100.0)).frequency == pytest.approx(50.0, rel=0.02)


def test_reach_that_starts_below_is_inside_the_band_or_nowhere():
    late = reach_of(crossing(F, high_pass_4(150.0), 3, 100.0))
    assert (late.note, late.frequency) == (REACH_NOTES[INSIDE], pytest.approx(150.0, rel=0.01))
    never = reach_of(crossing(F, np.full(241, -8.0), 6, 100.0))
    assert never.frequency is None
    assert never.missing == pytest.approx(2.0)
    flat = reach_of(crossing(F, np.zeros(241), 6, 100.0))
    assert flat.note == REACH_NOTES[LOWER]


def test_reference_band_below_a_low_pass():
    assert reference_band(30.0, 80.0) == (pytest.approx(56 / np.sqrt(2)), 56.0)


@given(st.integers(0, 10**6))
def test_columns_cross_where_each_design_does(seed):
    rng = np.random.default_rng(seed)
    values = np.cumsum(rng.normal(0, 1.5, (12, 241)), axis=1)
    f_a, drop = rng.uniform(15, 700, (12, 1)), 6
    many = crossing(F, values, drop, f_a)
    for k in range(12):
        one = reach_of(crossing(F, values[k], drop, float(f_a[k, 0])))
        found = reach_of(many, k)
        assert found.note == one.note
        assert found.missing == pytest.approx(one.missing)
        if one.note == REACH_NOTES[NONE]:
            assert found.frequency is one.frequency is None
            continue
        assert found.frequency == pytest.approx(one.frequency, rel=1e-12)
        if one.note in (None, REACH_NOTES[INSIDE]):
            there = np.interp(np.log(one.frequency), np.log(F), values[k])
            assert there == pytest.approx(-drop, abs=1e-9)


@given(st.floats(11, 900), st.floats(1.01, 5))
def test_a_mean_over_ln_f_is_exact_for_straight_lines(low, ratio):
    line = 3.0 * np.log(F) + 1.0
    high = min(low * ratio, 1000.0)
    mean = band_mean(F, line, low, high)
    assert mean == pytest.approx(1.0 + 1.5 * np.log(low * high))
