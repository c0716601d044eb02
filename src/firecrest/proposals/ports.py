"""Ports to choose from: pipes and slots one can buy or saw, each with its length and its fit."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import pi, sqrt
from typing import Literal

import numpy as np

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.motion import largest, motion_of
from firecrest.assessment.openings.port import port_area, port_ends
from firecrest.core.air import Air
from firecrest.core.arrays import Real
from firecrest.core.cabinet.portfit import Duct, PortFit, Space, port_fit
from firecrest.core.errors import DesignError, FirecrestError
from firecrest.design.box import Port, port_at
from firecrest.design.case import Case
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.ids import place_of
from firecrest.design.shapes import inner_size, shape_of
from firecrest.design.standing import panels_of
from firecrest.proposals.inverse import tuning_of, with_tuning

PIPES = (
    (0.016, 0.0015),
    (0.020, 0.0015),
    (0.025, 0.0018),
    (0.032, 0.0018),
    (0.040, 0.0018),
    (0.050, 0.0018),
    (0.063, 0.0019),
    (0.075, 0.0019),
    (0.090, 0.0027),
    (0.110, 0.0032),
    (0.125, 0.0032),
    (0.160, 0.0032),
)
"""(outside diameter, wall) in m of plastic pipe in the metric series; measure the pipe you buy."""
SLOT_SHEETS = (1, 2, 3, 4)
"""A slot is as high as so many strips of the case's own sheet."""


def space_of(case: Case, port: Port) -> Space:
    """Room for a port behind its panel, the front where it has none.

    It folds along the longer free side; a wide slot lies along its width.
    """
    sides = [float(s) for s in inner_size(shape_of(case))]
    depth = sides.pop(_behind(case, port))
    across, side = min(sides), max(sides)
    if port.shape == "slot" and port.width + port.wall > across:
        across, side = side, across
    return Space(case.wall, depth, side, across)


def _behind(case: Case, port: Port) -> int:
    """The axis that goes inwards from the panel that a port is mounted on."""
    frames = panels_of(case)
    panel = port.mounts[0].panel if port.mounts else "front"
    if panel not in frames:
        return 2
    return int(np.argmax([abs(float(np.ravel(c)[0])) for c in frames[panel].normal]))


def duct_of(port: Port) -> Duct:
    """A port as a solid; a slot shares one wall of the case and has a divider on the other."""
    if port.shape == "round":
        outer = port.diameter + 2 * port.wall
        return Duct(port.length, port.diameter, outer, outer, port.count)
    return Duct(port.length, port.height, port.height + port.wall, port.width, port.count)


def fit_in_case(design: Design, place: int) -> PortFit:
    """How a port fits into the case, other things in it left out."""
    port = port_at(design.box, place)
    return port_fit(duct_of(port), space_of(design.box.case, port), port.bends)


SLOT_WIDE = 4.0
"""Width over height of a slot that takes the place of a round port."""


@dataclass(frozen=True)
class PortChoice:
    """One port for the present tuning; ``design`` holds it. ``speed`` is its peak air speed in m/s
    at the promise, None where that is not known.
    """

    port: Port
    design: Design
    area: float
    length: float
    fit: PortFit
    speed: float | None
    limit: float


@dataclass(frozen=True)
class AirSpeed:
    """Peak speed of the air in a port and what it bears at that frequency, m/s and Hz."""

    speed: float
    limit: float
    frequency: float


def worst_speed(assessment: Assessment, place: int) -> AirSpeed | None:
    """Where the air of a port comes closest to its limit at the promise, 20 to 200 Hz."""
    a = assessment.acoustic
    if a is None:
        return None
    speed = motion_of(assessment, a).opening[place]
    borne = a.ratings.opening_limit(place, a.frequency)
    limit = np.broadcast_to(np.inf if borne is None else borne, speed.shape)
    _, at = largest(speed / limit, a.frequency)
    k = int(np.searchsorted(a.frequency, at))
    return AirSpeed(float(speed[k]), float(limit[k]), at)


def candidates(design: Design, place: int, spread: float = 1e9) -> list[Port]:
    """Pipes (or slots of the case's sheet, as the port is now) that could stand in its place.

    Their area in all is within ``spread`` times that of the port either way; smallest first.
    """
    port = port_at(design.box, place)
    sheet = design.box.case.wall
    if port.shape == "round":
        found = [
            rebuilt(port, diameter=round(outer - 2 * wall, 4), wall=wall, count=n)
            for n in sorted({1, 2, port.count})
            for outer, wall in PIPES
        ]
    else:
        found = list(_slots(port, sheet))
    now = port.count * port_area(port)
    near = [p for p in found if 1 / spread <= p.count * port_area(p) / now <= spread]
    return sorted(near, key=lambda p: p.count * port_area(p))


def _slots(port: Port, sheet: float) -> Iterator[Port]:
    """Slots of whole sheets, as far as a slot can be that low or high."""
    for count in SLOT_SHEETS:
        try:
            yield rebuilt(port, height=round(count * sheet, 4), wall=sheet)
        except DesignError:
            continue


def folded(design: Design, place: int) -> Design:
    """A port folded as often as its length needs; as it is when it fits in no way."""
    bends = fit_in_case(design, place).bends
    if bends is None or bends == port_at(design.box, place).bends:
        return design
    return replace_at(design, ("box", "openings", place, "bends"), bends)


def with_port(design: Design, place: int, port: Port) -> Design:
    """A port in place of another at the tuning the chamber has now, folded as often as it needs.

    RangeError when no length gives that tuning.
    """
    chamber = place_of(design.box.chambers, port.chamber)
    tuning = tuning_of(design, chamber)
    assert tuning is not None
    made = replace_at(design, ("box", "openings", place), port)
    return folded(with_tuning(made, tuning, chamber), place)


def with_shape(design: Design, place: int, shape: Literal["round", "slot"]) -> tuple[str, Design]:
    """(label, design) with a port made round or a slot of the same area, at the same tuning.

    A slot is four times as wide as high. RangeError when no length gives that tuning.
    """
    port = port_at(design.box, place)
    if shape == port.shape:
        return "", design
    area = port_area(port)
    if shape == "round":
        made = rebuilt(port, shape=shape, diameter=2 * sqrt(area / pi))
    else:
        height = sqrt(area / SLOT_WIDE)
        made = rebuilt(port, shape=shape, width=SLOT_WIDE * height, height=height)
    return f"Shape: {port.shape} → {shape}", with_port(design, place, made)


def choice_of(design: Design, place: int, port: Port) -> PortChoice | None:
    """A candidate at the present tuning; None when no length gives that."""
    try:
        made = with_port(design, place, port)
    except FirecrestError:
        return None
    new, done = port_at(made.box, place), assess(made)
    fast = worst_speed(done, place)
    return PortChoice(
        new,
        made,
        new.count * float(port_area(new)),
        new.length,
        fit_in_case(made, place),
        None if fast is None else fast.speed,
        0.0 if fast is None else fast.limit,
    )


def length_for(port: Port, area: Real, mass: float, air: Air) -> Real:
    """Length in m of ``count`` ports of ``area`` m2 in all with acoustic ``mass`` (kg/m4) in all.

    The correction of the ends goes with the root of the area of one, as it does for ``port``.
    """
    ends = port_ends(port) * (area / (port.count * port_area(port))) ** 0.5
    return mass * area / air.density - ends
