"""What a plot is: curves with axes and units, promise, limits, labels, read-out; no pixels."""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.core.arrays import Real
from firecrest.core.limits.kinds import kind_of_code
from firecrest.present.text.notes import said

BASS = (30.0, 1000.0)
FULL = (20.0, 20000.0)
TO_BE_SEEN = 0.15
"""DB by which a second line must differ to be drawn."""


X_UNITS = {
    "frequency": "Hz",
    "hours": "h",
    "distance": "m",
    "area": "cm²",
    "level": "dB",
    "time": "ms",
}
STRAIGHT = ("hours", "level", "time")
"""Axes that are not logarithmic."""


def tint_of(code: str) -> str:
    """The tint of a limit's letter, by the name of its pattern."""
    return kind_of_code(code).tint


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
class Mark:
    """A point worth a name: a peak, or a part to choose; ``chosen`` is the one in force."""

    x: float
    y: float
    label: str
    role: str = "ink2"
    chosen: bool = False


@dataclass(frozen=True)
class Row:
    """One line of a read-out: name, value, whether it is short, and a swatch: the tint of a limit
    by its ``code``, or without one a line in the colour of ``role``.
    """

    code: str
    name: str
    value: str
    short: bool
    role: str = "ink"


@dataclass(frozen=True)
class Readout:
    """What stands at the crosshair: title, note, rows with first to give on top."""

    title: str
    note: str
    rows: tuple[Row, ...]


@dataclass(frozen=True)
class Likely:
    """Between which lines a curve likely runs: 5 to 95 % of what may be built."""

    x: Real
    low: Real
    high: Real


@dataclass(frozen=True)
class Shortfall:
    """Where the promise lies above the ceiling, and the one label at the worst spot."""

    x: Real
    low: Real
    high: Real
    label: str
    at: float


@dataclass(frozen=True)
class Taken:
    """What a boost takes away: from ``low`` up to ``high`` over ``x``."""

    x: Real
    low: Real
    high: Real


@dataclass(frozen=True)
class Plot:
    """A whole plot. ``x_axis`` is ``frequency`` (Hz), ``distance`` (m), ``area`` (cm2), all three
    logarithmic, or ``hours``, ``time`` (ms) or ``level`` (dB).
    """

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
    taken: Taken | None = None
    likely: Likely | None = None
    readout: Readout | None = None
    crosshair: float | None = None
    message: str = ""
    marks: tuple[Mark, ...] = ()
    notes: tuple[str, ...] = field(default=())

    def summary(self) -> str:
        """Each curve in a few words: its highest and lowest value on show, and where."""
        unit = X_UNITS[self.x_axis]
        said = []
        for curve in self.curves:
            x, y = np.asarray(curve.x), np.asarray(curve.y)
            seen = (x >= self.x_range[0]) & (x <= self.x_range[1]) & np.isfinite(y)
            if seen.any():
                top, low = (
                    int(f(np.where(seen, y, n)))
                    for f, n in ((np.argmax, -np.inf), (np.argmin, np.inf))
                )
                said.append(
                    f"{curve.label}: highest {y[top]:.3g} {self.unit} at {x[top]:.3g} {unit}, "
                    f"lowest {y[low]:.3g} {self.unit} at {x[low]:.3g} {unit}"
                )
        return ". ".join(said)

    def table(self) -> tuple[list[str], list[list[float]]]:
        """The data as columns over the first curve's x: titles with units, and rows."""
        lines = [c for c in (*self.curves, *((self.promise,) if self.promise else ())) if len(c.x)]
        heads = [X_UNITS[self.x_axis]]
        heads += [f"{c.label} ({self.unit})" for c in lines]
        if not lines:
            return heads, []
        x = lines[0].x
        columns = [x, *(np.interp(x, c.x, c.y) for c in lines)]
        return heads, np.transpose(columns).tolist()


def waiting(name: str, assessment: Assessment, x_range: tuple[float, float]) -> Plot:
    """A plot that cannot be drawn yet: its axes, and what is missing in the middle."""
    what = said(assessment.missing[0]) if assessment.missing else "nothing to show yet"
    return Plot(name, "frequency", x_range, (70, 110), 10, "dB", message=what)


def silent(name: str, assessment: Assessment, x_range: tuple[float, float]) -> Plot:
    """A plot of a box that plays nothing at all: its axes, and why."""
    why = said(assessment.promise("loudness").reason)
    return Plot(name, "frequency", x_range, (70, 110), 10, "dB", message=why)


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


def round_step(high: float) -> float:
    """A step that gives two to four intervals up to ``high``."""
    if high <= 0 or not np.isfinite(high):
        return 1.0
    rough = high / 3
    base = 10 ** np.floor(np.log10(rough))
    return float(min((m * base for m in (1, 2, 5, 10)), key=lambda s: abs(s - rough)))
