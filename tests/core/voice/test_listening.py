"""Levels as the ear weighs them."""

import numpy as np
import pytest

from firecrest.core.voice.listening import k_weight, loudness

F = np.geomspace(20, 20e3, 500)


def test_ten_db_more_is_ten_db_more_however_weighed():
    for kind in ("music", "speech", "pink", "sine"):
        for weighted in (True, False):
            soft = loudness(F, np.ones(len(F)), kind, weighted=weighted)
            loud = loudness(F, np.full(len(F), 10**0.5), kind, weighted=weighted)
            assert loud - soft == pytest.approx(10.0)


def test_bass_counts_less_for_the_ear():
    shelf = np.where(F < 80, 4.0, 1.0)
    ear, plain = (
        loudness(F, shelf, "music", weighted=w) - loudness(F, 0 * F + 1, "music", weighted=w)
        for w in (True, False)
    )
    assert 0 < ear < plain


def test_the_weight_is_nearly_one_at_half_a_kilohertz():
    assert 10 * np.log10(k_weight(np.array([500.0]))) == pytest.approx([0.0], abs=0.05)
