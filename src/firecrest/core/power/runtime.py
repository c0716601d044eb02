"""Runtime of a pack at a level: t = Q integral dq/I(q), until a cut-off opens.

The bus voltage at each charge solves V^2 - (Voc - R (I_idle + k I_avg)) V + R P = 0. One pack can
feed a whole batch of designs: demands are arrays (designs, 1), charges (designs, points).
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.limits.draw import Draw
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.source import Converter, Pack

POINTS = 200
SCAN, PASSES = 200, 4
RAMP = np.linspace(0.0, 1.0, SCAN + 1)
RAMP.flags.writeable = False
EMPTY = -1


@dataclass(frozen=True)
class Runtime:
    """Hours of play, the charge left, what ended it, and the course on the way.

    ``course`` holds hours, charge, rest voltage, bus voltage and current at the 200 points;
    ``watts`` splits the mean power at half charge into audio, idle, other and lead losses.
    """

    hours: float
    end_charge: float
    ended_by: str
    course: Mapping[str, Real]
    watts: Mapping[str, float]


@dataclass(frozen=True)
class _Demand:
    """Power (W) and current (A) that do not depend on the bus voltage, shape (designs, 1)."""

    power: Real
    amperes: Real


@dataclass(frozen=True)
class Player:
    """What plays from the pack: amplifier, watts of other loads, converter; floats or (D, 1)."""

    amplifier: AmplifierModel
    other: Number
    converter: Converter | None


def _demand(draw: Draw, drive: Real, player: Player) -> _Demand:
    """At ``drive`` volts rms of input; a converter turns all of it into power."""
    amplifier, converter = player.amplifier, player.converter
    amperes = np.atleast_2d(draw.amperes)
    losses = amplifier.idle_current + amplifier.loss * draw.average * amperes * drive
    power = np.atleast_2d(draw.mean_power) * drive**2
    if converter is None:
        return _Demand(power + player.other, losses)
    taken = (power + converter.output_voltage * losses) / converter.efficiency
    return _Demand(taken + player.other, np.zeros_like(losses))


def _bus(pack: Pack, charge: Real, demand: _Demand) -> tuple[Real, Real]:
    """Voltage at the amplifier and current; NaN voltage where the bus cannot carry the power."""
    resistance = pack.resistance(charge)
    open_voltage = pack.rest_voltage(charge) - resistance * demand.amperes
    under = open_voltage**2 - 4 * resistance * demand.power
    voltage = np.where(under >= 0, (open_voltage + np.sqrt(np.maximum(under, 0))) / 2, np.nan)
    return voltage, demand.amperes + demand.power / voltage


def _cut_offs(pack: Pack, charge: Real, demand: _Demand, player: Player) -> dict[str, Real]:
    """Volts above each cut-off at ``charge``; negative is open."""
    voltage, current = _bus(pack, charge, demand)
    spare = {"collapse": np.where(np.isnan(voltage), -1.0, 1.0)}
    converter = player.converter
    at_input = converter.cut_off if converter is not None else player.amplifier.cut_off
    if at_input is not None:
        spare["converter" if converter is not None else "amplifier"] = voltage - at_input
    if pack.board_cut_off is not None:
        at_board = voltage + current * pack.lead_resistance
        spare["protection board"] = at_board - pack.board_cut_off
    if pack.cell_cut_off is not None:
        cell = pack.table.voltage_at(charge)
        cell = cell - current * pack.table.resistance_at(charge) / pack.parallel
        spare["cell"] = cell - pack.cell_cut_off
    return {name: np.where(np.isnan(value), -1.0, value) for name, value in spare.items()}


def runtime(
    pack: Pack,
    draw: Draw,
    drive: float,
    burst: float,
    amplifier: AmplifierModel,
    other: float,
    converter: Converter | None,
) -> Runtime:
    """Play at ``drive`` (V rms of programme whose ``draw`` is given) from full to cut-off.

    Ends at the highest charge at which a burst of ``burst`` dB opens a cut-off. Midpoint rule on
    200 points; time stepping agrees within 0.5 % (tests).
    """
    player = Player(amplifier, other, converter)
    at = np.array([[drive]])
    end, names = _ends(pack, _demand(draw, at * 10 ** (burst / 20), player), player)
    steady = _demand(draw, at, player)
    charge, voltage, current, passed = _discharge(pack, end, steady)
    course = {
        "hours": passed[0],
        "charge": charge[0],
        "rest": pack.rest_voltage(charge[0]),
        "bus": voltage[0],
        "current": current[0],
    }
    left = float(end[0, 0])
    played = float(passed[0, -1]) if left < 1.0 else 0.0
    return Runtime(played, left, names[0], course, _shares(pack, draw, drive, other, steady))


def hours(pack: Pack, draw: Draw, drive: Real, burst: float, player: Player) -> Real:
    """Hours of play of many designs on one pack, shape (D,); ``drive`` is (D, 1).

    As ``runtime``, without its course.
    """
    end, _ = _ends(pack, _demand(draw, drive * 10 ** (burst / 20), player), player)
    *_, passed = _discharge(pack, end, _demand(draw, drive, player))
    return np.where(end[:, 0] < 1.0, passed[:, -1], 0.0)


def _discharge(pack: Pack, end: Real, steady: _Demand) -> tuple[Real, Real, Real, Real]:
    """(charge, volts, amperes, hours passed) at the middles of 200 steps from full to ``end``."""
    step = (1.0 - end) / POINTS
    charge = 1.0 - step * (np.arange(POINTS) + 0.5)
    voltage, current = _bus(pack, charge, steady)
    passed = np.cumsum(pack.total_capacity * step / current, axis=-1) / 3600.0
    return charge, voltage, current, passed


def _ends(pack: Pack, loud: _Demand, player: Player) -> tuple[Real, list[str]]:
    """Highest charge (D, 1) at which a cut-off opens, to 1e-9, and its name; 0, "empty" if none."""
    count = len(loud.power)
    high, low = np.ones((count, 1)), np.zeros((count, 1))
    which = np.zeros(count, dtype=np.int64)
    done = np.zeros((count, 1), dtype=bool)
    keys: list[str] = []
    for _ in range(PASSES):
        opened = _cut_offs(pack, high + (low - high) * RAMP, loud, player)
        keys = list(opened)
        negative = np.stack([value < 0 for value in opened.values()])
        places = np.where(negative.any(-1), negative.argmax(-1), SCAN + 1)
        place = places.min(axis=0)[:, None]
        never, at_once = place > SCAN, place == 0
        found = np.where(never[:, 0], EMPTY, places.argmin(axis=0))
        which = np.where(done[:, 0], which, found)
        above = high + (low - high) * ((place - 1) / SCAN)
        stop = np.where(never, 0.0, high + (low - high) * (place / SCAN))
        high = np.where(done, high, np.where(never | at_once, stop, above))
        low = np.where(done, low, stop)
        done = done | never | at_once
    return low, [keys[k] if k != EMPTY else "empty" for k in which.tolist()]


def _shares(
    pack: Pack, draw: Draw, drive: float, other: float, demand: _Demand
) -> dict[str, float]:
    """Where the mean power goes at half charge, in W; the parts add up to ``total``."""
    half = np.array([[0.5]])
    voltage, current = (float(x[0, 0]) for x in _bus(pack, half, demand))
    audio = float(draw.mean_power[0]) * drive**2
    drawn = voltage * current
    wires = current**2 * float(pack.resistance(half)[0, 0])
    idle = max(drawn - audio - other, 0.0)
    return {
        "audio": audio,
        "idle": idle,
        "other": other,
        "wires": wires,
        "total": drawn + wires,
        "current": current,
    }
