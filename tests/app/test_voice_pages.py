"""Line up, flatten, protect, curves and compare, through the window."""

import numpy as np
import pytest
from PySide6.QtCore import QCoreApplication, QEvent, QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QPushButton
from scipy.io import wavfile

from firecrest.app.playing import player
from firecrest.app.work import Task
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo
from tests.app.helpers import click, menu, rested, settle, until
from tests.app.jobs import where


@pytest.fixture
def stage(window):
    window.session.start(Document(project_of(read_demo("headland"))), None)
    window.show_stage("voice")
    settle()
    return window.stage


def page(stage, work):
    stage.show_work(work)
    rested(stage)
    return stage.page


def voices(window):
    return window.session.design.voice.channels


def test_line_up_shows_ghosts_and_takes_all_as_one_step(window, stage):
    lining = page(stage, "line up")
    assert len([t for t in lining.ticks if t.isVisible() and t.isChecked()]) == 5
    click(lining.look)
    assert window.session.trial.promise("loudness").predicted > 96
    assert window.session.design == read_demo("headland")
    click(lining.take)
    assert window.session.trial is None
    assert voices(window)[1].inverted
    assert voices(window)[2].delay == pytest.approx(2.75e-4, abs=2e-6)
    rested(stage)
    assert "lined up" in stage.page.said.text()
    assert not stage.page.take.isEnabled()
    menu(window, "undo")
    assert window.session.design == read_demo("headland")


def test_one_step_can_be_taken_alone_and_the_phases_matched_instead(window, stage):
    lining = page(stage, "line up")
    for tick, step in zip(lining.ticks, lining.steps, strict=False):
        if tick.isEnabled() and step.key != "inverted":
            tick.click()
    click(lining.take)
    assert [c.inverted for c in voices(window)] == [False, True, False]
    assert [c.gain for c in voices(window)] == [0.0, 0.0, 0.0]
    lining = page(stage, "line up")
    loudest = [s.title for s in lining.steps if s.key == "delay"]
    click(lining.by.button("phase"))
    assert [s.title for s in lining.steps if s.key == "delay"] != loudest


def test_a_page_that_is_left_tries_nothing_any_more(window, stage):
    lining = page(stage, "line up")
    click(lining.look)
    assert window.session.trial is not None
    page(stage, "lanes")
    assert window.session.trial is None


def test_one_way_alone_has_nothing_to_line_up(window, stage):
    window.session.start(Document(project_of(read_demo("slipway"))), None)
    lining = page(window.stage, "line up")
    assert "One way alone" in lining.said.text()
    assert not lining.take.isEnabled()


def test_limiters_are_set_for_one_channel_or_all(window, stage):
    guarding = page(stage, "protect")
    button = guarding.rows[0][3]
    click(button)
    assert voices(window)[0].limiter is not None
    assert voices(window)[1].limiter is None
    click(guarding.set_all)
    assert all(c.limiter is not None for c in voices(window))
    programme = voices(window)[0].limiter
    guarding = page(stage, "protect")
    click(guarding.safe.button("sine"))
    click(guarding.set_all)
    assert voices(window)[0].limiter <= programme


def test_bands_are_found_shown_taken_and_undone(window, stage):
    flat = page(stage, "flatten")
    flat.low.setText("100 Hz")
    flat.high.setText("9 kHz")
    flat.most.step(-2)
    click(flat.search_button)
    rested(stage)
    assert window.session.trial is not None
    assert "It costs" in flat.said.text()
    assert "dB rms" in flat.facts.texts()[0]
    click(flat.take)
    bands = [b for b in voices(window)[0].blocks if b.kind == "parametric"]
    assert 1 <= len(bands) <= 4
    assert all(b in c.blocks for b in bands for c in voices(window))
    menu(window, "undo")
    assert window.session.design == read_demo("headland")


@pytest.mark.parametrize(
    ("low", "high", "said"),
    [
        ("9 kHz", "100 Hz", "From 9\u202fkHz to 100\u202fHz is no band"),
        ("blue", "9 kHz", "frequency"),
    ],
)
def test_a_band_that_cannot_be_is_refused_in_words(window, stage, low, high, said):
    flat = page(stage, "flatten")
    flat.low.setText(low)
    flat.high.setText(high)
    click(flat.search_button)
    assert said in window.notice.text()
    assert not flat.busy


def test_what_was_filled_in_stands_there_again_after_the_bands_are_taken(window, stage):
    flat = page(stage, "flatten")
    click(flat.shape.button("warm"))
    flat.low.selectAll()
    QTest.keyClicks(flat.low, "150 Hz")
    flat.boost.setText("3 dB")
    flat.cuts.setChecked(True)
    menu(window, "add_way")
    rested(stage)
    again = page(stage, "flatten")
    assert again is not flat
    assert (again.low.text(), again.boost.text()) == ("150 Hz", "3 dB")
    assert again.wish().shape == "warm"
    assert again.cuts.isChecked()


def test_points_of_a_target_are_read_or_refused(window, stage):
    flat = page(stage, "flatten")
    click(flat.shape.button("points"))
    flat.points.setText("100 Hz 3 dB, 1 kHz 0, 10 kHz -2 dB")
    assert flat.wish().points == ((100.0, 3.0), (1000.0, 0.0), (10000.0, -2.0))
    flat.points.setText("much, less")
    click(flat.search_button)
    assert "no point" in window.notice.text() or "2 to 60 points" in window.notice.text()


def test_a_search_is_stopped_and_left(window, stage):
    flat = page(stage, "flatten")
    click(flat.search_button)
    click(flat.stop)
    assert not flat.busy
    click(flat.search_button)
    page(stage, "lanes")
    assert window.session.trial is None


def curve_file(folder, name, level=80.0):
    f = np.geomspace(100, 20e3, 200)
    rows = "\n".join(f"{x:.2f} {level - x / 1e4:.2f} {-x / 100:.1f}" for x in f)
    file = folder / name
    file.write_text(f"# distance_m: 1\n# voltage_rms: 2.83\n{rows}\n")
    return file


def test_curves_are_attached_dropped_named_by_angle_and_removed(window, stage, tmp_path):
    window.session.start(Document(project_of(read_demo("regatta"))), None)
    stage = window.stage
    stage.choose(0, "way")
    curves = page(stage, "curves")
    window.messages.open_to = [curve_file(tmp_path, f"low_{a}.txt") for a in (0, 30)]
    curves.attach()
    settle()
    own = voices(window)[0].response
    assert [round(np.degrees(c.angle)) for c in own.curves] == [0, 30]
    assert own.curves[0].volts == 2.83
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(curve_file(tmp_path, "low_30.txt", 77.0)))])
    event = QDropEvent(
        QPointF(5, 5),
        Qt.DropAction.CopyAction,
        data,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    page(stage, "curves").dropEvent(event)
    settle()
    assert len(voices(window)[0].response.curves) == 2
    assert "77" in voices(window)[0].response.curves[1].content
    window.messages.save_to = tmp_path / "again.txt"
    page(stage, "curves").export(0)
    assert (tmp_path / "again.txt").read_text() == voices(window)[0].response.curves[0].content
    remove = next(
        b for b in stage.page.findChildren(QPushButton) if b.accessibleName() == "Remove low_0.txt"
    )
    click(remove)
    assert [c.name for c in voices(window)[0].response.curves] == ["low_30.txt"]
    for _ in range(3):
        menu(window, "undo")
    assert window.session.design == read_demo("regatta")


def test_a_file_that_is_no_curve_names_its_line_and_nothing_changes(window, stage, tmp_path):
    curves = page(stage, "curves")
    bad = tmp_path / "x.txt"
    bad.write_text("100 80\n200 81\nspoilt\n300 NaN\n400 80\n500 80\n")
    curves.attach_files([curve_file(tmp_path, "without an angle.txt"), bad])
    assert "line 4" in window.notice.text()
    assert window.session.design == read_demo("headland")


def test_two_settings_are_compared_rendered_and_written(window, stage, tmp_path):
    comparing = page(stage, "compare")
    assert comparing.first.currentText() == "Headland, open"
    comparing.second.setCurrentIndex(1)
    comparing.refresh()
    assert "equally loud" in comparing.said.text()
    assert len(comparing.chart.content.curves) == 2
    click(comparing.render_button)
    rested(stage)
    assert comparing.made is not None
    assert "Rendered" in comparing.heard.text()
    window.messages.save_to = tmp_path / "a.wav"
    click(comparing.write_button)
    rate, samples = wavfile.read(tmp_path / "a.wav")
    assert rate == 48000
    assert np.max(np.abs(samples)) > 20000
    assert (tmp_path / "a second.wav").exists()
    assert comparing.play_first.isEnabled() == (player() is not None)


def test_a_wav_of_ones_own_is_taken_or_refused(window, stage, tmp_path):
    comparing = page(stage, "compare")
    wavfile.write(
        tmp_path / "own.wav",
        44100,
        (1e4 * np.random.default_rng(1).normal(size=44100)).astype(np.int16),
    )
    comparing.take_own(tmp_path / "own.wav")
    comparing.what.setCurrentIndex(comparing.what.count() - 1)
    assert comparing.source()[1] == 44100
    (tmp_path / "no.wav").write_text("nothing")
    window.messages.open_to = tmp_path / "no.wav"
    comparing._picked(comparing.what.count() - 1)
    assert "no WAV" in window.notice.text()
    assert comparing.what.currentIndex() == 0


@pytest.mark.parametrize("level", ["300 dB", "soft"])
def test_a_level_that_cannot_be_is_refused(window, stage, level):
    comparing = page(stage, "compare")
    comparing.level.setText(level)
    click(comparing.render_button)
    assert window.notice.text()
    assert not comparing.busy
    QTest.qWait(10)


def test_a_page_left_while_it_was_to_be_worked_out_is_not_drawn_any_more(stage, monkeypatch):
    wrong = []
    monkeypatch.setattr("sys.excepthook", lambda *found: wrong.append(found))
    rested(stage)
    stage.show_work("line up")
    until(lambda: stage._below.running)
    monkeypatch.setattr(stage._slow, "start", lambda: None)  # the next page has yet to be drawn
    stage.show_work("compare")
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    QTest.qWait(200)
    assert not wrong


def test_what_searches_and_renders_loads_no_window_in_the_other_process(window, stage):
    click(page(stage, "flatten").search_button)
    rested(stage)
    click(page(stage, "compare").render_button)
    rested(stage)
    asked, found = Task(window), []
    asked.some.connect(found.append)
    asked.start(where)
    rested(asked)
    assert [qt for _, qt in found] == [[]]
