"""Gain and hiss against plain arithmetic."""

import numpy as np
import pytest

from firecrest.core.power.gain import (
    WHITE_TO_A,
    Hissing,
    Player,
    Processor,
    driven,
    hiss,
    noise_at_output,
    noise_from_ratio,
)

PLAYER = Player("some", 1.0, 0.0)


def test_margin_is_volts_over_volts():
    found = driven(PLAYER, 20e3, None, 0.5)
    assert (found.volts, found.overloads) == (1.0, False)
    assert found.margin == pytest.approx(6.0206, abs=1e-4)
    assert found.share == 1.0
    assert driven(PLAYER, 20e3, None, 2.0).share == pytest.approx(0.25)


def test_a_weak_input_takes_volts_from_a_weak_output():
    assert driven(Player("x", 1.0, 600.0), 600.0, None, 1.0).volts == pytest.approx(0.5)


def test_a_processor_gives_no_more_than_its_full_scale():
    dsp = Processor(0.5, 0.9, 20e3)
    found = driven(PLAYER, 100.0, dsp, 0.9)
    assert found.overloads
    assert (found.volts, found.margin) == (0.9, 0.0)


def test_white_noise_through_the_a_curve():
    """The A-curve's mean square over 20 Hz to 20 kHz, by its definition (IEC 61672-1)."""
    f = np.linspace(20, 20e3, 200_001)
    f2 = f**2
    gain = 12194.217**2 * f2**2 / (
        (f2 + 20.598997**2)
        * np.sqrt((f2 + 107.65265**2) * (f2 + 737.86223**2))
        * (f2 + 12194.217**2)
    )  # fmt: skip
    mean = np.trapezoid((gain * 10 ** (2.0 / 20)) ** 2, f) / (20e3 - 20)
    assert -10 * np.log10(mean) == pytest.approx(WHITE_TO_A, abs=0.01)


def test_noises_add_by_power():
    assert noise_at_output(3e-4, True, 20.0, 2e-5) == pytest.approx(5e-4)
    assert noise_at_output(1e-4, False, 1.0, None) == pytest.approx(1e-4 * 10 ** (-0.2048 / 2))
    assert noise_from_ratio(100.0, 4.0, 100.0) == pytest.approx(20.0 * 1e-5)


def test_hiss_at_the_listener():
    one = Hissing(1e-4, 1, 90.0)
    level = 90.0 - 9.036 + 20 * np.log10(1e-4)
    assert hiss([one], 1.0) == pytest.approx(level)
    assert hiss([one, one], 2.0) == pytest.approx(level + 3.0103 - 6.0206)
    assert hiss([Hissing(0.0, 1, 90.0)], 1.0) < -100
