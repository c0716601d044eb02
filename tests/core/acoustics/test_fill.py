"""Fibre fill against a slab cut into thin layers, and its limits."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.assessment.assess import assess
from firecrest.core.acoustics.fill import Fill
from firecrest.core.acoustics.openings.port import GAMMA, PRANDTL
from firecrest.core.air import DATA_SHEET_AIR as AIR
from firecrest.core.circuit.elements import Chamber
from firecrest.design.edits.paths import replace_at, set_number

F = np.array([15.0, 30.0, 60.0, 90.0])
W = 2 * np.pi * F


def layered(fill, layers=600):
    """Admittance of a cube whose back is filled, from thin layers before a wall.

    The inertia of its air is left out, as it is of every chamber.
    """
    side = float(np.cbrt(fill.volume))
    area, step = side**2, side / layers
    sigma, rho = fill.resistivity, AIR.density
    slow = 1j * W * rho * PRANDTL / sigma
    modulus = AIR.stiffness / (GAMMA - (GAMMA - 1) / (1 + np.sqrt(1 + 2 * slow) / (4 * slow)))
    flow, pressure = np.zeros(len(F), complex), np.ones(len(F), complex)
    for n in range(layers):
        filled = (n + 0.5) / layers <= fill.share
        flow = flow + 1j * W * area * step / (modulus if filled else AIR.stiffness) * pressure
        pressure = pressure + (sigma if filled else 0.0) * step / area * flow
    return flow / pressure


@pytest.mark.parametrize("share", [0.3, 0.7, 1.0])
@pytest.mark.parametrize("sigma", [500.0, 3000.0, 12000.0])
def test_a_chamber_is_the_slab_of_thin_layers_at_low_frequencies(sigma, share):
    fill = Fill(sigma, share, 0.008, AIR)
    mine = Chamber(0.008 / AIR.stiffness, fill=fill).admittance(W)
    exact = layered(fill)
    np.testing.assert_allclose(np.abs(mine / exact), 1.0, atol=0.005)
    assert np.max(np.abs(np.angle(mine / exact, deg=True))) < 0.3


def test_slow_air_is_isothermal_and_fast_air_is_not():
    fill = Fill(5000.0, 0.6, 0.01, AIR)
    slow, fast = (fill.modulus(np.array([w]))[0] for w in (1e-3, 1e7))
    assert slow == pytest.approx(AIR.stiffness / GAMMA, rel=1e-3)
    assert fast == pytest.approx(AIR.stiffness, rel=0.01)
    whole = fill.compliance(np.array([1e-3]))[0]
    assert whole == pytest.approx(0.01 / AIR.stiffness * (0.4 + 0.6 * GAMMA), rel=1e-3)


@given(st.floats(100, 1e5), st.floats(0.01, 1.0), st.floats(1e-4, 0.2), st.floats(5, 500))
def test_fill_only_ever_takes(sigma, share, volume, f):
    made = Chamber(volume / AIR.stiffness, fill=Fill(sigma, share, volume, AIR))
    assert made.admittance(np.array([2 * np.pi * f]))[0].real >= 0


def test_a_filled_box_is_tuned_lower_and_its_qs_are_set_aside(slipway):
    here = ("box", "chambers", 0)
    filled = set_number(slipway, (*here, "fill_resistivity"), 4000.0)
    empty, full = (assess(d).acoustic for d in (slipway, filled))
    assert full.model.tuning[0] < 0.97 * empty.model.tuning[0]
    other = replace_at(filled, (*here, "absorption_q"), 12.0)
    stuffed = set_number(other, (*here, "stuffing"), 0.2)
    np.testing.assert_array_equal(assess(stuffed).acoustic.unit_level, full.unit_level)
