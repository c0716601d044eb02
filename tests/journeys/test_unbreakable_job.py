"""Whole jobs in which something goes wrong in the middle, from a blank project to a saved file."""

import json
import sqlite3

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QPushButton

from firecrest.app.start import offer_left_over
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of
from firecrest.files.container import Document, read_document, write_document
from firecrest.files.demos import blank_design
from firecrest.proposals.layouts import LAYOUTS
from firecrest.shelf.exchange import write_parts
from firecrest.shelf.stock import shipped_entries
from tests.app.helpers import button, click, menu, press, settle, text_of, type_into, until, wait

CONTROL, ALT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier
DEPTH = ("box", "case", "depth")
DRIVER = ("box", "groups", 0, "driver")


def find(window, text):
    """Go to a field by the find field, by keys only."""
    press(window, Qt.Key.Key_K, CONTROL)
    QTest.keyClicks(QApplication.focusWidget(), text)
    settle()
    press(window, Qt.Key.Key_Return)
    return QApplication.focusWidget()


def type_here(edit, text):
    edit.selectAll()
    QTest.keyClicks(edit, text)
    settle()


def test_by_keys_only_saved_while_typing_killed_and_found_again(make_window, tmp_path):
    window = make_window(blank_design())
    window.activateWindow()
    QTest.qWait(50)
    window.messages.name = "Jetty <b>box</b> & more"
    press(window, Qt.Key.Key_F2)
    assert window.project.text() == "Jetty <b>box</b> & more"
    press(window, Qt.Key.Key_3, ALT)
    type_here(find(window, "depth"), "250")
    window.messages.save_to = tmp_path / "jetty.firecrest"
    press(window, Qt.Key.Key_S, CONTROL)
    assert read_document(tmp_path / "jetty.firecrest").design.box.case.depth == 0.25
    assert not window.session.modified
    type_here(find(window, "depth"), "0.26 m")
    press(window, Qt.Key.Key_Return)
    type_here(QApplication.focusWidget(), "27 c")
    window.end_at_once(15)
    window.hide()

    again = make_window(blank_design())
    again.activateWindow()
    QTest.qWait(50)
    offer_left_over(again)
    assert again.session.design.name == "Jetty <b>box</b> & more"
    assert again.session.design.box.case.depth == 0.26, "what could not be read was not kept"
    assert again.session.path == tmp_path / "jetty.firecrest"
    press(again, Qt.Key.Key_S, CONTROL)
    assert not again.session.modified
    assert read_document(again.session.path).design == again.session.design


def test_own_driver_of_two_coils_pasted_wired_and_saved_twice(make_window, tmp_path):
    """A sheet with powers of ten; coils in parallel far below every sheet; another window saves."""
    window = make_window(blank_design())
    window.show_stage("parts")
    stage = window.stage
    stage.open_path(DRIVER)
    QApplication.clipboard().setText(
        "Own W16\nRe 0.7 ohm\nfs 45 Hz\nQms 4.1\nQes 0.5\nSd 1.3x10^-2 m2\n"
        "Cms 6 x 10^-4 m/N\nImpedance 2 x 2 ohm\nXmax 6 mm\nPower 60 W"
    )
    stage.paste(True)
    settle()
    button(stage, "Tick all")
    settle()
    take = [b for b in stage.findChildren(QPushButton) if b.text().startswith("Take ")]
    click(next(b for b in take if b.isVisible()))
    settle()
    driver = window.session.design.box.groups[0].driver
    assert (driver.coils, driver.re) == (2, 0.7)
    assert abs(driver.sd - 1.3e-2) < 1e-9
    window.session.attempt(lambda: window.session.edit(("box", "groups", 0, "coils"), "parallel"))
    assert window.session.assessment.promise("loudness").state != "unknown"
    window.messages.save_to = tmp_path / "own.firecrest"
    menu(window, "save")
    write_document(
        tmp_path / "own.firecrest", Document(project_of(set_number(blank_design(), DEPTH, 0.2)))
    )
    type_into(window, DEPTH, "190 mm")
    window.messages.changed, window.messages.save_to = "save_as", tmp_path / "mine.firecrest"
    menu(window, "save")
    assert read_document(tmp_path / "own.firecrest").design.box.case.depth == 0.2
    assert read_document(tmp_path / "mine.firecrest").design == window.session.design
    for _ in range(len(window.session.history.past)):
        menu(window, "undo")
    assert window.session.design == blank_design()


def test_a_bandpass_with_parts_from_a_bad_file_while_the_shelf_is_held(
    make_window, settings, tmp_path
):
    window = make_window(blank_design())
    window.show_stage("size")
    window.stage.layouts.activated.emit(list(LAYOUTS).index("bandpass4"))
    settle()
    assert len(window.session.design.box.chambers) == 2
    window.show_stage("parts")
    wait(window.stage)
    body = json.loads(write_parts([e for e in shipped_entries() if e.kind == "driver"][:3]))
    for k, part in enumerate(body["parts"]):
        part["id"] = f"own-{k}"
        part["part"]["name"] = f"<b>own {k}</b>"
    body["parts"][1]["part"]["fs"] = 1e30
    body["parts"][2]["have"] = -1
    path = tmp_path / "parts.json"
    path.write_text(json.dumps(body))
    other = sqlite3.connect(settings / "data" / "firecrest" / "shelf.sqlite", isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    window.take_parts_from(path)
    assert "left out" in window.messages.told[-1][1]
    assert "own-0" not in window.session.shelf.entries()
    assert window.session.shelf.waiting
    other.execute("ROLLBACK")
    other.close()
    until(lambda: not window.session.shelf.waiting)
    assert "own-0" in window.session.shelf.entries()
    wait(window.stage)
    assert "<b>own 0</b>" in [r.entry.name for r in window.stage.shelf.table.rows_model.rows]
    assert text_of(window.stage)
