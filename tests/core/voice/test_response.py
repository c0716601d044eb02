"""Curves read between their points."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.voice.response import (
    REFERENCE,
    at_distance,
    mean_over,
    principal,
    response_from,
    response_of,
    unwrapped,
)

F = np.geomspace(20, 20e3, 481)


def test_level_and_phase_are_straight_lines_over_ln_f():
    curve = response_of(np.array([100.0, 400.0]), np.array([80.0, 90.0]), np.array([0.0, 60.0]))
    assert curve.level_at(np.array([200.0])) == pytest.approx(85.0)
    assert np.degrees(curve.phase_at(np.array([200.0]))) == pytest.approx(30.0)
    assert np.abs(curve.at(np.array([100.0]))) == pytest.approx(REFERENCE * 1e4)


def test_nothing_is_told_beyond_the_ends():
    curve = response_of(F, np.full(len(F), 80.0), None)
    assert np.isnan(curve.level_at(np.array([19.0, 21e3]))).all()
    assert curve.covers(np.array([19.0, 20.0, 20e3, 21e3])).tolist() == [False, True, True, False]
    assert (curve.low, curve.high) == (20.0, pytest.approx(20e3))


@given(st.floats(-3.1, 3.1), st.floats(0, 2e-3))
def test_a_wrapped_delay_is_unwrapped_from_the_lowest_point(start, delay):
    turn = start - 2 * np.pi * (F - F[0]) * delay
    if np.max(np.abs(np.diff(turn))) >= np.pi:
        return
    np.testing.assert_allclose(unwrapped(principal(turn)), turn, atol=1e-8)


def test_half_a_turn_up_stays_up():
    assert principal(np.array([np.pi, -np.pi, 3 * np.pi])) == pytest.approx([np.pi] * 3)


def test_a_mean_over_a_band_takes_its_ends_from_the_lines():
    level = 10 * np.log2(F / 1000)
    assert mean_over(F, level, 501.0, 1996.0) == pytest.approx(
        10 * (np.log2(0.501) + np.log2(1.996)) / 2, abs=1e-9
    )


def test_pressures_go_there_and_back():
    pressure = np.exp(-2j * np.pi * F * 1e-4) * F / 1000
    np.testing.assert_allclose(response_from(F, pressure).at(F), pressure, rtol=1e-9)


def test_distance_and_density_of_points():
    curve = response_of(F, np.zeros(len(F)), None)
    assert at_distance(curve, 1.0, 2.0).level[0] == pytest.approx(-6.0206, abs=1e-4)
    assert curve.points_an_octave == pytest.approx(480 / np.log2(1000), rel=1e-6)
