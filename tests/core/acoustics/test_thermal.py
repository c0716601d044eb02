"""Heat of voice coils against time stepping and closed forms."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.acoustics.thermal import (
    PLAYED,
    RATED_RISE,
    Thermal,
    rise_per_watt,
    usual_diameter,
    usual_thermal,
    warmer,
)


def stepped(thermal, watts, seconds, step=0.02):
    """Coil temperature above the air by Euler steps."""
    coil = motor = 0.0
    for _ in range(int(seconds / step)):
        through = (coil - motor) / thermal.coil
        coil += step * (watts - through) / thermal.coil_capacity
        motor += step * (through - motor / thermal.motor) / thermal.motor_capacity
    return coil


@pytest.mark.parametrize("seconds", [1.0, 10.0, 120.0, 1800.0])
@pytest.mark.parametrize("diameter", [0.014, 0.025, 0.075])
def test_the_closed_form_is_what_time_stepping_gives(diameter, seconds):
    thermal = usual_thermal(diameter)
    watts = 100.0 / (thermal.coil + thermal.motor)
    step = min(0.02, thermal.coil * thermal.coil_capacity / 200)
    assert watts * rise_per_watt(thermal, seconds) == pytest.approx(
        stepped(thermal, watts, seconds, step), abs=0.1
    )


def test_rated_power_heats_a_usual_coil_as_stated():
    for power in (5.0, 20.0, 300.0):
        thermal = usual_thermal(usual_diameter(power))
        assert power * (thermal.coil + thermal.motor) == pytest.approx(RATED_RISE)
        assert power * rise_per_watt(thermal, 1e9) == pytest.approx(RATED_RISE)


@given(*[st.floats(0.1, 20.0)] * 2, st.floats(0.2, 50.0), st.floats(20.0, 5000.0))
@settings(max_examples=60)
def test_a_coil_warms_from_nothing_and_never_past_its_end(coil, motor, small, large):
    thermal = Thermal(coil, motor, small, large)
    found = [rise_per_watt(thermal, t) for t in (0.0, 1e-6 * small, 1.0, 60.0, PLAYED, 1e9)]
    assert found[0] == pytest.approx(0.0, abs=1e-9)
    assert found[1] == pytest.approx(1e-6, rel=1e-3)
    assert np.all(np.diff(found) >= -1e-9)
    assert found[-1] == pytest.approx(coil + motor)


def test_copper_gains_a_third_in_85_kelvin():
    assert warmer(6.0, 85.0) == pytest.approx(2.0, rel=0.01)
