"""Simple sources, rooms, baffles, places and delay against their definitions."""

import numpy as np
import pytest

from firecrest.core.acoustics.radiation import (
    SOLID_ANGLES,
    Surroundings,
    baffle_corner,
    baffle_step,
    far_pressure,
    from_place,
    group_delay,
    heard,
    level,
    room_gain,
    room_of,
)
from firecrest.core.air import DATA_SHEET_AIR as AIR

F = np.geomspace(2, 20000, 400)


def test_level_falls_6_db_per_doubling_and_rises_6_db_per_halved_angle():
    f, flow = np.array([100.0]), np.array([1e-3 + 0j])
    near, far = (level(far_pressure(flow, f, r, SOLID_ANGLES["ground"], AIR)) for r in (1, 2))
    assert near - far == pytest.approx(6.0206, abs=1e-4)
    pole, ground, wall, corner = (
        level(far_pressure(flow, f, 1, SOLID_ANGLES[p], AIR))[0]
        for p in ("pole", "ground", "wall", "corner")
    )
    assert np.diff([pole, ground, wall, corner]) == pytest.approx(6.0206, abs=1e-4)


def test_silence_is_minus_infinity_without_a_warning():
    assert level(np.array([0.0]))[0] == -np.inf


def test_group_delay_of_a_first_order_high_pass():
    f = np.geomspace(10, 1000, 50)

    def high_pass(frequency):
        x = 1j * frequency / 80.0
        return x / (1 + x)

    exact = 1 / (2 * np.pi * 80.0) / (1 + (f / 80.0) ** 2)
    np.testing.assert_allclose(group_delay(high_pass, f), exact, rtol=1e-7)


def test_a_room_lifts_the_bottom_by_its_figure_and_leaves_the_top():
    room = room_of(5.0, 9.0, AIR)
    assert room.upper == pytest.approx(343.2 / 10)
    lift = level(room_gain(room, F)) - level(np.ones_like(F))
    assert lift[-1] == pytest.approx(0, abs=1e-3)
    very_low = level(room_gain(room, np.array([0.01]))) - level(np.ones(1))
    assert very_low[0] == pytest.approx(9.0, abs=1e-3)
    assert np.all(np.diff(lift) <= 1e-9)


def test_the_baffle_step_is_six_decibel_with_its_half_at_115_over_the_width():
    step = baffle_step(baffle_corner(0.23), np.array([1.0, 115 / 0.23, 1e6]))
    decibel = 20 * np.log10(np.abs(step))
    np.testing.assert_allclose(decibel, [0, 3.01, 6.02], atol=0.01)


@pytest.mark.parametrize("place", SOLID_ANGLES)
def test_every_place_joins_the_half_space_before_a_wide_front(place):
    """Low down it plays into its own space, high up into that before its front."""
    flow, around = np.full(2, 1e-3 + 0j), Surroundings(2.0, SOLID_ANGLES[place], None, 300.0)
    ends = np.array([0.01, 1e7])
    found = np.abs(heard(flow, ends, around, AIR))
    own = np.abs(far_pressure(flow, ends, 2.0, SOLID_ANGLES[place], AIR))
    half = np.abs(far_pressure(flow, ends, 2.0, 2 * np.pi, AIR))
    np.testing.assert_allclose(found, [own[0], half[1]], rtol=1e-4)


def test_two_places_half_a_wave_apart_cancel_and_none_changes_nothing():
    f = np.array([AIR.speed / (2 * 0.5)])
    near, far = (from_place(f, (0.0, 0.0, z), 1000.0, AIR) for z in (0.0, -0.5))
    assert abs(near + far)[0] < 1e-3
    np.testing.assert_allclose(from_place(F, (0.0, 0.0, 0.0), 2.0, AIR), 1.0)


def test_nothing_around_leaves_the_simple_source():
    flow = np.full(F.size, 1e-3 + 0j)
    around = Surroundings(2.0, 2 * np.pi)
    np.testing.assert_allclose(
        heard(flow, F, around, AIR), far_pressure(flow, F, 2.0, 2 * np.pi, AIR)
    )
