"""Charging a pack: constant current until the terminals reach the charger's voltage, then taper.

dq/dt = eta I/Q. In the taper I = (V - Voc)/R; on each straight piece of the cells' table, with
R = r0 + r1 x and V - Voc = d0 - s x, dt = (Q/eta) R dx/(V - Voc) has a closed integral (own
derivation).
"""

from collections.abc import Callable
from dataclasses import dataclass
from math import log

import numpy as np

from firecrest.core.power.source import Pack

FULL = "full by count"
TAPER = "end current"
USUAL_END = 0.05
"""Share of the capacity in A h that the current ends at, in A, where it is not stated."""
USUAL_CURRENT = 0.5
"""The same of the most that cells bear while charging: estimates."""
STEPS = 200
HOUR = 3600.0


@dataclass(frozen=True)
class Charger:
    """Current (A), voltage (V) and the current it ends at (A); resistance of its lead (ohm).

    ``efficiency`` is the share of the charge that stays in the cells. ``by_count`` charges at
    constant current until all is in, as with nickel cells.
    """

    current: float
    voltage: float
    end_current: float
    lead_resistance: float
    efficiency: float
    by_count: bool = False


@dataclass(frozen=True)
class Charge:
    """Seconds at constant current and in the taper, the charges where both end, what ended it."""

    steady: float
    taper: float
    turns_at: float
    ends_at: float
    ended_by: str

    @property
    def seconds(self) -> float:
        """All of it."""
        return self.steady + self.taper


@dataclass(frozen=True)
class _Piece:
    """A straight piece of a pack from charge ``low`` to ``high``: rest volts and ohms at ``low``,
    and what they gain by charge.
    """

    low: float
    high: float
    volts: float
    ohms: float
    steeper: float
    harder: float


def _pieces(pack: Pack, charger: Charger, start: float) -> list[_Piece]:
    inner = np.ravel(pack.descent.charge)[::-1]
    points = np.unique(np.concatenate(([start], inner[inner > start])))
    volts = np.ravel(pack.rest_voltage(points))
    ohms = np.ravel(pack.cell_resistance(points)) + pack.board_resistance + charger.lead_resistance
    found = []
    for k in range(len(points) - 1):
        width = points[k + 1] - points[k]
        found.append(
            _Piece(
                float(points[k]),
                float(points[k + 1]),
                float(volts[k]),
                float(ohms[k]),
                float((volts[k + 1] - volts[k]) / width),
                float((ohms[k + 1] - ohms[k]) / width),
            )
        )
    return found


def charged(pack: Pack, charger: Charger, start: float) -> Charge:
    """From ``start`` (charge, a share) to the end, with nothing else on the pack."""
    amperes, whole = charger.current, float(pack.total_capacity) / charger.efficiency
    turn, taper = 1.0, 0.0
    pieces = _pieces(pack, charger, start)
    for place, piece in enumerate(pieces):
        room = charger.voltage - piece.volts - amperes * piece.ohms
        steep = piece.steeper + amperes * piece.harder
        if charger.by_count or room - steep * (piece.high - piece.low) > 0:
            continue
        turn = piece.low + (max(room, 0.0) / steep if steep > 0 else 0.0)
        pieces = [_from(piece, turn), *pieces[place + 1 :]]
        break
    else:
        return Charge((1.0 - start) * whole / amperes, 0.0, 1.0, 1.0, FULL)
    steady = (turn - start) * whole / amperes
    for piece in pieces:
        seconds, reached = _tapered(piece, charger, whole)
        taper += seconds
        if reached < piece.high:
            return Charge(steady, taper, turn, reached, TAPER)
    return Charge(steady, taper, turn, 1.0, FULL)


def _from(piece: _Piece, charge: float) -> _Piece:
    """The rest of a piece."""
    x = charge - piece.low
    volts, ohms = piece.volts + piece.steeper * x, piece.ohms + piece.harder * x
    return _Piece(charge, piece.high, volts, ohms, piece.steeper, piece.harder)


def _tapered(piece: _Piece, charger: Charger, whole: float) -> tuple[float, float]:
    """(seconds, charge reached) of the taper on one piece; the end current may stop it."""
    d0, s, r0, r1 = charger.voltage - piece.volts, piece.steeper, piece.ohms, piece.harder
    end, width = charger.end_current, piece.high - piece.low
    slower = s + end * r1
    x = width
    if slower > 0:
        x = min(width, max((d0 - end * r0) / slower, 0.0))
    if x <= 0.0 or d0 <= 0.0:
        return 0.0, piece.low
    if abs(s) < 1e-12:
        return whole * (r0 * x + r1 * x**2 / 2) / d0, piece.low + x
    grown = (r0 + r1 * d0 / s) / s * log(d0 / (d0 - s * x))
    return whole * (grown - r1 / s * x), piece.low + x


@dataclass(frozen=True)
class Load:
    """What plays while a pack is charged: A at whatever voltage, and W."""

    amperes: float
    watts: float

    def current(self, volts: float) -> float:
        """A at ``volts``."""
        return self.amperes + self.watts / volts


@dataclass(frozen=True)
class Meanwhile:
    """Charging while it plays: pack current, terminals and charger current at half charge, seconds
    from 20 % (None: never full), and whether the charger ever ends.
    """

    pack_current: float
    terminals: float
    charger_current: float
    seconds: float | None
    ends: bool


def charged_while_playing(pack: Pack, charger: Charger, load: Load) -> Meanwhile:
    """With the load at the pack's terminals; the leads to the amplifier are left out.

    The terminals stand at the larger root of V^2 - (Voc + R (I_cc - I_0)) V + R P = 0, not above
    the charger's voltage.
    """
    at = _terminals(pack, charger, load)
    pack_current, volts = at(0.5)
    seconds = _seconds(pack, charger, 0.2, at, load)
    full = pack_current + load.current(volts)
    drawn = charger.current if volts < charger.voltage - 1e-9 else full
    ends = load.current(charger.voltage) <= charger.end_current
    return Meanwhile(pack_current, volts, drawn, seconds, ends)


def _terminals(pack: Pack, charger: Charger, load: Load) -> Callable[[float], tuple[float, float]]:
    """(pack current, terminal volts) at a charge."""

    def _at(charge: float) -> tuple[float, float]:
        rest = float(np.ravel(pack.rest_voltage(charge))[0])
        ohms = float(np.ravel(pack.cell_resistance(charge))[0])
        ohms += float(pack.board_resistance) + charger.lead_resistance
        whole = rest + ohms * (charger.current - load.amperes)
        under = max(whole**2 - 4 * ohms * load.watts, 0.0)
        volts = min((whole + under**0.5) / 2, charger.voltage)
        return (volts - rest) / ohms, volts

    return _at


def _seconds(
    pack: Pack,
    charger: Charger,
    start: float,
    at: Callable[[float], tuple[float, float]],
    load: Load,
) -> float | None:
    """Seconds from ``start`` until it is full or the charger ends; None where it never is."""
    edges = np.linspace(start, 1.0, STEPS + 1)
    step = (1.0 - start) / STEPS
    whole, seconds = float(pack.total_capacity) / charger.efficiency, 0.0
    for charge in (edges[:-1] + edges[1:]) / 2:
        amperes, volts = at(float(charge))
        tapers = volts >= charger.voltage - 1e-9 and not charger.by_count
        if tapers and amperes + load.current(volts) <= charger.end_current:
            return seconds
        if amperes <= 0:
            return None
        seconds += whole * step / amperes
    return seconds
