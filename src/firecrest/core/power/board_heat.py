"""How hot an amplifier board gets: its losses, and a first-order rise towards a limit.

T(t) = T_inf + (T_0 - T_inf) e^(-t/tau), T_inf = air + R_th P. Music heats by the long-term loss, a
held sine of the same peak by far more.
"""

from dataclasses import dataclass
from math import log

from firecrest.core.arrays import Number
from firecrest.core.power.amplifier import SINE_AVERAGE, AmplifierModel

CASE_LIMIT = 85.0 + 273.15
"""K: boards' capacitors are rated for 85 or 105 C. An estimate."""
RISE_INSIDE = {"closed case": 15.0, "vented case": 5.0, "outer plate": 0.0}
"""K by which the air around a board is warmer than that outside: estimates."""
TRANSFER = 10.0
"""W/(m2 K) from a small hot brick by free air and radiation, +/- 40 %: an estimate."""
SPECIFIC_HEAT = 800.0
"""J/(kg K) of a board with its sink: an estimate."""


def usual_resistance(length: float, width: float, height: float) -> float:
    """K/W of a brick of these sides (m): all six faces at ``TRANSFER``."""
    faces = 2 * (length * width + length * height + width * height)
    return 1.0 / (TRANSFER * faces)


def time_constant(resistance: float, mass: float) -> float:
    """Seconds of a board of ``mass`` kg."""
    return resistance * mass * SPECIFIC_HEAT


def losses(model: AmplifierModel, rail: Number, amperes: Number, count: int) -> Number:
    """W lost in a board on ``rail`` V with ``amperes`` rms of sine from ``count`` outputs."""
    each = model.r_out * amperes**2 + model.loss * rail * SINE_AVERAGE * amperes
    return rail * model.idle_current + count * each


@dataclass(frozen=True)
class Place:
    """Where a board is: the air around it (K), and how it gets rid of heat (K/W)."""

    air: float
    resistance: float

    def after_long(self, watts: float) -> float:
        """K it comes to."""
        return self.air + self.resistance * watts

    @property
    def most(self) -> float:
        """W that hold it at the limit."""
        return (CASE_LIMIT - self.air) / self.resistance

    def seconds(self, idle: float, watts: float, time_constant: float) -> float | None:
        """Until the case limit, from the heat of ``idle`` W; None where it is never reached."""
        end, start = self.after_long(watts), self.after_long(idle)
        if end <= CASE_LIMIT:
            return None
        if start >= CASE_LIMIT:
            return 0.0
        return -time_constant * log((end - CASE_LIMIT) / (end - start))
