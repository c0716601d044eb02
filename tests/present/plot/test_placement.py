"""Texts of axes that do not touch."""

from itertools import pairwise

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from firecrest.present.plot.placement import TICK_GAP, apart


def test_the_ends_stay_and_round_numbers_go_before_others():
    places, widths = [0.0, 30.0, 45.0, 100.0], [20.0, 20.0, 20.0, 40.0]
    assert apart(places, widths, [0, 8, 0, 0]) == [True, False, True, True]
    assert apart(places, widths, [0, 0, 8, 0]) == [True, True, False, True]


@given(st.lists(st.floats(0, 500), min_size=1, max_size=20), st.integers(0, 10**6))
def test_no_two_texts_touch_and_the_first_is_there(places, seed):
    places = sorted(places)
    rng = np.random.default_rng(seed)
    widths = rng.uniform(5, 60, len(places))
    shown = apart(places, widths, rng.integers(0, 9, len(places)).tolist())
    kept = [k for k, on in enumerate(shown) if on]
    assert kept[0] == 0
    for a, b in pairwise(kept):
        assert places[b] - places[a] >= (widths[a] + widths[b]) / 2 + TICK_GAP - 1e-9
