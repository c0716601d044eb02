"""The acoustic promises: loudness, bass reach, low-note check and programme level.

All definitions are in docs/physics.md, "Promises". Arrays here are of one design, shape (F,).
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.driver import REFERENCE_PRESSURE
from firecrest.core.arrays import Real, decibel
from firecrest.core.limits.bus import average_current_limit, current_limits, swing_limit
from firecrest.core.limits.draw import PEAK, programme_draw, rms
from firecrest.core.limits.elements import Limit, Ratings, Transfers, spare
from firecrest.core.limits.programme import SINE_FREQUENCY, Programme
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.source import Source

LOWEST = 5.0
LOW_NOTE_FROM = 20.0
TOP = 500.0


@dataclass(frozen=True)
class Loudness:
    """Level in dB, its margin to the target, and where and by which limit it is held."""

    level: float
    margin: float
    frequency: float
    limit: int
    point: int


@dataclass(frozen=True)
class Reach:
    """Bass reach at one drop: frequency in Hz or None; ``note`` says what kind of answer.

    ``note``: "" a crossing, "5 Hz or lower", "inside the band", "none". ``missing`` is the
    smallest missing dB where there is none.
    """

    frequency: float | None
    note: str = ""
    missing: float = 0.0


@dataclass(frozen=True)
class LowNote:
    """Held-note check: smallest margin (dB), where, by which limit, and the cure if needed."""

    margin: float
    frequency: float
    limit: int
    by_part: Mapping[str, tuple[float, float]]
    high_pass: float | None

    @property
    def passed(self) -> bool:
        """Whether cone, radiator and port stay within their limits."""
        return self.margin >= 0


@dataclass(frozen=True)
class ProgrammeLevel:
    """Highest long-term level in dB and what holds it; ``by_limit`` maps names to levels."""

    level: float
    name: str
    code: str
    by_limit: Mapping[str, float]
    unit_level: float


def at(frequency: Real, values: Real, where: float) -> float:
    """``values`` at ``where`` Hz, straight lines over ln f."""
    return float(np.interp(np.log(where), np.log(frequency), values))


def promised_shape(frequency: Real, corner: float, drop: float) -> Real:
    """Promise shape T in dB: 20 lg(x^4/(1+x^4)), -``drop`` dB at ``corner`` Hz."""
    f0 = corner * (10 ** (drop / 20) - 1) ** 0.25
    x4 = (np.asarray(frequency) / f0) ** 4
    return np.asarray(20 * np.log10(x4 / (1 + x4)))


def upper_edge(longest_inner: float, speed: float, lowest_low_pass: float | None) -> float:
    """f_hi in Hz: up to where loudness is judged."""
    edges = [TOP, speed / (2 * longest_inner)]
    if lowest_low_pass is not None:
        edges.append(0.7 * lowest_low_pass)
    return min(edges)


def loudness(
    frequency: Real,
    level: Real,
    first: Real,
    target: float,
    corner: float,
    drop: float,
    f_hi: float,
) -> Loudness | None:
    """Headline loudness over [corner, f_hi]; None when that band is empty."""
    if f_hi <= corner:
        return None
    inside = frequency[(frequency > corner) & (frequency < f_hi)]
    band = np.array([corner, *inside, f_hi])
    top = _silent(np.interp(np.log(band), np.log(frequency), level))
    margin = top - target - promised_shape(band, corner, drop)
    worst = int(np.argmin(margin))
    point = int(np.argmin(np.abs(np.log(frequency / band[worst]))))
    return Loudness(
        target + float(margin[worst]),
        float(margin[worst]),
        float(band[worst]),
        int(first[point]),
        point,
    )


def _silent(level: Real) -> Real:
    """Levels read between points of which one is -inf, without the NaN of 0 x inf: -inf."""
    return np.asarray(np.where(np.isnan(level), -np.inf, level))


def loudness_levels(
    frequency: Real, level: Real, target: float, corner: float, drop: float, f_hi: float
) -> Real:
    """Headline loudness in dB of many ceilings ``level`` (designs, F) at once; (designs,).

    The same figure as ``loudness``; -inf where the band is empty.
    """
    if f_hi <= corner:
        return np.full(level.shape[0], -np.inf)
    within = (frequency > corner) & (frequency < f_hi)
    ends = np.array([corner, f_hi])
    x = np.log(frequency)
    place = np.clip(np.searchsorted(x, np.log(ends)), 1, len(x) - 1)
    share = (np.log(ends) - x[place - 1]) / (x[place] - x[place - 1])
    with np.errstate(invalid="ignore"):
        at_ends = _silent(level[:, place - 1] * (1 - share) + level[:, place] * share)
    margin = np.concatenate(
        [
            level[:, within] - promised_shape(frequency[within], corner, drop),
            at_ends - promised_shape(ends, corner, drop),
        ],
        axis=1,
    )
    return np.asarray(margin.min(axis=1))


def reference_band(corner: float, lowest_low_pass: float | None) -> tuple[float, float]:
    """[f_a, f_b] over which the response is averaged as the reference of bass reach."""
    high = min(8 * corner, TOP)
    if lowest_low_pass is not None:
        high = min(high, 0.7 * lowest_low_pass)
    return min(2 * corner, high / np.sqrt(2)), high


def band_mean(frequency: Real, level: Real, low: float, high: float) -> float:
    """Mean of ``level`` (dB) over ln f on [low, high], by trapezoids."""
    inside = frequency[(frequency > low) & (frequency < high)]
    x = np.log(np.array([low, *inside, high]))
    y = np.interp(x, np.log(frequency), level)
    return float(np.trapezoid(y, x) / (x[-1] - x[0]))


def crossing(frequency: Real, values: Real, drop: float, f_a: float) -> Reach:
    """First crossing of ``values`` = -``drop`` going down from ``f_a``; see ``Reach.note``."""
    low = values + drop
    start = at(frequency, low, f_a)
    below = frequency < f_a
    if start < 0:
        x = np.array([f_a, *frequency[frequency > f_a]])
        y = np.array([start, *low[frequency > f_a]])
        up = np.nonzero(y[1:] >= 0)[0]
        if len(up) == 0:
            return Reach(None, "none", float(-np.max(y)))
        return Reach(_between(x, y, int(up[0])), "inside the band")
    x = np.array([*frequency[below], f_a])
    y = np.array([*low[below], start])
    down = np.nonzero(y < 0)[0]
    if len(down) == 0 or x[down[-1]] < LOWEST:
        return Reach(float(LOWEST), f"{LOWEST:g} Hz or lower")
    return Reach(_between(x, y, int(down[-1])))


def _between(x: Real, y: Real, place: int) -> float:
    """Zero of ``y`` between ``place`` and the next point, on ln ``x``."""
    a, b = np.log(x[place]), np.log(x[place + 1])
    share = y[place] / (y[place] - y[place + 1])
    return float(np.exp(a + share * (b - a)))


def low_note(
    frequency: Real,
    limits: Sequence[Limit],
    input_drive: float,
    programme: Programme,
    corner: float,
) -> LowNote | None:
    """Held-note check from 20 Hz to ``corner`` at ``input_drive`` (V rms of the reference sine).

    A note at f lies 10 lg(1 + (f_s/f)^4) dB lower. The cure is the lowest second-order
    Butterworth high-pass x^4/(1+x^4) that gives every note back what it lacks, closed form.
    None when no limit of motion is known.
    """
    moving = [(k, limit) for k, limit in enumerate(limits) if limit.code in "CRU"]
    if not moving:
        return None
    if programme.kind == "sine":
        notes = np.array([SINE_FREQUENCY])
    else:
        low = min(LOW_NOTE_FROM, corner)
        inside = frequency[(frequency > low) & (frequency < corner)]
        notes = np.array([low, *inside, corner])
    softer = 10 * np.log10(1 + (programme.low_corner / notes) ** 4)
    margins = [
        np.interp(np.log(notes), np.log(frequency), decibel(limit.factor))
        - decibel(input_drive)
        + softer
        for _, limit in moving
    ]
    worst_of = [int(np.argmin(m)) for m in margins]
    by_part: dict[str, tuple[float, float]] = {}
    for (_, limit), m, w in zip(moving, margins, worst_of, strict=True):
        if limit.name not in by_part or m[w] < by_part[limit.name][0]:
            by_part[limit.name] = (float(m[w]), float(notes[w]))
    lowest = int(np.argmin([m[w] for m, w in zip(margins, worst_of, strict=True)]))
    margin = float(margins[lowest][worst_of[lowest]])
    needed = np.min(margins, axis=0)
    return LowNote(
        margin,
        float(notes[worst_of[lowest]]),
        moving[lowest][0],
        by_part,
        None if margin >= 0 else _high_pass(notes, needed, corner),
    )


def _high_pass(notes: Real, margin: Real, corner: float) -> float | None:
    """Lowest second-order Butterworth corner that lifts every margin to 0; None: none does."""
    short = margin < 0
    left = 10 ** (margin[short] / 10)
    if not np.all(left > 0):
        return None  # nothing is left of a limit: no filter helps
    corners = notes[short] * ((1 - left) / left) ** 0.25
    needed = max(float(np.max(corners)), LOWEST)
    return needed if needed <= corner else None


Volts = dict[tuple[str, str], Real]


def programme_level(
    transfers: Transfers,
    ratings: Ratings,
    amplifier: AmplifierModel,
    source: Source,
    programme: Programme,
    weights: Real,
) -> ProgrammeLevel:
    """Highest long-term rms of one design; see ``programme_volts``."""
    volts = programme_volts(transfers, ratings, amplifier, source, programme, weights)
    return highest_level(
        {key: float(v[0]) for key, v in volts.items()}, unit_level(transfers, weights)
    )


def unit_level(transfers: Transfers, weights: Real) -> float:
    """Long-term level in dB of programme of 1 V rms at the input."""
    return float(decibel(rms(transfers.pressure, weights)[0] / REFERENCE_PRESSURE))


def highest_level(volts: Mapping[tuple[str, str], float], unit: float) -> ProgrammeLevel:
    """The smallest of the volts each limit allows, as a level."""
    by_limit: dict[str, float] = {}
    for (name, _), v in volts.items():
        by_limit[name] = min(unit + float(decibel(v)), by_limit.get(name, np.inf))
    name, code = min(volts, key=lambda key: volts[key])
    return ProgrammeLevel(by_limit[name], name, code, by_limit, unit)


def programme_volts(
    transfers: Transfers,
    ratings: Ratings,
    amplifier: AmplifierModel,
    source: Source,
    programme: Programme,
    weights: Real,
) -> Volts:
    """V rms of programme that each limit allows, by (name, code); arrays of shape (..., 1).

    Each limit is met by the quantity's own spectral rms times the programme's crest (instant),
    burst (source currents) or 1 (long-term): one common crest, an approximation.
    """
    draw = programme_draw(transfers.outputs, amplifier.r_out, weights, programme.kind == "sine")
    crest, burst = 10 ** (programme.crest / 20), 10 ** (programme.burst / 20)
    volts: Volts = {}

    def note(name: str, code: str, value: Real) -> None:
        volts[name, code] = np.minimum(value, volts.get((name, code), np.inf))

    swing, pack = swing_limit(draw, amplifier, source)
    note("swing", "V", np.where(pack, np.inf, swing) * PEAK / crest)
    note("swing", "P", np.where(pack, swing, np.inf) * PEAK / crest)
    for name, value in current_limits(draw, amplifier, source).items():
        note(name, "P", value * (PEAK / crest if name == "collapse" else 1 / burst))
    if source.continuous is not None:
        rating = average_current_limit(draw, amplifier, source, source.continuous)
        note("supply rating", "P", rating)
    for output in transfers.outputs:
        current = rms(output.current, weights)
        note("amplifier current", "A", spare(amplifier.current_limit / crest, current))
    _motion(transfers, ratings, weights, crest, note)
    _signals(transfers, ratings, weights, crest, note)
    return volts


Note = Callable[[str, str, Real], None]


def _motion(
    transfers: Transfers, ratings: Ratings, weights: Real, crest: float, note: Note
) -> None:
    """Cone, radiator and port at the crest; coil heat over the long term."""
    for name, code, limits, values in (
        ("cone", "C", ratings.x_max, transfers.excursion),
        ("radiator", "R", ratings.radiator_travel, transfers.radiator_excursion),
        ("port", "U", ratings.port_speed, transfers.port_speed),
    ):
        for limit, moved in zip(limits, values, strict=True):
            if limit is not None:
                note(name, code, spare(limit / crest, rms(moved, weights)))
    for power, resistance, current in zip(
        ratings.coil_power, ratings.coil_resistance, transfers.coil_current, strict=True
    ):
        if power is not None:
            note("coil", "H", spare(np.sqrt(power / resistance), rms(current, weights)))


def _signals(
    transfers: Transfers, ratings: Ratings, weights: Real, crest: float, note: Note
) -> None:
    """Full scale at every block and the limiters, at the crest."""
    for rows, output, threshold in zip(
        transfers.blocks, transfers.outputs, ratings.limiter, strict=True
    ):
        if ratings.full_scale is not None:
            loudest = np.max(rms(rows, weights), axis=-2)
            note("full scale", "L", spare(ratings.full_scale / crest, loudest))
        if threshold is not None:
            note("limiter", "L", spare(threshold / crest, rms(output.voltage, weights)))
