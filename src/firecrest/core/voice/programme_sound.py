"""A short made-up programme to hear settings with: synthesised here, the same every time.

A bass line, a voice-like sound, drums and pink noise. None of it is a recording.
"""

from collections.abc import Callable, Mapping

import numpy as np

from firecrest.core.arrays import Real

RATE = 48000
SECONDS = 8.0
BEAT = 0.5
"""S from one beat to the next."""
BASS_LINE = (41.2, 41.2, 61.7, 55.0, 49.0, 49.0, 73.4, 65.4)
"""Hz of a note on each beat: low E, B, A, G, D and C."""
VOWELS = ((700.0, 1220.0, 2600.0), (400.0, 2000.0, 2550.0), (450.0, 800.0, 2830.0))
"""Formants in Hz of three vowels."""
PEAK = 0.5


def _time() -> Real:
    return np.arange(int(SECONDS * RATE)) / RATE


def bass_line() -> Real:
    """Plucked notes with harmonics, two a second."""
    t, out = _time(), np.zeros(int(SECONDS * RATE))
    for k in range(int(SECONDS / BEAT)):
        since = t - k * BEAT
        on = (since >= 0) & (since < BEAT)
        pitch = BASS_LINE[k % len(BASS_LINE)]
        envelope = np.exp(-since[on] / 0.25) * np.minimum(since[on] / 0.004, 1.0)
        waves = sum(
            np.sin(2 * np.pi * n * pitch * since[on]) / n**1.5 * np.exp(-n * since[on])
            for n in range(1, 9)
        )
        out[on] += envelope * waves
    return _at_peak(out)


def voice_like() -> Real:
    """A buzz of 110 to 160 Hz through formants that move from vowel to vowel."""
    from scipy.signal import lfilter

    t, chance = _time(), np.random.default_rng(7)
    pitch = 130 + 22 * np.sin(2 * np.pi * 0.4 * t) + 4 * np.sin(2 * np.pi * 5.3 * t)
    phase = np.cumsum(pitch) / RATE
    buzz = np.diff(np.floor(phase), prepend=0.0) + 0.01 * chance.normal(size=len(t))
    out = np.zeros(len(t))
    length = int(0.4 * RATE)
    for k, start in enumerate(range(0, len(t) - length, length)):
        piece = buzz[start : start + length] * np.hanning(length) ** 0.3
        for formant in VOWELS[k % len(VOWELS)]:
            radius = np.exp(-np.pi * 0.08 * formant / RATE)
            turn = 2 * np.pi * formant / RATE
            piece_out = lfilter([1 - radius], [1, -2 * radius * np.cos(turn), radius**2], piece)
            out[start : start + length] += piece_out * np.hanning(length) ** 0.3
    return _at_peak(out)


def drums() -> Real:
    """A low drum on every beat, a rattle between, and a metal hiss."""
    t, chance = _time(), np.random.default_rng(11)
    out, noise = np.zeros(len(t)), chance.normal(size=len(t))
    bright = np.diff(noise, prepend=0.0)
    for k in range(int(2 * SECONDS / BEAT)):
        since = t - k * BEAT / 2
        on = (since >= 0) & (since < BEAT / 2)
        if k % 2 == 0:
            sweep = 2 * np.pi * (52 * since[on] + 3.2 * (1 - np.exp(-since[on] / 0.03)))
            out[on] += np.sin(sweep) * np.exp(-since[on] / 0.13)
        if k % 4 == 2:
            out[on] += 0.35 * noise[on] * np.exp(-since[on] / 0.06)
        out[on] += 0.12 * bright[on] * np.exp(-since[on] / 0.02)
    return _at_peak(out)


def pink() -> Real:
    """Pink noise: white noise whose power falls by 3 dB an octave, 20 Hz to 20 kHz."""
    count = int(SECONDS * RATE)
    spectrum = np.fft.rfft(np.random.default_rng(3).normal(size=count))
    f = np.fft.rfftfreq(count, 1 / RATE)
    shape = np.where((f >= 20) & (f <= 20e3), 1 / np.sqrt(np.maximum(f, 1.0)), 0.0)
    return _at_peak(np.fft.irfft(spectrum * shape, count))


def _at_peak(samples: Real) -> Real:
    return np.asarray(PEAK * samples / np.max(np.abs(samples)))


PROGRAMMES: Mapping[str, Callable[[], Real]] = {
    "bass line": bass_line,
    "voice": voice_like,
    "drums": drums,
    "pink noise": pink,
}
