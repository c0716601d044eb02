from math import pi

import pytest

from firecrest.core.cabinet.shapes.ball import Ball, cap_middle, cap_volume, outer_size, volumes


def test_two_half_balls_are_a_ball_and_their_middles_three_eighths_out():
    assert 2 * cap_volume(0.1, 0.0) == pytest.approx(4 / 3 * pi * 1e-3)
    assert cap_middle(0.1, 0.0) == pytest.approx(0.0375)


def test_flats_that_only_touch_take_nothing():
    whole = Ball(0.1, 0.1, 0.1, 0.01, 0.01, 0.01)
    outside, inside = volumes(whole)
    assert outside == pytest.approx(4 / 3 * pi * 1e-3)
    assert inside == pytest.approx(4 / 3 * pi * 0.09**3)
    assert outer_size(whole) == pytest.approx((0.2, 0.2, 0.2))
