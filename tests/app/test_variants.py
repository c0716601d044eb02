"""Variants in the window: letters, keys, what is behind, and the Compare stage."""

import csv

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QMenu

from firecrest.files.demos import read_demo_project
from tests.app.helpers import click, edit_of, menu, meter_of, press, settle, type_into, until

MASS = ("box", "openings", 0, "added_mass")
CTRL = Qt.KeyboardModifier.ControlModifier


def letters(window):
    return "".join(v.letter for v in window.session.project.variants)


@pytest.fixture
def boathouse(make_window):
    window = make_window(read_demo_project("boathouse"))
    window.show_stage("compare")
    settle()
    return window


def ready(window):
    until(lambda: not window.stage.busy)
    settle()


def test_keys_copy_switch_and_show_behind(window):
    press(window, Qt.Key.Key_D, CTRL)
    assert (letters(window), window.session.project.in_force) == ("AB", "B")
    type_into(window, MASS, "60 g")
    assert window.session.history.past[-1][0].startswith("B: Added mass")
    press(window, Qt.Key.Key_B, CTRL)
    assert window.session.beside == "A"
    assert meter_of(window, "loudness").ghost == "A 95.2"
    press(window, Qt.Key.Key_Tab, CTRL)
    assert window.session.project.in_force == "A"
    assert window.session.beside == "B"
    assert window.variants.buttons["A"].isChecked()
    press(window, Qt.Key.Key_B, CTRL)
    assert window.session.beside is None
    assert meter_of(window, "loudness").ghost == ""


def test_switching_works_from_a_field_and_keeps_what_is_typed(window):
    window.copy_variant()
    edit = edit_of(window, *MASS)
    edit.setFocus()
    edit.selectAll()
    type_into(window, MASS, "44", keep=False)
    press(window, Qt.Key.Key_Tab, CTRL)
    assert window.session.project.in_force == "A"
    assert window.session.design_at("B").box.openings[0].added_mass == pytest.approx(0.044)
    assert window.session.design.box.openings[0].added_mass == pytest.approx(0.018)


def test_a_refused_text_stays_and_nothing_is_switched(window):
    window.copy_variant()
    type_into(window, MASS, "none at all", keep=False)
    window.next_variant()
    assert window.session.project.in_force == "B"


def test_undo_goes_back_to_the_variant_of_the_step(window):
    window.copy_variant()
    window.session.edit_number(MASS, 0.05)
    window.session.switch("A")
    window.undo()
    assert window.session.project.in_force == "B"
    assert window.session.design.box.openings[0].added_mass == pytest.approx(0.018)
    window.undo()
    assert letters(window) == "A"
    window.redo()
    assert letters(window) == "AB"


def test_switching_alone_changes_nothing_to_save(window, tmp_path):
    window.copy_variant()
    window.session.save(tmp_path / "two.firecrest")
    window.session.switch("A")
    assert not window.session.modified
    window.session.edit_number(MASS, 0.05)
    assert window.session.modified
    window.session.save(tmp_path / "two.firecrest")
    window.session.open(tmp_path / "two.firecrest")
    assert (letters(window), window.session.project.in_force) == ("AB", "A")
    assert list(window.variants.buttons) == ["A", "B"]


def test_the_menu_of_a_letter_renames_deletes_and_moves(window):
    window.copy_variant()
    menu = QMenu()
    window.fill_variant_menu(menu, "A")
    window.messages.variant_name = lambda letter, name: "first box"
    named = {a.text().replace("&", ""): a for a in menu.actions()}
    named["Rename…"].trigger()
    named["Built"].trigger()
    named["Move right"].trigger()
    assert letters(window) == "BA"
    own = window.session.project.variants[1]
    assert (own.name, own.standing) == ("first box", "built")
    assert "first box" in window.variants.buttons["A"].accessibleName()
    named["Show behind this one"].trigger()
    assert window.session.beside == "A"
    named["Delete"].trigger()
    assert (letters(window), window.session.beside) == ("B", None)
    for _ in range(5):
        window.undo()
    assert letters(window) == "A"


def test_one_variant_says_what_there_is_to_compare(window):
    told = []
    window.session.refused.connect(told.append)
    window.toggle_beside()
    assert "Ctrl+D" in told[0]
    window.show_stage("compare")
    settle()
    assert window.rail.buttons["compare"].row.fact == "one variant"


def test_a_ninth_variant_is_refused_in_words(window):
    told = []
    window.session.refused.connect(told.append)
    for _ in range(8):
        window.copy_variant()
    assert letters(window) == "ABCDEFGH"
    assert "8 variants" in told[0]


def test_compare_shows_columns_differences_and_a_cloud(boathouse):
    ready(boathouse)
    stage = boathouse.stage
    assert stage._verdict.text() == "B keeps every promise that must be. C is a close call."
    assert set(stage.table.heads) == {"A", "B", "C"}
    assert "107.3" in stage.table.cells["B", "loudness"].accessibleName()
    assert stage.table.cells["C", "loudness"].meter.whisker is not None
    assert "3 designs tried" in stage.cloud.accessibleName()
    assert "Cone travel from" in stage.ribbons.accessibleName()
    assert boathouse.rail.buttons["compare"].row.fact == "3 variants"


def test_a_row_is_brought_over_by_a_press_and_undone(boathouse):
    ready(boathouse)
    button = boathouse.stage.table.carried["B", ("box",)]
    click(button)
    assert boathouse.session.design.box.openings[0].radiator.name == "Rowan R30"
    assert boathouse.session.history.past[-1][0] == "From B into A"
    boathouse.undo()
    assert boathouse.session.design.box.openings == ()


def test_a_head_switches_and_tries_leave_points(boathouse):
    click(boathouse.stage.table.heads["B"])
    assert boathouse.session.project.in_force == "B"
    boathouse.session.edit_number(("box", "case", "depth"), 0.41)
    ready(boathouse)
    assert "designs tried" in boathouse.stage.cloud.accessibleName()
    assert len(boathouse.session.trail) >= 2
    boathouse.stage.axes["across"].setCurrentIndex(4)
    assert "Cost" in boathouse.stage.cloud.accessibleName()


@pytest.mark.parametrize("suffix", ["csv", "png", "pdf", "svg"])
def test_the_comparison_leaves_as_table_page_and_picture(boathouse, tmp_path, suffix):
    ready(boathouse)
    path = tmp_path / f"compared.{suffix}"
    boathouse.messages.save_as = lambda *_: path
    boathouse.stage.save()
    assert path.stat().st_size > 500
    if suffix == "csv":
        rows = list(csv.reader(path.open(encoding="utf-8")))
        assert rows[0] == ["", "A sealed", "B radiators", "C bandpass"]
        assert any(row[0] == "Box" and "Rowan R30" in row[2] for row in rows)


def test_views_of_all_variants_change_by_press(boathouse):
    boathouse.stage._choose_view("response")
    assert boathouse.stage.chart.content.name == "Responses"
    assert not boathouse.stage.ribbons.isVisible()
    boathouse.stage._choose_view("travel")
    assert boathouse.stage.chart.content.name == "Cone travel"


def test_kinds_of_box_become_variants_with_the_same_air(window):
    window.show_stage("compare")
    settle()
    window.stage.add_kinds("air")
    assert letters(window) == "ABC"
    assert window.session.project.in_force == "A"
    names = [v.name for v in window.session.project.variants]
    assert set(names) == {"", "sealed, with the same air", "port, with the same air"}
    ready(window)
    airs = {window.session.assessed(k).cabinet.air[0] for k in "ABC"}
    assert max(airs) == pytest.approx(min(airs), rel=1e-6)
    window.undo()
    assert letters(window) == "A"


def test_a_kit_is_worked_out_and_what_is_ticked_becomes_variants(window):
    window.show_stage("compare")
    settle()
    window.stage.open_kit()
    kit = window.stage.kit
    kit.bodies[2].setText("")
    kit.work_out()
    until(lambda: not kit.busy)
    assert len(kit.ticks) == 3 * 2 * 4
    assert not kit.add.isEnabled()
    for key in list(kit.ticks)[:2]:
        kit.ticks[key].setChecked(True)
    assert kit.add.text() == "Add 2 variants"
    click(kit.add)
    assert letters(window) == "ABC"
    assert window.session.history.past[-1][0] == "Kit: 2 variants"
    window.undo()
    assert letters(window) == "A"


def test_a_kit_without_bodies_or_with_a_text_that_is_none_says_so(window):
    window.show_stage("compare")
    settle()
    window.stage.open_kit()
    kit = window.stage.kit
    for edit in kit.bodies:
        edit.setText("")
    kit.work_out()
    assert "at least one body" in kit.said.text() or "one body" in kit.said.text()
    kit.bodies[0].setText("wide")
    kit.work_out()
    assert "length" in kit.said.text()
    kit.reject()


def test_held_for_long_the_key_shows_the_other_only_while_it_is_held(window, qtbot):
    window.copy_variant()
    menu(window, "beside")
    qtbot.wait(700)
    QTest.keyRelease(window, Qt.Key.Key_B, CTRL)
    assert window.session.beside is None
    menu(window, "beside")
    QTest.keyRelease(window, Qt.Key.Key_B, CTRL)
    assert window.session.beside == "A"
    QTest.keyRelease(window, Qt.Key.Key_B, CTRL)
    assert window.session.beside == "A"
    assert not window.actions_by_id["beside"].autoRepeat()
