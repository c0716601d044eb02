import numpy as np
import pytest

from firecrest.core.cabinet.joints import cut_panels, panel_area
from firecrest.core.cabinet.shapes import box

T = dict.fromkeys(box.PANELS, 0.012)


def sizes(**joints):
    return {c.name: (c.a, c.b) for c in cut_panels(box.Box(0.3, 0.2, 0.18, T, **joints))}


def test_the_default_covers_front_and_back_and_runs_top_and_bottom_through():
    found = sizes()
    assert found["front"] == pytest.approx((0.3, 0.2))
    assert found["top"] == pytest.approx((0.3, 0.156))
    assert found["left"] == pytest.approx((0.156, 0.176))


def test_a_rabbet_makes_the_other_longer_and_a_groove_sets_it_in():
    found = sizes(
        ring=box.Joint("rabbet", "sides", 0.005), back=box.Joint("dado", "ring", 0.004, 0.02)
    )
    assert found["left"][1] == pytest.approx(0.2)
    assert found["top"][0] == pytest.approx(0.276 + 2 * 0.005)
    assert found["back"] == pytest.approx((0.276 + 0.008, 0.176 + 0.008))
    assert found["left"][0] == pytest.approx(0.18 - 0.012)


def test_panels_of_columns_have_the_area_of_each_design():
    column = np.array([[0.3], [0.4]])
    both = panel_area(box.Box(column, 0.2, 0.18, T))
    each = [panel_area(box.Box(length, 0.2, 0.18, T)) for length in (0.3, 0.4)]
    assert np.ravel(both) == pytest.approx(each)
