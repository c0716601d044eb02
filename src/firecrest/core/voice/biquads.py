"""Second-order digital sections, as they are sent to the board.

The analogue prototypes of ``prototypes`` through the bilinear transform, pre-warped at the
corner. Source: Oppenheim & Schafer, Discrete-Time Signal Processing (2010), 7.2.2.
"""

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.voice.prototypes import Section

Biquad = tuple[Number, Number, Number, Number, Number, Number]
"""b0 b1 b2 a0 a1 a2, with a0 = 1."""


def digital_section(section: Section, corner: Number, rate: Number) -> Biquad:
    """Coefficients of an analogue ``section`` at sample ``rate`` (Hz).

    ``section`` holds numerator and denominator in s/w_corner, rising powers.
    """
    k = 1.0 / np.tan(np.pi * corner / rate)
    if _is_first(section):
        (b0, b1), (a0, a1) = (
            (c0 + c1 * k, c0 - c1 * k) for c0, c1, _ in (section.numerator, section.denominator)
        )
        return b0 / a0, b1 / a0, 0.0, 1.0, a1 / a0, 0.0
    (b0, b1, b2), (a0, a1, a2) = (
        (c0 + c1 * k + c2 * k * k, 2 * c0 - 2 * c2 * k * k, c0 - c1 * k + c2 * k * k)
        for c0, c1, c2 in (section.numerator, section.denominator)
    )
    return b0 / a0, b1 / a0, b2 / a0, 1.0, a1 / a0, a2 / a0


def _is_first(section: Section) -> bool:
    """Of first order: as a second-order one it would have a pole at half the rate, on the edge."""
    return all(
        isinstance(powers[2], float) and powers[2] == 0.0
        for powers in (section.numerator, section.denominator)
    )


def one_sample(frequency: Real, rate: Number) -> Complex:
    """z^-1 at ``frequency`` (Hz): the delay of one sample at ``rate``."""
    return np.asarray(np.exp(-2j * np.pi * np.asarray(frequency) / rate))


def section_response(biquad: Biquad, delay: Complex) -> Complex:
    """Complex response of one section where one sample delays by ``delay``."""
    b0, b1, b2, a0, a1, a2 = biquad
    return np.asarray((b0 + delay * (b1 + delay * b2)) / (a0 + delay * (a1 + delay * a2)))
