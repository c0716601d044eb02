"""Runtime of a pack at a level: t = Q integral dq/I(q), until a cut-off opens.

The bus voltage at each charge solves V^2 - (Voc - R (I_idle + k I_avg)) V + R P = 0.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.limits.draw import Draw
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.source import Converter, Pack

POINTS = 200
SCAN = 200


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
    """Power (W) and current (A) that do not depend on the bus voltage."""

    power: float
    amperes: float


def _demand(
    draw: Draw, drive: float, amplifier: AmplifierModel, other: float, converter: Converter | None
) -> _Demand:
    """At ``drive`` volts rms of input; a converter turns all of it into power."""
    losses = amplifier.idle_current + amplifier.loss * draw.average * float(draw.amperes[0]) * drive
    power = float(draw.mean_power[0]) * drive**2
    if converter is None:
        return _Demand(power + other, losses)
    taken = (power + converter.output_voltage * losses) / converter.efficiency
    return _Demand(taken + other, 0.0)


def _bus(pack: Pack, charge: Real, demand: _Demand) -> tuple[Real, Real]:
    """Voltage at the amplifier and current; NaN voltage where the bus cannot carry the power."""
    resistance = pack.resistance(charge)
    open_voltage = pack.rest_voltage(charge) - resistance * demand.amperes
    under = open_voltage**2 - 4 * resistance * demand.power
    voltage = np.where(under >= 0, (open_voltage + np.sqrt(np.maximum(under, 0))) / 2, np.nan)
    return voltage, demand.amperes + demand.power / voltage


def _cut_offs(
    pack: Pack,
    charge: Real,
    demand: _Demand,
    amplifier: AmplifierModel,
    converter: Converter | None,
) -> dict[str, Real]:
    """Volts above each cut-off at ``charge``; negative is open."""
    voltage, current = _bus(pack, charge, demand)
    spare = {"collapse": np.where(np.isnan(voltage), -1.0, 1.0)}
    at_input = converter.cut_off if converter is not None else amplifier.cut_off
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
    loud = _demand(draw, drive * 10 ** (burst / 20), amplifier, other, converter)
    steady = _demand(draw, drive, amplifier, other, converter)

    def spare(charge: Real) -> dict[str, Real]:
        return _cut_offs(pack, charge, loud, amplifier, converter)

    end, name = _first_open(spare)
    edges = np.linspace(1.0, end, POINTS + 1)
    charge = 0.5 * (edges[1:] + edges[:-1])
    voltage, current = _bus(pack, charge, steady)
    step = (1.0 - end) / POINTS
    passed = np.cumsum(pack.total_capacity * step / current) / 3600.0
    hours = float(passed[-1]) if end < 1.0 else 0.0
    course = {
        "hours": passed,
        "charge": charge,
        "rest": pack.rest_voltage(charge),
        "bus": voltage,
        "current": current,
    }
    return Runtime(hours, end, name, course, _shares(pack, draw, drive, amplifier, other, steady))


def _first_open(spare: Callable[[Real], dict[str, Real]]) -> tuple[float, str]:
    """Highest charge at which a cut-off opens, to 1e-9, and its name; (0, "empty") if none does."""
    high, low, name = 1.0, 0.0, "empty"
    for _ in range(4):
        charge = np.linspace(high, low, SCAN + 1)
        opened = {
            key: int(places[0])
            for key, value in spare(charge).items()
            if len(places := np.nonzero(value < 0)[0])
        }
        if not opened:
            return 0.0, "empty"
        name = min(opened, key=lambda key: opened[key])
        place = opened[name]
        if place == 0:
            return float(charge[0]), name
        high, low = float(charge[place - 1]), float(charge[place])
    return low, name


def _shares(
    pack: Pack, draw: Draw, drive: float, amplifier: AmplifierModel, other: float, demand: _Demand
) -> dict[str, float]:
    """Where the mean power goes at half charge, in W; the parts add up to ``total``."""
    half = np.array([0.5])
    voltage, current = (float(x[0]) for x in _bus(pack, half, demand))
    audio = float(draw.mean_power[0]) * drive**2
    drawn = voltage * current
    wires = current**2 * float(pack.resistance(half)[0])
    idle = max(drawn - audio - other, 0.0)
    return {
        "audio": audio,
        "idle": idle,
        "other": other,
        "wires": wires,
        "total": drawn + wires,
        "current": current,
    }
