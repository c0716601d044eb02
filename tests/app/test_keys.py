"""Mnemonics and shortcuts."""

import pytest
from PySide6.QtWidgets import QApplication, QMenuBar

from firecrest.present.frame.rail import rail
from tests.app.helpers import menu, settle


def test_a_menu_has_every_mnemonic_once(window):
    for action in window.findChild(QMenuBar).actions():
        letters = [
            a.text().replace("&&", "").split("&")[1][0].lower()
            for a in action.menu().actions()
            if "&" in a.text().replace("&&", "")
        ]
        assert len(letters) == len(set(letters)), (action.text(), letters)


@pytest.mark.parametrize(
    ("id", "keys"),
    [
        ("redo", ["Ctrl+Shift+Z", "Ctrl+Y"]),
        ("quit", ["Ctrl+Q", "Ctrl+W"]),
        ("find_here", ["Ctrl+F"]),
    ],
)
def test_the_keys_people_know_work(window, id, keys):
    action = window.actions_by_id[id]
    assert [sequence.toString() for sequence in action.shortcuts()] == keys


def test_finding_goes_to_the_shelf_where_it_is_on_show(window):
    window.show_stage("parts")
    settle()
    menu(window, "find_here")
    assert QApplication.focusWidget() is window.stage.shelf.bar.search
    window.show_stage("size")
    menu(window, "find_here")
    assert QApplication.focusWidget() is window.finder


def test_every_stage_is_gone_to_by_the_number_on_its_rail(window):
    """The rail says 6 beside Cabinet; Alt+6 did nothing."""
    for row in rail(window.session.assessment):
        action = window.actions_by_id[f"stage_{row.key}"]
        assert action.shortcut().toString() == f"Alt+{row.number}"
        action.trigger()
        assert window.stage.key == row.key
