"""What is played: a held sine at each frequency of a grid and, in one place more, programme.

Quantities per unit input stand in arrays (..., F + 1): a magnitude with its long-term rms in the
last place, a power with its mean, both integrals over the programme's spectrum. Whatever holds for
one note then holds for all of them and for programme by the same line. Without a programme there
are sines alone, (..., F).
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import sqrt
from typing import Literal

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.limits.programme import Programme, weights
from firecrest.core.power.amplifier import PROGRAMME_AVERAGE, SINE_AVERAGE

Statistic = Literal["instant", "burst", "long-term"]
PEAK = sqrt(2.0)
"""Peak of a sine over its rms."""
PROGRAMME_AT = 50.0
"""Hz at which what depends on frequency is taken for programme."""
SINES, PROGRAMME = slice(None, -1), slice(-1, None)
"""The places of both."""


@dataclass(frozen=True)
class Material:
    """``above``: factors from rms to peak, burst and long-term values; ``average``: the mean of |i|
    over rms; numbers, or arrays (..., F + 1). ``weights`` (F,) is the programme's spectrum on the
    grid, None without a programme.
    """

    above: Mapping[Statistic, Number]
    average: Number
    weights: Real | None = None


HELD_SINE = Material({"instant": PEAK, "burst": 1.0, "long-term": 1.0}, SINE_AVERAGE)
"""Sines alone."""


def sines_of(duty: Number) -> Material:
    """Held sines alone whose long-term power lies ``duty`` dB below the held one."""
    above = {**HELD_SINE.above, "long-term": 10 ** (-duty / 20)}
    return Material(above, SINE_AVERAGE)


def material_of(programme: Programme, duty: Number, frequency: Real) -> Material:
    """Sines whose long-term power lies ``duty`` dB below the held one, and the programme."""
    count = len(frequency)
    average = SINE_AVERAGE if programme.kind == "sine" else PROGRAMME_AVERAGE
    return Material(
        {
            "instant": _side_by_side(PEAK, 10 ** (programme.crest / 20), count),
            "burst": _side_by_side(1.0, 10 ** (programme.burst / 20), count),
            "long-term": _side_by_side(10 ** (-duty / 20), 1.0, count),
        },
        _side_by_side(SINE_AVERAGE, average, count),
        weights(programme.kind, frequency),
    )


def _side_by_side(sines: Number, programme: Number, count: int) -> Real:
    """One number for ``count`` sines, another for programme."""
    lead = np.broadcast_shapes(np.shape(sines)[:-1], np.shape(programme)[:-1])
    whole = np.empty((*lead, count + 1))
    whole[..., SINES], whole[..., PROGRAMME] = sines, programme
    return whole


def places_of(frequency: Real, material: Material) -> Real:
    """Hz of every place; programme counts as ``PROGRAMME_AT``."""
    return frequency if material.weights is None else np.append(frequency, PROGRAMME_AT)


def with_rms(quantity: Complex | Real, material: Material) -> Real:
    """Magnitudes of a ``quantity`` (..., F) per unit input, and its long-term rms."""
    if material.weights is None:
        return np.abs(quantity)
    whole = np.empty((*quantity.shape[:-1], quantity.shape[-1] + 1))
    held = np.abs(quantity, out=whole[..., SINES])
    whole[..., -1] = np.sqrt(held**2 @ material.weights)
    return whole


def with_mean(power: Real, material: Material) -> Real:
    """A ``power`` (..., F) per unit input squared, and its mean."""
    if material.weights is None:
        return power
    whole = np.empty((*power.shape[:-1], power.shape[-1] + 1))
    whole[..., SINES], whole[..., -1] = power, power @ material.weights
    return whole
