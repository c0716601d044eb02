"""Long work in a child process: items, stopping, refusals, and a child that is killed."""

import os
import signal
import subprocess
import sys

import pytest
import shiboken6

from firecrest.app.work import Task, workshop
from tests.app.helpers import until
from tests.app.jobs import broken, counted, deadly, endless, refused, where


@pytest.fixture
def task(qapp, qtbot):
    from PySide6.QtCore import QObject

    parent = QObject()
    made = Task(parent)
    made.items, made.failures, made.parent_object = [], [], parent
    made.some.connect(made.items.append)
    made.failed.connect(made.failures.append)
    return made


def ran(task, work, *args):
    task.start(work, *args)
    until(lambda: not task.running)
    return task.items


def test_items_come_in_order_from_another_process_without_qt(task):
    assert ran(task, counted, 5) == [0, 1, 2, 3, 4]
    task.items.clear()
    ((process, qt),) = ran(task, where)
    assert process == workshop.process != os.getpid()
    assert qt == []


def test_refusals_and_faults_are_told_and_the_next_job_runs(task):
    assert ran(task, refused) == [1]
    assert task.failures == ["too small"]
    ran(task, broken)
    assert "by nothing" in task.failures[-1]
    task.items.clear()
    assert ran(task, counted, 2) == [0, 1]


def test_a_newer_job_takes_the_place_of_an_endless_one(task):
    task.start(endless)
    until(lambda: len(task.items) > 20)
    task.items.clear()
    assert ran(task, counted, 3) == [0, 1, 2]


def test_a_killed_child_is_replaced_and_its_job_begun_again(task):
    began = []
    task.began_again.connect(lambda: (began.append(True), task.items.clear()))
    task.start(endless)
    until(lambda: task.items)
    os.kill(workshop.process, signal.SIGKILL)
    until(lambda: began and len(task.items) > 3)
    assert task.items[0] == 1
    task.stop()
    assert task.failures == []


def test_a_job_that_kills_its_child_is_given_up(task):
    ran(task, deadly)
    assert task.failures == ["the calculation's process ended"]
    task.items.clear()
    assert ran(task, counted, 1) == [0]


def test_a_job_without_room_for_a_process_is_refused_in_words(task, monkeypatch):
    def full(*_args, **_keywords):
        raise OSError(11, "Resource temporarily unavailable")

    workshop.close()
    with monkeypatch.context() as patched:
        patched.setattr(subprocess, "Popen", full)
        assert ran(task, counted, 2) == []
    assert "no process could be started" in task.failures[0]
    assert ran(task, counted, 2) == [0, 1]


def test_items_for_a_view_that_is_gone_are_dropped(task):
    task.start(endless)
    until(lambda: task.items)
    shiboken6.delete(task.parent_object)
    other = Task(workshop._notifier)
    items = []
    other.some.connect(items.append)
    other.start(counted, 2)
    until(lambda: not other.running)
    assert items == [0, 1]


DROPPED = """
import gc, sys
from PySide6.QtTest import QTest
from firecrest.app.start import make_application, make_window
from firecrest.app.session import Session
from firecrest.files.demos import read_demo
application = make_application()
for cycle in range(3):
    for _ in range(3):
        session = Session(read_demo("slipway"))
        session.edit_number(("box", "case", "depth"), 0.171 + 0.001 * cycle)
        session.loop = session
        del session
    window = make_window(read_demo("slipway"))
    window.show()
    window.show_stage("parts")
    panel = window.stage.shelf
    window.stage.session.edit_number(("box", "case", "depth"), 0.18 + 0.001 * cycle)
    for _ in range(2000):  # left as soon as it is there; a loaded machine takes its time
        QTest.qWait(10)
        if panel.judged.outcomes and not panel.judged.chooser.running:
            break
    assert panel.judged.outcomes
    window.loop = window
    if cycle == 1:
        window.deleteLater()
    del window, panel
assert not gc.isenabled()
gc.collect()
QTest.qWait(100)
print("alive", flush=True)
"""


def test_sessions_and_windows_that_are_dropped_while_parts_choose(tmp_path):
    """A worker that collects garbage destroyed their Qt objects outside the main thread."""
    folders = {f"XDG_{name}_HOME": str(tmp_path / name) for name in ("STATE", "DATA", "CONFIG")}
    environment = {**os.environ, **folders, "QT_QPA_PLATFORM": "offscreen"}
    done = subprocess.run(
        [sys.executable, "-c", DROPPED], capture_output=True, text=True, env=environment, timeout=90
    )
    assert done.stdout == "alive\n", done.stderr
    assert done.returncode == 0
