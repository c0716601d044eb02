"""A real window is killed in the middle of the work; the next one offers what was lost."""

import os
import subprocess
import sys

from firecrest.app.start import offer_left_over
from firecrest.files.demos import read_demo

CRASHING = """
import sys
from PySide6.QtTest import QTest
from firecrest.app.start import make_application, make_window
from firecrest.files.demos import read_demo
application = make_application()
window = make_window(read_demo("slipway"))
window.show()
window.session.edit_number(("box", "case", "depth"), 0.171)
QTest.qWait(2600)
print("edited", flush=True)
QTest.qWait(60000)
"""


def test_killed_while_working_and_restored_by_the_next_window(make_window, settings):
    environment = {
        **os.environ,
        "XDG_STATE_HOME": str(settings / "state"),
        "XDG_CONFIG_HOME": str(settings / "other"),
        "QT_QPA_PLATFORM": "offscreen",
    }
    process = subprocess.Popen(
        [sys.executable, "-c", CRASHING], stdout=subprocess.PIPE, env=environment
    )
    assert process.stdout.readline() == b"edited\n"
    process.kill()
    process.communicate()
    window = make_window(read_demo("untitled"))
    offer_left_over(window)
    assert window.session.design.name == "Slipway"
    assert window.session.design.box.case.depth == 0.171
    assert window.session.modified
    assert "unsaved" in window.saved.text()
