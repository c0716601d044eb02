import numpy as np
import pytest

from firecrest.core.cabinet.shapes import box
from firecrest.core.cabinet.shapes.taper import Taper, corners, panel_frames, shell, volumes

T = {"front": 0.015, "back": 0.012, "left": 0.01, "right": 0.014, "top": 0.012, "bottom": 0.008}


def test_a_taper_that_does_not_is_a_box():
    straight = Taper(0.3, 0.2, 0.25, 0.3, 0.2, 0.0, 0.0, T)
    plain = box.Box(0.3, 0.2, 0.25, T)
    assert volumes(straight) == pytest.approx(box.volumes(plain))
    assert shell(straight).inside.centre == pytest.approx(box.shell(plain).inside.centre)
    for mine, theirs in zip(corners(straight), box.corners(plain), strict=True):
        assert mine == pytest.approx(theirs)


def test_slanted_panels_are_square_to_their_thickness():
    made = Taper(0.3, 0.2, 0.25, 0.2, 0.15, 0.02, 0.01, T)
    for panel in panel_frames(made).values():
        assert np.linalg.norm(np.array(panel.normal, float)) == pytest.approx(1.0)
    walls = {w.name: w for w in shell(made).walls}
    front = np.array([(-0.15 + made.stands_in("left"), 0.0, 0.0)])
    assert walls["left"].gap(front)[0] == pytest.approx(0.0, abs=1e-9)
