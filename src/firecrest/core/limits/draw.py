"""What the signal asks of amplifier and bus, per unit input: of held sines and of programme."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.limits.material import Material, with_mean, with_rms
from firecrest.core.power.boards import Boards


@dataclass(frozen=True)
class Output:
    """One amplifier output of a channel that drives ``count`` equal ones: volts and amperes."""

    voltage: Complex
    current: Complex
    count: int

    def of(self, places: Real) -> "Output":
        """The same at some of its frequencies."""
        volts = self.voltage[..., places] if self.voltage.ndim else self.voltage
        return Output(volts, self.current[..., places], self.count)

    @property
    def watts(self) -> Real:
        """Mean power Re(V I*) of one output."""
        v, i = self.voltage, self.current
        return np.asarray(i.real * v.real + i.imag * v.imag)


@dataclass(frozen=True)
class Behind:
    """Per unit input, at the output of one converter: signal W, and A of switching losses over
    ``Draw.average``.
    """

    power: Real
    amperes: Real


@dataclass(frozen=True)
class Draw:
    """What a material asks per unit input, (..., F + 1): of each channel's outputs ``volts``,
    ``currents`` and ``swing`` |V + r_out I|, and what all take from the source.

    ``peak_power`` (of a sine, at the worst instant) and ``mean_power`` are W of the signal, behind
    converters over their efficiency; ``audio`` is without these. Switching losses are ``amperes``
    on the bus and ``watts`` behind converters, both over ``average``, the mean of |i| over rms.
    """

    volts: tuple[Real, ...]
    currents: tuple[Real, ...]
    swing: tuple[Real, ...]
    peak_power: Real
    mean_power: Real
    amperes: Real
    watts: Number
    average: Number
    audio: Real
    behind: tuple[Behind, ...] = ()

    def of(self, places: slice) -> "Draw":
        """The part of sines or of programme."""

        def _part(value: Number) -> Number:
            return value[..., places] if isinstance(value, np.ndarray) else value

        def _parts(values: tuple[Real, ...]) -> tuple[Real, ...]:
            return tuple(value[..., places] for value in values)

        return Draw(
            _parts(self.volts),
            _parts(self.currents),
            _parts(self.swing),
            self.peak_power[..., places],
            self.mean_power[..., places],
            self.amperes[..., places],
            _part(self.watts),
            _part(self.average),
            self.audio[..., places],
            tuple(Behind(b.power[..., places], b.amperes[..., places]) for b in self.behind),
        )


def draw_of(outputs: Sequence[Output], boards: Boards, material: Material) -> Draw:
    """What all channels, driven from the same input, draw; one output for each of the feeds.

    w(t) i(t) of rms phasors has the mean Re(W I*) and the swing |W I| about it, W = V + r_out I;
    |W|^2 = |V|^2 + 2 r_out Re(V I*) + r_out^2 |I|^2, which holds of means too. Powers behind a
    converter count 1/efficiency.
    """
    resistances = [f.outputs.r_out for f in boards.feeds]
    volts = tuple(with_rms(o.voltage, material) for o in outputs)
    currents = tuple(with_rms(o.current, material) for o in outputs)
    swings, means = [], []
    for o, r, v, i in zip(outputs, resistances, volts, currents, strict=True):
        power, lost = with_mean(o.watts, material), r * i**2
        swings.append(np.sqrt(np.maximum(v**2 + r * (2 * power + lost), 0.0)))
        means.append(o.count * (power + lost))
    about = with_mean(_about(outputs, boards, swings, currents), material)
    mean = _weighted(means, boards)
    switched = [o.count * i for o, i in zip(outputs, currents, strict=True)]
    return Draw(
        volts,
        currents,
        tuple(swings),
        np.asarray(mean + about),
        np.asarray(mean),
        *_switching(switched, boards),
        material.average,
        _sum(means),
        _behind(means, switched, boards),
    )


def _about(
    outputs: Sequence[Output], boards: Boards, swings: Sequence[Real], currents: Sequence[Real]
) -> Real:
    """Swing of the power of all outputs about its mean at each frequency, (..., F)."""
    count = outputs[0].current.shape[-1]
    if len(outputs) == 1:
        alone = outputs[0].count * swings[0][..., :count] * currents[0][..., :count]
        return _weighted([alone], boards)
    turning = [
        o.count * (o.voltage + f.outputs.r_out * o.current) * o.current
        for o, f in zip(outputs, boards.feeds, strict=True)
    ]
    return np.abs(_weighted(turning, boards))


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
    direct: list[Real] = []
    watts: Number = 0.0
    for amps, feed in zip(switched, boards.feeds, strict=True):
        lost, converter = feed.outputs.loss * amps, boards.converter_of(feed)
        if converter is None:
            direct.append(lost)
        else:
            watts = watts + converter.output_voltage * lost / converter.efficiency
    return _sum(direct or [np.zeros_like(switched[0])]), watts


def _behind(means: Sequence[Real], switched: Sequence[Real], boards: Boards) -> tuple[Behind, ...]:
    """What the outputs behind each converter ask of it."""
    found, nothing = [], np.zeros_like(switched[0])
    for place in range(len(boards.converters)):
        own = [
            (power, feed.outputs.loss * amps)
            for power, amps, feed in zip(means, switched, boards.feeds, strict=True)
            if boards.boards[feed.board].converter == place
        ]
        powers, losses = [power for power, _ in own], [lost for _, lost in own]
        found.append(Behind(_sum(powers or [nothing]), _sum(losses or [nothing])))
    return tuple(found)
