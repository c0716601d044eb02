"""Best tunings: how the scan is spaced, and that it finds what each design would by itself."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.proposals.tunings import around, spaced


@given(st.floats(1e-3, 1), st.floats(1.01, 50))
def test_tunings_are_evenly_apart(low, factor):
    values = spaced(np.array([[low]]), np.array([[low * factor]]), np.linspace(0, 1, 16))
    tunings = values[0] ** -0.5
    assert np.allclose(np.diff(tunings), np.diff(tunings)[0])
    assert values.min() == pytest.approx(low)
    assert values.max() == pytest.approx(low * factor)


@given(st.integers(0, 15))
def test_the_finer_pass_keeps_the_best_and_its_neighbours(best):
    values = np.linspace(1.0, 2.0, 16)[None, :]
    loud = -np.abs(np.arange(16.0) - best)[None, :]
    finer = around(values, loud)
    assert values[0, best] in finer[0]
    assert finer.min() == values[0, max(best - 1, 0)]
    assert finer.max() == values[0, min(best + 1, 15)]
