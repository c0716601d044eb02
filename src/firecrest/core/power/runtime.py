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

STEPS = 4
MIDDLES = (np.arange(STEPS) + 0.5) / STEPS
"""Points of the discharge on each straight line of the cell's table."""
FINER = np.arange(33) / 32
"""Points of the search for the end, on the line where it lies."""
EMPTY = "empty"


@dataclass(frozen=True)
class Runtime:
    """Hours of play, the charge left, what ended it, and the course on the way.

    ``course`` holds hours, charge, rest voltage, bus voltage and current from full to the end;
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
class _Way:
    """Charges, and volts and ohms of one cell there, (..., n)."""

    charge: Real
    cell: Real
    ohms: Real

    def between(self, place: Real) -> "_Way":
        """The straight line before the point at ``place`` (..., 1), in finer steps."""
        above = np.maximum(place - 1, 0)

        def _finer(values: Real) -> Real:
            high = picked(values, above)
            return np.asarray(high + (picked(values, place) - high) * FINER)

        return _Way(_finer(self.charge), _finer(self.cell), _finer(self.ohms))

    def middles(self) -> "_Way":
        """The middles of ``STEPS`` equal steps between each two points."""

        def _split(values: Real) -> Real:
            high = values[..., :-1, None]
            inner = high + (values[..., 1:, None] - high) * MIDDLES
            return inner.reshape(*values.shape[:-1], -1)

        return _Way(_split(self.charge), _split(self.cell), _split(self.ohms))


def _way(pack: Pack, charge: Real) -> _Way:
    return _Way(charge, pack.table.voltage_at(charge), pack.table.resistance_at(charge))


@dataclass(frozen=True)
class _Moment:
    """One cell (V, ohm) and the bus (V, A); NaN volts where it cannot carry the power.

    ``spare`` is what the open voltage has over the least that carries the power, in V; it is
    negative where the bus is ``broken``, None where it is so nowhere.
    """

    way: _Way
    voltage: Real
    current: Real
    spare: Real
    broken: Real | None


def _moment(pack: Pack, way: _Way, demand: _Demand) -> _Moment:
    resistance = pack.whole_resistance(way.ohms)
    open_voltage = pack.series * way.cell - resistance * demand.amperes
    needed = 4 * resistance * demand.power
    under = open_voltage**2 - needed
    voltage = (open_voltage + np.sqrt(np.maximum(under, 0.0))) / 2
    spare = np.asarray(open_voltage - np.sqrt(needed))
    # Losses alone may drop all of the open voltage: broken too, also where nothing is asked for.
    broken = (under < 0) | (voltage <= 0)
    if not broken.any():
        return _Moment(way, voltage, demand.amperes + demand.power / voltage, spare, None)
    voltage = np.where(broken, np.nan, voltage)
    spare = np.where(broken & (spare >= 0), -1.0, spare)
    return _Moment(way, voltage, demand.amperes + demand.power / voltage, spare, broken)


def _cut_offs(pack: Pack, way: _Way, demand: _Demand, player: Player) -> dict[str, Real]:
    """Volts above each cut-off; negative is open. What a broken bus opens is not told apart."""
    now = _moment(pack, way, demand)
    spare = {}
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
        cell = way.cell - now.current * way.ohms / pack.parallel
        spare["cell"] = cell - pack.cell_cut_off
    if now.broken is not None:
        spare = {name: np.where(now.broken, np.inf, value) for name, value in spare.items()}
    return {"collapse": now.spare, **spare}


def at_rest(pack: Pack, charge: Number, player: Player) -> dict[str, Real]:
    """Volts above each cut-off at ``charge`` while nothing is played; negative is open."""
    amperes, watts = (np.atleast_1d(x) for x in (player.standing.amperes, player.standing.watts))
    return _cut_offs(pack, _way(pack, np.atleast_1d(charge)), _Demand(watts, amperes), player)


@dataclass(frozen=True)
class Course:
    """Hours passed and the moment at the middles of steps from full to the end."""

    passed: Real
    moment: _Moment


@dataclass(frozen=True)
class Played:
    """Hours of play and the charge left, (..., 1), and which of ``names`` ended it.

    ``course`` holds charge, cell, bus and hours passed on the way.
    """

    hours: Real
    end_charge: Real
    which: Real
    names: tuple[str, ...]
    course: Course


def played(pack: Pack, draw: Draw, drive: Number, burst: Number, player: Player) -> Played:
    """Hours of play at ``drive`` (V rms of programme whose ``draw`` is given) from full to cut-off.

    Ends at the highest charge at which a burst of ``burst`` dB opens a cut-off. Midpoint rule on
    ``STEPS`` steps of each line of the cell's table; a fine quadrature agrees within 2e-6 (tests).
    """
    end, which, names = _ends(pack, _demand(draw, drive * 10 ** (burst / 20), player), player)
    course = _discharge(pack, end, _demand(draw, drive, player))
    hours = np.where(end < 1.0, course.passed[..., -1:], 0.0)
    return Played(hours, end, which, names, course)


def runtime_of(found: Played, pack: Pack, draw: Draw, drive: float, player: Player) -> Runtime:
    """One design's play with its course; ``draw`` and the rest are its own."""
    course = _drawn(found, pack, _demand(draw, drive, player))
    hours, left, which = (np.ravel(x)[0] for x in (found.hours, found.end_charge, found.which))
    other = float(np.ravel(player.other)[0])
    shares = _shares(pack, draw, drive, other, _demand(draw, drive, player))
    return Runtime(float(hours), float(left), found.names[int(which)], course, shares)


def _drawn(found: Played, pack: Pack, steady: _Demand) -> dict[str, Real]:
    """The course of one design from full to its end: the middles of all steps, and both ends."""
    passed, way = np.ravel(found.course.passed), found.course.moment
    ends = _moment(pack, _way(pack, np.array([1.0, np.ravel(found.end_charge)[0]])), steady)
    middles = passed - 0.5 * np.diff(passed, prepend=0.0)

    def _whole(inner: Real, outer: Real) -> Real:
        return np.concatenate((outer[:1], np.ravel(inner), outer[1:]))

    return {
        "hours": _whole(middles, np.array([0.0, passed[-1]])),
        "charge": _whole(way.way.charge, ends.way.charge),
        "rest": _whole(pack.series * way.way.cell, pack.series * ends.way.cell),
        "bus": _whole(way.voltage, ends.voltage),
        "current": _whole(way.current, ends.current),
    }


def _discharge(pack: Pack, end: Real, steady: _Demand) -> Course:
    """The way from full to ``end``."""
    charge = np.maximum(pack.table.waypoints, end)
    now = _moment(pack, _way(pack, charge).middles(), steady)
    steps = np.repeat((charge[..., :-1] - charge[..., 1:]) / STEPS, STEPS, axis=-1)
    passed = np.cumsum(pack.total_capacity * steps / now.current, axis=-1) / 3600.0
    return Course(passed, now)


def _ends(pack: Pack, loud: _Demand, player: Player) -> tuple[Real, Real, tuple[str, ...]]:
    """Highest charge (..., 1) at which a cut-off opens, which one, and their names.

    Looked for at the points of the cell's table from full, then on the line where it lies in fine
    steps, and between the last two points on a straight line. 0 and the name after the last one,
    "empty", when none opens.
    """
    way = _Way(*pack.table.descent)
    opened = _cut_offs(pack, way, loud, player)
    _, place, never = _first_open(opened)
    way = way.between(place)
    opened = _cut_offs(pack, way, loud, player)
    least, place, _ = _first_open(opened)
    above = np.maximum(place - 1, 0)
    which = np.argmin(np.stack([picked(spare, place) for spare in opened.values()]), axis=0)
    before, after = picked(least, above), picked(least, place)
    with np.errstate(invalid="ignore", divide="ignore"):
        share = np.where(before > after, before / (before - after), 1.0)
    high, low = picked(way.charge, above), picked(way.charge, place)
    end = high + (low - high) * np.clip(share, 0.0, 1.0)
    names = (*opened, EMPTY)
    return np.where(never, 0.0, end), np.where(never, len(names) - 1, which), names


def _first_open(opened: Mapping[str, Real]) -> tuple[Real, Real, Real]:
    """(least volts to spare, place of the first point where any is open, where there is none).

    The place is the last one where none is open, (..., 1).
    """
    least = reduce(np.minimum, opened.values())
    opens = least < 0
    place = np.argmax(opens, axis=-1)[..., None]
    never = ~picked(opens, place)
    return least, np.where(never, least.shape[-1] - 1, place), never


def _shares(
    pack: Pack, draw: Draw, drive: float, other: float, demand: _Demand
) -> dict[str, float]:
    """Where the mean power goes at half charge, in W; the parts add up to ``total``."""
    half = np.array([0.5])
    now = _moment(pack, _way(pack, half), demand)
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
