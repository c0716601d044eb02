"""Dips, and what makes one a cancellation."""

import numpy as np
import pytest

from firecrest.core.voice.dips import Dip, dips_of, octave_mean, weights_of

F = np.geomspace(100, 10e3, 400)


def level_with(depth, at=1000.0, width=0.1):
    return 80 - depth * np.exp(-((np.log2(F / at) / width) ** 2))


def test_the_octave_mean_of_a_line_is_the_line():
    slope = 6 * np.log2(F / 1000)
    inner = (F > 200) & (F < 5000)
    assert octave_mean(F, slope)[inner] == pytest.approx(slope[inner], abs=0.06)


def test_a_dip_is_found_with_its_ends_and_depth():
    (dip,) = dips_of(F, level_with(12.0), (F[0], F[-1]))
    assert dip.deepest == pytest.approx(1000.0, rel=0.01)
    assert dip.low < 1000 < dip.high
    assert 9 < dip.depth < 12
    assert dips_of(F, level_with(3.0), (F[0], F[-1])) == []


@pytest.mark.parametrize(
    ("depth", "step", "loss", "told"),
    [
        (12.0, None, None, True),
        (8.0, None, None, False),
        (12.0, 20.0, None, False),
        (12.0, 120.0, None, True),
        (5.0, 0.0, -9.0, True),
        (12.0, 0.0, -2.0, False),
    ],
)
def test_what_is_a_cancellation(depth, step, loss, told):
    assert Dip(900.0, 1100.0, 1000.0, depth, step, loss).cancellation == told


def test_a_second_arrival_steps_the_excess_phase():
    """Two equal sounds 0.5 ms apart, the later one louder: no minimum phase at the dip."""
    whole = 0.8 + np.exp(-2j * np.pi * F * 5e-4)
    level = 20 * np.log10(np.abs(whole))
    minimum = np.angle(1 + 0.8 * np.exp(-2j * np.pi * F * 5e-4))
    excess = np.unwrap(np.angle(whole) - minimum)
    found = dips_of(F, level, (F[0], F[-1]), excess)
    assert found
    assert found[0].cancellation


def test_weights_sum_to_one_and_leave_dips_out():
    weights = weights_of(F, (F[10], F[-10]), [Dip(900.0, 1100.0, 1000.0, 12.0, None, None)])
    assert np.sum(weights) == pytest.approx(1.0)
    assert not weights[(F > 900) & (F < 1100)].any()
    assert not weights[:10].any()
