"""Parts as tables: round trips, tables from anywhere, and a report of what was not understood."""

import contextlib
import dataclasses
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.errors import FirecrestError, ShelfError
from firecrest.design.edits.parts import add_travel_point
from firecrest.design.edits.power import with_own_warmth
from firecrest.present.parts.taking import report
from firecrest.shelf.entry import made_entry
from firecrest.shelf.exchange import planned, read_file, read_parts, write_parts
from firecrest.shelf.stock import shipped_entries
from firecrest.shelf.table import read_table, write_table

ENTRIES = shipped_entries()
HERE = {e.id: e for e in ENTRIES}


def test_csv_and_json_give_back_every_part():
    for table in (read_table(write_table(ENTRIES)), read_parts(write_parts(ENTRIES))):
        assert table.problems == ()
        assert [e.name for e in table.entries] == [e.name for e in ENTRIES]
        taking = planned(table, HERE)
        assert (taking.new, taking.changed, len(taking.same)) == ((), (), len(ENTRIES))


def test_csv_onto_an_empty_shelf_gives_the_same_figures():
    table = read_table(write_table(ENTRIES))
    for entry, made in zip(ENTRIES, table.entries, strict=True):
        old, new = json.loads(entry.body), json.loads(made.body)
        for left_out in ("efficiency", "other_outputs", "own_filter"):
            old.pop(left_out, None)
            old["origins"].pop(left_out, None)
            new.pop(left_out, None)
        assert new.keys() == old.keys()
        for key, value in old.items():
            assert new[key] == (pytest.approx(value) if isinstance(value, float) else value)
        assert (made.stock, made.favourite, made.notes) == (
            entry.stock,
            entry.favourite,
            entry.notes,
        )


TABLES = [
    ("name,fs [Hz],vas [L],sd [cm²]\nX,52,7.2,83", {}),
    ("Name;Fs (Hz);Vas (l);Sd (cm2)\nX;52,0;7,2;83", {}),
    ("part\tResonance, Hz\tVas\tSd_mm2\nX\t52\t7.2 L\t8300", {}),
    ("kind|name|fs|equivalent volume [cu ft]|SD [sq in]\nDriver|X|52 Hz|0.25426|12.865", {}),
    ("\ufeffname;fs;vas;sd;qts\r\n\r\nX;52;7,2;83;\r\n", {}),
    ('"Name","Fs, Hz","Vas, L","Sd, cm²"\n"X","52","7.2","83"', {}),
    (
        "id,have,name,fs [kHz],vas [cm³],sd [m2],unknown\nabc,3,X,0.052,7200,0.0083,junk",
        {"stock": 3},
    ),
]  # fmt: skip


@pytest.mark.parametrize(("text", "more"), TABLES, ids=range(len(TABLES)))
def test_tables_from_anywhere(text, more):
    table = read_table(text)
    (entry,) = table.entries
    assert table.problems == ()
    part = entry.part
    assert part.name == "X"
    assert (part.fs, part.vas, part.sd) == pytest.approx((52, 7.2e-3, 83e-4), rel=1e-4)
    assert part.origins["fs"] == "sheet"
    assert entry.stock == more.get("stock", 0)


def test_rows_are_reported_one_by_one():
    table = read_table(
        "kind;name;fs [Hz];qts;sd [bananas];price\n"
        "driver;Good;52;0,4;;24\n"
        "driver;;50;0,4;;\n"
        "driver;Half;abc;99;83;€ 12\n"
        "horse;Dobbin;1;1;;\n"
        "amplifier;No claims;;;;9\n"
    )
    assert [e.name for e in table.entries] == ["Good", "Half"]
    half = table.entries[1].part
    assert (half.fs, half.qts, half.price) == (None, None, 12.0)
    said = {(p.row, p.column): p.reason for p in table.problems}
    assert said[3, "name"] == "the row has no name and is left out"
    assert "Try 52 Hz" in said[4, "fs [Hz]"]
    assert said[4, "qts"] == "Total Q can be 0.05 to 15."
    assert "bananas is not a unit of cone area" in said[4, "sd [bananas]"]
    assert "not one of driver, radiator" in said[5, "kind"]
    assert "claims" in said[6, ""]
    text = report("parts.csv", table, planned(table, HERE))
    assert text.startswith("parts.csv: 2 new parts, 0 changed, 0 as they are. 6 cells or rows")
    assert "Row 4, qts: “99” Total Q can be 0.05 to 15." in text


def test_columns_that_are_missing_change_nothing_of_a_part_that_is_there():
    table = read_table("name,fs [Hz],stated [x]\nalder w13-4,60\nRowan R16,\n")
    taking = planned(table, HERE)
    (changed,) = taking.changed
    old, new = HERE["alder-w13-4"].part, changed.part
    assert table.ignored == ("stated [x]",)
    assert new.fs == 60
    assert new.origins["fs"] == "sheet"
    assert new.origins["re"] == "measured"
    kept = dataclasses.replace(new, fs=old.fs, origins=old.origins, shelf=old.shelf, name=old.name)
    assert kept == old
    assert changed.revision == 2


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "empty"),
        (b"\x00\x01\x02", "not a text file"),
        (b"fs;qts\n52;0.4", "names no column called name"),
        (b"{", "not readable JSON"),
        (b'{"a": 1}', "holds no parts"),
        (b'{"firecrest_parts": 9, "parts": []}', "version 9"),
        (b"name\n" + b"x\n" * 20_001, "up to 20000"),
    ],
)
def test_files_that_cannot_be_read_say_why(data, said):
    with pytest.raises(ShelfError, match=said):
        read_file(data, "parts")


def test_broken_rows_of_json_are_left_out_with_their_reason():
    body = {"parts": [{"kind": "driver", "part": {"name": "X", "fs": -1}}, {"kind": "cat"}, 7]}
    table = read_parts(json.dumps(body))
    assert table.entries == ()
    assert [p.row for p in table.problems] == [1, 2, 3]
    assert "fs" in table.problems[0].reason


def test_old_code_pages_are_read():
    text = "name;price;notes\nFähre;12;für den Steg\n"
    for encoding in ("cp1252", "utf-8-sig", "utf-16"):
        (entry,) = read_file(text.encode(encoding), "x.csv").entries
        assert (entry.name, entry.notes) == ("Fähre", "für den Steg")


@given(st.binary(max_size=400))
def test_any_bytes_are_read_or_refused(data):
    with contextlib.suppress(FirecrestError):
        read_file(data, "x")


@given(st.lists(st.lists(st.text(max_size=8), max_size=5), max_size=6))
def test_any_table_is_read_or_refused(rows):
    text = "name;fs [Hz];kind;claims;have\n" + "\n".join(";".join(row) for row in rows)
    with contextlib.suppress(FirecrestError):
        read_table(text)


def test_lists_of_cells_and_drivers_go_out_and_come_in(slipway):
    """By temperature, and at large travel: six and three rows in one cell each."""
    design = with_own_warmth(slipway, own=True)[1]
    design = add_travel_point(design, ("box", "groups", 0, "driver"))[1]
    for kind, name, part in (
        ("cell", "warmth", design.power.source.cell),
        ("driver", "large", design.box.groups[0].driver),
    ):
        table = read_table(write_table([made_entry(kind, part)]))
        assert table.problems == ()
        back = getattr(table.entries[0].part, name)
        for mine, own in zip(back, getattr(part, name), strict=True):
            assert dataclasses.astuple(mine) == pytest.approx(dataclasses.astuple(own), rel=1e-5)
