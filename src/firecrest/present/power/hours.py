"""Through the hours: volts and clean watts, hours against level, loudness as the pack drains."""

from dataclasses import replace

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.truth import loads_of_board, trial
from firecrest.assessment.power.uses import (
    BACKGROUND,
    DRAIN,
    FLAT_OUT,
    HALF_VOLUME,
    PROMISE,
    Use,
    course_of,
    hours_by_level,
    levels_of,
    loudness_by_charge,
    uses,
)
from firecrest.core.arrays import Real
from firecrest.core.limits.elements import Limit
from firecrest.core.limits.truth import Clean, clean
from firecrest.core.power.runtime import Runtime
from firecrest.core.units import figure
from firecrest.design.design import Design
from firecrest.present.plot.plot import Curve, Line, Mark, Plot, TintRun, nice_range
from firecrest.present.text.words import ending, limit_name

HOUR = 3600.0
ROUND_HOURS = (0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 25, 50, 100)
QUARTERS = (0.75, 0.5, 0.25)
"""Charges that are marked on the way."""
USE_WORDS = {
    BACKGROUND: "Background",
    PROMISE: "At the promise",
    HALF_VOLUME: "Half volume",
    FLAT_OUT: "Flat out",
}
USE_HELP = {
    BACKGROUND: "30 dB below the promised loudness, about talking level: an estimate.",
    PROMISE: "The level at which runtime is promised.",
    HALF_VOLUME: "Half the volts and a quarter of the watts of flat out, 6 dB less. Half as loud "
    "to the ear would be about 10 dB less.",
    FLAT_OUT: "As loud as programme can be played at the brief's charge.",
}
WEAR_WORDS = {
    "as it is": "as it is",
    "cold": "at 0 °C",
    "very cold": "at −10 °C",
    "aged": "aged to 80 %",
    "aged and cold": "aged, at 0 °C",
}


def runs_empty(design: Design) -> bool:
    """Whether there is an end to come to: a pack, or a source that is sold by its energy."""
    source = design.power.source
    return source.kind == "pack" or (source.kind == "wall" and source.energy is not None)


def level_of(assessment: Assessment, use: str) -> float | None:
    """DB of a use; None where nothing can be heard."""
    return levels_of(assessment).get(use)


def evening(assessment: Assessment, use: str) -> tuple[Plot, Plot] | None:
    """(volts, clean watts) through the hours of a use; None where nothing runs empty."""
    run = _run(assessment, use)
    if run is None:
        return None
    lines = _lines(assessment, run, use)
    end = _until(max(run.hours, lines[-1].at))
    return _volts(assessment, run, lines, end), _watts(assessment, run, lines, end)


def volts_plot(assessment: Assessment, use: str) -> Plot | None:
    """The first of both alone."""
    run = _run(assessment, use)
    if run is None:
        return None
    lines = _lines(assessment, run, use)
    return _volts(assessment, run, lines, _until(max(run.hours, lines[-1].at)))


def _until(hours: float) -> float:
    """Where the axis ends: a round time past the last line, which holds still in a drag."""
    (_, end), _ = nice_range(0.0, 1.04 * hours, ROUND_HOURS, 16)
    return end


def _run(assessment: Assessment, use: str) -> Runtime | None:
    a = assessment.acoustic
    if use == PROMISE:  # worked out with the promises
        return None if a is None or a.runtime is None or a.runtime.hours <= 0 else a.runtime
    level = level_of(assessment, use)
    if level is None or not np.isfinite(level):
        return None
    run = course_of(assessment, level)
    return None if run is None or run.hours <= 0 else run


def _lines(assessment: Assessment, run: Runtime, use: str) -> tuple[Line, ...]:
    """Where it is empty, and what was promised."""
    likely = ""
    band = assessment.promise("runtime").band if use == PROMISE else None
    if band is not None:
        likely = f", likely {band.low / HOUR:.1f} to {band.high / HOUR:.1f}"
    found = [Line(run.hours, f"empty at {run.hours:.1f} h{likely}", "end", upright=True)]
    runtime = assessment.design.brief.runtime
    if runtime.importance != "open" and use == PROMISE:
        hours = runtime.duration / 3600
        found.append(Line(hours, f"promise {hours:g} h", "promise", upright=True))
    return tuple(found)


def _volts(assessment: Assessment, run: Runtime, lines: tuple[Line, ...], end: float) -> Plot:
    course, pack = run.course, assessment.design.power.source.kind == "pack"
    low = float(np.nanmin(course["burst"]))
    opens = _cut_off(assessment)
    if opens is not None:
        low = min(low, opens[0])
    y_range, step = nice_range(low - 0.3, float(np.max(course["rest"])) + 0.3, (0.5, 1, 2, 5), 5)
    rest = Curve(
        "pack at rest" if pack else "source at rest",
        course["hours"], course["rest"], "olive", 2.4, label_at=0.25 * run.hours,
    )  # fmt: skip
    bus = Curve(
        "in bursts, at the amplifier",
        course["hours"], course["burst"], "ink2", 1.8, "dashed", label_at=0.6 * run.hours,
    )  # fmt: skip
    marks = () if opens is None else (Line(opens[0], opens[1], "limit"),)
    left = tuple(
        Mark(
            float(np.interp(-q, -course["charge"], course["hours"])),
            float(np.interp(-q, -course["charge"], course["rest"])),
            f"{q:.0%}",
        )
        for q in QUARTERS
        if pack and q > run.end_charge
    )
    return Plot(
        "Through the hours", "hours", (0.0, end), y_range, step, "V",
        curves=(rest, bus), lines=(*lines, *marks), marks=left,
    )  # fmt: skip


def _cut_off(assessment: Assessment) -> tuple[float, str] | None:
    """(V, words) of the highest voltage at which something opens."""
    source, found = assessment.design.power.source, []
    if source.kind == "pack":
        if source.board is not None and source.board.cut_off is not None:
            found.append((source.board.cut_off, "protection board opens"))
        if source.cell.cut_off is not None:
            found.append((source.cell.cut_off * source.series, "cells empty"))
    if not found:
        return None
    volts, words = max(found)
    return volts, f"{words}, {figure(volts, 1)} V"


def _clean_by_charge(assessment: Assessment, board: int) -> list[Clean]:
    """Clean watts of a board into its first claim's load, at the charges of ``DRAIN``."""
    kind, load, channels = loads_of_board(assessment, board)[0]
    found = []
    for charge in DRAIN:
        made = trial(assessment, board, kind, load, channels, charge)
        assert made is not None
        found.append(clean(made))
    return found


def _watts(assessment: Assessment, run: Runtime, lines: tuple[Line, ...], end: float) -> Plot:
    """Clean watts of each board, tinted by what holds the first one."""
    boards = assessment.design.power.amplifiers
    claim = boards[0][1].part.claims[0]
    charge, hours = run.course["charge"], run.course["hours"]
    curves: list[Curve] = []
    tints: tuple[TintRun, ...] = ()
    most = claim.power
    for k, (_, board) in enumerate(boards):
        found = _clean_by_charge(assessment, k)
        watts = np.interp(charge, DRAIN[::-1], [c.watts for c in found][::-1])
        most = max(most, float(np.max(watts)))
        if k == 0:
            tints = _tinted(found, charge, hours, watts)
        curves.append(
            Curve(
                board.part.name, hours, watts,
                "olive" if k == 0 else "ink2", 2.4 if k == 0 else 1.8,
                "solid" if k == 0 else "dashed", label_at=0.3 * run.hours,
            )
        )  # fmt: skip
    at = "" if claim.supply is None else f", at {claim.supply:g} V"
    printed = Line(claim.power, f"{claim.power:g} W printed{at}", "limit")
    y_range, step = nice_range(0.0, 1.08 * most, (1, 2, 5, 10, 20, 50, 100), 4)
    lines = tuple(replace(line, label="") for line in lines)  # named in the plot above
    return Plot(
        f"Clean power a channel, into {claim.load:g} Ω", "hours", (0.0, end), y_range, step, "W",
        curves=tuple(curves), lines=(printed, *lines), tints=tints,
    )  # fmt: skip


def _tinted(found: list[Clean], charge: Real, hours: Real, watts: Real) -> tuple[TintRun, ...]:
    """Runs of one code along the hours."""
    codes = [found[int(np.argmin(np.abs(np.array(DRAIN) - q)))].code for q in charge]
    names = {
        c.code: limit_name(Limit(c.limit, c.code, np.zeros(1)), c.code) for c in reversed(found)
    }
    runs, start = [], 0
    for k in range(1, len(codes) + 1):
        if k == len(codes) or codes[k] != codes[start]:
            part = slice(start, min(k + 1, len(codes)))
            runs.append(TintRun(codes[start], names[codes[start]], hours[part], watts[part]))
            start = k
    return tuple(runs)


def level_plot(assessment: Assessment) -> Plot | None:
    """Hours against programme level, with the uses marked; None at the wall."""
    found = hours_by_level(assessment)
    if found is None:
        return None
    levels, hours = found
    most = float(np.max(hours))
    y_range, step = nice_range(0.0, most, (0.5, 1, 2, 5, 10, 20, 50, 100, 200), 6)
    lines = [
        Line(level, USE_WORDS[use].lower(), "end", upright=True)
        for use, level in levels_of(assessment).items()
        if use != HALF_VOLUME
    ]
    curve = Curve("hours of play", levels, hours, "olive", 2.4)
    return Plot(
        "Hours against level", "level", (float(levels[0]), float(levels[-1]) + 1), y_range, step,
        "h", curves=(curve,), lines=tuple(lines),
    )  # fmt: skip


def drain_plot(assessment: Assessment) -> Plot | None:
    """Loudest programme through the hours at the promise; None without a pack that drains."""
    run = _run(assessment, PROMISE)
    found = [(q, level) for q, level in loudness_by_charge(assessment) if np.isfinite(level)]
    if run is None or len(found) < len(DRAIN):
        return None
    charge, level = (np.array(x) for x in zip(*found, strict=True))
    loud = np.interp(run.course["charge"], charge[::-1], level[::-1])
    low, high = float(np.min(loud)), float(np.max(loud))
    y_range, step = nice_range(low - 0.5, high + 0.5, (0.5, 1, 2, 5), 5)
    curve = Curve("flat out", run.course["hours"], loud, "olive", 2.4, label_at=0.3 * run.hours)
    return Plot(
        "Flat out as it drains, played at the promise", "hours", (0.0, 1.05 * run.hours), y_range,
        step, "dB", curves=(curve,),
    )  # fmt: skip


def drain_sentence(assessment: Assessment) -> str:
    """How much quieter it is at the end than at the start."""
    found = [(q, level) for q, level in loudness_by_charge(assessment) if np.isfinite(level)]
    if not found:
        return ""
    fall = found[0][1] - found[-1][1]
    if fall < 0.05:
        return "It stays as loud as it is to the end."
    return (
        f"At {found[-1][0]:.0%} charge it is {figure(fall, 1)} dB quieter than full: "
        f"{figure(found[-1][1], 1)} instead of {figure(found[0][1], 1)} dB flat out."
    )


def use_rows(assessment: Assessment) -> list[tuple[str, ...]]:
    """The four uses as rows: name, level, hours as it is, cold, aged, what ends it."""
    return [_use_row(use) for use in uses(assessment)]


USE_HEADS = ("", "dB mean", *WEAR_WORDS.values(), "ends by")


def _use_row(use: Use) -> tuple[str, ...]:
    hours = [_hours(use, wear) for wear in WEAR_WORDS]
    first = use.runs.get("as it is")
    end = "" if first is None else ending(first.ended_by)
    if not use.playable:
        end = "not playable: too loud"
    return (USE_WORDS[use.key], figure(use.level, 1), *hours, end)


def _hours(use: Use, wear: str) -> str:
    run = use.runs.get(wear)
    if run is None:
        return "no end"
    text = figure(run.hours, 1 if run.hours < 100 else 0)
    return text if use.playable else f"({text})"
