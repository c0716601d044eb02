"""Filters: definitions of the prototypes, and the biquads against them."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.voice.chain import (
    Filter,
    analogue_response,
    chain_responses,
    coefficients,
    sections,
)
from firecrest.core.voice.prototypes import low_pass_poles

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


@pytest.mark.parametrize(
    "block",
    [
        Filter("high_pass", 40.0, order=3),
        Filter("low_pass", 300.0, order=4, family="bessel"),
        Filter("low_shelf", 95.0, 4.0, 0.707),
        Filter("parametric", 58.0, -5.0, 3.0),
    ],
)
def test_digital_follows_the_prototype_well_below_the_rate(block):
    f = np.geomspace(5, 500, 100)
    digital = chain_responses(0.0, False, [block], f, 192000.0)[-1]
    np.testing.assert_allclose(digital, analogue_response(block, f), rtol=2e-3, atol=1e-4)


def test_digital_filters_are_exact_at_their_corner_and_stable():
    for rate in (44100.0, 48000.0, 96000.0):
        block = Filter("parametric", 9000.0, 6.0, 2.0)
        assert db(chain_responses(0, False, [block], np.array([9000.0]), rate)[-1])[
            0
        ] == pytest.approx(6.0, abs=1e-9)
        for row in coefficients(Filter("high_pass", 22.0, order=8), rate):
            assert np.all(np.abs(np.roots(row[3:])) < 1)


def test_rows_of_a_chain_go_from_input_to_output():
    blocks = [Filter("high_pass", 40.0), Filter("low_shelf", 95.0, 4.0)]
    rows = chain_responses(-6.0, True, blocks, F, 48000.0)
    assert rows.shape == (4, len(F))
    np.testing.assert_array_equal(rows[0], 1.0)
    np.testing.assert_allclose(rows[1], -(10 ** (-6 / 20)))
    alone = [chain_responses(0, False, [b], F, 48000.0)[-1] for b in blocks]
    np.testing.assert_allclose(rows[3], rows[1] * alone[0] * alone[1], rtol=1e-12)


def test_sections_spent():
    assert [len(sections(Filter("low_pass", 100.0, order=n))) for n in range(1, 9)] == [
        1,
        1,
        2,
        2,
        3,
        3,
        4,
        4,
    ]
