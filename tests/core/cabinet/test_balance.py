from math import degrees, pi

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.cabinet.balance import FRICTION, Push, Weighed, balance, walk

SQUARE = np.array([(-0.1, -0.2), (0.1, -0.2), (0.1, 0.0), (-0.1, 0.0)])


def test_a_block_tips_over_its_nearest_edge():
    found = balance([Weighed("a", 2.0, (0.0, 0.1, -0.05)), Weighed("b", 1.0, (0.03, 0.1, -0.05))],
                    SQUARE, 0.0)  # fmt: skip
    assert found.mass == 3.0
    assert found.centre == pytest.approx((0.01, 0.1, -0.05))
    assert degrees(found.tip_angle) == pytest.approx(degrees(np.arctan(0.05 / 0.1)))


def test_what_stands_beyond_its_feet_falls_by_itself():
    found = balance([Weighed("a", 2.0, (0.0, 0.1, 0.02))], SQUARE, 0.0)
    assert found.tip_angle < 0


@given(st.floats(0.005, 0.1), st.floats(0.001, 0.01), st.floats(-3, 3))
def test_opposed_parts_cancel_and_alike_ones_add(mass, travel, phase):
    right, left = (Push(mass, travel, phase, (s, 0.0, 0.0)) for s in (1.0, -1.0))
    none = walk([right, left], 50.0, 5.0, 0.6)
    assert none.horizontal == pytest.approx(0.0, abs=1e-9)
    assert none.slide is None
    two = walk([right, right], 50.0, 5.0, 0.6)
    assert two.horizontal == pytest.approx(2 * mass * (2 * pi * 50) ** 2 * travel)


def test_a_quarter_of_a_cycle_apart_the_peak_is_that_of_a_circle():
    pushes = [Push(0.01, 0.002, 0.0, (1, 0, 0)), Push(0.01, 0.002, pi / 2, (0, 0, 1))]
    each = 0.01 * 0.002 * (2 * pi * 40) ** 2
    found = walk(pushes, 40.0, 5.0, FRICTION["rubber on wood"])
    assert found.horizontal == pytest.approx(each)
    assert walk([Push(0.1, 0.01, 0, (0, -1, 0))], 40.0, 1.0, 0.6).hop < 0
