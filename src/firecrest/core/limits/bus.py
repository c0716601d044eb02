"""How far the bus lets the amplifier swing, and how much current it may be asked for.

Derivation. Per unit drive g an output needs a g + d volts of bus (a = sqrt2 |W| times the swing
factor), the loads take P_c + p1 g^2 watts at the peak of the cycle, idle and switching losses
take I_idle + h g amperes. With E = Voc - R (I_idle + h g) the bus obeys V = E - R (P_c + p1 g^2)/V.
Setting V = a g + d gives a quadratic in g: its larger root is the swing limit while V >= E/2;
otherwise the bus collapses first, where E^2 = 4 R (P_c + p1 g^2). Exact, no iteration.
"""

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.limits.draw import PEAK, Draw
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.source import Source

PACK_LOSS = 10 ** (0.5 / 20)
"""A swing limit that R = 0 would raise by this factor is laid to the pack, not the amplifier."""


def positive_root(square: Number, linear: Number, constant: Number) -> Real:
    """Smaller positive root of s x^2 + l x + c = 0 where c < 0; inf where there is none."""
    if np.all(constant < 0) and np.all(square > 0):
        with np.errstate(invalid="ignore"):  # no source resistance: infinite over infinite
            root = np.sqrt(linear**2 - 4 * square * constant)
            return np.asarray(-2 * constant / (linear + root))
    square, linear, constant = np.broadcast_arrays(square, linear, constant)
    with np.errstate(divide="ignore", invalid="ignore"):
        root = np.sqrt(np.maximum(linear**2 - 4 * square * constant, 0.0))
        answer = -2 * constant / (linear + root)
        possible = (constant < 0) & (linear**2 >= 4 * square * constant) & (linear + root > 0)
    return np.where(possible, answer, np.where(constant >= 0, 0.0, np.inf))


def swing_limit(draw: Draw, amplifier: AmplifierModel, source: Source) -> tuple[Real, Real | None]:
    """(g, pack) per channel minimum: largest drive before clipping or collapse, and whether
    the loss against an ideal source (0.5 dB or more) is the pack's doing; None where it can't be.
    """
    stiff = amplifier.rail is not None or source.converter is not None
    limits = [_channel_swing(swing, draw, amplifier, source) for swing in draw.swing]
    real = _smallest(limits)
    if stiff:
        return real, None
    ideal = _smallest([_stiff_swing(swing, amplifier, source.voltage) for swing in draw.swing])
    return real, np.asarray(ideal >= PACK_LOSS * real)


def _smallest(limits: list[Real]) -> Real:
    """Design by design and frequency by frequency."""
    if len(limits) == 1:
        return limits[0]
    return np.asarray(np.min(np.broadcast_arrays(*limits), axis=0))


def _stiff_swing(swing: Real, amplifier: AmplifierModel, bus: Number) -> Real:
    """Swing limit a g + d = V of one channel on a bus that nothing lowers."""
    room = np.maximum(bus - amplifier.offset, 0.0)
    return _divide(room, PEAK * swing * amplifier.swing_factor)


def _channel_swing(swing: Real, draw: Draw, amplifier: AmplifierModel, source: Source) -> Real:
    """Swing limit of one channel while all of them load the bus."""
    if amplifier.rail is not None:
        return _stiff_swing(swing, amplifier, amplifier.rail)
    if source.converter is not None:
        return _stiff_swing(swing, amplifier, source.converter.output_voltage)
    a, d = PEAK * swing * amplifier.swing_factor, amplifier.offset
    r = source.resistance
    rh = r * amplifier.loss * PEAK * draw.amperes
    e = source.voltage - r * amplifier.idle_current
    square = a * (a + rh) + r * draw.peak_power
    linear = a * (2 * d - e) + rh * d
    constant = d * (d - e) + r * source.other_power
    discriminant = linear**2 - 4 * square * constant
    with np.errstate(divide="ignore", invalid="ignore"):
        g = (np.sqrt(discriminant) - linear) / (2 * square)
    stands = (g > 0) & (a * g + d >= (e - rh * g) / 2)
    if stands.all():
        return np.asarray(g)
    return np.where(stands, g, np.where(e > d, collapse_limit(draw, amplifier, source), 0.0))


def collapse_limit(draw: Draw, amplifier: AmplifierModel, source: Source) -> Real:
    """Drive at which no bus voltage can carry the power any more; inf when none.

    Direct: the smaller positive root of E(g)^2 = 4 R (P_c + p1 g^2). Through a converter the
    source sees (V_out (I_idle + h g) + p1 g^2)/efficiency + P_c <= Voc^2/(4R).
    """
    p1, h = draw.peak_power, amplifier.loss * PEAK * draw.amperes
    r = source.resistance
    voltage = source.voltage
    other = source.other_power
    if source.converter is not None:
        out, eta = source.converter.output_voltage, source.converter.efficiency
        with np.errstate(divide="ignore", invalid="ignore"):
            most = np.divide(voltage**2, 4 * r) - other
        possible = positive_root(p1, out * h, out * amplifier.idle_current - eta * most)
        return np.where(np.isinf(most), np.inf, possible)
    e = voltage - r * amplifier.idle_current
    return positive_root(4 * r * p1 - (r * h) ** 2, 2 * e * r * h, 4 * r * other - e * e)


def average_current_limit(
    draw: Draw, amplifier: AmplifierModel, source: Source, amperes: Number
) -> Real:
    """Drive at which the mean bus current reaches ``amperes`` (at most Voc/2R).

    p_mean g^2 + V k I_avg g + P_c + V (I_idle - I) = 0 with V = Voc - R I; through a converter
    its output voltage carries idle and losses, and all of it counts 1/efficiency at the source.
    """
    mean = draw.mean_power
    r = source.resistance
    voltage = source.voltage
    with np.errstate(divide="ignore"):
        limit = np.minimum(amperes, np.divide(voltage, 2 * r))
    bus = voltage - r * limit
    losses = amplifier.loss * draw.average * draw.amperes
    spare = bus * limit - source.other_power
    if source.converter is not None:
        bus = np.asarray(source.converter.output_voltage)
        spare = spare * source.converter.efficiency
    return positive_root(mean, bus * losses, bus * amplifier.idle_current - spare)


def mean_bus_current(draw: Draw, amplifier: AmplifierModel, source: Source, drive: Real) -> Real:
    """Bus current in A averaged over the cycle at ``drive``; NaN where the bus cannot carry it.

    V is the larger root of V^2 - (Voc - R I) V + R P = 0 with the current I of idle and losses and
    the power P of signal and other loads; through a converter all but those loads is power/eta.
    """
    losses = amplifier.idle_current + amplifier.loss * draw.average * draw.amperes * drive
    power = draw.mean_power * drive**2
    if source.converter is not None:
        out, eta = source.converter.output_voltage, source.converter.efficiency
        losses, power = 0.0 * losses, (power + out * losses) / eta
    power = power + source.other_power
    open_voltage = source.voltage - source.resistance * losses
    under = open_voltage**2 - 4 * source.resistance * power
    with np.errstate(invalid="ignore", divide="ignore"):
        voltage = (open_voltage + np.sqrt(np.where(under >= 0, under, np.nan))) / 2
        return np.asarray(losses + power / voltage)


def _divide(limit: Number, by: Real) -> Real:
    """limit/by; a quantity that is not there never gives out."""
    with np.errstate(divide="ignore"):
        return np.asarray(limit / by)
