from math import log

import numpy as np
import pytest

from firecrest.core.uncertainty.draw import (
    DIMENSIONS,
    SAMPLES,
    Stated,
    applied,
    conditioned,
    drawn,
    normals,
    sigma_of,
    with_exact,
)

MASS, COMPLIANCE = np.array([1.0, 0.0]), np.array([0.0, 1.0])
RESONANCE = np.array([-0.5, -0.5])
RATIO = np.array([0.5, -0.5])


def test_a_tolerance_is_the_range_from_the_5th_to_the_95th_percentile():
    values = applied(2.0, sigma_of(0.1) * normals(4096)[:, 0], logarithmic=True)[:, 0]
    low, high = np.percentile(values, (5, 95))
    assert high == pytest.approx(2.2, rel=1e-3)
    assert low == pytest.approx(2.0 / 1.1, rel=1e-3)


def test_every_column_is_standard_normal_and_the_same_each_time():
    found = normals(SAMPLES)
    assert found.shape == (SAMPLES, DIMENSIONS)
    np.testing.assert_allclose(found.mean(axis=0), 0.0, atol=0.02)
    np.testing.assert_allclose(found.std(axis=0), 1.0, atol=0.03)
    assert found is normals(SAMPLES)
    with pytest.raises(ValueError, match="read-only"):
        found[0, 0] = 1.0


def test_figures_in_use_hardly_go_with_each_other():
    together = np.corrcoef(normals(SAMPLES)[:, :160].T) - np.eye(160)
    assert np.abs(together).max() < 0.35
    assert np.sqrt(np.mean(together**2)) < 0.07


def test_a_resonance_stated_tightly_keeps_its_sigma_and_binds_mass_to_compliance():
    loose, tight = sigma_of(0.2), sigma_of(0.02)
    found = conditioned(np.diag([loose**2] * 2), [Stated(RESONANCE, tight)])
    assert RESONANCE @ found @ RESONANCE == pytest.approx(tight**2)
    assert RATIO @ found @ RATIO == pytest.approx(0.5 * loose**2)
    assert found[0, 1] < 0


def test_a_resonance_stated_loosely_adds_nothing():
    prior = np.diag([sigma_of(0.02) ** 2] * 2)
    assert conditioned(prior, [Stated(RESONANCE, sigma_of(0.1))]) is prior


def test_figures_that_nothing_else_states_have_the_spread_of_what_gives_them():
    """With Fs and Vas alone, Cms goes with Vas and Mms with both."""
    fs, vas, open_ = sigma_of(0.02), sigma_of(0.1), 10.0
    found = conditioned(np.diag([open_**2] * 2), [Stated(RESONANCE, fs), Stated(COMPLIANCE, vas)])
    assert found[1, 1] == pytest.approx(vas**2)
    assert found[0, 0] == pytest.approx((2 * fs) ** 2 + vas**2, rel=1e-6)


def test_a_figure_that_repeats_others_only_narrows():
    """Two figures give the third; stated tighter than they give it, all three hold."""
    prior = np.diag([100.0, 100.0])
    pair = [Stated(MASS, 0.01), Stated(COMPLIANCE, 0.1)]
    found = conditioned(prior, [*pair, Stated(RESONANCE, 0.02)])
    for weights, sigma in ((MASS, 0.01), (COMPLIANCE, 0.1), (RESONANCE, 0.02)):
        assert weights @ found @ weights <= sigma**2 * (1 + 1e-9)
    assert RESONANCE @ found @ RESONANCE == pytest.approx(0.02**2)


def test_draws_have_the_covariance_they_are_drawn_with():
    covariance = np.array([[0.04, -0.03], [-0.03, 0.05]])
    found = drawn(covariance, normals(4096)[:, 3:5])
    np.testing.assert_allclose(np.cov(found), covariance, rtol=0.02)


def test_an_exact_figure_is_exact_and_leaves_what_does_not_go_with_it():
    covariance = conditioned(np.diag([0.04, 0.04]), [Stated(RESONANCE, 0.01)])
    deviations = drawn(covariance, normals(SAMPLES)[:, :2])
    fixed = with_exact(deviations, covariance, MASS)
    np.testing.assert_allclose(MASS @ fixed, 0.0, atol=1e-12)
    assert np.std(COMPLIANCE @ fixed) < 0.15 * np.std(COMPLIANCE @ deviations)
    alone = with_exact(
        drawn(np.diag([0.04, 0.09]), normals(SAMPLES)[:, :2]), np.diag([0.04, 0.09]), MASS
    )
    np.testing.assert_allclose(alone[1], 0.3 * normals(SAMPLES)[:, 1])


def test_no_tolerance_leaves_the_figure():
    assert sigma_of(0.0) == 0.0
    np.testing.assert_array_equal(applied(3.0, 0.0 * normals(16)[:, 0], logarithmic=True), 3.0)
    np.testing.assert_allclose(
        applied(3.0, np.array([log(2), 0.0]), logarithmic=False)[:, 0], [3.0 + log(2), 3.0]
    )
