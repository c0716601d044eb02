"""What each plot shows: curves with axes and units, promise, limits and labels; no pixels."""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.inverse import kind_of
from firecrest.assessment.lowering import programme_of
from firecrest.core.acoustics.network import output_impedance
from firecrest.core.arrays import Real, decibel
from firecrest.core.limits.bands import peaks
from firecrest.core.limits.ceiling import code_at, margins_at
from firecrest.core.limits.promise import promised_shape
from firecrest.core.units import THIN_SPACE, figure
from firecrest.present.words import decibels, limit_name

PEAK = float(np.sqrt(2.0))
BASS = (30.0, 1000.0)
FULL = (20.0, 20000.0)
TALLEST = 50.0
FURTHER_WITHIN = 4.5


@dataclass(frozen=True)
class Curve:
    """One line; ``role`` is a colour role, or ``limit:X`` for the line of a limit's tint."""

    label: str
    x: Real
    y: Real
    role: str
    width: float = 2.0
    style: str = "solid"
    fill: bool = False
    label_at: float | None = None


@dataclass(frozen=True)
class Line:
    """A straight line across the plot at ``at``: ``promise``, ``limit`` or ``end``."""

    at: float
    label: str
    kind: str
    upright: bool = False


@dataclass(frozen=True)
class TintRun:
    """A stretch of the ceiling with the code and name of what gives first there."""

    code: str
    name: str
    x: Real
    y: Real


@dataclass(frozen=True)
class Row:
    """One line of a read-out: code, name, value, and whether it is short."""

    code: str
    name: str
    value: str
    short: bool


@dataclass(frozen=True)
class Readout:
    """What stands at the crosshair: title, note, rows with first to give on top."""

    title: str
    note: str
    rows: tuple[Row, ...]


@dataclass(frozen=True)
class Shortfall:
    """Where the promise lies above the ceiling, and the one label at the worst spot."""

    x: Real
    low: Real
    high: Real
    label: str
    at: float


@dataclass(frozen=True)
class Plot:
    """A whole plot. ``x_axis`` is ``frequency`` (Hz, logarithmic), ``hours`` or ``distance``."""

    name: str
    x_axis: str
    x_range: tuple[float, float]
    y_range: tuple[float, float]
    y_step: float
    unit: str
    curves: tuple[Curve, ...] = ()
    lines: tuple[Line, ...] = ()
    tints: tuple[TintRun, ...] = ()
    promise: Curve | None = None
    shortfall: Shortfall | None = None
    readout: Readout | None = None
    crosshair: float | None = None
    message: str = ""
    notes: tuple[str, ...] = field(default=())

    def table(self) -> tuple[list[str], list[list[float]]]:
        """The data as columns over the first curve's x: titles with units, and rows."""
        lines = [c for c in (*self.curves, *((self.promise,) if self.promise else ())) if len(c.x)]
        heads = [{"frequency": "Hz", "hours": "h", "distance": "m"}[self.x_axis]]
        heads += [f"{c.label} ({self.unit})" for c in lines]
        if not lines:
            return heads, []
        x = lines[0].x
        columns = [x, *(np.interp(x, c.x, c.y) for c in lines)]
        return heads, np.transpose(columns).tolist()


def waiting(name: str, assessment: Assessment, x_range: tuple[float, float]) -> Plot:
    """A plot that cannot be drawn yet: its axes, and what is missing in the middle."""
    what = assessment.missing[0] if assessment.missing else "nothing to show yet"
    return Plot(name, "frequency", x_range, (70, 110), 10, "dB", message=what)


def nice_range(
    low: float, high: float, steps: Sequence[float] = (2, 4, 6, 10), most: int = 7
) -> tuple[tuple[float, float], float]:
    """((bottom, top), step) on whole steps, with at most ``most`` of them."""
    low, high = (float(v) if np.isfinite(v) else 0.0 for v in (low, high))
    for step in steps:
        bottom, top = np.floor(low / step) * step, np.ceil(high / step) * step
        if (top - bottom) / step <= most:
            break
    if top <= bottom:
        top = bottom + step
    return (float(bottom), float(top)), float(step)


def ceiling_plot(
    assessment: Assessment, *, full: bool = False, frequency: float | None = None
) -> Plot:
    """The ceiling with tints, promise, shortfall, and the read-out at the crosshair."""
    x_range = FULL if full else BASS
    a = assessment.acoustic
    if a is None:
        return waiting("Ceiling", assessment, x_range)
    shown = (a.frequency >= x_range[0] * 0.97) & (a.frequency <= x_range[1] * 1.03)
    top, asked = a.tops.charged.level, a.asked
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
            *_further_limits(a),
        ),
        tints=tuple(
            TintRun(
                run.code,
                limit_name(a.limits[run.limit], run.code),
                a.frequency[run.start : run.stop + 2],
                top[run.start : run.stop + 2],
            )
            for run in a.runs
        ),
        promise=Curve(target, a.frequency, asked, "stripe", 2.0),
        shortfall=_shortfall(a),
        readout=readout(assessment, where),
        crosshair=where,
        notes=_validity(assessment),
    )


def _ceiling_range(top: Real, asked: Real, target: float) -> tuple[tuple[float, float], float]:
    """From 16 dB below the promise to a little above the ceiling, never over 50 dB."""
    finite = top[np.isfinite(top)]
    high = max(float(finite.max()) if len(finite) else target, target) + 1.5
    low = max(target - 18.0, high - TALLEST)
    return nice_range(low, high, (4, 6, 10), 8)


def _further_limits(a: Acoustic) -> tuple[Curve, ...]:
    """Limits that come within 4.5 dB of the ceiling, dotted where they do."""
    found = []
    for limit in a.limits:
        line = a.unit_level + decibel(limit.factor)
        near = (line - a.tops.charged.level < FURTHER_WITHIN) & (line > a.tops.charged.level + 1e-9)
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
    low = np.minimum(a.tops.charged.level, a.asked)
    inside = band & (a.asked >= a.tops.charged.level)
    first = max(int(np.argmax(inside)) - 1, 0)
    last = len(inside) - int(np.argmax(inside[::-1]))
    span = slice(first, last + 1)
    label = f"{figure(-a.loudness.margin, 1)} dB short"
    return Shortfall(a.frequency[span], low[span], a.asked[span], label, a.loudness.frequency)


def readout(assessment: Assessment, frequency: float) -> Readout | None:
    """Every limit's margin at ``frequency``, first to give on top, one row per kind."""
    a = assessment.acoustic
    if a is None:
        return None
    brief = assessment.design.brief
    shape = promised_shape(np.array([frequency]), brief.bass.frequency, brief.bass.drop)
    asked = brief.loudness.level + float(shape[0])
    margins = margins_at(a.tops.charged, a.unit_level, a.frequency, frequency, asked)
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


def _hertz(value: float) -> str:
    if value >= 1000:
        return f"{value / 1000:.3g}{THIN_SPACE}kHz"
    return f"{value:.0f}{THIN_SPACE}Hz"


def _validity(assessment: Assessment) -> tuple[str, ...]:
    """Up to where the lumped model holds."""
    a = assessment.acoustic
    if a is None:
        return ()
    speed = 343.0
    top = speed / (6 * assessment.cabinet.longest_inner)
    return (
        f"Lumped model, good to about {_hertz(top)}; judged from "
        f"{assessment.design.brief.bass.frequency:g} to {_hertz(a.f_hi)}.",
    )


def response_plot(assessment: Assessment, *, full: bool = False) -> Plot:
    """Response before and after the voice, re the reference band."""
    x_range = FULL if full else (20.0, 1000.0)
    a = assessment.acoustic
    if a is None:
        return waiting("Response", assessment, x_range)
    after = a.unit_level - a.reaches.reference
    before = a.level_before_voice - a.reaches.reference
    drop = -float(assessment.design.brief.bass.drop)
    shown = (a.frequency >= x_range[0]) & (a.frequency <= x_range[1])
    high = float(np.max(np.maximum(after, before)[shown])) + 1
    y_range, step = nice_range(-24, min(high, 18), (6, 10))
    return Plot(
        "Response",
        "frequency",
        x_range,
        y_range,
        step,
        "dB",
        curves=(
            Curve("after voice", a.frequency, after, "olive", 3.0, label_at=160.0),
            Curve("before voice", a.frequency, before, "ink2", 1.6, "dotted", label_at=45.0),
        ),
        lines=(
            Line(drop, f"{figure(drop, 0)} dB", "limit"),
            Line(assessment.design.brief.bass.frequency, "promise", "promise", upright=True),
        ),
    )


def travel_plots(assessment: Assessment) -> list[Plot]:
    """Peak travel or air speed of every moving part at the promise, against its limit."""
    a = assessment.acoustic
    if a is None:
        return [waiting("Cone", assessment, (20.0, 200.0))]
    drive = _promise_drive(assessment, a)
    box = assessment.design.box
    found = []
    for group, x, limit in zip(box.groups, a.transfers.excursion, a.ratings.x_max, strict=True):
        found.append(_motion("Cone", "C", group.driver.name, a, drive, x, limit, 1e3, "mm"))
    for item, x, limit in zip(
        box.radiators, a.transfers.radiator_excursion, a.ratings.radiator_travel, strict=True
    ):
        found.append(_motion("Radiator", "R", item.radiator.name, a, drive, x, limit, 1e3, "mm"))
    for x, limit in zip(a.transfers.port_speed, a.ratings.port_speed, strict=True):
        found.append(_motion("Port air", "U", "port", a, drive, x, limit, 1.0, "m/s"))
    return found


def _promise_drive(assessment: Assessment, a: Acoustic) -> Real:
    """V rms of input: what the promise asks from its bass note up, a held low note below it."""
    brief = assessment.design.brief
    programme = programme_of(brief.listening)
    held = 10 ** ((brief.loudness.level - a.reaches.reference) / 20)
    softer = np.sqrt(1 + (programme.low_corner / a.frequency) ** 4)
    asked = 10 ** ((a.asked - a.unit_level) / 20)
    return np.where(a.frequency >= brief.bass.frequency, asked, held / softer)


def _motion(
    name: str,
    code: str,
    part: str,
    a: Acoustic,
    drive: Real,
    transfer: Real,
    limit: object,
    scale: float,
    unit: str,
) -> Plot:
    moved = PEAK * np.abs(transfer) * drive * scale
    shown = (a.frequency >= 20) & (a.frequency <= 200)
    bound = None if limit is None else float(np.asarray(limit)) * scale
    high = max(float(moved[shown].max()), (bound or 0.0)) * 1.15
    step = _round_step(high)
    lines = () if bound is None else (Line(bound, f"limit {figure(bound, 1)}", "promise"),)
    return Plot(
        f"{name}, {part}" if part != "port" else name,
        "frequency",
        (20.0, 200.0),
        (0.0, float(np.ceil(high / step) * step)),
        step,
        unit,
        curves=(Curve(name, a.frequency, moved, f"limit:{code}", 2.0, fill=True),),
        lines=lines,
    )


def _round_step(high: float) -> float:
    """A step that gives two to four intervals up to ``high``."""
    if high <= 0 or not np.isfinite(high):
        return 1.0
    rough = high / 3
    base = 10 ** np.floor(np.log10(rough))
    return float(min((m * base for m in (1, 2, 5, 10)), key=lambda s: abs(s - rough)))


def impedance_plot(assessment: Assessment) -> Plot:
    """Load on one output of each channel, with its peaks named."""
    x_range = (10.0, 1000.0)
    a = assessment.acoustic
    if a is None:
        return waiting("Impedance", assessment, x_range)
    curves, notes, top = [], [], 8.0
    for k, channel in enumerate(assessment.design.voice.channels):
        ohm = np.abs(output_impedance(a.model.network, a.solution, k))
        shown = (a.frequency >= x_range[0]) & (a.frequency <= x_range[1])
        top = max(top, float(ohm[shown].max()))
        least = int(np.argmin(np.where(shown, ohm, np.inf)))
        named = ", ".join(f"{f:.0f}" for f, _ in peaks(a.frequency[shown], ohm[shown]))
        notes.append(
            f"{channel.name}: peaks at {named or '–'} Hz; least {ohm[least]:.1f} Ω at "
            f"{a.frequency[least]:.0f} Hz"
        )
        curves.append(Curve(channel.name, a.frequency, ohm, "olive", 2.4, label_at=300.0))
    step = _round_step(top)
    y_range = (0.0, float(np.ceil(top * 1.05 / step) * step))
    return Plot(
        "Impedance", "frequency", x_range, y_range, step, "Ω", tuple(curves), notes=tuple(notes)
    )


def runtime_plot(assessment: Assessment) -> Plot | None:
    """Volts at rest and at the amplifier through the hours; None without a pack."""
    a = assessment.acoustic
    if a is None or a.runtime is None or a.runtime.hours <= 0:
        return None
    course = a.runtime.course
    promised = assessment.design.brief.runtime.duration / 3600
    end = max(a.runtime.hours, promised) * 1.08
    low = float(np.min(course["bus"]))
    y_range, step = nice_range(low - 0.5, float(np.max(course["rest"])), (0.5, 1, 2, 5), 6)
    lines = [Line(a.runtime.hours, f"empty at {a.runtime.hours:.1f} h", "end", upright=True)]
    if assessment.design.brief.runtime.importance != "open":
        lines.append(Line(promised, f"promise {promised:g} h", "promise", upright=True))
    return Plot(
        "Through the hours",
        "hours",
        (0.0, end),
        y_range,
        step,
        "V",
        curves=(
            Curve(
                "pack at rest",
                course["hours"],
                course["rest"],
                "olive",
                2.4,
                label_at=0.25 * a.runtime.hours,
            ),
            Curve(
                "at the amplifier",
                course["hours"],
                course["bus"],
                "ink2",
                1.8,
                "dashed",
                label_at=0.6 * a.runtime.hours,
            ),
        ),
        lines=tuple(lines),
    )


def distance_plot(assessment: Assessment) -> Plot:
    """Loudness against distance, in the place of the brief: 6 dB per doubling."""
    listening = assessment.design.brief.listening
    promise = assessment.promise("loudness")
    x = np.geomspace(0.5, 32.0, 61)
    fall = -20 * np.log10(x / listening.distance)
    curves = []
    if promise.predicted is not None:
        curves.append(Curve("reaches", x, promise.predicted + fall, "olive", 3.0, label_at=1.2))
    asked = Curve(f"promise {promise.target:g} dB", x, promise.target + fall, "stripe", 2.0)
    y_range, step = nice_range(promise.target - 26, promise.target + 14, (10,))
    return Plot(
        "Level against distance",
        "distance",
        (0.5, 32.0),
        y_range,
        step,
        "dB",
        curves=tuple(curves),
        promise=asked,
        crosshair=listening.distance,
        notes=("Free field: 6 dB less at each doubling; no room, wind or crowd is counted.",),
    )


def voice_ceiling_plot(assessment: Assessment) -> Plot:
    """Ceiling after EQ: how loud the voice as a whole may go before each note gives out."""
    a = assessment.acoustic
    if a is None:
        return waiting("Ceiling after voice", assessment, BASS)
    brief = assessment.design.brief
    shape = a.asked - brief.loudness.level
    gain = (a.unit_level - a.level_before_voice) - _band_mean(a)
    after = a.tops.charged.level - shape - gain
    without = a.tops.charged.level - shape
    y_range, step = nice_range(brief.loudness.level - 10, brief.loudness.level + 12, (4, 6))
    flat = np.full(len(a.frequency), brief.loudness.level)
    return Plot(
        "Ceiling after voice",
        "frequency",
        BASS,
        y_range,
        step,
        "dB",
        curves=(
            Curve("after voice", a.frequency, after, "olive", 2.6, label_at=60.0),
            Curve("without", a.frequency, without, "ink2", 1.4, "dashed", label_at=400.0),
        ),
        promise=Curve(f"promise {brief.loudness.level:g} dB", a.frequency, flat, "stripe"),
        tints=tuple(
            TintRun(
                run.code,
                limit_name(a.limits[run.limit], run.code),
                a.frequency[run.start : run.stop + 2],
                after[run.start : run.stop + 2],
            )
            for run in a.runs
        ),
    )


def _band_mean(a: Acoustic) -> float:
    """Mean gain of the voice over the reference band, so that a level change moves nothing."""
    low, high = a.reaches.band
    inside = (a.frequency >= low) & (a.frequency <= high)
    return float(np.mean((a.unit_level - a.level_before_voice)[inside]))


def opening_word(assessment: Assessment) -> str:
    """Kind of the box in words."""
    return {"sealed": "Sealed", "port": "Port", "radiators": "Radiators"}[
        kind_of(assessment.design)
    ]
