import numpy as np
import pytest

from firecrest.core.cabinet.shapes.box import (
    PANELS,
    Box,
    Joint,
    Rounding,
    open_recess,
    shell,
    volumes,
)

T = dict.fromkeys(PANELS, 0.012)


def test_a_back_set_in_leaves_an_open_recess_that_is_neither_case_nor_air():
    made = Box(0.3, 0.2, 0.25, T, back=Joint("dado", "ring", 0.004, 0.02))
    assert open_recess(made) == pytest.approx(0.276 * 0.176 * 0.02)
    outside, inside = volumes(made)
    assert outside == pytest.approx(0.3 * 0.2 * 0.25 - open_recess(made))
    assert inside == pytest.approx(0.276 * 0.176 * (0.25 - 0.024 - 0.02))
    assert shell(made).frames["back"].o[2] == pytest.approx(-0.23)


def test_points_near_a_rounded_edge_are_measured_from_it():
    made = Box(0.2, 0.2, 0.2, dict.fromkeys(PANELS, 0.008), rounding=Rounding("all", 0.03, True))
    (edge,) = [w for w in shell(made).walls if w.name == "rounded edge"]
    corner = np.array([(0.092 - 0.022, 0.0, 0.0), (0.09, 0.09, -0.1), (0.09, 0.09, -0.01)])
    gaps = edge.gap(corner)
    assert np.isinf(gaps[0])
    assert gaps[1] == pytest.approx(0.022 - np.hypot(0.02, 0.02))
    assert gaps[2] < gaps[1]


def test_a_router_leaves_the_inside_and_its_radius_sharp():
    made = Box(0.3, 0.2, 0.25, T, rounding=Rounding("vertical", 0.01, False))
    assert made.inner_radius == 0.0
    assert volumes(made)[1] == volumes(Box(0.3, 0.2, 0.25, T))[1]
