from math import pi

import numpy as np
import pytest

from firecrest.core.cabinet.shapes.vase import Vase, shell, volumes

STRAIGHT = Vase(((0, 1.0), (0.4, 1.0), (1, 1.0)), 0.3, 0.1, 0.006, 0.01, 0.012)


def test_a_straight_vase_is_a_cylinder():
    outside, inside = volumes(STRAIGHT)
    assert outside == pytest.approx(pi * 0.01 * 0.3)
    assert inside == pytest.approx(pi * 0.094**2 * 0.278)
    assert shell(STRAIGHT).inside.centre == pytest.approx((0.0, -0.001, -0.1))


def test_points_below_the_floor_or_above_the_top_take_no_part():
    made = Vase(((0, 1.0), (0.02, 0.2), (1, 1.0)), 0.3, 0.1, 0.006, 0.01, 0.012)
    heights = [h for h, _ in made.inner]
    assert heights == pytest.approx([0.01, 0.01, 0.288])


def test_columns_have_the_volume_of_each():
    tall = np.array([[0.2], [0.3]])
    many = volumes(Vase(STRAIGHT.profile, tall, 0.1, 0.006, 0.01, 0.012))
    for k, height in enumerate((0.2, 0.3)):
        one = volumes(Vase(STRAIGHT.profile, height, 0.1, 0.006, 0.01, 0.012))
        assert [float(np.ravel(v)[k]) for v in many] == pytest.approx([float(v) for v in one])
