"""The number field as a person uses it."""

import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QHelpEvent, QMouseEvent, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from firecrest.app.widgets.number_row import DragLabel
from tests.app.helpers import edit_of, meter_of, settle, type_into

VOLUME = ("computed", "air_volume")
MASS = ("box", "openings", 0, "added_mass")
LENGTH = ("box", "case", "length")


def hint(edit):
    return edit._hint.text() if edit._hint is not None and edit._hint.isVisible() else ""


def test_typing_shows_the_reading_and_ghosts_before_anything_changes(window, slipway):
    edit = type_into(window, VOLUME, "0.25 cu ft", keep=False)
    assert hint(edit) == "= 7.08\u202fL"
    assert window.session.design is slipway
    assert window.session.trial is not None
    assert meter_of(window, "loudness").ghost.startswith("→")
    assert window.stage.chart.ghost is not None


def test_enter_keeps_and_escape_restores(window, slipway):
    edit = type_into(window, VOLUME, "0.25 cu ft")
    assert window.session.assessment.cabinet.air[0] == pytest.approx(0.25 * 0.3048**3)
    assert edit.text() == "7.08 L"
    assert window.session.trial is None
    type_into(window, VOLUME, "3 L", keep=False)
    QTest.keyClick(edit, Qt.Key.Key_Escape)
    assert edit.text() == "7.08 L"
    assert meter_of(window, "loudness").ghost == ""
    assert [label for label, _ in window.session.history.past] == [
        "Air volume 7.97\u202fL → 7.08\u202fL"
    ]


@pytest.mark.parametrize(
    ("path", "text", "words"),
    [
        (VOLUME, "blue", "Not a volume. Try 7.1 L or 0.25 cu ft"),
        (VOLUME, "900 L", "By its depth this case can hold"),
        (LENGTH, "5 m", "Length can be 30 to 3000 mm."),
        (LENGTH, "20 mm", "Length can be 30 to 3000 mm."),
        (LENGTH, "", "Not a length"),
        (MASS, "12 Hz", "Not a mass. Try 120 g or 4 oz"),
        (("box", "case", "wall"), "100 mm", "leave no room inside"),
    ],
)
def test_bad_input_is_refused_with_the_range_and_the_old_value_stays(
    window, slipway, path, text, words
):
    edit = edit_of(window, *path)
    edit.setFocus()
    edit.selectAll()
    QTest.keyClick(edit, Qt.Key.Key_Delete)
    QTest.keyClicks(edit, text)
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert words in hint(edit)
    assert "stays in force" in hint(edit)
    assert edit.text() == text
    assert edit.property("refused")
    assert window.session.design is slipway
    QTest.keyClick(edit, Qt.Key.Key_Escape)
    assert not edit.property("refused")


def test_leaving_a_field_keeps_what_was_typed(window):
    type_into(window, MASS, "1 oz", keep=False)
    edit_of(window, *LENGTH).setFocus()
    settle()
    assert window.session.design.box.openings[0].added_mass == pytest.approx(0.0283495, rel=1e-4)


def test_arrows_step_the_last_shown_digit_in_one_undo_step(window, slipway):
    edit = edit_of(window, *MASS)
    for key, modifier in (
        (Qt.Key.Key_Up, Qt.KeyboardModifier.NoModifier),
        (Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier),
        (Qt.Key.Key_Down, Qt.KeyboardModifier.ControlModifier),
    ):
        QTest.keyClick(edit, key, modifier)
    mass = window.session.design.box.openings[0].added_mass
    assert mass == pytest.approx(0.018 + 0.0001 + 0.001 - 0.00001)
    window.undo()
    assert window.session.design is slipway


def wheel(edit, up):
    delta = QPoint(0, 120 if up else -120)
    event = QWheelEvent(
        QPointF(5, 5),
        QPointF(edit.mapToGlobal(QPoint(5, 5))),
        QPoint(),
        delta,
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    QApplication.sendEvent(edit, event)


def test_the_wheel_steps_only_a_focused_field(window, slipway):
    mass, other = edit_of(window, *MASS), edit_of(window, *LENGTH)
    other.setFocus()
    wheel(mass, up=True)
    assert window.session.design is slipway
    mass.setFocus()
    wheel(mass, up=True)
    assert window.session.design.box.openings[0].added_mass == pytest.approx(0.0181)


def test_whole_numbers_step_by_one(window):
    edit = edit_of(window, "power", "source", "parallel")
    QTest.keyClick(edit, Qt.Key.Key_Down)
    assert window.session.design.power.source.parallel == 1
    QTest.keyClick(edit, Qt.Key.Key_Down)
    assert window.session.design.power.source.parallel == 1


def test_dragging_the_label_moves_the_value_as_one_step(window, slipway):
    edit = edit_of(window, *MASS)
    label = next(x for x in edit.parent().findChildren(DragLabel))

    def mouse(kind, x, button):
        spot = QPointF(x, 5)
        QApplication.sendEvent(
            label,
            QMouseEvent(
                kind,
                spot,
                QPointF(label.mapToGlobal(spot.toPoint())),
                button,
                button,
                Qt.KeyboardModifier.NoModifier,
            ),
        )

    mouse(QEvent.Type.MouseButtonPress, 5, Qt.MouseButton.LeftButton)
    for x in (45, 85, 165):
        mouse(QEvent.Type.MouseMove, x, Qt.MouseButton.LeftButton)
    mouse(QEvent.Type.MouseButtonRelease, 165, Qt.MouseButton.LeftButton)
    assert window.session.design.box.openings[0].added_mass == pytest.approx(0.022)
    window.undo()
    assert window.session.design is slipway


def test_units_of_a_kind_of_figure_are_remembered(window):
    edit = edit_of(window, *LENGTH)
    edit.choose_unit("in")
    settle()
    assert edit.text() == "13.31 in"
    assert edit_of(window, "box", "case", "depth").text().endswith("in")
    type_into(window, LENGTH, "13")
    assert window.session.design.box.case.length == pytest.approx(13 * 0.0254)


def test_a_pasted_column_fills_the_rows_below(window):
    edit = edit_of(window, *LENGTH)
    QApplication.clipboard().setText("330 mm\n19,5 cm\n7 1/4 in")
    edit.setFocus()
    QTest.keyClick(edit, Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    case = window.session.design.box.case
    assert (case.length, case.height, case.depth) == pytest.approx((0.33, 0.195, 0.18415))


def test_unknown_figures_are_empty_and_can_be_emptied(window):
    path = ("box", "groups", 0, "driver", "pe")
    edit = edit_of(window, *path)
    edit.setFocus()
    edit.selectAll()
    QTest.keyClick(edit, Qt.Key.Key_Delete)
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert window.session.design.box.groups[0].driver.pe is None
    assert edit.placeholderText() == "not known"
    assert meter_of(window, "loudness").mark == "unknown"


def test_fields_have_names_help_and_origin_for_everyone(window):
    edit = edit_of(window, "box", "openings", 0, "radiator", "xmax")
    assert edit.accessibleName() == "Travel, one way Xmax of Rowan R16"
    QApplication.sendEvent(edit, QHelpEvent(QEvent.Type.ToolTip, QPoint(3, 3), QPoint(3, 3)))
    assert "an estimate" in edit.toolTip()
    assert "Accepted: 0.1 to 100 mm" in edit.toolTip()
