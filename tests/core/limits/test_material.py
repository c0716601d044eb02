"""Held sines and programme side by side."""

import numpy as np
import pytest

from firecrest.core.limits.material import HELD_SINE, PEAK, material_of, with_mean, with_rms
from firecrest.core.limits.programme import PROGRAMMES, weights

F = np.geomspace(20, 20000, 200)
MUSIC = material_of(PROGRAMMES["music"], 9.0, F)


def test_sines_keep_their_magnitudes_and_programme_has_the_rms_over_its_spectrum():
    quantity = np.exp(1j * F) * np.array([[0.02], [0.03]])
    found = with_rms(quantity, MUSIC)
    np.testing.assert_allclose(found, np.repeat([[0.02], [0.03]], 201, axis=1))
    steps = np.where(F < 200, 0.2, 0.02)
    share = np.sum(weights("music", F)[F < 200])
    assert with_rms(steps, MUSIC)[-1] ** 2 == pytest.approx(0.04 * share + 4e-4 * (1 - share))
    assert with_mean(steps**2, MUSIC)[-1] == pytest.approx(with_rms(steps, MUSIC)[-1] ** 2)


def test_without_a_programme_there_are_sines_alone():
    np.testing.assert_array_equal(with_rms(np.array([3 + 4j]), HELD_SINE), [5.0])
    np.testing.assert_array_equal(with_mean(np.array([2.0]), HELD_SINE), [2.0])


def test_peak_burst_and_long_term_values_by_material():
    above = {key: (values[0], values[-1]) for key, values in MUSIC.above.items()}
    assert above["instant"] == pytest.approx((PEAK, 10 ** (12 / 20)))
    assert above["burst"] == pytest.approx((1.0, 10 ** (6 / 20)))
    assert above["long-term"] == pytest.approx((10 ** (-9 / 20), 1.0))
    duties = material_of(PROGRAMMES["music"], np.array([[0.0], [20.0]]), F).above["long-term"]
    np.testing.assert_allclose(duties[:, 0], [1.0, 0.1])
    line = material_of(PROGRAMMES["sine"], 0.0, F)
    assert line.average[0] == line.average[-1] > MUSIC.average[-1]
