from math import pi, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.cabinet import loops
from firecrest.core.cabinet.cutouts import Rectangle, Round, Truncated
from firecrest.core.cabinet.cutouts import area as cut_area

SIZE = st.floats(0.02, 0.3)


@given(SIZE, st.floats(0.2, 1.3), st.floats(0.0, 0.5), st.floats(-3, 3))
def test_loops_have_the_area_of_their_cut_outs_wherever_they_lie(d, flat, corner, rot):
    for cut in (
        Round(d),
        Truncated(d, flat * d),
        Rectangle(d, flat * d, corner * min(d, flat * d)),
    ):
        loop = loops.moved(loops.loop_of(cut), 0.1, -0.2, rot)
        assert loops.area(loop) == pytest.approx(float(cut_area(cut)), rel=1e-9)


def test_a_filleted_triangle_loses_its_tips():
    corners = [(0.0, 0.0), (1.0, 0.0), (0.5, sqrt(3) / 2)]
    whole = sqrt(3) / 4
    assert loops.area(loops.filleted(corners, 0.0)) == pytest.approx(whole)
    found = loops.area(loops.filleted(corners, 0.1))
    assert found == pytest.approx(whole - 0.03 * (sqrt(3) - pi / 3))
