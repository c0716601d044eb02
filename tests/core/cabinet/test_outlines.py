import numpy as np
import pytest

from firecrest.core.cabinet.outlines import PLAN, VIEWS, outline, projected, solid_outlines
from firecrest.core.cabinet.shapes import ball, box, cylinder, prism, stack, taper, vase
from firecrest.core.cabinet.shapes.polygon import area_and_middle
from firecrest.core.cabinet.solids import brick, solid

T = dict.fromkeys(box.PANELS, 0.012)
R = 0.1


@pytest.mark.parametrize(
    ("shape", "view", "area"),
    [
        (box.Box(0.3, 0.2, 0.18, T), "front", 0.06),
        (box.Box(0.3, 0.2, 0.18, T, rounding=box.Rounding("all", 0.03, True)), "front",
         0.06 - (4 - np.pi) * 0.03**2),
        (box.Box(0.3, 0.2, 0.18, T, rounding=box.Rounding("front", 0.03, False)), "right",
         0.036 - 2 * (1 - np.pi / 4) * 0.03**2),
        (taper.Taper(0.3, 0.2, 0.18, 0.2, 0.15, 0.0, 0.0, T), "right", 0.18 * 0.175),
        (cylinder.Cylinder("z", R, 0.3, 0.008, (0.01, 0.01)), "front", np.pi * R**2),
        (cylinder.Cylinder("y", R, 0.3, 0.008, (0.01, 0.01)), "front", 2 * R * 0.3),
        (vase.Vase(((0, 1.0), (0.5, 0.5), (1, 1.0)), 0.3, R, 0.005, 0.008, 0.01), "front", 0.045),
        (stack.Stack(stack.rectangle(0.24, 0.18), 0.06, 0.022, 0.018, 1, 8.0, 1), "front",
         0.24 * 0.18 - (4 - np.pi) * 0.06**2),
    ],
)  # fmt: skip
def test_a_case_covers_on_paper_what_it_does(shape, view, area):
    found, _ = area_and_middle(outline(shape, VIEWS[view]))
    assert abs(found) == pytest.approx(area, rel=2e-3)


def test_a_ball_is_cut_by_its_flats():
    points = outline(ball.Ball(R, 0.07, 0.09, 0.007, 0.01, 0.008), VIEWS["right"])
    assert points.min(axis=0) == pytest.approx((0.0, -0.09), abs=2e-4)
    assert points.max(axis=0) == pytest.approx((0.17, R), abs=2e-4)


def test_the_plan_looks_down_with_the_front_at_the_bottom():
    outer = ((0.0, -0.1), (-0.05, 0.1), (-0.2, 0.1), (-0.2, -0.1))
    names, ends = ("front", "top", "back", "bottom"), (0.012, 0.012)
    shape = prism.Prism("x", 0.3, outer, names, (0.012,) * 4, ends, True)
    plan, inside = outline(shape, PLAN), outline(shape, PLAN, inside=True)
    assert plan.min(axis=0) == pytest.approx((-0.15, 0.0))
    assert plan.max(axis=0) == pytest.approx((0.15, 0.2))
    assert inside.max(axis=0) == pytest.approx((0.138, 0.188))
    assert projected(np.array([(0.1, 0.2, -0.3)]), PLAN)[0] == pytest.approx((0.1, 0.3))
    (piece,) = solid_outlines(solid([brick((0, 0, -0.2), (0.1, 0.1, 0))]), PLAN)
    assert area_and_middle(piece)[0] == pytest.approx(0.02)
