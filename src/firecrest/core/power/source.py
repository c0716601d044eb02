"""Where the current comes from: pack or wall supply, seen from the amplifier's bus.

Cell resistance and rest voltage follow straight lines between the points of their tables and
are flat beyond.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, fields
from functools import cached_property

import numpy as np

from firecrest.core.arrays import Number, Real

TENTHS = np.arange(11) / 10
TENTHS.flags.writeable = False


@dataclass(frozen=True)
class CellTable:
    """Rest voltage (V) and resistance (ohm) against charge (0 to 1, rising)."""

    charge: tuple[Number, ...]
    rest_voltage: tuple[Number, ...]
    resistance: tuple[Number, ...]

    def voltage_at(self, charge: Number) -> Real:
        """Rest voltage of one cell."""
        return self._at(charge, self.rest_voltage, 1)

    def resistance_at(self, charge: Number) -> Real:
        """Resistance of one cell."""
        return self._at(charge, self.resistance, 2)

    def _at(self, charge: Number, values: Sequence[Number], row: int) -> Real:
        if self._plain is None:
            return straight(charge, self.charge, values)
        return np.asarray(np.interp(charge, self._plain[0], self._plain[row]))

    @cached_property
    def waypoints(self) -> Real:
        """Charges (..., n) from 1 down to 0, a tenth apart at most, between which both are straight
        lines.
        """
        inner = (np.clip(np.atleast_1d(charge), 0.0, 1.0) for charge in self.charge)
        lead = np.broadcast_shapes(*(np.shape(charge)[:-1] for charge in self.charge))
        whole = [np.broadcast_to(x, (*lead, x.shape[-1])) for x in (*inner, TENTHS)]
        found = np.concatenate(whole, axis=-1)
        rising = np.sort(found, axis=-1) if lead else np.unique(found)
        return np.asarray(rising[..., ::-1])

    @cached_property
    def _plain(self) -> Real | None:
        """The three rows as one array; None where any of them holds columns."""
        rows = (self.charge, self.rest_voltage, self.resistance)
        if all(isinstance(number, float) for row in rows for number in row):
            return np.array(rows)
        return None


def straight(x: Number, knots: Sequence[Number], values: Sequence[Number]) -> Real:
    """Straight lines through columns (knots, values) at ``x``, flat beyond."""
    found = np.asarray(values[0] + 0.0 * np.asarray(x))
    for k in range(len(knots) - 1):
        share = np.clip((x - knots[k]) / (knots[k + 1] - knots[k]), 0.0, 1.0)
        found = found + share * (values[k + 1] - values[k])
    return found


@dataclass(frozen=True)
class Strings:
    """Cells in series at ``charge`` (..., n), one string of them: rest volts and ohms in all, and
    of the weakest group's cell.
    """

    charge: Real
    rest: Real
    ohms: Real
    weak_rest: Real
    weak_ohms: Real

    def each(self, change: Callable[[Real], Real]) -> "Strings":
        """All of them changed alike."""
        return Strings(*(change(getattr(self, f.name)) for f in fields(self)))


@dataclass(frozen=True)
class Pack:
    """``series`` x ``parallel`` cells behind a protection board and leads; capacity in A s.

    The weakest of the groups in series holds ``spread`` (a share) less than the others; all are
    full together. ``own_current`` is what the protection board takes at all times.
    """

    table: CellTable
    capacity: Number
    cell_current: Number | None
    cell_cut_off: Number | None
    series: int
    parallel: int
    board_resistance: Number = 0.0
    board_current: Number | None = None
    board_cut_off: Number | None = None
    lead_resistance: Number = 0.0
    spread: Number = 0.0
    own_current: Number = 0.0

    @property
    def total_capacity(self) -> Number:
        """Charge of the whole pack in A s."""
        return self.capacity * self.parallel

    @property
    def even(self) -> bool:
        """Whether all groups hold the same."""
        return isinstance(self.spread, float) and self.spread == 0.0

    def strings_at(self, charge: Number) -> Strings:
        """The string when the full groups stand at ``charge``; the weak one stands lower.

        q_w = 1 - (1 - q)/(1 - x); rest voltages and resistances add.
        """
        volts, ohms = self.table.voltage_at(charge), self.table.resistance_at(charge)
        if self.even:
            whole = np.asarray(charge, dtype=np.float64)
            return Strings(whole, self.series * volts, self.series * ohms, volts, ohms)
        weak = 1.0 - (1.0 - np.asarray(charge)) / (1.0 - self.spread)
        least, most = self.table.voltage_at(weak), self.table.resistance_at(weak)
        others = self.series - 1
        return Strings(
            np.asarray(charge) + 0.0 * weak,
            others * volts + least,
            others * ohms + most,
            least,
            most,
        )

    @cached_property
    def descent(self) -> Strings:
        """The string at charges from full down to empty, between which all is straight lines."""
        full = self.table.waypoints
        if self.even:
            return self.strings_at(full)
        weak = 1.0 - (1.0 - full) * (1.0 - self.spread)
        lead = np.broadcast_shapes(full.shape[:-1], weak.shape[:-1])
        every = [np.broadcast_to(x, (*lead, x.shape[-1])) for x in (full, weak)]
        down = np.sort(np.concatenate(every, axis=-1), axis=-1)[..., ::-1]
        return self.strings_at(np.maximum(down, self.spread))

    def rest_voltage(self, charge: Number) -> Real:
        """Voltage of the pack without current."""
        return self.strings_at(charge).rest

    def cell_resistance(self, charge: Number) -> Real:
        """Resistance of all cells together."""
        return self.strings_at(charge).ohms / self.parallel

    def resistance(self, charge: Number) -> Number:
        """Resistance up to the amplifier: cells, board and leads."""
        return self.cell_resistance(charge) + self.board_resistance + self.lead_resistance


@dataclass(frozen=True)
class Converter:
    """A stage between source and boards: fixed output (V), efficiency, mean currents it bears (A),
    the input below which it stops (V), what it takes by itself (W).
    """

    output_voltage: Number
    efficiency: Number
    input_current: Number | None = None
    cut_off: Number | None = None
    output_current: Number | None = None
    idle_power: Number = 0.0


@dataclass(frozen=True)
class Source:
    """The bus: V = voltage - resistance x current, and the currents it may be asked for.

    ``burst`` maps the name of a limit to amperes, ``continuous`` is the long-term rating. A limit
    of None is unlimited by nature (own mains supply); an unknown one never reaches this class.
    ``at_rest`` maps what must hold before anything plays (a cut-off, the highest supply of a board)
    to the volts in hand.
    """

    voltage: Number
    resistance: Number
    burst: Mapping[str, Number] = field(default_factory=dict)
    continuous: Number | None = None
    at_rest: Mapping[str, Number] = field(default_factory=dict)

    @cached_property
    def open_at_rest(self) -> tuple[Real, ...]:
        """The volts in hand at rest, the least of all, where they are below 0 anywhere."""
        if not self.at_rest:
            return ()
        least = np.asarray(np.min(np.broadcast_arrays(*self.at_rest.values()), axis=0))
        return (least,) if np.any(least < 0) else ()


def pack_source(pack: Pack, charge: Number) -> Source:
    """The bus of a pack at ``charge`` (0 to 1)."""
    burst: dict[str, Number] = {}
    if pack.cell_current is not None:
        burst["cells"] = pack.cell_current * pack.parallel
    if pack.board_current is not None:
        burst["protection board"] = pack.board_current
    return Source(pack.rest_voltage(charge), pack.resistance(charge), burst)
