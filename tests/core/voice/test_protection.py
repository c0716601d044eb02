"""Thresholds that keep every sine within every part."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.voice.chain import Filter, analogue_response
from firecrest.core.voice.protection import (
    GRID,
    Board,
    Lowest,
    allowed,
    lost,
    peak_threshold,
    rms_threshold,
)

FLAT = np.ones(len(GRID), dtype=complex)


@given(st.floats(5, 60), st.floats(1, 50), st.floats(30, 300), st.sampled_from([0.0, 40.0]))
def test_no_sine_below_the_threshold_passes_a_limit(full, volts, corner, low):
    board = Board(full, analogue_response(Filter("high_pass", corner), GRID))
    bears = {"cone": volts * (GRID / 100) ** 2, "swing": np.float64(25.0)}
    found = peak_threshold(board, allowed(bears, board.reach(low)))
    reach = board.reach(low)
    if found is None:
        assert np.all(reach <= bears["cone"] * (1 + 1e-6))
        assert np.max(reach) <= 25.0
        return
    held = np.minimum(reach, found.volts_set)
    assert np.all(held <= bears["cone"] * (1 + 1e-3))
    assert found.volts_set <= 25.0
    assert found.volts_set <= found.volts * (1 + 1e-12)
    assert found.dbfs - found.dbfs_set < 0.1 + 1e-9


def test_what_can_never_be_reached_needs_no_limiter():
    board = Board(5.0, FLAT)
    assert allowed({"swing": np.float64(12.0)}, board.reach(0.0)) == {}
    assert peak_threshold(board, {}) is None


def test_a_high_pass_takes_the_need_away():
    bears = {"cone": 20 * (GRID / 100) ** 2}
    open_board = Board(20.0, FLAT)
    kept = Board(20.0, analogue_response(Filter("high_pass", 120.0, order=4), GRID))
    assert "cone" in allowed(bears, open_board.reach(0.0))
    assert allowed(bears, kept.reach(0.0)) == {}


def test_the_cost_is_what_the_loudest_note_loses():
    board = Board(20.0, FLAT)
    found = peak_threshold(board, allowed({"swing": np.float64(10.0)}, board.reach(0.0)))
    assert lost(board, found, 200.0, 2000.0) == pytest.approx(6.02, abs=0.1)


def test_a_plain_resistor_bears_its_power():
    board = Board(100.0, FLAT)
    found = rms_threshold(board, np.full(len(GRID), 4.0 + 0j), 4.0, 25.0, "pink", 9.0)
    assert found.threshold.volts == pytest.approx(10.0, rel=1e-6)
    assert found.threshold.dbfs == pytest.approx(20 * np.log10(np.sqrt(2) * 10 / 100), abs=1e-6)
    assert found.needed


def test_what_bears_nothing_has_no_threshold_and_leaves_that_of_others():
    """A part with no travel at all: no limiter is low enough, and 0 V is no level in dB."""
    board, nothing = Board(40.0, np.ones(len(GRID))), Lowest(0.0, 50.0)
    assert peak_threshold(board, {"radiator": nothing}) is None
    both = peak_threshold(board, {"radiator": nothing, "cone": Lowest(10.0, 50.0)})
    assert (both.first, both.volts) == ("cone", 10.0)
