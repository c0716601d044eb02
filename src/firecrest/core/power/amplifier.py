"""What an amplifier board really gives, read from its claims.

A claim P into R at THD T is first made clean: the power of a sine that only just does not clip.
Drop, current limit and losses then follow from the clean claims. Source: own derivation from the
Fourier series of a clipped sine; the load line is Ohm's law.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import cos, pi, sin, sqrt

import numpy as np

from firecrest.core.arrays import Number, largest, positive, root
from firecrest.core.note import Note, note

DEFAULT_THD = 0.10
DEFAULT_R_OUT = 0.25
DEFAULT_LOSS = 0.02
CURRENT_RESERVE = 1.25
SINE_AVERAGE = 2 * sqrt(2) / pi
"""Mean of |i| over rms for a sine, 0.900."""
PROGRAMME_AVERAGE = sqrt(2 / pi)
"""Mean of |i| over rms for programme (normal distribution), 0.798."""


@dataclass(frozen=True)
class Claim:
    """Power (W) into ``load`` (ohm) at ``supply`` (V or None) and ``thd`` (share or None)."""

    power: Number
    load: Number
    supply: Number | None = None
    thd: float | None = None


@dataclass(frozen=True)
class CleanClaim:
    """The clean part of a claim: power (W), peak voltage and current, and whether it can be."""

    power: Number
    load: Number
    peak_voltage: Number
    peak_current: Number
    drop: Number | None
    impossible: bool


@dataclass(frozen=True)
class AmplifierModel:
    """Clean swing is bus - r_out I - v0 (or ``share`` of the bus when one load is claimed).

    ``swing_factor`` is 1 bridge-tied, 2 single-ended (peak to peak must fit the bus), 1/share for
    one load. ``rail`` replaces the bus when the board has its own mains supply. Below ``cut_off``
    volts it stops, above ``highest`` it may break.
    """

    r_out: Number
    swing_factor: Number
    offset: Number
    current_limit: Number
    loss: Number
    idle_current: Number
    rail: Number | None
    cut_off: Number | None
    highest: Number | None = None


@dataclass(frozen=True)
class ReadClaims:
    """A board's model, its claims made clean, and where they contradict each other."""

    model: AmplifierModel
    claims: tuple[CleanClaim, ...]
    contradictions: tuple[Note, ...]
    current_limit_estimated: bool


@lru_cache(maxsize=256)
def clipping_power_ratio(thd: float) -> float:
    """Power of a hard-clipped sine over that of the largest clean one, at ``thd`` (share).

    THD is re the fundamental, all harmonics counted in both. Check: 1.0475 at 0.01, 1.2878 at 0.10.
    """
    low, high = 1e-6, pi / 2
    for _ in range(80):
        angle = 0.5 * (low + high)
        power, fundamental = _clipped_sine(angle)
        distortion = sqrt(max(power / (fundamental**2 / 2) - 1.0, 0.0))
        low, high = (angle, high) if distortion > thd else (low, angle)
    return _clipped_sine(0.5 * (low + high))[0] / 0.5


def _clipped_sine(angle: float) -> tuple[float, float]:
    """Mean square and fundamental amplitude of a sine clipped at 1 from phase ``angle`` on."""
    drive = 1.0 / sin(angle)
    segment = angle / 2 - sin(2 * angle) / 4
    power = (2 / pi) * (drive**2 * segment + (pi / 2 - angle))
    return power, (4 / pi) * (drive * segment + cos(angle))


def _clean(claim: Claim, bridged: bool, boosted: bool) -> CleanClaim:
    """One claim without its clipping, against the swing its supply allows."""
    power = claim.power / clipping_power_ratio(DEFAULT_THD if claim.thd is None else claim.thd)
    voltage = root(2 * claim.load * power)
    drop = None
    if claim.supply is not None and not boosted:
        drop = claim.supply * (1.0 if bridged else 0.5) - voltage
    impossible = drop is not None and bool(np.any(drop < 0))
    return CleanClaim(power, claim.load, voltage, voltage / claim.load, drop, impossible)


def read_claims(
    claims: Sequence[Claim],
    *,
    channels: int,
    bridged: bool,
    idle_current: Number,
    boosted: bool = False,
    own_mains: bool = False,
    current_limit: Number | None = None,
    efficiency: tuple[Number, int] | None = None,
    cut_off: Number | None = None,
    highest: Number | None = None,
) -> ReadClaims:
    """What a board with at least one claim comes to.

    ``efficiency`` is (share, index of the claim it was stated for, all channels driven); it says
    nothing where that claim names no supply.
    Figures that come out negative are reported as contradictions and taken as 0.
    """
    clean = tuple(_clean(claim, bridged, boosted) for claim in claims)
    problems = [
        note("beyond supply", power=claim.power, load=claim.load, supply=claim.supply)
        for claim, c in zip(claims, clean, strict=True)
        if c.impossible and isinstance(c.drop, float)
    ]
    rail = largest([c.peak_voltage for c in clean]) if own_mains else None
    r_out, offset, factor = _drop_line(claims, clean, (bridged, boosted), rail, problems)
    limit = current_limit
    if limit is None:
        limit = CURRENT_RESERVE * largest([c.peak_current for c in clean])
    loss: Number = DEFAULT_LOSS
    supply = None
    if efficiency is not None:
        share, place = efficiency
        supply = rail if claims[place].supply is None else claims[place].supply
    if supply is not None:
        loss = _loss(clean[place], share, channels, supply, idle_current, r_out)
        if np.any(loss < 0):
            problems.append(note("too efficient"))
            loss = positive(loss)
    model = AmplifierModel(r_out, factor, offset, limit, loss, idle_current, rail, cut_off, highest)
    return ReadClaims(model, clean, tuple(problems), current_limit is None)


def _drop_line(
    claims: Sequence[Claim],
    clean: Sequence[CleanClaim],
    made: tuple[bool, bool],
    rail: Number | None,
    problems: list[Note],
) -> tuple[Number, Number, Number]:
    """(r_out, offset on the bus, swing factor) from the drops of the claims.

    ``made`` says whether the outputs are bridge-tied, and whether the board boosts its supply.
    """
    bridged, boosted = made
    if rail is not None:
        return 0.0, 0.0, 1.0
    side = 1.0 if bridged else 2.0
    usable = [(c.peak_current, c.drop) for c in clean if c.drop is not None]
    loads = {round(float(np.mean(c.load)), 9) for c in clean if c.drop is not None}
    if len(loads) >= 2:
        slope, intercept = _line([i for i, _ in usable], [d for _, d in usable])
        if np.any(slope < 0):
            problems.append(note("drop falls"))
        if np.any(intercept < 0):
            problems.append(note("drop at idle"))
        return positive(slope), side * positive(intercept), side
    if claims[0].supply is None:
        return DEFAULT_R_OUT, 0.0, side
    top = clean[0].peak_voltage + DEFAULT_R_OUT * clean[0].peak_current
    share = claims[0].supply / top  # a claim beyond its supply gives what that can swing
    return DEFAULT_R_OUT, 0.0, share if boosted else largest((share, side))


def _line(x: Sequence[Number], y: Sequence[Number]) -> tuple[Number, Number]:
    """(slope, intercept) of the straight line through points, by least squares."""
    count = len(x)
    middle, level = sum(x) / count, sum(y) / count
    slope = sum((a - middle) * (b - level) for a, b in zip(x, y, strict=True)) / sum(
        (a - middle) ** 2 for a in x
    )
    return slope, level - slope * middle


def _loss(
    claim: CleanClaim,
    efficiency: Number,
    channels: int,
    supply: Number,
    idle: Number,
    r_out: Number,
) -> Number:
    """K of P_in = V I_idle + sum(P + r_out I^2 + k V I_avg) at the clean power of one claim."""
    current = claim.peak_current / sqrt(2)
    lost = claim.power / efficiency - supply * idle / channels - claim.power - r_out * current**2
    return lost / (supply * SINE_AVERAGE * current)
