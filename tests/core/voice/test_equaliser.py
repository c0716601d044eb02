"""What holds of every answer of the equaliser."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.voice.chain import Filter, block_response
from firecrest.core.voice.dips import Dip
from firecrest.core.voice.equaliser import Bounds, boost_of, equalise, task_of

F = np.geomspace(20, 20e3, 300)
RATE = 48000.0


def last(task, count):
    *_, found = equalise(task, count, 6)
    return found


def test_the_boost_is_that_of_the_biquads():
    rows = np.array([[np.log(500.0), 4.0, np.log(1.3)], [np.log(9000.0), -7.0, np.log(4.0)]])
    task = task_of((F, 0 * F), 0 * F, [], None, Bounds((50.0, 10e3)), RATE)
    blocks = [Filter("parametric", float(np.exp(f)), g, float(np.exp(q))) for f, g, q in rows]
    wanted = sum(20 * np.log10(np.abs(block_response(b, F, RATE))) for b in blocks)
    np.testing.assert_allclose(boost_of(task, rows), wanted, atol=1e-9)


def test_bands_that_made_the_error_are_taken_back():
    made = Filter("parametric", 500.0, 5.0, 1.5), Filter("parametric", 3000.0, -5.0, 1.5)
    level = sum(20 * np.log10(np.abs(block_response(b, F, RATE))) for b in made)
    task = task_of((F, level + 80), 0 * F, [], None, Bounds((F[0], F[-1])), RATE)
    found = last(task, 3)
    assert found.rms < 0.02
    assert found.done == 1.0


@settings(max_examples=12)
@given(st.integers(0, 100), st.floats(0, 3), st.booleans())
def test_bounds_hold_and_nothing_gets_worse(seed, room, hole):
    random = np.random.default_rng(seed)
    level = np.interp(np.log(F), np.log(np.geomspace(20, 20e3, 12)), random.normal(0, 4, 12))
    dips = [Dip(900.0, 1300.0, 1100.0, 12.0, None, -20.0)] if hole else []
    ceiling = np.full(len(F), room)
    task = task_of((F, level), 0 * F, dips, ceiling, Bounds((F[20], F[-40])), RATE)
    found = last(task, 4)
    rows = np.array([(np.log(f), g, np.log(q)) for f, g, q in found.bands]).reshape(-1, 3)
    boost = boost_of(task, rows)
    assert np.max(boost - task.ceiling) <= 0.01
    if hole:
        assert np.max(boost[(F >= 900) & (F <= 1300)]) <= 1.01
    assert found.rms <= task.rms(0 * F) + 1e-9
    assert all(-12 <= g <= 6 and 0.4 - 1e-9 <= q <= 8 + 1e-9 for _, g, q in found.bands)


def test_the_same_task_has_the_same_answer():
    level = 3 * np.sin(3 * np.log(F))
    task = task_of((F, level), 0 * F, [], None, Bounds((60.0, 15e3)), RATE)
    assert last(task, 3) == last(task, 3)


def test_cuts_are_favoured_by_a_lower_target():
    level = 4 * np.sin(3 * np.log(F))
    cut, even = (
        last(task_of((F, level), 0 * F, [], None, Bounds((60.0, 15e3)), RATE, o), 5)
        for o in (-3.0, 0.0)
    )
    assert sum(g for _, g, _ in cut.bands) < sum(g for _, g, _ in even.bands)


def test_no_bands_leave_all_as_it_is():
    task = task_of((F, 0 * F + 1), 0 * F, [], None, Bounds((60.0, 15e3)), RATE)
    assert last(task, 0).bands == ()
    assert last(task, 0).rms == pytest.approx(0.0, abs=1e-12)
