from math import pi, sqrt

import numpy as np
import pytest

from firecrest.core.cabinet.shapes.polygon import area_and_middle
from firecrest.core.cabinet.shapes.stack import (
    Stack,
    filleted_area,
    outline_points,
    rectangle,
    shell,
    volumes,
)


def test_a_filleted_rectangle_and_triangle():
    assert filleted_area(rectangle(0.3, 0.2), 0.05) == pytest.approx(0.06 - (4 - pi) * 0.0025)
    triangle = ((0.0, 0.0), (1.0, 0.0), (0.5, sqrt(3) / 2))
    r = 0.1
    lost = 3 * r * r * (sqrt(3) - pi / 3)
    assert filleted_area(triangle, r) == pytest.approx(sqrt(3) / 4 - lost)
    drawn = outline_points(np.array(triangle), r, 200)
    assert area_and_middle(drawn)[0] == pytest.approx(sqrt(3) / 4 - lost, rel=1e-4)


def test_a_lopsided_outline_has_its_middle_where_its_points_have():
    corners = ((-0.1, -0.1), (0.15, -0.1), (0.08, 0.12), (-0.1, 0.1))
    made = Stack(corners, 0.03, 0.02, 0.018, 1, 6.0, 2)
    drawn = outline_points(np.array(corners), 0.03, 400)
    middle = area_and_middle(drawn)[1]
    assert shell(made).outside.centre[:2] == pytest.approx(middle, abs=1e-5)
    outside, inside = volumes(made)
    assert outside > inside > 0
    assert shell(made).size[2] == pytest.approx(9 * 0.018)
