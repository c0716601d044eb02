"""A pack that is drawn on: bus and cells at each charge, what opens first, the way down to it.

The bus voltage at each charge solves V^2 - (Voc - R (I_idle + k I_avg)) V + R P = 0. Demands are of
shape (..., 1), charges (..., points).
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import reduce

import numpy as np

from firecrest.core.arrays import Number, Real, largest, picked
from firecrest.core.power.boards import Boards, Standing, standing
from firecrest.core.power.source import Pack, Strings

STEPS = 4
MIDDLES = (np.arange(STEPS) + 0.5) / STEPS
"""Points of the discharge on each straight line of the cell's table."""
FINER = np.arange(33) / 32
"""Points of the search for the end, on the line where it lies."""
EMPTY = "empty"


@dataclass(frozen=True)
class Demand:
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


def _between(way: Strings, place: Real) -> Strings:
    """The straight line before the point at ``place`` (..., 1), in finer steps."""
    above = np.maximum(place - 1, 0)

    def _finer(values: Real) -> Real:
        high = picked(values, above)
        return np.asarray(high + (picked(values, place) - high) * FINER)

    return way.each(_finer)


def _middles(way: Strings) -> Strings:
    """The middles of ``STEPS`` equal steps between each two points."""

    def _split(values: Real) -> Real:
        high = values[..., :-1, None]
        inner = high + (values[..., 1:, None] - high) * MIDDLES
        return inner.reshape(*values.shape[:-1], -1)

    return way.each(_split)


@dataclass(frozen=True)
class Moment:
    """The cells and the bus (V, A); NaN volts where it cannot carry the power.

    ``spare`` is what the open voltage has over the least that carries the power, in V; it is
    negative where the bus is ``broken``, None where it is so nowhere.
    """

    way: Strings
    voltage: Real
    current: Real
    spare: Real
    broken: Real | None


def moment(pack: Pack, way: Strings, demand: Demand) -> Moment:
    """Cells and bus under a demand."""
    resistance = way.ohms / pack.parallel + pack.board_resistance + pack.lead_resistance
    open_voltage = way.rest - resistance * demand.amperes
    needed = 4 * resistance * demand.power
    under = open_voltage**2 - needed
    voltage = (open_voltage + np.sqrt(np.maximum(under, 0.0))) / 2
    spare = np.asarray(open_voltage - np.sqrt(needed))
    # Losses alone may drop all of the open voltage: broken too, also where nothing is asked for.
    broken = (under < 0) | (voltage <= 0)
    if not broken.any():
        return Moment(way, voltage, demand.amperes + demand.power / voltage, spare, None)
    voltage = np.where(broken, np.nan, voltage)
    spare = np.where(broken & (spare >= 0), -1.0, spare)
    return Moment(way, voltage, demand.amperes + demand.power / voltage, spare, broken)


def cut_offs(pack: Pack, way: Strings, demand: Demand, player: Player) -> dict[str, Real]:
    """Volts above each cut-off; negative is open. What a broken bus opens is not told apart."""
    now = moment(pack, way, demand)
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
        cell = way.weak_rest - now.current * way.weak_ohms / pack.parallel
        spare["cell"] = cell - pack.cell_cut_off
    if now.broken is not None:
        spare = {name: np.where(now.broken, np.inf, value) for name, value in spare.items()}
    return {"collapse": now.spare, **spare}


def at_rest(pack: Pack, charge: Number, player: Player) -> dict[str, Real]:
    """Volts above each cut-off at ``charge`` while nothing is played; negative is open."""
    amperes, watts = (np.atleast_1d(x) for x in (player.standing.amperes, player.standing.watts))
    return cut_offs(pack, pack.strings_at(np.atleast_1d(charge)), Demand(watts, amperes), player)


@dataclass(frozen=True)
class Course:
    """Hours passed and the moment at the middles of steps from full to the end."""

    passed: Real
    moment: Moment


def discharge(pack: Pack, end: Real, steady: Demand, aside: Number = 0.0) -> Course:
    """The way from full to ``end``, with amperes ``aside`` that never reach the bus."""
    charge = np.maximum(pack.descent.charge, end)
    now = moment(pack, _middles(pack.strings_at(charge)), steady)
    steps = np.repeat((charge[..., :-1] - charge[..., 1:]) / STEPS, STEPS, axis=-1)
    with np.errstate(divide="ignore"):  # where nothing at all is drawn it lasts for ever
        seconds = pack.total_capacity * steps / (now.current + pack.own_current + aside)
    return Course(np.cumsum(seconds, axis=-1) / 3600.0, now)


def first_to_open(pack: Pack, loud: Demand, player: Player) -> tuple[Real, Real, tuple[str, ...]]:
    """Highest charge (..., 1) at which a cut-off opens, which one, and their names.

    Looked for at the points of the cell's table from full, then on the line where it lies in fine
    steps, and between the last two points on a straight line. 0 and the name after the last one,
    "empty", when none opens.
    """
    way = pack.descent
    opened = cut_offs(pack, way, loud, player)
    _, place, never = _first_open(opened)
    way = _between(way, place)
    opened = cut_offs(pack, way, loud, player)
    least, place, _ = _first_open(opened)
    above = np.maximum(place - 1, 0)
    which = np.argmin(np.stack([picked(spare, place) for spare in opened.values()]), axis=0)
    before, after = picked(least, above), picked(least, place)
    with np.errstate(invalid="ignore", divide="ignore"):
        share = np.where(before > after, before / (before - after), 1.0)
    high, low = picked(way.charge, above), picked(way.charge, place)
    end = high + (low - high) * np.clip(share, 0.0, 1.0)
    names = (*opened, EMPTY)
    return np.where(never, pack.spread, end), np.where(never, len(names) - 1, which), names


def _first_open(opened: Mapping[str, Real]) -> tuple[Real, Real, Real]:
    """(least volts to spare, place of the first point where any is open, where there is none).

    The place is the last one where none is open, (..., 1).
    """
    least = reduce(np.minimum, opened.values())
    opens = least < 0
    place = np.argmax(opens, axis=-1)[..., None]
    never = ~picked(opens, place)
    return least, np.where(never, least.shape[-1] - 1, place), never
