"""Programme: spectra and what they are integrated with."""

import numpy as np
import pytest

from firecrest.core.limits.programme import PROGRAMMES, density, weights

F = np.geomspace(10, 1000, 241)


@pytest.mark.parametrize("kind", ["music", "pink", "speech"])
def test_spectral_weights_integrate_smooth_curves(kind):
    grid = np.concatenate([F, np.geomspace(1000, 20000, 61)[1:]])
    fine = np.geomspace(20, 20000, 200001)
    s = density(kind, fine)
    s /= np.trapezoid(s, fine)
    for curve in (lambda f: 1 / (1 + (60 / f) ** 4), lambda f: np.log(f), lambda f: f / (f + 300)):
        exact = np.trapezoid(s * curve(fine), fine)
        assert weights(kind, grid) @ curve(grid) == pytest.approx(exact, rel=2e-3)
    assert weights(kind, grid).sum() == pytest.approx(1.0)


def test_a_sine_is_one_line_at_100_hz():
    assert weights("sine", F) @ F == pytest.approx(100.0, rel=1e-3)
    with pytest.raises(ValueError, match="no spectrum"):
        density("sine", F)


def test_duty_of_programme_and_sine():
    assert PROGRAMMES["music"].duty == pytest.approx(8.9897)
    assert PROGRAMMES["sine"].duty == 0.0
