"""Runtime of a pack at a level, and at rest: t = Q integral dq/I(q), until a cut-off opens."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.limits.draw import Draw
from firecrest.core.power.discharge import Course, Demand, Player, discharge, first_to_open, moment
from firecrest.core.power.source import Pack


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


def demand_of(draw: Draw, drive: Number, player: Player) -> Demand:
    """At ``drive`` volts rms of input."""
    losses = player.standing.amperes + draw.average * draw.amperes * drive
    power = draw.mean_power * drive**2 + draw.average * draw.watts * drive
    return Demand(np.asarray(power + player.standing.watts), np.asarray(losses))


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
    end, which, names = first_to_open(
        pack, demand_of(draw, drive * 10 ** (burst / 20), player), player
    )
    course = discharge(pack, end, demand_of(draw, drive, player))
    hours = np.where(end < 1.0, course.passed[..., -1:], 0.0)
    return Played(hours, end, which, names, course)


MONTH = 30 * 86400.0
"""Seconds that a share of self-discharge refers to."""


def stood(pack: Pack, player: Player, self_discharge: Number) -> Played:
    """How long a pack stands with what ``player`` takes while nothing is played.

    Its cells lose ``self_discharge`` of their charge in 30 days besides, and the protection board
    its own current. No burst opens a cut-off here.
    """
    amperes, watts = (np.atleast_1d(x) for x in (player.standing.amperes, player.standing.watts))
    demand = Demand(watts, amperes)
    end, which, names = first_to_open(pack, demand, player)
    course = discharge(pack, end, demand, pack.total_capacity * self_discharge / MONTH)
    hours = np.where(end < 1.0, course.passed[..., -1:], 0.0)
    return Played(hours, end, which, names, course)


def runtime_of(
    found: Played, pack: Pack, draw: Draw, drive: float, player: Player, burst: float = 0.0
) -> Runtime:
    """One design's play with its course; ``draw`` and the rest are its own.

    The course has the bus in bursts of ``burst`` dB as well (NaN where it would collapse).
    """
    course = _drawn(found, pack, demand_of(draw, drive, player))
    loud = demand_of(draw, drive * 10 ** (burst / 20), player)
    course["burst"] = moment(pack, pack.strings_at(course["charge"]), loud).voltage
    hours, left, which = (np.ravel(x)[0] for x in (found.hours, found.end_charge, found.which))
    other = float(np.ravel(player.other)[0])
    shares = _shares(pack, draw, drive, other, demand_of(draw, drive, player))
    return Runtime(float(hours), float(left), found.names[int(which)], course, shares)


def _drawn(found: Played, pack: Pack, steady: Demand) -> dict[str, Real]:
    """The course of one design from full to its end: the middles of all steps, and both ends."""
    passed, way = np.ravel(found.course.passed), found.course.moment
    tips = moment(pack, pack.strings_at(np.array([1.0, np.ravel(found.end_charge)[0]])), steady)
    middles = passed - 0.5 * np.diff(passed, prepend=0.0)

    def _whole(inner: Real, outer: Real) -> Real:
        return np.concatenate((outer[:1], np.ravel(inner), outer[1:]))

    return {
        "hours": _whole(middles, np.array([0.0, passed[-1]])),
        "charge": _whole(way.way.charge, tips.way.charge),
        "rest": _whole(way.way.rest, tips.way.rest),
        "bus": _whole(way.voltage, tips.voltage),
        "current": _whole(way.current, tips.current),
    }


def _shares(pack: Pack, draw: Draw, drive: float, other: float, demand: Demand) -> dict[str, float]:
    """Where the mean power goes at half charge, in W; the parts add up to ``total``."""
    half = np.array([0.5])
    now = moment(pack, pack.strings_at(half), demand)
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
