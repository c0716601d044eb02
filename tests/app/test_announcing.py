"""What assistive software hears: how promises stand, why a field refuses, what a plot shows."""

import numpy as np
from PySide6.QtGui import QAccessible
from PySide6.QtTest import QTest

from firecrest.app.widgets.number_field import NumberEdit
from firecrest.app.widgets.pressable import Pressable
from firecrest.present.frame.meters import standing
from firecrest.present.plot.plot import Curve, Plot
from tests.app.helpers import doubted, settle, type_into, until

DEPTH = ("box", "case", "depth")


def test_a_row_of_steps_is_told_once_and_only_what_changes(window):
    doubted(window)
    said = []
    window.announcer.said.connect(said.append)
    for depth in (0.18, 0.19, 0.25):
        window.session.edit_number(DEPTH, depth)
    until(lambda: said)
    assert said == [standing(window.session.assessment)]
    assert said[0].startswith("Promises: ")
    assert "Size" in said[0]
    window.session.edit(("voice", "channels", 0, "name"), "other")
    until(lambda: window.session.assessment.doubt is not None)
    QTest.qWait(1000)
    assert len(said) == 1


def test_a_refused_field_says_why_and_every_field_what_it_takes(window):
    edit = type_into(window, DEPTH, "9 km")
    assert edit.accessibleDescription().startswith("Refused. Depth can be")
    edit.restore()
    assert "Refused" not in edit.accessibleDescription()
    for key in ("promise", "size", "power", "voice"):
        window.show_stage(key)
        settle()
        for field in window.stage.findChildren(NumberEdit):
            assert "Accepted: " in field.accessibleDescription()


def test_a_plot_is_summed_up_by_what_is_on_show():
    x, y = np.array([10.0, 50.0, 100.0, 900.0]), np.array([99.0, 80.0, 90.0, np.nan])
    plot = Plot("p", "frequency", (20.0, 500.0), (0, 1), 1, "dB", (Curve("sum", x, y, "olive"),))
    assert plot.summary() == "sum: highest 90 dB at 100 Hz, lowest 80 dB at 50 Hz"


def test_a_plot_with_the_keyboard_is_summed_up(window):
    window.show_stage("size")
    settle()
    chart = window.stage.chart
    chart.setFocus()
    assert "highest" in chart.accessibleDescription()


def test_an_offer_goes_with_the_design_it_was_made_for(window):
    window.session.told.emit("Tuning moves.", [("Keep it", lambda: None)])
    assert window.notice.isVisible()
    window.session.edit_number(DEPTH, 0.19)
    assert not window.notice.isVisible()
    window.session.refused.emit("Not so.")
    window.session.edit_number(DEPTH, 0.2)
    assert window.notice.isVisible(), "a refusal stays to be read"


def test_what_is_drawn_by_itself_is_a_button_with_a_value_that_can_be_pressed(window):
    window.show_stage("parts")
    shown = [w for w in window.findChildren(Pressable) if w.isVisible()]
    assert len(shown) >= 6 + 5 + 7 + 5, "meters, stages, links, cards"
    for widget in shown:
        told = QAccessible.queryAccessibleInterface(widget)
        assert told.role() == QAccessible.Role.Button
        assert told.text(QAccessible.Text.Name)
        assert told.text(QAccessible.Text.Description)
    meter = QAccessible.queryAccessibleInterface(window.strip.meters["loudness"])
    assert "95.2" in meter.text(QAccessible.Text.Description)
    meter.actionInterface().doAction("Press")
    assert window.stage.key == "promise"
