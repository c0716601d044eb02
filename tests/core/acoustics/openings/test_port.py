"""Ports: ends, pipe, air speed, turbulence, against definitions and closed forms."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.acoustics.openings import Port
from firecrest.core.acoustics.openings.flow import Flow
from firecrest.core.acoustics.openings.port import (
    LOSS_COEFFICIENTS,
    SPEED_LIMITS,
    Pipe,
    acoustic_mass,
    end_correction,
    first_pipe_resonance,
    pipe_of,
    turbulent_resistance,
)
from firecrest.core.air import DATA_SHEET_AIR as AIR

AREA = np.pi * 0.1**2 / 4
W = 2 * np.pi * np.geomspace(5, 2000, 60)


def test_end_corrections():
    assert end_correction(AREA, "one_flanged") == pytest.approx(0.05 * 1.46183, rel=1e-4)
    assert end_correction(AREA, "both_free") < end_correction(AREA, "both_flanged")
    assert SPEED_LIMITS["plain"] < SPEED_LIMITS["one_flared"] < SPEED_LIMITS["both_flared"]


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


@given(st.floats(0.02, 0.6), st.floats(0.01, 0.1), st.floats(0, 500))
def test_a_pipe_is_reciprocal_passive_and_a_lump_at_low_frequencies(length, diameter, loss):
    """A chain of lines and end masses: 1 = own^2 - through^2 over a real wave for no loss."""
    area = np.pi * diameter**2 / 4
    ends = end_correction(area, "one_flanged")
    pipe = pipe_of(length, ends, area, diameter / 2, AIR)
    port = Port(acoustic_mass(length + ends, area, AIR), area, 0, loss, pipe=pipe)
    own, through = port.admittances(W)
    assert np.all(np.real(own) >= -1e-12)
    for phase in (1, -1, 1j):  # whatever is put on both ends, nothing comes out of it
        near, far = own - phase * through, phase * own - through
        assert np.all(np.real(near + np.conj(phase) * far) >= -1e-9 * np.abs(own))
    smooth = replace(port, pipe=replace(pipe, viscous=0.0, thermal=0.0))
    low = 2 * np.pi * np.array([2.0])
    lump = Port(port.mass, area, 0, loss).admittances(low)[0]
    np.testing.assert_allclose(smooth.admittances(low)[1], lump, rtol=1e-3)


def test_the_pipe_and_its_ends_hold_all_of_the_mass():
    pipe = pipe_of(0.3, 0.05, 0.002, 0.025, AIR)
    assert isinstance(pipe, Pipe)
    assert pipe.share == pytest.approx(0.3 / 0.35)
    assert pipe.compliance == pytest.approx(0.002 * 0.3 / AIR.stiffness)
    assert pipe.thermal == pytest.approx(0.4 / np.sqrt(0.71) * pipe.viscous)


def test_equal_ports_move_the_air_of_one_each():
    one, three = Port(60.0, AREA, 0, 10.0), Port(60.0, AREA, 0, 10.0, count=3)
    np.testing.assert_allclose(three.admittances(W)[0], 3 * one.admittances(W)[0])
    assert three.resonator()[0] == pytest.approx(3 * one.resonator()[0])


def test_the_air_speed_of_a_pipe_is_that_of_the_faster_end():
    ones = np.ones((1, 4), dtype=complex)
    flow = Flow(ones, np.array([[0.5, 2, 0.5, 2]]) * ones, [ones[0]], [ones[0]])
    lump = Port(60.0, AREA, 0)
    np.testing.assert_allclose(np.abs(lump.motion(flow)), 1 / AREA)
    pipe = Port(60.0, AREA, 0, pipe=Pipe(0.8, 1e-9, 0.0, 0.0))
    np.testing.assert_allclose(pipe.motion(flow), np.array([1, 2, 1, 2]) / AREA)
