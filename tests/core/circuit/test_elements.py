"""Chambers and driver groups by themselves."""

import numpy as np
import pytest

from firecrest.core.acoustics.openings import OUTSIDE
from firecrest.core.circuit.electrical import GROUND, output
from firecrest.core.circuit.elements import Chamber, DriverGroup, Network
from tests.core.circuit.test_solve import driver

W = 2 * np.pi * np.geomspace(5, 2000, 40)


def test_a_chamber_is_a_spring_with_a_leak_beside_it_and_a_loss_in_series():
    spring, lossy = Chamber(1e-7), Chamber(1e-7, 2e-6, 300.0)
    np.testing.assert_allclose(spring.admittance(W), 1j * W * 1e-7)
    series = 1 / (300.0 + 1 / (1j * W * 1e-7))
    np.testing.assert_allclose(lossy.admittance(W), series + 2e-6)
    assert np.all(np.real(lossy.admittance(W)) >= 2e-6)


def test_a_coil_across_a_stiff_source_brakes_the_cone():
    """1/m = Zm + Bl^2/Ze; at resonance that is Rms + Bl^2/Re with no inductance."""
    constants = driver(le=0.0, l2=0.0, r2=0.0)
    group = DriverGroup(constants, 0)
    at = 1 / np.sqrt(constants.m_ms * constants.c_ms)
    braked = constants.r_ms + constants.bl**2 / constants.r_e
    admittance = 1 / constants.coil_impedance(np.array([at]))
    assert 1 / group.mobility(np.array([at]), [admittance])[0] == pytest.approx(braked)


def test_groups_know_their_count_and_their_terminals():
    group = DriverGroup(driver(), 0, OUTSIDE, 1, 2, 3, 2)
    assert group.count == 12
    assert group.ends == (output(1), GROUND)
    assert DriverGroup(driver(), 0, plus=4, minus=5).ends == (4, 5)


def test_leaks_are_heard_unless_no_cone_faces_outside():
    air = (Chamber(1e-7), Chamber(1e-7))
    assert Network(air, (DriverGroup(driver(), 0),)).leaks_count
    assert not Network(air, (DriverGroup(driver(), 0, 1),)).leaks_count
