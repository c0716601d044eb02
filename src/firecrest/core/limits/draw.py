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
from firecrest.core.power.boards import Boards


@dataclass(frozen=True)
class Output:
    """One amplifier output of a channel that drives ``count`` equal ones: volts and amperes."""

    voltage: Complex
    current: Complex
    count: int


@dataclass(frozen=True)
class Behind:
    """Per unit input, at the output of one converter: signal W, and A of switching losses over
    ``Draw.average``.
    """

    power: Real
    amperes: Real


@dataclass(frozen=True)
class Draw:
    """Per unit input: rms swing |V + r_out I| per channel, and what all take from the source.

    ``peak_power`` (of a sine, at the worst instant) and ``mean_power`` are W of the signal, behind
    converters over their efficiency; ``audio`` is without these. Switching losses are ``amperes``
    on the bus and ``watts`` behind converters, both over ``average``, the mean of |i| over rms.
    """

    swing: tuple[Real, ...]
    peak_power: Real
    mean_power: Real
    amperes: Real
    watts: Number
    average: float
    audio: Real
    behind: tuple[Behind, ...] = ()


def sine_draw(outputs: Sequence[Output], boards: Boards) -> Draw:
    """Of a held sine at each frequency, all channels driven from the same input.

    w(t) i(t) of rms phasors has the mean Re(W I*) and the swing |W I| about it; powers behind a
    converter count 1/efficiency. One output in ``outputs`` for each feed of ``boards``.
    """
    feeds = boards.feeds
    swung = [o.voltage + f.outputs.r_out * o.current for o, f in zip(outputs, feeds, strict=True)]
    amps = [np.abs(o.current) for o in outputs]
    swings = [np.abs(w) for w in swung]
    means = [
        o.count * (w.real * o.current.real + w.imag * o.current.imag)
        for o, w in zip(outputs, swung, strict=True)
    ]
    if len(outputs) == 1:
        about = _weighted([outputs[0].count * swings[0] * amps[0]], boards)
    else:
        turning = [o.count * w * o.current for o, w in zip(outputs, swung, strict=True)]
        about = np.abs(_weighted(turning, boards))
    mean = _weighted(means, boards)
    switched = [o.count * a for o, a in zip(outputs, amps, strict=True)]
    return Draw(
        tuple(swings),
        np.asarray(mean + about),
        np.asarray(mean),
        *_switching(switched, boards),
        SINE_AVERAGE,
        _sum(means),
        _behind(means, switched, boards),
    )


def programme_draw(
    held: Draw, outputs: Sequence[Output], weights: Real, boards: Boards, *, sine: bool
) -> Draw:
    """Of programme with the spectral ``weights``, per volt of its long-term rms.

    ``held`` is the draw of a sine at each frequency.
    """
    switched = [np.asarray(o.count * rms(o.current, weights)) for o in outputs]
    behind = _behind([np.zeros(1)] * len(outputs), switched, boards)
    return Draw(
        tuple(rms(swing, weights) for swing in held.swing),
        mean_of(held.peak_power, weights),
        mean_of(held.mean_power, weights),
        *_switching(switched, boards),
        SINE_AVERAGE if sine else PROGRAMME_AVERAGE,
        mean_of(held.audio, weights),
        tuple(
            Behind(mean_of(steady.power, weights), own.amperes)
            for steady, own in zip(held.behind, behind, strict=True)
        ),
    )


def _sum(values: Sequence[Real]) -> Real:
    return np.asarray(sum(values[1:], values[0]))


def _weighted(values: Sequence[Complex], boards: Boards) -> Complex:
    """Sum of powers at the outputs as taken from the source."""
    taken = []
    for value, feed in zip(values, boards.feeds, strict=True):
        converter = boards.converter_of(feed)
        taken.append(value if converter is None else value / converter.efficiency)
    return _sum(taken)


def _switching(switched: Sequence[Real], boards: Boards) -> tuple[Real, Number]:
    """(A on the bus, W behind converters) of switching losses k n |I|."""
    amperes: Real = np.zeros(())
    watts: Number = 0.0
    for amps, feed in zip(switched, boards.feeds, strict=True):
        lost, converter = feed.outputs.loss * amps, boards.converter_of(feed)
        if converter is None:
            amperes = amperes + lost
        else:
            watts = watts + converter.output_voltage * lost / converter.efficiency
    return np.asarray(amperes), watts


def _behind(means: Sequence[Real], switched: Sequence[Real], boards: Boards) -> tuple[Behind, ...]:
    """What the outputs behind each converter ask of it."""
    found = []
    for place in range(len(boards.converters)):
        own = [
            (power, feed.outputs.loss * amps)
            for power, amps, feed in zip(means, switched, boards.feeds, strict=True)
            if boards.boards[feed.board].converter == place
        ]
        nothing = np.zeros(1)
        found.append(
            Behind(
                _sum([nothing, *(power for power, _ in own)]),
                _sum([nothing, *(lost for _, lost in own)]),
            )
        )
    return tuple(found)


def rms(quantity: Complex | Real, weights: Real) -> Real:
    """Long-term rms sqrt(integral S |X|^2) per volt of input, shape (..., 1)."""
    return np.asarray(np.sqrt(mean_of(np.abs(quantity) ** 2, weights)))


def mean_of(quantity: Real, weights: Real) -> Real:
    """Spectral mean of a power-like ``quantity`` (..., F); shape (..., 1)."""
    return np.asarray((quantity @ weights)[..., None])


PEAK = sqrt(2.0)
