"""A shelf that another program holds: nothing stands still, and nothing is lost."""

import sqlite3
from time import monotonic

import pytest
from PySide6.QtCore import QObject
from PySide6.QtTest import QTest

from firecrest.app.shelf_keeper import WAITING, ShelfKeeper
from firecrest.present.parts.starts import new_part
from firecrest.shelf.store import Shelf
from tests.app.helpers import until


@pytest.fixture
def keeper(qapp, qtbot, settings):
    parent = QObject()
    made = ShelfKeeper(parent)
    made.parent_object, made.told = parent, []
    made.refused.connect(made.told.append)
    yield made
    made.close()


def path_of(settings):
    return settings / "data" / "firecrest" / "shelf.sqlite"


def held(settings, how="EXCLUSIVE"):
    """Somebody else in the middle of writing."""
    Shelf(path_of(settings)).close()
    other = sqlite3.connect(path_of(settings), isolation_level=None)
    if how == "EXCLUSIVE":
        other.execute("PRAGMA locking_mode = EXCLUSIVE")
    other.execute(f"BEGIN {how}")
    return other


def quick(work):
    """What ``work`` gives, long before the five seconds SQLite would wait for a lock."""
    began = monotonic()
    answer = work()
    assert monotonic() - began < 3
    return answer


def test_a_shelf_held_at_first_look_is_joined_when_it_is_free(keeper, settings):
    other = held(settings)
    assert quick(keeper.entries) == {}
    assert keeper.waiting
    until(lambda: keeper.told)
    assert "joined when it is free" in keeper.told[0]
    other.close()
    until(lambda: not keeper.waiting)
    assert len(keeper.entries()) > 100
    assert keeper.store.path == path_of(settings), "no throw-away shelf"


def test_changes_wait_in_order_and_are_made_when_it_is_free(keeper, settings):
    assert len(keeper.entries()) > 100
    other = held(settings, "IMMEDIATE")
    for number in range(3):
        part = new_part("driver")
        answer = quick(lambda p=part: keeper.attempt(lambda shelf: shelf.add("driver", p)))
        assert answer is WAITING, number
    known = dict(keeper.entries())
    for stock in (1, 5):
        keeper.attempt(lambda s, n=stock: s.mark("alder-w13-4", stock=n), key="stock")
    until(lambda: any("Your change is made as soon as it is free" in t for t in keeper.told))
    other.execute("ROLLBACK")
    other.close()
    until(lambda: not keeper.waiting)
    assert len(keeper.entries()) == len(known) + 3
    assert keeper.entries()["alder-w13-4"].stock == 5, "the later one took its place"


def test_changes_that_wait_get_a_last_chance_when_the_window_closes(keeper, settings):
    keeper.entries()
    other = held(settings, "IMMEDIATE")
    keeper.attempt(lambda shelf: shelf.mark("alder-w13-4", stock=7))
    other.execute("ROLLBACK")
    other.close()
    keeper.close()
    shelf = Shelf(path_of(settings))
    assert shelf.entries()["alder-w13-4"].stock == 7
    shelf.close()


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ("body = '{\"kind\": 1}'", "3 rows of the shelf are no parts"),
        ("kind = 'teapot'", "no kind of part called teapot"),
        ("id = printf('%.200c', 'x') || rowid", "an id has 1 to 64 plain letters"),
        ("name = 'another'", "its name or revision is not that of its part"),
    ],
)
def test_rows_that_are_no_parts_are_left_alone_and_told(keeper, settings, change, told):
    Shelf(path_of(settings)).close()
    other = sqlite3.connect(path_of(settings), isolation_level=None)
    count = other.execute("SELECT count(*) FROM part").fetchone()[0]
    other.execute(f"UPDATE part SET {change} WHERE rowid IN (SELECT rowid FROM part LIMIT 3)")
    rows = other.execute("SELECT * FROM part ORDER BY id").fetchall()
    assert len(keeper.entries()) == count - 3
    until(lambda: keeper.told)
    assert told in keeper.told[0]
    keeper.attempt(lambda shelf: shelf.mark("rowan-r16", stock=2))
    keeper.entries()
    QTest.qWait(30)
    assert len(keeper.told) == 1, "it is told once"
    there = other.execute("SELECT * FROM part ORDER BY id").fetchall()
    assert len([r for r in rows if r in there]) >= len(rows) - 1
    other.close()


def test_the_shelf_is_private(keeper, settings):
    keeper.entries()
    folder = path_of(settings).parent
    assert folder.stat().st_mode & 0o077 == 0
    for file in folder.iterdir():
        assert file.stat().st_mode & 0o077 == 0, file
