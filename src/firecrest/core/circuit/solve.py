"""The one solver: chambers joined by drivers, ports, radiators and leaks, fed through wire.

Impedance analogy, e^{+jwt}, rms phasors, volume velocity positive outwards. The unknowns are the
pressures of the chambers and the voltages of free electrical nodes. A coil is a gyrator between
both sides: from Ze i + Bl v = e and Zm v = Bl i - Sd (p_front - p_rear) follow

    v = m (Bl e/Ze - Sd (p_front - p_rear)),  m = 1/(Zm + Bl^2/Ze),  i = (e - Bl v)/Ze.

At a stiff output e is known, and only pressures remain.
Source: Beranek & Mellow, Acoustics (2012), 6.4-6.5; Small, JAES 21 (1973) 363-372 (vented) and
JAES 22 (1974) 592-601 (passive radiator); nodal analysis with gyrators: own derivation.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.openings import OUTSIDE, Opening
from firecrest.core.arrays import Complex, Real, inverse, scaled, summed
from firecrest.core.circuit.electrical import GROUND, channel_of
from firecrest.core.circuit.elements import DriverGroup, Network
from firecrest.core.circuit.mouths import Mouth, pushed
from firecrest.core.circuit.nodes import Nodes
from firecrest.core.circuit.solution import Solution, sources

_Winding = tuple[Complex, Complex, int, int]
"""Force per volt across the group, blocked admittance, and both terminals of a coil."""


@dataclass(frozen=True)
class _Cone:
    """What a group brings to the equations."""

    group: DriverGroup
    mobility: Complex
    coils: tuple[_Winding, ...]

    @property
    def area(self) -> Complex:
        """Sd of one cone."""
        return np.asarray(self.group.constants.s_d)


_Unit = tuple[Complex | float, Complex | float]
"""What a drive inside a group does by itself: force on each cone, current of each coil at rest."""
_ON_CONE: _Unit = (1.0, 0.0)


def _in_coil(cone: _Cone) -> _Unit:
    """A volt inside each first coil."""
    force, admittance, *_ = cone.coils[0]
    return cone.group.in_series * force, admittance


def _cone(group: DriverGroup, omega: Real) -> _Cone:
    """Mobility and windings of a group."""
    found: list[_Winding] = []
    for coil, plus, minus in group.coils:
        admittance = inverse(coil.coil_impedance(omega))
        force = coil.bl / group.in_series * admittance
        found.append((np.asarray(force), admittance, plus, minus))
    return _Cone(group, group.mobility(omega, [y for _, y, _, _ in found]), tuple(found))


def solve(
    network: Network,
    frequency: Real,
    mouths: tuple[Mouth, ...] = (),
    coils: tuple[int, ...] = (),
    pushed_cones: tuple[int, ...] = (),
) -> Solution:
    """Solve the network at ``frequency`` (Hz, shape (F,), positive) for a unit of each channel, of
    the pressure at each of ``mouths``, of a voltage inside the first coils of the drivers
    ``coils``, and of a force on each cone of the drivers ``pushed_cones``.
    """
    omega = 2 * np.pi * np.asarray(frequency, dtype=np.float64)
    cones = [_cone(group, omega) for group in network.drivers]
    opened = [opening.admittances(omega) for opening in network.openings]
    first = network.channels + len(mouths)
    excited = [
        *((place, k, _in_coil(cones[k])) for place, k in enumerate(coils, first)),
        *((place, k, _ON_CONE) for place, k in enumerate(pushed_cones, first + len(coils))),
    ]
    pressure, volts = _unknowns(network, omega, cones, opened, mouths, excited)
    across = [_across(network, cone, volts, pressure[0]) for cone in cones]
    own = [[(place, unit) for place, j, unit in excited if j == k] for k in range(len(cones))]
    velocity = tuple(
        _velocity(cone, e, pressure, units)
        for cone, e, units in zip(cones, across, own, strict=True)
    )
    currents = [
        _currents(cone, e, v, units)
        for cone, e, v, units in zip(cones, across, velocity, own, strict=True)
    ]
    flows = [_flows(o, y, pressure) for o, y in zip(network.openings, opened, strict=True)]
    for k, mouth in enumerate(mouths, network.channels):
        _push(network.openings[mouth.opening], opened[mouth.opening], flows, mouth, k)
    opening_flow = tuple(out for _, out in flows)
    outward = [s.flow for s in sources(network, velocity, opening_flow)]
    leaks = [chamber.leak * p for chamber, p in zip(network.chambers, pressure, strict=True)]
    return Solution(
        frequency,
        pressure,
        volts,
        velocity,
        tuple(i[0] for i in currents),
        tuple(i[1] if len(i) > 1 else None for i in currents),
        tuple(
            _output_current(network, cones, currents, volts, omega, k)
            for k in range(network.channels)
        ),
        opening_flow,
        tuple(into for into, _ in flows),
        summed(outward) if outward else np.zeros_like(velocity[0]),
        summed(leaks),
    )


def _unknowns(
    network: Network,
    omega: Real,
    cones: list[_Cone],
    opened: Sequence[tuple[Complex, Complex]],
    mouths: tuple[Mouth, ...],
    excited: list[tuple[int, int, _Unit]],
) -> tuple[tuple[Complex, ...], tuple[Complex, ...]]:
    """(chamber pressures, voltages of free nodes) per unit of each drive, (drives, ..., F)."""
    first = len(network.chambers)
    system = Nodes(first + network.nodes, network.channels + len(mouths) + len(excited))
    for place, chamber in enumerate(network.chambers):
        system.add(place, place, chamber.admittance(omega))
    for element, (own, through) in zip(network.openings, opened, strict=True):
        system.join(element.chamber, element.opens_to, own, through)
    for place, mouth in enumerate(mouths, network.channels):
        for node, flow in pushed(network, mouth, *opened[mouth.opening]).items():
            system.drive(node, place, flow)
    for place, k, unit in excited:
        _excite(system, first, cones[k], place, unit)
    for branch in network.branches:
        wire = branch.admittance(omega)
        for here, there in ((branch.a, branch.b), (branch.b, branch.a)):
            if here >= 0:
                _couple(system, first, first + here, here, wire)
                _couple(system, first, first + here, there, wire, -1.0)
    for cone in cones:
        _enter(system, first, cone)
    answer = system.solved()
    return answer[:first], answer[first:]


def _couple(
    system: Nodes, first: int, row: int, terminal: int, value: Complex, sign: float = 1.0
) -> None:
    """Enter ``sign * value`` times the voltage of a terminal into an equation."""
    channel = channel_of(terminal)
    if channel is not None:
        system.drive(row, channel, value if sign < 0 else -value)
    elif terminal != GROUND:
        system.add(row, first + terminal, value if sign > 0 else -value)


def _enter(system: Nodes, first: int, cone: _Cone) -> None:
    """Enter a group of drivers: its cones between chambers, its coils between terminals."""
    group, area = cone.group, cone.area
    own = group.count * area**2 * cone.mobility
    system.join(group.rear, group.front, own, own)
    for coil in cone.coils:
        force, _, plus, minus = coil
        flow = group.count * area * cone.mobility * force
        for chamber, sign in ((group.rear, 1.0), (group.front, -1.0)):
            if chamber != OUTSIDE:
                _couple(system, first, chamber, plus, flow, sign)
                _couple(system, first, chamber, minus, flow, -sign)
        for terminal, sign in ((plus, 1.0), (minus, -1.0)):
            if terminal >= 0:
                _enter_current(system, first, first + terminal, cone, coil, sign)


def _excite(system: Nodes, first: int, cone: _Cone, place: int, unit: _Unit) -> None:
    """Enter what a drive inside a group moves: its cones, its own current out of a free node."""
    group, (coil_force, _, plus, minus) = cone.group, cone.coils[0]
    force, still = unit
    flow = np.asarray(group.count * cone.area * cone.mobility * force)
    for chamber, out in ((group.rear, -flow), (group.front, flow)):
        if chamber != OUTSIDE:
            system.drive(chamber, place, out)
    own = group.in_parallel * (still - group.in_series * coil_force * cone.mobility * force)
    for terminal, out in ((plus, -own), (minus, own)):
        if terminal >= 0:
            system.drive(first + terminal, place, out)


def _enter_current(
    system: Nodes, first: int, row: int, cone: _Cone, coil: _Winding, sign: float
) -> None:
    """Enter the current of one coil, out of a free node, into that node's equation."""
    group, (force, admittance, plus, minus) = cone.group, coil
    strings = sign * group.in_parallel
    still = strings / group.in_series * admittance
    _couple(system, first, row, plus, still)
    _couple(system, first, row, minus, still, -1.0)
    back = strings * group.in_series * force * cone.mobility
    for other, _, far, near in cone.coils:
        _couple(system, first, row, far, back * other, -1.0)
        _couple(system, first, row, near, back * other)
    for chamber, side in ((group.front, 1.0), (group.rear, -1.0)):
        if chamber != OUTSIDE:
            system.add(row, chamber, side * back * cone.area)


def _across(
    network: Network, cone: _Cone, volts: tuple[Complex, ...], like: Complex
) -> list[Complex]:
    """Volts across the group at each of its coils, (channels, ..., F)."""

    def _at(terminal: int) -> Complex:
        channel = channel_of(terminal)
        if channel is None:
            return np.zeros(()) if terminal == GROUND else volts[terminal]
        unit = np.zeros((len(like),) + (1,) * (like.ndim - 1))
        unit[channel] = 1.0
        return unit

    return [_at(plus) - _at(minus) for _, _, plus, minus in cone.coils]


def _velocity(
    cone: _Cone,
    across: list[Complex],
    pressure: tuple[Complex, ...],
    units: list[tuple[int, _Unit]],
) -> Complex:
    """Velocity of one cone of a group; ``units`` are the drives inside itself, by place."""
    force = summed([f * e for (f, *_), e in zip(cone.coils, across, strict=True)])
    for chamber, area in ((cone.group.rear, cone.area), (cone.group.front, -cone.area)):
        if chamber != OUTSIDE:
            force = force + area * pressure[chamber]
    if units:
        force = np.array(np.broadcast_to(force, pressure[0].shape))
        for place, (push, _) in units:
            force[place] += push
    return force * cone.mobility


def _currents(
    cone: _Cone, across: list[Complex], velocity: Complex, units: list[tuple[int, _Unit]]
) -> list[Complex]:
    """Current of one driver, for each of its coils."""
    series = cone.group.in_series
    found = [
        np.asarray(e / series * admittance - (force if series == 1 else series * force) * velocity)
        for (force, admittance, *_), e in zip(cone.coils, across, strict=True)
    ]
    for place, (_, still) in units:
        found[0][place] += still
    return found


def _output_current(
    network: Network,
    cones: list[_Cone],
    currents: list[list[Complex]],
    volts: tuple[Complex, ...],
    omega: Real,
    channel: int,
) -> Complex:
    """Current out of one output of a channel."""
    found: list[Complex] = []
    for cone, own in zip(cones, currents, strict=True):
        for (_, _, plus, minus), i in zip(cone.coils, own, strict=True):
            ends = (channel_of(plus) == channel) * 1.0 - (channel_of(minus) == channel) * 1.0
            if ends:
                found.append(scaled(ends * cone.group.in_parallel, i))
    for branch in network.branches:
        for here, there in ((branch.a, branch.b), (branch.b, branch.a)):
            if channel_of(here) == channel:
                drop = _drop(here, there, volts, currents[0][0])
                found.append(branch.admittance(omega) * drop)
    return summed(found) if found else np.zeros(())


def _drop(here: int, there: int, volts: tuple[Complex, ...], like: Complex) -> Complex:
    """Voltage between two terminals, of which the first is an output, in the shape of ``like``."""
    unit = np.zeros((len(like),) + (1,) * (like.ndim - 1))
    for terminal, sign in ((here, 1.0), (there, -1.0)):
        channel = channel_of(terminal)
        if channel is not None:
            unit[channel] += sign
    return unit - volts[there] if there >= 0 else unit


def _flows(
    element: Opening, whole: tuple[Complex, Complex], pressure: tuple[Complex, ...]
) -> tuple[Complex, Complex]:
    """Volume velocity into one port or radiator from its chamber, and out of its other side.

    ``whole`` are the admittances of all ``count`` of them.
    """
    own, through = whole
    share = 1.0 / element.count
    near = scaled(share, pressure[element.chamber])
    if element.opens_to == OUTSIDE:
        into = np.asarray(near * own)
        return into, into if through is own else np.asarray(near * through)
    far = scaled(share, pressure[element.opens_to])
    return np.asarray(near * own - far * through), np.asarray(near * through - far * own)


def _push(
    element: Opening,
    whole: tuple[Complex, Complex],
    flows: list[tuple[Complex, Complex]],
    mouth: Mouth,
    place: int,
) -> None:
    """Add what a pascal at a mouth moves through the opening itself; ``flows`` are changed."""
    into, out = (np.array(flow) for flow in flows[mouth.opening])
    own, through = (np.asarray(y) / element.count for y in whole)
    into[place] += through if mouth.far else own
    out[place] += own if mouth.far else through
    flows[mouth.opening] = into, out
