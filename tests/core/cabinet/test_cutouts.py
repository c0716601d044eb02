from math import pi

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.cabinet import cutouts
from firecrest.core.cabinet.cutouts import Rectangle, Round, Truncated
from firecrest.core.cabinet.shapes.polygon import area_and_middle

SIZE = st.floats(0.02, 0.3)


@given(SIZE, st.floats(0.3, 1.2), st.floats(0.0, 0.49))
def test_areas_are_those_of_their_outlines(d, flat, corner):
    cuts = (Round(d), Truncated(d, flat * d), Rectangle(d, flat * d, corner * min(d, flat * d)))
    for cut in cuts:
        drawn, middle = area_and_middle(cutouts.outline(cut, 1440))
        assert drawn == pytest.approx(cutouts.area(cut), rel=2e-5)
        assert middle == pytest.approx([0, 0], abs=1e-6)
        half = cutouts.half_size(cut)
        assert np.abs(cutouts.outline(cut, 1440)).max(axis=0) == pytest.approx(half, rel=1e-4)


def test_flats_wider_than_the_circle_cut_nothing():
    assert cutouts.area(Truncated(0.1, 0.12)) == pytest.approx(pi / 4 * 0.01)
    assert cutouts.across(Truncated(0.1, 0.12)) == pytest.approx(0.1)


def test_a_frame_keeps_its_flats_as_far_out_as_its_round():
    frame = cutouts.framed(Truncated(0.112, 0.096), 0.124)
    assert (frame.d, frame.flats) == pytest.approx((0.124, 0.108))
    assert cutouts.framed(Round(0.1), 0.12) == Round(0.12)


def test_a_router_template_is_the_outline_moved_by_half_bush_less_cutter():
    by = (0.017 - 0.0127) / 2
    assert cutouts.grown(Round(0.1), by).d == pytest.approx(0.1 + 0.0043)
    grown = cutouts.grown(Rectangle(0.1, 0.05, 0.004), by)
    assert (grown.a, grown.b, grown.r) == pytest.approx((0.1043, 0.0543, 0.00615))
    assert cutouts.grown(Truncated(0.1, 0.08), -0.01) == Truncated(
        pytest.approx(0.08), pytest.approx(0.06)
    )


def test_a_frame_smaller_than_its_truncated_hole_leaves_nothing_rather_than_nonsense():
    nothing = cutouts.framed(Truncated(0.1, 0.02), 0.05)
    assert cutouts.area(nothing) == 0.0
