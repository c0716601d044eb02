"""A chain from its input to its output."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import signal

from firecrest.core.voice.chain import (
    Filter,
    analogue_response,
    block_response,
    chain_responses,
    coefficients,
    sections,
)
from firecrest.core.voice.prototypes import second_order_high_pass

F = np.geomspace(5, 2000, 300)


def db(values):
    return 20 * np.log10(np.abs(values))


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
    spent = [len(sections(Filter("low_pass", 100.0, order=n))) for n in range(1, 9)]
    assert spent == [1, 1, 2, 2, 3, 3, 4, 4]


def test_columns_of_filters_are_each_its_own():
    corners = np.array([[30.0], [60.0]])
    both = chain_responses(0.0, False, [Filter("high_pass", corners)], F, 48000.0)
    for row, corner in enumerate((30.0, 60.0)):
        alone = chain_responses(0.0, False, [Filter("high_pass", corner)], F, 48000.0)
        np.testing.assert_allclose(both[row], alone, rtol=1e-12)


@given(
    st.sampled_from(["low_pass", "high_pass"]),
    st.sampled_from(["butterworth", "linkwitz_riley", "bessel"]),
    st.integers(1, 8),
    st.floats(5, 21600),
    st.sampled_from([48000.0, 96000.0]),
)
def test_every_accepted_pass_filter_is_stable(kind, family, order, corner, rate):
    if family == "linkwitz_riley" and order % 2:
        return
    for row in coefficients(Filter(kind, corner, family=family, order=order), rate):
        assert np.all(np.abs(np.roots(row[3:])) < 1)


@given(
    st.sampled_from(["parametric", "low_shelf", "high_shelf", "notch", "all_pass"]),
    st.floats(5, 21600),
    st.floats(-30, 30),
    st.floats(0.1, 30),
    st.integers(1, 2),
)
def test_every_other_accepted_filter_is_stable(kind, corner, gain, q, order):
    for row in coefficients(Filter(kind, corner, gain, q, order=order), 48000.0):
        assert np.all(np.abs(np.roots(row[3:])) < 1)


@pytest.mark.parametrize("order", [1, 2, 5, 8])
@pytest.mark.parametrize("kind", ["low_pass", "high_pass"])
def test_butterworth_equals_the_usual_design(kind, order):
    corner, rate = 3170.0, 48000.0
    f = np.geomspace(20, 20e3, 200)
    sos = signal.butter(order, corner, kind[:-5], fs=rate, output="sos")
    _, wanted = signal.sosfreqz(sos, f, fs=rate)
    found = block_response(Filter(kind, corner, order=order), f, rate)
    np.testing.assert_allclose(found, wanted, rtol=0, atol=1e-9)


def test_delay_turns_the_phase_and_leaves_the_level():
    rows = chain_responses(0.0, False, [], F, 48000.0, 1e-4)
    np.testing.assert_allclose(rows[-1], np.exp(-2j * np.pi * F * 1e-4), rtol=1e-12)


def test_the_phase_knob_of_an_own_crossover_is_late_at_its_corner():
    for turn in (0.0, 45.0, 180.0):
        block = Filter(
            "low_pass", 90.0, order=2, analogue=True, level_db=-3.0, turn=np.radians(turn)
        )
        plain = Filter("low_pass", 90.0, order=2)
        at = np.array([90.0])
        found = block_response(block, at, 48000.0) / analogue_response(plain, at)
        assert np.abs(found) == pytest.approx([10 ** (-3 / 20)])
        assert np.degrees(np.abs(np.angle(found))) == pytest.approx([turn], abs=0.01)


def test_a_linkwitz_transform_moves_a_closed_box():
    box = Filter("high_pass", 80.0, order=2)
    moved = Filter("linkwitz_transform", 40.0, q=0.5, source_frequency=80.0, source_q=2**-0.5)
    found = analogue_response(box, F) * analogue_response(moved, F)
    wanted = second_order_high_pass(0.5).response(F, 40.0)
    np.testing.assert_allclose(found, wanted, rtol=1e-9)
