"""A driver's figures found again in its impedance."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.measurement.impedance import FIGURES, fitted, impedance

F = np.geomspace(10, 20e3, 300)


@settings(max_examples=40)
@given(
    st.floats(2.5, 8),
    st.floats(25, 900),
    st.floats(1.2, 9),
    st.floats(0.25, 1.1),
    st.floats(2e-5, 1.5e-3),
    st.booleans(),
)
def test_what_was_put_in_is_found_again(re, fs, qms, qes, le, phase):
    made = {"re": re, "fs": fs, "qms": qms, "qes": qes, "le": le}
    z = impedance(F, made)
    found = fitted(F, np.abs(z), np.degrees(np.angle(z)) if phase else None)
    for key in FIGURES:
        assert found.figures[key] == pytest.approx(made[key], rel=0.01), key
    assert found.error < 1e-3


@pytest.mark.parametrize("seed", range(8))
def test_ranges_hold_what_is_true_under_noise(seed):
    random = np.random.default_rng(seed)
    made = {"re": 3.4, "fs": 58.0, "qms": 4.2, "qes": 0.55, "le": 3e-4}
    z = impedance(F, made)
    noisy = np.abs(z) * np.exp(random.normal(0, 0.02, len(F)))
    turned = np.degrees(np.angle(z)) + random.normal(0, 1.0, len(F))
    found = fitted(F, noisy, turned)
    for key in FIGURES:
        assert abs(np.log(found.figures[key] / made[key])) < 2.5 * found.ranges[key]
    assert 0.01 < found.error < 0.03


def test_resonance_and_peak_follow_from_the_figures():
    made = {"re": 6.0, "fs": 40.0, "qms": 5.0, "qes": 0.5, "le": 0.0}
    assert abs(impedance(np.array([40.0]), made)[0]) == pytest.approx(6.0 * (1 + 5.0 / 0.5))


@pytest.mark.parametrize(
    ("magnitude", "said"),
    [
        (np.linspace(3, 40, 300), "no peak inside"),
        (np.full(300, 8.0) + np.exp(-((np.log(F / 60)) ** 2)) * 0.5, "hardly rises"),
    ],
)
def test_a_curve_without_a_resonance_is_refused(magnitude, said):
    with pytest.raises(ValueError, match=said):
        fitted(F, magnitude[: len(F)], None)
