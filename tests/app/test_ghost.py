"""A state kept as ghost: it stays behind all that follows until it is dropped."""

import numpy as np
import pytest

from firecrest.app.stages.size.stage import SizeStage
from firecrest.present.voice import plots
from tests.app.helpers import menu, meter_of, rested, settle, type_into

MASS = ("box", "openings", 0, "added_mass")
VIEWS = ["ceiling", "response", "travel"]


def test_the_kept_state_stays_behind_edits_stages_and_undo(window):
    menu(window, "ghost")
    first = window.session.assessment
    type_into(window, MASS, "38 g")
    type_into(window, MASS, "40 g")
    assert window.session.kept is first
    assert meter_of(window, "loudness").ghost == "was 95.2"
    menu(window, "stage_voice")
    settle()
    ghost = window.stage.response.ghost
    np.testing.assert_array_equal(ghost.curves[0].y, plots.sum_plot(first).curves[0].y)
    menu(window, "undo")
    assert meter_of(window, "loudness").ghost == "was 95.2"
    menu(window, "ghost")
    assert window.session.kept is None
    assert meter_of(window, "loudness").ghost == ""
    assert not window.actions_by_id["ghost"].isChecked()


def test_what_is_tried_goes_before_what_was_kept(window):
    menu(window, "ghost")
    type_into(window, MASS, "38 g")
    type_into(window, MASS, "30 g", keep=False)
    assert meter_of(window, "loudness").ghost.startswith("→")
    window.session.drop_trial()
    settle()
    assert meter_of(window, "loudness").ghost.startswith("was")


@pytest.mark.parametrize("view", VIEWS)
def test_every_plot_shows_it(window, view):
    menu(window, "ghost")
    type_into(window, MASS, "38 g")
    window.show_stage("size")
    assert isinstance(window.stage, SizeStage)
    window.stage.show_view(view)
    assert window.stage.chart.ghost is not None


def test_another_document_drops_it(window):
    menu(window, "ghost")
    menu(window, "demo_lantern")
    assert window.session.kept is None
    assert not window.actions_by_id["ghost"].isChecked()
    assert meter_of(window, "loudness").ghost == ""


def test_a_ghost_of_fewer_chambers_stays_behind_a_new_one(window):
    window.show_stage("size")
    menu(window, "ghost")
    menu(window, "add_chamber")
    rested(window.stage.later)
    assert window.stage.selected == ("box", "chambers", 1)
    assert len(window.stage.travel) == 0
    menu(window, "undo")
    assert len(window.session.design.box.chambers) == 1
