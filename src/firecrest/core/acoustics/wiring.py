"""Drivers and coils wired together: what series and parallel do to impedance and level.

Coils of a pair are equal. Series against parallel is exact whatever their coupling: the current
shares are equal, so Z falls to a quarter and Bl to a half. One coil alone, the other open, keeps
half of the series resistance and force; its inductance is taken as fully coupled (a quarter).
"""

from dataclasses import dataclass
from math import log10

SAME = "as stated"


@dataclass(frozen=True)
class CoilFactors:
    """Factors on Re, on inductances with what shunts them, on Bl and on rated power."""

    resistance: float
    inductance: float
    bl: float
    power: float

    @property
    def at_voltage(self) -> float:
        """Level in dB at the same voltage: force goes with Bl/Re."""
        return 20 * log10(self.bl / self.resistance)

    @property
    def at_power(self) -> float:
        """Level in dB at the same power: efficiency goes with Bl^2/Re."""
        return 10 * log10(self.bl**2 / self.resistance)


def coil_factors(stated: str, wired: str) -> CoilFactors:
    """From figures for two coils in ``stated`` ("series", "parallel") to ``wired``
    ("as stated", "series", "parallel", "one"); KeyError for other words.
    """
    from_series = {
        "series": CoilFactors(1.0, 1.0, 1.0, 1.0),
        "parallel": CoilFactors(0.25, 0.25, 0.5, 1.0),
        "one": CoilFactors(0.5, 0.25, 0.5, 0.5),
    }
    a, b = from_series[stated], from_series[stated if wired == SAME else wired]
    return CoilFactors(
        b.resistance / a.resistance, b.inductance / a.inductance, b.bl / a.bl, b.power / a.power
    )


@dataclass(frozen=True)
class Combination:
    """``in_series`` x ``in_parallel`` equal drivers against one alone, per amplifier output.

    ``impedance`` is the factor on |Z|; levels in dB: ``at_voltage`` at equal voltage,
    ``at_power`` at equal total power, far field, all cones together (no beaming).
    """

    in_series: int
    in_parallel: int
    impedance: float
    at_voltage: float
    at_power: float


def combination(in_series: int, in_parallel: int) -> Combination:
    """Level and impedance of a group.

    Each cone gets V/s, and s p cones add in phase: 20 lg p at equal voltage. Power at equal
    voltage is p/s of one driver's, so at equal power 10 lg(s p): 3 dB a doubling.
    """
    return Combination(
        in_series,
        in_parallel,
        in_series / in_parallel,
        20 * log10(in_parallel),
        10 * log10(in_series * in_parallel),
    )
