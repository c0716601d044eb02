"""Discharge logs as people write them."""

import numpy as np
import pytest

from firecrest.core.errors import FileError
from firecrest.files.discharge import read_discharge

ROWS = [(t, 20.0 - t / 1000, 2.0) for t in range(0, 600, 60)]


def written(head, row, rows=ROWS):
    return "\n".join([head, *(row.format(t=t, v=v, a=a) for t, v, a in rows)])


@pytest.mark.parametrize(
    ("head", "row"),
    [
        ("", "{t},{v},{a}"),
        ("# a comment", "{t} {v} {a}"),
        ("time (s);voltage (V);current (A)", "{t};{v};{a}"),
        ("Current [A]\tTime [s]\tVoltage [V]", "{a}\t{t}\t{v}"),
        ("Time,Voltage,Current,Temp", "{t},{v},{a},25"),
    ],
)
def test_columns_are_told_by_their_titles(head, row):
    found = read_discharge(written(head, row), "log.csv")
    np.testing.assert_allclose(found.seconds, [t for t, _, _ in ROWS])
    np.testing.assert_allclose(found.volts, [v for _, v, _ in ROWS])
    np.testing.assert_allclose(found.amperes, 2.0)


def test_units_in_the_titles_count_and_commas_may_be_decimal_signs():
    rows = [(t / 60, v, -2000.0) for t, v, _ in ROWS]
    text = written("Time min;Volt V;Current mA", "{t};{v};{a}", rows).replace(".", ",")
    found = read_discharge(text, "log.csv")
    np.testing.assert_allclose(found.seconds, [t for t, _, _ in ROWS])
    np.testing.assert_allclose(found.amperes, 2.0)


def test_clock_times_are_read():
    text = "time,voltage,current\n" + "\n".join(f"00:{m:02d}:00,20,1" for m in range(6))
    np.testing.assert_allclose(read_discharge(text, "x").seconds, 60.0 * np.arange(6))


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "0 rows"),
        ("1,2,3\n2,3,4", "2 rows"),
        ("time,voltage,current\n" + "1,2,3\n" * 5 + "6,x,3", "line 7"),
        ("1;2\n2;3\n3;4\n4;5\n5;6", "line 1"),
    ],
)
def test_what_is_no_log_is_refused_with_its_line(text, says):
    with pytest.raises(FileError, match=says):
        read_discharge(text, "log.csv")
