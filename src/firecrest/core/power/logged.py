"""A discharge that was logged: what came out of a pack until it was empty.

Charge and energy by the trapezium rule over the rows; resistance from steps of the current.
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.errors import RangeError

LEAST_ROWS = 5
STEP = 0.3
"""Share of the largest current by which it must jump to tell a resistance."""


@dataclass(frozen=True)
class Logged:
    """Rising seconds, volts and amperes drawn (positive)."""

    seconds: Real
    volts: Real
    amperes: Real


@dataclass(frozen=True)
class Drawn:
    """A s and J drawn, mean amperes, volts at the start and the end, and the ohms that steps of the
    current tell (None without a clear one).
    """

    charge: float
    energy: float
    amperes: float
    starts_at: float
    ends_at: float
    resistance: float | None


def drawn(log: Logged, until: float | None = None) -> Drawn:
    """What was drawn until the volts first fell below ``until`` (None: to the last row).

    RangeError when rows are too few, do not rise, or nothing was drawn.
    """
    seconds, volts, amperes = log.seconds, log.volts, log.amperes
    if len(seconds) < LEAST_ROWS or np.any(np.diff(seconds) <= 0):
        raise RangeError(f"A discharge needs {LEAST_ROWS} rows or more, at times that rise.")
    if until is not None:
        below = np.flatnonzero(volts < until)
        last = int(below[0]) + 1 if len(below) else len(seconds)
        seconds, volts, amperes = seconds[:last], volts[:last], amperes[:last]
    if len(seconds) < 2 or not np.any(amperes > 0):
        raise RangeError("Nothing was drawn in this log: its currents are 0 or below.")
    charge = float(np.trapezoid(amperes, seconds))
    return Drawn(
        charge,
        float(np.trapezoid(amperes * volts, seconds)),
        charge / float(seconds[-1] - seconds[0]),
        float(volts[0]),
        float(volts[-1]),
        _resistance(volts, amperes),
    )


def _resistance(volts: Real, amperes: Real) -> float | None:
    """Median of -dV/dI over jumps of the current from one row to the next."""
    jumps = np.diff(amperes)
    clear = np.abs(jumps) > STEP * float(np.max(np.abs(amperes)))
    if not clear.any():
        return None
    found = float(np.median(-np.diff(volts)[clear] / jumps[clear]))
    return found if found > 0 else None
