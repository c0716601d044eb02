"""The views of a box beside its ceiling: response, travel, impedance, delay, chamber pressure."""

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.further import reach_by_drop
from firecrest.assessment.motion import PROMISE, Motion, Played, chamber_pressures, motion_of
from firecrest.assessment.sound import delay_of, source_pressures, voices_at
from firecrest.core.acoustics.openings import Radiator
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Real
from firecrest.core.circuit.solution import output_impedance
from firecrest.core.limits.bands import peaks
from firecrest.core.limits.kinds import kind_named
from firecrest.core.limits.reach import Reach
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.design import Design
from firecrest.design.ids import found
from firecrest.present.plot import playing
from firecrest.present.plot.plot import (
    FULL,
    TO_BE_SEEN,
    Curve,
    Line,
    Mark,
    Plot,
    Readout,
    Row,
    nice_range,
    round_step,
    waiting,
)
from firecrest.present.size.openings import named_apart
from firecrest.present.text.notes import said

WIDE = (20.0, 1000.0)
NEAR_NOTCH = 1.08
SOURCE_LABELS = (60.0, 36.0, 110.0, 28.0, 200.0, 80.0, 150.0, 45.0)


def source_name(design: Design, a: Acoustic, kind: str, index: int) -> str:
    """What a source is called: its part, and its channel or chamber where two are alike."""
    box = design.box
    if kind == "cone":
        group = box.groups[a.model.owners[index]]
        alike = sum(g.driver.name == group.driver.name for g in box.groups) > 1
        channel = found(design.voice.channels, group.channel).name
        return f"{group.driver.name}, {channel}" if alike else group.driver.name
    return named_apart(box, box.openings[index])


def limit_key(a: Acoustic, kind: str, index: int) -> str:
    """The limit to which a source's motion is held."""
    return "cone" if kind == "cone" else a.ratings.opening_kinds[index]


def _hz(value: float) -> str:
    return f"{value:.0f}{THIN_SPACE}Hz" if value < 1000 else f"{value / 1000:.3g}{THIN_SPACE}kHz"


def _readout(
    curves: tuple[Curve, ...], where: float | None, unit: str, digits: int
) -> Readout | None:
    """Every curve's value at the crosshair; None while nothing is pinned."""
    if where is None:
        return None
    rows = []
    for curve in curves:
        good = np.isfinite(curve.y)
        if not good.any():
            continue
        value = float(np.interp(where, curve.x[good], curve.y[good]))
        rows.append(Row("", curve.label, figure(value, digits), False, curve.role))
    return Readout(f"at {_hz(where)}", unit, tuple(rows[:7]))


def response_plot(
    assessment: Assessment,
    *,
    full: bool = False,
    frequency: float | None = None,
    played: Played = PROMISE,
) -> Plot:
    """The sum before and after the voice and what each source gives, re the reference band."""
    x_range = FULL if full else WIDE
    a = assessment.acoustic
    if a is None:
        return waiting("Response", assessment, x_range)
    after = a.unit_level - a.reaches.reference
    before = a.level_before_voice - a.reaches.reference
    drop = -float(assessment.design.brief.bass.drop)
    shown = (a.frequency >= x_range[0]) & (a.frequency <= x_range[1])
    curves = (
        Curve("sum, after voice", a.frequency, after, "olive", 3.0, label_at=160.0),
        Curve("before voice", a.frequency, before, "ink2", 1.6, "dotted", label_at=45.0),
        *_loud_curve(assessment, a),
        *_source_curves(assessment, a),
    )
    heights = np.concatenate([c.y[shown] for c in curves])
    high = float(np.max(heights, initial=-23.0, where=np.isfinite(heights))) + 1
    y_range, step = nice_range(-24, min(high, 18), (6, 10))
    curves = tuple(_labelled_inside(c, x_range, y_range) for c in curves)
    return Plot(
        "Response",
        "frequency",
        x_range,
        y_range,
        step,
        "dB",
        curves=curves,
        lines=(
            Line(drop, f"{figure(drop, 0)} dB", "limit"),
            Line(assessment.design.brief.bass.frequency, "promise", "promise", upright=True),
        ),
        readout=_readout(curves, frequency, "dB", 1),
        crosshair=frequency,
        notes=(
            f"Small signal: {corners(reach_by_drop(a, after))}.",
            f"At the promised level: {corners(reach_by_drop(a, a.reaches.kept))}.",
            *playing.level_notes(assessment, a, played),
        ),
    )


def _loud_curve(assessment: Assessment, a: Acoustic) -> tuple[Curve, ...]:
    """The sum at the promised level, where fast air in ports makes it another one."""
    if a.sound.yielding is None:
        return ()
    reference = a.reaches.reference
    drive = np.full(1, 10 ** ((assessment.design.brief.loudness.level - reference) / 20))
    loud = a.sound.yielding.level_at(drive) - reference
    if np.max(np.abs(loud - (a.unit_level - reference))) < TO_BE_SEEN:
        return ()
    return (Curve("at the promised level", a.frequency, loud, "amber", 1.6, "dashed"),)


def corners(by_drop: Mapping[int, Reach]) -> str:
    """F3, F6 and F10 side by side: "F3 55.4, F6 51.1, F10 46.0 Hz"."""
    texts = [
        f"F{drop} {said(reach.note) if reach.frequency is None else f'{reach.frequency:.1f}'}"
        for drop, reach in by_drop.items()
    ]
    return f"{', '.join(texts)}{THIN_SPACE}Hz"


def _labelled_inside(
    curve: Curve, x_range: tuple[float, float], y_range: tuple[float, float]
) -> Curve:
    """The curve with its label where it can be seen: as wanted, or the middle of what is shown."""
    low, high = y_range
    seen = (curve.y > low + 1) & (curve.y < high - 1)
    seen &= (curve.x > x_range[0]) & (curve.x < x_range[1])
    if not seen.any() or curve.label_at is None:
        return replace(curve, label_at=None)
    if np.interp(curve.label_at, curve.x, seen.astype(float)) == 1:
        return curve
    spots = curve.x[seen]
    return replace(curve, label_at=float(spots[len(spots) // 2]))


def _source_curves(assessment: Assessment, a: Acoustic) -> tuple[Curve, ...]:
    """Level of each source by itself, after the voice; none when there is only one."""
    design = assessment.design
    voices = voices_at(design.voice, design.power.dsp.sample_rate, a.frequency)
    found = source_pressures(a.scene, voices)
    if len(found) < 2:
        return ()
    curves = []
    for k, (source, alone) in enumerate(found):
        own = level(alone) - a.reaches.reference
        own = np.where(np.isfinite(own), own, np.nan)
        name = source_name(design, a, source.kind, source.index)
        at = SOURCE_LABELS[k % len(SOURCE_LABELS)]
        role = f"limit:{kind_named(limit_key(a, source.kind, source.index)).code}"
        curves.append(Curve(name, a.frequency, own, role, 1.6, label_at=at))
    return tuple(curves)


def _with_drive(readout: Readout | None, motion: Motion, where: float | None) -> Readout | None:
    """A read-out with what drives all this: volts rms at the outputs, watts into all drivers."""
    if readout is None or where is None:
        return readout

    def _at(values: Real) -> str:
        return figure(float(np.interp(where, motion.frequency, values)), 1)

    volts = [Row("", "volts at the outputs", _at(v), False, "ink2") for v in motion.volts[:1]]
    if len(motion.volts) > 1:
        loudest = np.max(np.broadcast_arrays(*motion.volts), axis=0)
        volts = [Row("", "volts at the loudest output", _at(loudest), False, "ink2")]
    watts = Row("", "watts into all drivers", _at(motion.watts), False, "ink2")
    return replace(readout, rows=(*readout.rows[:5], *volts, watts))


def travel_plot(
    assessment: Assessment, frequency: float | None = None, played: Played = PROMISE
) -> Plot:
    """Every moving part as a share of its own limit."""
    x_range = (20.0, 600.0)
    a = assessment.acoustic
    if a is None:
        return waiting("Travel and air speed", assessment, x_range)
    motion, r, design = motion_of(assessment, a, played), a.ratings, assessment.design
    openings = [r.opening_limit(k, a.frequency) for k in range(len(r.openings))]
    kinds = (("cone", motion.cone, r.x_max), ("opening", motion.opening, openings))
    curves: list[Curve] = []
    unknown: list[str] = []
    for kind, moved, limits in kinds:
        for k, (value, limit) in enumerate(zip(moved, limits, strict=True)):
            name = source_name(design, a, kind, k)
            if limit is None or not np.any(limit):
                unknown.append(name)
                continue
            share = 100 * value / limit
            at = SOURCE_LABELS[len(curves) % len(SOURCE_LABELS)]
            role = f"limit:{kind_named(limit_key(a, kind, k)).code}"
            curves.append(Curve(name, a.frequency, share, role, 2.4, label_at=at))
    shown = (a.frequency >= x_range[0]) & (a.frequency <= x_range[1])
    high = max([110.0, *(float(c.y[shown].max()) * 1.05 for c in curves)])
    step = round_step(min(high, 1000.0))
    notes = [playing.words(motion, played)]
    notes += [f"No limit is known of {name}." for name in unknown]
    return Plot(
        "Travel and air speed",
        "frequency",
        x_range,
        (0.0, float(np.ceil(min(high, 1000.0) / step) * step)),
        step,
        "%",
        curves=tuple(curves),
        lines=(Line(100.0, "limit", "promise"),),
        readout=_with_drive(
            _readout(tuple(curves), frequency, "% of the limit", 0), motion, frequency
        ),
        crosshair=frequency,
        notes=tuple(notes),
    )


def impedance_plot(assessment: Assessment, frequency: float | None = None) -> Plot:
    """Load on one output of each channel, with its peaks named."""
    x_range = (10.0, 1000.0)
    a = assessment.acoustic
    if a is None:
        return waiting("Impedance", assessment, x_range)
    curves, notes, marks, top = [], [], [], 8.0
    roles = ("olive", "limit:V", "limit:H", "limit:A")
    for k, channel in enumerate(assessment.design.voice.channels):
        ohm = np.abs(output_impedance(a.solution, k))
        shown = (a.frequency >= x_range[0]) & (a.frequency <= x_range[1])
        top = max(top, float(ohm[shown].max()))
        least = int(np.argmin(np.where(shown, ohm, np.inf)))
        found = peaks(a.frequency[shown], ohm[shown])
        named = peak_names(assessment, a, k, [f for f, _ in found])
        marks += [
            Mark(f, ohm_there, f"{f:.0f} Hz: {name}", roles[k % 4])
            for (f, ohm_there), name in zip(found, named, strict=True)
        ]
        heights = ", ".join(f"{f:.0f}" for f, _ in found) or "–"
        notes.append(
            f"{channel.name}: peaks at {heights} Hz; least {ohm[least]:.1f} Ω at "
            f"{a.frequency[least]:.0f} Hz"
        )
        curves.append(
            Curve(channel.name, a.frequency, ohm, roles[k % 4], 2.4, label_at=300.0 * 1.4**k)
        )
    step = round_step(top)
    return Plot(
        "Impedance",
        "frequency",
        x_range,
        (0.0, float(np.ceil(top * 1.15 / step) * step)),
        step,
        "Ω",
        tuple(curves),
        readout=_readout(tuple(curves), frequency, "ohm", 2),
        crosshair=frequency,
        marks=tuple(marks),
        notes=tuple(notes),
    )


def peak_names(assessment: Assessment, a: Acoustic, channel: int, at: list[float]) -> list[str]:
    """What makes each impedance peak of a channel: told by the tunings around its drivers."""
    network = a.model.network
    groups = [g for g in network.drivers if g.channel == channel]
    around = {node for g in groups for node in (g.rear, g.front) if 0 <= node < len(a.model.tuning)}
    tunings = sorted(f for n in around if (f := a.model.tuning[n]) is not None)
    notches = [o.resonance for o in network.openings if isinstance(o, Radiator)]
    kind = "radiator" if notches else "port"
    words = {
        0: ["cone on the air of the box"],
        1: [f"cone together with the {kind}", "cone on the air of the box"],
    }.get(len(tunings), ["below both tunings", "between the tunings", "above both tunings"])
    names = []
    for f in at:
        if any(1 / NEAR_NOTCH < f / notch < NEAR_NOTCH for notch in notches) and len(at) > 2:
            names.append("the radiator's own resonance")
            continue
        names.append(words[min(sum(f > t for t in tunings), len(words) - 1)])
    return names


def delay_plot(assessment: Assessment, frequency: float | None = None) -> Plot:
    """Group delay of the sum after and before the voice, without the flight time."""
    x_range = (20.0, 600.0)
    a = assessment.acoustic
    if a is None:
        return waiting("Group delay", assessment, x_range)
    inside = (a.frequency >= x_range[0] * 0.97) & (a.frequency <= x_range[1] * 1.03)
    grid = a.frequency[inside][::2]
    design = assessment.design
    rate = design.power.dsp.sample_rate
    after, before = (1e3 * delay_of(a.scene, v, rate, grid) for v in (design.voice, None))
    curves = (
        Curve("after voice", grid, after, "olive", 3.0, label_at=60.0),
        Curve("before voice", grid, before, "ink2", 1.6, "dotted", label_at=35.0),
    )
    high = min(max(float(np.max(np.r_[after, before])), 5.0), 100.0)
    low = max(min(float(np.min(np.r_[after, before])), 0.0), -20.0)
    y_range, step = nice_range(low, high * 1.05, (2, 5, 10, 20), 8)
    return Plot(
        "Group delay",
        "frequency",
        x_range,
        y_range,
        step,
        "ms",
        curves=curves,
        lines=(Line(assessment.design.brief.bass.frequency, "promise", "promise", upright=True),),
        readout=_readout(curves, frequency, "ms", 1),
        crosshair=frequency,
        notes=("With the board's filters, without the time of flight.",),
    )


def pressure_plot(
    assessment: Assessment, frequency: float | None = None, played: Played = PROMISE
) -> Plot:
    """Peak pressure in each chamber; what panels and seals bear."""
    x_range = (20.0, 600.0)
    a = assessment.acoustic
    if a is None:
        return waiting("Chamber pressure", assessment, x_range)
    names = [c.name for c in assessment.design.box.chambers]
    names += ["between the pair"] * (len(a.solution.pressure) - len(names))
    roles = ("olive", "limit:V", "limit:H", "limit:U")
    curves = []
    pressures = chamber_pressures(assessment, a, played)
    for k, (name, peak) in enumerate(zip(names, pressures, strict=True)):
        at = SOURCE_LABELS[k % len(SOURCE_LABELS)]
        curves.append(Curve(name, a.frequency, peak, roles[k % 4], 2.4, label_at=at))
    shown = (a.frequency >= x_range[0]) & (a.frequency <= x_range[1])
    high = max(float(c.y[shown].max()) for c in curves)
    step = round_step(high)
    return Plot(
        "Chamber pressure",
        "frequency",
        x_range,
        (0.0, float(np.ceil(high * 1.05 / step) * step)),
        step,
        "Pa",
        curves=tuple(curves),
        readout=_readout(tuple(curves), frequency, "Pa, peak", 0),
        crosshair=frequency,
        notes=(
            "Peak: what panels, seals and gaskets bear.",
            playing.words(motion_of(assessment, a, played), played),
        ),
    )
