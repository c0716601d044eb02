"""Rooms, baffles, places, loss presets and turbulence against their definitions."""

import numpy as np
import pytest

from firecrest.core.acoustics.losses import DAMPING, TIGHTNESS, damping_of, tightness_of
from firecrest.core.acoustics.openings.port import (
    LOSS_COEFFICIENTS,
    end_correction,
    first_pipe_resonance,
    turbulent_resistance,
)
from firecrest.core.acoustics.radiation import (
    Surroundings,
    baffle_corner,
    baffle_step,
    far_pressure,
    from_place,
    heard,
    level,
    room_gain,
    room_of,
)
from firecrest.core.air import DATA_SHEET_AIR as AIR

F = np.geomspace(2, 20000, 400)


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


def test_the_turbulent_resistance_loses_what_the_square_law_loses():
    """Power of (K rho/2) v|v| over a cycle, integrated, against R u^2 of the resistance."""
    peak, area, k = 9.0, 0.002, LOSS_COEFFICIENTS["plain"]
    t = np.linspace(0, 2 * np.pi, 200001)[:-1]
    v = peak * np.sin(t)
    lost = np.mean(0.5 * k * AIR.density * v * np.abs(v) * v * area)
    resistance = turbulent_resistance(np.array(peak), area, k, AIR)
    assert float(resistance) * (peak * area) ** 2 / 2 == pytest.approx(lost, rel=1e-6)


def test_a_slot_along_a_wall_has_the_larger_correction():
    area = 0.003
    radius = np.sqrt(area / np.pi)
    assert end_correction(area, "along_wall") == pytest.approx((0.8488 + 0.8669) * radius, rel=1e-3)
    assert first_pipe_resonance(0.3, 0.043, AIR) == pytest.approx(343.2 / 0.686)


def test_presets_are_found_by_their_figures_and_lie_in_their_ranges():
    for tight in TIGHTNESS:
        assert tightness_of(tight.leak_q) is tight
        assert tight.low < tight.leak_q < tight.high
    for damping in DAMPING:
        stuffing, low, high = damping.stuffing
        assert low <= stuffing <= high
        assert damping.absorption_q[1] > damping.absorption_q[0] > damping.absorption_q[2]
        assert damping_of(stuffing, damping.absorption_q[0]) is damping
    assert tightness_of(11.0) is None
    assert damping_of(0.02, None) is None
