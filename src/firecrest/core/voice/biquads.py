"""Second-order digital sections, as they are sent to the board.

The analogue prototypes of ``prototypes`` through the bilinear transform, pre-warped at the
corner. Source: Oppenheim & Schafer, Discrete-Time Signal Processing (2010), 7.2.2.
"""

import numpy as np

from firecrest.core.arrays import Complex, Real
from firecrest.core.voice.prototypes import Section


def digital_section(section: Section, corner: float, rate: float) -> Real:
    """Coefficients b0 b1 b2 a0 a1 a2 (a0 = 1) of an analogue ``section`` at sample ``rate`` (Hz).

    ``section`` holds numerator and denominator in s/w_corner, rising powers.
    """
    k = 1.0 / np.tan(np.pi * corner / rate)
    numerator, denominator = (
        np.array([c0 + c1 * k + c2 * k * k, 2 * c0 - 2 * c2 * k * k, c0 - c1 * k + c2 * k * k])
        for c0, c1, c2 in (section.numerator, section.denominator)
    )
    return np.asarray(np.concatenate([numerator, denominator]) / denominator[0])


def section_response(coefficients: Real, frequency: Real, rate: float) -> Complex:
    """Complex response at ``frequency`` (Hz) of one row of ``digital_section``."""
    delay = np.exp(-2j * np.pi * np.asarray(frequency) / rate)
    b0, b1, b2, a0, a1, a2 = coefficients
    return np.asarray((b0 + delay * (b1 + delay * b2)) / (a0 + delay * (a1 + delay * a2)))
