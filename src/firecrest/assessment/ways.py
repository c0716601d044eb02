"""Ways with measured responses: what their curves make of the pressure that the model gives.

Every pressure of the program is the model's flow heard at the listener; for a way with curves it is
multiplied by one factor over frequency: joined curve over model, both where the curve was measured.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from firecrest.assessment.network import BoxModel
from firecrest.assessment.radiating import radiated_flow
from firecrest.core.acoustics.openings import OUTSIDE
from firecrest.core.acoustics.radiation import SOLID_ANGLES, Surroundings, baffle_corner, heard
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number
from firecrest.core.circuit.solution import Solution
from firecrest.core.circuit.solve import solve
from firecrest.core.curve_text import kept_curve
from firecrest.core.voice.joining import Hold, Join, join_of, joined
from firecrest.core.voice.phase import Tails, path_to, tails_of
from firecrest.core.voice.response import Response, response_of
from firecrest.design.curve import WayCurve
from firecrest.design.voice import WayResponse

Spot = tuple[float, ...]
JUDGED_TO = 10e3
CLOSED_TAIL, OTHER_TAIL = 12.0, 24.0
"""DB an octave below a joined level, for its minimum phase."""


@dataclass(frozen=True)
class Measured:
    """One way's response on its axis, and how it meets the model.

    ``volts`` and ``distance`` are those of the curve (1 V and 1 m where it states none).
    """

    curve: Response
    volts: float
    distance: float
    solid_angle: float
    join: float
    hold: Hold
    low_tail: float
    place: Spot


def on_axis(response: WayResponse) -> WayCurve | None:
    """The curve of a way nearest to its axis, within 1 degree; None without one."""
    near = [c for c in response.curves if abs(c.angle) < pi / 180]
    return near[0] if near else None


def curve_response(curve: WayCurve) -> Response:
    """A way's curve as level and phase; read only."""
    points = kept_curve(curve.content, curve.unit)
    return response_of(points.frequency, points.magnitude, points.phase)


def tails_in(response: WayResponse, curve: Response) -> Tails:
    """Slopes beyond the ends of a curve, as typed or else from the curve."""
    own = tails_of(curve)
    return Tails(
        own.low if response.low_tail is None else response.low_tail,
        own.high if response.high_tail is None else response.high_tail,
    )


def measured_of(response: WayResponse, closed: bool, place: Spot) -> Measured | None:
    """What was measured of a way on its axis; None where nothing was."""
    chosen = on_axis(response)
    if chosen is None:
        return None
    curve = curve_response(chosen)
    stated = chosen.distance is not None and chosen.volts is not None
    hold: Hold = "measurement" if stated else "model"
    if response.hold != "by itself":
        hold = response.hold
    return Measured(
        curve,
        chosen.volts or 1.0,
        chosen.distance or 1.0,
        SOLID_ANGLES[chosen.place],
        join_frequency(response, curve, hold),
        hold,
        CLOSED_TAIL if closed else OTHER_TAIL,
        place,
    )


def join_frequency(response: WayResponse, curve: Response, hold: Hold) -> float:
    """Hz at which a curve meets its model: as typed, held within the curve, or else by itself."""
    low, high = curve.low * sqrt(2.0), curve.high / sqrt(2.0)
    wanted = response.join
    if wanted is None:
        wanted = low if hold == "measurement" else sqrt(curve.low * curve.high)
    return float(min(max(wanted, low), max(high, low)))


@dataclass(frozen=True)
class Ways:
    """For each channel what was measured, how it joins, and its factor (..., F); None: the model.

    ``width`` is that of the front in m.
    """

    measured: tuple[Measured | None, ...]
    width: Number
    joins: tuple[Join | None, ...]
    factors: tuple[Complex | None, ...]


def ways_of(
    model: BoxModel,
    solution: Solution,
    air: Air,
    width: Number,
    measured: tuple[Measured | None, ...],
) -> Ways:
    """The factors of all ways at the frequencies of a solution."""
    joins: list[Join | None] = []
    factors: list[Complex | None] = []
    for k, way in enumerate(measured):
        if way is None:
            joins.append(None)
            factors.append(None)
            continue
        at = solve(model.network, np.array([way.join]))
        join = join_of(modelled(model, at, air, width, k, way), way.curve, way.join, way.hold)
        heard_of = modelled(model, solution, air, width, k, way)
        found = joined(join, heard_of, way.curve, solution.frequency, way.low_tail)
        if way.curve.phase is None:
            late = (path_to(way.place, way.distance, 0.0) - way.distance) / air.speed
            found = found * np.exp(-2j * np.pi * solution.frequency * late)
        with np.errstate(divide="ignore", invalid="ignore"):
            factor = found / heard_of
        joins.append(join)
        factors.append(np.where(np.isfinite(factor), factor, 0.0))
    return Ways(measured, width, tuple(joins), tuple(factors))


def known_up_to(measured: Sequence[Measured | None]) -> float | None:
    """Hz up to which loudness is judged where every way has a response; None where one has none.

    10 kHz at most: above, single notes are no matter of loudness.
    """
    tops = [None if way is None else way.curve.high for way in measured]
    known = [top for top in tops if top is not None]
    return min(JUDGED_TO, *known) if len(known) == len(tops) else None


def modelled(
    model: BoxModel, solution: Solution, air: Air, width: Number, channel: int, way: Measured
) -> Complex:
    """Pressure in Pa of the model of one way where its curve was measured, with the same volts."""
    flow = radiated_flow(model, solution, way.distance, air)[channel]
    around = Surroundings(way.distance, way.solid_angle, None, baffle_corner(width))
    return heard(way.volts * flow, solution.frequency, around, air)


def drives_of(model: BoxModel, openings: Sequence[int], drivers: Sequence[int]) -> tuple[int, ...]:
    """The channel that each drive beside the channels is heard with.

    A mouth of an opening goes with the drivers of its chamber, a coil or cone with its own.
    """
    network, found = model.network, []
    for place in openings:
        ends = {network.openings[place].chamber, network.openings[place].opens_to} - {OUTSIDE}
        near = [g.channel for g in network.drivers if {g.rear, g.front} & ends]
        found.append(near[0] if near else 0)
    return (*found, *(network.drivers[k].channel for k in drivers))


def sound_of(ways: Ways, drives: Sequence[int], flow: Complex) -> Complex:
    """``flow`` (drives, ..., F) as the measured ways make it sound."""
    factors = [ways.factors[channel] for channel in drives]
    if all(factor is None for factor in factors):
        return flow
    rows = [
        row if factor is None else row * factor for factor, row in zip(factors, flow, strict=True)
    ]
    return np.stack(np.broadcast_arrays(*rows))
