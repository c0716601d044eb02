import pytest

from firecrest.core.cabinet.braces import Brace
from firecrest.core.cabinet.cutouts import Round
from firecrest.core.cabinet.materials import MATERIALS, Infill
from firecrest.core.cabinet.parts import Driver, Mount, placed
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes import box
from firecrest.core.cabinet.weighing import (
    brace_masses,
    case_mass,
    foot_masses,
    part_masses,
    shell_body,
)

CASE = box.Box(0.3, 0.2, 0.2, dict.fromkeys(box.PANELS, 0.012))
SHELL = box.shell(CASE)
ALDER = Driver("Alder", Mount("front"), Round(0.115), 0.128, 0.004, 0.062, 0.078, 0.026, 0.8)


def test_a_hole_in_the_front_lightens_it_and_moves_the_middle_back():
    whole, open_ = shell_body(SHELL, []), shell_body(SHELL, [ALDER])
    assert whole.centre == pytest.approx((0, 0, -0.1))
    recess, hole = 0.01286796 * 0.004, 0.010386891 * 0.008
    assert whole.volume - open_.volume == pytest.approx(recess + hole, rel=1e-6)
    assert open_.centre[2] < -0.1


def test_a_print_weighs_a_share_of_its_wall():
    birch = MATERIALS["birch plywood"]
    solid = case_mass(shell_body(SHELL, []), birch, None, 0.012).mass
    half = case_mass(shell_body(SHELL, []), birch, Infill(0.003, 0.0), 0.012).mass
    assert half == pytest.approx(solid / 2)


def test_parts_braces_and_feet_sit_where_they_are():
    (mass,) = part_masses([(ALDER, placed(ALDER, SHELL.frames))])
    assert mass.at[2] == pytest.approx(-(0.004 + 0.8 * 0.049))
    inside = Inside(CASE, SHELL.inside.volume, SHELL.low, SHELL.high)
    (brace,) = brace_masses([Brace("b", "x", 0.05, 0.01)], inside, 700.0)
    assert brace.at == pytest.approx((0.05, 0.0, -0.1))
    assert brace.mass == pytest.approx(700 * 0.176 * 0.176 * 0.01)
    feet = foot_masses([(0.1, -0.02)], 0.01, -0.1, 0.02)
    assert feet[0].at == pytest.approx((0.1, -0.11, -0.02))
