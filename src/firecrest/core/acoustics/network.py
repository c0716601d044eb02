"""The one acoustic network: chambers joined by drivers, ports, radiators and leaks.

Impedance analogy, e^{+jwt}, rms phasors, volume velocity positive outwards. The unknowns are the
chamber pressures only. A driver is reduced to an admittance and a source: from Ze i + Bl v = e
and Zm v = Bl i - Sd (p_front - p_rear) follows

    v = (Bl e/Ze - Sd (p_front - p_rear)) / (Zm + Bl^2/Ze).

Source: Beranek & Mellow, Acoustics (2012), 6.4-6.5; Small, JAES 21 (1973) 363-372 (vented) and
JAES 22 (1974) 592-601 (passive radiator). Every parameter may carry leading design axes.
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.driver import DriverConstants
from firecrest.core.arrays import Complex, Number, Real

OUTSIDE = -1


@dataclass(frozen=True)
class Chamber:
    """Air of a chamber: compliance (m3/Pa), leak (1/R, m3/(Pa s)), series absorption (Pa s/m3)."""

    compliance: Number
    leak: Number = 0.0
    absorption: Number = 0.0

    def admittance(self, omega: Real) -> Complex:
        """Air and leak in parallel, m3/(Pa s), shape (..., F)."""
        air = 1.0 / (self.absorption - 1j / (omega * self.compliance))
        return air + self.leak


@dataclass(frozen=True)
class DriverGroup:
    """Equal drivers on one channel: on each of ``outputs`` amplifier outputs, series x parallel.

    The cones face from chamber ``rear`` into chamber ``front``; ``OUTSIDE`` is open air.
    """

    constants: DriverConstants
    rear: int
    front: int = OUTSIDE
    channel: int = 0
    in_series: int = 1
    in_parallel: int = 1
    outputs: int = 1

    @property
    def count(self) -> int:
        """Number of drivers in the whole group."""
        return self.in_series * self.in_parallel * self.outputs

    def mobility(self, omega: Real) -> Complex:
        """Cone velocity per newton with the coil across a stiff source, m/(N s), (..., F)."""
        constants = self.constants
        brake = constants.bl**2 / constants.coil_impedance(omega)
        return 1.0 / (constants.mechanical_impedance(omega) + brake)

    def force(self, omega: Real) -> Complex:
        """Force on one blocked cone per volt across the group, N/V, shape (..., F)."""
        coil = self.constants.coil_impedance(omega)
        return self.constants.bl / (coil * self.in_series)


@dataclass(frozen=True)
class Port:
    """``count`` equal ports: acoustic mass (kg/m4) and loss (Pa s/m3) of one, area (m2) of one."""

    mass: Number
    area: Number
    chamber: int
    resistance: Number = 0.0
    count: int = 1
    opens_to: int = OUTSIDE

    def admittance(self, omega: Real) -> Complex:
        """Of all ``count`` together, m3/(Pa s)."""
        return self.count / (self.resistance + 1j * omega * self.mass)


@dataclass(frozen=True)
class Radiator:
    """``count`` equal passive radiators; mass with air load and added mass, in mechanical SI."""

    mass: Number
    compliance: Number
    resistance: Number
    area: Number
    chamber: int
    count: int = 1
    opens_to: int = OUTSIDE

    def admittance(self, omega: Real) -> Complex:
        """Of all ``count`` together, m3/(Pa s).

        A lossless radiator exactly at its resonance would short the chamber: its impedance is
        kept above 1e-9 of its mass reactance, so that the answer stays finite.
        """
        inertia = omega * self.mass
        impedance = self.resistance + 1j * (inertia - 1.0 / (omega * self.compliance))
        least = 1e-9 * inertia
        impedance = np.where(np.abs(impedance) < least, least, impedance)
        return np.asarray(self.count * self.area**2 / impedance)


@dataclass(frozen=True)
class Network:
    """The elements of one topology; ``channels`` independent signals drive it."""

    chambers: tuple[Chamber, ...]
    drivers: tuple[DriverGroup, ...]
    ports: tuple[Port, ...] = ()
    radiators: tuple[Radiator, ...] = ()
    channels: int = 1

    @property
    def openings(self) -> tuple[Port | Radiator, ...]:
        """Ports, then radiators."""
        return (*self.ports, *self.radiators)

    @property
    def leaks_count(self) -> bool:
        """Leak flow is radiation (Small's convention) unless no cone faces outside."""
        return any(OUTSIDE in (group.front, group.rear) for group in self.drivers)


@dataclass(frozen=True)
class Solution:
    """Answers per volt on each channel: arrays of shape (channels, ..., F), one per element.

    Velocities and flows are of *one* driver, port or radiator; ``radiated`` is the sum of
    cones, ports and radiators that face outside, ``leaked`` the sum of the leaks.
    """

    frequency: Real
    pressure: tuple[Complex, ...]
    velocity: tuple[Complex, ...]
    current: tuple[Complex, ...]
    port_flow: tuple[Complex, ...]
    radiator_flow: tuple[Complex, ...]
    radiated: Complex
    leaked: Complex


def solve(network: Network, frequency: Real) -> Solution:
    """Solve the network at ``frequency`` (Hz, shape (F,), positive) for a unit of each channel."""
    omega = 2 * np.pi * np.asarray(frequency, dtype=np.float64)
    pressure = _pressures(network, omega)
    velocity, current = _cones(network, omega, pressure)
    port_flow = tuple(_flow(port, omega, pressure) for port in network.ports)
    radiator_flow = tuple(_flow(radiator, omega, pressure) for radiator in network.radiators)
    radiated = _radiated(network, velocity, port_flow, radiator_flow)
    leaks = [chamber.leak * p for chamber, p in zip(network.chambers, pressure, strict=True)]
    leaked = np.sum(np.broadcast_arrays(*leaks), axis=0)
    return Solution(
        frequency, pressure, velocity, current, port_flow, radiator_flow, radiated, leaked
    )


def _pressures(network: Network, omega: Real) -> tuple[Complex, ...]:
    """Chamber pressures per volt of each channel, one (channels, ..., F) array per chamber."""
    count = len(network.chambers)
    diagonal: list[Complex] = [chamber.admittance(omega) for chamber in network.chambers]
    coupling: dict[tuple[int, int], Complex] = {}
    flows: list[tuple[int, int, float, Complex]] = []
    for group in network.drivers:
        mobility = group.mobility(omega)
        flow = group.count * group.constants.s_d * mobility
        _join(diagonal, coupling, group.rear, group.front, flow * group.constants.s_d)
        injected = flow * group.force(omega)
        flows += [(group.rear, group.channel, -1.0, injected)]
        flows += [(group.front, group.channel, 1.0, injected)]
    for element in network.openings:
        _join(diagonal, coupling, element.chamber, element.opens_to, element.admittance(omega))
    shape = np.broadcast_shapes(
        *(d.shape for d in (*diagonal, *coupling.values())), *(f.shape for *_, f in flows)
    )
    source = np.zeros((count, network.channels, *shape), dtype=np.complex128)
    for node, channel, sign, injected in flows:
        if node != OUTSIDE:
            source[node, channel] += sign * injected
    if count == 1:
        return (np.asarray(source[0] / diagonal[0]),)
    return _solve_nodes(diagonal, coupling, source)


def _join(
    diagonal: list[Complex],
    coupling: dict[tuple[int, int], Complex],
    a: int,
    b: int,
    admittance: Complex,
) -> None:
    """Enter one two-ended admittance into the node equations."""
    for node in (a, b):
        if node != OUTSIDE:
            diagonal[node] = diagonal[node] + admittance
    if OUTSIDE not in (a, b):
        key = (min(a, b), max(a, b))
        coupling[key] = coupling.get(key, 0.0) + admittance


def _solve_nodes(
    diagonal: list[Complex], coupling: dict[tuple[int, int], Complex], source: Complex
) -> tuple[Complex, ...]:
    """Batched solution for two and more chambers; ``source`` is (nodes, channels, ..., F)."""
    count = len(diagonal)
    matrix = np.zeros((*source.shape[2:], count, count), dtype=np.complex128)
    for node in range(count):
        matrix[..., node, node] = diagonal[node]
    for (a, b), value in coupling.items():
        matrix[..., a, b] = matrix[..., b, a] = -value
    answer = np.linalg.solve(matrix, np.moveaxis(source, (0, 1), (-2, -1)))
    return tuple(np.moveaxis(answer[..., node, :], -1, 0) for node in range(count))


def _cones(
    network: Network, omega: Real, pressure: tuple[Complex, ...]
) -> tuple[tuple[Complex, ...], tuple[Complex, ...]]:
    """Velocity and current of one driver of each group."""
    velocities, currents = [], []
    for group in network.drivers:
        constants = group.constants
        coil = constants.coil_impedance(omega)
        load = constants.s_d * _difference(pressure, group.front, group.rear)
        unit = np.zeros((network.channels,) + (1,) * (load.ndim - 1))
        unit[group.channel] = 1.0
        velocity = (group.force(omega) * unit - load) * group.mobility(omega)
        velocities.append(velocity)
        currents.append((unit / group.in_series - constants.bl * velocity) / coil)
    return tuple(velocities), tuple(currents)


def _difference(pressure: tuple[Complex, ...], a: int, b: int) -> Complex:
    """Pressure at node ``a`` less that at node ``b``; open air has none."""
    zero = np.zeros_like(pressure[0])
    high = pressure[a] if a != OUTSIDE else zero
    low = pressure[b] if b != OUTSIDE else zero
    return np.asarray(high - low)


def _flow(element: Port | Radiator, omega: Real, pressure: tuple[Complex, ...]) -> Complex:
    """Volume velocity through one port or radiator, out of its chamber."""
    across = _difference(pressure, element.chamber, element.opens_to)
    return np.asarray(across * element.admittance(omega) / element.count)


def _radiated(
    network: Network,
    velocity: tuple[Complex, ...],
    port_flow: tuple[Complex, ...],
    radiator_flow: tuple[Complex, ...],
) -> Complex:
    """Sum of the volume velocities that leave the box, leaks not counted."""
    parts: list[Complex] = []
    for group, v in zip(network.drivers, velocity, strict=True):
        outward = (group.front == OUTSIDE) * 1.0 - (group.rear == OUTSIDE) * 1.0
        parts.append(outward * group.count * group.constants.s_d * v)
    for element, flow in zip(network.openings, (*port_flow, *radiator_flow), strict=True):
        if element.opens_to == OUTSIDE:
            parts.append(element.count * flow)
    return np.asarray(np.sum(np.broadcast_arrays(*parts), axis=0))


def output_impedance(network: Network, solution: Solution, channel: int) -> Complex:
    """Load on one amplifier output of ``channel``, other channels held at 0 V; ohm, (..., F).

    The drive is 1 V, so the load is the reciprocal of the current of that output.
    """
    return np.asarray(1.0 / output_current(network, solution.current, channel)[channel])


def output_current(network: Network, current: tuple[Complex, ...], channel: int) -> Complex:
    """Current of one amplifier output of ``channel`` from those of single drivers."""
    shares = [
        group.in_parallel * i
        for group, i in zip(network.drivers, current, strict=True)
        if group.channel == channel
    ]
    return np.asarray(sum(shares))
