"""Programme level: the highest long-term rms at which nothing gives out.

All definitions are in docs/physics.md, "Promises". Each limit is met by its own quantity's
spectral rms times the programme's crest (instant), burst (source currents) or 1 (long-term): one
common crest, an approximation.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Number, Real, decibel, root
from firecrest.core.limits.bus import average_current_limit, current_limits, swing_limit
from firecrest.core.limits.draw import PEAK, Draw, rms
from firecrest.core.limits.elements import Ratings, Transfers, spare
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.source import Source

Allowed = tuple[str, str, Real]
"""(name, code, V rms of programme that this limit allows (..., 1))."""


@dataclass(frozen=True)
class ProgrammeLevel:
    """Highest long-term level in dB and what holds it; ``by_limit`` maps names to levels."""

    level: float
    name: str
    code: str
    by_limit: Mapping[str, float]
    unit_level: float


def unit_level(pressure: Real, weights: Real) -> Real:
    """Long-term level in dB of programme of 1 V rms at the input, (..., 1)."""
    return level(rms(pressure, weights))


def highest_volts(allowed: Sequence[Allowed]) -> Real:
    """V rms of programme that the tightest limit allows, (..., 1)."""
    return np.asarray(np.min(np.broadcast_arrays(*(v for *_, v in allowed)), axis=0))


def programme_level_of(allowed: Sequence[Allowed], unit: Number) -> ProgrammeLevel:
    """Level of one design, and by limit."""
    unit = float(np.ravel(unit)[0])
    by_limit: dict[str, float] = {}
    for name, _, volts in allowed:
        reached = unit + float(decibel(np.ravel(volts)[0]))
        by_limit[name] = min(reached, by_limit.get(name, np.inf))
    name, code, _ = min(allowed, key=lambda limit: float(np.ravel(limit[2])[0]))
    return ProgrammeLevel(by_limit[name], name, code, by_limit, unit)


def allowed_volts(
    transfers: Transfers,
    ratings: Ratings,
    amplifier: AmplifierModel,
    source: Source,
    draw: Draw,
    factors: tuple[Number, Number],
    weights: Real,
) -> list[Allowed]:
    """V rms of programme that each limit allows; ``factors`` are crest and burst in dB."""
    crest, burst = (10 ** (factor / 20) for factor in factors)
    return [
        *_electrical(draw, amplifier, source, crest, burst),
        *_currents(transfers, amplifier, weights, crest),
        *_motion(transfers, ratings, weights, crest),
        *_signals(transfers, ratings, weights, crest),
    ]


def _electrical(
    draw: Draw, amplifier: AmplifierModel, source: Source, crest: Number, burst: Number
) -> Iterator[Allowed]:
    """Swing at the crest, source currents in the burst, its rating over the long term."""
    swing, pack = swing_limit(draw, amplifier, source)
    yield "swing", "V", np.where(pack, np.inf, swing) * PEAK / crest
    yield "swing", "P", np.where(pack, swing, np.inf) * PEAK / crest
    for name, value in current_limits(draw, amplifier, source).items():
        yield name, "P", value * (PEAK / crest if name == "collapse" else 1 / burst)
    if source.continuous is not None:
        rating = average_current_limit(draw, amplifier, source, source.continuous)
        yield "supply rating", "P", rating


def _currents(
    transfers: Transfers, amplifier: AmplifierModel, weights: Real, crest: Number
) -> Iterator[Allowed]:
    """Current of each output at the crest."""
    for output in transfers.outputs:
        current = rms(output.current, weights)
        yield "amplifier current", "A", spare(amplifier.current_limit / crest, current)


def _motion(
    transfers: Transfers, ratings: Ratings, weights: Real, crest: Number
) -> Iterator[Allowed]:
    """Cone, radiator and port at the crest; coil heat over the long term."""
    for name, code, limits, values in (
        ("cone", "C", ratings.x_max, transfers.excursion),
        ("radiator", "R", ratings.radiator_travel, transfers.radiator_excursion),
        ("port", "U", ratings.port_speed, transfers.port_speed),
    ):
        for limit, moved in zip(limits, values, strict=True):
            if limit is not None:
                yield name, code, spare(limit / crest, rms(moved, weights))
    for power, resistance, current in zip(
        ratings.coil_power, ratings.coil_resistance, transfers.coil_current, strict=True
    ):
        if power is not None:
            yield "coil", "H", spare(root(power / resistance), rms(current, weights))


def _signals(
    transfers: Transfers, ratings: Ratings, weights: Real, crest: Number
) -> Iterator[Allowed]:
    """Full scale at every block and the limiters, at the crest."""
    for rows, output, threshold in zip(
        transfers.blocks, transfers.outputs, ratings.limiter, strict=True
    ):
        if ratings.full_scale is not None:
            loudest = np.max(rms(rows, weights), axis=-2)
            yield "full scale", "L", spare(ratings.full_scale / crest, loudest)
        if threshold is not None:
            yield "limiter", "L", spare(threshold / crest, rms(output.voltage, weights))
