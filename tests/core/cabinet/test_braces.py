import numpy as np
import pytest

from firecrest.core.cabinet.braces import (
    Brace,
    air_taken,
    face_frames,
    filled,
    grooves,
    middle,
    sides,
    solid_of,
    split,
)
from firecrest.core.cabinet.cutouts import Rectangle, circle_area
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes import box, cylinder
from firecrest.core.cabinet.shapes.shell import Field

LOW, HIGH = (-0.15, -0.1, -0.19), (0.15, 0.1, -0.01)
INNER = (0.3, 0.2, 0.18)
CASE = box.Box(0.32, 0.22, 0.2, dict.fromkeys(box.PANELS, 0.01))
INSIDE = Inside(CASE, box.volumes(CASE)[1], *box.corners(CASE))
TUBE = cylinder.Cylinder("y", 0.11, 0.3, 0.01, (0.01, 0.01))
ROUND = Inside(TUBE, cylinder.volumes(TUBE)[1], *cylinder.corners(TUBE))


def test_a_brace_spans_the_inside_square_to_its_axis():
    assert sides(Brace("b", "x", 0.0, 0.012), INSIDE) == pytest.approx((0.18, 0.2))
    assert sides(Brace("b", "y", 0.0, 0.012), INSIDE) == pytest.approx((0.3, 0.18))
    windowed = Brace("b", "x", 0.0, 0.012, Rectangle(0.1, 0.1, 0.0))
    assert air_taken(windowed, INSIDE) == pytest.approx((0.036 - 0.01) * 0.012)


def test_grooves_come_off_the_four_walls_around():
    gone = grooves(Brace("d", "z", -0.1, 0.012, None, True, 0.006), INNER)
    assert set(gone) == {"left", "right", "top", "bottom"}
    assert gone["left"] == pytest.approx(0.006 * 0.012 * 0.2)
    assert gone["top"] == pytest.approx(0.006 * 0.012 * 0.3)


def test_fields_keep_the_largest_rest_and_round_plates_stay_whole():
    fields = {"front": Field(0.012, 0.3, 0.2), "left": Field(0.012, 0.18, 0.2),
              "end": Field(0.012, r=0.1)}  # fmt: skip
    found = split(fields, [Brace("b", "x", 0.03, 0.012)], LOW, HIGH)
    assert found["front"].a == pytest.approx(0.174)
    assert found["left"] == fields["left"]
    assert found["end"] == fields["end"]


def test_a_window_leaves_four_bricks_round_it():
    made = solid_of(Brace("b", "y", 0.0, 0.012, Rectangle(0.2, 0.1, 0.01)), INSIDE)
    assert len(made.pieces) == 4
    volume = sum(float((p.max(axis=(0, 1)) - p.min(axis=(0, 1))).prod()) for p in made.pieces)
    assert volume == pytest.approx((0.3 * 0.18 - 0.2 * 0.1) * 0.012)


SHELF = Brace("s", "y", 0.02, 0.012, against="back", reach=0.07)
DOWEL = Brace("d", "z", 0.0, 0.016, spot=(0.05, -0.03))


def test_a_shelf_reaches_from_its_wall_and_a_dowel_from_wall_to_wall():
    assert air_taken(SHELF, INSIDE) == pytest.approx(0.3 * 0.07 * 0.012)
    assert middle(SHELF, LOW, HIGH) == pytest.approx((0.0, 0.02, -0.19 + 0.035))
    assert air_taken(DOWEL, INSIDE) == pytest.approx(np.pi * 0.008**2 * 0.18)
    assert middle(DOWEL, LOW, HIGH) == pytest.approx((0.05, -0.03, -0.1))


def test_solids_of_part_braces_have_the_volume_they_take():
    (plate,) = solid_of(SHELF, INSIDE).pieces
    corners = plate.reshape(-1, 3)
    assert np.prod(np.ptp(corners, axis=0)) == pytest.approx(air_taken(SHELF, INSIDE))
    assert corners[:, 2].min() == pytest.approx(-0.19)
    (rod,) = solid_of(DOWEL, INSIDE).pieces
    points = rod.reshape(-1, 3)
    assert np.ptp(points, axis=0) == pytest.approx([0.016, 0.016, 0.18], abs=1e-6)
    assert points.mean(axis=0) == pytest.approx([0.05, -0.03, -0.1], abs=1e-6)


def test_a_shelf_parts_its_own_wall_only_and_a_dowel_none():
    fields = {"back": Field(0.012, 0.3, 0.2), "front": Field(0.012, 0.3, 0.2)}
    found = split(fields, [SHELF, DOWEL], LOW, HIGH)
    assert found["back"].b == pytest.approx(0.2 - 0.086)
    assert found["front"] == fields["front"]


@pytest.mark.parametrize("axis", ["x", "y", "z"])
def test_faces_look_along_the_axis_and_have_the_plate_behind_them(axis):
    k, brace = "xyz".index(axis), Brace("d", axis, -0.05, 0.012, None, True)
    near, far = face_frames(brace, LOW, HIGH)
    assert [near.normal[k], far.normal[k]] == [1.0, -1.0]
    assert near.o[k] == pytest.approx(-0.044)
    assert near.at(0.0, 0.0, near.t) == pytest.approx(far.o)
    assert far.at(0.0, 0.0, far.t) == pytest.approx(near.o)
    others = [j for j in range(3) if j != k]
    assert [near.o[j] for j in others] == pytest.approx([(LOW[j] + HIGH[j]) / 2 for j in others])


def test_in_a_tube_a_plate_is_a_disc_and_beside_the_axis_as_wide_as_the_chord():
    disc, upright = Brace("d", "y", 0.02, 0.01), Brace("u", "z", -0.05, 0.01)
    assert air_taken(disc, ROUND) == pytest.approx(np.pi * 0.1**2 * 0.01)
    assert sides(disc, ROUND) == pytest.approx((0.2, 0.2), abs=1e-6)
    assert filled(disc, ROUND) == pytest.approx(np.pi / 4, rel=1e-3)
    chord = 2 * np.sqrt(0.1**2 - 0.06**2)
    assert sides(upright, ROUND) == pytest.approx((chord, 0.28))
    assert air_taken(upright, ROUND) == pytest.approx(chord * 0.28 * 0.01, rel=2e-3)
    assert solid_of(Brace("o", "z", 0.2, 0.01), ROUND) is None, "outside there is no plate"
    assert air_taken(Brace("o", "z", 0.2, 0.01), ROUND) == 0.0
    rod = Brace("r", "y", 0.0, 0.01, spot=(0.0, 0.0))
    assert air_taken(rod, ROUND) == pytest.approx(circle_area(0.01) * 0.28)
