"""Tight spots: told where solids meet, and none missed that a solid intersection finds."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.assessment.cabinet.made import drawn, placed

from firecrest.assessment.cabinet.spots import spots_of
from firecrest.design.case import Brace, Feet, Fitting
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.mount import Mount

PACK = ("power", "source", "mount")
CASE = ("box", "case")


def spots(design, kind=None):
    found = spots_of(drawn(design)[1])
    return [s for s in found if kind in (None, s.kind)]


def test_a_placed_demo_has_nothing_tight():
    assert not [s for s in spots(placed()) if s.tight]


def test_a_pack_moved_into_a_radiator_is_in_one_place_with_it():
    near = spots(moved(placed(), PACK, -0.115, 0.0), "pair")
    (worst,) = [s for s in near if s.impossible]
    assert set(worst.names) == {"Flint 21", "Rowan R16 2"}
    assert worst.paths[1] == PACK


def test_a_part_outside_is_shown_as_such_and_the_rest_lives():
    design = moved(placed(), PACK, 0.2, 0.0)
    (worst, *_) = spots(design, "wall")
    assert worst.impossible
    assert worst.gap < 0
    assert drawn(design)[0].promises


def test_a_frame_beyond_its_panel_and_two_frames_in_one_place():
    design = moved(placed(), ("box", "groups", 0, "mounts", 0), 0.06, 0.06)
    kinds = {s.kind for s in spots(design) if s.impossible}
    assert {"frame edge", "frames", "pair"} <= kinds


def test_a_magnet_close_to_the_back_and_wider_than_its_hole():
    design = set_number(placed(), ("box", "groups", 0, "driver", "depth"), 0.17)
    (behind, _) = spots(design, "magnet")
    assert behind.tight
    assert behind.gap == pytest.approx(0.188 - 0.012 - 0.17, abs=1e-6)
    wide = set_number(placed(), ("box", "groups", 0, "driver", "magnet_diameter"), 0.12)
    assert [s.kind for s in spots(wide) if s.impossible].count("removable") == 2


def test_what_fires_down_wants_feet_high_enough():
    mounts = (Mount(panel="bottom"), Mount(panel="top"))
    design = replace_at(placed(), ("box", "openings", 0, "mounts"), mounts)
    (low,) = spots(design, "ground")
    assert low.tight
    footed = replace_at(design, (*CASE, "feet"), Feet(height=low.wanted + 1e-4))
    assert not spots(footed, "ground")[0].tight


def test_a_knob_in_a_thick_panel_and_a_brace_in_the_way():
    knob = Fitting(kind="knob", name="Level", round=True, width=0.0072, bushing=0.009, nut=0.003)
    design = replace_at(placed(), (*CASE, "fittings"), (knob,))
    (spot,) = spots(design, "knob")
    assert spot.gap == pytest.approx(-0.006)
    brace = Brace(axis="x", at=-0.074, window_a=0.02, window_b=0.02)
    braced = replace_at(placed(), (*CASE, "braces"), (brace,))
    assert any(s.impossible for s in spots(braced, "brace"))


def test_a_port_that_ends_before_a_board_is_short_of_a_bore():
    breakwater = placed("breakwater")
    ends = spots(breakwater, "port end")
    assert not ends[0].tight
    longer = set_number(breakwater, ("box", "openings", 0, "bends"), 0)
    assert spots(longer, "port end")[0].wanted == pytest.approx(0.0586, abs=2e-3)


@settings(max_examples=40)
@given(st.floats(-0.16, 0.16), st.floats(-0.09, 0.09), st.sampled_from([0.0, np.pi / 2]))
def test_no_fit_is_told_that_points_of_the_solids_contradict(u, v, rot):
    """A pack anywhere on the back: points of it in a cone, or outside, mean a conflict."""
    mount = rebuilt(placed().power.source.mount, panel="back", u=u, v=v, rot=rot)
    design = replace_at(placed(), PACK, mount)
    drawing = drawn(design)[1]
    pack = next(s for s in drawing.sited if s.part.kind == "pack")
    corners = pack.solid().pieces[0]
    low, high = corners.min(axis=(0, 1)), corners.max(axis=(0, 1))
    grid = [np.linspace(a, b, 14) for a, b in zip(low, high, strict=True)]
    points = np.stack(np.meshgrid(*grid), axis=-1).reshape(-1, 3)
    walls = [w for w in drawing.shell.walls if w.name != "back"]
    outside = min(float(w.gap(points).min()) for w in walls) < -1e-6
    told = [s for s in spots_of(drawing) if pack.path in s.paths and s.impossible]
    if outside:
        assert any(s.kind == "wall" for s in told)
    for other in drawing.sited:
        if other.part.kind not in ("driver", "radiator"):
            continue
        deep = (points - np.array(other.at.o)) @ -np.array(other.at.normal, float)
        across = points - np.array(other.at.o) + deep[:, None] * np.array(other.at.normal, float)
        profile = _profile(other)
        wide = np.interp(deep, *profile, left=-1.0, right=-1.0)
        if np.any(np.linalg.norm(across, axis=1) < wide - 1e-3):
            assert any(other.path in s.paths for s in told), other.part.name


def _profile(s):
    part, start = s.part, float(s.part.recess)
    r = float(part.cut.d) / 2
    if part.kind == "driver":
        neck, back = start + part.depth - part.magnet_h, start + part.depth
        return (start, neck, back), (r, part.magnet_d / 2, part.magnet_d / 2)
    moves = part.xmax + part.sag
    return (start, start + moves, start + moves + part.depth), (r, r, part.end_d / 2)
