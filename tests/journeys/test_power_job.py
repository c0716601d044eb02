"""Whole jobs of power from a blank project: bricks, a headline, one cell, two boards, a phone."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from firecrest.files.container import read_document
from tests.app.helpers import (
    click,
    edit_of,
    menu,
    pick,
    press,
    press_button,
    rested,
    segment,
    settle,
    type_into,
    wait,
)

SOURCE = ("power", "source")
CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def new(make_window, blank):
    return make_window(blank)


def power(window, view=None):
    """The Power stage at rest."""
    window.show_stage("power")
    settle()
    stage = window.stage
    if view:
        stage.show_view(view)
    rested(stage)
    return stage


def take(window, kind, id):
    """A part of the shelf into the design, through Parts."""
    window.show_stage("parts")
    click(window.stage.shelf.bar.kinds.button(kind))
    for _ in range(100):
        wait(window.stage)
        if id in [row.entry.id for row in window.stage.shelf.table.rows_model.rows]:
            break
    pick(window.stage, id)
    click(window.stage.shelf.take_button)
    settle()


def test_a_9_to_24_volt_board_and_three_bricks(new):
    """What 12, 19 and 24 V leave of the printed watts, side by side; one is chosen."""
    take(new, "amplifier", "sedge-2x30")
    board = ("power", "boards", 0, "part")
    type_into(new, (*board, "cut_off"), "9 to 24 V")
    part = new.session.design.power.boards[0].part
    assert (part.cut_off, part.highest_supply) == (9.0, 24.0)
    stage = power(new, "supplies")
    rows = {r.offered.name: r.offered for r in stage.supplies.rows if r.offered}
    clean = [float(rows[n].clean.split("\u202f")[0]) for n in ("Fen 12-5", "Fen 19-3", "Fen 24-6")]
    assert clean[0] < clean[1] < clean[2]
    assert clean[0] < clean[2] / 3
    row = next(r for r in stage.supplies.rows if r.offered.name == "Fen 19-3")
    click(row)
    assert new.session.design.power.source.name == "Fen 19-3"
    stage = power(new, "boards")
    assert "On this supply" in stage.boards._sentence.text()
    menu(new, "undo")
    assert new.session.design.power.source.kind == "pack"


def test_a_36_watt_pack_with_a_60_watt_board_is_told_the_truth(new, tmp_path):
    """Three cells of 3.3 A: 36 W at 10.8 V, for a board that prints 60 W at 24 V."""
    take(new, "amplifier", "sedge-2x60")
    type_into(new, (*SOURCE, "series"), "3")
    type_into(new, (*SOURCE, "cell", "max_current"), "3.3 A")
    type_into(new, (*SOURCE, "board", "max_current"), "3.3 A")
    type_into(new, (*SOURCE, "board", "cut_off"), "9 V")
    stage = power(new, "boards")
    said = stage.boards._sentence.text()
    assert said.startswith("Printed 60 W into 4 Ω at 24 V. On this pack at 20%:")
    watts = float(said.split(": ")[1].split("\u202f")[0])
    assert watts < 10.0
    assert any("Volts against" in text for text in stage.boards.facts.texts())
    edit_of(new, *SOURCE, "series").selectAll()
    QTest.keyClicks(QApplication.focusWidget(), "4")
    path = tmp_path / "typed.firecrest"
    new.session.path = path
    menu(new, "save")
    assert read_document(path).design.power.source.series == 4


def test_one_cell_with_a_boost_converter(new):
    """A single cell, 9 V out of a step-up converter: its input current and the cell are judged."""
    type_into(new, (*SOURCE, "series"), "1")
    type_into(new, (*SOURCE, "board", "cut_off"), "2.9 V")
    stage = power(new)
    press_button(stage, "Add converter")
    here = ("power", "converters", 0)
    type_into(new, (*here, "output_voltage"), "9 V")
    type_into(new, (*here, "input_current"), "5 A")
    type_into(new, (*here, "cut_off"), "2.7 V")
    combo = new.stage.field((*here, "step"))
    combo.setFocus()
    QTest.keyClick(combo, Qt.Key.Key_Down)
    assert new.session.design.power.converters[0].step == "up"
    stage = power(new, "boards")
    assert "9.0 V" in stage.boards._bus.text()
    titles = [b.title for b in power(new, "wiring").wiring.view.drawn.boxes]
    assert "Converter" in titles
    press_button(new.stage, "Remove charger")
    press_button(new.stage, "Add charger")
    assert new.session.design.power.source.charger.voltage == pytest.approx(4.2)
    new.strip._after.flush()
    assert "danger" not in new.strip.summary.accessibleName()
    type_into(new, (*SOURCE, "charger", "voltage"), "4.5 V")
    new.strip._after.flush()
    assert "1 danger" in new.strip.summary.accessibleName()


def test_two_boards_on_one_pack(new):
    """A board for the bass on the pack, one behind a converter; channels go to theirs in Voice."""
    stage = power(new)
    press_button(stage, "Add another board")
    assert len(new.session.design.power.amplifiers) == 2
    menu(new, "add_way")
    first, second = (b.id for _, b in new.session.design.power.amplifiers)
    assert [c.board for c in new.session.design.voice.channels] == [first, second]
    stage = power(new)
    press_button(stage, "Add converter")
    stage = power(new, "boards")
    assert [
        b.isVisible()
        for b in stage.boards._segments.findChildren(type(stage.views.button("hours")))
    ]
    drawn = power(new, "wiring").wiring.view.drawn
    speakers = [w for w in drawn.wires if w.kind == "speaker"]
    assert len({w.start for w in speakers}) == 1 or len(speakers) == 2
    flow = new.stage.energy.flow.picture
    assert any(s.name == "Converters" for s in flow.streams)


def test_a_phone_straight_into_a_small_driver_by_keyboard(new):
    """No amplifier at all: what the socket of a phone gives, found and told by keys alone."""
    take(new, "amplifier", "sedge-u1")
    new.show_stage("power")
    settle()
    segment(new, "Power from", "wall")
    new.reveal((*SOURCE, "voltage"))
    settle()
    QTest.keyClicks(QApplication.focusWidget(), "3.3 V")
    press(new, Qt.Key.Key_Return)
    assert new.session.design.power.source.voltage == 3.3
    stage = power(new, "boards")
    said = stage.boards._sentence.text()
    assert said.startswith("Printed 0.03 W into 32 Ω at 3.3 V. On this supply:")
    loud = new.session.assessment.promise("loudness")
    assert loud.state == "short"
    assert loud.predicted is None or loud.predicted < 80.0
    press(new, Qt.Key.Key_Z, CTRL)
    assert new.session.design.power.source.voltage != 3.3
