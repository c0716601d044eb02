"""Work that waits: one piece per turn, dropped by what is newer, coalesced while one drags."""

from PySide6.QtCore import QObject
from PySide6.QtTest import QTest

from firecrest.app.rest import Coalesced, Rest
from tests.app.helpers import settle, until


def test_jobs_run_one_after_another_once_the_hand_rests(qtbot):
    owner, found = QObject(), []
    rest = Rest(owner)
    rest.start([lambda: 1, lambda: 2], found.append)
    settle()
    assert found == []
    qtbot.waitUntil(lambda: found == [1, 2] and not rest.running)
    assert not rest.running


def test_newer_jobs_drop_older_ones_and_stop_drops_all(qtbot):
    owner, found = QObject(), []
    rest = Rest(owner)
    rest.start([lambda: "old"], found.append)
    rest.start([lambda: "new", lambda: "newer"], found.append)
    until(lambda: not rest.running)
    assert found == ["new", "newer"]
    rest.start([lambda: "never"], found.append)
    rest.stop()
    QTest.qWait(150)
    assert found == ["new", "newer"]


def test_a_taker_may_start_anew_or_stop(qtbot):
    owner, found = QObject(), []
    rest = Rest(owner)

    def take(value):
        found.append(value)
        rest.stop()

    rest.start([lambda: 1, lambda: 2], take)
    until(lambda: found)
    QTest.qWait(20)
    assert found == [1]


def test_many_calls_are_one_run_and_flush_does_not_wait(qtbot):
    owner, runs = QObject(), []
    after = Coalesced(owner, lambda: runs.append(1))
    for _ in range(5):
        after.start()
    until(lambda: runs)
    assert len(runs) == 1
    after.start()
    after.start()
    after.flush()
    assert len(runs) == 2
    after.flush()
    after.start()
    after.stop()
    QTest.qWait(80)
    assert len(runs) == 2
