"""Samples through a response: what a setting sounds like, with cones that run out of travel.

The response becomes an impulse response, the cone's travel per unit input another one. Where travel
passes its limit the cone is held softly; what its sound then lacks is taken from the pressure. Our
own simplification: one limit, no heat, no memory.
"""

import numpy as np

from firecrest.core.arrays import Complex, Real
from firecrest.core.voice.listening import K_SECTIONS

TAPS = 16384
HARDNESS = 6.0
"""How suddenly a cone is held at its limit; 2 is soft, infinity a wall."""


def frequencies(rate: float) -> Real:
    """Hz at which a response is wanted, 0 left out: (TAPS/2,)."""
    return np.fft.rfftfreq(TAPS, 1 / rate)[1:]


def impulse(response: Complex, rate: float) -> Real:
    """Impulse response (TAPS,) of a response at ``frequencies(rate)``; nothing at 0 Hz.

    The top tenth of the band fades out.
    """
    f = frequencies(rate)
    fade = np.clip((rate / 2 - f) / (0.05 * rate), 0.0, 1.0)
    return np.fft.irfft(np.concatenate(([0.0], response * fade)), TAPS)


def through(samples: Real, response: Complex, rate: float) -> Real:
    """Samples played through a response, as long as they were."""
    from scipy.signal import fftconvolve

    return np.asarray(fftconvolve(samples, impulse(response, rate))[: len(samples)])


def at_rate(samples: Real, own: int, rate: int) -> Real:
    """Samples of ``own`` a second at another ``rate``, peak 0.5."""
    from scipy.signal import resample_poly

    if own != rate:
        divisor = int(np.gcd(own, rate))
        samples = resample_poly(samples, rate // divisor, own // divisor)
    return np.asarray(0.5 * samples / np.max(np.abs(samples)))


def held(travel: Real, limit: float) -> Real:
    """A travel in m that never passes ``limit``: x/(1 + |x/limit|^h)^(1/h)."""
    ratio = np.abs(travel) / limit
    return np.asarray(travel / (1 + ratio**HARDNESS) ** (1 / HARDNESS))


def lacking(travel: Real, limit: float, rate: float) -> Real:
    """Acceleration in m/s2 that a cone lacks which is held at ``limit``."""
    less = travel - held(travel, limit)
    return np.asarray(np.gradient(np.gradient(less, 1 / rate), 1 / rate))


def weighted_level(samples: Real) -> float:
    """K-weighted mean square of samples at 48 kHz, dB (ITU-R BS.1770, without gating)."""
    from scipy.signal import sosfilt

    heard = sosfilt(np.array(K_SECTIONS), samples)
    return float(10 * np.log10(np.mean(heard**2) + 1e-30))


def level_matched(first: Real, second: Real) -> tuple[Real, Real, float]:
    """Both with the louder one turned down, and dB by which the first was louder."""
    by = weighted_level(first) - weighted_level(second)
    down = 10 ** (-abs(by) / 20)
    return (first * down, second, by) if by > 0 else (first, second * down, by)
