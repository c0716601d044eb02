"""Loudness as promised on ceilings of known shape."""

import numpy as np
import pytest

from firecrest.core.limits.loudness import judged, promised_shape, upper_edge
from firecrest.core.limits.loudness import loudness as loudness_over

F = np.geomspace(10, 1000, 241)


def loudness(frequency, level, target, corner, drop, f_hi):
    return loudness_over(judged(frequency, corner, drop, f_hi), level, target)


@pytest.mark.parametrize("drop", [3, 6, 10])
def test_promise_shape_is_down_by_the_drop_at_its_corner(drop):
    shape = promised_shape(np.array([50.0, 5000.0, 25.0]), 50.0, drop)
    assert shape[0] == pytest.approx(-drop)
    assert shape[1] == pytest.approx(0.0, abs=1e-3)
    assert shape[2] < -drop - 12


def test_upper_edge_is_the_lowest_of_three():
    assert upper_edge(0.2, 343.2, None) == 500.0
    assert upper_edge(0.45, 343.2, None) == pytest.approx(381.33, abs=0.01)
    assert upper_edge(0.45, 343.2, 80.0) == pytest.approx(56.0)


def test_loudness_is_the_target_plus_the_smallest_margin():
    asked = 96 + promised_shape(F, 50.0, 6)
    top = asked + 3.0 - 4.0 * np.exp(-((np.log(F / 80) / 0.2) ** 2))
    result = loudness(F, top, 96.0, 50.0, 6, 500.0)
    assert result.margin == pytest.approx(-1.0, abs=0.01)
    assert result.level == pytest.approx(95.0, abs=0.01)
    assert result.frequency == pytest.approx(80.0, rel=0.02)
    assert F[result.point] == pytest.approx(80.0, rel=0.02)
    assert np.isnan(loudness(F, top, 96.0, 50.0, 6, 45.0).level)


def test_columns_of_designs_are_judged_each_by_its_own_brief():
    rng = np.random.default_rng(3)
    tops = 90 + 10 * rng.random((40, 241))
    corner, f_hi = rng.uniform(25, 90, (40, 1)), rng.uniform(80, 500, (40, 1))
    target = rng.uniform(80, 100, (40, 1))
    many = loudness(F, tops, target, corner, 6, f_hi)
    for k in range(40):
        one = loudness(
            F, tops[k], *(float(x[k, 0]) for x in (target, corner)), 6, float(f_hi[k, 0])
        )
        for a, b in ((many.level, one.level), (many.frequency, one.frequency)):
            assert a[k] == pytest.approx(b, rel=1e-12)


def test_a_silent_point_next_to_the_band_leaves_the_other_points_alone():
    top = np.full(241, 90.0)
    top[F < 49] = -np.inf
    inside = loudness(F, top, 90.0, 60.0, 6, 400.0)
    assert inside.level > 89
    assert loudness(F, top, 90.0, 45.0, 6, 400.0).level == -np.inf
