"""Lanes, handles and cards of the Voice stage, by mouse and keys."""

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit

from firecrest.app.stages.voice.lane_view import MIME
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo
from tests.app.helpers import menu, rested, settle, type_into

HERE = ("voice", "channels", 0)


@pytest.fixture
def stage(window):
    window.session.start(Document(project_of(read_demo("headland"))), None)
    window.show_stage("voice")
    settle()
    return window.stage


def kinds(window, channel=0):
    return [b.kind for b in window.session.design.voice.channels[channel].blocks]


def block(stage, channel, title):
    return next(b for b in stage.lanes.rows[channel].blocks if b.item.title.startswith(title))


def with_band(window, stage):
    stage.choose(0, "way")
    stage._add("parametric")
    settle()
    handle = stage.handles.handles[0]
    assert handle.isVisible()
    return handle


def figures(window):
    band = window.session.design.voice.channels[0].blocks[2]
    return band.frequency, band.gain, band.q


def test_a_block_opens_its_card_and_typing_there_changes_it(window, stage):
    QTest.mouseClick(block(stage, 1, "Low-pass"), Qt.MouseButton.LeftButton)
    settle()
    type_into(window, ("voice", "channels", 1, "blocks", 1, "frequency"), "3.1 kHz")
    assert window.session.design.voice.channels[1].blocks[1].frequency == 3100.0
    stage._slow.flush()
    assert block(stage, 1, "Low-pass").item.figure.startswith("3.1")


def test_keys_on_a_block_bypass_move_and_remove_it(window, stage):
    chosen = block(stage, 0, "High-pass")
    chosen.setFocus()
    QTest.keyClick(chosen, Qt.Key.Key_B)
    assert window.session.design.voice.channels[0].blocks[0].bypassed
    both = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier
    chosen = block(stage, 0, "High-pass")
    QTest.keyClick(chosen, Qt.Key.Key_Right, both)
    settle()
    assert kinds(window) == ["low_pass", "high_pass"]
    QTest.keyClick(block(stage, 0, "High-pass"), Qt.Key.Key_Delete)
    settle()
    assert kinds(window) == ["low_pass"]
    for _ in range(3):
        menu(window, "undo")
    assert window.session.design == read_demo("headland")


def test_a_block_dropped_on_another_takes_its_place(window, stage):
    data = QMimeData()
    data.setData(MIME, b"0 0")
    target = block(stage, 0, "Low-pass")
    target.dropEvent(
        QDropEvent(
            QPointF(5, 5),
            Qt.DropAction.MoveAction,
            data,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
        )
    )
    settle()
    assert kinds(window) == ["low_pass", "high_pass"]


def test_a_block_of_another_lane_is_not_taken(window, stage):
    data = QMimeData()
    data.setData(MIME, b"1 0")
    event = QDropEvent(
        QPointF(5, 5),
        Qt.DropAction.MoveAction,
        data,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    block(stage, 0, "Low-pass").dropEvent(event)
    assert window.session.design == read_demo("headland")


def test_a_handle_is_moved_by_arrows_and_turned_by_page_keys_and_wheel(window, stage):
    handle = with_band(window, stage)
    handle.setFocus()
    f, gain, q = figures(window)
    QTest.keyClick(handle, Qt.Key.Key_Right)
    QTest.keyClick(handle, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    QTest.keyClick(handle, Qt.Key.Key_PageUp)
    moved = figures(window)
    assert moved[0] == pytest.approx(f * 2 ** (1 / 24), abs=0.1)
    assert moved[1] == pytest.approx(gain + 1.0)
    assert moved[2] == pytest.approx(q * 1.05, abs=1e-3)
    assert "Band 1" in handle.accessibleName()
    QTest.keyClick(handle, Qt.Key.Key_Delete)
    assert kinds(window) == ["high_pass", "low_pass"]


def test_a_dragged_handle_moves_the_band_as_one_step(window, stage):
    handle = with_band(window, stage)
    before = window.session.design
    middle = QPoint(handle.width() // 2, handle.height() // 2)
    f, gain, _ = figures(window)
    QTest.mousePress(handle, Qt.MouseButton.LeftButton, pos=middle)
    for step in (10, 20, 30):
        QTest.mouseMove(handle, middle + QPoint(step, -step))
        settle()
    QTest.mouseRelease(handle, Qt.MouseButton.LeftButton, pos=middle)
    moved = figures(window)
    assert moved[0] > f
    assert moved[1] > gain
    menu(window, "undo")
    assert window.session.design == before


def test_a_figure_held_at_the_end_of_its_range_is_not_passed(window, stage):
    handle = with_band(window, stage)
    handle.change(gain=99.0, q=500.0, frequency=1.0)
    assert figures(window) == (5.0, 30.0, 30.0)


def test_channels_are_linked_and_copied_from_their_card(window, stage):
    window.session.start(Document(project_of(read_demo("breakwater"))), None)
    window.show_stage("voice")
    settle()
    stage = window.stage
    stage.choose(2, "way")
    combos = {c.accessibleName(): c for c in stage.side.findChildren(type(stage.preset))}
    link = combos["right linked with"]
    link.setCurrentIndex(2)
    link.activated.emit(2)
    settle()
    type_into(window, ("voice", "channels", 1, "gain"), "-9 dB")
    assert [c.gain for c in window.session.design.voice.channels] == [0.0, -9.0, -9.0]


def test_presets_are_kept_switched_and_removed(window, stage):
    window.messages.name = "Indoors"
    stage.keep_preset()
    settle()
    type_into(window, (*HERE, "gain"), "-4 dB")
    stage._slow.flush()
    assert stage.preset.currentText() == "Indoors"
    stage._switch(0)
    assert window.session.design.voice.channels[0].gain == 0.0
    stage._switch(1)
    assert window.session.design.voice.channels[0].gain == -4.0
    stage._slow.flush()
    stage.drop_preset.click()
    assert window.session.design.voice.preset == "Headland, open"


def test_a_delay_is_typed_in_time_samples_or_as_a_path(window, stage):
    stage.choose(1, "delay")
    settle()
    edits = {e.accessibleName().split(" of ")[0]: e for e in stage.side.findChildren(QLineEdit)}
    edit = edits["In samples"]
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, "12")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    rate = window.session.design.power.dsp.sample_rate
    assert window.session.design.voice.channels[1].delay == pytest.approx(12 / rate)
    edit = edits["As a path"]
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, "34 mm")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert window.session.design.voice.channels[1].delay == pytest.approx(0.034 / 343.2, rel=2e-3)


@pytest.mark.parametrize("view", ["fan", "power", "phase", "impulse", "delay", "cross"])
def test_every_view_draws_and_says_what_it_assumes(window, stage, view):
    stage.show_view(view)
    rested(stage)
    plot = stage.views_by_key[view].chart.content
    assert plot.curves
    assert plot.message == ""
    assert stage.views_by_key[view].chart.accessibleName().endswith("plot")


def test_both_corners_are_set_where_to_cross(window, stage):
    stage.show_view("cross")
    rested(stage)
    page = stage.views_by_key["cross"]
    page.pair.setCurrentIndex(1)
    page.at.setText("3 kHz")
    QTest.keyClick(page.at, Qt.Key.Key_Return)
    assert window.session.design.voice.channels[1].blocks[1].frequency == 3000.0
    assert window.session.design.voice.channels[2].blocks[0].frequency == 3000.0
    QApplication.processEvents()


def test_a_lane_is_whole_beside_a_short_card(window):
    window.session.start(Document(project_of(read_demo("capstan"))), None)
    window.show_stage("voice")
    window.stage.choose(0, "delay")
    window.stage._add("low_shelf")
    settle()
    lane = window.stage.lanes.rows[0]
    assert lane.visibleRegion().boundingRect().height() == lane.height()
