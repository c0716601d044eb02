import numpy as np
import pytest

from firecrest.core.uncertainty.spread import band, band_along


def test_a_band_runs_from_the_5th_to_the_95th_percentile():
    values = np.linspace(0.0, 100.0, 101)
    found = band(values, values >= 30)
    assert (found.low, found.high, found.width) == (5.0, 95.0, 90.0)
    assert found.kept == pytest.approx(71 / 101)
    assert found.undecided
    assert not band(values, values >= 0).undecided
    assert not band(values, values > 200).undecided


def test_what_is_mostly_unknown_has_no_band():
    values = np.array([1.0, np.nan, np.nan, -np.inf])
    assert band(values, values > 0) is None
    assert band(values[[0, 0, 1]], np.array([True, True, False])).kept == pytest.approx(2 / 3)


def test_curves_have_a_band_at_each_frequency():
    curves = np.stack([np.linspace(0, 100, 101), np.full(101, np.nan)], axis=1)
    low, high = band_along(curves)
    assert (low[0], high[0]) == (5.0, 95.0)
    assert np.isnan([low[1], high[1]]).all()


def test_percentiles_are_the_librarys_with_and_without_gaps():
    hand = np.random.default_rng(4)
    curves = hand.normal(size=(256, 40))
    curves[hand.random((256, 40)) < 0.2] = np.nan
    curves[:, 0] = hand.normal(size=256)
    low, high = band_along(curves)
    np.testing.assert_allclose(low, np.nanpercentile(curves, 5, axis=0))
    np.testing.assert_allclose(high, np.nanpercentile(curves, 95, axis=0))
