"""Doubt in the window: of the present design only, and where it is told."""

import random

import pytest

from firecrest.app.work import advice
from firecrest.assessment.doubt.doubt import doubt_of
from firecrest.design.edits.paths import set_number
from tests.app.helpers import doubted, meter_of, settle, until

MASS = ("box", "openings", 0, "added_mass")
XMAX = ("box", "openings", 0, "radiator", "xmax")


@pytest.fixture
def sure(window):
    """The window with Slipway and its doubt."""
    doubted(window)
    return window


def test_meters_sentences_and_panel_tell_the_doubt(sure):
    meter = meter_of(sure, "loudness")
    assert meter.mark == "close"
    low, high = meter.whisker
    assert low < meter.bars[0] < high
    assert "kept in 4 of 10 builds" in meter.tooltip
    assert "kept in 4 of 10 builds" in sure.side.sentences()[0]
    assert sure.side.unsure.sentences()[0].startswith("Xmax of Rowan R16 (±40 %) makes 5")
    assert sure.session.assessment.doubt.low is not None


def test_a_figure_that_is_measured_is_no_longer_what_one_is_not_sure_of(sure):
    sure.session.apply("Xmax", set_number(sure.session.design, XMAX, 9e-3))
    assert sure.session.assessment.doubt is None
    doubted(sure)
    told = sure.side.unsure.sentences()
    assert not any("±40 %" in line for line in told)


def test_the_doubt_on_show_is_never_of_another_design(sure, qtbot):
    """Edits, undo and redo at random, some faster than the doubt comes."""
    session, hand = sure.session, random.Random(3)
    told = []
    session.doubted.connect(lambda: told.append((session.design, session.assessment)))
    for _ in range(12):
        act = hand.random()
        if act < 0.6:
            session.edit_number(MASS, hand.uniform(0.0, 0.08))
        else:
            session.undo() if act < 0.8 else session.redo()
        if hand.random() < 0.4:
            until(lambda: session.assessment.doubt is not None)
        else:
            qtbot.wait(hand.choice((5, 60, 250)))
    doubted(sure)
    assert len({id(design) for design, _ in told}) > 2
    for design, assessment in told:
        assert assessment.design is design
        assert assessment.doubt.bands == doubt_of(design).bands


def test_going_back_shows_what_is_known_at_once(sure):
    before = sure.session.assessment.doubt
    sure.session.edit_number(MASS, 0.05)
    doubted(sure)
    sure.session.undo()
    assert sure.session.assessment.doubt is before
    assert not sure.doubting.busy


def test_likely_ranges_can_be_edited_and_undone(sure):
    sure.side.unsure._ranges.click()
    field = sure.stage.field(("brief", "tolerances", "losses"))
    assert field.isVisible()
    sure.session.edit_number(("brief", "tolerances", "losses"), 0.6)
    assert sure.session.design.brief.tolerances.losses == 0.6
    sure.session.undo()
    assert sure.session.design.brief.tolerances.losses == 0.3


def test_closing_a_window_leaves_nothing_running(make_window, slipway, qtbot):
    window = make_window(slipway)
    until(lambda: window.doubting._task.running)
    window.show_stage("size")
    window.stage.show_view("map")
    qtbot.wait(200)
    window.close()
    assert not advice._jobs
    assert not window.doubting.busy
    assert not window.side.busy
    assert not window.stage.map.busy


def test_builds_that_keep_a_promise_are_told_on_the_promise_stage(sure):
    sure.show_stage("promise")
    settle()
    _, _, far = sure.stage._rows["loudness"]
    assert far.text() == "close, ±2.8\u202fdB, 4 of 10"
    assert "kept in 4 of 10 builds" in far.toolTip()
