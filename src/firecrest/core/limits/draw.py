"""What the signal asks of amplifier and bus, per unit input.

One ``Draw`` describes a held sine (arrays over frequency) or a programme (integrals over its
spectrum): the equations of the bus are the same.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
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

    @cached_property
    def volts(self) -> Real:
        """|voltage|."""
        return np.abs(self.voltage)

    @cached_property
    def amperes(self) -> Real:
        """|current|."""
        return np.abs(self.current)

    @cached_property
    def watts(self) -> Real:
        """Mean power Re(V I*) of one output."""
        v, i = self.voltage, self.current
        return np.asarray(i.real * v.real + i.imag * v.imag)

    def swing(self, r_out: Number) -> Real:
        """|V + r_out I|: the square is |V|^2 + 2 r_out Re(V I*) + r_out^2 |I|^2."""
        if isinstance(r_out, float) and r_out == 0.0:
            return self.volts
        square = self.volts**2 + (2 * r_out) * self.watts + (r_out**2) * self.amperes**2
        return np.asarray(np.sqrt(np.maximum(square, 0.0)))


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
    resistances = [f.outputs.r_out for f in feeds]
    swings = [o.swing(r) for o, r in zip(outputs, resistances, strict=True)]
    means = [
        o.count * (o.watts + r * o.amperes**2) for o, r in zip(outputs, resistances, strict=True)
    ]
    if len(outputs) == 1:
        about = _weighted([outputs[0].count * swings[0] * outputs[0].amperes], boards)
    else:
        turning = [
            o.count * (o.voltage + r * o.current) * o.current
            for o, r in zip(outputs, resistances, strict=True)
        ]
        about = np.abs(_weighted(turning, boards))
    mean = _weighted(means, boards)
    switched = [o.count * o.amperes for o in outputs]
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
    switched = [np.asarray(o.count * rms(o.amperes, weights)) for o in outputs]
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


def rms(magnitude: Real, weights: Real) -> Real:
    """Long-term rms sqrt(integral S |X|^2) per volt of input of ``magnitude`` |X|, (..., 1)."""
    return np.asarray(np.sqrt(mean_of(magnitude**2, weights)))


def mean_of(quantity: Real, weights: Real) -> Real:
    """Spectral mean of a power-like ``quantity`` (..., F); shape (..., 1)."""
    return np.asarray((quantity @ weights)[..., None])


PEAK = sqrt(2.0)
