"""Minimum phase of a level, what a measured phase has beyond it, and when a way arrives.

Source: Bode, Network Analysis and Feedback Amplifier Design (1945), the gain-phase integral;
Heyser, JAES 19 (1971) 734; Preis, JAES 30 (1982) 774 (excess phase).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.voice.response import Response, unwrapped

NEPER = np.log(10) / 20 / np.log(2)
"""Neper per unit of ln f of a slope of 1 dB an octave."""
LOW_TAILS = (0.0, 30.0)
HIGH_TAILS = (-60.0, 0.0)
"""Slopes in dB an octave between which a tail is held."""
DOUBTFUL = np.radians(30.0)
"""An arrival whose phase is off a whole half turn by more is doubtful."""


@dataclass(frozen=True)
class Tails:
    """Slopes in dB an octave by which a level goes on below its first and above its last point."""

    low: float
    high: float


def tails_of(curve: Response) -> Tails:
    """Slopes of the least-squares lines through the points of the outermost octaves.

    Held within what closed, vented and other boxes do at the bottom, and roll-offs at the top.
    """
    f = curve.frequency
    first = _slope(curve, f <= 2 * f[0] * (1 + 1e-12))
    last = _slope(curve, f >= f[-1] / 2 * (1 - 1e-12))
    return Tails(float(np.clip(first, *LOW_TAILS)), float(np.clip(last, *HIGH_TAILS)))


def _slope(curve: Response, among: Real) -> float:
    x, y = np.log2(curve.frequency[among]), curve.level[among]
    if len(x) < 2:
        return 0.0
    x = x - x.mean()
    return float(np.sum(x * y) / np.sum(x * x))


def _turn(u: Real) -> Real:
    """G(u), the integral of ln coth(|u|/2): sign(u) (pi^2/4 - Li2(x) + Li2(-x)), x = e^-|u|."""
    from scipy.special import spence

    x = np.exp(-np.abs(u))
    return np.asarray(np.sign(u) * (np.pi**2 / 4 - spence(1 - x) + spence(1 + x)))


@lru_cache(maxsize=64)
def _turns(points: bytes, places: bytes) -> Real:
    """What a slope of each piece of a level turns at each place, (places, points + 1), over pi."""
    u = np.log(np.frombuffer(points))[None, :] - np.log(np.frombuffer(places))[:, None]
    ends = np.full((len(u), 1), np.pi**2 / 4)
    turn = np.diff(np.concatenate((-ends, _turn(u), ends), axis=1), axis=1) / np.pi
    turn.flags.writeable = False
    return turn


def phase_of_level(points: Real, level: Real, frequency: Real, tails: Tails) -> Real:
    """Minimum phase in rad at ``frequency`` (Hz, (P,)) of a ``level`` (..., F) at ``points`` (Hz).

    Exact for a level of straight lines over ln f: each piece of slope s turns by
    s/pi (G(u_end) - G(u_start)), u = ln(f_end/f).
    """
    turns = _turns(
        np.ascontiguousarray(points, dtype=np.float64).tobytes(),
        np.ascontiguousarray(frequency, dtype=np.float64).tobytes(),
    )
    inner = np.diff(level, axis=-1) / np.diff(np.log2(points))
    outer = np.ones((*level.shape[:-1], 1))
    slopes = np.concatenate((tails.low * outer, inner, tails.high * outer), axis=-1)
    return np.asarray(NEPER * slopes @ turns.T)


def minimum_phase(curve: Response, frequency: Real, tails: Tails | None = None) -> Real:
    """Minimum phase in rad at ``frequency`` (Hz, (P,)) of the level of a curve with its tails."""
    tails = tails_of(curve) if tails is None else tails
    return phase_of_level(curve.frequency, curve.level, frequency, tails)


def with_minimum_phase(curve: Response, tails: Tails | None = None) -> Response:
    """A level with its minimum phase."""
    return Response(curve.frequency, curve.level, minimum_phase(curve, curve.frequency, tails))


def excess_phase(curve: Response, tails: Tails | None = None) -> Real:
    """Measured less minimum phase in rad at the points of a curve, without jumps."""
    assert curve.phase is not None
    return unwrapped(curve.phase - minimum_phase(curve, curve.frequency, tails))


@dataclass(frozen=True)
class Arrival:
    """When a way arrives, in s, and whether it does turned; ``beside`` is what the phase at rest is
    off a whole half turn, in rad.
    """

    delay: float
    inverted: bool
    beside: float

    @property
    def doubtful(self) -> bool:
        """Whether the phase is no plain delay over the band."""
        return bool(abs(self.beside) > DOUBTFUL)


def arrival(curve: Response, low: float, high: float, tails: Tails | None = None) -> Arrival:
    """Arrival from the excess phase of the points between ``low`` and ``high`` Hz.

    Least squares of psi = alpha - w tau, each point alike; then tau with alpha at a half turn.
    Needs two points in the band; raises ValueError otherwise.
    """
    among = (curve.frequency >= low) & (curve.frequency <= high)
    if np.count_nonzero(among) < 2:
        raise ValueError("fewer than two points in the band")
    psi, w = excess_phase(curve, tails)[among], 2 * np.pi * curve.frequency[among]
    _, alpha = np.polyfit(w, psi, 1)
    n = round(alpha / np.pi)
    tau = -np.sum(w * (psi - n * np.pi)) / np.sum(w * w)
    return Arrival(float(tau), n % 2 == 1, float(alpha - n * np.pi))


def from_geometry(
    curve: Response, path: float, distance: float, speed: float, tails: Tails | None = None
) -> Response:
    """A curve without phase as if minimum phase at the end of a ``path`` of m.

    The listener is at ``distance``, whose flight time stays out of the phase.
    """
    phase = minimum_phase(curve, curve.frequency, tails)
    late = 2 * np.pi * curve.frequency * (path - distance) / speed
    return Response(curve.frequency, curve.level, phase - late)


def path_to(place: Sequence[float], distance: float, angle: float) -> float:
    """Metres from a ``place`` (right, up, forward) to a listener ``angle`` degrees to the right."""
    away = np.radians(angle)
    listener = distance * np.array([np.sin(away), 0.0, np.cos(away)])
    return float(np.linalg.norm(listener - np.array(place)))
