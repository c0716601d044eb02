"""What cold and age leave of a cell: shares of its capacity, multiples of its resistance.

Estimates: usual slow-discharge capacity and direct-current resistance of each chemistry by
temperature, to some 10 % (capacity) and 30 % (resistance). Capacity holds only what is lost at a
slow rate; the rest of what the cold costs comes out of the resistance by itself.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from firecrest.core.arrays import Number, plain
from firecrest.core.power.source import CellTable, straight

AGED_RESISTANCE = 3.0
"""A cell with 80 % of its capacity left has 1.3 to 2 times the resistance: 1 + 3 (1 - s)."""
ZERO_CELSIUS = 273.15


@dataclass(frozen=True)
class Warmth:
    """Capacity and resistance at rising temperatures (K), as shares of what they are at 20 C."""

    temperature: tuple[Number, ...]
    capacity: tuple[Number, ...]
    resistance: tuple[Number, ...]

    def capacity_at(self, temperature: Number) -> Number:
        """Share of the capacity; straight lines, flat beyond."""
        return plain(straight(temperature, self.temperature, self.capacity))

    def resistance_at(self, temperature: Number) -> Number:
        """Multiple of the resistance; straight lines, flat beyond."""
        return plain(straight(temperature, self.temperature, self.resistance))


def _usual(capacity: tuple[float, ...], resistance: tuple[float, ...]) -> Warmth:
    at = tuple(celsius + ZERO_CELSIUS for celsius in (-20.0, -10.0, 0.0, 10.0, 20.0, 40.0))
    return Warmth(at, capacity, resistance)


USUAL: Mapping[str, Warmth] = {
    "lithium ion": _usual((0.70, 0.82, 0.90, 0.96, 1.0, 1.02), (4.0, 2.6, 1.8, 1.3, 1.0, 0.8)),
    "lithium iron phosphate": _usual(
        (0.55, 0.70, 0.82, 0.93, 1.0, 1.02), (5.5, 3.5, 2.2, 1.4, 1.0, 0.75)
    ),
    "nickel metal hydride": _usual(
        (0.50, 0.70, 0.85, 0.95, 1.0, 1.0), (3.0, 2.2, 1.6, 1.2, 1.0, 0.9)
    ),
    "lead acid": _usual((0.55, 0.68, 0.80, 0.91, 1.0, 1.07), (2.0, 1.6, 1.35, 1.15, 1.0, 0.9)),
}
"""By chemistry: estimates."""


@dataclass(frozen=True)
class Worn:
    """A cell's ``table`` and ``capacity`` (A s) at a temperature and an age."""

    table: CellTable
    capacity: Number


def worn(
    table: CellTable, capacity: Number, warmth: Warmth, temperature: Number, health: Number
) -> Worn:
    """A cell of 20 C, new, as it is at ``temperature`` (K) with ``health`` (1 new) of its capacity.

    Rest voltages stay: charge counts what is available at that temperature and age.
    """
    times = warmth.resistance_at(temperature) * (1.0 + AGED_RESISTANCE * (1.0 - health))
    left = capacity * warmth.capacity_at(temperature) * health
    if isinstance(times, float) and times == 1.0:
        return Worn(table, left)
    return Worn(replace(table, resistance=tuple(ohm * times for ohm in table.resistance)), left)
