"""The Size stage: picture, selection, views, ports, starts, moves."""

import numpy as np
import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QEnterEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QCheckBox, QComboBox

from firecrest.app.stages.size.element_menu import edits_of
from firecrest.app.stages.views import SIZE
from firecrest.app.widgets.number_row import NumberRow
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.size.portview import choice_text
from firecrest.proposals.layouts import layout_of, with_kind
from tests.app.helpers import (
    card_of,
    click,
    menu,
    press_button,
    rested,
    segment,
    settle,
    type_into,
    until,
)
from tests.app.test_every_field import check, edits_on


@pytest.fixture
def size(window):
    window.show_stage("size")
    settle()
    return window.stage


def item(stage, *path):
    return stage.picture.items[path]


def combo(stage, name):
    found = stage.findChildren(QComboBox)
    return next(c for c in found if f"{c.accessibleName()} of ".startswith(f"{name} of "))


def choose(box, text):
    place = box.findText(text)
    box.setCurrentIndex(place)
    box.activated.emit(place)
    settle()


def test_what_is_pressed_in_the_picture_can_be_edited(window, size):
    click(item(size, "box", "openings", 0))
    assert size.selected == ("box", "openings", 0)
    paths = [row.binding.path for row in size.findChildren(NumberRow)]
    assert ("box", "openings", 0, "added_mass") in paths
    for edit in edits_on(window):
        check(window, edit)
    assert "Notch" in " ".join(size.facts.texts())


def test_the_picture_speaks_and_follows_keys(size):
    room = item(size, "box", "chambers", 0)
    assert room.accessibleName().startswith("Chamber main: 7.97")
    room.setFocus()
    QTest.keyClick(room, Qt.Key.Key_Tab)
    QTest.keyClick(item(size, "box", "groups", 0), Qt.Key.Key_Space)
    settle()
    assert size.selected == ("box", "groups", 0)


@pytest.mark.parametrize("name", demo_names())
def test_every_demo_shows_every_view(make_window, name):
    window = make_window(read_demo(name))
    window.show_stage("size")
    for view, _ in SIZE:
        segment(window, "Plot", view)
        assert window.stage.chart.content is not None
        assert window.stage.chart.accessibleName()
    window.stage.chart.export.__self__.content.table()


def test_layouts_and_words_of_loss_are_one_step_each(window, size):
    choose(combo(size, "Layout of the box"), "Bandpass, 6th order")
    assert layout_of(window.session.design) == "bandpass6"
    assert len(size.picture.items) == 5
    choose(combo(size, "Tightness"), "leaky lid")
    assert window.session.design.box.chambers[0].leak_q == 4.0
    choose(combo(size, "Inside"), "filled")
    assert window.session.design.box.chambers[0].stuffing == 0.15
    assert combo(size, "Inside").currentText() == "filled"
    for _ in range(3):
        menu(window, "undo")
    assert layout_of(window.session.design) == "one"


def test_a_layout_that_cannot_be_is_refused_and_told(window, size):
    before = window.session.design
    choose(combo(size, "Layout of the box"), "2.1: sub, left, right")
    assert window.session.design is before
    assert combo(size, "Layout of the box").currentText() == "One chamber"


def test_openings_come_and_go(window, size):
    before = window.session.design.box.openings
    press_button(size, "Add port")
    assert len(window.session.design.box.openings) == 2
    click(item(size, "box", "openings", 1))
    press_button(size, "Remove")
    assert window.session.design.box.openings == before
    assert size.selected == ("box", "chambers", 0)


def test_the_picture_takes_away_by_delete_and_says_why_not(window, size):
    opening = item(size, "box", "openings", 0)
    opening.setFocus()
    QTest.keyClick(opening, Qt.Key.Key_Delete)
    settle()
    assert window.session.design.box.openings == ()
    chamber = item(size, "box", "chambers", 0)
    QTest.keyClick(chamber, Qt.Key.Key_Delete)
    assert "one chamber at least" in window.notice.text()
    words = {
        kind: set(edits_of(window.session.design, ("box", kind, 0)))
        for kind in ("chambers", "groups")
    }
    assert words["chambers"] == {"Add a chamber", "Move earlier", "Move later", "Remove"}
    assert "Duplicate" in words["groups"]


def test_a_kind_comes_back_as_it_was_left_and_can_hold_the_air(window, size):
    type_into(window, ("box", "openings", 0, "added_mass"), "79 g")
    click(item(size, "box", "chambers", 0))
    own, air = window.session.design.box.openings, float(window.session.assessment.cabinet.air[0])
    segment(window, "Kind of box", "port")
    segment(window, "Kind of box", "radiators")
    assert window.session.design.box.openings == own
    hold = next(b for b in size.findChildren(QCheckBox) if b.text() == "Hold the air")
    hold.click()
    segment(window, "Kind of box", "port")
    assert window.session.assessment.cabinet.air[0] == pytest.approx(air)
    assert next(b for b in size.findChildren(QCheckBox) if b.text() == "Hold the air").isChecked()


def test_net_air_of_several_chambers_is_set_with_the_others_held(make_window):
    window = make_window(read_demo("breakwater"))
    window.show_stage("size")
    press_button(window.stage, "Case…")
    before = list(window.session.assessment.cabinet.air)
    edit = window.stage.field(("computed", "held_volume", 1)).edit
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, "3 L")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert list(window.session.assessment.cabinet.air) == pytest.approx(
        [before[0], 3e-3, before[2]]
    )


def test_slow_facts_arrive_and_go_with_the_selection(window, size):
    click(item(size, "box", "openings", 0))
    rested(size.later)
    assert any("10 g more each" in text for text in size.facts.texts())
    click(item(size, "box", "groups", 0))
    rested(size.later)
    assert not any("10 g more" in text for text in size.facts.texts())


def test_a_start_is_tried_by_focus_and_taken_by_enter(window, size):
    press_button(size, "Sensible starts…")
    rested(size.starts)
    row = size.starts.rows["closed"]
    assert "closed" in row.accessibleName()
    assert not size.starts.rows["third"].isEnabled()
    row.setFocus()
    settle()
    assert window.session.trial is not None
    QTest.keyClick(row, Qt.Key.Key_Return)
    settle()
    assert window.session.design.box.openings == ()
    assert window.session.history.past[-1][0].startswith("Start: closed")
    assert size.starts is None
    menu(window, "undo")
    assert window.session.design.box.openings


def test_another_qtc_gives_another_closed_box(window, size):
    press_button(size, "Sensible starts…")
    rested(size.starts)
    before = size.starts.rows["closed"].offer.box
    segment(window, "Qtc when closed", 0.9)
    rested(size.starts)
    assert size.starts.rows["closed"].offer.box != before
    press_button(size, "← Box")
    assert size.starts is None


def test_moves_stand_beside_and_keep_in_one_step(make_window):
    window = make_window(read_demo("boathouse"))
    rested(window.side.moves)
    card = card_of(window, "Add a high-pass")
    card.setFocus()
    until(lambda: window.session.trial is not None)
    click(card.keep)
    assert window.session.history.past[-1][0].startswith("Add a high-pass")
    rested(window.side.moves)
    assert not any("high-pass" in m.title for m in window.side.moves.found)


def test_the_ports_view_without_a_port_says_so(window, size):
    segment(window, "Plot", "ports")
    assert size.chart.content.message == "this box has no port"


def test_a_pair_brings_its_own_fields(make_window, slipway):
    window = make_window(with_kind(slipway, "sealed"))
    window.show_stage("size")
    settle()
    click(item(window.stage, "box", "groups", 0))
    choose(combo(window.stage, "Each cone driven by"), "a clamshell pair")
    assert window.session.design.box.groups[0].pair == "clamshell"
    assert window.stage.field(("box", "groups", 0, "trapped")) is not None
    assert len(window.stage.travel) == 2


@pytest.fixture
def port_view(make_window, slipway):
    window = make_window(with_kind(slipway, "port"))
    window.show_stage("size")
    segment(window, "Plot", "ports")
    rested(window.stage.ports)
    return window


def test_ports_are_picked_by_arrows_and_by_clicks_and_dropped_by_the_one_in_force(port_view):
    chart, picker = port_view.stage.chart, port_view.stage.ports
    chart.setFocus()
    QTest.keyClick(chart, Qt.Key.Key_Right)
    settle()
    first = picker.at
    assert port_view.session.trial.design is first.design
    assert chart.content.notes[0].startswith(choice_text(first)[:4])
    QTest.keyClick(chart, Qt.Key.Key_Left)
    settle()
    assert picker.at is None
    assert port_view.session.trial is None
    mark = next(m for m in chart.content.marks if not m.chosen)
    (x,), (y,) = chart.to_pixels(np.array([mark.x]), np.array([mark.y]))
    QTest.mouseClick(chart, Qt.MouseButton.LeftButton, pos=QPoint(round(x), round(y)))
    settle()
    assert 1e4 * picker.at.area == pytest.approx(mark.x)


def test_marks_and_area_ticks_are_painted_and_exported(port_view, tmp_path):
    chart = port_view.stage.chart
    chart.export(tmp_path / "ports.csv")
    head = (tmp_path / "ports.csv").read_text().splitlines()[0]
    assert head == "cm²,length (mm)"
    chart.export(tmp_path / "ports.svg")
    drawn = (tmp_path / "ports.svg").read_text()
    assert "cm²" in drawn
    assert 'clip-path="url' in drawn, "curves end where the plot does"


def test_leaving_the_ports_view_stops_its_work(port_view):
    picker = port_view.stage.ports
    segment(port_view, "Plot", "ceiling")
    assert picker.place is None
    assert picker.choices == []
    assert not picker.busy


def test_a_read_out_is_never_left_out(make_window):
    window = make_window(read_demo("breakwater"))
    window.show_stage("size")
    segment(window, "Plot", "response")
    for hertz in (25.0, 60.0, 150.0, 800.0):
        window.session.look_at(hertz)
        settle()
        assert window.stage.chart.content.readout.title.startswith("at ")
        assert "sum, after voice" in window.stage.chart.accessibleDescription()


def test_rooms_are_typed_on_the_promise_stage(window):
    before = window.session.assessment.promise("bass").predicted
    type_into(window, ("brief", "listening", "room"), "5 m")
    assert window.session.assessment.promise("bass").predicted < before
    menu(window, "undo")
    assert window.session.design.brief.listening.room is None


def test_fields_found_by_name_are_shown_in_their_part(window):
    assert window.reveal(("box", "openings", 0, "radiator", "mmp")) is not False
    settle()
    assert window.stage.selected == ("box", "openings", 0)
    window.reveal(("computed", "air_volume"))
    settle()
    assert window.stage.selected == ("box", "chambers", 0)


def test_pointing_at_a_move_tries_it_and_leaving_drops_it(make_window):
    window = make_window(read_demo("boathouse"))
    rested(window.side.moves)
    card = window.side.moves.cards[0]
    at = QPointF(5, 5)
    card.enterEvent(QEnterEvent(at, at, at))
    assert window.session.trial is None, "only once the pointer stays"
    until(lambda: window.session.trial is not None)
    assert window.session.trial.design is card.move_shown.design
    card.leaveEvent(QEvent(QEvent.Type.Leave))
    assert window.session.trial is None


def test_another_box_while_the_stage_is_not_seen(make_window):
    """What was selected may be gone when the picture, drawn a little later, is asked for."""
    window = make_window(read_demo("lantern"))
    window.show_stage("size")
    window.stage.select(("box", "openings", 0))
    window.session.edit_number(
        ("box", "case", "depth"), window.session.design.box.case.depth + 1e-3
    )
    window.show_stage("voice")
    window.session.start(Document(project_of(read_demo("boathouse"))), None)
    rested(window.stages["size"].later)
    window.show_stage("size")
    settle()
    assert window.stage.selected == ("box", "chambers", 0)


def test_fields_of_another_design_are_not_asked_for_the_old_one(make_window):
    """A chamber's name of the old design is none of the new one's choices."""
    window = make_window(read_demo("boathouse-bandpass"))
    window.show_stage("size")
    window.stage.select(("box", "openings", 0))
    settle()
    window.session.start(Document(project_of(read_demo("lantern"))), None)
    settle()
    assert window.stage.selected == ("box", "openings", 0)
