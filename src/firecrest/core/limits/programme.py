"""Programme: the statistics and the spectrum of what is played.

``spectrum`` is the power density of the input, before the voice, with integral 1 over its band.
The figures are stated defaults of this program, to be edited.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from firecrest.core.arrays import Number, Real

SINE_CREST = float(10 * np.log10(2.0))
SINE_FREQUENCY = 100.0


@dataclass(frozen=True)
class Programme:
    """Crest and burst factors in dB; ``low_corner`` in Hz bounds what a held low note can be."""

    kind: str
    crest: Number
    burst: Number
    low_corner: float

    @property
    def duty(self) -> Number:
        """DB by which long-term power lies below that of a sine of the same peak."""
        return self.crest - SINE_CREST


PROGRAMMES = {
    "music": Programme("music", 12.0, 6.0, 40.0),
    "pink": Programme("pink", 12.0, 2.0, 0.0),
    "speech": Programme("speech", 12.0, 6.0, 120.0),
    "instrument": Programme("instrument", 6.0, 4.0, 80.0),
    "sine": Programme("sine", SINE_CREST, 0.0, 0.0),
}
BAND = (20.0, 20e3)


def density(kind: str, frequency: Real) -> Real:
    """Unnormalised power density at ``frequency`` (Hz), 0 outside 20 Hz to 20 kHz."""
    f = np.asarray(frequency, dtype=np.float64)
    if kind == "music":
        shape = (1 / f) / (1 + (40 / f) ** 4) / (1 + f / 1000)
    elif kind == "speech":
        shape = 1 / ((1 + (120 / f) ** 4) * (1 + (f / 500) ** 2))
    elif kind == "instrument":
        shape = (1 / f) / ((1 + (80 / f) ** 4) * (1 + (f / 1500) ** 2))
    elif kind == "pink":
        shape = 1 / f
    else:
        raise ValueError(f"{kind} has no spectrum")
    return np.where((f >= BAND[0]) & (f <= BAND[1]), shape, 0.0)


@lru_cache(maxsize=32)
def _cached_weights(kind: str, grid: bytes) -> Real:
    frequency = np.frombuffer(grid)
    if kind == "sine":
        return _line_weights(frequency, SINE_FREQUENCY)
    log = np.log(frequency)
    fine = np.log(np.geomspace(*BAND, 20001))
    power = density(kind, np.exp(fine)) * np.exp(fine)
    weights = np.zeros(len(frequency))
    place = np.clip(np.searchsorted(log, fine, side="right") - 1, 0, len(log) - 2)
    share = np.clip((fine - log[place]) / (log[place + 1] - log[place]), 0.0, 1.0)
    step = np.full(len(fine), fine[1] - fine[0])
    step[[0, -1]] /= 2
    np.add.at(weights, place, power * step * (1 - share))
    np.add.at(weights, place + 1, power * step * share)
    weights /= np.sum(power * step)
    weights.flags.writeable = False
    return weights


def _line_weights(frequency: Real, line: float) -> Real:
    """All of the power at one frequency, shared by its two neighbours on the grid."""
    weights = np.zeros(len(frequency))
    log, at = np.log(frequency), np.log(line)
    place = int(np.clip(np.searchsorted(log, at, side="right") - 1, 0, len(log) - 2))
    share = float(np.clip((at - log[place]) / (log[place + 1] - log[place]), 0.0, 1.0))
    weights[place], weights[place + 1] = 1 - share, share
    return weights


def weights(kind: str, frequency: Real) -> Real:
    """Weights w with sum(w X) = integral of S X for X linear in ln f between grid points.

    ``frequency`` (F,) rises; power beyond its ends is counted at the end points. Sum is 1.
    """
    return _cached_weights(kind, np.ascontiguousarray(frequency, dtype=np.float64).tobytes())
