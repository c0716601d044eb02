from math import sin

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.cabinet.frames import AXES, added, cross, dot, frame, unit

ANGLE, PLACE = st.floats(-6, 6), st.floats(-0.3, 0.3)


def test_the_six_panels_look_outwards_and_unfold_around_the_front():
    looks = {n: cross(u, v) for n, (u, v) in AXES.items()}
    assert looks["front"] == (0, 0, 1)
    assert looks["left"] == (-1, 0, 0)
    assert looks["top"] == (0, 1, 0)
    for one, other in (("front", "back"), ("left", "right"), ("top", "bottom")):
        assert added(looks[one], looks[other]) == (0, 0, 0)


@given(st.sampled_from(list(AXES)), PLACE, PLACE, ANGLE)
def test_a_turned_place_keeps_its_panel_and_turns_counter_clockwise(name, u, v, rot):
    panel = frame(name, (0.1, -0.2, -0.3), 0.012)
    placed = panel.placed(u, v, rot)
    assert placed.o == pytest.approx(panel.at(u, v))
    assert placed.normal == pytest.approx(panel.normal)
    assert dot(cross(panel.u, placed.u), panel.normal) == pytest.approx(sin(rot))
    inwards = added(placed.at(0, 0, 0.02), placed.o, -1.0)
    assert dot(inwards, panel.normal) == pytest.approx(-0.02)
    assert dot(unit((3.0, 0.0, 4.0)), (1, 0, 0)) == pytest.approx(0.6)
