"""Targets of an EQ: levels in dB over frequency, of which only the shape counts."""

from collections.abc import Sequence

import numpy as np

from firecrest.core.arrays import Real, decibel
from firecrest.core.voice.chain import Filter, analogue_response

TILT = 0.8
"""DB an octave of the usual downward tilt."""
WARM = (Filter("low_shelf", 200.0, 3.0, 0.5), Filter("high_shelf", 4000.0, -2.0, 0.5))


def flat(frequency: Real) -> Real:
    """No shape at all."""
    return np.zeros(len(frequency))


def tilt(frequency: Real, slope: float = TILT) -> Real:
    """``slope`` dB less an octave, 0 at 1 kHz."""
    return np.asarray(-slope * np.log2(frequency / 1000.0))


def warm(frequency: Real) -> Real:
    """A little more at the bottom, a little less at the top."""
    low, high = (analogue_response(block, frequency) for block in WARM)
    return np.asarray(decibel(low * high))


def through_points(frequency: Real, points: Sequence[tuple[float, float]]) -> Real:
    """Straight lines over ln f through (Hz, dB), flat beyond the ends."""
    hertz, level = np.array(points, dtype=np.float64).T
    return np.asarray(np.interp(np.log(frequency), np.log(hertz), level))
