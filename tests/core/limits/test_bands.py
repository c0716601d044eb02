"""Band edges and peaks of known curves."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.limits.bands import band_edges, peaks, refined_peak, upward_crossing


def test_band_edges_of_a_known_slope():
    f = np.geomspace(10, 1000, 481)
    slope = 40 * np.log10(f / 100)
    edges = band_edges(f, np.minimum(slope, 0.0), 0.0)
    assert edges["F6"] == pytest.approx(100 * 10 ** (-6 / 40), rel=1e-6)
    assert upward_crossing(f, slope, 100.0) is None


def test_peaks_are_refined_between_points():
    f = np.geomspace(10, 1000, 121)
    curve = -((np.log(f / 87.3) * 4) ** 2)
    assert peaks(f, curve) == [pytest.approx((87.3, 0.0), abs=1e-6)]
    assert refined_peak(f, f, 120) == (1000.0, 1000.0)


@given(st.floats(15, 900), st.floats(1, 20))
def test_a_parabola_over_ln_f_is_found_exactly(at, height):
    f = np.geomspace(10, 1000, 121)
    (found,) = peaks(f, height - (3 * np.log(f / at)) ** 2)
    assert found == (pytest.approx(at, rel=1e-6), pytest.approx(height, abs=1e-6))


def test_flat_tops_and_ends_are_not_refined_into_nonsense():
    f = np.geomspace(10, 1000, 5)
    assert refined_peak(f, np.zeros(5), 2) == (pytest.approx(100.0), 0.0)
    assert refined_peak(f, f, 0) == (10.0, 10.0)
    assert peaks(f, np.arange(5.0)) == []


def test_the_lowest_rise_counts_and_a_curve_that_starts_above_has_none():
    f = np.geomspace(10, 1000, 5)
    twice = np.array([-10.0, 0.0, -10.0, 0.0, 0.0])
    assert upward_crossing(f, twice, -5.0) == pytest.approx(np.sqrt(10 * f[1]))
    assert upward_crossing(f, np.zeros(5), -5.0) is None
