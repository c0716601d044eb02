"""Measured curves as plain text: frequency, magnitude, phase; any separator, comments ignored."""

import re
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.errors import FileError, guarded
from firecrest.design.curve import CurveOf, FrequencyUnit, MeasuredCurve

MOST_LINES = 200_000
LONGEST_LINE = 1000
LEAST_POINTS = 5
HIGHEST_KHZ = 100.0
_NUMBER = re.compile(r"[-+]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][-+]?\d+)?")
_COMMENT = ("#", "*", ";", "//", "!", '"', "%")


@dataclass(frozen=True)
class CurvePoints:
    """Rising ``frequency`` in Hz, ``magnitude`` in ohm or dB, ``phase`` in degrees or None.

    ``header`` keeps the lines that are no data.
    """

    frequency: Real
    magnitude: Real
    phase: Real | None
    header: tuple[str, ...]


def read_curve(text: str, name: str, unit: FrequencyUnit = "Hz") -> CurvePoints:
    """Read a curve of two or three columns, its frequencies in ``unit``.

    Raises FileError with the line where it stops making sense.
    """
    with guarded(name, FileError):
        return _curve(text, name, 1e3 if unit == "kHz" else 1.0)


def measured_curve(text: str, name: str, what: CurveOf) -> MeasuredCurve:
    """A curve of a part from the text of a file, in the unit it seems to be written in.

    Raises FileError when it is no curve of ``what``.
    """
    points = read_curve(text, name)
    trouble = impedance_trouble(points) if what == "impedance" else ""
    if trouble:
        raise FileError(f"{name}: {trouble}.")
    return MeasuredCurve(what=what, name=name[:120], unit=_unit_of(points), content=text)


def _unit_of(points: CurvePoints) -> FrequencyUnit:
    """What the header says; without a word, figures that end below any tweeter are kilohertz."""
    header = " ".join(points.header).lower()
    if "hz" in header:
        return "kHz" if "khz" in header else "Hz"
    return "kHz" if points.frequency[-1] <= HIGHEST_KHZ and points.frequency[0] < 1 else "Hz"


def _curve(text: str, name: str, factor: float) -> CurvePoints:
    lines = text.splitlines()
    if len(lines) > MOST_LINES:
        raise FileError(f"{name} has {len(lines)} lines; up to {MOST_LINES} are read.")
    rows: list[tuple[float, ...]] = []
    header: list[str] = []
    for number, line in enumerate(lines, 1):
        plain = line.strip()
        if len(plain) > LONGEST_LINE:
            raise FileError(f"{name}, line {number}: {len(plain)} letters are no pair of figures.")
        if not plain:
            continue
        if plain.startswith(_COMMENT) or re.match(r"[A-Za-z]", plain):
            header.append(line)
            continue
        row = _row(plain)
        if len(row) < 2:
            raise FileError(f"{name}, line {number}: “{plain[:40]}” is no frequency and value.")
        rows.append(row[:3])
    if len(rows) < LEAST_POINTS:
        raise FileError(f"{name} has {len(rows)} points; a curve needs {LEAST_POINTS} at least.")
    width = min(len(row) for row in rows)
    data = np.array([row[:width] for row in rows])
    if not np.isfinite(data).all():
        raise FileError(f"{name} holds figures beyond every range.")
    data = data[np.argsort(data[:, 0], kind="stable")]
    data = data[np.r_[True, np.diff(data[:, 0]) > 0]]
    if data[0, 0] <= 0:
        data = data[data[:, 0] > 0]
    if len(data) < LEAST_POINTS:
        raise FileError(f"{name} has no rising column of frequencies.")
    return CurvePoints(
        factor * data[:, 0], data[:, 1], data[:, 2] if width > 2 else None, tuple(header[:40])
    )


def _row(line: str) -> tuple[float, ...]:
    """Numbers of one line; a comma is a decimal sign unless it parts the columns."""
    cells = re.split(r"[\s;|]+", line)
    if len([c for c in cells if c]) < 2:
        cells = line.split(",")
    found = []
    for cell in filter(None, (c.strip(" ,") for c in cells)):
        if not _NUMBER.fullmatch(cell):
            break
        found.append(float(cell.replace(",", ".")))
    return tuple(found)


def impedance_trouble(curve: CurvePoints) -> str:
    """Why a curve cannot be an impedance; empty when it can."""
    if np.min(curve.magnitude) <= 0:
        return "an impedance is above 0 Ω everywhere"
    if np.max(curve.magnitude) > 5000:
        return "an impedance above 5000 Ω is no loudspeaker"
    return ""
