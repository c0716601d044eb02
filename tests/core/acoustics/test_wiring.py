"""What series and parallel do to impedance and level."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.acoustics.wiring import coil_factors, combination


def test_series_and_parallel_coils_are_exact_opposites():
    there = coil_factors("series", "parallel")
    back = coil_factors("parallel", "series")
    assert (there.resistance, there.inductance, there.bl, there.power) == (0.25, 0.25, 0.5, 1.0)
    assert back.resistance * there.resistance == back.bl * there.bl == 1.0
    assert there.resistance / there.bl**2 == 1.0
    one = coil_factors("parallel", "one")
    assert (one.resistance, one.bl, one.power) == (2.0, 1.0, 0.5)
    assert coil_factors("series", "as stated").bl == 1.0
    assert there.at_voltage == pytest.approx(6.0206, abs=1e-4)
    assert there.at_power == coil_factors("series", "one").at_voltage == 0.0
    assert coil_factors("series", "one").at_power == pytest.approx(-3.0103, abs=1e-4)


@pytest.mark.parametrize(
    ("series", "parallel", "impedance", "volts", "watts"),
    [
        (1, 1, 1.0, 0.0, 0.0),
        (1, 2, 0.5, 6.0206, 3.0103),
        (2, 1, 2.0, 0.0, 3.0103),
        (2, 2, 1.0, 6.0206, 6.0206),
        (1, 4, 0.25, 12.0412, 6.0206),
    ],
)
def test_combinations_at_equal_volts_and_watts(series, parallel, impedance, volts, watts):
    found = combination(series, parallel)
    assert found.impedance == impedance
    assert found.at_voltage == pytest.approx(volts, abs=1e-4)
    assert found.at_power == pytest.approx(watts, abs=1e-4)


@given(st.integers(1, 4), st.integers(1, 4))
def test_power_counts_all_drivers_alike_whichever_way(series, parallel):
    one, other = combination(series, parallel), combination(parallel, series)
    assert one.at_power == pytest.approx(other.at_power)
    assert one.impedance * other.impedance == pytest.approx(1.0)


def test_other_words_for_coils_are_no_wiring():
    with pytest.raises(KeyError):
        coil_factors("series", "star")
