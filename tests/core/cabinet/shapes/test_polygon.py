import numpy as np
import pytest

from firecrest.core.cabinet.shapes import polygon

SQUARE = np.array([(0.0, 0.0), (2.0, 0.0), (2.0, 1.0), (0.0, 1.0)])
PAIRS = [(float(x), float(y)) for x, y in SQUARE]


def test_area_middle_and_turning():
    assert polygon.area_and_middle(SQUARE) == (2.0, pytest.approx([1.0, 0.5]))
    assert polygon.corners_area(PAIRS[::-1]) == -2.0
    assert polygon.turning(PAIRS[::-1]) == -1.0


def test_edges_move_in_each_by_its_own_either_way_round():
    moved = polygon.moved_in(PAIRS, (0.1, 0.2, 0.3, 0.4))
    assert moved == [pytest.approx(c) for c in ((0.4, 0.1), (1.8, 0.1), (1.8, 0.7), (0.4, 0.7))]
    back = polygon.moved_in(PAIRS[::-1], (0.3, 0.2, 0.1, 0.4))
    assert polygon.corners_area(back) < 0
    assert polygon.reach(back)[0] == pytest.approx((0.4, 0.1))


def test_clipping_hull_convexity_and_how_far_inside():
    half = polygon.clipped(SQUARE, np.array([1.0, 0.0]), 0.5)
    assert polygon.area_and_middle(half)[0] == pytest.approx(0.5)
    points = np.concatenate([SQUARE, [(1.0, 0.5), (0.2, 0.9)]])
    assert polygon.area_and_middle(polygon.hull(points))[0] == pytest.approx(2.0)
    assert polygon.is_convex(SQUARE)
    assert not polygon.is_convex(np.array([(0, 0), (2, 0), (1, 0.2), (1, 2.0)]))
    assert polygon.inside_by(SQUARE, (1.5, 0.5)) == pytest.approx(0.5)
    assert polygon.inside_by(SQUARE, (2.5, 0.5)) == pytest.approx(-0.5)
    assert polygon.inside_by(SQUARE[:2], (0, 0)) == -np.inf
