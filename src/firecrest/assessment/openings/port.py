"""Ports: their sizes, their place in the network, the air they take, the speed they bear."""

from collections.abc import Iterator
from dataclasses import replace
from math import pi

from firecrest.assessment.lower import inputs
from firecrest.assessment.openings.kind import OpeningKind
from firecrest.assessment.room import Placed
from firecrest.assessment.wiring import Wiring
from firecrest.core.acoustics.openings import port as core
from firecrest.core.air import Air
from firecrest.core.arrays import Number
from firecrest.core.cabinet.rollup import Item
from firecrest.core.note import Note, note
from firecrest.design.box import OUTSIDE, Port


def port_area(port: Port) -> Number:
    """Area of one port in m2."""
    return pi * port.diameter**2 / 4 if port.shape == "round" else port.width * port.height


def port_outer_volume(port: Port) -> Number:
    """Air that one port takes from the chamber: its bore and its wall, over its length."""
    if port.shape == "round":
        return pi * (port.diameter / 2 + port.wall) ** 2 * port.length
    return (port.width + port.wall) * (port.height + port.wall) * port.length


def hydraulic_radius(port: Port) -> Number:
    """Twice the area over the perimeter, m."""
    if port.shape == "round":
        return port.diameter / 2
    return port.width * port.height / (port.width + port.height)


def port_ends(port: Port) -> Number:
    """Length in m that both ends add, as stated or by how they sit."""
    if port.end_correction is not None:
        return port.end_correction
    return core.end_correction(port_area(port), port.mounting)


def port_speed_limit(port: Port) -> Number:
    """Stated or estimated limit of the air speed, peak m/s."""
    return core.SPEED_LIMITS[port.edges] if port.speed_limit is None else port.speed_limit


def loss_coefficient(port: Port) -> float:
    """Pressure lost over rho v^2/2 by the shape of its ends and its bends."""
    return core.LOSS_COEFFICIENTS[port.edges] + core.BEND_LOSS * port.bends


def _element(port: Port, air: Air, chamber: int, opens_to: int) -> core.Port:
    """A lump of air, or a line where its resonances are reckoned with; no loss yet."""
    area, ends = port_area(port), port_ends(port)
    mass = core.acoustic_mass(port.length + ends, area, air)
    pipe = None
    if port.resonances:
        pipe = core.pipe_of(port.length, ends, area, hydraulic_radius(port), air)
    return core.Port(mass, area, chamber, 0.0, port.count, opens_to, pipe)


def _lossy(port: Port, element: core.Port, reference: Number) -> core.Port:
    if port.loss_q is None:
        return element
    return replace(element, resistance=2 * pi * reference * element.mass / port.loss_q)


def _room(port: Port) -> Placed:
    """A port between two chambers takes half from each."""
    ends = tuple(node for node in (port.chamber, port.opens_to) if node != OUTSIDE)
    return ends, Item("port", port.count, port_outer_volume(port), 0.0, 0.0)


def _estimates(box: inputs.Elements, port: Port) -> Iterator[Note]:
    if port.speed_limit is None:
        yield note("port speed", share=core.SPEED_SPREAD)


def _rating(box: inputs.Elements, wiring: Wiring, port: Port) -> Number:
    limit = port_speed_limit(port)
    return limit if port.speed_limit is not None else limit * box.air_speed


KIND = OpeningKind(
    "port",
    "length",
    lambda port: None,
    lambda box, port: iter(()),
    _estimates,
    _element,
    _lossy,
    _room,
    _rating,
    lambda port: port_area(port) if port.speed_limit is None else None,
)
