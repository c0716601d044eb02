"""Curves of a part: impedance from its figures beside the measured one, measured response."""

import numpy as np

from firecrest.assessment.figures import (
    SHEET,
    SYMBOLS,
    derivation_of,
    driver_constants,
    wired_driver,
)
from firecrest.core.acoustics.driver import free_air_impedance
from firecrest.core.acoustics.wiring import SAME
from firecrest.core.arrays import Real
from firecrest.core.curve_text import CurvePoints
from firecrest.core.errors import MissingFigureError
from firecrest.core.units import figure
from firecrest.design.parts import DriverPart
from firecrest.present.plot.plot import Curve, Line, Plot, nice_range, round_step
from firecrest.present.text.words import joined

GRID = np.geomspace(10, 20000, 400)
GRID.flags.writeable = False


def impedance_curve(part: DriverPart) -> Real | None:
    """Magnitude of the free-air impedance on ``GRID``; None while figures are missing."""
    try:
        return np.abs(free_air_impedance(driver_constants(wired_driver(part, SAME)), GRID))
    except MissingFigureError:
        return None


def impedance_picture(part: DriverPart, measured: CurvePoints | None) -> Plot:
    """Free-air impedance: measured solid, from the figures dashed."""
    from_figures = impedance_curve(part)
    resonance = derivation_of(part).figures.get("fs") or 50.0
    x_range = (min(max(resonance / 5, 10.0), 1000.0), min(max(resonance * 80, 2000.0), 20000.0))
    curves, tops = [], [10.0]
    if from_figures is not None:
        label = "from the figures" if measured is not None else f"peak at {resonance:.0f} Hz"
        curves.append(
            Curve(label, GRID, from_figures, "olive", 2.4, "dashed", label_at=resonance * 2.2)
        )
        tops.append(float(from_figures[(x_range[0] < GRID) & (x_range[1] > GRID)].max()))
    if measured is not None:
        curves.append(
            Curve(
                "measured", measured.frequency, measured.magnitude, "ink", 2.0, label_at=resonance
            )
        )
        tops.append(float(np.max(measured.magnitude)))
    step = round_step(max(tops))
    notes = () if from_figures is not None else (_waits(part),)
    return Plot(
        "Impedance in free air",
        "frequency",
        x_range,
        (0.0, float(np.ceil(max(tops) * 1.05 / step) * step)),
        step,
        "Ω",
        tuple(curves),
        lines=_peak_line(measured),
        notes=notes,
        message="" if curves else _waits(part),
    )


def _peak_line(measured: CurvePoints | None) -> tuple[Line, ...]:
    """The measured resonance, named."""
    if measured is None:
        return ()
    peak = float(measured.frequency[int(np.argmax(measured.magnitude))])
    return (Line(peak, f"{figure(peak, 0)} Hz measured", "limit", upright=True),)


def _waits(part: DriverPart) -> str:
    known = derivation_of(part).figures
    gaps = [key for key in SHEET if key not in known]
    return f"needs {joined([SYMBOLS[k] for k in gaps[:4]])}"


def response_picture(measured: CurvePoints | None) -> Plot:
    """A measured response as it is; no level is added or smoothed."""
    if measured is None:
        return Plot(
            "Measured response",
            "frequency",
            (20.0, 20000.0),
            (60.0, 100.0),
            10,
            "dB",
            message="no response is attached",
        )
    seen = (measured.frequency >= 20) & (measured.frequency <= 20000)
    values = measured.magnitude[seen] if seen.any() else measured.magnitude
    high = float(np.max(values))
    y_range, step = nice_range(max(float(np.min(values)), high - 45), high + 2, (5, 10))
    return Plot(
        "Measured response",
        "frequency",
        (20.0, 20000.0),
        y_range,
        step,
        "dB",
        (Curve("measured", measured.frequency, measured.magnitude, "ink", 2.0, label_at=1000.0),),
    )
