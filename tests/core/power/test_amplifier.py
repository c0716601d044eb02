"""What claims come to: clean power, drop, current limit, losses, contradictions."""

import numpy as np
import pytest

from firecrest.core.limits.material import PEAK
from firecrest.core.note import note
from firecrest.core.power.amplifier import SINE_AVERAGE, Claim, clipping_power_ratio
from tests.core.power.boards import TWO, board, read


def test_clipping_power_by_sampling():
    phase = (np.arange(200000) + 0.5) / 200000 * np.pi / 2
    assert clipping_power_ratio(0.01) == pytest.approx(1.0475, abs=1e-4)
    assert clipping_power_ratio(0.10) == pytest.approx(1.2878, abs=1e-4)
    wave = np.minimum(1.6 * np.sin(phase), 1.0)
    fundamental = 2 * np.mean(wave * np.sin(phase))
    power = np.mean(wave**2)
    thd = np.sqrt(power / (fundamental**2 / 2) - 1)
    assert clipping_power_ratio(float(thd)) == pytest.approx(power / 0.5, rel=1e-4)


def test_two_loads_give_resistance_and_offset():
    amplifier = board()
    assert amplifier.r_out == pytest.approx(0.4105072, rel=1e-5)
    assert amplifier.offset == pytest.approx(2.712171, rel=1e-5)
    for claim in read().claims:
        swing = 24 - amplifier.offset - amplifier.r_out * claim.peak_current
        assert swing == pytest.approx(claim.peak_voltage)


def test_one_load_scales_with_the_bus():
    amplifier = board(claims=TWO[:1])
    claim = read(claims=TWO[:1]).claims[0]
    needed = (claim.peak_voltage + 0.25 * claim.peak_current) * amplifier.swing_factor
    assert needed == pytest.approx(24.0)
    assert (amplifier.r_out, amplifier.offset) == (0.25, 0.0)
    single = read(claims=[Claim(14, 4, 24, 0.1)], bridged=False)
    clean = single.claims[0]
    assert single.model.swing_factor == pytest.approx(
        24 / (clean.peak_voltage + 0.25 * clean.peak_current)
    )


def test_single_ended_swings_half_the_bus():
    single = read(claims=[Claim(14, 4, 24, 0.1), Claim(8, 8, 24, 0.1)], bridged=False)
    amplifier = single.model
    assert amplifier.swing_factor == 2.0
    for claim in single.claims:
        used = 2 * (claim.peak_voltage + amplifier.r_out * claim.peak_current) + amplifier.offset
        assert used == pytest.approx(24.0, rel=1e-6)


def test_impossible_claims_are_called_so():
    found = read(claims=[Claim(100, 8, 12, 0.01)])
    assert found.claims[0].impossible
    assert found.contradictions == (note("beyond supply", power=100, load=8, supply=12),)
    assert not read(claims=[Claim(100, 8, 12, 0.01)], boosted=True).contradictions


def test_claims_that_disagree_are_told_and_taken_as_zero():
    found = read(claims=[Claim(60, 4, 24, 0.1), Claim(20, 8, 24, 0.1)])
    assert found.model.r_out == 0.0
    assert note("drop falls") in found.contradictions


def test_losses_from_one_efficiency():
    amplifier = board(idle_current=0.11, efficiency=(0.88, 0))
    claim = read().claims[0]
    current = claim.peak_current / PEAK
    power_in = 24 * 0.11 + 2 * (
        claim.power + amplifier.r_out * current**2 + amplifier.loss * 24 * SINE_AVERAGE * current
    )
    assert 2 * claim.power / power_in == pytest.approx(0.88)
    assert board(efficiency=(0.999, 0)).loss == 0.0


def test_own_mains_supply_is_its_largest_swing():
    amplifier = board(claims=[Claim(250, 4, None, 0.01)], own_mains=True)
    assert amplifier.rail == pytest.approx(43.69551, rel=1e-6)
