"""Ceiling and runs."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.limits.ceiling import ceiling, margins_at, raw_runs, runs
from firecrest.core.limits.elements import Limit

F = np.geomspace(10, 1000, 241)


def limit(name, factor, code="C"):
    return Limit(name, code, np.asarray(factor, dtype=float))


def test_ceiling_is_the_smallest_limit_and_names_it():
    a, b = limit("cone", F / 50), limit("swing", np.full(241, 2.0), "V")
    top = ceiling(np.zeros(241), [a, b])
    np.testing.assert_allclose(top.level, 20 * np.log10(np.minimum(F / 50, 2)))
    assert top.codes() == "".join("C" if f < 100.1 else "V" for f in F)
    assert [(r.code, r.start) for r in raw_runs(top)] == [("C", 0), ("V", 121)]


def test_the_packs_share_of_a_swing_limit_has_its_own_letter():
    swing = Limit("swing", "V", np.ones(241), pack=F > 200)
    assert set(ceiling(np.zeros(241), [swing]).codes()[:156]) == {"V"}
    assert ceiling(np.zeros(241), [swing]).codes()[-1] == "P"


def test_slivers_and_near_ties_merge_for_tints_but_not_in_the_raw_runs():
    a = np.where((F > 100) & (F < 103), 0.4, 1.0)
    b = np.where(F > 300, 0.995, 1.2)
    top = ceiling(np.zeros(241), [limit("x", np.ones(241)), limit("y", a), limit("z", b)])
    assert len(raw_runs(top)) > 2
    assert len(runs(top, F)) == 1


@given(st.lists(st.floats(0.1, 10), min_size=5, max_size=40), st.integers(0, 4))
def test_merged_runs_cover_the_grid_without_gaps(levels, seed):
    rng = np.random.default_rng(seed)
    limits = [
        limit(str(k), v * np.exp(np.cumsum(rng.normal(0, 0.2, 241))), "CRUVH"[k % 5])
        for k, v in enumerate(levels[:5])
    ]
    found = runs(ceiling(np.zeros(241), limits), F)
    assert found[0].start == 0
    assert found[-1].stop == 240
    assert all(a.stop + 1 == b.start for a, b in pairwise(found))
    wide = [F[r.stop] / F[r.start] >= 2 ** (1 / 12) for r in found]
    assert all(wide) or len(found) == 1


def test_margins_at_a_frequency_between_points():
    top = ceiling(np.zeros(241), [limit("cone", F / 50)])
    assert margins_at(top, np.zeros(241), F, 77.7, 1.0) == [
        pytest.approx(20 * np.log10(77.7 / 50) - 1.0, abs=1e-3)
    ]
