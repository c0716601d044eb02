"""Pistons, means over angles, and where a way begins to beam."""

import numpy as np
import pytest

from firecrest.core.voice.directivity import (
    begins_to_beam,
    between_angles,
    cone_weights,
    measured_falls,
    piston,
    piston_at,
    piston_falls,
    power_average,
)
from firecrest.core.voice.response import Response, response_of

F = np.geomspace(100, 20e3, 300)
AREA, SPEED = 0.0053, 343.2


def test_a_piston_is_one_on_its_axis_and_has_its_first_zero_where_bessel_has():
    assert piston(np.array([0.0, 1e-9])) == pytest.approx([1.0, 1.0])
    assert piston(np.array([3.8317])) == pytest.approx([0.0], abs=1e-5)


def test_it_falls_where_it_is_said_to():
    f = piston_falls(AREA, 45.0, 6.0, SPEED)
    assert 20 * np.log10(piston_at(AREA, 45.0, np.array([f]), SPEED)) == pytest.approx([-6.0])
    assert piston_at(AREA, -45.0, np.array([f]), SPEED)[0] == pytest.approx(10 ** (-6 / 20))
    assert begins_to_beam(AREA, SPEED) < f


def test_a_measured_fall_is_found_between_the_points():
    off = -6.0 * np.log2(F / 500)
    assert measured_falls(F, off, np.zeros(len(F)), 6.0) == pytest.approx(1000.0, rel=1e-3)
    assert measured_falls(F, 0 * F, 0 * F, 6.0) == np.inf
    assert measured_falls(F, 0 * F - 9, 0 * F, 6.0) < 120


def test_shares_of_the_sphere_sum_to_that_of_the_cone():
    weights = cone_weights([0, 15, 30, 45, 60])
    assert np.sum(weights) == pytest.approx(1 - 0.5)
    assert np.sum(cone_weights(range(0, 181, 10))) == pytest.approx(2.0)


def test_the_mean_of_a_dipole_is_a_third():
    angles = np.arange(0.0, 181.0, 2.0)
    pressures = {a: np.array([np.cos(np.radians(a))]) for a in angles}
    assert power_average(pressures)[0] ** 2 == pytest.approx(1 / 3, rel=2e-3)


def test_both_sides_are_averaged_as_powers_first():
    one = {0.0: np.array([1.0]), 30.0: np.array([2.0]), -30.0: np.array([0.0])}
    same = {0.0: np.array([1.0]), 30.0: np.array([np.sqrt(2.0)])}
    assert power_average(one) == pytest.approx(power_average(same))
    assert power_average({0.0: np.array([3.0])}) == pytest.approx([3.0])


def test_between_angles_level_and_phase_are_straight():
    def _curve(level, degrees):
        return response_of(F, np.full(len(F), level), np.full(len(F), degrees))

    curves = {0.0: _curve(90.0, 170.0), 30.0: _curve(84.0, -170.0)}
    half = between_angles(curves, 15.0)
    assert half.level[0] == pytest.approx(87.0)
    assert np.degrees(half.phase[0]) == pytest.approx(180.0)
    assert between_angles(curves, 30.0) is curves[30.0]
    with pytest.raises(ValueError, match="nothing is measured"):
        between_angles(curves, 40.0)
    levels = {a: Response(F, c.level, None) for a, c in curves.items()}
    assert between_angles(levels, 10.0).phase is None
