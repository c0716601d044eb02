"""A stretch of a grid whose ends need not be grid points."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.limits.band import around, band

F = np.geomspace(10, 1000, 61)
LINE = 2.0 * np.log(F) - 3.0


@given(st.floats(11, 900), st.floats(1.05, 8))
def test_a_straight_line_over_ln_f_is_read_exactly(low, ratio):
    high = min(low * ratio, 999.0)
    stretch = band(F, low, high)
    np.testing.assert_allclose(stretch.of(LINE), 2.0 * np.log(stretch.places) - 3.0)
    assert (stretch.places[0], stretch.places[-1]) == (low, high)
    assert np.all(np.diff(stretch.places) > 0)
    assert not stretch.empty.any()


def test_an_empty_band_is_its_two_ends():
    stretch = band(F, 80.0, 70.0)
    assert stretch.places.tolist() == [80.0, 70.0]
    assert stretch.empty.all()


def test_columns_have_each_its_own_ends_and_no_further_extremes():
    low, high = np.array([[20.0], [60.0]]), np.array([[200.0], [90.0]])
    both = band(F, low, high)
    rng = np.random.default_rng(2)
    values = rng.normal(0, 5, (2, 61))
    for row in range(2):
        own = band(F, float(low[row, 0]), float(high[row, 0])).of(values[row])
        assert both.of(values)[row].min() == pytest.approx(own.min())
        assert both.of(values)[row].max() == pytest.approx(own.max())


def test_beyond_the_grid_it_is_flat_and_silence_stays_silence():
    assert band(F, 5.0, 2000.0).of(LINE)[[0, -1]] == pytest.approx(LINE[[0, -1]])
    silent = np.where(F < 30, -np.inf, 0.0)
    assert band(F, 15.0, 40.0).of(silent)[0] == -np.inf
    assert band(F, float(F[20]), 400.0).of(silent)[0] == silent[20]


def test_the_part_of_a_grid_that_a_band_needs_gives_the_same():
    part = around(F, 47.0, 300.0)
    assert part.stop - part.start < 40
    whole, some = band(F, 47.0, 300.0).of(LINE), band(F[part], 47.0, 300.0).of(LINE[part])
    np.testing.assert_allclose(some, whole)


@pytest.mark.parametrize("ends", [(5.0, 5.0), (1e4, 2e4), (5.0, 30.0)])
def test_a_band_beyond_the_grid_needs_two_points_of_it(ends):
    """One point alone has no slope: what was divided by was nothing."""
    frequency, values = np.array([20.0, 40.0, 80.0]), np.array([1.0, 2.0, 4.0])
    part = around(frequency, *ends)
    assert len(frequency[part]) >= 2
    near = band(frequency[part], *ends).of(values[part])
    np.testing.assert_allclose(near, band(frequency, *ends).of(values))
