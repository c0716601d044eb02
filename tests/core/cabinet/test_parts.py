from itertools import pairwise
from math import pi

import numpy as np
import pytest

from firecrest.core.cabinet import parts
from firecrest.core.cabinet.cutouts import Rectangle, Round, Truncated, truncated_area
from firecrest.core.cabinet.frames import frame

FRONT = frame("front", (0.0, 0.0, 0.0), 0.015)
HERE = parts.Mount("front")


def driver(cut, **more):
    figures = {
        "frame": 0.128,
        "recess": 0.004,
        "depth": 0.062,
        "magnet_d": 0.078,
        "magnet_h": 0.026,
    }
    return parts.Driver("Alder", HERE, cut, **{**figures, **more})


def test_a_truncated_cone_is_what_its_slices_add_up_to():
    part = driver(Truncated(0.112, 0.096), depth=0.06, magnet_d=0.07, magnet_h=0.024)
    ws = np.linspace(0, 0.036, 20001)
    areas = truncated_area(0.056 - ws / 0.036 * 0.021, 0.048)
    cone = np.trapezoid(areas, ws)
    assert parts.solid_volume(part) == pytest.approx(cone + pi * 0.035**2 * 0.024, rel=1e-6)


def test_a_stated_displacement_replaces_the_solid_in_the_air_alone():
    part = driver(Round(0.115), displacement=0.0003)
    assert parts.air_taken(part) == 0.0003
    assert parts.solid_volume(part) > 0.0003


def test_mounted_from_inside_the_whole_panel_is_hole_and_none_is_recess():
    part = driver(Round(0.115), from_inside=True)
    assert parts.recess(part) == 0.0
    assert parts.opening(part, 0.015) == 0.0
    assert parts.hole(part, 0.015) == pytest.approx(pi / 4 * 0.115**2 * 0.015)
    assert parts.seal_plane(part, 0.015) == 0.015


def test_loose_cells_take_their_bodies_and_the_glue_a_wrapped_pack_its_brick():
    made = [
        parts.Pack("Flint", HERE, 0.021, 0.07, (5, 1, 2), "v", 0.001, wrapped, 0.002)
        for wrapped in (True, False)
    ]
    assert made[0].size == pytest.approx((0.107, 0.072, 0.044))
    assert parts.solid_volume(made[0]) == pytest.approx(0.107 * 0.072 * 0.044)
    assert parts.solid_volume(made[1]) == pytest.approx(1.1 * 10 * pi / 4 * 0.021**2 * 0.07)


def test_a_folded_port_keeps_its_length_and_may_turn_back_to_its_panel():
    bends = (parts.Bend(0.05, 0.02, "+v"), parts.Bend(0.0, 0.02, "out"))
    port = parts.Port("port", HERE, 0.03, 0.002, 0.2, bends)
    stretches, end, ahead = parts.middle_line(port, FRONT)
    assert ahead == pytest.approx([0, 0, 1])
    assert end == pytest.approx([0.0, 0.04, -0.05 + (0.2 - 0.05 - pi * 0.02)])
    long = sum(np.linalg.norm(q[0] - p[0]) for path in stretches for p, q in pairwise(path))
    assert long == pytest.approx(0.2, rel=1e-3)
    assert parts.solid_volume(port) == pytest.approx(pi * 0.017**2 * 0.2)


def test_a_slot_has_a_wall_each_way_and_a_knob_takes_no_air():
    slot = parts.Port("slot", HERE, 0.02, 0.012, 0.2, slot=(0.1, 0.02))
    assert parts.solid_volume(slot) == pytest.approx(0.112 * 0.032 * 0.2)
    assert parts.cut_of(slot) == Rectangle(0.1, 0.02)
    knob = parts.Knob("level", HERE, Round(0.0072), 0.009, 0.003)
    assert parts.air_taken(knob) == 0.0
    assert parts.solid_of(knob, FRONT) is None
    assert parts.hole(knob, 0.015) == pytest.approx(pi / 4 * 0.0072**2 * 0.015)


def test_a_radiator_sweeps_by_its_travel_and_sag():
    part = parts.Radiator(
        "Rowan", HERE, Round(0.144), 0.158, 0.0, 0.034, 0.07, xmax=0.008, sag=0.001
    )
    still, moving = (parts.solid_of(part, FRONT, swept) for swept in (False, True))
    assert still.pieces[0][..., 2].min() == pytest.approx(-0.034)
    assert moving.pieces[0][..., 2].min() == pytest.approx(-0.043)
    assert parts.centre(part, FRONT) == pytest.approx((0, 0, -0.034 / 3))
