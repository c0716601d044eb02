"""Boards, converters and mains supplies in the window: added, fed, dealt out, removed."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QCheckBox, QPushButton

from firecrest.app.stages.parts.sheet_page import SheetPage
from firecrest.files.container import read_document
from tests.app.helpers import settle, type_into

BOARDS, RAIL = ("power", "boards"), "power.boards.0.rail"


@pytest.fixture
def stage(window):
    window.show_stage("power")
    settle()
    return window.stage


def push(stage, text):
    """A button of the stage by keyboard."""
    found = next(b for b in stage.findChildren(QPushButton) if b.text() == text)
    found.setFocus()
    QTest.keyClick(found, Qt.Key.Key_Space)
    settle()


def test_a_converter_and_a_second_board_come_and_go_by_keyboard(window, stage):
    first = window.session.design
    push(stage, "Add converter")
    rail = stage.field((*BOARDS, 0, "rail"))
    assert rail.currentText() == "Converter"
    rail.setFocus()
    QTest.keyClick(rail, Qt.Key.Key_Up)
    assert window.session.design.power.boards[0].rail == "bus"
    push(stage, "Add another board")
    window.show_stage("voice")
    board = window.stage.field(("voice", "channels", 0, "board"))
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Down)
    assert window.session.design.voice.channels[0].board == "amplifier-2"
    window.show_stage("power")
    settle()
    push(stage, "Remove Sedge 2x60, 2")
    assert "carries all" in window.notice.text()
    push(stage, "Remove Sedge 2x60, 1")
    push(stage, "Remove Converter")
    assert len(window.session.design.power.amplifiers) == 1
    while window.session.history.past:
        window.session.undo()
    assert window.session.design == first


def test_a_mains_amplifier_is_made_on_the_shelf_and_brings_its_source(window):
    window.show_stage("parts")
    stage = window.stage
    stage.new_part("amplifier")
    settle()
    sheet = stage.findChild(SheetPage)
    own = next(b for b in sheet.findChildren(QCheckBox) if b.text().startswith("Has its own mains"))
    own.click()
    settle()
    entry = stage.subject.entry
    assert entry.part.own_mains
    assert stage.subject.editing.design.power.source.kind == "mains"
    assert [b.currentText() for b in [stage.field((*stage.subject.path, "form"))]] == ["board"]
    own.click()
    settle()
    assert not stage.subject.entry.part.own_mains


@pytest.mark.parametrize("text", ["9 to 24 V", "9 V - 24 V", "9-24", "9...24V"])
def test_both_ends_of_a_board_s_supply_are_typed_at_once(window, text):
    type_into(window, (*BOARDS, 0, "part", "cut_off"), text)
    board = window.session.design.power.boards[0].part
    assert (board.cut_off, board.highest_supply) == (9.0, 24.0)
    assert len(window.session.history.past) == 1


def test_a_range_that_falls_is_refused_and_kept_as_typed(window):
    edit = type_into(window, (*BOARDS, 0, "part", "highest_supply"), "24 to 9 V")
    assert edit.text() == "24 to 9 V"
    assert window.session.history.past == []


def test_a_protection_board_and_a_receiver_come_and_go(window, stage):
    first = window.session.design
    push(stage, "Remove protection board")
    assert window.session.design.power.source.board is None
    push(stage, "Add protection board")
    board = window.session.design.power.source.board
    assert board.cut_off == pytest.approx(5 * 2.8 * 1.05)
    push(stage, "Add receiver")
    type_into(window, (*BOARDS, 2, "part", "power"), "0.8 W")
    drawn = window.session.assessment.acoustic.runtime.hours
    push(stage, "Remove Receiver")
    assert window.session.assessment.acoustic.runtime.hours > drawn
    while window.session.history.past:
        window.session.undo()
    assert window.session.design == first


def test_a_sheet_of_a_board_states_efficiency_and_other_outputs(window):
    window.show_stage("parts")
    window.stage.open_path((*BOARDS, 0, "part"))
    settle()
    push(window.stage, "State efficiency")
    type_into(window, (*BOARDS, 0, "part", "efficiency", "value"), "88 %")
    push(window.stage, "Add kind of output")
    type_into(window, (*BOARDS, 0, "part", "other_outputs", 0, "channels"), "2")
    part = window.session.design.power.boards[0].part
    assert (part.efficiency.value, part.other_outputs[0].channels) == (0.88, 2)
    push(window.stage, "Efficiency is not stated")
    assert window.session.design.power.boards[0].part.efficiency is None


def test_a_note_is_kept_when_one_goes_on_and_saved_while_one_writes(window, tmp_path):
    window.show_stage("promise")
    settle()
    note = window.stage.field(("note",))
    note.setFocus()
    note.selectAll()
    QTest.keyClicks(note, "For the jetty.")
    window.messages.save_to = tmp_path / "n.firecrest"
    assert window.save()
    assert read_document(window.messages.save_to).design.note == "For the jetty."
    window.session.undo()
    note.clearFocus()
    assert note.toPlainText() == window.session.design.note != "For the jetty."
