"""Where the power goes: every watt that leaves a source, item by item, at long-term means.

All items add up to the source's. Means leave out the ripple of the current: real cells lose up to
its form factor squared more, a few per cent of a small item.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.arrays import Number, Real
from firecrest.core.limits.draw import Draw
from firecrest.core.power.boards import Boards, Load

REFERENCE_PRESSURE = 2e-5
SOURCE = "source"
Flow = Mapping[str, Real]
"""W by item, or J."""


@dataclass(frozen=True)
class Played:
    """Programme at ``drive`` (V rms of input) whose ``draw`` is given, on ``boards`` whose feeds
    have ``counts`` equal outputs each; ``loads`` stand beside them.
    """

    boards: Boards
    counts: Sequence[int]
    draw: Draw
    drive: Number
    loads: Sequence[Load]


@dataclass(frozen=True)
class Given:
    """The source at some moments (...): rest volts, bus volts, amperes, and what lies in the way in
    ohms, by name.
    """

    rest: Number
    bus: Number
    amperes: Number
    resistances: Mapping[str, Number]


def flow(given: Given, played: Played) -> Flow:
    """W of each item; the first, ``source``, is the sum of all others but for rounding."""
    found: dict[str, Number] = {SOURCE: given.rest * given.amperes}
    for name, ohms in given.resistances.items():
        found[name] = given.amperes**2 * ohms
    found["modules"] = sum(load.power for load in played.loads)
    found["regulators"] = sum(load.power * (1 / load.efficiency - 1) for load in played.loads)
    found["converters"] = _converters(played)
    found["amplifier idle"] = _idle(given, played)
    lost, switched = _outputs(given, played)
    found["output resistance"], found["switching"] = lost, switched
    found["drivers"] = _last(played.draw.audio) * played.drive**2 - lost
    return {name: np.asarray(value, dtype=np.float64) for name, value in found.items()}


def _last(value: Number) -> Number:
    """Of the programme."""
    return value[..., -1:] if isinstance(value, np.ndarray) else value


def _converters(played: Played) -> Number:
    """Losses of all converters, with what they take by themselves."""
    lost: Number = 0.0
    for place, converter in enumerate(played.boards.converters):
        own = played.draw.behind[place]
        idle = sum(model.idle_current for model in played.boards.behind(place))
        amperes = idle + _last(played.draw.average) * _last(own.amperes) * played.drive
        given = converter.output_voltage * amperes + _last(own.power) * played.drive**2
        given = given + sum(
            load.power / load.efficiency for load in played.loads if load.converter == place
        )
        lost = lost + given * (1 / converter.efficiency - 1) + converter.idle_power
    return lost


def _rail(given: Given, boards: Boards, board: int) -> Number:
    place = boards.boards[board].converter
    return given.bus if place is None else boards.converters[place].output_voltage


def _idle(given: Given, played: Played) -> Number:
    boards = played.boards
    return sum(
        _rail(given, boards, k) * board.model.idle_current for k, board in enumerate(boards.boards)
    )


def _outputs(given: Given, played: Played) -> tuple[Number, Number]:
    """(lost in output resistances, lost by switching) of all outputs."""
    lost: Number = 0.0
    switched: Number = 0.0
    average = _last(played.draw.average)
    feeds = zip(played.boards.feeds, played.draw.currents, played.counts, strict=True)
    for feed, current, count in feeds:
        amperes = _last(current) * played.drive
        lost = lost + count * feed.outputs.r_out * amperes**2
        volts = _rail(given, played.boards, feed.board)
        switched = switched + volts * feed.outputs.loss * average * count * amperes
    return lost, switched


def sound_power(level: Number, distance: Number, solid_angle: Number) -> Number:
    """W that a source radiates which makes ``level`` dB at ``distance`` m over ``solid_angle`` sr.

    p^2 Omega r^2/(rho c) in air of 20 C.
    """
    pressure = REFERENCE_PRESSURE * 10 ** (level / 20)
    air = DATA_SHEET_AIR
    return pressure**2 * solid_angle * distance**2 / (air.density * air.speed)
