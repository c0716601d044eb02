"""The Voice stage: ways and their names, by keyboard too."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication

from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo
from tests.app.helpers import menu, press, settle, type_into


@pytest.fixture
def stage(window):
    window.session.start(Document(project_of(read_demo("breakwater"))), None)
    window.show_stage("voice")
    settle()
    return window.stage


def names(window):
    return [c.name for c in window.session.design.voice.channels]


def test_a_way_is_added_by_command_named_and_removed_again(window, stage):
    menu(window, "add_way")
    assert names(window) == ["sub", "left", "right", "way 4"]
    name = stage.field(("voice", "channels", 3, "name"))
    name.setFocus()
    name.selectAll()
    QTest.keyClicks(name, "speech")
    press(window, Qt.Key.Key_Return)
    assert names(window)[3] == "speech"
    assert QApplication.focusWidget().property("path") == "voice.channels.3.name"
    remove = next(
        b for b in stage.findChildren(QAbstractButton) if b.accessibleName() == "Remove way speech"
    )
    remove.setFocus()
    press(window, Qt.Key.Key_Space)
    assert names(window) == ["sub", "left", "right"]
    for _ in range(3):
        menu(window, "undo")
    assert window.session.design == read_demo("breakwater")


def test_a_board_without_a_free_output_says_so_and_nothing_changes(window, slipway):
    menu(window, "add_way")
    assert window.session.design is slipway
    assert "another board in Parts" in window.notice.text()


def test_what_is_typed_as_a_name_is_kept_before_another_stage(window, stage):
    name = stage.field(("voice", "channels", 0, "name"))
    name.setFocus()
    name.selectAll()
    QTest.keyClicks(name, "bottom")
    menu(window, "stage_size")
    assert names(window)[0] == "bottom"


def test_a_refused_text_goes_with_the_filter_it_stood_in(window, stage):
    place = len(window.session.design.voice.channels[0].blocks) - 1
    edit = type_into(window, ("voice", "channels", 0, "blocks", place, "frequency"), "9 kg")
    assert edit.property("refused")
    stage.remove_band(place)
    settle()
    assert len(window.session.design.voice.channels[0].blocks) == place
    window.undo()
    assert len(window.session.design.voice.channels[0].blocks) == place + 1


def test_the_card_of_a_new_filter_opens_though_the_amplifiers_stays_last(window):
    window.session.start(Document(project_of(read_demo("capstan"))), None)
    window.show_stage("voice")
    window.stage._add("low_shelf")
    blocks = window.session.design.voice.channels[0].blocks
    assert [b.kind for b in blocks[-2:]] == ["low_shelf", "own_crossover"]
    assert window.stage.chosen == (0, f"block-{len(blocks) - 2}")
