"""The made-up programme: loud enough, the same every time, and what it says it is."""

import numpy as np
import pytest

from firecrest.core.voice.programme_sound import PEAK, PROGRAMMES, RATE, SECONDS, pink


@pytest.mark.parametrize("name", list(PROGRAMMES))
def test_every_programme_is_as_long_and_as_loud_as_said_and_repeats(name):
    samples = PROGRAMMES[name]()
    assert len(samples) == SECONDS * RATE
    assert np.max(np.abs(samples)) == pytest.approx(PEAK)
    assert np.all(np.isfinite(samples))
    np.testing.assert_array_equal(samples, PROGRAMMES[name]())


def test_pink_noise_has_as_much_in_every_octave():
    power = np.abs(np.fft.rfft(pink())) ** 2
    f = np.fft.rfftfreq(int(SECONDS * RATE), 1 / RATE)
    octaves = [np.sum(power[(f >= a) & (f < 2 * a)]) for a in (40, 160, 640, 2560)]
    assert 10 * np.log10(max(octaves) / min(octaves)) < 1.5


def test_the_bass_line_is_low_and_the_drums_are_short():
    power = np.abs(np.fft.rfft(PROGRAMMES["bass line"]())) ** 2
    f = np.fft.rfftfreq(int(SECONDS * RATE), 1 / RATE)
    assert np.sum(power[f < 200]) > 0.8 * np.sum(power)
    drums = PROGRAMMES["drums"]()
    assert np.max(np.abs(drums)) > 5 * np.sqrt(np.mean(drums**2))
