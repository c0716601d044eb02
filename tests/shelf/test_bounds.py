"""What is fed to the shelf's readers is bounded, in size, in time, and in what may get in."""

import json
from time import process_time

import pytest

from firecrest.core.curve_text import read_curve
from firecrest.core.errors import FirecrestError, ReadingError, ShelfError
from firecrest.core.reading import read_quantity
from firecrest.core.units import QUANTITIES
from firecrest.shelf.exchange import MOST_VALUES, planned, read_file, read_parts, write_parts
from firecrest.shelf.pasting import LONGEST, name_in, read_sheet
from firecrest.shelf.query import parse_query
from firecrest.shelf.stock import shipped_entries
from firecrest.shelf.table import MOST_COLUMNS, read_table

MANY = 100_000
LONGEST_S = 1.0
"""Of processor time: some hundredths are usual, and a pattern that goes quadratic takes minutes."""
PATTERNS = [
    "a", " ", "9", "9,", "fs ", "re (", "\t", "re = ", "x" * 29 + "=", "(", "[", "-", "€", "dc ",
    "fs: 5 x 10^", "approx ", ". ", "under 5 to ", "²", "m^9", "\n", '"', ",", ";", "name [",
]  # fmt: skip
STARTS = ["", "fs ", "name,fs [", "name\na", "name,origins\nx,", "Ø 140 to "]
W13 = next(e for e in shipped_entries() if e.id == "alder-w13-4")


def answered(work, text):
    """Seconds of work until a reader has read or refused a text."""
    began = process_time()
    try:
        work(text)
    except FirecrestError as error:
        assert not error.unforeseen
    return process_time() - began


@pytest.mark.parametrize("start", STARTS)
@pytest.mark.parametrize("pattern", PATTERNS)
def test_a_hundred_thousand_letters_of_anything_are_answered_at_once(start, pattern):
    text = (start + pattern * MANY)[:MANY]
    read_quantity("1 furlong", "length", "mm")  # the library of units is loaded before
    readers = [
        lambda t: read_sheet(t[:LONGEST]),
        read_sheet,
        parse_query,
        read_table,
        read_parts,
        lambda t: read_curve(t, "z"),
        lambda t: read_quantity(t, "length", "mm"),
    ]
    for number, read in enumerate(readers):
        assert answered(read, text) < LONGEST_S, number


def test_a_name_is_found_fast_among_many_figures():
    text = "fs 1\n" * 4000
    readings = read_sheet(text)
    began = process_time()
    assert name_in(text, readings) == ""
    assert process_time() - began < LONGEST_S


@pytest.mark.parametrize(
    ("text", "figures"),
    [
        ("Cms 5 x 10^-4 m/N", {"cms": 5e-4}),
        ("Sd 3x10^-3 m2", {"sd": 3e-3}),
        ("Cms 5·10⁻⁴ m/N", {"cms": 5e-4}),
        ("Cms 5⋅10-4 m/N", {"cms": 5e-4}),
        ("Cms 5 × 10**-4 m/N", {"cms": 5e-4}),
        ("Cms 5 X 10^(-4) m/N", {"cms": 5e-4}),
        ("Cms 5 E-04 m/N", {"cms": 5e-4}),
        ("Cms 5e-4 m/N", {"cms": 5e-4}),
        ("Cms 10^-4 m/N", {"cms": 1e-4}),
        ("Cms 10⁻⁴ m/N", {"cms": 1e-4}),
        ("Fs 1.2x10² Hz", {"fs": 120.0}),
        ("Nominal power 100 W", {"pe": 100.0}),
        ("Impedance: 2 x 4 ohm", {"coils": 2.0}),
        ("Impedance: 2x100 ohm", {"coils": 2.0}),
        ("price 0, price 0 ± 3", {"price": 0.0}),
    ],
)
def test_powers_of_ten_in_every_spelling(text, figures):
    found = {r.figure: r.value for r in read_sheet(text) if r.figure}
    assert found == pytest.approx(figures)


@pytest.mark.parametrize(
    "text",
    [
        "Cms 5.10^-4 m/N", "Cms 5 10^-4 m/N", "Cms 5x10e-4 m/N", "Cms 5 x 1e-4 m/N", "Fs 5²",
        "Cms 5*1e-4 m/N", "Cms (x10^-4 m/N) 5", "Cms [10^-4 m/N] 5", "Cms 5^-4", "Pe 2 x 60 W",
        "Fs 12 x 10^999 Hz", "Xmax 3 x 4.5 mm",
    ],
)  # fmt: skip
def test_a_size_that_cannot_be_told_is_refused_not_guessed(text):
    assert [r.figure for r in read_sheet(text)] == [""]
    assert "by hand" in read_sheet(text)[0].remark or "range" in read_sheet(text)[0].remark


def one_part(**changes):
    """A file with one part of other figures."""
    body = json.loads(write_parts([W13]))
    body["parts"][0] |= changes
    return json.dumps(body)


@pytest.mark.parametrize(
    ("changes", "told"),
    [
        ({"id": "x" * 65}, "an id has 1 to 64 plain letters"),
        ({"id": "\u202e"}, "an id has 1 to 64 plain letters"),
        ({"have": 10**30}, "pieces you have can be 0"),
        ({"have": -1}, "pieces you have can be 0"),
        ({"notes": "n" * 4001}, "up to 4000 letters"),
        ({"notes": "\ud800"}, "half a letter"),
        ({"kind": ["driver"]}, "no kind called"),
        ({"part": None}, "no object"),
    ],
)
def test_what_must_not_get_in_is_told_by_row(changes, told):
    table = read_parts(one_part(**changes))
    assert table.entries == ()
    assert told in table.problems[0].reason


def test_an_id_of_another_kind_does_not_replace_a_part():
    present = {e.id: e for e in shipped_entries()}
    other = next(e for e in present.values() if e.kind == "cell")
    body = json.loads(write_parts([other]))
    body["parts"][0] |= {"id": W13.id}
    body["parts"][0]["part"]["name"] = "Flint of one's own"
    taking = planned(read_parts(json.dumps(body)), present)
    (new,) = taking.new
    assert new.id not in present
    assert taking.changed == ()
    both = json.loads(write_parts([W13, other]))
    for k, part in enumerate(both["parts"]):
        part |= {"id": "same"}
        part["part"]["name"] = f"one's own {k}"
    assert len(planned(read_parts(json.dumps(both)), present).new) == 2


def test_files_have_one_budget():
    with pytest.raises(ShelfError, match="larger than 16 MB"):
        read_file(b"name\n" + b"x" * (17 * 2**20), "big.csv")
    with pytest.raises(ShelfError, match="more than 1000000 values"):
        read_file(b'{"parts": [' + b"1," * (MOST_VALUES + 5) + b"1]}", "many.json")
    with pytest.raises(ShelfError, match=r"20001 parts; up to 20000"):
        read_file(b'{"parts": [' + b"1," * 20_000 + b"1]}", "many.json")
    with pytest.raises(ShelfError, match="columns; up to 200"):
        read_table("name," * (MOST_COLUMNS + 1))
    with pytest.raises(FirecrestError, match="beyond every range"):
        read_curve("\n".join(f"{k} 1e999" for k in range(1, 9)), "z")


@pytest.mark.parametrize("unit", ["m^9^9^9^9^9", "m**99999", "kg^99999999", "m" * 40, "(m)", "m/0"])
def test_units_are_names_with_small_powers(unit):
    for quantity in QUANTITIES:
        with pytest.raises(ReadingError):
            read_quantity(f"5 {unit}", quantity, QUANTITIES[quantity].units[0].label)
    assert answered(read_table, f"name,fs [{unit}]\nx,5\n") < LONGEST_S
