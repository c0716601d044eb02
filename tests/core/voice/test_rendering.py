"""Samples through responses, level-matched, with cones held at their travel."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.voice.rendering import (
    frequencies,
    held,
    lacking,
    level_matched,
    through,
    weighted_level,
)

RATE = 48000.0
T = np.arange(48000) / RATE


def sine(f, size=0.5):
    return size * np.sin(2 * np.pi * f * T)


def test_a_response_scales_and_delays_a_sine():
    f = frequencies(RATE)
    response = 0.5 * np.exp(-2j * np.pi * f * 1e-3)
    out = through(sine(440.0), response, RATE)
    inside = slice(12000, 36000)
    late = 0.25 * np.sin(2 * np.pi * 440.0 * (T - 1e-3))
    np.testing.assert_allclose(out[inside], late[inside], atol=2e-3)


@given(st.floats(1e-4, 1e-2), st.floats(-0.05, 0.05))
def test_a_cone_never_passes_its_limit_and_small_travel_is_left_alone(limit, travel):
    kept = held(np.array([travel]), limit)[0]
    assert abs(kept) <= limit * (1 + 1e-12)
    assert np.sign(kept) == np.sign(travel) or travel == 0
    small = np.array([0.2 * limit])
    assert held(small, limit) == pytest.approx(small, rel=1e-4)


def test_what_a_cone_lacks_is_nothing_below_its_limit():
    travel = 1e-3 * np.sin(2 * np.pi * 60 * T)
    assert np.max(np.abs(lacking(travel, 5e-3, RATE))) < 1e-2 * (2 * np.pi * 60) ** 2 * 1e-3
    assert np.max(np.abs(lacking(travel, 5e-4, RATE))) > 0.1 * (2 * np.pi * 60) ** 2 * 1e-3


def test_the_louder_is_turned_down_and_the_softer_left():
    loud, soft = sine(1000.0), sine(1000.0, 0.25)
    first, second, by = level_matched(loud, soft)
    assert by == pytest.approx(6.02, abs=0.01)
    assert weighted_level(first) == pytest.approx(weighted_level(second), abs=1e-6)
    np.testing.assert_array_equal(second, soft)
    assert level_matched(soft, loud)[2] == pytest.approx(-6.02, abs=0.01)


def test_a_full_sine_at_1_khz_is_weighed_as_the_recommendation_has_it():
    """BS.1770: a 997 Hz sine at 0 dBFS reads -3.01 LKFS, which is 10 lg of the sum - 0.691."""
    assert weighted_level(sine(997.0, 1.0)) - 0.691 == pytest.approx(-3.01, abs=0.02)
