"""Measured curves from text files of every habit."""

import contextlib

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.curve_text import kept_curve, read_curve
from firecrest.core.errors import FileError
from firecrest.files.curves import impedance_trouble
from firecrest.present.text.notes import said

ROWS = [
    (20.0, 4.1, 12.0),
    (30.0, 6.5, 30.0),
    (50.0, 30.2, 0.0),
    (80.0, 8.0, -33.0),
    (200.0, 4.2, -5.0),
]


def written(separator, decimal=".", header="* impedance\n", columns=3):
    lines = [
        separator.join(f"{v:.3f}".replace(".", decimal) for v in row[:columns]) for row in ROWS
    ]
    return header + "\n".join(lines) + "\n"


@pytest.mark.parametrize(
    "text",
    [
        written(" "),
        written("\t", header="Freq Z Phase\n"),
        written(";", ","),
        written(","),
        written("   ", header="# a\n// b\n\n"),
        written(" ", ",", header='"Hz" "Ohm"\n'),
    ],
    ids=range(6),
)
def test_habits_of_measuring_programs(text):
    curve = read_curve(text, "z.txt")
    assert np.allclose(curve.frequency, [r[0] for r in ROWS])
    assert np.allclose(curve.magnitude, [r[1] for r in ROWS])
    assert np.allclose(curve.phase, [r[2] for r in ROWS])
    assert len(curve.header) >= 1
    assert impedance_trouble(curve) == ""


def test_two_columns_unsorted_and_doubled():
    text = "100 5\n50 4\n50 9\n20 3\n10 2\n70 6\n0 1\n"
    curve = read_curve(text, "z.txt")
    assert curve.frequency.tolist() == [10, 20, 50, 70, 100]
    assert curve.magnitude.tolist() == [2, 3, 4, 6, 5]
    assert curve.phase is None


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("20 4\n30 5\n", "2 points"),
        ("20 4\n30 5\n40 x\n50 6\n60 6\n", "line 3.*40 x"),
        ("", "0 points"),
        ("0 1\n0 2\n0 3\n0 4\n0 5\n", "no rising column"),
    ],
)
def test_what_is_no_curve_says_where(text, told):
    with pytest.raises(FileError, match=told):
        read_curve(text, "z.txt")


def test_levels_are_no_impedance():
    curve = read_curve("".join(f"{f} -{f}\n" for f in range(10, 90, 10)), "r.txt")
    assert "above 0" in impedance_trouble(curve)


@given(st.text(max_size=200))
def test_any_text_is_read_or_refused(text):
    with contextlib.suppress(FileError):
        read_curve(text, "x")


def test_what_was_put_right_is_told():
    text = "100 5\n50 4\n50 9\n20 3\n10 2\n70 6\n0 1\n"
    notices = read_curve(text, "z.txt").notices
    assert [n.code for n in notices] == ["unsorted curve", "doubled lines", "lines below"]
    assert "1 frequencies stood twice" in said(notices[1])


@pytest.mark.parametrize(
    ("text", "told"),
    [
        (written(" ").replace("30.200", "NaN"), "line 4.*no figure"),
        (written(" ").replace(" 30.200 0.000", " 30.200"), "line 4: 2 figures.*3"),
        (written(" ").replace("50.000 30.200", "nan 30.200"), "line 4.*no figure"),
    ],
)
def test_gaps_and_missing_columns_name_their_line(text, told):
    with pytest.raises(FileError, match=told):
        read_curve(text, "z.txt")


@pytest.mark.parametrize(
    ("separator", "decimal"), [(" ", "."), ("; ", ","), (",", "."), ("\t", ",")]
)
def test_a_very_long_curve_is_thinned_with_notice(separator, decimal):
    f = np.linspace(20, 20e3, 60_000)
    lines = [separator.join((f"{x:.3f}", f"{80 - x / 1e3:.3f}")).replace(".", decimal) for x in f]
    curve = read_curve("# made up\n" + "\n".join(lines), "r.txt")
    assert "60,000 points were thinned" in said(curve.notices[0])
    assert 700 < len(curve.frequency) < 1200
    np.testing.assert_allclose(curve.magnitude, 80 - curve.frequency / 1e3, atol=1e-3)
    assert (curve.frequency[0], curve.frequency[-1]) == (20.0, 20e3)


def test_a_curve_that_is_kept_is_read_once_and_cannot_be_changed():
    curve = kept_curve(written(" "), "kHz")
    assert kept_curve(written(" "), "kHz") is curve
    assert curve.frequency[0] == 20e3
    with pytest.raises(ValueError, match="read-only"):
        curve.magnitude[0] = 0.0
