"""Whole jobs of the voice from a blank project: raw curves, sheets only, a sub; by keys."""

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.lining import present_pair
from firecrest.core.voice.alignment import tracking
from firecrest.core.voice.chain import Filter, analogue_response
from firecrest.files.container import read_document
from tests.app.helpers import click, menu, press, rested, settle, type_into, until

CTRL, ALT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier
CHANNELS = ("voice", "channels")


@pytest.fixture
def new(make_window, blank):
    return make_window(blank)


def voice(window, work=None):
    window.show_stage("voice")
    if work:
        window.stage.show_work(work)
    rested(window.stage)
    return window.stage


def take(window, kind, id):
    """A part of the shelf into the design, through Parts."""
    window.show_stage("parts")
    stage = window.stage
    click(stage.shelf.bar.kinds.button(kind))
    until(lambda: id in [row.entry.id for row in stage.shelf.table.rows_model.rows])
    rows = stage.shelf.table.rows_model.rows
    stage.shelf.table.selectRow([r.entry.id for r in rows].index(id))
    settle()
    click(stage.shelf.take_button)
    settle()


def more_ways(window, count):
    """A board with outputs enough, then ways."""
    take(window, "amplifier", "sedge-4x30-dsp")
    for _ in range(count):
        menu(window, "add_way")
    rested(window.stage)
    return window.stage


def loudness(window):
    return window.session.assessment.promise("loudness").predicted


def files_of(folder, name, blocks, delay, level, turned=False):
    """Measured-looking curves of one way on and off its axis."""
    f, made = np.geomspace(40, 20e3, 400), []
    for angle in (0, 20, 40, 60):
        p = np.prod([analogue_response(b, f) for b in blocks], axis=0)
        p = p * np.exp(-2j * np.pi * f * delay) * (-1 if turned else 1)
        p = p / (1 + (f / 4000 * np.sin(np.radians(angle))) ** 2)
        levels, phase = 20 * np.log10(np.abs(p)) + level, np.degrees(np.angle(p))
        rows = "\n".join(
            f"{a:.3f};{b:.3f};{c:.2f}" for a, b, c in zip(f, levels, phase, strict=True)
        )
        file = folder / f"{name}_{angle}.csv"
        file.write_text(f"# distance_m: 1\n# voltage_rms: 2.83\n{rows}\n".replace(".", ","))
        made.append(file)
    return made


def tracked(window):
    a = window.session.assessment
    return [
        tracking(present_pair(a, a.acoustic, c), c.frequency) for c in crossovers(a.design.voice)
    ]


def test_a_three_way_from_raw_curve_files_to_lined_up_equalised_and_protected(new, tmp_path):
    stage = more_ways(new, 2)
    design = new.session.design
    assert [c.name for c in design.voice.channels] == ["low", "high", "way 3"]
    sets = (
        ([Filter("high_pass", 70.0), Filter("low_pass", 3000.0)], 2.2e-4, 84.0, False),
        ([Filter("high_pass", 150.0), Filter("low_pass", 9000.0)], 1.2e-4, 87.0, True),
        ([Filter("high_pass", 800.0), Filter("low_pass", 24e3)], 0.0, 90.0, False),
    )
    for k, (blocks, delay, level, turned) in enumerate(sets):
        stage.choose(k, "way")
        stage = voice(new, "curves")
        new.messages.open_to = files_of(tmp_path, f"way {k}", blocks, delay, level, turned)
        click(stage.page.attach_button)
        rested(stage)
    assert all(len(c.response.curves) == 4 for c in new.session.design.voice.channels)
    assert min(t.loss for t in tracked(new)) < -3
    stage = voice(new, "line up")
    click(stage.page.take)
    assert all(t.loss > -1 and t.null > 20 for t in tracked(new))
    assert new.session.design.voice.channels[1].inverted
    stage = voice(new, "flatten")
    stage.page.low.setText("150 Hz")
    stage.page.high.setText("10 kHz")
    click(stage.page.search_button)
    rested(stage)
    click(stage.page.take)
    stage = voice(new, "protect")
    click(stage.page.set_all)
    assert any(c.limiter for c in new.session.design.voice.channels)
    new.messages.save_to = tmp_path / "three.firecrest"
    menu(new, "save_as")
    assert read_document(tmp_path / "three.firecrest").project.design == new.session.design
    for _ in range(20):
        menu(new, "undo")
    assert len(new.session.design.voice.channels) == 1


def test_a_two_way_from_sheets_only(new):
    stage = more_ways(new, 1)
    stage.show_view("cross")
    rested(stage)
    page = stage.views_by_key["cross"]
    assert "From" in page.said.text() or "No range" in page.said.text()
    assert page.chart.content.curves
    page.at.setText("900 Hz")
    QTest.keyClick(page.at, Qt.Key.Key_Return)
    assert {b.frequency for c in new.session.design.voice.channels for b in c.blocks} >= {900.0}
    stage.show_view("fan")
    rested(stage)
    notes = stage.views_by_key["fan"].chart.content.notes
    assert any("rigid piston" in note for note in notes)
    stage = voice(new, "line up")
    click(stage.page.take)
    assert all(t.loss > -1.5 for t in tracked(new))
    stage = voice(new, "lanes")
    stage.choose(0, "delay")
    type_into(new, (*CHANNELS, 1, "delay"), "0.3 ms")
    assert new.session.design.voice.channels[1].delay == pytest.approx(3e-4)


def test_a_sub_is_flattened_over_its_band_while_travel_is_watched(new):
    type_into(new, ("brief", "bass", "frequency"), "60 Hz")
    before = loudness(new)
    stage = voice(new, "lanes")
    stage.choose(0, "way")
    stage._add("linkwitz_transform")
    type_into(new, (*CHANNELS, 0, "blocks", 0, "source_frequency"), "120 Hz")
    type_into(new, (*CHANNELS, 0, "blocks", 0, "frequency"), "55 Hz")
    assert new.session.design.voice.channels[0].blocks[0].kind == "linkwitz_transform"
    reach = new.session.assessment.promise("bass").predicted
    stage = voice(new, "flatten")
    stage.page.low.setText("60 Hz")
    stage.page.high.setText("250 Hz")
    click(stage.page.search_button)
    rested(stage)
    assert "loudness" in stage.page.said.text()
    click(stage.page.take)
    stage = voice(new, "protect")
    facts = stage.page.rows[0][2].texts()
    assert any("cone travel" in text for text in facts) or any("not needed" in t for t in facts)
    click(stage.page.set_all)
    assert reach is None or reach > 0
    assert loudness(new) is not None
    assert before is not None


def test_by_keyboard_only_a_filter_is_added_turned_bypassed_and_lined_up(new):
    stage = more_ways(new, 1)
    press(new, Qt.Key.Key_5, ALT)
    plate = stage.lanes.rows[0].plate
    plate.setFocus(Qt.FocusReason.TabFocusReason)
    press(new, Qt.Key.Key_Return)
    action = next(a for a in stage.add_button.menu().actions() if a.text() == "Band")
    action.trigger()
    settle()
    handle = stage.handles.handles[0]
    handle.setFocus(Qt.FocusReason.TabFocusReason)
    for key in (Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_PageUp):
        QTest.keyClick(QApplication.focusWidget(), key, Qt.KeyboardModifier.ShiftModifier)
    band = new.session.design.voice.channels[0].blocks[-1]
    assert (band.gain, band.q) == (1.0, pytest.approx(1.629, abs=1e-3))
    stage.works.button("line up").setFocus()
    press(new, Qt.Key.Key_Space)
    rested(stage)
    stage.page.take.setFocus()
    press(new, Qt.Key.Key_Space)
    assert all(t.loss > -1.5 for t in tracked(new))
    press(new, Qt.Key.Key_Z, CTRL)
    press(new, Qt.Key.Key_Z, CTRL)
    assert new.session.design.voice.channels[0].blocks[-1].q == 1.0
