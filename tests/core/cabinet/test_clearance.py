import pytest

from firecrest.core.cabinet import parts
from firecrest.core.cabinet.clearance import (
    down_firing_height,
    frames_apart,
    free_length,
    knob_fit,
    margins,
    removable,
    screw_margins,
    vent_area,
    wall_gap,
)
from firecrest.core.cabinet.cutouts import Rectangle, Round
from firecrest.core.cabinet.shapes import box

BOX = box.Box(0.3, 0.2, 0.2, dict.fromkeys(box.PANELS, 0.012))
SHELL = box.shell(BOX)


def driver(u=0.0, v=0.0, **more):
    figures = {
        "frame": 0.128,
        "recess": 0.004,
        "depth": 0.062,
        "magnet_d": 0.078,
        "magnet_h": 0.026,
    }
    mount = parts.Mount("front", u, v)
    return parts.Driver("Alder", mount, Round(0.115), **{**figures, **more})


def at(part):
    return parts.placed(part, dict(SHELL.frames))


def test_a_part_beside_a_wall_is_measured_past_its_own_panel():
    board = parts.Board("Sedge", parts.Mount("back", 0.1, 0.0), (0.06, 0.05, 0.02), 0.004)
    found = wall_gap(parts.solid_of(board, at(board)), "back", at(board), SHELL)
    assert found.wall == "left"
    assert found.gap == pytest.approx(0.15 - 0.012 - 0.13)
    knob = driver(depth=0.007, magnet_h=0.002)
    assert wall_gap(parts.solid_of(knob, at(knob)), "front", at(knob), SHELL) is None


def test_cut_out_and_frame_keep_within_the_flats_of_their_panel():
    part = driver(0.06, 0.0)
    cut, frame = margins(part, at(part), SHELL)
    assert cut == pytest.approx(0.138 - 0.06 - 0.0575, abs=1e-5)
    assert frame == pytest.approx(0.15 - 0.06 - 0.064, abs=1e-5)
    assert margins(part, at(part), SHELL, rounding=0.02)[1] == pytest.approx(frame - 0.02)
    outside = driver(0.12, 0.0)
    assert margins(outside, at(outside), SHELL)[1] < 0


def test_frames_side_by_side():
    one, other = driver(-0.07), driver(0.07)
    assert frames_apart((one, at(one)), (other, at(other))) == pytest.approx(0.012, abs=1e-5)
    near = driver(0.0)
    assert frames_apart((one, at(one)), (near, at(near))) == 0.0


def test_a_magnet_wider_than_its_hole_needs_another_way_out():
    wide = driver(magnet_d=0.12)
    assert removable(driver(), ())
    assert not removable(wide, (0.2,))
    assert removable(driver(from_inside=True), (0.13,))
    assert not removable(driver(from_inside=True), (0.12,))


def test_a_port_looks_as_far_as_the_back_wall_or_what_stands_before_it():
    port = parts.Port("port", parts.Mount("front"), 0.05, 0.003, 0.1)
    free, end = free_length(port, at(port), SHELL, ())
    assert free == pytest.approx(0.2 - 0.012 - 0.1, abs=2e-5)
    assert end == pytest.approx((0, 0, -0.1))
    board = parts.Board("Sedge", parts.Mount("back"), (0.06, 0.05, 0.02), 0.004)
    free, _ = free_length(port, at(port), SHELL, [parts.solid_of(board, at(board))])
    assert free == pytest.approx(0.088 - 0.024, abs=2e-5)


def test_a_knob_thins_its_panel_and_below_three_millimetres_wants_a_plate():
    knob = parts.Knob("level", parts.Mount("front"), Round(0.0072), 0.009, 0.003)
    assert knob_fit(knob, 0.005).thin_by == 0.0
    fit = knob_fit(knob, 0.018)
    assert fit.thin_by == pytest.approx(0.012)
    assert not fit.needs_plate
    short = parts.Knob("level", parts.Mount("front"), Round(0.0072), 0.005, 0.003)
    assert knob_fit(short, 0.018).needs_plate


def test_feet_vents_and_screws_by_their_rules():
    low = parts.Radiator("Rowan", parts.Mount("bottom"), Rectangle(0.1, 0.1), 0.12, 0.0, 0.03, 0.05,
                         xmax=0.01, sag=0.002)  # fmt: skip
    assert down_firing_height(low) == pytest.approx(0.01 / (3.14159265 * 0.1) + 0.022)
    assert vent_area(18.0, 0.18, 15.0) == pytest.approx(0.0054997, rel=1e-4)
    assert vent_area(18.0, 0.72, 15.0) == pytest.approx(0.0054997 / 2, rel=1e-4)
    assert screw_margins(driver(), 0.1216, 0.003) == pytest.approx((0.0017, 0.0018))
