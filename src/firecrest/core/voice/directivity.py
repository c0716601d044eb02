"""How a way spreads: a rigid piston where nothing is measured, means over angles, beaming.

Source: Beranek, Acoustics (1954), ch. 4. A real cone beams less than a piston above ka = 3.
"""

from collections.abc import Mapping, Sequence
from math import inf, pi, sin, sqrt

import numpy as np

from firecrest.core.arrays import Complex, Real, decibel
from firecrest.core.voice.response import Response, mean_over, unwrapped

THIRD = 2 ** (1 / 6)
"""Half of a third of an octave, as a ratio."""


def piston(x: Real) -> Real:
    """2 J1(x)/x, with its sign: pressure off the axis over that on it, x = ka sin(angle)."""
    from scipy.special import j1

    x = np.asarray(x, dtype=np.float64)
    small = np.abs(x) < 1e-6
    return np.asarray(np.where(small, 1.0, 2 * j1(x) / np.where(small, 1.0, x)))


def radius_of(area: float) -> float:
    """Radius in m of the piston of an ``area`` in m2."""
    return sqrt(area / pi)


def piston_at(area: float, angle: float, frequency: Real, speed: float) -> Real:
    """The same of a piston of ``area`` m2 at ``angle`` degrees (0 to 90)."""
    return piston(2 * pi * frequency / speed * radius_of(area) * sin(np.radians(abs(angle))))


def piston_falls(area: float, angle: float, drop: float, speed: float) -> float:
    """Hz at which a piston of ``area`` m2 is ``drop`` dB down at ``angle`` degrees."""
    low, high = 1e-6, 3.83  # the first zero is at 3.8317
    while high - low > 1e-12:
        middle = (low + high) / 2
        down = decibel(piston(np.asarray(middle))) < -drop
        low, high = (low, middle) if down else (middle, high)
    return high * speed / (2 * pi * radius_of(area) * sin(np.radians(angle)))


def begins_to_beam(area: float, speed: float) -> float:
    """Hz of ka = 2."""
    return speed / (pi * radius_of(area))


def measured_falls(frequency: Real, off: Real, on: Real, drop: float) -> float:
    """Lowest Hz at which ``off`` less ``on`` (dB), averaged over a third of an octave, falls
    through -``drop``; inf where it does not.
    """
    inner = frequency[(frequency >= frequency[0] * THIRD) & (frequency <= frequency[-1] / THIRD)]
    fall = off - on
    means = np.array([mean_over(frequency, fall, f / THIRD, f * THIRD) for f in inner])
    under = np.nonzero((means[1:] < -drop) & (means[:-1] >= -drop))[0]
    if len(under) == 0:
        return float(inner[0]) if len(means) and means[0] < -drop else inf
    k = int(under[0])
    share = (-drop - means[k]) / (means[k + 1] - means[k])
    return float(inner[k] * (inner[k + 1] / inner[k]) ** share)


def between_angles(curves: Mapping[float, Response], angle: float) -> Response:
    """The curve at an ``angle`` (degrees) between measured ones: dB and phase straight over angle.

    All curves have the points of the first, or are read there. The angle must lie within them.
    """
    if angle in curves:
        return curves[angle]
    angles = sorted(curves)
    above = int(np.searchsorted(angles, angle))
    if above in (0, len(angles)):
        raise ValueError(f"nothing is measured at {angle:g} degrees")
    low, high = angles[above - 1], angles[above]
    share = (angle - low) / (high - low)
    a, b = curves[low], curves[high]
    level = a.level * (1 - share) + b.level_at(a.frequency) * share
    if a.phase is None or b.phase is None:
        return Response(a.frequency, level, None)
    step = unwrapped(np.array([a.phase[0], b.phase_at(a.frequency[:1])[0]]))[1] - a.phase[0]
    moved = b.phase_at(a.frequency) - b.phase_at(a.frequency[:1])[0] + a.phase[0] + step
    return Response(a.frequency, level, a.phase * (1 - share) + moved * share)


def cone_weights(angles: Sequence[float]) -> Real:
    """Share of the sphere that each of rising ``angles`` (degrees) stands for, round the axis.

    cos of the middle below less cos of the middle above; the first and last angle end it.
    """
    edges = np.radians(np.array(angles, dtype=np.float64))
    middles = np.concatenate((edges[:1], (edges[1:] + edges[:-1]) / 2, edges[-1:]))
    return np.asarray(np.cos(middles[:-1]) - np.cos(middles[1:]))


def power_average(pressures: Mapping[float, Complex]) -> Real:
    """Root of the mean intensity in the cone of the measured angles, Pa.

    Angles are signed degrees; where left and right exist they are averaged as powers first.
    """
    sides: dict[float, list[Real]] = {}
    for angle, pressure in pressures.items():
        sides.setdefault(abs(angle), []).append(np.abs(pressure) ** 2)
    angles = sorted(sides)
    if len(angles) == 1:
        return np.asarray(np.sqrt(np.mean(sides[angles[0]], axis=0)))
    weights = cone_weights(angles)
    powers = np.array([np.mean(sides[angle], axis=0) for angle in angles])
    return np.asarray(np.sqrt(np.tensordot(weights, powers, axes=1) / np.sum(weights)))
