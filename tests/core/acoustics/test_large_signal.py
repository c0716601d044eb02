"""Curves over travel and what a sine meets of them."""

import numpy as np
import pytest

from firecrest.core.acoustics.large_signal import (
    KNOTS,
    STRAIGHT,
    USUAL_BL,
    USUAL_KMS,
    Bend,
    Bends,
    bend_of,
    met,
)


def test_a_small_sine_meets_the_values_at_rest():
    found = met(Bends(0.005), np.array([0.0, 1e-6]))
    for value in (found.stiffness, found.force, found.inductance):
        np.testing.assert_allclose(value, 1.0, atol=1e-3)
    np.testing.assert_allclose(found.force_aside, 0.0, atol=1e-3)


def test_a_square_bends_by_three_quarters_and_one_quarter():
    """x^2 over a cycle: 3/4 X^2 with the travel, 1/4 X^2 with the velocity."""
    square = bend_of(lambda u: 1 + 0.2 * u**2)
    found = met(Bends(2.0, square, square, STRAIGHT), np.array([2.0, 3.0]))
    for peak, stiff, force, aside in zip(
        (1.0, 1.5), found.stiffness, found.force, found.force_aside, strict=True
    ):
        assert stiff == pytest.approx(1 + 0.2 * 0.75 * peak**2, rel=1e-3)
        assert force == pytest.approx(1 + 0.2 * 0.25 * peak**2, rel=1e-3)
        assert aside == pytest.approx(0.2 * 0.5 * peak**2, rel=2e-3)


def test_the_usual_curves_go_through_their_thresholds_and_one_way():
    assert USUAL_BL.at(np.array(-1.0)) == pytest.approx(0.82, abs=1e-3)
    assert 1 / USUAL_KMS.at(np.array(1.0)) == pytest.approx(0.75, abs=1e-3)
    assert np.all(np.diff(USUAL_BL.with_velocity) <= 0)
    assert np.all(np.diff(USUAL_KMS.with_travel) >= 0)
    assert np.all(USUAL_BL.with_velocity > 0)
    assert KNOTS[-1] == USUAL_BL.travel[-1]


def test_columns_of_scales_and_stated_points():
    stated = Bend((0.0, 0.5, 1.0), (1.0, 0.9, 0.6))
    scales = np.array([[0.004], [0.008]])
    peaks = np.array([0.002, 0.004, 0.02])
    together = met(Bends(scales, force=stated), peaks)
    for row, scale in enumerate((0.004, 0.008)):
        alone = met(Bends(scale, force=stated), peaks)
        np.testing.assert_allclose(together.force[row], alone.force, rtol=1e-12)
        np.testing.assert_allclose(together.stiffness[row], alone.stiffness, rtol=1e-12)
