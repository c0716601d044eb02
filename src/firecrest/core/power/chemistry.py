"""What is usual of each kind of cell: charging, standing, and a table where its sheet has none.

All figures are estimates.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from firecrest.core.power.source import CellTable

RESISTANCE_AT = (0.0, 0.05, 0.1, 0.2, 0.3, 0.4, 1.0)
RESISTANCE_TIMES = (1.8, 1.5, 1.3, 1.1, 1.05, 1.0, 1.0)
"""Resistance by charge, as multiples of the stated one."""
CHARGES = (0.0, 0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1.0)


@dataclass(frozen=True)
class Chemistry:
    """Share of the charge that is lost in 30 days, share that charging leaves in, V of a full cell
    on its charger (None: by count), rest voltages at ``CHARGES``; whether it is lithium.
    """

    self_discharge: float
    charge_efficiency: float
    full: float | None
    rest: tuple[float, ...]
    lithium: bool = False


# fmt: off
CHEMISTRIES: Mapping[str, Chemistry] = {
    "lithium ion": Chemistry(
        0.02, 0.99, 4.20,
        (2.95, 3.28, 3.40, 3.52, 3.59, 3.64, 3.70, 3.78, 3.88, 3.97, 4.06, 4.18), True),
    "lithium iron phosphate": Chemistry(
        0.03, 0.99, 3.65,
        (2.60, 3.05, 3.18, 3.24, 3.27, 3.28, 3.29, 3.30, 3.315, 3.33, 3.34, 3.40), True),
    "nickel metal hydride": Chemistry(
        0.10, 0.85, None,
        (1.00, 1.13, 1.19, 1.225, 1.24, 1.25, 1.258, 1.267, 1.28, 1.30, 1.33, 1.39)),
    "lead acid": Chemistry(
        0.05, 0.90, 2.40,
        (1.90, 1.93, 1.955, 1.985, 2.01, 2.03, 2.05, 2.07, 2.085, 2.10, 2.115, 2.13)),
}
# fmt: on


def usual_table(chemistry: str, resistance: float) -> CellTable:
    """Rest voltage and resistance by charge of a cell of stated ``resistance`` (ohm)."""
    low = CellTable(RESISTANCE_AT, RESISTANCE_TIMES, RESISTANCE_TIMES)
    ohms = tuple(resistance * float(low.voltage_at(charge)) for charge in CHARGES)
    return CellTable(CHARGES, CHEMISTRIES[chemistry].rest, ohms)
