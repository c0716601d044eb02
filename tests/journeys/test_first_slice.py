"""Whole jobs through the real window, by keys and clicks, closed and opened again."""

import pytest
from PySide6.QtCore import Qt

from firecrest.assessment.assess import assess
from firecrest.files.container import read_document
from firecrest.files.demos import read_demo
from tests.app.helpers import edit_of, menu, meter_of, press, segment, settle, type_into


def state(window, key):
    return meter_of(window, key).mark


def test_from_short_to_kept_saved_closed_and_found_again(make_window, tmp_path):
    """The demo falls short; longer travel and a deeper shelf cure it; everything is kept."""
    window = make_window(read_demo("slipway"))
    assert state(window, "loudness") == "short"
    window.side.rows[0]._follow("0")
    type_into(window, ("box", "openings", 0, "radiator", "xmax"), "5,5 mm")
    assert state(window, "loudness") == "met"
    assert "Bass stops" in window.side.sentences()[0]
    type_into(window, ("computed", "tuning"), "45 Hz")
    type_into(window, ("voice", "channels", 0, "blocks", 1, "gain"), "4.6 dB")
    assert state(window, "bass") == "met", window.side.sentences()
    assert window.strip.summary.accessibleName() == "Promises: 6 kept"
    steps = len(window.session.history.past)
    for _ in range(steps):
        menu(window, "undo")
    assert state(window, "loudness") == "short"
    for _ in range(steps):
        menu(window, "redo")
    window.messages.save_to = tmp_path / "jetty.firecrest"
    press(window, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)
    design, figures = window.session.design, window.session.assessment.promises
    window.show_stage("power")
    assert window.close()

    again = make_window(read_demo("untitled"))
    assert again.stage.key == "power"
    again.messages.open_to = tmp_path / "jetty.firecrest"
    menu(again, "open")
    assert again.session.design == design
    assert again.session.assessment.promises == figures
    assert not again.session.modified


def test_one_or_two_cells_in_parallel_is_a_decision(make_window):
    window = make_window(read_demo("slipway"))
    type_into(window, ("power", "source", "parallel"), "1")
    assert state(window, "runtime") == "short"
    assert window.session.assessment.promise("weight").margin > 0.8
    assert any("Runtime is" in s and "short" in s for s in window.side.sentences())
    menu(window, "undo")
    assert state(window, "runtime") == "met"


def test_a_new_design_grows_a_port_and_stays_consistent(make_window, tmp_path):
    window = make_window(read_demo("slipway"))
    menu(window, "new")
    assert window.session.design.name == "Untitled"
    window.show_stage("size")
    settle()
    segment(window, "Kind of box", "port")
    type_into(window, ("box", "openings", 0, "diameter"), "1 1/4 in")
    type_into(window, ("computed", "tuning"), "85")
    assert window.session.assessment.acoustic.model.tuning[0] == pytest.approx(85.0, rel=1e-6)
    assert edit_of(window, "computed", "tuning").text() == "85.0 Hz"
    assert window.chain.row.links[5].plate.startswith(("+", "−"))
    window.messages.save_to = tmp_path / "port.firecrest"
    menu(window, "save")
    stored = read_document(tmp_path / "port.firecrest").design
    assert assess(stored).promises == window.session.assessment.promises


def test_promises_can_be_made_smaller_while_the_ghost_shows_the_effect(make_window):
    window = make_window(read_demo("slipway"))
    window.show_stage("promise")
    settle()
    edit = type_into(window, ("brief", "loudness", "level"), "94", keep=False)
    assert meter_of(window, "loudness").ghost == "asks → 94.0"
    assert state(window, "loudness") == "short"
    press(window, Qt.Key.Key_Return)
    assert edit.text() == "94.0 dB"
    assert state(window, "loudness") in ("met", "close")
