"""The Tab key: short ways to the fields, one stop for each group that arrows go through."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QPushButton, QScrollArea

from firecrest.app.stages.table import STAGES
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.rail import RailButton
from firecrest.app.widgets.strip import MeterWidget
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo
from tests.app.helpers import press, settle


def focus():
    return QApplication.focusWidget()


@pytest.mark.parametrize("key", ["promise", "size", "power", "voice"])
def test_the_first_field_of_a_stage_is_at_most_two_stops_from_its_rail(window, key):
    window.show_stage(key)
    settle()
    assert isinstance(focus(), RailButton)
    for _ in range(2):
        press(window, Qt.Key.Key_Tab)
    field = focus() if window.stage.isAncestorOf(focus()) else None
    assert field is not None
    assert not isinstance(field, Chart)


def round_of(window, most):
    """What Tab comes to until it is where it began, ``most`` stops long."""
    start, met = focus(), []
    for _ in range(most):
        press(window, Qt.Key.Key_Tab)
        met.append(focus())
        if focus() is start:
            break
    return met


@pytest.mark.parametrize("key", list(STAGES))
def test_tab_comes_round_through_every_region_and_back(window, key):
    window.show_stage(key)
    settle()
    start = focus()
    met = round_of(window, 150)
    assert met[-1] is start
    for region in (window.strip, window.rail, window.stage, window.side, window.chain):
        inside = [w for w in met if region.isAncestorOf(w)]
        assert inside or region is window.side
        if region in (window.strip, window.rail, window.chain):
            assert len(inside) == 1
    press(window, Qt.Key.Key_Backtab, Qt.KeyboardModifier.ShiftModifier)
    assert focus() is met[-2]


def test_arrows_go_through_strip_and_rail(window):
    meters = window.strip.findChildren(MeterWidget)
    meters[0].setFocus()
    press(window, Qt.Key.Key_Right)
    assert focus() is meters[1]
    press(window, Qt.Key.Key_Left)
    press(window, Qt.Key.Key_Left)
    assert focus() is meters[-1]
    window.rail.buttons["size"].setFocus()
    press(window, Qt.Key.Key_Down)
    assert focus() is window.rail.buttons["power"]


@pytest.mark.parametrize("demo", ["slipway", "breakwater", "boathouse-bandpass"])
@pytest.mark.parametrize("key", list(STAGES))
def test_everything_that_takes_the_keyboard_has_a_name_of_its_own(window, key, demo):
    window.session.start(Document(project_of(read_demo(demo))), None)
    window.show_stage(key)
    settle()
    names = [
        (type(w).__name__, w.accessibleName() or getattr(w, "text", str)())
        for w in window.stage.stops()
    ]
    assert all(name for _, name in names)
    assert len(names) == len(set(names))


def test_every_region_is_entered_at_something_to_work_with(window):
    window.show_stage("size")
    settle()
    entered = []
    for _ in range(5):
        press(window, Qt.Key.Key_F6)
        entered.append(QApplication.focusWidget())
    assert not [w for w in entered if isinstance(w, QScrollArea)]
    regions = [next(r for r in window._regions() if r.isAncestorOf(w)) for w in entered]
    assert set(regions) == set(window._regions())


@pytest.mark.parametrize("view", ["solid", "pieces"])
def test_tab_comes_through_every_view_of_the_cabinet(window, view):
    """The cut list held it: Tab went from cell to cell for ever."""
    window.show_stage("cabinet")
    window.stage.show_view(view)
    settle()
    window.rail.buttons["cabinet"].setFocus()
    start = focus()
    met = round_of(window, 250)
    assert met[-1] is start
    reached = {b.text() for b in met if isinstance(b, QPushButton)}
    if view == "pieces":
        assert {"Save the shell…", "Save template…", "Save cut list or sheets…"} <= reached
