from math import pi

import pytest

from firecrest.core.cabinet.shapes.cylinder import Cylinder, corners, panel_frames, volumes


@pytest.mark.parametrize("axis", ["x", "y", "z"])
def test_a_tube_is_the_same_however_it_lies(axis):
    made = Cylinder(axis, 0.1, 0.3, 0.008, (0.015, 0.01))
    outside, inside = volumes(made)
    assert outside == pytest.approx(pi * 0.01 * 0.3)
    assert inside == pytest.approx(pi * 0.092**2 * 0.275)
    low, high = corners(made)
    sizes = [h - lo for lo, h in zip(low, high, strict=True)]
    assert sorted(sizes) == pytest.approx([0.184, 0.184, 0.275])
    assert high[2] <= 0


def test_end_plates_look_away_from_each_other():
    frames = panel_frames(Cylinder("y", 0.1, 0.3, 0.008, (0.015, 0.01)))
    assert frames["bottom"].normal == (0, -1, 0)
    assert frames["top"].o == pytest.approx((0.0, 0.15, -0.1))
