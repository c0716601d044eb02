"""Endings that nobody chose keep the work aside."""

import os
import signal
import subprocess
import sys
from pathlib import Path

import pytest
from PySide6.QtCore import QObject
from PySide6.QtWidgets import QPushButton

from firecrest import __version__
from firecrest.app.ending import report_of, watch_mistakes
from firecrest.app.rest import Rest
from firecrest.files.journal import left_over

WORKING = """
import sys
from firecrest.app import start
offer = start.offer_left_over
def shown(window):
    window.session.edit_number(("box", "case", "depth"), 0.171)
    print("edited", flush=True)
start.offer_left_over = shown
from firecrest.__main__ import main
sys.exit(main())
"""


@pytest.mark.parametrize("number", [signal.SIGTERM, signal.SIGHUP, signal.SIGINT])
def test_a_signal_keeps_the_work_aside_and_ends_without_a_trace(settings, number):
    process = subprocess.Popen(
        [sys.executable, "-c", WORKING, "open", "--demo", "slipway"],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        env={**os.environ, "QT_QPA_PLATFORM": "offscreen"},
    )
    assert process.stdout.readline() == b"edited\n"
    process.send_signal(number)
    _, told = process.communicate(timeout=20)
    assert process.returncode == 128 + number
    assert b"Traceback" not in told
    (item,) = left_over()
    assert item.document.design.box.case.depth == 0.171


def test_a_mistake_of_the_program_keeps_the_work_aside_and_is_told(monkeypatch, capsys):
    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    kept, told = [], []

    def tell(text, report):
        told.append((text, report))
        sys.excepthook(ValueError, ValueError("while telling"), None)

    watch_mistakes(lambda: kept.append(True), tell)
    sys.excepthook(ZeroDivisionError, ZeroDivisionError("by nothing"), None)
    assert kept == [True]
    assert len(told) == 1
    assert "ZeroDivisionError" in told[0][0]
    sys.excepthook(ZeroDivisionError, ZeroDivisionError("by nothing"), None)
    assert len(told) == 1, "one and the same is told once"
    errors = capsys.readouterr().err
    assert "by nothing" in errors
    assert "while telling" in errors


def test_a_report_of_a_mistake_can_be_saved(window, tmp_path):
    window.messages.save_to = tmp_path / "report.txt"
    window.tell_mistake("Something went wrong.", report_of(f"at {Path.home()}/x.py, line 1"))
    (save,) = (b for b in window.notice.findChildren(QPushButton) if b.isVisible())
    save.click()
    text = window.messages.save_to.read_text()
    assert __version__ in text
    assert "at ~/x.py, line 1" in text


def test_work_that_fails_holds_up_no_other(qtbot):
    owner, found = QObject(), []
    rest = Rest(owner)
    with qtbot.capture_exceptions() as caught:
        rest.start([lambda: 1 / 0, lambda: "done"], found.append)
        qtbot.waitUntil(lambda: found == ["done"])
    assert caught[0][0] is ZeroDivisionError
