"""Whether a port fits: checked against runs laid out by hand."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.cabinet.portfit import TURN_SAVES, Duct, Space, longest_run, port_fit

SPACE = Space(panel=0.012, depth=0.2, side=0.3, across=0.18)
PIPE = Duct(length=0.15, bore=0.05, thickness=0.056, width=0.056)


def test_a_straight_port_ends_half_its_bore_before_the_back():
    assert longest_run(PIPE, SPACE, 0) == pytest.approx(0.012 + 0.2 - 0.025)


def test_one_bend_runs_along_the_back_to_half_a_bore_before_the_side():
    first, second = 0.012 + 0.2 - 0.028, 0.3 - 0.056 + 0.028 - 0.025
    expected = first + second - TURN_SAVES * 0.056
    assert longest_run(PIPE, SPACE, 1) == pytest.approx(expected)


def test_a_long_port_needs_bends_and_a_longer_one_does_not_fit():
    assert port_fit(PIPE, SPACE, 0).bends == 0
    folded = port_fit(Duct(0.4, 0.05, 0.056, 0.056), SPACE, 0)
    assert folded.bends == 1
    assert folded.longest < 0.4
    assert port_fit(Duct(5.0, 0.05, 0.056, 0.056), SPACE, 0).bends is None


def test_too_thick_a_port_is_called_narrow():
    assert port_fit(Duct(0.1, 0.2, 0.21, 0.21), SPACE, 0).narrow
    assert port_fit(Duct(0.1, 0.06, 0.066, 0.066, count=3), SPACE, 0).narrow


@settings(max_examples=60)
@given(st.floats(0.01, 0.09), st.floats(0.01, 1.5), st.integers(0, 6))
def test_a_port_that_needs_n_bends_fits_with_n_and_not_with_fewer(bore, length, bends):
    duct = Duct(length, bore, bore + 0.006, bore + 0.006)
    fit = port_fit(duct, SPACE, bends)
    if fit.bends is not None:
        assert longest_run(duct, SPACE, fit.bends) >= length
        assert all(longest_run(duct, SPACE, k) < length for k in range(fit.bends))
