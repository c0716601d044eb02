"""Minimum phase against systems that have it, and arrivals against delays put in."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.voice.chain import Filter, analogue_response
from firecrest.core.voice.phase import (
    Tails,
    arrival,
    excess_phase,
    from_geometry,
    minimum_phase,
    path_to,
    tails_of,
    with_minimum_phase,
)
from firecrest.core.voice.response import Response, response_from

F = np.geomspace(10, 40e3, 600)
INSIDE = (F > 60) & (F < 6000)


def made(seed):
    """One of twenty systems without excess phase: a band-pass with bells and shelves."""
    random = np.random.default_rng(seed)
    orders = random.integers(1, 5, size=2)
    blocks = [
        Filter("high_pass", random.uniform(30, 300), order=int(orders[0])),
        Filter("low_pass", random.uniform(2e3, 15e3), order=int(orders[1])),
        Filter("low_shelf", random.uniform(60, 600), random.uniform(-8, 8), 0.7),
    ]
    blocks += [
        Filter("parametric", 10**at, gain, q)
        for at, gain, q in random.uniform((2, -9, 0.5), (4, 9, 4), (4, 3))
    ]
    pressure = np.prod([analogue_response(block, F) for block in blocks], axis=0)
    return pressure, Tails(6.0206 * orders[0], -6.0206 * orders[1])


@pytest.mark.parametrize("seed", range(20))
def test_twenty_systems_of_minimum_phase_within_a_degree(seed):
    pressure, tails = made(seed)
    curve = response_from(F, pressure)
    found = minimum_phase(curve, F, tails)
    apart = np.degrees(np.angle(pressure * np.exp(-1j * found)))
    assert np.max(np.abs(apart[INSIDE])) < 1.0


@settings(max_examples=20)
@given(st.integers(0, 40), st.floats(-3e-4, 3e-4), st.booleans())
def test_an_arrival_and_its_polarity_are_found_again(seed, delay, turned):
    pressure, tails = made(seed)
    played = (-1 if turned else 1) * pressure * np.exp(-2j * np.pi * F * delay)
    found = arrival(response_from(F, played), 200.0, 4000.0, tails)
    assert found.inverted == turned
    assert found.delay == pytest.approx(delay, abs=4e-6)
    assert not found.doubtful


def test_a_straight_slope_turns_by_ninety_degrees_for_each_6_db():
    level = 6.0206 * np.log2(F / 1000)
    curve = Response(F, level, None)
    assert tails_of(curve).low == pytest.approx(6.0206, abs=1e-9)
    phase = minimum_phase(curve, np.array([500.0]), Tails(6.0206, 6.0206))
    assert np.degrees(phase) == pytest.approx([90.0], abs=1e-3)


def test_tails_are_held_within_what_boxes_do():
    steep = Response(F, 90 * np.log2(F / 1000), None)
    assert tails_of(steep).low == 30.0
    assert tails_of(steep).high == 0.0


def test_a_phase_that_is_no_delay_is_doubtful():
    pressure, tails = made(3)
    turned = pressure * np.exp(1j * np.radians(75.0))
    assert arrival(response_from(F, turned), 200.0, 4000.0, tails).doubtful


def test_an_empty_band_is_refused():
    with pytest.raises(ValueError, match="fewer than two"):
        arrival(response_from(F, made(0)[0]), 50e3, 60e3)


def test_a_longer_path_is_a_delay():
    level = Response(F, np.full(len(F), 80.0), None)
    late = from_geometry(level, 1.0343, 1.0, 343.0)
    assert excess_phase(late, Tails(0, 0)) == pytest.approx(-2 * np.pi * F * 1e-4, abs=1e-6)
    assert with_minimum_phase(level, Tails(0, 0)).phase == pytest.approx(0.0, abs=1e-9)
    assert path_to((0.0, 0.0, 0.1), 1.0, 0.0) == pytest.approx(0.9)
    assert path_to((0.5, 0.0, 0.0), 1.0, 30.0) == pytest.approx(np.sqrt(0.75))
