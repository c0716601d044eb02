"""What the signal asks of amplifier and bus, per unit input.

One ``Draw`` describes a held sine (arrays over frequency) or a programme (integrals over its
spectrum): the equations of the bus are the same.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.power.amplifier import PROGRAMME_AVERAGE, SINE_AVERAGE


@dataclass(frozen=True)
class Output:
    """One amplifier output of a channel that drives ``count`` equal ones: volts and amperes."""

    voltage: Complex
    current: Complex
    count: int


@dataclass(frozen=True)
class Draw:
    """Per unit input: rms swing |V + r_out I| per channel, powers in W, summed rms current in A.

    ``peak_power`` is the peak of the total power of a sine; ``average`` the mean of |i| over rms.
    """

    swing: tuple[Real, ...]
    peak_power: Real
    mean_power: Real
    amperes: Real
    average: float


def sine_draw(outputs: Sequence[Output], r_out: Number) -> Draw:
    """Of a held sine at each frequency, all channels driven from the same input.

    w(t) i(t) of rms phasors has the mean Re(W I*) and the swing |W I| about it.
    """
    driven = [(o.voltage + r_out * o.current, o.current, o.count) for o in outputs]
    mean = sum(n * (w.real * i.real + w.imag * i.imag) for w, i, n in driven)
    swings, amps = [np.abs(w) for w, *_ in driven], [np.abs(i) for _, i, _ in driven]
    if len(driven) == 1:
        swing = driven[0][2] * swings[0] * amps[0]
    else:
        swing = np.abs(sum(n * w * i for w, i, n in driven))
    amperes = sum(n * i for i, (*_, n) in zip(amps, driven, strict=True))
    return Draw(
        tuple(swings), np.asarray(mean + swing), np.asarray(mean), np.asarray(amperes), SINE_AVERAGE
    )


def programme_draw(held: Draw, outputs: Sequence[Output], weights: Real, sine: bool) -> Draw:
    """Of programme with the spectral ``weights``, per volt of its long-term rms.

    ``held`` is the draw of a sine at each frequency.
    """
    amperes = sum(o.count * rms(o.current, weights) for o in outputs)
    return Draw(
        tuple(rms(swing, weights) for swing in held.swing),
        mean_of(held.peak_power, weights),
        mean_of(held.mean_power, weights),
        np.asarray(amperes),
        SINE_AVERAGE if sine else PROGRAMME_AVERAGE,
    )


def rms(quantity: Complex | Real, weights: Real) -> Real:
    """Long-term rms sqrt(integral S |X|^2) per volt of input, shape (..., 1)."""
    return np.asarray(np.sqrt(mean_of(np.abs(quantity) ** 2, weights)))


def mean_of(quantity: Real, weights: Real) -> Real:
    """Spectral mean of a power-like ``quantity`` (..., F); shape (..., 1)."""
    return np.asarray((quantity @ weights)[..., None])


PEAK = sqrt(2.0)
