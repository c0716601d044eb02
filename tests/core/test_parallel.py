"""Work on all cores."""

import threading

import numpy as np
import pytest

from firecrest.assessment import vary
from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.core import parallel
from firecrest.core.parallel import blocks_of, side_by_side, use_all_cores


@pytest.fixture
def two_cores(monkeypatch):
    monkeypatch.setattr(parallel.os, "sched_getaffinity", lambda _: {0, 1})
    monkeypatch.setattr(parallel, "_POOLS", [])
    use_all_cores()
    (threads,) = parallel._POOLS
    yield
    threads.shutdown()


def test_results_come_in_order_and_two_are_under_way_at_once(two_cores):
    both = threading.Barrier(2, timeout=20)

    def work(item):
        if item < 2:
            both.wait()
        return item, threading.current_thread() is threading.main_thread()

    assert side_by_side(work, range(5)) == [(item, False) for item in range(5)]


def test_no_thread_for_one_item_or_where_none_were_asked_for(two_cores, monkeypatch):
    here = threading.main_thread()
    assert side_by_side(lambda _: threading.current_thread(), [1]) == [here]
    monkeypatch.setattr(parallel, "_POOLS", [])
    assert side_by_side(lambda _: threading.current_thread(), [1, 2]) == [here, here]


def test_what_one_raises_is_raised_and_error_states_are_the_callers(two_cores):
    with np.errstate(divide="raise"), pytest.raises(FloatingPointError):
        side_by_side(lambda item: np.float64(1) / np.float64(item), [1.0, 0.0])


def test_blocks_are_even_and_hold_every_row():
    assert [b.stop - b.start for b in blocks_of(10, 4)] == [4, 4, 2]
    assert [b.stop - b.start for b in blocks_of(4096, 750)] == [683] * 5 + [681]


def test_designs_are_the_same_on_all_cores(two_cores, slipway, monkeypatch):
    columns = {("box", "case", "depth"): np.linspace(0.15, 0.2, 60)}
    one = vary.vary(slipway, columns)
    monkeypatch.setattr(vary, "VALUES", 8 * len(EDIT_GRID))
    many = vary.vary(slipway, columns)
    assert (many.level == one.level).all()
    assert (many.letters == one.letters).all()
    assert [many.promises(row) for row in range(60)] == [one.promises(row) for row in range(60)]
