"""F4 on any number: where it comes from, what it moves, what it was."""

import pytest
from PySide6.QtCore import Qt

from firecrest.assessment.assess import assess
from firecrest.design.edits.paths import set_number
from firecrest.present.frame.bindings import at_path, tuning
from firecrest.present.frame.sensitivity import jobs, shown_step
from tests.app.helpers import edit_of, press, rested

MASS = ("box", "openings", 0, "added_mass")
FS = ("box", "groups", 0, "driver", "fs")


def card_at(window, path):
    edit = edit_of(window, *path)
    edit.setFocus()
    press(window, Qt.Key.Key_F4)
    rested(edit.card)
    return edit.card


def test_a_choice_tells_step_history_and_what_moves(window):
    window.session.edit_number(MASS, 0.02)
    window.session.edit_number(MASS, 0.03)
    card = card_at(window, MASS)
    said = card.lines()
    assert "Before: 20.0\u202fg, 18.0\u202fg" in said
    (step,) = [line for line in said if line.startswith("+0.1\u202fg")]
    assert "Weight +0.2\u202fg" in step
    assert "Loudness" in step
    card.close()


def test_a_figure_of_a_part_tells_origin_range_and_use(window):
    card = card_at(window, FS)
    said = " ".join(card.lines())
    assert "measured by you" in said
    assert "its range, ±2 %" in said
    assert "Used by" in said
    assert "Accepted:" in said
    assert card.accessibleDescription() == said
    card.close()


def test_what_a_step_moves_is_the_central_difference(slipway):
    assessment = assess(slipway)
    binding = at_path(slipway, MASS)
    (step,) = [job() for job in jobs(assessment, binding, "g")]
    low, high = (
        assess(set_number(slipway, MASS, 0.018 + d)).promise("loudness").predicted
        for d in (-1e-4, 1e-4)
    )
    (loud,) = [e for e in step.effects if e.startswith("Loudness")]
    told = float(loud.split()[1].split("\u202f")[0].replace("−", "-"))
    assert told == pytest.approx((high - low) / 2, abs=0.006)


def test_steps_are_of_the_last_shown_digit(slipway):
    assert shown_step(at_path(slipway, MASS).facts, "g") == pytest.approx(1e-4)
    assert shown_step(at_path(slipway, ("power", "source", "parallel")).facts, "") == 1.0
    assert shown_step(tuning().facts, "Hz") == pytest.approx(0.1)


def test_at_the_end_of_its_range_a_figure_is_moved_one_way(slipway):
    bare = set_number(slipway, MASS, 0.0)
    (step,) = [job() for job in jobs(assess(bare), at_path(bare, MASS), "g")]
    assert any(e.startswith("Weight +") for e in step.effects)
