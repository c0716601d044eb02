"""Responses of ways: level and phase at the points of a curve, and what is between them."""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.limits.reach import mean_band

DENSE = 24.0
"""Points an octave from which unwrapping a phase is safe."""
REFERENCE = 20e-6
"""Pa of 0 dB."""


@dataclass(frozen=True)
class Response:
    """Level in dB and unwrapped phase in rad (None: not known) at rising ``frequency`` in Hz, (F,).

    Between points both are straight lines over ln f; nothing is told beyond the ends.
    """

    frequency: Real
    level: Real
    phase: Real | None

    @property
    def low(self) -> float:
        """Lowest Hz of the curve."""
        return float(self.frequency[0])

    @property
    def high(self) -> float:
        """Highest Hz of the curve."""
        return float(self.frequency[-1])

    @property
    def points_an_octave(self) -> float:
        """How dense the curve is where it is sparsest; an octave is no less than two points."""
        return float(1 / np.max(np.diff(np.log2(self.frequency))))

    def covers(self, frequency: Real) -> Real:
        """Where the curve tells something (a rounding error beyond an end is none)."""
        return (frequency >= self.low * (1 - 1e-9)) & (frequency <= self.high * (1 + 1e-9))

    def level_at(self, frequency: Real) -> Real:
        """Level in dB at ``frequency`` (Hz); NaN beyond the ends."""
        return _read(self.frequency, self.level, frequency)

    def phase_at(self, frequency: Real) -> Real:
        """Unwrapped phase in rad; NaN beyond the ends. The phase must be known."""
        assert self.phase is not None
        return _read(self.frequency, self.phase, frequency)

    def at(self, frequency: Real) -> Complex:
        """Pressure in Pa, complex; NaN beyond the ends. The phase must be known."""
        size = REFERENCE * 10 ** (self.level_at(frequency) / 20)
        return np.asarray(size * np.exp(1j * self.phase_at(frequency)))

    def mean(self, low: float, high: float) -> float:
        """Mean level in dB over [low, high] Hz, trapezoids over ln f with the ends."""
        return mean_over(self.frequency, self.level, low, high)


def _read(points: Real, values: Real, frequency: Real) -> Real:
    x, ends = np.log(frequency), np.log(points)
    slack = 1e-9
    found = np.interp(x, ends, values)
    return np.where((x < ends[0] - slack) | (x > ends[-1] + slack), np.nan, found)


def response_of(frequency: Real, level: Real, degrees: Real | None) -> Response:
    """A response from level in dB and phase in degrees, wrapped or not.

    Unwrapping goes up from the lowest point, each step brought into (-180, 180] degrees.
    """
    phase = None if degrees is None else unwrapped(np.radians(degrees))
    return Response(np.asarray(frequency), np.asarray(level), phase)


def response_from(frequency: Real, pressure: Complex) -> Response:
    """A response from complex pressures in Pa."""
    level = 20 * np.log10(np.maximum(np.abs(pressure), 1e-30) / REFERENCE)
    return Response(np.asarray(frequency), level, unwrapped(np.angle(pressure)))


def unwrapped(phase: Real) -> Real:
    """Phase in rad without jumps, going up from its first point; steps lie in (-pi, pi]."""
    steps = np.diff(phase)
    steps = np.pi - np.mod(np.pi - steps, 2 * np.pi)
    return np.concatenate((phase[:1], phase[0] + np.cumsum(steps)))


def principal(phase: Real) -> Real:
    """Phase in rad brought into (-pi, pi]."""
    return np.asarray(np.pi - np.mod(np.pi - np.asarray(phase), 2 * np.pi))


def mean_over(frequency: Real, values: Real, low: Number, high: Number) -> float:
    """Mean of ``values`` (F,) over [low, high] Hz, trapezoids over ln f, ends on straight lines."""
    return float(np.ravel(mean_band(frequency, low, high).of(values))[0])


def at_distance(response: Response, from_metres: float, to_metres: float) -> Response:
    """The same at another distance: level by 20 lg(r/r0); no flight time is in the phase."""
    shift = 20 * np.log10(from_metres / to_metres)
    return Response(response.frequency, response.level + shift, response.phase)
