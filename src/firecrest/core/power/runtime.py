"""Runtime of a pack at a level: t = Q integral dq/I(q), until a cut-off opens.

The bus voltage at each charge solves V^2 - (Voc - R (I_idle + k I_avg)) V + R P = 0. Demands are of
shape (..., 1), charges (..., points).
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import reduce

import numpy as np

from firecrest.core.arrays import Number, Real, largest, picked
from firecrest.core.limits.draw import Draw
from firecrest.core.power.boards import Boards, Standing, standing
from firecrest.core.power.source import Pack

POINTS = 200
MIDDLES = np.arange(POINTS) + 0.5
MIDDLES.flags.writeable = False
SCANS = tuple((steps, np.arange(steps + 1) / steps) for steps in (64, 32, 32))
"""Steps of the search for the end: of the whole charge, then of the step where it lies."""
EMPTY = "empty"


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
    """Power (W) and current (A) that do not depend on the bus voltage, shape (..., 1)."""

    power: Real
    amperes: Real


@dataclass(frozen=True)
class Player:
    """What plays from the pack, floats or (D, 1): what stands on it, of which ``other`` W are
    loads, and the volts at its end below which boards or converters stop.
    """

    standing: Standing
    other: Number
    board_cut_off: Number | None
    converter_cut_off: Number | None


def player_of(boards: Boards, loads: Number) -> Player:
    """What plays from a pack: the first board or converter to stop ends it."""
    on_bus = [model.cut_off for model in boards.on_bus() if model.cut_off is not None]
    inputs = [c.cut_off for c in boards.converters if c.cut_off is not None]
    return Player(
        standing(boards, loads),
        loads,
        largest(on_bus) if on_bus else None,
        largest(inputs) if inputs else None,
    )


def _demand(draw: Draw, drive: Number, player: Player) -> _Demand:
    """At ``drive`` volts rms of input."""
    losses = player.standing.amperes + draw.average * draw.amperes * drive
    power = draw.mean_power * drive**2 + draw.average * draw.watts * drive
    return _Demand(np.asarray(power + player.standing.watts), np.asarray(losses))


@dataclass(frozen=True)
class _Moment:
    """One cell (V, ohm) and the bus (V, A); NaN volts where it cannot carry the power."""

    cell: Real
    ohms: Real
    voltage: Real
    current: Real


def _moment(pack: Pack, charge: Real, demand: _Demand) -> _Moment:
    cell, ohms = pack.table.voltage_at(charge), pack.table.resistance_at(charge)
    resistance = pack.whole_resistance(ohms)
    open_voltage = pack.series * cell - resistance * demand.amperes
    under = open_voltage**2 - 4 * resistance * demand.power
    with np.errstate(invalid="ignore"):
        voltage = (open_voltage + np.sqrt(under)) / 2
    # Losses alone may drop all of the open voltage: broken too, also where nothing is asked for.
    voltage = np.where(voltage > 0, voltage, np.nan)
    return _Moment(cell, ohms, voltage, demand.amperes + demand.power / voltage)


def _cut_offs(pack: Pack, charge: Real, demand: _Demand, player: Player) -> dict[str, Real]:
    """Volts above each cut-off at ``charge``; negative is open."""
    now = _moment(pack, charge, demand)
    broken = np.isnan(now.voltage)
    spare = {"collapse": np.where(broken, -1.0, 1.0)}
    for name, cut_off in (
        ("amplifier", player.board_cut_off),
        ("converter", player.converter_cut_off),
    ):
        if cut_off is not None:
            spare[name] = now.voltage - cut_off
    if pack.board_cut_off is not None:
        at_board = now.voltage + now.current * pack.lead_resistance
        spare["protection board"] = at_board - pack.board_cut_off
    if pack.cell_cut_off is not None:
        cell = now.cell - now.current * now.ohms / pack.parallel
        spare["cell"] = cell - pack.cell_cut_off
    if broken.any():
        return {name: np.where(broken, -1.0, value) for name, value in spare.items()}
    return spare


def at_rest(pack: Pack, charge: Number, player: Player) -> dict[str, Real]:
    """Volts above each cut-off at ``charge`` while nothing is played; negative is open."""
    amperes, watts = (np.atleast_1d(x) for x in (player.standing.amperes, player.standing.watts))
    return _cut_offs(pack, np.atleast_1d(charge), _Demand(watts, amperes), player)


@dataclass(frozen=True)
class Course:
    """Charge, hours passed and the moment at the middles of 200 steps from full to the end."""

    charge: Real
    passed: Real
    moment: _Moment


@dataclass(frozen=True)
class Played:
    """Hours of play and the charge left, (..., 1), and which of ``names`` ended it.

    ``course`` holds charge, cell, bus and hours passed at the 200 points on the way.
    """

    hours: Real
    end_charge: Real
    which: Real
    names: tuple[str, ...]
    course: Course


def played(pack: Pack, draw: Draw, drive: Number, burst: Number, player: Player) -> Played:
    """Hours of play at ``drive`` (V rms of programme whose ``draw`` is given) from full to cut-off.

    Ends at the highest charge at which a burst of ``burst`` dB opens a cut-off. Midpoint rule on
    200 points; time stepping agrees within 0.5 % (tests).
    """
    end, which, names = _ends(pack, _demand(draw, drive * 10 ** (burst / 20), player), player)
    course = _discharge(pack, end, _demand(draw, drive, player))
    hours = np.where(end < 1.0, course.passed[..., -1:], 0.0)
    return Played(hours, end, which, names, course)


def runtime_of(found: Played, pack: Pack, draw: Draw, drive: float, player: Player) -> Runtime:
    """One design's play with its course; ``draw`` and the rest are its own."""
    way = found.course
    course = {
        "hours": np.ravel(way.passed),
        "charge": np.ravel(way.charge),
        "rest": np.ravel(pack.series * way.moment.cell),
        "bus": np.ravel(way.moment.voltage),
        "current": np.ravel(way.moment.current),
    }
    hours, left, which = (np.ravel(x)[0] for x in (found.hours, found.end_charge, found.which))
    other = float(np.ravel(player.other)[0])
    shares = _shares(pack, draw, drive, other, _demand(draw, drive, player))
    return Runtime(float(hours), float(left), found.names[int(which)], course, shares)


def _discharge(pack: Pack, end: Real, steady: _Demand) -> Course:
    """The way from full to ``end``."""
    step = (1.0 - end) / POINTS
    charge = 1.0 - step * MIDDLES
    now = _moment(pack, charge, steady)
    passed = np.cumsum(pack.total_capacity * step / now.current, axis=-1) / 3600.0
    return Course(charge, passed, now)


def _ends(pack: Pack, loud: _Demand, player: Player) -> tuple[Real, Real, tuple[str, ...]]:
    """Highest charge (..., 1) at which a cut-off opens, which one, and their names.

    Looked for step by step from full, then within the step where it lies, and between the last two
    points on a straight line. 0 and the name after the last one, "empty", when none opens.
    """
    high, low = np.ones(1), np.zeros(1)
    for steps, ramp in SCANS:
        opened = _cut_offs(pack, high + (low - high) * ramp, loud, player)
        least = reduce(np.minimum, opened.values())
        opens = least < 0
        first = np.argmax(opens, axis=-1)[..., None]
        never = ~picked(opens, first)
        place = np.where(never, steps, first)
        above = np.maximum(place - 1, 0)
        step = (low - high) / steps
        high, low = high + step * above, high + step * place
    which = np.argmin(np.stack([picked(spare, place) for spare in opened.values()]), axis=0)
    before, after = picked(least, above), picked(least, place)
    with np.errstate(invalid="ignore", divide="ignore"):
        share = np.where(before > after, before / (before - after), 1.0)
    end = np.where(place == above, high, high + (low - high) * np.clip(share, 0.0, 1.0))
    names = (*opened, EMPTY)
    return np.where(never, 0.0, end), np.where(never, len(names) - 1, which), names


def _shares(
    pack: Pack, draw: Draw, drive: float, other: float, demand: _Demand
) -> dict[str, float]:
    """Where the mean power goes at half charge, in W; the parts add up to ``total``."""
    half = np.array([0.5])
    now = _moment(pack, half, demand)
    voltage, current = (float(np.ravel(x)[0]) for x in (now.voltage, now.current))
    audio = float(np.ravel(draw.audio)[0]) * drive**2
    drawn = voltage * current
    wires = current**2 * float(np.ravel(pack.resistance(half))[0])
    idle = max(drawn - audio - other, 0.0)
    return {
        "audio": audio,
        "idle": idle,
        "other": other,
        "wires": wires,
        "total": drawn + wires,
        "current": current,
    }
