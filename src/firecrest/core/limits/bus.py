"""How far the bus lets the amplifiers swing, and how much current it may be asked for.

Derivation. Per unit drive g an output needs a g + d volts of bus (a = sqrt2 |W| times the swing
factor). All boards together take P0 + b g + p g^2 watts (loads and everything behind converters)
and I0 + h g amperes (idle and switching losses on the bus). With E = Voc - R (I0 + h g) the bus
obeys V = E - R (P0 + b g + p g^2)/V. Setting V = a g + d gives a quadratic in g: its larger root is
the swing limit while V >= E/2; otherwise the bus collapses first, where
E^2 = 4 R (P0 + b g + p g^2). Exact, no iteration.
"""

from dataclasses import dataclass
from functools import reduce

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.limits.draw import Draw
from firecrest.core.limits.material import PEAK
from firecrest.core.power.boards import Boards, Feed, Standing
from firecrest.core.power.source import Source

PACK_LOSS = 10 ** (0.5 / 20)
"""A swing limit that R = 0 would raise by this factor is laid to the pack, not the amplifier."""
HALVINGS = 60


@dataclass(frozen=True)
class Bus:
    """A source with what stands on it and what is played: all that its equations need."""

    source: Source
    standing: Standing
    draw: Draw


def positive_root(square: Number, linear: Number, constant: Number) -> Real:
    """Smaller positive root of s x^2 + l x + c = 0 where c < 0; inf where there is none."""
    # The reductions by themselves: what is called around them takes twice their time.
    if np.maximum.reduce(constant, axis=None) < 0 and np.minimum.reduce(square, axis=None) > 0:
        with np.errstate(invalid="ignore"):  # no source resistance: infinite over infinite
            root = np.sqrt(linear**2 - square * (4 * constant))
            return np.asarray((-2 * constant) / (linear + root))
    square, linear, constant = np.broadcast_arrays(square, linear, constant)
    with np.errstate(divide="ignore", invalid="ignore"):
        root = np.sqrt(np.maximum(linear**2 - 4 * square * constant, 0.0))
        answer = -2 * constant / (linear + root)
        possible = (constant < 0) & (linear**2 >= 4 * square * constant) & (linear + root > 0)
    return np.where(possible, answer, np.where(constant >= 0, 0.0, np.inf))


def swing_limit(bus: Bus, boards: Boards, board: int) -> tuple[Real, Real | None]:
    """(g, pack) of one board: largest drive before an output clips or the bus collapses, and
    whether the loss against an ideal source (0.5 dB or more) is the pack's doing; None where it
    can't be.
    """
    own = [(f, s) for f, s in zip(boards.feeds, bus.draw.swing, strict=True) if f.board == board]
    rail = boards.boards[board].model.rail
    converter = boards.converter_of(own[0][0])
    if rail is None and converter is not None:
        rail = converter.output_voltage
    if rail is not None:
        return _smallest([_stiff_swing(swing, feed, rail) for feed, swing in own]), None
    real = _smallest([_bus_swing(swing, feed, bus) for feed, swing in own])
    ideal = _smallest([_stiff_swing(swing, feed, bus.source.voltage) for feed, swing in own])
    return real, np.asarray(ideal >= PACK_LOSS * real)


def _smallest(limits: list[Real]) -> Real:
    """Design by design and frequency by frequency."""
    return reduce(np.minimum, limits)


def _stiff_swing(swing: Real, feed: Feed, rail: Number) -> Real:
    """Swing limit a g + d = V of one output on a rail that nothing lowers."""
    room = np.maximum(rail - feed.outputs.offset, 0.0)
    return _divide(room, (PEAK * feed.outputs.swing_factor) * swing)


def _bus_swing(swing: Real, feed: Feed, bus: Bus) -> Real:
    """Swing limit of one output on the bus while all boards load it."""
    draw, standing, r = bus.draw, bus.standing, bus.source.resistance
    a, d = (PEAK * feed.outputs.swing_factor) * swing, feed.outputs.offset
    rh = (r * PEAK) * draw.amperes
    e = bus.source.voltage - r * standing.amperes
    square = a * (a + rh) + r * draw.peak_power
    linear = _plus(_plus(a * (2 * d - e), _times(rh, d)), r * PEAK * draw.watts)
    constant = d * (d - e) + r * standing.watts
    with np.errstate(divide="ignore", invalid="ignore"):
        g = (np.sqrt(linear**2 - square * (4 * constant)) - linear) / (2 * square)
    stands = (g > 0) & ((2 * a + rh) * g >= e - 2 * d)  # a g + d is at least half of e - rh g
    if stands.all():
        return np.asarray(g)
    return np.where(stands, g, np.where(e > d, collapse_limit(bus), 0.0))


def collapse_limit(bus: Bus) -> Real:
    """Drive at which no bus voltage can carry the power any more; inf when none.

    The smaller positive root of (Voc - R (I0 + h g))^2 = 4 R (P0 + b g + p g^2), worst instant.
    """
    return _collapse(bus, bus.draw.peak_power, PEAK)


def _collapse(bus: Bus, power: Real, average: Number) -> Real:
    """The same for a signal ``power`` and a mean of |i| over rms."""
    r, rh = bus.source.resistance, bus.source.resistance * average * bus.draw.amperes
    e = bus.source.voltage - r * bus.standing.amperes
    linear = _plus(2 * e * rh, 4 * r * average * bus.draw.watts)
    return positive_root(4 * r * power - rh**2, linear, 4 * r * bus.standing.watts - e * e)


def average_current_limit(bus: Bus, amperes: Number) -> Real:
    """Drive at which the mean current of the source reaches ``amperes`` (at most Voc/2R).

    p g^2 + (b + V h) g + P0 + V (I0 - I) = 0 with V = Voc - R I.
    """
    draw, r = bus.draw, bus.source.resistance
    with np.errstate(divide="ignore", over="ignore"):
        limit = np.minimum(amperes, np.divide(bus.source.voltage, 2 * r))
    voltage = bus.source.voltage - r * limit
    losses = _plus(voltage * draw.average * draw.amperes, draw.average * draw.watts)
    constant = voltage * bus.standing.amperes - (voltage * limit - bus.standing.watts)
    return positive_root(draw.mean_power, losses, constant)


def converter_output_limit(bus: Bus, boards: Boards, place: int, amperes: Number) -> Real:
    """Drive at which the mean current out of a converter reaches ``amperes``."""
    square, linear, idle = _output_current(bus, boards, place)
    return positive_root(square, linear, idle - amperes)


def converter_input_limit(bus: Bus, boards: Boards, place: int, amperes: Number) -> Real:
    """Drive at which the mean current into a converter reaches ``amperes``; inf where the bus
    collapses before.

    (V_out I_out/eta + its own watts) = I V(g), by halving: the left side rises with g, V falls.
    """
    converter = boards.converters[place]
    square, linear, idle = (
        converter.output_voltage / converter.efficiency * part
        for part in _output_current(bus, boards, place)
    )
    idle = idle + converter.idle_power
    ideal = positive_root(square, linear, idle - amperes * bus.source.voltage)
    collapse = _collapse(bus, bus.draw.mean_power, bus.draw.average)
    high = np.minimum(ideal, collapse)
    low, most = np.zeros_like(high), np.where(np.isfinite(high), high, 0.0)
    for _ in range(HALVINGS):
        middle = 0.5 * (low + most)
        taken = square * middle**2 + linear * middle + idle
        over = taken > amperes * _mean_voltage(bus, middle)
        low, most = np.where(over, low, middle), np.where(over, middle, most)
    reached = np.isfinite(high) & ((most < high) | (ideal <= collapse))
    return np.where(reached, most, np.inf)


def _output_current(bus: Bus, boards: Boards, place: int) -> tuple[Real, Real, Number]:
    """I_out = s g^2 + l g + idle of a converter: (s, l, idle)."""
    own, out = bus.draw.behind[place], boards.converters[place].output_voltage
    idle = sum(model.idle_current for model in boards.behind(place))
    return own.power / out, bus.draw.average * own.amperes, idle


def _mean_voltage(bus: Bus, drive: Real) -> Real:
    """The larger root of V^2 - E V + R (P0 + b g + p g^2) = 0; NaN where there is none."""
    open_voltage, power = _open_and_power(bus, drive)
    under = open_voltage**2 - 4 * bus.source.resistance * power
    return np.asarray((open_voltage + np.sqrt(np.where(under >= 0, under, np.nan))) / 2)


def _open_and_power(bus: Bus, drive: Real) -> tuple[Real, Real]:
    """(E, W besides what the current takes) of the mean at ``drive``."""
    draw, average = bus.draw, bus.draw.average
    current = bus.standing.amperes + average * draw.amperes * drive
    power = bus.standing.watts + average * draw.watts * drive + draw.mean_power * drive**2
    return np.asarray(bus.source.voltage - bus.source.resistance * current), np.asarray(power)


def mean_bus_current(bus: Bus, drive: Real) -> Real:
    """Current of the source in A averaged over the cycle at ``drive``; NaN where the bus cannot
    carry it.
    """
    current = bus.standing.amperes + bus.draw.average * bus.draw.amperes * drive
    _, power = _open_and_power(bus, drive)
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(current + power / _mean_voltage(bus, drive))


def _times(value: Real, factor: Number) -> Number:
    """A product; nothing is done by a factor of 0."""
    return 0.0 if isinstance(factor, float) and factor == 0.0 else value * factor


def _plus(value: Real, more: Number) -> Real:
    """A sum; nothing is done where there is nothing to add."""
    return value if isinstance(more, float) and more == 0.0 else value + more


def _divide(limit: Number, by: Real) -> Real:
    """limit/by; a quantity that is not there never gives out."""
    with np.errstate(divide="ignore"):
        return np.asarray(limit / by)
