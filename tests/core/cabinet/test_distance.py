"""Least distances against closed forms and a sampled brute force."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.cabinet.cutouts import Rectangle, Round, Truncated
from firecrest.core.cabinet.distance import apart, nearest, nearest_within, solids_apart
from firecrest.core.cabinet.frames import frame
from firecrest.core.cabinet.solids import brick, cut_lathe, lathe, prism, solid


def test_bricks_are_as_far_apart_as_their_faces_edges_and_corners():
    one = brick((0, 0, 0), (1, 1, 1)).reshape(-1, 3)
    for low, gap in (((1.5, 0, 0), 0.5), ((1.3, 1.4, 0), 0.5), ((2, 2, 2), 3**0.5)):
        high = tuple(c + 1 for c in low)
        assert apart(one, brick(low, high).reshape(-1, 3)) == pytest.approx(gap, abs=1e-7)
    assert apart(one, brick((0.5, 0.5, 0.5), (2, 2, 2)).reshape(-1, 3)) == 0.0


def test_the_nearest_points_are_on_both_solids():
    one, other = brick((0, 0, 0), (1, 1, 1)), brick((1.2, 0.4, 2.0), (2, 2, 3))
    found = nearest(one.reshape(-1, 3), other.reshape(-1, 3))
    assert np.linalg.norm(found.here - found.there) == pytest.approx(found.gap)
    assert found.here[0] == pytest.approx(1.0)
    assert found.there[2] == pytest.approx(2.0)


PLACE = st.tuples(st.floats(-0.1, 0.1), st.floats(-0.1, 0.1), st.floats(0, 6.3))


@settings(max_examples=150)
@given(PLACE, PLACE, st.floats(0.02, 0.06), st.floats(0.01, 0.03))
def test_a_distance_is_proved_from_both_sides(first, second, r, end):
    """Points of both are so far apart, and a slab so wide lies between them: none is nearer."""
    front = frame("front", (0.0, 0.0, 0.0), 0.012)
    back = frame("back", (0.0, 0.0, -0.12), 0.012)
    cone = lathe(front.placed(*first), [(0.0, r), (0.05, end)]).reshape(-1, 3)
    block = prism(back.placed(*second), Rectangle(0.08, 0.05), 0.02, 0.06).reshape(-1, 3)
    found = nearest(cone, block)
    assert np.linalg.norm(found.here - found.there) == pytest.approx(found.gap, abs=1e-9)
    if found.gap == 0.0:
        return
    way = (found.here - found.there) / found.gap
    assert np.min(cone @ way) - np.max(block @ way) == pytest.approx(found.gap, abs=1e-6)


@settings(max_examples=60)
@given(st.floats(-0.05, 0.05), st.floats(-0.05, 0.05), st.floats(0.0, 0.06))
def test_solids_meet_where_a_point_is_in_both(x, y, deep):
    at = frame("front", (0.0, 0.0, 0.0), 0.012)
    cone = lathe(at, [(0.0, 0.05), (0.04, 0.03)]).reshape(-1, 3)
    low = (x - 0.01, y - 0.01, -deep - 0.01)
    block = brick(low, tuple(c + 0.02 for c in low)).reshape(-1, 3)
    grid = np.linspace(0, 0.02, 9)
    points = np.array([(a, b, c) for a in grid for b in grid for c in grid]) + low
    wide = np.interp(-points[:, 2], (0.0, 0.04), (0.05, 0.03), left=-1.0, right=-1.0)
    if np.any(np.hypot(points[:, 0], points[:, 1]) < wide - 1e-4):
        assert apart(cone, block) == 0.0


def test_flats_keep_a_cone_narrow_one_way_only():
    at = frame("front", (0.0, 0.0, 0.0), 0.012)
    cone = cut_lathe(at, [(0.0, 0.05), (0.04, 0.03)], 0.07).reshape(-1, 3)
    assert np.abs(cone[:, 0]).max() == pytest.approx(0.035)
    assert np.abs(cone[:, 1]).max() == pytest.approx(0.05, rel=1e-4)
    assert Truncated(0.1, 0.07).flats < 0.1


def test_solids_far_from_each_other_are_not_worked_out():
    one = solid([brick((0, 0, 0), (1, 1, 1))])
    other = solid([brick((5, 0, 0), (6, 1, 1)), brick((3, 0, 0), (4, 1, 1))])
    assert solids_apart(one, other, 0.5) is None
    assert solids_apart(one, other, 3.0).gap == pytest.approx(2.0, abs=1e-7)


def test_pieces_that_meet_in_a_flat_tetrahedron_are_nothing_apart():
    """Rounding leaves the origin a hair off the tetrahedron that holds it: no fifth corner."""
    back, right = frame("back", (0, 0, -0.2), 0.012), frame("right", (0.2, 0, -0.1), 0.012)
    block = prism(back.placed(0.072, 0.04, 0.0), Rectangle(0.132, 0.096), 0.03, 0.113)
    pipe = prism(right.placed(0.099, -0.02, 0.0), Round(0.063), 0.0, 0.312)
    assert apart(block.reshape(-1, 3), pipe.reshape(-1, 3)) == 0.0


@settings(max_examples=100)
@given(PLACE, PLACE, st.floats(0.0, 0.08))
def test_looking_only_so_far_finds_the_same_or_proves_that_it_is_farther(first, second, most):
    front = frame("front", (0.0, 0.0, 0.0), 0.012)
    back = frame("back", (0.0, 0.0, -0.12), 0.012)
    cone = lathe(front.placed(*first), [(0.0, 0.05), (0.05, 0.02)]).reshape(-1, 3)
    block = prism(back.placed(*second), Rectangle(0.08, 0.05), 0.02, 0.06).reshape(-1, 3)
    found, whole = nearest_within(cone, block, most), nearest(cone, block)
    if found is None:
        assert whole.gap > most - 1e-6
    else:
        assert found.gap == pytest.approx(whole.gap, abs=1e-9)


BOX = st.tuples(*[st.floats(-0.1, 0.1)] * 3, *[st.floats(0.01, 0.1)] * 3)


@settings(max_examples=150)
@given(BOX, BOX)
def test_bricks_are_as_far_apart_as_the_iteration_finds(first, second):
    one, other = (
        brick(box[:3], tuple(low + size for low, size in zip(box[:3], box[3:], strict=True)))
        for box in (first, second)
    )
    found, proved = (
        solids_apart(solid([one]), solid([other]), 1.0),
        nearest(one.reshape(-1, 3), other.reshape(-1, 3)),
    )
    assert found.gap == pytest.approx(proved.gap, abs=1e-7)
    assert np.linalg.norm(found.here - found.there) == pytest.approx(found.gap, abs=1e-12)
    for point, piece in ((found.here, one), (found.there, other)):
        corners = piece.reshape(-1, 3)
        assert np.all(point >= corners.min(axis=0) - 1e-12)
        assert np.all(point <= corners.max(axis=0) + 1e-12)


def test_a_turned_brick_does_not_fill_its_box():
    at = frame("back", (0.0, 0.0, -0.2), 0.012)
    straight, turned = (
        solid([prism(at.placed(0.0, 0.0, rot), Rectangle(0.08, 0.05), 0.02, 0.06)])
        for rot in (np.pi / 2, 0.3)
    )
    assert straight.fills == (True,)
    assert turned.fills == (False,)
    assert solid([lathe(at, [(0.0, 0.05), (0.04, 0.03)])]).fills == (False,)
