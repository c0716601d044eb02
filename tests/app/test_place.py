"""Pages that are built anew: keyboard, caret and scrolling stay where they were."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QPushButton

from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo
from tests.app.helpers import settle

BLOCKS = ("voice", "channels", 0, "blocks")


def focus():
    return QApplication.focusWidget()


def voice(window):
    window.show_stage("voice")
    settle()
    return window.stage


def button(stage, name):
    return [b for b in stage.findChildren(QAbstractButton) if b.accessibleName() == name]


def test_a_slope_chosen_by_key_keeps_the_keyboard_and_counts_the_filters_anew(window):
    stage = voice(window)
    combo = stage.field((*BLOCKS, 0, "order"))
    combo.setFocus()
    QTest.keyClick(combo, Qt.Key.Key_End)
    settle()
    assert window.session.design.voice.channels[0].blocks[0].order == 8
    assert focus().property("path") == "voice.channels.0.blocks.0.order"
    said = [w.text() for w in stage.findChildren(type(window.saved)) if "filters used" in w.text()]
    assert said[0].split(": ")[1].startswith("5 of")


def test_a_moved_block_keeps_the_keyboard_on_the_button_that_moved_it(window):
    stage = voice(window)
    kinds = [b.kind for b in window.session.design.voice.channels[0].blocks]
    stage.choose(0, "block-0")
    move = button(stage, "Move later: High-pass")[0]
    move.setFocus()
    QTest.keyClick(move, Qt.Key.Key_Space)
    settle()
    after = [b.kind for b in window.session.design.voice.channels[0].blocks]
    assert after == [kinds[1], kinds[0], *kinds[2:]]
    assert window.stage.isAncestorOf(focus())


def test_a_removed_block_leaves_the_keyboard_on_what_stands_there_now(window):
    stage = voice(window)
    stage.choose(0, "block-0")
    remove = button(stage, "Remove: High-pass")[0]
    remove.setFocus()
    QTest.keyClick(remove, Qt.Key.Key_Space)
    settle()
    assert window.stage.isAncestorOf(focus())
    assert focus() is not stage


def test_a_page_stays_scrolled_when_it_is_built_anew(window):
    window.resize(1024, 700)
    window.show_stage("size")
    settle()
    bar = window.stage._scroll.verticalScrollBar()
    bar.setValue(60)
    window.session.attempt(
        lambda: window.session.edit(("box", "chambers", 0, "name"), "other name")
    )
    settle()
    assert bar.value() == 60 < bar.maximum()


def test_a_kind_of_box_chosen_by_arrows_keeps_the_keyboard(window):
    window.show_stage("size")
    settle()
    button(window.stage, "Kind of box: Radiators")[0].setFocus()
    for name in ("Port", "Sealed"):
        QTest.keyClick(focus(), Qt.Key.Key_Left)
        settle()
        assert focus().accessibleName() == f"Kind of box: {name}"
    assert window.session.design.box.openings == ()


def test_a_button_that_can_do_no_more_hands_the_keyboard_to_its_neighbour(window):
    window.session.start(Document(project_of(read_demo("breakwater"))), None)
    window.show_stage("power")
    settle()
    remove = next(b for b in window.stage.findChildren(QPushButton) if b.text() == "Remove last")
    remove.setFocus()
    QTest.keyClick(remove, Qt.Key.Key_Space)
    settle()
    assert isinstance(focus(), QPushButton)
    assert window.stage.isAncestorOf(focus())
