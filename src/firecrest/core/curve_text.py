"""Measured curves as plain text: frequency, magnitude, phase; any separator, comments ignored."""

import re
from collections import Counter
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.errors import FileError, guarded
from firecrest.core.note import Note, note

MOST_LINES = 2_000_000
LONGEST_LINE = 1000
LEAST_POINTS = 5
MOST_POINTS = 8000
"""Points from which a curve is thinned."""
DENSE = 96.0
"""Points an octave that are left of a thinned curve."""
BULK = 20_000
"""Lines from which plain tables are read all at once."""
_NUMBER = re.compile(r"[-+]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][-+]?\d+)?")
_NO_NUMBER = re.compile(r"(?i)\b(?:nan|inf(?:inity)?|n/a)\b|#n/a|1\.#(?:ind|qnan|inf)")
_COMMENT = ("#", "*", ";", "//", "!", '"', "%")
Row = tuple[float, ...]


@dataclass(frozen=True)
class CurvePoints:
    """Rising ``frequency`` in Hz, ``magnitude`` in ohm or dB, ``phase`` in degrees or None.

    ``header`` keeps the lines that are no data, ``notices`` what was done to make it a curve.
    """

    frequency: Real
    magnitude: Real
    phase: Real | None
    header: tuple[str, ...]
    notices: tuple[Note, ...] = ()


def read_curve(text: str, name: str, unit: str = "Hz") -> CurvePoints:
    """Read a curve of two or three columns, its frequencies in ``unit``, Hz or kHz.

    Raises FileError with the line where it stops making sense.
    """
    with guarded(name, FileError):
        return _curve(text, name, 1e3 if unit == "kHz" else 1.0)


@lru_cache(maxsize=96)
def kept_curve(text: str, unit: str) -> CurvePoints:
    """The same of a text that was read before; read only, since it is shared."""
    found = read_curve(text, "the curve", unit)
    for column in (found.frequency, found.magnitude, found.phase):
        if column is not None:
            column.flags.writeable = False
    return found


def _curve(text: str, name: str, factor: float) -> CurvePoints:
    lines = text.splitlines()
    if len(lines) > MOST_LINES:
        raise FileError(f"{name} has {len(lines)} lines; up to {MOST_LINES} are read.")
    header = [line for line in lines if _is_header(line.strip())]
    data = _in_bulk(lines) if len(lines) > BULK else None
    if data is None:
        data = _one_by_one(lines, name)
    if not np.isfinite(data).all():
        raise FileError(f"{name} holds figures beyond every range.")
    notices: list[Note] = []
    data = _rising(data, name, notices)
    data = _thinned(data, notices)
    phase = data[:, 2] if data.shape[1] > 2 else None
    return CurvePoints(factor * data[:, 0], data[:, 1], phase, tuple(header[:40]), tuple(notices))


def _is_header(plain: str) -> bool:
    return bool(plain) and (
        plain.startswith(_COMMENT) or (bool(re.match(r"[A-Za-z]", plain)) and not _is_gap(plain))
    )


def _is_gap(plain: str) -> bool:
    """A line that begins with no figure where one should be."""
    return bool(_NO_NUMBER.match(plain))


def _one_by_one(lines: list[str], name: str) -> Real:
    """Every line by itself, so that a bad one can be named."""
    rows: list[Row] = []
    places: list[int] = []
    for number, line in enumerate(lines, 1):
        plain = line.strip()
        if len(plain) > LONGEST_LINE:
            raise FileError(f"{name}, line {number}: {len(plain)} letters are no pair of figures.")
        if not plain or _is_header(plain):
            continue
        if _NO_NUMBER.search(plain):
            raise FileError(
                f"{name}, line {number}: “{plain[:40]}” has no figure in a column. Take the line "
                "out, or measure that frequency again."
            )
        row = _row(plain)
        if len(row) < 2:
            raise FileError(f"{name}, line {number}: “{plain[:40]}” is no frequency and value.")
        rows.append(row[:3])
        places.append(number)
    if len(rows) < LEAST_POINTS:
        found = f"{len(rows)} point" + ("" if len(rows) == 1 else "s")
        raise FileError(f"{name} has {found}; a curve needs {LEAST_POINTS} at least.")
    width = Counter(len(row) for row in rows).most_common(1)[0][0]
    for row, number in zip(rows, places, strict=True):
        if len(row) < width:
            raise FileError(
                f"{name}, line {number}: {len(row)} figures where other lines have {width}."
            )
    return np.array([row[:width] for row in rows])


def _in_bulk(lines: list[str]) -> Real | None:
    """A long plain table at once; None where it is not plain enough."""
    first = next((k for k, line in enumerate(lines) if len(_row(line.strip())) > 1), None)
    if first is None:
        return None
    sample = lines[first]
    separator = next((s for s in (";", "\t") if s in sample), None)
    if separator is None and "," in sample and " " not in sample.strip():
        separator = ","
    kept = lines[first:]
    if "," in sample and separator != ",":
        kept = [line.replace(",", ".") for line in kept]
    try:
        data = np.loadtxt(kept, delimiter=separator, comments=list(_COMMENT[:2]), ndmin=2)
    except ValueError:
        return None
    return data[:, :3] if data.shape[1] >= 2 and len(data) >= LEAST_POINTS else None


def _rising(data: Real, name: str, notices: list[Note]) -> Real:
    """Rows by rising frequency, each once, above 0."""
    if np.any(np.diff(data[:, 0]) < 0):
        notices.append(note("unsorted curve"))
    data = data[np.argsort(data[:, 0], kind="stable")]
    once = np.r_[True, np.diff(data[:, 0]) > 0]
    if not once.all():
        notices.append(note("doubled lines", count=int(np.count_nonzero(~once))))
    data = data[once]
    if data[0, 0] <= 0:
        left_out = int(np.count_nonzero(data[:, 0] <= 0))
        notices.append(note("lines below", count=left_out))
        data = data[data[:, 0] > 0]
    if len(data) < LEAST_POINTS:
        raise FileError(f"{name} has no rising column of frequencies.")
    return data


def _thinned(data: Real, notices: list[Note]) -> Real:
    """Of a dense curve the points nearest to ``DENSE`` an octave."""
    if len(data) <= MOST_POINTS:
        return data
    octave = np.log2(data[:, 0])
    wanted = np.arange(octave[0], octave[-1], 1 / DENSE)
    place = np.clip(np.searchsorted(octave, wanted), 1, len(data) - 1)
    place -= wanted - octave[place - 1] < octave[place] - wanted
    kept = np.unique(np.r_[place, len(data) - 1])
    notices.append(note("thinned curve", count=len(data), kept=len(kept), density=DENSE))
    return np.asarray(data[kept])


def _row(line: str) -> Row:
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
