"""Shapes that an EQ may aim at."""

import numpy as np
import pytest

from firecrest.core.voice import targets

F = np.array([20.0, 1000.0, 2000.0, 20000.0])


def test_shapes():
    assert targets.flat(F).tolist() == [0.0] * 4
    assert targets.tilt(F, 1.0)[1:3] == pytest.approx([0.0, -1.0])
    warm = targets.warm(F)
    assert warm[0] == pytest.approx(3.0, abs=0.1)
    assert warm[-1] == pytest.approx(-2.0, abs=0.2)


def test_points_are_joined_over_ln_f_and_flat_beyond():
    found = targets.through_points(F, [(500.0, 2.0), (2000.0, -2.0)])
    assert found == pytest.approx([2.0, 0.0, -2.0, -2.0])
