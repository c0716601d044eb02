"""The conventions of arrays: floats and columns alike."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.arrays import (
    along,
    decibel,
    inverse,
    largest,
    least,
    mixed,
    picked,
    plain,
    positive,
    root,
    summed,
    summed_along,
)

PARTS = st.floats(-1e3, 1e3).filter(lambda x: abs(x) > 1e-3)


@given(PARTS, PARTS)
def test_inverse_is_one_over(re, im):
    z = np.array([complex(re, im)])
    np.testing.assert_allclose(inverse(z) * z, 1.0, rtol=1e-14)
    assert inverse(np.array([4.0]))[0] == 0.25


def test_silence_has_minus_infinity_and_below_zero_no_root():
    assert decibel(np.array([0.0, 10.0])).tolist() == [-np.inf, 20.0]
    assert np.isnan(root(-1.0))
    assert np.isnan(root(np.array([-1.0, 4.0]))).tolist() == [True, False]


def test_floats_stay_floats_and_columns_columns():
    column = np.array([[1.0], [3.0]])
    assert (largest((1.0, 2.0)), least((1.0, 2.0)), positive(-1.0)) == (2.0, 1.0, 0.0)
    assert largest((2.0, column)).tolist() == [[2.0], [3.0]]
    assert least((2.0, column)).tolist() == [[1.0], [2.0]]
    assert positive(column - 2).tolist() == [[0.0], [1.0]]


def test_what_all_designs_agree_on_is_a_float():
    assert plain(np.full((3, 1), 7.0)) == 7.0
    assert plain(5.0) == 5.0
    assert plain(np.array([[1.0], [2.0]])).shape == (2, 1)


def test_picking_goes_row_by_row():
    values = np.arange(12.0).reshape(3, 4)
    assert picked(values, np.array([[0], [3], [1]]))[:, 0].tolist() == [0, 7, 9]
    assert picked(values, np.array([2]))[:, 0].tolist() == [2, 6, 10]
    assert picked(values[0], np.array([[1], [2]]))[:, 0].tolist() == [1, 2]
    stack = np.stack([values, 10 * values])
    assert picked(stack, np.array([[0], [3], [1]]))[1, :, 0].tolist() == [0, 70, 90]


def test_sums_and_voices():
    assert summed([np.ones(2), 2.0, np.arange(2.0)]).tolist() == [3, 4]
    answers = np.array([[1.0, 2.0], [3.0, 4.0]])
    assert mixed(answers, [np.array([1.0, 1.0]), np.array([0.0, 10.0])]).tolist() == [1, 42]


def test_what_has_more_design_axes_meets_each_of_the_first_axis():
    values, factor = np.arange(6.0).reshape(2, 3), np.array([[1.0], [10.0], [100.0]])
    found = along(values, factor)
    assert found.shape == (2, 3, 3)
    np.testing.assert_array_equal(found[1, 2], 100 * values[1])
    np.testing.assert_array_equal(along(values, 2.0), 2 * values)
    np.testing.assert_array_equal(summed_along([values, found])[0, 1], 11 * values[0])
