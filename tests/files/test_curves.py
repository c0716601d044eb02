"""Curves of ways from files: what header and name say of them."""

from math import radians

import pytest

from firecrest.core.errors import FileError
from firecrest.files.curves import angle_in, way_curve

ROWS = "\n".join(f"{f} {80 + f / 1e3:.2f} {-f / 100:.1f}" for f in range(100, 3000, 100))


def test_angle_distance_volts_and_place_are_read_from_the_header():
    head = "# angle_deg: -30\n# distance_m: 0.5\n# voltage_rms: 2.83\n# place: ground\n"
    curve, notices = way_curve(head + ROWS, "tweeter_45.txt")
    assert curve.angle == pytest.approx(radians(-30))
    assert (curve.distance, curve.volts, curve.place) == (0.5, 2.83, "ground")
    assert notices == ()


@pytest.mark.parametrize(
    ("name", "angle"),
    [
        ("mid_30.txt", 30.0),
        ("mid -15deg.frd", -15.0),
        ("high hor 45.txt", 45.0),
        ("V1_high_00.csv", 0.0),
        ("woofer.txt", None),
        ("W17.txt", None),
        ("run 400.txt", None),
        ("left_60°.txt", 60.0),
        ("left 30 degrees.txt", 30.0),
        ("left_90degree.txt", 90.0),
    ],
)
def test_the_angle_is_read_from_the_name(name, angle):
    assert angle_in(name) == angle


def test_without_an_angle_it_is_on_the_axis_and_said():
    curve, notices = way_curve(ROWS, "woofer.txt")
    assert curve.angle == 0.0
    assert curve.distance is None
    assert notices[-1].code == "no angle"


def test_what_is_no_response_is_refused():
    with pytest.raises(FileError, match="250 dB"):
        way_curve(ROWS.replace(" 80", " 980"), "w.txt")
    with pytest.raises(FileError, match="same at every"):
        way_curve("\n".join(f"{f} 0" for f in range(100, 900, 100)), "w.txt")


def test_a_thinned_curve_keeps_what_is_left_and_its_header():
    text = "# angle_deg: 15\n" + "\n".join(f"{20 + k / 10} 80.{k % 7}" for k in range(12_000))
    curve, notices = way_curve(text, "w.txt")
    assert notices[0].code == "thinned curve"
    assert len(curve.content) < len(text) / 10
    assert curve.content.startswith("# angle_deg: 15")
