"""The case: its panels and what else is in it, from the fields."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox

from tests.app.helpers import edit_of, menu, press, press_button, rested, settle, type_into

CONTENTS = ("box", "case", "contents")


@pytest.fixture
def size(window):
    window.show_stage("size")
    settle()
    press_button(window.stage, "Case…")
    rested(window.stage.later)
    return window.stage


def test_a_material_is_chosen_by_name_and_weighs_what_it_does(window, size, slipway):
    (combo,) = [c for c in size.findChildren(QComboBox) if c.accessibleName() == "Panel material"]
    combo.activated.emit(combo.findText("fibreboard (MDF)"))
    settle()
    assert window.session.design.box.case.density == 750.0
    heavier = window.session.assessment.cabinet.mass
    menu(window, "undo")
    assert heavier > window.session.assessment.cabinet.mass
    type_into(window, ("box", "case", "density"), "700")
    assert combo.currentText() == "oak board"


def test_something_else_is_added_named_weighed_and_removed(window, size, slipway):
    count = len(slipway.box.case.contents)
    press_button(size, "Add something")
    settle()
    name = size.field((*CONTENTS, count, "name"))
    name.setFocus()
    name.setText("Rope")
    press(window, Qt.Key.Key_Return)
    type_into(window, (*CONTENTS, count, "mass"), "200 g")
    assert window.session.design.box.case.contents[count].name == "Rope"
    for _ in range(3):
        menu(window, "undo")
    assert window.session.design == slipway


def test_find_leads_to_what_is_in_the_case(window, slipway):
    window.show_stage("power")
    edit = edit_of(window, *CONTENTS, 0, "mass")
    assert window.stage.key == "size"
    assert edit.hasFocus()
    assert edit.accessibleName() == f"Weight of {slipway.box.case.contents[0].name}, 1"


def test_loads_come_and_go_on_the_power_stage(window, slipway):
    window.show_stage("power")
    settle()
    press_button(window.stage, "Add load")
    settle()
    place = len(slipway.power.other_loads)
    type_into(window, ("power", "other_loads", place, "power"), "2.5")
    assert window.session.design.power.other_loads[place].power == 2.5
    for _ in range(2):
        menu(window, "undo")
    assert window.session.design == slipway
