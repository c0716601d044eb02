"""The eight limits: the largest drive that each element of a design allows, per frequency.

Instant limits compare sine peaks, sqrt2 times the rms transfer; the coil is judged by its
long-term power, which programme of the same peak takes 10^(-D/10) of.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.limits.bus import average_current_limit, current_limits, long_term, swing_limit
from firecrest.core.limits.draw import PEAK, Draw, Output, sine_draw
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.source import Source


@dataclass(frozen=True)
class Transfers:
    """Answers per unit input after the voice, rms, arrays (..., F); one entry per element.

    ``blocks`` holds magnitudes at the input and output of each block, (..., blocks, F).
    """

    frequency: Real
    pressure: Complex
    outputs: tuple[Output, ...]
    blocks: tuple[Real, ...]
    coil_current: tuple[Complex, ...]
    excursion: tuple[Complex, ...]
    radiator_excursion: tuple[Complex, ...]
    port_speed: tuple[Complex, ...]


@dataclass(frozen=True)
class Ratings:
    """What the parts bear, in SI peaks and watts; None where a figure is not known or not set.

    One entry per driver group, radiator, port and channel. ``full_scale`` is peak volts at the
    amplifier outputs for 0 dBFS, ``limiter`` the threshold there.
    """

    x_max: tuple[Number | None, ...]
    coil_power: tuple[Number | None, ...]
    coil_resistance: tuple[Number, ...]
    radiator_travel: tuple[Number | None, ...]
    port_speed: tuple[Number, ...]
    limiter: tuple[Number | None, ...]
    full_scale: Number | None


@dataclass(frozen=True)
class Limit:
    """One element's limit: ``factor`` g(f) on the unit input, one letter ``code``.

    ``pack`` marks where a swing limit is the pack's doing (code P instead of V); ``index`` is
    the place of the part among its kind.
    """

    name: str
    code: str
    factor: Real
    index: int = 0
    pack: Real | None = None


def spare(limit: Number, used: Real) -> Real:
    """limit/used; infinite where nothing is used: a still element never gives out.

    Also where nothing is left of the limit itself (0/0): what is never asked for is not missed.
    """
    used = np.asarray(used, dtype=np.float64)
    still = used == 0
    return np.asarray(np.where(still, np.inf, limit / np.where(still, 1.0, used)))


def _factor(limit: Number, transfer: Complex | Real, scale: float = PEAK) -> Real:
    """Factor on the unit input at which ``scale`` |transfer| reaches ``limit``."""
    return spare(limit, scale * np.abs(transfer))


def _mechanical(transfers: Transfers, ratings: Ratings) -> list[Limit]:
    """Travel of cones and radiators, air speed in ports."""
    groups = (
        ("cone", "C", ratings.x_max, transfers.excursion),
        ("radiator", "R", ratings.radiator_travel, transfers.radiator_excursion),
        ("port", "U", ratings.port_speed, transfers.port_speed),
    )
    return [
        Limit(name, code, _factor(limit, moved), index)
        for name, code, limits, values in groups
        for index, (limit, moved) in enumerate(zip(limits, values, strict=True))
        if limit is not None
    ]


def _coils(transfers: Transfers, ratings: Ratings, duty: Number) -> list[Limit]:
    """Heat of each coil: I^2 Re at 20 C against its rated power."""
    return [
        Limit("coil", "H", long_term(duty) * _factor(np.sqrt(power / resistance), current, 1.0), i)
        for i, (power, resistance, current) in enumerate(
            zip(ratings.coil_power, ratings.coil_resistance, transfers.coil_current, strict=True)
        )
        if power is not None
    ]


def _signal(transfers: Transfers, ratings: Ratings) -> list[Limit]:
    """Digital full scale at every block of every channel, and the limiters."""
    limits = []
    for index, (rows, output, threshold) in enumerate(
        zip(transfers.blocks, transfers.outputs, ratings.limiter, strict=True)
    ):
        if ratings.full_scale is not None:
            loudest = np.max(rows, axis=-2)
            limits.append(Limit("full scale", "L", _factor(ratings.full_scale, loudest), index))
        if threshold is not None:
            limits.append(Limit("limiter", "L", _factor(threshold, output.voltage), index))
    return limits


def electrical_limits(
    draw: Draw, outputs: Sequence[Output], amplifier: AmplifierModel, source: Source, duty: Number
) -> list[Limit]:
    """Swing, amplifier current, and every current of the source."""
    swing, pack = swing_limit(draw, amplifier, source)
    limits = [Limit("swing", "V", swing, pack=pack)]
    limits += [
        Limit(name, "P", factor) for name, factor in current_limits(draw, amplifier, source).items()
    ]
    if source.continuous is not None:
        rating = average_current_limit(draw, amplifier, source, source.continuous)
        limits.append(Limit("supply rating", "P", long_term(duty) * rating))
    limits += [
        Limit("amplifier current", "A", _factor(amplifier.current_limit, o.current), index)
        for index, o in enumerate(outputs)
    ]
    return limits


def signal_and_motion_limits(transfers: Transfers, ratings: Ratings, duty: Number) -> list[Limit]:
    """The limits that do not depend on charge."""
    return [
        *_mechanical(transfers, ratings),
        *_coils(transfers, ratings, duty),
        *_signal(transfers, ratings),
    ]


def all_limits(
    transfers: Transfers, ratings: Ratings, amplifier: AmplifierModel, source: Source, duty: Number
) -> tuple[Limit, ...]:
    """Every known limit of a held sine, electrical ones first.

    ``duty`` (dB) is by how much long-term power lies below that of the sine; 0 is a steady tone.
    """
    draw = sine_draw(transfers.outputs, amplifier.r_out)
    return (
        *electrical_limits(draw, transfers.outputs, amplifier, source, duty),
        *signal_and_motion_limits(transfers, ratings, duty),
    )
