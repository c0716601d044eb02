"""The memo: what it remembers, for whom, and that nothing remembered can be changed."""

from dataclasses import dataclass

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.memo import AFRESH, KEPT, Memo
from firecrest.design.edits.paths import set_number


@dataclass(frozen=True)
class Found:
    """A result with arrays in it."""

    curves: tuple[np.ndarray, ...]
    by_name: dict[str, np.ndarray]


def counted(calls, items, number):
    calls.append(number)
    return len(calls)


def test_items_are_compared_by_identity_and_plain_values_by_value():
    calls, memo, a, b = [], Memo(), object(), object()
    assert memo(counted, calls, (a, b), 1.0) == memo(counted, calls, (a, b), 1.0) == 1
    assert memo(counted, calls, (a,), 1.0) == 2
    assert memo(counted, calls, (a, b), 2.0) == 3
    assert memo(counted, calls, (b, a), 1.0) == 4
    assert memo(counted, calls, (a, b), 1.0) == 1
    assert memo(counted, calls, (a, b), 1) == 5  # a whole number is another word
    for k in range(KEPT + 1):
        memo(counted, calls, (a,), float(10 + k))
    assert memo(counted, calls, (a, b), 1.0) > 5
    assert memo.runs["counted"] == len(calls)


def test_what_is_used_again_outlives_what_is_not():
    calls, memo, kept = [], Memo(3), object()
    for k in range(20):
        memo(counted, calls, kept, 0.0)
        memo(counted, calls, object(), float(k))
    assert memo(counted, calls, kept, 0.0) == 1


def test_two_owners_do_not_share_and_one_without_memory_works_out_anew():
    calls = []
    assert Memo()(counted, calls, 1, 1.0) == 1
    assert Memo()(counted, calls, 1, 1.0) == 2
    afresh = Memo(AFRESH)
    assert [afresh(counted, calls, 1, 1.0) for _ in range(2)] == [3, 4]


def test_arguments_go_by_position_only():
    with pytest.raises(TypeError, match="by position"):
        Memo()(counted, [], items=1, number=2)


def test_nothing_remembered_can_be_written_to():
    made = Memo()(lambda: Found((np.zeros(3),), {"x": np.ones(2)}))
    for values in (made.curves[0], made.by_name["x"]):
        with pytest.raises(ValueError, match="read-only"):
            values[0] = 5.0


def test_a_long_choosing_leaves_the_windows_results_alone(slipway):
    window, choosing = Memo(), Memo()
    assess(slipway, window)
    for k in range(30):
        assess(set_number(slipway, ("box", "case", "depth"), 0.15 + 1e-3 * k), choosing)
    before = dict(window.runs)
    assess(slipway, window)
    assert window.runs == before
