"""The plots of Voice: sum and ways, off the axis, spread, phase, impulse, where to cross."""

from collections.abc import Sequence

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.sound import delay_of
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.heard import VOICE_GRID, Fan, WaysHeard, fan_of, ways_heard
from firecrest.assessment.voicing.lining import level_of
from firecrest.core.arrays import Complex, Real
from firecrest.core.limits.reach import mean_band
from firecrest.core.units import THIN_SPACE, figure
from firecrest.core.voice.phase import arrival
from firecrest.core.voice.response import response_from
from firecrest.design.design import Design
from firecrest.present.plot.plot import FULL, Curve, Line, Plot, Readout, Row, nice_range, waiting

DEEPEST = -30.0
"""DB below the reference that are still shown."""
LABELS = (70.0, 500.0, 6000.0, 180.0, 1500.0, 12000.0, 100.0, 3000.0)
ANGLE_LABELS = (300.0, 900.0, 2200.0, 4500.0, 7500.0, 11000.0, 15000.0)
"""Where the curves of a fan are named."""


def reference_of(assessment: Assessment, a: Acoustic, heard: WaysHeard) -> float:
    """Level in dB that counts as 0: the mean of the sum over the band that is judged."""
    low = max(2 * assessment.design.brief.bass.frequency, 40.0)
    high = max(min(a.f_hi, heard.known[1]), 2 * low)
    level = level_of(heard.whole)
    return float(mean_band(heard.frequency, low, high).of(level)[0])


def hz(value: float) -> str:
    """A frequency in words."""
    return f"{value:.0f}{THIN_SPACE}Hz" if value < 1000 else f"{value / 1000:.3g}{THIN_SPACE}kHz"


def shown(heard: WaysHeard, level: Real) -> Real:
    """What is told of a level: nothing beyond what curves know."""
    return np.where(heard.inside, level, np.nan)


def sum_plot(assessment: Assessment, frequency: float | None = None) -> Plot:
    """The sum after and before the bands, each way, and where two play."""
    a = assessment.acoustic
    if a is None:
        return waiting("Summed response", assessment, FULL)
    heard, channels = ways_heard(assessment, a), assessment.design.voice.channels
    zero = reference_of(assessment, a, heard)
    after = shown(heard, level_of(heard.whole) - zero)
    curves = [Curve("sum", VOICE_GRID, after, "olive", 3.0, label_at=1000.0)]
    before = shown(heard, level_of(heard.before) - zero)
    if np.nanmax(np.abs(before - after)) > 0.05:
        curves.append(
            Curve("without EQ", VOICE_GRID, before, "ink2", 1.4, "dotted", label_at=150.0)
        )
    if len(channels) > 1:
        curves += _ways(assessment.design, heard, zero)
    tops = np.concatenate([c.y for c in curves])
    high = float(np.nanmax(np.where(np.isfinite(tops), tops, -90.0))) + 1.5
    y_range, step = nice_range(max(high - 34, DEEPEST), max(high, 6.0), (6, 10))
    lines = [
        Line(c.frequency, f"both, {hz(c.frequency)}", "end", upright=True)
        for c in crossovers(assessment.design.voice)
    ]
    readout = _readout(curves, frequency) if frequency is not None else None
    return Plot(
        "Summed response",
        "frequency",
        FULL,
        y_range,
        step,
        "dB",
        tuple(curves),
        lines=tuple(lines),
        readout=readout,
        crosshair=frequency,
        notes=_notes(assessment, a, heard),
    )


def _ways(design: Design, heard: WaysHeard, zero: float) -> list[Curve]:
    """Each way where it plays, named in the middle of its band."""
    found = []
    for k, (channel, way) in enumerate(zip(design.voice.channels, heard.ways, strict=True)):
        level = shown(heard, level_of(way) - zero)
        loud = VOICE_GRID[np.nan_to_num(level, nan=-99) > np.nanmax(level) - 8]
        at = float(np.sqrt(loud[0] * loud[-1])) if len(loud) else LABELS[k % len(LABELS)]
        found.append(Curve(channel.name, VOICE_GRID, level, "ink2", 1.6, label_at=at))
    return found


def _notes(assessment: Assessment, a: Acoustic, heard: WaysHeard) -> tuple[str, ...]:
    """What the picture assumes."""
    names = assessment.design.voice.channels
    predicted = [c.name for c, way in zip(names, a.scene.ways.measured, strict=True) if way is None]
    notes = []
    if predicted:
        who = "All ways are" if len(predicted) == len(names) else f"{', '.join(predicted)}:"
        notes.append(
            f"{who} predicted: lumped model, cones as pistons; no break-up, no edges of the front."
        )
    for channel, join in zip(names, a.scene.ways.joins, strict=True):
        if join is not None:
            step = float(np.ravel(join.step)[0])
            turned = ", the model turned" if np.ravel(join.turned)[0] else ""
            held = "the curve" if join.hold == "measurement" else "the model"
            notes.append(
                f"{channel.name} joins its model at {hz(join.frequency)}, a step of "
                f"{figure(step, 1)} dB, level of {held}{turned}."
            )
    if heard.known[1] < 19.9e3:
        notes.append(f"Curves end at {hz(heard.known[1])}.")
    return tuple(notes)


def _readout(curves: Sequence[Curve], where: float) -> Readout:
    rows = []
    for curve in curves:
        value = float(np.interp(np.log(where), np.log(curve.x), curve.y))
        if np.isfinite(value):
            rows.append(Row("", curve.label, figure(value, 1), False, curve.role))
    return Readout(f"at {hz(where)}", "dB", tuple(rows[:7]))


def fan_plot(assessment: Assessment, frequency: float | None = None) -> Plot:
    """The sum at every angle, against the axis."""
    a = assessment.acoustic
    if a is None:
        return waiting("Off the axis", assessment, FULL)
    fan = fan_of(assessment, a)
    heard = ways_heard(assessment, a)
    zero = reference_of(assessment, a, heard)
    curves = []
    for n, (angle, pressure) in enumerate(sorted(fan.sums.items())):
        level = shown(heard, level_of(pressure) - zero)
        role, width = ("olive", 3.0) if angle == 0 else ("ink2", 1.3)
        name = "on axis" if angle == 0 else f"{angle:g}°"
        at = ANGLE_LABELS[n % len(ANGLE_LABELS)]
        curves.append(Curve(name, VOICE_GRID, level, role, width, label_at=at))
    return Plot(
        "Off the axis",
        "frequency",
        FULL,
        (DEEPEST, 12.0),
        6,
        "dB",
        tuple(curves),
        readout=_readout(curves, frequency) if frequency is not None else None,
        crosshair=frequency,
        notes=fan_notes(assessment.design, fan),
    )


def fan_notes(design: Design, fan: Fan) -> tuple[str, ...]:
    """How far the fan reaches, and what of it is a piston."""
    reach = f"The fan reaches {fan.reach:g}°"
    to_the_back = "" if fan.reach >= 180 else "; it would take 180° to call its mean sound power"
    notes = [f"{reach}{to_the_back}."]
    if fan.pistons:
        names = ", ".join(design.voice.channels[k].name for k in fan.pistons)
        notes.append(
            f"{names}: a rigid piston in a large front; real cones beam less above ka = 3."
        )
    return tuple(notes)


def power_plot(assessment: Assessment, frequency: float | None = None) -> Plot:
    """On axis, mean of the fan, and their difference: the directivity index of the cone."""
    a = assessment.acoustic
    if a is None:
        return waiting("Power average", assessment, FULL)
    fan, heard = fan_of(assessment, a), ways_heard(assessment, a)
    zero = reference_of(assessment, a, heard)
    axis = shown(heard, level_of(heard.whole) - zero)
    mean = shown(heard, level_of(fan.average) - zero)
    curves = (
        Curve("on axis", VOICE_GRID, axis, "olive", 3.0, label_at=400.0),
        Curve(f"mean to {fan.reach:g}°", VOICE_GRID, mean, "ink", 2.0, label_at=3000.0),
        Curve("index", VOICE_GRID, axis - mean, "limit:V", 2.0, "dashed", label_at=8000.0),
    )
    return Plot(
        "Power average",
        "frequency",
        FULL,
        (-24.0, 12.0),
        6,
        "dB",
        curves,
        readout=_readout(curves, frequency) if frequency is not None else None,
        crosshair=frequency,
        notes=fan_notes(assessment.design, fan),
    )


def phase_plot(assessment: Assessment, frequency: float | None = None) -> Plot:
    """Phase of the sum without its own delay."""
    a = assessment.acoustic
    if a is None:
        return waiting("Phase", assessment, FULL)
    heard = ways_heard(assessment, a)
    late = _own_delay(heard.frequency, heard.whole)
    turned = np.degrees(np.angle(heard.whole * np.exp(2j * np.pi * VOICE_GRID * late)))
    curve = Curve("sum", VOICE_GRID, shown(heard, gapped(turned)), "olive", 2.4, label_at=400.0)
    return Plot(
        "Phase of the sum",
        "frequency",
        FULL,
        (-180.0, 180.0),
        90,
        "°",
        (curve,),
        readout=_readout((curve,), frequency) if frequency is not None else None,
        crosshair=frequency,
        notes=(f"Without a delay of {figure(late * 1e3, 3)} ms, its own arrival.",),
    )


def _own_delay(frequency: Real, pressure: Complex) -> float:
    try:
        return arrival(response_from(frequency, pressure), 300.0, 8000.0).delay
    except ValueError:
        return 0.0


def gapped(degrees: Real) -> Real:
    """Without the lines that jump from one edge to the other."""
    jumps = np.abs(np.diff(degrees, prepend=degrees[:1])) > 270
    return np.where(jumps, np.nan, degrees)


def delay_plot(assessment: Assessment, frequency: float | None = None) -> Plot:
    """Group delay of the sum."""
    a = assessment.acoustic
    if a is None:
        return waiting("Group delay", assessment, FULL)
    design = assessment.design
    grid = VOICE_GRID[::4]
    delay = 1e3 * delay_of(a.scene, design.voice, design.power.dsp.sample_rate, grid)
    shown = np.where(grid <= ways_heard(assessment, a).known[1], delay, np.nan)
    high = float(np.nanpercentile(shown, 99)) if np.isfinite(shown).any() else 1.0
    y_range, step = nice_range(min(0.0, float(np.nanmin(shown))), max(high, 1.0), (1, 2, 5, 10, 20))
    curve = Curve("sum", grid, shown, "olive", 2.4, label_at=200.0)
    return Plot(
        "Group delay of the sum",
        "frequency",
        FULL,
        y_range,
        step,
        "ms",
        (curve,),
        readout=_readout((curve,), frequency) if frequency is not None else None,
        crosshair=frequency,
    )


IMPULSE_POINTS = 4096
SHOWN_MS = (-1.0, 6.0)


def impulse_plot(assessment: Assessment) -> Plot:
    """Impulse and step of the sum, from what is known up to 20 kHz, the highest peak at 1."""
    a = assessment.acoustic
    if a is None:
        return waiting("Impulse and step", assessment, FULL)
    top = min(ways_heard(assessment, a).known[1], 20e3)
    rate = 48000.0
    f = np.fft.rfftfreq(IMPULSE_POINTS, 1 / rate)[1:]
    whole = ways_heard(assessment, a, f).whole
    fade = 0.5 * (1 + np.cos(np.pi * np.clip((f / top - 0.8) / 0.2, 0.0, 1.0)))
    late = 1.5e-3  # so that what is early is seen too
    spectrum = np.concatenate(([0.0], whole * fade * np.exp(-2j * np.pi * f * late)))
    impulse = np.fft.irfft(spectrum)
    step = np.cumsum(impulse)
    t = (np.arange(IMPULSE_POINTS) / rate - late) * 1e3
    shown = (t >= SHOWN_MS[0]) & (t <= SHOWN_MS[1])
    curves = tuple(
        Curve(
            name, t[shown], values[shown] / np.max(np.abs(values[shown])), role, width, label_at=at
        )
        for name, values, role, width, at in (
            ("impulse", impulse, "olive", 2.4, 1.2),
            ("step", step, "ink2", 1.8, 2.6),
        )
    )
    return Plot(
        "Impulse and step",
        "time",
        SHOWN_MS,
        (-1.0, 1.2),
        0.5,
        "",
        curves,
        notes=(f"From 20 Hz to {hz(top)}; what lies beyond is left out, so edges ring a little.",),
    )
