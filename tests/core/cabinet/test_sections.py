"""What is below a plane against solids of another library, and outlines against what is below."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import CrossSection, Manifold

from firecrest.core.cabinet.outlines import cloud
from firecrest.core.cabinet.sections import Inside, circle_below, corners_below
from firecrest.core.cabinet.shapes import ball, box, cylinder, prism, stack, taper, vase
from firecrest.core.cabinet.shapes.polygon import area_and_middle

T = dict.fromkeys(box.PANELS, 0.012)
WEDGE = ((-0.2, -0.15), (0.0, -0.15), (-0.06, 0.15), (-0.2, 0.15))
SHAPES = {
    "box": (box, box.Box(0.3, 0.2, 0.25, T)),
    "rounded": (box, box.Box(0.3, 0.2, 0.25, T, rounding=box.Rounding("all", 0.03, True))),
    "upright": (box, box.Box(0.3, 0.2, 0.25, T, rounding=box.Rounding("vertical", 0.03, True))),
    "soft": (box, box.Box(0.3, 0.2, 0.25, T, rounding=box.Rounding("front", 0.03, True))),
    "taper": (taper, taper.Taper(0.3, 0.2, 0.25, 0.2, 0.15, 0.01, -0.02, T)),
    "wedge": (prism, prism.Prism("x", 0.3, WEDGE, tuple("abcd"), (0.012,) * 4, (0.012,) * 2, True)),
    "column": (prism, prism.Prism("y", 0.3, WEDGE, tuple("abcd"), (0.012,) * 4, (0.01,) * 2, True)),
    "tube": (cylinder, cylinder.Cylinder("y", 0.1, 0.3, 0.01, (0.02, 0.01))),
    "drum": (cylinder, cylinder.Cylinder("z", 0.1, 0.3, 0.01, (0.02, 0.01))),
    "ball": (ball, ball.Ball(0.12, 0.1, 0.08, 0.008, 0.01, 0.012)),
    "vase": (vase, vase.Vase(((0, 0.6), (0.3, 1.0), (0.7, 0.5), (1, 0.8)), 0.3, 0.1, 0.005,
                             0.01, 0.012)),
    "stack": (stack, stack.Stack(stack.rectangle(0.3, 0.2), 0.04, 0.02, 0.018, 1, 9, 1)),
}  # fmt: skip
TURN = 720


def inside_of(name):
    module, shape = SHAPES[name]
    return Inside(shape, module.volumes(shape)[1], *module.corners(shape))


def solid_of(name):
    _, shape = SHAPES[name]
    if name == "ball":
        whole = Manifold.sphere(shape.radius - shape.t, TURN).translate((0.0, 0.0, -shape.front))
        front = whole.trim_by_plane((0.0, 0.0, -1.0), shape.t_front)
        return front.trim_by_plane((0.0, 1.0, 0.0), shape.t_foot - shape.foot)
    if name != "vase":
        return Manifold.hull_points(cloud(shape, inside=True))
    rows = np.array(shape.inner, dtype=float)
    ring = [(0.0, rows[0, 0]), *((r, y) for y, r in rows), (0.0, rows[-1, 0])]
    turned = Manifold.revolve(CrossSection([ring]), TURN)
    middle = float(inside_of(name).low[2] + inside_of(name).high[2]) / 2
    return turned.rotate((-90.0, 0.0, 0.0)).translate((0.0, -shape.height / 2, middle))


SOLIDS = {name: solid_of(name) for name in SHAPES}


@pytest.mark.parametrize("name", SHAPES)
@settings(max_examples=12)
@given(axis=st.sampled_from("xyz"), share=st.floats(0.03, 0.97))
def test_what_is_below_a_plane_is_what_a_cut_solid_has(name, axis, share):
    inside, k = inside_of(name), "xyz".index(axis)
    level = float(inside.low[k]) + share * float(inside.size[k])
    normal = [0.0, 0.0, 0.0]
    normal[k] = -1.0
    cut = SOLIDS[name].trim_by_plane(normal, -level)
    said = float(inside.below(axis, level))
    assert said == pytest.approx(cut.volume(), rel=2e-3, abs=1e-3 * float(inside.volume))


@pytest.mark.parametrize("name", SHAPES)
@settings(max_examples=12)
@given(axis=st.sampled_from("xyz"), share=st.floats(0.25, 0.75))
def test_outlines_are_what_the_volume_grows_by(name, axis, share):
    inside, k, step = inside_of(name), "xyz".index(axis), 1e-4
    level = float(inside.low[k]) + share * float(inside.size[k])
    outlines = inside.section(axis, level)
    area = sum(abs(area_and_middle(outline)[0]) for outline in outlines)
    grown = float(inside.between(axis, level - step, level + step)) / (2 * step)
    rounded = 0.03 if name in ("rounded", "upright", "soft") else 4e-3
    assert area == pytest.approx(grown, rel=rounded)


@pytest.mark.parametrize("name", SHAPES)
@pytest.mark.parametrize("axis", "xyz")
def test_from_end_to_end_is_the_whole_and_columns_are_as_single_ones(name, axis):
    inside, k = inside_of(name), "xyz".index(axis)
    low, high = float(inside.low[k]), float(inside.high[k])
    soft = 1e-3
    whole = float(inside.between(axis, low, high))
    assert whole == pytest.approx(float(inside.volume), rel=soft)
    levels = np.linspace(low, high, 7)[1:-1, None]
    many = inside.below(axis, levels)
    for k, level in enumerate(levels[:, 0]):
        assert float(many[k, 0]) == pytest.approx(float(inside.below(axis, float(level))))
    assert inside.section(axis, low - 0.01) == []


def test_circles_and_outlines_are_parted_as_by_hand():
    assert circle_below(0.1, 0.0) == pytest.approx(np.pi * 0.01 / 2)
    assert circle_below(0.1, 0.2) == pytest.approx(np.pi * 0.01)
    square = ((0.0, 0.0), (2.0, 0.0), (2.0, 1.0), (0.0, 1.0))
    assert [corners_below(square, 0, x) for x in (-1.0, 0.5, 3.0)] == pytest.approx([0.0, 0.5, 2.0])
    triangle = ((0.0, 0.0), (1.0, 0.0), (0.0, 1.0))
    assert corners_below(triangle, 0, 0.5) == pytest.approx(0.5 - 0.125)
