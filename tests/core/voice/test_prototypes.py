"""Prototypes of the filters against their definitions."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.voice.chain import Filter, analogue_response
from firecrest.core.voice.prototypes import (
    high_shelf,
    low_pass_poles,
    low_shelf,
    second_order_high_pass,
)

F = np.geomspace(5, 2000, 300)
KINDS = ["parametric", "low_shelf", "high_shelf"]


def db(values):
    return 20 * np.log10(np.abs(values))


@pytest.mark.parametrize("kind", ["low_pass", "high_pass"])
@pytest.mark.parametrize("order", range(1, 9))
@pytest.mark.parametrize("family", ["butterworth", "bessel"])
def test_3_db_at_the_corner(kind, order, family):
    block = Filter(kind, 100.0, family=family, order=order)
    assert db(analogue_response(block, np.array([100.0])))[0] == pytest.approx(-3.0103, abs=1e-3)


@pytest.mark.parametrize("order", [2, 4, 6, 8])
def test_linkwitz_riley_halves_sum_flat(order):
    low = analogue_response(Filter("low_pass", 300.0, family="linkwitz_riley", order=order), F)
    high = analogue_response(Filter("high_pass", 300.0, family="linkwitz_riley", order=order), F)
    sign = -1.0 if order % 4 == 2 else 1.0
    np.testing.assert_allclose(np.abs(low + sign * high), 1.0, rtol=1e-9)
    at = Filter("low_pass", 300.0, family="linkwitz_riley", order=order)
    assert db(analogue_response(at, np.array([300.0])))[0] == pytest.approx(-6.0206, abs=1e-3)


@pytest.mark.parametrize("order", range(1, 9))
def test_butterworth_magnitude_is_maximally_flat(order):
    h = analogue_response(Filter("high_pass", 50.0, order=order), F)
    np.testing.assert_allclose(np.abs(h) ** 2, 1 / (1 + (50 / F) ** (2 * order)), rtol=1e-9)


def test_bessel_is_slower_than_butterworth_at_the_corner():
    q = [max(q for _, q in low_pass_poles(f, 4) if q) for f in ("bessel", "butterworth")]
    assert q[0] < q[1]


@pytest.mark.parametrize("kind", KINDS)
@given(gain=st.floats(-15, 15), q=st.floats(0.3, 5))
def test_boost_and_cut_are_inverse(kind, gain, q):
    up, down = (analogue_response(Filter(kind, 120.0, g, q), F) for g in (gain, -gain))
    np.testing.assert_allclose(up * down, 1.0, rtol=1e-9)


def test_gains_stand_where_they_belong():
    ends = np.array([1e-3, 120.0, 1e6])
    assert db(analogue_response(Filter("parametric", 120.0, 6.0, 1.2), ends)) == pytest.approx(
        [0, 6, 0], abs=1e-4
    )
    assert db(analogue_response(Filter("low_shelf", 120.0, 6.0, 0.7), ends)) == pytest.approx(
        [6, 3, 0], abs=1e-4
    )
    assert db(analogue_response(Filter("high_shelf", 120.0, 6.0, 0.7), ends)) == pytest.approx(
        [0, 3, 6], abs=1e-4
    )


@given(st.floats(-12, 12), st.floats(0.4, 2))
def test_a_high_shelf_is_the_mirror_of_a_low_one(gain, q):
    """s -> 1/s: what one does an octave below its corner the other does an octave above."""
    low, high = low_shelf(gain, q), high_shelf(gain, q)
    above, below = high.response(2 * F, 100.0), low.response(1e4 / (2 * F), 100.0)
    np.testing.assert_allclose(np.abs(above), np.abs(below), rtol=1e-9)


def test_a_high_pass_of_given_q_has_it_at_its_corner():
    for q in (0.5, 0.707, 1.2):
        at = second_order_high_pass(q).response(np.array([80.0]), 80.0)
        assert abs(at[0]) == pytest.approx(q)
