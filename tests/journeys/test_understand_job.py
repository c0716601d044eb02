"""Whole jobs of understanding: from short to kept by moves, doubt that shrinks, kinds compared."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from firecrest.assessment.worth import worst_must
from tests.app.helpers import click, doubted, edit_of, menu, press, rested, settle, type_into, until

CTRL = Qt.KeyboardModifier.ControlModifier
LOUD = ("brief", "loudness", "level")
XMAX = ("box", "openings", 0, "radiator", "xmax")


@pytest.fixture
def new(make_window, blank):
    return make_window(blank)


def kept(window):
    return worst_must(window.session.assessment.promises) >= 0


def moves(window):
    rested(window.side.moves)
    return window.side.moves


def test_from_short_to_kept_by_moves_alone(new):
    """A blank project that owes 12 dB more: at most six moves, each one undo step."""
    type_into(new, LOUD, "96")
    assert not kept(new)
    taken = []
    while not kept(new) and len(taken) < 6:
        card = moves(new).cards[0]
        taken.append(card.move_shown.title)
        click(card.keep)
    assert kept(new), taken
    assert [label for label, _ in new.session.history.past[1:]] == taken
    for _ in taken:
        new.undo()
    assert not kept(new)
    assert new.session.design.brief.loudness.level == 96.0


def test_the_same_by_keyboard_alone(new):
    """Ctrl+1 goes to the first move, which is tried; Enter keeps it."""
    new.reveal(LOUD)
    settle()
    QTest.keyClicks(QApplication.focusWidget(), "92")
    press(new, Qt.Key.Key_Return)
    assert new.session.design.brief.loudness.level == 92.0
    steps = 0
    while not kept(new) and steps < 6:
        moves(new)
        press(new, Qt.Key.Key_1, CTRL)
        until(lambda: new.session.trial is not None)
        press(new, Qt.Key.Key_Return)
        steps += 1
    assert kept(new)
    press(new, Qt.Key.Key_D, CTRL)
    press(new, Qt.Key.Key_9, Qt.KeyboardModifier.AltModifier)
    assert new.stage.key == "compare"
    assert len(new.session.project.variants) == 2


def test_doubt_of_an_unspecified_radiator_shrinks_when_its_travel_is_measured(window):
    """What one is not sure of leads to the field; the figure entered and called measured."""
    doubted(window)
    before = window.session.assessment.doubt.bands["loudness"].width
    row = window.side.unsure.rows[0]
    assert "Xmax of Rowan R16" in row.plain()
    row._follow("0")
    settle()
    edit = edit_of(window, *XMAX)
    assert edit.hasFocus()
    type_into(window, XMAX, "9.1 mm")
    doubted(window)
    after = window.session.assessment.doubt.bands["loudness"].width
    assert after < 0.7 * before
    assert not any("±40 %" in line for line in window.side.unsure.sentences())


def test_sealed_port_and_radiators_are_compared_at_equal_air_and_saved(window, tmp_path):
    window.show_stage("compare")
    settle()
    window.stage.add_kinds("air")
    until(lambda: not window.stage.busy)
    settle()
    stage = window.stage
    loud = {k: stage.table.cells[k, "loudness"].meter.numeral for k in "ABC"}
    assert len(set(loud.values())) == 3
    boxes = {r.path for r in stage._rows}
    assert ("box", "openings") in boxes
    click(stage.table.heads["C"])
    assert window.session.project.in_force == "C"
    path = tmp_path / "kinds.firecrest"
    window.session.save(path)
    window.session.open(path)
    assert window.session.project.in_force == "C"
    assert [v.letter for v in window.session.project.variants] == ["A", "B", "C"] or len(
        window.session.project.variants
    ) == 3
    menu(window, "beside")
    assert window.session.beside is not None


def test_saved_in_the_middle_of_typing_with_variants(window, tmp_path):
    """What is typed when Ctrl+S is pressed is in the file, in the variant it was typed in."""
    window.copy_variant()
    type_into(window, ("box", "openings", 0, "added_mass"), "33", keep=False)
    window.session.path = None
    window.messages.save_path = lambda _: tmp_path / "typed.firecrest"
    press(window, Qt.Key.Key_S, CTRL)
    window.session.open(tmp_path / "typed.firecrest")
    masses = [window.session.design_at(k).box.openings[0].added_mass for k in ("A", "B")]
    assert masses == pytest.approx([0.018, 0.033])
