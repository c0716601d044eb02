"""The map in the window: cross by pointing and keys, going there, never of another design."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

from firecrest.design.edits.paths import replace_at
from firecrest.files.demos import read_demo
from tests.app.helpers import click, meter_of, press, settle, until

MASS = ("box", "openings", 0, "added_mass")


@pytest.fixture
def mapped(window):
    window.show_stage("size")
    window.stage.show_view("map")
    ready(window)
    return window


def ready(window):
    until(lambda: not window.stage.map.busy)
    settle()


def test_the_map_shows_the_present_design(mapped):
    panel = mapped.stage.map
    assert panel.view.isVisible()
    assert not mapped.stage.chart.isVisible()
    assert "7.97\u202fL, 46.6\u202fHz" in panel._where.text()
    assert panel._rows["loudness"][1].text() == "95.2 dB"
    assert "Radiator travel" in panel.view.accessibleDescription()
    assert not panel.there.isEnabled()


def test_arrows_move_the_cross_and_enter_goes_there(mapped):
    panel = mapped.stage.map
    panel.view.setFocus()
    for _ in range(3):
        press(mapped, Qt.Key.Key_Down)
    ready(mapped)
    assert meter_of(mapped, "loudness").ghost.startswith("→")
    assert "more on each radiator" in panel._takes.text()
    before = mapped.session.design
    press(mapped, Qt.Key.Key_Return)
    assert mapped.session.design != before
    assert mapped.session.history.past[-1][0].startswith("Go to 7.9")
    mapped.undo()
    assert mapped.session.design == before


def test_escape_drops_what_is_tried(mapped):
    panel = mapped.stage.map
    panel.view.setFocus()
    press(mapped, Qt.Key.Key_Right)
    ready(mapped)
    assert mapped.session.trial is not None
    press(mapped, Qt.Key.Key_Escape)
    assert mapped.session.trial is None
    assert "46.6\u202fHz" in panel._where.text()


def test_pointing_at_what_cannot_be_built_says_why(mapped):
    view = mapped.stage.map.view
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=QPoint(view.width() - 40, 20))
    ready(mapped)
    assert "cannot be tuned so high" in mapped.stage.map._takes.text()
    assert mapped.session.trial is None
    assert not mapped.stage.map.there.isEnabled()


def test_a_map_is_never_shown_for_another_design(mapped, qtbot):
    panel = mapped.stage.map
    mapped.session.edit_number(MASS, 0.05)
    assert panel.view.old
    ready(mapped)
    assert not panel.view.old
    assert panel._of is mapped.session.design
    for value in (0.02, 0.03, 0.04):
        mapped.session.edit_number(MASS, value)
        qtbot.wait(40)
    ready(mapped)
    assert panel._of is mapped.session.design
    assert panel._map.up.now == pytest.approx(
        mapped.session.assessment.acoustic.model.tuning[0], rel=1e-6
    )


def test_axes_and_fill_are_chosen_and_never_the_same_twice(mapped):
    panel = mapped.stage.map
    panel.across.setCurrentIndex(panel.across.findData("tuning"))
    assert panel.up.currentData() != "tuning"
    ready(mapped)
    assert panel._map.across.key == "tuning"
    panel.fill.setCurrentIndex(panel.fill.findData("weight"))
    assert "Weight" in panel.view.accessibleDescription()


def test_good_spots_are_gone_to_by_a_press(mapped):
    panel = mapped.stage.map
    best = next(b for b in panel._spots if b.text().startswith("Best"))
    click(best)
    ready(mapped)
    assert mapped.session.trial is not None
    click(panel.there)
    assert mapped.session.history.past[-1][0].startswith("Go to")


def test_leaving_the_view_leaves_nothing_tried_or_running(mapped):
    mapped.stage.map.view.setFocus()
    press(mapped, Qt.Key.Key_Right)
    ready(mapped)
    mapped.stage.show_view("ceiling")
    assert mapped.session.trial is None
    assert not mapped.stage.map.busy
    assert mapped.stage.chart.isVisible()


def test_a_box_that_cannot_be_heard_says_so_in_the_middle(make_window, slipway):
    window = make_window(replace_at(slipway, ("box", "groups", 0, "driver", "re"), None))
    window.show_stage("size")
    window.stage.show_view("map")
    settle()
    assert "can be heard" in window.stage.map.view.message


def test_variants_stand_on_the_map(mapped):
    mapped.copy_variant()
    mapped.session.edit_number(MASS, 0.03)
    ready(mapped)
    discs = mapped.stage.map._discs(mapped.stage.map._map)
    assert [(d[2], d[3]) for d in discs] == [("A", False), ("B", True)]
    assert discs[0][1] > discs[1][1]


def test_a_box_without_tuning_is_mapped_over_what_it_has(make_window):
    window = make_window(read_demo("boathouse"))
    window.show_stage("size")
    window.stage.show_view("map")
    ready(window)
    panel = window.stage.map
    assert panel.up.currentData() != panel.across.currentData()
    assert panel._map is not None


def test_a_move_that_is_tried_moves_the_line_of_loudness(mapped):
    until(lambda: not mapped.side.moves.busy)
    card = next(c for c in mapped.side.moves.cards if "panels" in c.move_shown.title)
    card.setFocus()
    until(lambda: len(mapped.stage.map.view._moved) > 0)
    mapped.stage.map.view.setFocus()
    settle()
    assert len(mapped.stage.map.view._moved) == 0


@pytest.mark.parametrize("demo", ["slipway", "boathouse-radiators", "lantern"])
def test_names_of_territories_lie_under_no_plate_and_no_tag(make_window, demo):
    window = make_window(read_demo(demo))
    window.resize(1280, 800)
    window.show_stage("size")
    window.stage.show_view("map")
    ready(window)
    view = window.stage.map.view
    picture, area = view._picture, view._area()
    names = [box for _, box in view.names(area, picture)]
    others = [box for _, box in (*view.plates(area, picture), *view.tags(area, picture))]
    assert names
    assert all(area.contains(box) for box in names)
    for k, box in enumerate(names):
        assert not any(box.intersects(other) for other in (*others, *names[:k]))
