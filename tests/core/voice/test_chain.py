"""A chain from its input to its output."""

import numpy as np
import pytest

from firecrest.core.voice.chain import (
    Filter,
    analogue_response,
    chain_responses,
    coefficients,
    sections,
)

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
