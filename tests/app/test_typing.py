"""What is being typed: it counts, it never reaches another document, and its note goes with it."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel, QLineEdit

from firecrest.app.stages.table import STAGES
from firecrest.app.widgets.number_field import HINT, NumberEdit
from firecrest.design.edits import voice as edits
from firecrest.design.edits.paths import value_at
from firecrest.files.container import read_document
from tests.app.helpers import edit_of, menu, settle, type_into

DEPTH = ("box", "case", "depth")
LEVEL = ("brief", "loudness", "level")
PLAYING = ("brief", "runtime", "level")


def hint(window):
    found = window.findChild(QLabel, HINT)
    return found.text() if found is not None and found.isVisible() else ""


def test_what_is_typed_is_kept_before_undo_which_takes_it_back(window, slipway):
    type_into(window, DEPTH, "190")
    type_into(window, DEPTH, "185", keep=False)
    menu(window, "undo")
    assert window.session.design.box.case.depth == 0.19
    assert edit_of(window, *DEPTH).text() == "190 mm"
    menu(window, "redo")
    assert window.session.design.box.case.depth == 0.185


def test_undo_takes_a_refused_text_back_first(window, slipway):
    type_into(window, DEPTH, "190")
    edit = type_into(window, DEPTH, "blue")
    assert edit.property("refused")
    menu(window, "undo")
    assert (edit.text(), edit.property("refused")) == ("190 mm", False)
    assert window.session.design.box.case.depth == 0.19
    menu(window, "undo")
    assert window.session.design is slipway


def test_undo_by_key_takes_back_what_is_typed_and_then_what_was_done(window, slipway):
    """A text taken back to what is in force is typed no more, and holds up no undo."""
    for refused in (False, True):
        type_into(window, DEPTH, "190")
        edit = type_into(window, DEPTH, "25", keep=refused)
        assert edit.property("refused") == refused
        for _ in range(6):
            QTest.keyClick(edit, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
        assert window.session.design == slipway
        assert (edit.text(), window.session.typed) == ("188 mm", [])


def test_undo_by_key_in_a_text_is_of_the_text_then_of_the_document(window, slipway):
    window.show_stage("cabinet")
    settle()
    name = ("box", "case", "braces", 0, "name")

    def field():
        named = ".".join(map(str, name))
        return next(e for e in window.findChildren(QLineEdit) if e.property("path") == named)

    def undo():
        field().setFocus()
        QTest.keyClick(field(), Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
        settle()

    window.session.edit_number(DEPTH, 0.2)
    settle()
    field().setFocus()
    field().selectAll()
    QTest.keyClicks(field(), "Rib")
    undo()
    assert (field().text(), window.session.design.box.case.depth) == ("Brace", 0.2)
    undo()
    assert window.session.design == slipway
    field().setFocus()
    field().selectAll()
    QTest.keyClicks(field(), "Rib")
    QTest.keyClick(field(), Qt.Key.Key_Return)
    settle()
    assert value_at(window.session.design, name) == "Rib"
    undo()
    assert window.session.design == slipway


def test_a_stage_left_while_typing_has_kept_it(window):
    type_into(window, DEPTH, "190", keep=False)
    menu(window, "stage_power")
    assert window.session.design.box.case.depth == 0.19
    assert window.session.trial is None
    assert hint(window) == ""


def test_a_refused_text_and_its_note_leave_with_their_document(window):
    edit = type_into(window, PLAYING, "blue")
    assert edit.property("refused")
    assert "stays in force" in hint(window)
    menu(window, "demo_lantern")
    edit = edit_of(window, *PLAYING)
    assert not edit.property("refused")
    assert edit.text() == edit._text(window.session.design.brief.runtime.level)
    assert hint(window) == ""


def test_a_level_typed_in_one_design_stays_out_of_the_next(window, tmp_path):
    type_into(window, LEVEL, "91", keep=False)
    window.messages.keep, window.messages.save_to = "save", tmp_path / "first.firecrest"
    menu(window, "demo_lantern")
    lantern = window.session.design
    assert lantern.brief.loudness.level != 91.0
    assert not window.session.modified
    assert read_document(tmp_path / "first.firecrest").design.brief.loudness.level == 91.0


def test_the_note_goes_when_its_field_does(window):
    type_into(window, DEPTH, "blue")
    assert hint(window)
    menu(window, "stage_promise")
    assert hint(window) == ""


def test_after_a_step_by_key_typing_replaces(window):
    edit = edit_of(window, *DEPTH)
    edit.setFocus()
    QTest.keyClick(edit, Qt.Key.Key_Down)
    QTest.keyClicks(edit, "188")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    settle()
    assert window.session.design.box.case.depth == 0.188


def test_steps_in_a_row_are_one_step_from_the_first_value_to_the_last(window, tmp_path):
    edit = edit_of(window, *DEPTH)
    edit.setFocus()
    first = edit.text()
    for _ in range(5):
        QTest.keyClick(edit, Qt.Key.Key_Down)
    (step,) = window.session.history.past
    assert step[0] == f"Depth {first} → {edit.text()}".replace(" mm", "\u202fmm")
    window.messages.save_to = tmp_path / "x.firecrest"
    menu(window, "save")
    QTest.keyClick(edit, Qt.Key.Key_Down)
    assert len(window.session.history.past) == 2


def test_what_stands_for_an_empty_figure_is_said_to_assistive_software(window):
    found = 0
    for key in STAGES:
        window.show_stage(key)
        settle()
        for edit in window.stage.findChildren(NumberEdit):
            if not edit.text() and edit.placeholderText():
                assert edit.placeholderText().strip("()") in edit.accessibleDescription()
                found += 1
    assert found


def test_a_refused_text_goes_with_the_page_it_stood_on(window):
    blocks = ("voice", "channels", 0, "blocks")
    window.show_stage("voice")
    settle()
    type_into(window, (*blocks, 0, "frequency"), "blue")
    assert len(window.session.typed) == 1
    made = edits.add_block(window.session.design, 0, "notch")
    window.session.apply(*made)  # the page is built anew
    QTest.qWait(20)
    assert window.session.typed == []
    menu(window, "undo")
    assert len(window.session.design.voice.channels[0].blocks) == 2


def test_a_refused_text_leaves_with_its_stage_and_eats_no_undo(window):
    type_into(window, ("box", "case", "depth"), "0.19 m")
    edit = type_into(window, ("voice", "channels", 0, "gain"), "92 dB")
    assert edit.property("refused")
    window.show_stage("size")
    settle()
    assert window.session.typed == []
    assert edit.text() == "0.0 dB"
    menu(window, "undo")
    assert window.session.history.past == []
