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
from typing import Any

import numpy as np

from firecrest.core.acoustics.openings import OUTSIDE, Opening
from firecrest.core.arrays import Complex, Number, Real, inverse, summed
from firecrest.core.circuit.electrical import GROUND, channel_of
from firecrest.core.circuit.elements import DriverGroup, Network
from firecrest.core.circuit.mouths import Mouth, pushed
from firecrest.core.circuit.nodes import Nodes


@dataclass(frozen=True)
class Solution:
    """Answers per volt on each channel: arrays of shape (channels, ..., F), one per element.

    Where mouths of ports and coils are told apart, those per pascal at each mouth and per volt in
    each coil follow the channels.

    Velocities and flows are of *one* driver, port or radiator; ``opening_flow`` comes out of the
    far end of an opening, ``opening_intake`` goes into the near one. ``current`` is that of the
    first coil of each driver, ``second_current`` of its second one (None without),
    ``output_current`` that of one output of each channel. ``radiated`` is the sum of cones and
    openings that face outside, ``leaked`` the sum of the leaks.
    """

    frequency: Real
    pressure: tuple[Complex, ...]
    volts: tuple[Complex, ...]
    velocity: tuple[Complex, ...]
    current: tuple[Complex, ...]
    second_current: tuple[Complex | None, ...]
    output_current: tuple[Complex, ...]
    opening_flow: tuple[Complex, ...]
    opening_intake: tuple[Complex, ...]
    radiated: Complex
    leaked: Complex

    def of(self, places: slice) -> "Solution":
        """The answers to some of what drives the network."""

        def _part(value: Complex | None) -> Any:
            return value[places] if value is not None and value.ndim else value

        def _parts(values: tuple[Any, ...]) -> tuple[Any, ...]:
            return tuple(_part(value) for value in values)

        return Solution(
            self.frequency,
            _parts(self.pressure),
            _parts(self.volts),
            _parts(self.velocity),
            _parts(self.current),
            _parts(self.second_current),
            _parts(self.output_current),
            _parts(self.opening_flow),
            _parts(self.opening_intake),
            _part(self.radiated),
            _part(self.leaked),
        )


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


def _cone(group: DriverGroup, omega: Real) -> _Cone:
    """Mobility and windings of a group."""
    found: list[_Winding] = []
    for coil, plus, minus in group.coils:
        admittance = inverse(coil.coil_impedance(omega))
        force = coil.bl / group.in_series * admittance
        found.append((np.asarray(force), admittance, plus, minus))
    return _Cone(group, group.mobility(omega, [y for _, y, _, _ in found]), tuple(found))


def solve(
    network: Network, frequency: Real, mouths: tuple[Mouth, ...] = (), coils: tuple[int, ...] = ()
) -> Solution:
    """Solve the network at ``frequency`` (Hz, shape (F,), positive) for a unit of each channel, of
    the pressure at each of ``mouths``, and of a voltage inside the first coils of the drivers
    ``coils``.
    """
    omega = 2 * np.pi * np.asarray(frequency, dtype=np.float64)
    cones = [_cone(group, omega) for group in network.drivers]
    opened = [opening.admittances(omega) for opening in network.openings]
    pressure, volts = _unknowns(network, omega, cones, opened, mouths, coils)
    across = [_across(network, cone, volts, pressure[0]) for cone in cones]
    places: list[int | None] = [None] * len(cones)
    for place, k in enumerate(coils, network.channels + len(mouths)):
        places[k] = place
    velocity = tuple(
        _velocity(cone, e, pressure, place)
        for cone, e, place in zip(cones, across, places, strict=True)
    )
    currents = [
        _currents(cone, e, v, place)
        for cone, e, v, place in zip(cones, across, velocity, places, strict=True)
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
    coils: tuple[int, ...],
) -> tuple[tuple[Complex, ...], tuple[Complex, ...]]:
    """(chamber pressures, voltages of free nodes) per unit of each drive, (drives, ..., F)."""
    first = len(network.chambers)
    system = Nodes(first + network.nodes, network.channels + len(mouths) + len(coils))
    for place, chamber in enumerate(network.chambers):
        system.add(place, place, chamber.admittance(omega))
    for element, (own, through) in zip(network.openings, opened, strict=True):
        system.join(element.chamber, element.opens_to, own, through)
    for place, mouth in enumerate(mouths, network.channels):
        for node, flow in pushed(network, mouth, *opened[mouth.opening]).items():
            system.drive(node, place, flow)
    for place, k in enumerate(coils, network.channels + len(mouths)):
        _excite(system, first, cones[k], place)
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


def _excite(system: Nodes, first: int, cone: _Cone, place: int) -> None:
    """Enter what a volt inside each first coil of a group drives: its cones, and its own current
    out of a free node.
    """
    group, (force, admittance, plus, minus) = cone.group, cone.coils[0]
    push = group.in_series * force
    flow = np.asarray(group.count * cone.area * cone.mobility * push)
    for chamber, out in ((group.rear, -flow), (group.front, flow)):
        if chamber != OUTSIDE:
            system.drive(chamber, place, out)
    own = group.in_parallel * (admittance - push**2 * cone.mobility)
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
    cone: _Cone, across: list[Complex], pressure: tuple[Complex, ...], excited: int | None
) -> Complex:
    """Velocity of one cone of a group; ``excited`` is the place of the volt in its own coils."""
    force = summed([f * e for (f, *_), e in zip(cone.coils, across, strict=True)])
    for chamber, area in ((cone.group.rear, cone.area), (cone.group.front, -cone.area)):
        if chamber != OUTSIDE:
            force = force + area * pressure[chamber]
    if excited is not None:
        force = np.array(np.broadcast_to(force, pressure[0].shape))
        force[excited] += cone.group.in_series * cone.coils[0][0]
    return force * cone.mobility


def _currents(
    cone: _Cone, across: list[Complex], velocity: Complex, excited: int | None
) -> list[Complex]:
    """Current of one driver, for each of its coils."""
    series = cone.group.in_series
    found = [
        np.asarray(e / series * admittance - (force if series == 1 else series * force) * velocity)
        for (force, admittance, *_), e in zip(cone.coils, across, strict=True)
    ]
    if excited is not None:
        found[0][excited] += cone.coils[0][1]
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
                found.append(_times(ends * cone.group.in_parallel, i))
    for branch in network.branches:
        for here, there in ((branch.a, branch.b), (branch.b, branch.a)):
            if channel_of(here) == channel:
                drop = _drop(here, there, volts, currents[0][0])
                found.append(branch.admittance(omega) * drop)
    return summed(found) if found else np.zeros(())


def _times(factor: Number, value: Complex) -> Complex:
    """A product; nothing is done by a factor of 1."""
    return value if isinstance(factor, float | int) and factor == 1 else np.asarray(factor * value)


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
    near = _times(share, pressure[element.chamber])
    if element.opens_to == OUTSIDE:
        into = np.asarray(near * own)
        return into, into if through is own else np.asarray(near * through)
    far = _times(share, pressure[element.opens_to])
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


@dataclass(frozen=True)
class SoundSource:
    """One thing that radiates: "cone" or "opening", its place among the drivers or openings of the
    network, and its whole outward volume velocity (channels, ..., F).
    """

    kind: str
    index: int
    flow: Complex


def sources(
    network: Network, velocity: tuple[Complex, ...], opening_flow: tuple[Complex, ...]
) -> list[SoundSource]:
    """Everything that radiates; leaks, which have no place, are not among them."""
    found: list[SoundSource] = []
    for k, (group, v) in enumerate(zip(network.drivers, velocity, strict=True)):
        outward = (group.front == OUTSIDE) * 1.0 - (group.rear == OUTSIDE) * 1.0
        if outward:
            found.append(SoundSource("cone", k, outward * group.count * group.constants.s_d * v))
    for k, (opening, flow) in enumerate(zip(network.openings, opening_flow, strict=True)):
        if opening.opens_to == OUTSIDE:
            found.append(SoundSource("opening", k, _times(opening.count, flow)))
    return found


def output_impedance(solution: Solution, channel: int) -> Complex:
    """Load on one amplifier output of ``channel``, other channels held at 0 V; ohm, (..., F).

    The drive is 1 V, so the load is the reciprocal of the current of that output.
    """
    return np.asarray(1.0 / solution.output_current[channel][channel])
