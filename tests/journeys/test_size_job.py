"""Sizing jobs through the real window: a port that fits, and air that was shared by mistake."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from firecrest.files.container import read_document
from firecrest.proposals.inverse import tuning_of
from firecrest.proposals.layouts import with_layout
from tests.app.helpers import (
    card_of,
    click,
    edit_of,
    menu,
    meter_of,
    rested,
    segment,
    settle,
    type_into,
    until,
)
from tests.app.test_size import press_button
from tests.unplaced import unplaced


def test_a_port_that_fits_and_is_quiet(make_window, slipway, tmp_path):
    """From radiators to a port: tune it, see it does not suit, walk the picture, take one."""
    window = make_window(slipway)
    window.show_stage("size")
    segment(window, "Kind of box", "port")
    type_into(window, ("computed", "tuning"), "55 Hz")
    type_into(window, ("box", "openings", 0, "diameter"), "1 in")
    window.reveal(("box", "openings", 0, "length"))
    settle()
    stage = window.stage
    assert any("Air speed" in t and "short" in t for t in stage.facts.texts())
    type_into(window, ("computed", "tuning"), "55 Hz")
    window.reveal(("box", "openings", 0, "length"))
    settle()
    press_button(stage, "Choose a port…")
    rested(stage.ports)
    assert len(stage.ports.choices) > 6
    stage.chart.setFocus()
    for _ in range(30):
        QTest.keyClick(stage.chart, Qt.Key.Key_Right)
        settle()
        at = stage.ports.at
        if at is not None and at.fit.bends is not None and at.speed <= at.limit:
            break
    assert window.session.trial is not None
    QTest.keyClick(stage.chart, Qt.Key.Key_Return)
    settle()
    assert window.session.history.past[-1][0].startswith("Port ")
    rested(stage.later)
    said = " ".join(stage.facts.texts())
    assert "Fits: straight" in said or "Fits: with" in said
    assert "Air speed at the promise" in said
    assert not any("Air speed" in t and "short" in t for t in stage.facts.texts())
    assert tuning_of(window.session.design) == pytest.approx(55.0, rel=1e-3)
    path = tmp_path / "ported.firecrest"
    window.session.save(path)
    assert read_document(path).design == window.session.design
    menu(window, "undo")
    assert edit_of(window, "box", "openings", 0, "diameter").text() == "25.4 mm"


def test_shared_air_is_found_and_cured_with_chambers(make_window):
    """Bass that is short in one common air; the program names the cause; chambers cure it."""
    window = make_window(with_layout(unplaced("breakwater"), "one"))
    window.show_stage("size")
    segment(window, "Plot", "response")
    assert meter_of(window, "bass").mark == "short"
    labels = [c.label for c in window.stage.chart.content.curves]
    assert {"Hornbeam W13-4L", "Alder F10-4, left", "Alder F10-4, right"} <= set(labels)
    rested(window.side.moves)
    card = card_of(window, "Give Alder F10-4 chambers of their own")
    assert "Shared air" in card.move_shown.detail
    card.setFocus()
    until(lambda: meter_of(window, "bass").ghost)  # tried a moment after one points at it
    click(card.keep)
    assert meter_of(window, "bass").mark == "met"
    assert [c.name for c in window.session.design.box.chambers] == ["sub", "left", "right"]
    rested(window.side.moves)
    # In chambers of their own they are louder than the sub.
    card = card_of(window, "Turn left and right down by 3.5 dB")
