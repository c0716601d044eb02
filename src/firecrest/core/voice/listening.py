"""How loud a response makes programme, as the ear weighs it: to compare settings fairly.

Source: ITU-R BS.1770 (K weighting, without gating).
"""

from math import log10

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.limits.programme import density
from firecrest.core.voice.biquads import Biquad, one_sample, section_response

RATE = 48000.0
K_SECTIONS: tuple[Biquad, ...] = (
    (
        1.53512485958697,
        -2.69169618940638,
        1.19839281085285,
        1.0,
        -1.69065929318241,
        0.73248077421585,
    ),
    (1.0, -2.0, 1.0, 1.0, -1.99004745483398, 0.99007225036621),
)
"""The head and the high-pass of BS.1770 at 48 kHz."""


def k_weight(frequency: Real) -> Real:
    """|H|^2 of the K weighting at ``frequency`` (Hz)."""
    delay = one_sample(frequency, RATE)
    head, low = (section_response(section, delay) for section in K_SECTIONS)
    return np.asarray(np.abs(head * low) ** 2)


def loudness(frequency: Real, pressure: Real, kind: str, *, weighted: bool = True) -> float:
    """10 lg of the integral of S |p|^2 K df in dB over the points of a response (Pa, (F,)).

    ``kind`` is the programme; a sine has no spectrum and counts as pink. Plain power without
    ``weighted``.
    """
    spectrum = density("pink" if kind == "sine" else kind, frequency)
    power = spectrum * frequency * np.abs(pressure) ** 2
    if weighted:
        power = power * k_weight(frequency)
    return 10 * log10(float(np.trapezoid(power, np.log(frequency))))
