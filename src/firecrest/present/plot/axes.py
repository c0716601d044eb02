"""Where the axes of a plot have texts and lines, in data and not in pixels."""

import numpy as np

from firecrest.present.plot.plot import Plot
from firecrest.present.size.portview import area_ticks

Ticks = list[tuple[float, str]]
"""(place on the axis, text); logarithmic axes are placed by lg."""
FREQUENCIES = (10, 20, 30, 50, 70, 100, 200, 300, 500, 700, 1000, 2000, 5000, 10000, 20000)


def x_ticks(plot: Plot) -> Ticks:
    """Texts below a plot; the last one has the unit."""
    low, high = plot.x_range
    if plot.x_axis == "frequency":
        shown = [t for t in FREQUENCIES if low <= t <= high * 1.001]
        return [(float(np.log10(t)), _hertz(t, last=t == shown[-1])) for t in shown]
    if plot.x_axis == "distance":
        near = [d for d in (1, 2, 4, 8, 16, 32) if low <= d <= high]
        return [(float(np.log10(d)), f"{d} m" if d == near[-1] else f"{d}") for d in near]
    if plot.x_axis == "area":
        areas = area_ticks(low, high)
        return [(float(np.log10(t)), f"{t:g} cm²" if t == areas[-1] else f"{t:g}") for t in areas]
    if plot.x_axis == "level":
        levels = np.arange(np.ceil(low / 10) * 10, high + 0.01, 10)
        return [(float(v), _decibels(float(v), last=v == levels[-1])) for v in levels]
    if plot.x_axis == "time":
        times = np.arange(np.ceil(low), high + 0.01, 1.0)
        return [(float(t), f"{_plain(t)} ms" if t == times[-1] else _plain(t)) for t in times]
    step = next((s for s in (0.5, 1, 2, 5, 10, 20, 50) if high / s <= 8), 100)
    hours = np.arange(0, high, step)
    return [(float(h), f"{h:g} h" if h == hours[-1] else f"{h:g}") for h in hours]


def y_ticks(plot: Plot, height: float) -> Ticks:
    """Texts beside a plot ``height`` pixels high; the top one has the unit where there is room."""
    low, high = plot.y_range
    values = np.arange(low, high + plot.y_step / 2, plot.y_step)
    texts = [f"{v:g}".replace("-", "−") for v in values]
    if height > 90 or len(values) < 4:
        texts[-1] = f"{texts[-1]} {plot.unit}"
    ticks = list(zip(map(float, values), texts, strict=True))
    room = max(height - 30, 30) / max(len(ticks), 1)
    return ticks if room > 15 else ticks[::2]


def _plain(value: float) -> str:
    return f"{value:g}".replace("-", "−")


def _decibels(value: float, *, last: bool) -> str:
    text = f"{value:g}".replace("-", "−")
    return f"{text} dB" if last else text


def _hertz(value: int, *, last: bool) -> str:
    text = f"{value // 1000}k" if value >= 1000 else str(value)
    return (
        f"{text.replace('k', ' k')}Hz"
        if last and value >= 1000
        else (f"{text} Hz" if last else text)
    )
