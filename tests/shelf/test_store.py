"""The shelf on disk: every change whole, undone, shared between windows, and safe from kills."""

import contextlib
import dataclasses
import json
import os
import signal
import sqlite3
import subprocess
import sys
import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.errors import FirecrestError, ShelfError
from firecrest.design.parts import DriverPart
from firecrest.shelf.entry import made_entry
from firecrest.shelf.exchange import planned, read_file, take, write_parts
from firecrest.shelf.kinds import KINDS, part_from, part_text
from firecrest.shelf.schema import MIGRATIONS
from firecrest.shelf.stock import shipped_entries
from firecrest.shelf.store import Shelf, counts

W13 = "alder-w13-4"


@pytest.fixture
def shelf(tmp_path):
    made = Shelf(tmp_path / "data" / "shelf.sqlite")
    yield made
    made.close()


def with_fs(entry, fs):
    return dataclasses.replace(entry.part, fs=fs, shelf=None)


def test_a_new_shelf_holds_the_shipped_parts(shelf):
    assert set(shelf.entries()) == {e.id for e in shipped_entries()}
    assert counts(list(shelf.entries().values()))["driver"] >= 40
    assert shelf.entry(W13).part.shelf.part == W13


def test_parts_are_their_own_text(shelf):
    for entry in shelf.entries().values():
        part = dataclasses.replace(entry.part, shelf=None)
        assert part_from(entry.kind, part_text(part)) == part


def test_a_changed_part_has_a_new_revision_and_is_undone(shelf):
    entry = shelf.entry(W13)
    changed = shelf.keep_part(entry, with_fs(entry, 61.0))
    assert (changed.revision, changed.part.fs) == (2, 61.0)
    assert shelf.keep_part(changed, with_fs(changed, 61.0)) is changed
    assert shelf.undo() == "Change Alder W13-4"
    assert (shelf.entry(W13).part.fs, shelf.entry(W13).revision) == (58.0, 3)
    shelf.redo()
    assert shelf.entry(W13).part.fs == 61.0
    shelf.undo()
    assert shelf.undo() == ""


def test_marks_notes_copies_and_putting_away(shelf):
    shelf.mark(W13, favourite=False, stock=7, notes="from the red crate", archived=True)
    entry = shelf.entry(W13)
    assert (entry.favourite, entry.stock, entry.archived, entry.revision) == (False, 7, True, 1)
    assert "red crate" in entry.words
    copy = shelf.duplicate(W13)
    assert copy.name == "Alder W13-4 copy"
    assert copy.id not in (W13, "")
    assert not copy.shipped
    for _ in range(2):
        shelf.undo()
    assert copy.id not in shelf.entries()
    assert shelf.entry(W13).stock == 4


@pytest.mark.parametrize(
    ("action", "said"),
    [
        (lambda s: s.mark(W13, stock=-1), "0 to 100000"),
        (lambda s: s.mark(W13, notes="x" * 5000), "up to 4000"),
        (lambda s: s.entry("nobody"), "no longer on the shelf"),
        (
            lambda s: part_from("driver", '{"name": "X", "fs": -3}'),
            "fs.*greater than or equal to 5",
        ),
        (lambda s: part_from("horse", "{}"), "There are: driver, radiator"),
        (lambda s: part_from("driver", '{"name": "X", "hooves": 4}'), "hooves"),
    ],
)
def test_bad_input_is_refused_with_what_is_accepted(shelf, action, said):
    before = dict(shelf.entries())
    with pytest.raises(ShelfError, match=said):
        action(shelf)
    assert dict(shelf.entries()) == before
    assert shelf.past == []


def test_two_windows_share_the_shelf(shelf):
    other = Shelf(shelf.path)
    seen, theirs = shelf.entry(W13), other.entry(W13)
    other.keep_part(theirs, with_fs(theirs, 63.0))
    assert shelf.changed_elsewhere()
    with pytest.raises(ShelfError, match="changed in another window"):
        shelf.keep_part(seen, with_fs(seen, 64.0))
    assert shelf.entry(W13).part.fs == 63.0
    assert not shelf.changed_elsewhere()
    mine = shelf.keep_part(shelf.entry(W13), with_fs(seen, 64.0))
    with pytest.raises(ShelfError, match="nothing undone"):
        other.undo()
    assert shelf.entry(W13) == mine
    other.close()


def test_unchanged_parts_stay_the_same_objects_when_others_write(shelf):
    kept = shelf.entry("rowan-r16")
    other = Shelf(shelf.path)
    other.mark(W13, stock=9)
    assert shelf.entry(W13).stock == 9
    assert shelf.entry("rowan-r16") is kept
    other.close()


def test_use_goes_with_its_part(shelf):
    entry = shelf.add("driver", DriverPart(name="Mine"))
    shelf.note_use("Slipway", [entry.id, W13, "nobody"])
    shelf.note_use("Lantern", [W13])
    assert [name for name, _ in shelf.used_in(W13)] == ["Lantern", "Slipway"]
    shelf.note_use("Slipway", [W13])
    assert shelf.used_in(entry.id) == []


def test_curves_of_a_shelf_of_version_1_become_figures_of_their_parts(tmp_path):
    path = tmp_path / "old.sqlite"
    Shelf(path).close()
    with contextlib.closing(sqlite3.connect(path)) as db:
        db.execute("CREATE TABLE curve (part TEXT, kind TEXT, name TEXT, body TEXT)")
        row = (W13, "impedance", 'z "1".txt', "20 4\n")
        db.execute("INSERT INTO curve VALUES (?, ?, ?, ?)", row)
        db.execute("PRAGMA user_version = 1")
        db.commit()
    shelf = Shelf(path)
    (curve,) = shelf.entry(W13).part.curves
    assert (curve.what, curve.name, curve.content) == ("impedance", 'z "1".txt', "20 4\n")
    assert shelf.duplicate(W13).part.curves == (curve,)
    shelf.close()


def test_a_newer_or_damaged_shelf_is_left_as_it_is(tmp_path):
    newer = tmp_path / "newer.sqlite"
    Shelf(newer).close()
    with sqlite3.connect(newer) as db:
        db.execute(f"PRAGMA user_version = {len(MIGRATIONS) + 1}")
    db.close()
    with pytest.raises(ShelfError, match="newer Firecrest"):
        Shelf(newer)
    broken = tmp_path / "broken.sqlite"
    broken.write_bytes(b"no database at all" * 400)
    with pytest.raises(ShelfError, match="cannot be opened"):
        Shelf(broken)
    assert broken.read_bytes() == b"no database at all" * 400


def test_parts_that_came_with_a_newer_program_are_added_once(tmp_path):
    path = tmp_path / "shelf.sqlite"
    first = Shelf(path)
    entry = first.entry(W13)
    first.keep_part(entry, with_fs(entry, 61.0))
    first.close()
    with sqlite3.connect(path) as db:
        db.execute("DELETE FROM part WHERE id = 'rowan-r16'")
        db.execute("UPDATE fact SET value = 0")
    db.close()
    again = Shelf(path)
    assert again.entry("rowan-r16").part.sd == 0.0118
    assert again.entry(W13).part.fs == 61.0
    again.close()


def test_a_broken_import_changes_nothing(shelf):
    before = dict(shelf.entries())
    text = write_parts([shelf.entry(W13)]).replace('"Alder W13-4"', '"Alder X"')
    for data in (text[: len(text) // 2].encode(), b"\x00\x01binary", b"a;b\n1;2\n", b""):
        with pytest.raises(FirecrestError):
            read_file(data, "parts.json")
    table = read_file(text.replace(W13, "mine").encode(), "parts.json")
    taking = planned(table, shelf.entries())
    bad = dataclasses.replace(taking.new[0], id="second", revision=0)
    with pytest.raises(ShelfError, match="Nothing was changed"):
        take(shelf, dataclasses.replace(taking, new=(*taking.new, bad)))
    assert dict(shelf.entries()) == before
    take(shelf, taking)
    assert shelf.entry("mine").name == "Alder X"
    shelf.undo()
    assert dict(shelf.entries()) == before


WRITING = """
import dataclasses, sys
from pathlib import Path
from firecrest.shelf.store import Shelf
shelf = Shelf(Path(sys.argv[1]))
print("open", flush=True)
for k in range(100000):
    entry = shelf.entry("alder-w13-4")
    n = k % 40
    shelf.keep_part(entry, dataclasses.replace(entry.part, fs=50.0 + n, re=3.0 + n / 40))
    shelf.mark("alder-w13-4", stock=k % 40)
"""


def test_the_database_survives_a_kill_at_any_moment(tmp_path):
    path = tmp_path / "shelf.sqlite"
    Shelf(path).close()
    for k in range(5):
        process = subprocess.Popen(
            [sys.executable, "-c", WRITING, str(path)], stdout=subprocess.PIPE, env=os.environ
        )
        assert process.stdout.readline() == b"open\n"
        time.sleep(0.03 + 0.037 * k)
        process.send_signal(signal.SIGKILL)
        process.communicate()
        again = Shelf(path)
        part = again.entry(W13).part
        assert part.re == pytest.approx(3.0 + (part.fs - 50.0) / 40) or part.fs == 58.0
        assert len(again.entries()) == len(shipped_entries())
        again.close()
    check = sqlite3.connect(path)
    assert check.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    check.close()


NAMES = st.sampled_from(["name", "fs", "claims", "table", "kind"])
ANYTHING = st.recursive(
    st.none() | st.booleans() | st.floats() | st.text(max_size=5),
    lambda inner: st.dictionaries(NAMES, inner),
    max_leaves=6,
)


@given(st.sampled_from(sorted(KINDS)), ANYTHING)
def test_only_our_own_errors_leave_the_reader(kind, body):
    with contextlib.suppress(FirecrestError):
        part_from(kind, json.dumps(body))


def test_five_thousand_parts_are_read_as_they_were_written(shelf):
    part = dataclasses.replace(shelf.entry(W13).part, shelf=None)
    many = [
        made_entry("driver", dataclasses.replace(part, name=f"Part {k}", price=k % 90))
        for k in range(5000)
    ]
    shelf.add_all(many, "Add many")
    again = Shelf(shelf.path)
    assert all(again.entry(e.id) == e for e in many)
    again.close()
    shelf.undo()
    assert len(shelf.entries()) == len(shipped_entries())
