"""Every number field on every stage: step it, see the design change, undo it."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from firecrest.app.stages.table import STAGES
from firecrest.app.widgets.number_field import NumberEdit
from firecrest.app.widgets.number_row import NumberRow
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.present.parts.parts import cards
from firecrest.proposals.layouts import with_kind
from tests.app.helpers import meter_of, settle
from tests.reference.designs import case_design, system_design

EDITED = [key for key in STAGES if key != "compare"]
"""Stages with fields of the design; Compare shows what the others make."""


def edits_on(window):
    """All boxes on the stage on show."""
    return [e for e in window.stage.findChildren(NumberEdit) if e.isVisible()]


def check(window, edit):
    """Up changes the design or is refused with a sentence; undo gives back the same object."""
    before = window.session.design
    value = edit.binding.read(window.session.assessment)
    QTest.keyClick(edit, Qt.Key.Key_Up)
    if window.session.design is before:
        refused = edit._hint is not None and edit._hint.isVisible()
        assert value is None or value == edit.binding.facts.high or refused, edit.accessibleName()
        edit.restore()
        return
    after = edit.binding.read(window.session.assessment)
    assert after > value, edit.accessibleName()
    assert window.session.history.past[-1][0].startswith(edit.binding.facts.label)
    window.undo()
    assert window.session.design is before


@pytest.mark.parametrize("key", EDITED)
def test_step_and_undo(window, key):
    window.show_stage(key)
    settle()
    if key == "parts":
        window.stage.open_path(("box", "groups", 0, "driver"))
        settle()
    found = edits_on(window)
    assert len(found) >= 4
    for edit in found:
        check(window, edit)


def test_step_and_undo_of_every_part(window):
    window.show_stage("parts")
    for card in cards(window.session.assessment):
        window.stage.open_path(card.path)
        settle()
        for edit in edits_on(window):
            check(window, edit)


def test_step_and_undo_of_a_port(make_window, slipway):
    window = make_window(with_kind(slipway, "port"))
    window.show_stage("size")
    settle()
    for edit in edits_on(window):
        check(window, edit)


@pytest.mark.parametrize("key", EDITED)
def test_every_field_has_a_name_and_a_path_to_it(window, key):
    window.show_stage(key)
    settle()
    for edit in edits_on(window):
        assert edit.accessibleName()
        assert edit.text() or edit.placeholderText()
    for row in window.stage.findChildren(NumberRow):
        assert window.stage.field(row.binding.path) is not None


@pytest.mark.parametrize("key", EDITED)
def test_every_stage_survives_missing_figures(window, key):
    window.session.edit_number(("box", "groups", 0, "driver", "vas"), None)
    window.show_stage(key)
    settle()
    assert meter_of(window, "loudness").numeral == "–"
    assert not meter_of(window, "loudness").known
    assert window.side.sentences()[0] == "Loudness is not known: needs Vas of Alder W13-4."
    window.undo()
    settle()
    assert meter_of(window, "loudness").numeral == "95.2"


@pytest.mark.parametrize("key", EDITED)
def test_every_stage_shows_ghosts_of_a_tried_design(window, slipway, key):
    window.show_stage(key)
    window.session.try_design(with_kind(slipway, "port"))
    settle()
    assert meter_of(window, "weight").ghost == "→ 4.89"
    window.session.drop_trial()
    settle()
    assert meter_of(window, "weight").ghost == ""


SYSTEMS = {name: system_design(name) for name in ("S1", "S4", "S5")} | {
    name: case_design(name) for name in ("17_bandpass4", "08_vented_2d_2ports")
}


@pytest.mark.parametrize("name", list(SYSTEMS))
def test_every_stage_shows_every_kind_of_system(window, name):
    """Closed, ported, mains, wall supply, several chambers: nothing is missing a widget."""
    window.session.start(Document(project_of(SYSTEMS[name])), None)
    for key in EDITED:
        window.show_stage(key)
        if key == "parts":
            window.stage.open_path(("power", "boards", 0, "part"))
        settle()
        assert len(edits_on(window)) >= 3
    assert window.side.sentences()
    assert window.chain.row.links[-1].plate.startswith("gets")
