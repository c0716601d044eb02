"""Weight, balance, resonances and what makes the box walk, from the drawing of a design."""

import numpy as np
import pytest
from tests.assessment.cabinet.made import drawn, placed

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import drawing_of, drawing_of_design
from firecrest.assessment.cabinet.template import outline_points
from firecrest.assessment.cabinet.walking import walking
from firecrest.assessment.motion import case_force, case_forces, motion_of
from firecrest.design.case import Brace, Feet
from firecrest.design.case_shape import Spherical
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.mount import Mount
from firecrest.files.demos import read_demo

CASE = ("box", "case")


@pytest.mark.parametrize("name", ["slipway", "breakwater", "headland"])
def test_what_is_weighed_adds_up_to_the_promise(name):
    assessed, drawing = drawn(placed(name))
    assert drawing.balance.mass == pytest.approx(float(assessed.cabinet.mass), rel=1e-9)
    bare = drawing_of_design(read_demo(name))
    assert bare.balance.mass == pytest.approx(float(bare.rolled.mass), rel=1e-9)


def test_feet_stand_in_from_the_edges_and_lift_the_floor():
    design = replace_at(placed(), (*CASE, "feet"), Feet(height=0.01, inset=0.02))
    drawing = drawn(design)[1]
    assert len(drawing.feet) == 4
    assert np.array(drawing.feet).min(axis=0) == pytest.approx((-0.149, -0.168))
    assert drawing.balance.floor == pytest.approx(-0.099 - 0.01)
    assert drawing.balance.tip_angle < drawn(placed())[1].balance.tip_angle


def test_a_brace_raises_the_resonance_of_the_panels_it_parts():
    before = drawn(placed())[1].resonances
    design = replace_at(placed(), (*CASE, "braces"), (Brace(axis="x", at=-0.03),))
    after = drawn(design)[1].resonances
    assert after["front"].supported > before["front"].supported
    assert after["left"] == before["left"]


def test_a_ball_cut_at_its_pole_has_no_front_that_could_ring():
    case = rebuilt(read_demo("slipway").box.case, shape=Spherical(front=1.0), length=0.3, depth=0.3)
    drawing = drawing_of_design(replace_at(read_demo("slipway"), CASE, case))
    assert list(drawing.resonances) == ["bottom"]
    assert np.isfinite(outline_points(drawing, "front")).all()


def test_radiators_on_both_ends_cancel_and_on_one_side_add():
    opposed = assess(placed())
    mounts = (Mount(panel="left"), Mount(panel="left", v=0.02))
    alike = assess(replace_at(placed(), ("box", "openings", 0, "mounts"), mounts))
    low = int(np.argmin(np.abs(opposed.acoustic.frequency - 45.0)))
    forces = [
        np.abs(case_forces(a, a.acoustic, motion_of(a, a.acoustic).drive))[:, low]
        for a in (opposed, alike)
    ]
    assert forces[0][0] == pytest.approx(0.0, abs=1e-9)
    assert forces[1][0] > 5.0
    assert case_force(alike, alike.acoustic)[0] > case_force(opposed, opposed.acoustic)[0]


def test_the_worst_note_is_the_one_with_least_hold():
    assessed, drawing = drawn(placed())
    found = walking(assessed, assessed.acoustic, drawing)
    assert 20 <= found.frequency <= 200
    footed = replace_at(placed(), (*CASE, "feet"), Feet())
    again, drawing = drawn(footed)
    better = walking(again, again.acoustic, drawing)
    assert better.friction == "rubber on wood"
    assert better.walk.slide > found.walk.slide + 7


def test_a_drawing_is_remembered_with_its_assessment():
    assessed = assess(placed())
    assert drawing_of(assessed).frames == drawing_of(assessed).frames
