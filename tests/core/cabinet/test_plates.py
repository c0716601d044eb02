"""First resonances against Navier, an own many-term Ritz, and known limits."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.cabinet.materials import MATERIALS, Infill
from firecrest.core.cabinet.plates import resonance
from firecrest.core.cabinet.shapes.shell import Field

BIRCH = MATERIALS["birch plywood"]


def _ritz(a, b, t, terms=6):
    """Clamped plate by products of beam-like polynomials x^2 (1 - x)^2 x^k."""
    x, w = np.polynomial.legendre.leggauss(40)
    x, w = (x + 1) / 2, w / 2
    base = np.polynomial.Polynomial([0, 0, 1, -2, 1])
    shapes = [base * np.polynomial.Polynomial([0] * k + [1]) for k in range(terms)]
    value, slope, bend = (
        np.array([s.deriv(d)(x) if d else s(x) for s in shapes]) for d in (0, 1, 2)
    )
    mass, tilt, stiff = ((v * w) @ v.T for v in (value, slope, bend))
    cross = (bend * w) @ value.T
    k = (np.kron(stiff, mass) * b / a**3 + np.kron(mass, stiff) * a / b**3
         + (np.kron(cross, cross.T) + np.kron(cross.T, cross)) * BIRCH.poisson / (a * b)
         + 2 * (1 - BIRCH.poisson) * np.kron(tilt, tilt) / (a * b))  # fmt: skip
    lowest = np.linalg.eigvals(np.linalg.solve(np.kron(mass, mass) * a * b, k)).real.min()
    flexural = BIRCH.stiffness * t**3 / (12 * (1 - BIRCH.poisson**2))
    return np.sqrt(lowest * flexural / (BIRCH.density * t)) / (2 * np.pi)


@pytest.mark.parametrize("sides", [(0.2, 0.2), (0.3, 0.18), (0.5, 0.15)])
def test_clamped_is_at_most_half_a_per_cent_above_many_terms(sides):
    found = resonance(Field(0.012, *sides), BIRCH, None, 200.0).clamped
    assert 1.0 <= found / _ritz(*sides, 0.012) < 1.005


@given(st.floats(0.1, 0.6), st.floats(0.1, 0.6), st.floats(0.004, 0.03))
def test_thicker_is_higher_in_proportion_and_clamped_above_held(a, b, t):
    one, two = (resonance(Field(s * t, a, b), BIRCH, None, 200.0) for s in (1.0, 2.0))
    assert two.supported == pytest.approx(2 * one.supported)
    assert one.clamped > 1.7 * one.supported


def test_infill_lightens_and_softens_and_all_of_it_is_solid():
    field = Field(0.006, 0.15, 0.15)
    pla = MATERIALS["solid PLA print"]
    whole, full, hollow = (
        resonance(field, pla, infill, 200.0)
        for infill in (None, Infill(0.0012, 1.0), Infill(0.0012, 0.2))
    )
    assert full.supported == pytest.approx(whole.supported)
    assert hollow.supported != pytest.approx(whole.supported)


def test_a_flag_says_in_the_band_close_or_clear():
    field = Field(0.012, 0.3, 0.3)
    f = resonance(field, BIRCH, None, 1.0)
    for high, flag in ((1.1 * f.clamped, "in the band"), (f.supported, "close"),
                       (f.supported / 1.6, "clear")):  # fmt: skip
        assert resonance(field, BIRCH, None, high).flag == flag
