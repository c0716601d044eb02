"""Points that a case is drawn through: moved, added, taken away; what cannot be is refused."""

from functools import cache

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.errors import DesignError
from firecrest.design.edits import outline
from firecrest.design.edits.paths import replace_at
from firecrest.design.shapes import shape_of, volumes
from firecrest.files.demos import read_demo
from firecrest.proposals.shaping import with_shape

SHAPE = ("box", "case", "shape")


@cache
def of(kind):
    return with_shape(read_demo("slipway"), kind)[1]


def outside(design):
    return float(volumes(shape_of(design.box.case))[0])


@given(st.integers(1, 3), st.floats(0.03, 0.06), st.floats(-0.01, 0.01))
def test_a_profile_point_goes_where_it_is_put(place, radius, up):
    design, path = of("vase"), (*SHAPE, "profile", place)
    _, before = outline.outline_point(design, path)
    moved = outline.with_outline_point(design, path, radius, before + up)
    wide, high = outline.sheet_size(design.box.case)
    found = outline.outline_point(moved, path)
    assert found == pytest.approx((radius, before + up), abs=outline.STEP * max(wide, high))


def test_the_ends_of_a_profile_keep_their_height_and_nothing_leaves_the_sheet():
    design = of("vase")
    moved = outline.with_outline_point(design, (*SHAPE, "profile", 0), 9.0, 0.05)
    first = moved.box.case.shape.profile[0]
    assert (first.height, first.radius) == (0.0, 1.0)


def test_a_profile_point_more_changes_no_volume_and_goes_again():
    """It stands in the middle of a straight stretch."""
    design = of("vase")
    more = outline.add_outline_point(design)[1]
    before, after = (d.box.case.shape.profile for d in (design, more))
    assert outside(more) == pytest.approx(outside(design), rel=1e-9)
    place = next(k for k, point in enumerate(after) if point not in before)
    assert outline.remove_outline_point(more, place)[1].box.case.shape.profile == before


@pytest.mark.parametrize("kind", ["prism", "stack"])
def test_a_corner_cut_off_takes_its_triangle(kind):
    """A quarter along both edges: a sixteenth of half the parallelogram they span."""
    design = of(kind)
    if kind == "stack":
        design = outline.free_outline(design, on=True)[1]
        design = replace_at(design, (*SHAPE, "radius"), 0.0)
    more = outline.add_outline_point(design)[1]
    before, after = (d.box.case.shape.corners for d in (design, more))
    assert len(after) == len(before) + 1
    assert outside(design) * 0.9 < outside(more) < outside(design)
    if kind == "stack":
        assert outside(more) == pytest.approx(outside(design) * (1 - 1 / 32), rel=1e-9)
    for _ in range(6):
        more = outline.add_outline_point(more)[1]
    assert len(more.box.case.shape.corners) == len(before) + 7


def test_a_shape_keeps_the_points_it_needs():
    design = of("prism")
    design = outline.remove_outline_point(design, 1)[1]
    with pytest.raises(DesignError, match="3 points"):
        outline.remove_outline_point(design, 1)
    with pytest.raises(DesignError, match="lowest"):
        outline.remove_outline_point(of("vase"), 0)
    with pytest.raises(DesignError, match="not drawn"):
        outline.add_outline_point(of("ball"))


def test_a_drawn_stack_is_a_rectangle_until_a_corner_moves_and_hollow_corners_are_refused():
    design = of("stack")
    drawn = outline.free_outline(design, on=True)[1]
    assert outside(drawn) == pytest.approx(outside(design), rel=1e-12)
    narrower = outline.with_outline_point(drawn, (*SHAPE, "corners", 2), 0.1, 0.09)
    assert outside(narrower) < outside(drawn)
    with pytest.raises(DesignError, match="turn the same way"):
        outline.with_outline_point(drawn, (*SHAPE, "corners", 2), -0.12, -0.06)
    assert outline.free_outline(narrower, on=False)[1].box.case.shape.corners == ()
