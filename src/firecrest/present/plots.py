"""Response, travel, impedance, runtime and distance as plots."""

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.portloss import promise_drive
from firecrest.core.acoustics.network import output_impedance
from firecrest.core.arrays import Real
from firecrest.core.limits.bands import peaks
from firecrest.core.units import figure
from firecrest.present.plot import FULL, Curve, Line, Plot, nice_range, round_step, waiting

PEAK = float(np.sqrt(2.0))


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
        box = assessment.design.box
        names = ["Cone"] * len(box.groups) + ["Radiator"] * len(box.radiators)
        names += ["Port air"] * len(box.ports)
        return [waiting(name, assessment, (20.0, 200.0)) for name in names]
    drive = promise_drive(assessment, a)
    box = assessment.design.box
    found = []
    for k, x, limit in zip(a.model.owners, a.transfers.excursion, a.ratings.x_max, strict=True):
        part = box.groups[k].driver.name
        found.append(_motion("Cone", "C", part, a, drive, x, limit, 1e3, "mm"))
    for item, x, limit in zip(
        box.radiators, a.transfers.radiator_excursion, a.ratings.radiator_travel, strict=True
    ):
        found.append(_motion("Radiator", "R", item.radiator.name, a, drive, x, limit, 1e3, "mm"))
    for x, limit in zip(a.transfers.port_speed, a.ratings.port_speed, strict=True):
        found.append(_motion("Port air", "U", "port", a, drive, x, limit, 1.0, "m/s"))
    return found


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
    step = round_step(high)
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
    step = round_step(top)
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
