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

    power: float
    load: float
    supply: float | None = None
    thd: float | None = None


@dataclass(frozen=True)
class CleanClaim:
    """The clean part of a claim: power (W), peak voltage and current, and whether it can be."""

    power: float
    load: float
    peak_voltage: float
    peak_current: float
    drop: float | None
    impossible: bool


@dataclass(frozen=True)
class AmplifierModel:
    """Clean swing is bus - r_out I - v0 (or ``share`` of the bus when one load is claimed).

    ``swing_factor`` is 1 bridge-tied, 2 single-ended (peak to peak must fit the bus), 1/share for
    one load. ``rail`` replaces the bus when the board has its own mains supply.
    """

    r_out: float
    swing_factor: float
    offset: float
    current_limit: float
    current_limit_estimated: bool
    loss: float
    idle_current: float
    rail: float | None
    cut_off: float | None
    claims: tuple[CleanClaim, ...]
    contradictions: tuple[str, ...]


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
    voltage = sqrt(2 * claim.load * power)
    drop = None
    if claim.supply is not None and not boosted:
        drop = claim.supply * (1.0 if bridged else 0.5) - voltage
    impossible = drop is not None and drop < 0
    return CleanClaim(power, claim.load, voltage, voltage / claim.load, drop, impossible)


def read_claims(
    claims: Sequence[Claim],
    *,
    channels: int,
    bridged: bool,
    idle_current: float,
    boosted: bool = False,
    own_mains: bool = False,
    current_limit: float | None = None,
    efficiency: tuple[float, int] | None = None,
    cut_off: float | None = None,
) -> AmplifierModel:
    """Model of a board with at least one claim.

    ``efficiency`` is (share, index of the claim it was stated for, all channels driven).
    Figures that come out negative are reported as contradictions and taken as 0.
    """
    clean = tuple(_clean(claim, bridged, boosted) for claim in claims)
    problems = [
        f"{claim.power:g} W into {claim.load:g} Ω is more than {claim.supply:g} V can swing"
        for claim, c in zip(claims, clean, strict=True)
        if c.impossible
    ]
    rail = max(c.peak_voltage for c in clean) if own_mains else None
    r_out, offset, factor = _drop_line(claims, clean, bridged, rail, problems)
    limit = current_limit or CURRENT_RESERVE * max(c.peak_current for c in clean)
    loss = DEFAULT_LOSS
    if efficiency is not None:
        supply = claims[efficiency[1]].supply or rail or clean[efficiency[1]].peak_voltage
        loss = _loss(clean[efficiency[1]], efficiency[0], channels, supply, idle_current, r_out)
        if loss < 0:
            problems.append("the efficiency is higher than the drop allows")
            loss = 0.0
    return AmplifierModel(
        r_out=r_out,
        swing_factor=factor,
        offset=offset,
        current_limit=limit,
        current_limit_estimated=current_limit is None,
        loss=loss,
        idle_current=idle_current,
        rail=rail,
        cut_off=cut_off,
        claims=clean,
        contradictions=tuple(problems),
    )


def _drop_line(
    claims: Sequence[Claim],
    clean: Sequence[CleanClaim],
    bridged: bool,
    rail: float | None,
    problems: list[str],
) -> tuple[float, float, float]:
    """(r_out, offset on the bus, swing factor) from the drops of the claims."""
    if rail is not None:
        return 0.0, 0.0, 1.0
    side = 1.0 if bridged else 2.0
    usable = [(c.peak_current, c.drop) for c in clean if c.drop is not None]
    if len({round(c.load, 9) for c in clean if c.drop is not None}) >= 2:
        slope, intercept = np.polyfit([i for i, _ in usable], [d for _, d in usable], 1)
        if slope < 0:
            problems.append("the drop falls with current: the claims disagree")
        if intercept < 0:
            problems.append("the claims leave less than no drop at idle")
        return max(float(slope), 0.0), side * max(float(intercept), 0.0), side
    if claims[0].supply is None:
        return DEFAULT_R_OUT, 0.0, side
    top = clean[0].peak_voltage + DEFAULT_R_OUT * clean[0].peak_current
    return DEFAULT_R_OUT, 0.0, claims[0].supply / top


def _loss(
    claim: CleanClaim, efficiency: float, channels: int, supply: float, idle: float, r_out: float
) -> float:
    """K of P_in = V I_idle + sum(P + r_out I^2 + k V I_avg) at the clean power of one claim."""
    current = claim.peak_current / sqrt(2)
    lost = claim.power / efficiency - supply * idle / channels - claim.power - r_out * current**2
    return lost / (supply * SINE_AVERAGE * current)
