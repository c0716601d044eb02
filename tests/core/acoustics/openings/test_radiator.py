"""Passive radiators in the network, and what follows from their sheet."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.acoustics.openings import Radiator
from firecrest.core.acoustics.openings.flow import Flow
from firecrest.core.acoustics.openings.radiator import derive_radiator, sag

W = 2 * np.pi * np.geomspace(5, 2000, 60)
FIGURES = (st.floats(0.005, 0.5), st.floats(1e-4, 1e-2), st.floats(0.01, 5))


@given(*FIGURES)
def test_it_passes_most_at_its_resonance_and_never_gives_energy(mass, soft, loss):
    cone = Radiator(mass, soft, loss, 0.0136, 0)
    at = 2 * np.pi * cone.resonance
    own, through = cone.admittances(np.array([at, 0.5 * at, 2 * at]))
    assert own is through
    assert np.abs(own[0]) == pytest.approx(0.0136**2 / loss)
    assert np.all(np.abs(own[1:]) < np.abs(own[0]))
    assert np.all(np.real(own) > 0)


@given(*FIGURES)
def test_sag_is_what_gravity_makes_of_its_resonance(mass, soft, loss):
    resonance = Radiator(mass, soft, loss, 0.0136, 0).resonance
    assert sag(mass, soft) == pytest.approx(9.81 / (2 * np.pi * resonance) ** 2)


def test_a_lossless_one_at_its_resonance_stays_finite():
    cone = Radiator(0.09, 7e-4, 0.0, 0.0136, 0)
    assert np.all(np.isfinite(cone.admittances(np.array([2 * np.pi * cone.resonance]))[0]))


def test_travel_is_the_integral_of_its_flow_over_its_area():
    cone, flow = Radiator(0.09, 7e-4, 0.5, 0.02, 0), np.full((2, 60), 1e-3 + 0j)
    voices = [np.ones(60), 0.5 * np.ones(60)]
    moved = cone.motion(Flow(flow, flow, voices, [v / (1j * W) for v in voices]))
    np.testing.assert_allclose(moved, 1.5e-3 / (1j * W) / 0.02)


def test_two_count_twice_and_resonate_alike():
    one, two = (Radiator(0.09, 7e-4, 0.5, 0.02, 0, count=n) for n in (1, 2))
    np.testing.assert_allclose(two.admittances(W)[0], 2 * one.admittances(W)[0])
    assert (two.resonance, two.resonator()[1]) == (one.resonance, one.resonator()[1])


def test_free_resonance_and_q_stand_for_compliance_and_loss():
    known = derive_radiator({"sd": 0.02, "mmp": 0.1, "fp": 20.0, "qmp": 8.0}).figures
    cone = Radiator(known["mmp"], known["cmp"], known["rmp"], 0.02, 0)
    assert cone.resonance == pytest.approx(20.0)
    assert np.sqrt(known["mmp"] / known["cmp"]) / known["rmp"] == pytest.approx(8.0)
    assert derive_radiator({"sd": 0.02, "mmp": 0.1}).missing
