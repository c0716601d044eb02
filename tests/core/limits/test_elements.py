"""Where one part gives out."""

import numpy as np

from firecrest.core.limits.elements import spare


def test_a_still_part_never_gives_out_not_even_one_with_nothing_left():
    used = np.array([2.0, 0.0])
    assert spare(6.0, used).tolist() == [3.0, np.inf]
    assert spare(0.0, used).tolist() == [0.0, np.inf]


def test_columns_of_limits():
    found = spare(np.array([[1.0], [2.0]]), np.array([4.0, 8.0]))
    assert found.tolist() == [[0.25, 0.125], [0.5, 0.25]]
