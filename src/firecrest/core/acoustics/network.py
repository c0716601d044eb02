"""The one acoustic network: chambers joined by drivers, ports, radiators and leaks.

Impedance analogy, e^{+jwt}, rms phasors, volume velocity positive outwards. The unknowns are the
chamber pressures only. A driver is reduced to an admittance and a source: from Ze i + Bl v = e
and Zm v = Bl i - Sd (p_front - p_rear) follows

    v = (Bl e/Ze - Sd (p_front - p_rear)) / (Zm + Bl^2/Ze).

Source: Beranek & Mellow, Acoustics (2012), 6.4-6.5; Small, JAES 21 (1973) 363-372 (vented) and
JAES 22 (1974) 592-601 (passive radiator).
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.elements import OUTSIDE, Network, Port, Radiator
from firecrest.core.arrays import Complex, Real


@dataclass(frozen=True)
class Solution:
    """Answers per volt on each channel: arrays of shape (channels, ..., F), one per element.

    Velocities and flows are of *one* driver, port or radiator; ``port_flow`` comes out of the far
    end of a port, ``port_intake`` goes into the near one. ``radiated`` is the sum of cones, ports
    and radiators that face outside, ``leaked`` the sum of the leaks.
    """

    frequency: Real
    pressure: tuple[Complex, ...]
    velocity: tuple[Complex, ...]
    current: tuple[Complex, ...]
    port_flow: tuple[Complex, ...]
    port_intake: tuple[Complex, ...]
    radiator_flow: tuple[Complex, ...]
    radiated: Complex
    leaked: Complex


def solve(network: Network, frequency: Real) -> Solution:
    """Solve the network at ``frequency`` (Hz, shape (F,), positive) for a unit of each channel."""
    omega = 2 * np.pi * np.asarray(frequency, dtype=np.float64)
    pressure = _pressures(network, omega)
    velocity, current = _cones(network, omega, pressure)
    through_ports = [_flows(port, omega, pressure) for port in network.ports]
    port_intake = tuple(into for into, _ in through_ports)
    port_flow = tuple(out for _, out in through_ports)
    radiator_flow = tuple(_flows(radiator, omega, pressure)[1] for radiator in network.radiators)
    outward = [s.flow for s in sources(network, velocity, port_flow, radiator_flow)]
    radiated = np.sum(np.broadcast_arrays(np.zeros_like(velocity[0]), *outward), axis=0)
    leaks = [chamber.leak * p for chamber, p in zip(network.chambers, pressure, strict=True)]
    leaked = np.sum(np.broadcast_arrays(*leaks), axis=0)
    return Solution(
        frequency,
        pressure,
        velocity,
        current,
        port_flow,
        port_intake,
        radiator_flow,
        np.asarray(radiated),
        leaked,
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
        joined = flow * group.constants.s_d
        _join(diagonal, coupling, (group.rear, group.front), joined, joined)
        injected = flow * group.force(omega)
        flows += [(group.rear, group.channel, -1.0, injected)]
        flows += [(group.front, group.channel, 1.0, injected)]
    for element in network.openings:
        ends = (element.chamber, element.opens_to)
        _join(diagonal, coupling, ends, *element.admittances(omega))
    for pair in network.series_pairs:
        _share_current(network, pair, omega, diagonal, coupling)
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
    ends: tuple[int, int],
    own: Complex,
    through: Complex,
) -> None:
    """Enter one two-ended element into the node equations."""
    for node in ends:
        if node != OUTSIDE:
            diagonal[node] = diagonal[node] + own
    if OUTSIDE not in ends:
        key = (min(ends), max(ends))
        coupling[key] = coupling.get(key, 0.0) + through


def _slack(network: Network, pair: tuple[int, int], omega: Real) -> Complex:
    """How much freer, m/(N s), two drivers in series move against each other than apart.

    In series a difference of their speeds sends no current, so the coil does not brake it.
    """
    group = network.drivers[pair[0]]
    return 1.0 / group.constants.mechanical_impedance(omega) - group.mobility(omega)


def _across_pair(network: Network, pair: tuple[int, int]) -> dict[int, int]:
    """Weight of each chamber's pressure in the difference of the loads on a pair's cones."""
    weight: dict[int, int] = {}
    for place, sign in zip(pair, (1, -1), strict=True):
        group = network.drivers[place]
        for node, side in ((group.front, 1), (group.rear, -1)):
            if node != OUTSIDE:
                weight[node] = weight.get(node, 0) + sign * side
    return weight


def _share_current(
    network: Network,
    pair: tuple[int, int],
    omega: Real,
    diagonal: list[Complex],
    coupling: dict[tuple[int, int], Complex],
) -> None:
    """Enter what a shared current adds for a pair in series.

    From Ze i = V/2 - Bl (va + vb)/2 and Zm v = Bl i - Sd dp: the sum of the speeds behaves as that
    of drivers by themselves, their difference has no electrical brake. Own derivation.
    """
    group = network.drivers[pair[0]]
    extra = 0.5 * group.count * group.constants.s_d**2 * _slack(network, pair, omega)
    weight = _across_pair(network, pair)
    for a, wa in weight.items():
        diagonal[a] = diagonal[a] + wa * wa * extra
        for b, wb in weight.items():
            if a < b:
                coupling[a, b] = coupling.get((a, b), 0.0) - wa * wb * extra


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
        velocities.append((group.force(omega) * unit - load) * group.mobility(omega))
        currents.append(group.share * unit / group.in_series / coil)
    for pair in network.series_pairs:
        _loosen(network, pair, omega, pressure, velocities)
    for place, group in enumerate(network.drivers):
        speed = _mean_of_pair(network, velocities, place)
        back = group.constants.bl * speed / group.constants.coil_impedance(omega)
        currents[place] = currents[place] - back
    return tuple(velocities), tuple(currents)


def _loosen(
    network: Network,
    pair: tuple[int, int],
    omega: Real,
    pressure: tuple[Complex, ...],
    velocities: list[Complex],
) -> None:
    """Correct the speeds of a pair in series; see ``_share_current``."""
    across = sum(weight * pressure[node] for node, weight in _across_pair(network, pair).items())
    area = network.drivers[pair[0]].constants.s_d
    moved = 0.5 * area * _slack(network, pair, omega) * across
    velocities[pair[0]] = velocities[pair[0]] - moved
    velocities[pair[1]] = velocities[pair[1]] + moved


def _mean_of_pair(network: Network, velocities: list[Complex], place: int) -> Complex:
    """Speed that brakes the current of a group: its own, or the mean of its pair in series."""
    for a, b in network.series_pairs:
        if place in (a, b):
            return np.asarray(0.5 * (velocities[a] + velocities[b]))
    return velocities[place]


def _difference(pressure: tuple[Complex, ...], a: int, b: int) -> Complex:
    """Pressure at node ``a`` less that at node ``b``; open air has none."""
    zero = np.zeros_like(pressure[0])
    high = pressure[a] if a != OUTSIDE else zero
    low = pressure[b] if b != OUTSIDE else zero
    return np.asarray(high - low)


def _flows(
    element: Port | Radiator, omega: Real, pressure: tuple[Complex, ...]
) -> tuple[Complex, Complex]:
    """Volume velocity into one port or radiator from its chamber, and out of its other side."""
    own, through = (y / element.count for y in element.admittances(omega))
    near = pressure[element.chamber]
    if element.opens_to == OUTSIDE:
        return np.asarray(near * own), np.asarray(near * through)
    far = pressure[element.opens_to]
    return np.asarray(near * own - far * through), np.asarray(near * through - far * own)


@dataclass(frozen=True)
class SoundSource:
    """One thing that radiates: its kind ("cone", "port", "radiator"), its place among the
    network's elements of that kind, and its whole outward volume velocity (channels, ..., F).
    """

    kind: str
    index: int
    flow: Complex


def sources(
    network: Network,
    velocity: tuple[Complex, ...],
    port_flow: tuple[Complex, ...],
    radiator_flow: tuple[Complex, ...],
) -> list[SoundSource]:
    """Everything that radiates; leaks, which have no place, are not among them."""
    found: list[SoundSource] = []
    for k, (group, v) in enumerate(zip(network.drivers, velocity, strict=True)):
        outward = (group.front == OUTSIDE) * 1.0 - (group.rear == OUTSIDE) * 1.0
        if outward:
            found.append(SoundSource("cone", k, outward * group.count * group.constants.s_d * v))
    for k, (port, flow) in enumerate(zip(network.ports, port_flow, strict=True)):
        if port.opens_to == OUTSIDE:
            found.append(SoundSource("port", k, port.count * flow))
    for k, (radiator, flow) in enumerate(zip(network.radiators, radiator_flow, strict=True)):
        if radiator.opens_to == OUTSIDE:
            found.append(SoundSource("radiator", k, radiator.count * flow))
    return found


def output_impedance(network: Network, solution: Solution, channel: int) -> Complex:
    """Load on one amplifier output of ``channel``, other channels held at 0 V; ohm, (..., F).

    The drive is 1 V, so the load is the reciprocal of the current of that output.
    """
    return np.asarray(1.0 / output_current(network, solution.current, channel)[channel])


def output_current(network: Network, current: tuple[Complex, ...], channel: int) -> Complex:
    """Current of one amplifier output of ``channel`` from those of single drivers."""
    shared = {b for _, b in network.series_pairs}
    shares = [
        group.in_parallel * i
        for k, (group, i) in enumerate(zip(network.drivers, current, strict=True))
        if group.channel == channel and k not in shared
    ]
    return np.asarray(sum(shares))
