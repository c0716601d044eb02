"""The ceiling as a plot: tints, promise, shortfall, and the read-out at the crosshair."""

from dataclasses import replace
from typing import SupportsFloat

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import air_of
from firecrest.assessment.voicing.heard import ways_heard
from firecrest.core.arrays import Real, decibel
from firecrest.core.limits.ceiling import code_at, margins_at
from firecrest.core.limits.loudness import promised_shape
from firecrest.core.units import THIN_SPACE, figure
from firecrest.present.plot.plot import (
    BASS,
    FULL,
    TO_BE_SEEN,
    Curve,
    Likely,
    Mark,
    Plot,
    Readout,
    Row,
    Shortfall,
    Taken,
    TintRun,
    nice_range,
    silent,
    waiting,
)
from firecrest.present.text.notes import said
from firecrest.present.text.words import decibels, limit_name

TALLEST = 50.0
FURTHER_WITHIN = 4.5


def ceiling_plot(
    assessment: Assessment, *, full: bool = False, frequency: float | None = None
) -> Plot:
    """The ceiling with tints, promise, shortfall, and the read-out at the crosshair."""
    x_range = FULL if full else BASS
    a = assessment.acoustic
    if a is None:
        return waiting("Ceiling", assessment, x_range)
    if not a.plays:
        return silent("Ceiling", assessment, x_range)
    shown = (a.frequency >= x_range[0] * 0.97) & (a.frequency <= x_range[1] * 1.03)
    top, asked = a.top.level, a.asked
    y_range, step = _ceiling_range(top[shown], asked[shown], assessment.design.brief.loudness.level)
    where = a.worst_frequency if frequency is None else frequency
    target = f"promise {assessment.design.brief.loudness.level:g}{THIN_SPACE}dB"
    return Plot(
        "Ceiling",
        "frequency",
        x_range,
        y_range,
        step,
        "dB",
        curves=(
            Curve("ceiling", a.frequency, top, "olive", 3.0),
            *_still(assessment, a),
            *_further_limits(a),
        ),
        tints=tints_of(a, top),
        promise=Curve(target, a.frequency, asked, "stripe", 2.0),
        shortfall=_shortfall(a),
        likely=_likely(assessment, a),
        readout=readout(assessment, where),
        crosshair=where,
        notes=_validity(assessment),
    )


def _likely(assessment: Assessment, a: Acoustic) -> Likely | None:
    """Where the ceiling likely is, once its doubt is known."""
    doubt = assessment.doubt
    if doubt is None or doubt.low is None or doubt.high is None:
        return None
    return Likely(a.frequency, doubt.low, doubt.high)


def tints_of(a: Acoustic, line: Real) -> tuple[TintRun, ...]:
    """What gives first, run by run, along ``line``; each run reaches to the start of the next."""
    spans = [(run, slice(run.start, run.stop + 2)) for run in a.runs]
    return tuple(
        TintRun(run.code, limit_name(a.limits[run.limit], run.code), a.frequency[s], line[s])
        for run, s in spans
    )


def _ceiling_range(top: Real, asked: Real, target: float) -> tuple[tuple[float, float], float]:
    """From 16 dB below the promise to a little above the ceiling, never over 50 dB."""
    finite = top[np.isfinite(top)]
    high = max(float(finite.max()) if len(finite) else target, target) + 1.5
    low = max(target - 18.0, high - TALLEST)
    return nice_range(low, high, (4, 6, 10), 8)


def _still(assessment: Assessment, a: Acoustic) -> tuple[Curve, ...]:
    """The ceiling without what fast air and bent parts take, where that is to be seen."""
    apart = np.abs(a.still.level - a.top.level) > TO_BE_SEEN
    if not apart.any():
        return ()
    line = np.where(apart, a.still.level, np.nan)
    at = float(a.frequency[int(np.argmax(a.still.level - a.top.level))])
    bent = assessment.design.brief.edges.large_signal
    name = "as at low level" if bent else "without turbulence"
    return (Curve(name, a.frequency, line, "ink2", 1.4, "dashed", label_at=at),)


def _further_limits(a: Acoustic) -> tuple[Curve, ...]:
    """Limits that come within 4.5 dB of the ceiling, dotted where they do."""
    found = []
    for limit in a.limits:
        line = a.sound.top_unit_level + decibel(limit.factor)
        near = (line - a.top.level < FURTHER_WITHIN) & (line > a.top.level + 1e-9)
        if near.any():
            found.append(
                Curve(
                    limit_name(limit, limit.code),
                    a.frequency,
                    np.where(near, line, np.nan),
                    f"limit:{limit.code}",
                    1.0,
                    "dotted",
                )
            )
    return tuple(found)


def _shortfall(a: Acoustic) -> Shortfall | None:
    """Promise above ceiling inside the band that is judged."""
    if a.loudness is None or a.loudness.margin >= 0:
        return None
    band = (a.frequency >= a.reaches.band[0] / 2) & (a.frequency <= a.f_hi)
    low = np.minimum(a.top.level, a.asked)
    inside = band & (a.asked >= a.top.level)
    if not inside.any():
        inside[int(np.argmin(np.abs(np.log(a.frequency / a.loudness.frequency))))] = True
    first = max(int(np.argmax(inside)) - 1, 0)
    last = len(inside) - int(np.argmax(inside[::-1]))
    span = slice(first, last + 1)
    short = -a.loudness.margin
    label = f"{figure(short, 1)} dB short" if np.isfinite(short) else "nothing to give"
    return Shortfall(a.frequency[span], low[span], a.asked[span], label, a.loudness.frequency)


def readout(assessment: Assessment, frequency: float) -> Readout | None:
    """Every limit's margin at ``frequency``, first to give on top, one row per kind."""
    a = assessment.acoustic
    if a is None:
        return None
    brief = assessment.design.brief
    shape = promised_shape(np.array([frequency]), brief.bass.frequency, brief.bass.drop)
    asked = brief.loudness.level + float(shape[0])
    margins = margins_at(a.top, a.sound.top_unit_level, a.frequency, frequency, asked)
    point = int(np.argmin(np.abs(np.log(a.frequency / frequency))))
    best: dict[str, tuple[float, str]] = {}
    for limit, margin in zip(a.limits, margins, strict=True):
        code = code_at(limit, point)
        name = limit_name(limit, code)
        if name not in best or margin < best[name][0]:
            best[name] = (margin, code)
    rows = tuple(
        Row(code, name, decibels(margin), margin < 0)
        for name, (margin, code) in sorted(best.items(), key=lambda item: item[1][0])
    )
    return Readout(f"at {_hertz(frequency)}", "dB against promise", rows[:6])


def _hertz(value: SupportsFloat) -> str:
    value = float(value)
    if value >= 1000:
        return f"{value / 1000:.3g}{THIN_SPACE}kHz"
    return f"{value:.0f}{THIN_SPACE}Hz"


def lumped_to(assessment: Assessment) -> float:
    """Hz up to which chambers are lumps and cones small: a sixth of a wave in the longest way."""
    speed = air_of(assessment.design.brief.conditions).speed
    return float(speed / (6 * assessment.cabinet.longest_inner))


def beyond_lumps(assessment: Assessment) -> str:
    """What a response up to 20 kHz is worth."""
    top = _hertz(lumped_to(assessment))
    return f"good to about {top}; above, cones stay pistons here, without beaming or break-up"


def _validity(assessment: Assessment) -> tuple[str, ...]:
    """Up to where the lumped model holds."""
    a = assessment.acoustic
    if a is None:
        return ()
    top = lumped_to(assessment)
    known = (f"Known limits only: {said(assessment.missing[0])}.",) if assessment.missing else ()
    return (
        *known,
        f"Lumped model, good to about {_hertz(top)}; judged from "
        f"{assessment.design.brief.bass.frequency:g} to {_hertz(a.f_hi)}.",
    )


def voice_ceiling_plot(assessment: Assessment) -> Plot:
    """Ceiling after EQ: how loud the voice as a whole may go before each note gives out."""
    a = assessment.acoustic
    if a is None:
        return waiting("Ceiling after voice", assessment, FULL)
    if not a.plays:
        return silent("Ceiling after voice", assessment, FULL)
    brief = assessment.design.brief
    shape = a.asked - brief.loudness.level
    gain = _boosted(assessment, a)
    after = a.top.level - shape - gain
    without = a.top.level - shape
    shown = after[(a.frequency >= 40) & (a.frequency <= 15e3)]
    high = float(np.max(shown[np.isfinite(shown)], initial=brief.loudness.level + 10)) + 2
    low = max(brief.loudness.level - 12, high - TALLEST)
    y_range, step = nice_range(low, high, (4, 6, 10))
    flat = np.full(len(a.frequency), brief.loudness.level)
    return Plot(
        "Ceiling after voice",
        "frequency",
        FULL,
        y_range,
        step,
        "dB",
        curves=(
            Curve("after voice", a.frequency, after, "olive", 2.6, label_at=60.0),
            Curve("without", a.frequency, without, "ink2", 1.4, "dashed", label_at=400.0),
        ),
        promise=Curve(f"promise {brief.loudness.level:g} dB", a.frequency, flat, "stripe"),
        tints=tints_of(a, after),
        shortfall=_laid_flat(_shortfall(a), a.frequency, shape),
        taken=_taken(a, gain, after, without),
        marks=_dearest(a, gain, after),
    )


def _laid_flat(short: Shortfall | None, frequency: Real, shape: Real) -> Shortfall | None:
    """A shortfall where the promised shape is taken off."""
    if short is None:
        return None
    off = np.interp(short.x, frequency, shape)
    return replace(short, low=short.low - off, high=short.high - off)


def _taken(a: Acoustic, gain: Real, after: Real, without: Real) -> Taken | None:
    """Where bands take of the ceiling, in the band in which the dearest note is looked for."""
    inside = _priced(a)
    if not inside.any() or np.max(gain[inside]) < TO_BE_SEEN:
        return None
    return Taken(a.frequency[inside], after[inside], np.maximum(after, without)[inside])


def _priced(a: Acoustic) -> Real:
    low, high = a.reaches.band[0] / 2, max(a.f_hi, a.reaches.band[1])
    return np.asarray((a.frequency >= low) & (a.frequency <= high))


def _dearest(a: Acoustic, gain: Real, after: Real) -> tuple[Mark, ...]:
    """The note at which bands take most of the ceiling, where that is over half a dB."""
    inside = _priced(a)
    if not inside.any():
        return ()
    place = int(np.argmax(np.where(inside, gain, -np.inf)))
    if gain[place] < 0.5:
        return ()
    at = float(a.frequency[place])
    text = f"EQ takes {figure(gain[place], 1)} dB at {_hertz(at)}"
    return (Mark(at, float(after[place]), text, "amber"),)


def _boosted(assessment: Assessment, a: Acoustic) -> Real:
    """DB that bands and shelves add to each note, their mean over the reference band taken off, so
    that a level change moves nothing.
    """
    heard = ways_heard(assessment, a, a.scene.frequency)
    gain = np.asarray(decibel(heard.whole) - decibel(heard.before))
    low, high = a.reaches.band
    inside = (a.frequency >= low) & (a.frequency <= high)
    if not inside.any():
        return np.asarray(gain - np.interp(np.log(low * high) / 2, np.log(a.frequency), gain))
    return np.asarray(gain - np.mean(gain[inside]))
