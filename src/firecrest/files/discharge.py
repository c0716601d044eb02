"""Discharge logs as plain text: time, volts, amperes; any separator and decimal sign.

Columns are told by their titles, in any order; without titles they are time, volts, amperes. Times
are in seconds unless the title says min or h, currents in A unless it says mA.
"""

import re
from collections.abc import Mapping, Sequence

import numpy as np

from firecrest.core.errors import FileError, guarded
from firecrest.core.power.logged import LEAST_ROWS, Logged

MOST_LINES = 500_000
_CELL = re.compile(r"[-+]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][-+]?\d+)?")
_CLOCK = re.compile(r"(\d+):([0-5]?\d):([0-5]?\d(?:[.,]\d+)?)")
TITLES: Mapping[str, tuple[str, ...]] = {
    "time": ("time", "t", "seconds", "elapsed"),
    "volts": ("voltage", "volts", "volt", "v", "u"),
    "amperes": ("current", "amperes", "amps", "amp", "a", "i"),
}
UNITS: Mapping[str, float] = {"min": 60.0, "h": 3600.0, "ma": 1e-3, "mv": 1e-3}


def read_discharge(text: str, name: str) -> Logged:
    """A log from the text of a file; FileError with the line where it stops making sense."""
    with guarded(name, FileError):
        return _log(text.splitlines(), name)


def _log(lines: Sequence[str], name: str) -> Logged:
    if len(lines) > MOST_LINES:
        raise FileError(f"{name} has {len(lines)} lines; up to {MOST_LINES} are read.")
    order = {"time": 0, "volts": 1, "amperes": 2}
    scales = dict.fromkeys(order, 1.0)
    rows: list[list[float]] = []
    for number, line in enumerate(lines, 1):
        plain = line.strip()
        if not plain or plain.startswith(("#", "//", "*")):
            continue
        cells = _cells(plain)
        values = [_value(cell) for cell in cells]
        if None in values[:1] and not rows:
            found = _titles(cells)
            order, scales = found if found is not None else (order, scales)
            continue
        if len(values) <= max(order.values()) or None in [values[k] for k in order.values()]:
            raise FileError(
                f"{name}, line {number}: “{plain[:40]}” has no time, volts and amperes."
            )
        rows.append([float(values[k] or 0.0) * scales[key] for key, k in order.items()])
    if len(rows) < LEAST_ROWS:
        raise FileError(f"{name} has {len(rows)} rows; a discharge needs {LEAST_ROWS} at least.")
    data = np.array(rows)
    keys = list(order)
    seconds, volts, amperes = (data[:, keys.index(k)] for k in ("time", "volts", "amperes"))
    kept = np.r_[True, np.diff(seconds) > 0]
    if np.median(amperes) < 0:  # a meter that counts what leaves as negative
        amperes = -amperes
    return Logged(seconds[kept], volts[kept], amperes[kept])


def _cells(line: str) -> list[str]:
    """Cells of a line: a comma parts them unless something else does."""
    for separator in (";", "\t", "|"):
        if separator in line:
            return [cell.strip() for cell in line.split(separator)]
    cells = [cell.strip() for cell in line.split(",")]
    return cells if len(cells) >= 3 else line.split()


def _value(cell: str) -> float | None:
    clock = _CLOCK.fullmatch(cell)
    if clock is not None:
        hours, minutes, seconds = clock.groups()
        return 3600 * int(hours) + 60 * int(minutes) + float(seconds.replace(",", "."))
    return float(cell.replace(",", ".")) if _CELL.fullmatch(cell) else None


def _titles(cells: Sequence[str]) -> tuple[dict[str, int], dict[str, float]] | None:
    """(place, factor) of each column by its title; None where any is not there."""
    order: dict[str, int] = {}
    scales: dict[str, float] = {}
    for key, names in TITLES.items():
        for place, cell in enumerate(cells):
            words = re.findall(r"[a-z]+", cell.lower())
            if words and place not in order.values() and words[0] in names:
                order[key] = place
                scales[key] = next((UNITS[w] for w in words[1:] if w in UNITS), 1.0)
                break
    return (order, scales) if len(order) == 3 else None
