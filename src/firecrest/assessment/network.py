"""The network of a box: its numbers as the elements of the core, one function per part."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import pi

import numpy as np

from firecrest.assessment.cabinet import Wiring, hydraulic_radius, port_area
from firecrest.assessment.figures import GRAVITY
from firecrest.assessment.lower import inputs
from firecrest.core.acoustics import chambers as chamber_air
from firecrest.core.acoustics.ports import acoustic_mass, end_correction, pipe_of
from firecrest.core.air import Air
from firecrest.core.arrays import Number, Real, root
from firecrest.core.circuit import elements as net
from firecrest.design.box import OUTSIDE, Chamber, Port, Position

Spot = tuple[Number, Number, Number]
AT_FRONT: Spot = (0.0, 0.0, 0.0)
LEAST_AIR = 1e-6
"""m3 that a chamber is reckoned with where nothing is left of it; such a design is refused."""
LONE = 50.0
"""Hz to which the losses of a chamber refer that nothing opens or drives."""


@dataclass(frozen=True)
class Places:
    """(right, up, forward) in m of each element of the network."""

    cone: tuple[Spot, ...]
    port: tuple[Spot, ...]
    radiator: tuple[Spot, ...]


@dataclass(frozen=True)
class RadiatorConstants:
    """One radiator with its added mass: mass, compliance, loss, area, resonance in Hz, and its sag.

    Mounted horizontally it sags by g/w_p^2, with w_p its resonance including added mass.
    """

    mass: Number
    compliance: Number
    resistance: Number
    area: Number
    resonance: Number
    sag: Number


@dataclass(frozen=True)
class BoxModel:
    """The network of a design, with the tuning and reference frequency of each chamber.

    ``owners`` tells for each of the network's drivers which group of the design it is of: the
    outer drivers of isobaric pairs, and the air between, come after all others. ``places`` is None
    when everything sounds from the middle of the front. ``full`` says for each chamber whether
    what is in it leaves no air.
    """

    network: net.Network
    tuning: tuple[Number | None, ...]
    reference: tuple[Number, ...]
    radiators: tuple[RadiatorConstants, ...]
    owners: tuple[int, ...]
    places: Places | None
    full: tuple[Real, ...]


def box_model(
    box: inputs.Elements, wiring: Wiring, volumes: tuple[Number, ...], air: Air
) -> BoxModel:
    """Network of a box whose chambers hold ``volumes`` m3 of net air."""
    names = [c.name for c in box.chambers]
    single = tuple(_drivers(g, names, wiring) for g in box.groups)
    pairs = _paired(box.groups, single, len(names), air)
    drivers, owners = pairs.drivers, pairs.owners
    constants = tuple(_radiator_constants(r) for r in box.radiators)
    passive = tuple(
        net.Radiator(
            c.mass,
            c.compliance,
            c.resistance,
            c.area,
            _node(names, r.chamber),
            r.count,
            _node(names, r.opens_to),
        )
        for r, c in zip(box.radiators, constants, strict=True)
    )
    open_ports = tuple(
        port_model(p, p.length, air, _node(names, p.chamber), _node(names, p.opens_to))
        for p in box.ports
    )
    left = [v if isinstance(v, float) else np.asarray(v) for v in volumes]
    compliances = [
        chamber_air.compliance(np.maximum(v, LEAST_AIR) * (1 + chamber.stuffing), air)
        for chamber, v in zip(box.chambers, left, strict=True)
    ]
    openings: tuple[net.Opening, ...] = (*open_ports, *passive)
    tuned = [chamber_air.openings_that_tune(openings, k) for k in range(len(names))]
    alone = [0.5 if box.groups[k].pair != "alone" else 1.0 for k in owners]
    tuning, reference = _tunings(compliances, tuned, drivers, alone)
    lossy_ports = tuple(
        _lossy(p, port, _reference_of(port, tuned, reference))
        for p, port in zip(box.ports, open_ports, strict=True)
    )
    nodes = tuple(
        _chamber(chamber, compliance, f)
        for chamber, compliance, f in zip(box.chambers, compliances, reference, strict=True)
    )
    network = net.Network(
        (*nodes, *pairs.trapped), drivers, lossy_ports, passive, len(wiring), nodes=pairs.nodes
    )
    full = tuple(np.asarray(v <= 0) for v in left)
    return BoxModel(network, tuning, reference, constants, owners, _places(box, owners), full)


def _node(names: Sequence[str], name: str) -> int:
    return net.OUTSIDE if name == OUTSIDE else names.index(name)


def _drivers(group: inputs.Group, names: Sequence[str], wiring: Wiring) -> net.DriverGroup:
    assert group.driver.constants is not None
    return net.DriverGroup(
        group.driver.constants,
        _node(names, group.chamber),
        _node(names, group.front),
        [name for name, _ in wiring].index(group.channel),
        group.in_series,
        group.in_parallel,
        dict(wiring)[group.channel],
    )


def _radiator_constants(item: inputs.Radiators) -> RadiatorConstants:
    """Added mass keeps Rmp and Cmp."""
    r = item.radiator
    assert r.mmp is not None
    assert r.cmp is not None
    assert r.rmp is not None
    assert r.sd is not None
    mass = r.mmp + item.added_mass
    sag = GRAVITY * mass * r.cmp if item.horizontal else 0.0
    return RadiatorConstants(mass, r.cmp, r.rmp, r.sd, 1 / (2 * pi * root(mass * r.cmp)), sag)


@dataclass(frozen=True)
class _Pairs:
    """All drivers with the outer ones of isobaric pairs last, the group each is of, the air between
    pairs, and the number of electrical nodes between coils in series.
    """

    drivers: tuple[net.DriverGroup, ...]
    owners: tuple[int, ...]
    trapped: tuple[net.Chamber, ...]
    nodes: int


def _paired(
    groups: tuple[inputs.Group, ...], single: tuple[net.DriverGroup, ...], first: int, air: Air
) -> _Pairs:
    """Every isobaric pair as two drivers.

    The inner driver plays into the air between, the outer one from there to the front. Turned
    round and with its poles swapped, the outer driver of a clamshell acts just like this. In series
    a free node lies between the two.
    """
    inner, owners = list(single), list(range(len(single)))
    outer: list[net.DriverGroup] = []
    trapped: list[net.Chamber] = []
    nodes = 0
    for k, group in enumerate(groups):
        if group.pair == "alone":
            continue
        between, model = first + len(trapped), single[k]
        inner[k] = replace(model, front=between)
        outer.append(replace(model, rear=between))
        if group.pair_in == "series":
            inner[k] = replace(inner[k], minus=nodes)
            outer[-1] = replace(outer[-1], plus=nodes)
            nodes += 1
        owners.append(k)
        volume = model.count * (0.0 if group.trapped is None else group.trapped)
        trapped.append(net.Chamber(chamber_air.compliance(volume, air)))
    return _Pairs((*inner, *outer), tuple(owners), tuple(trapped), nodes)


def _places(box: inputs.Elements, owners: tuple[int, ...]) -> Places | None:
    """Places of all elements; None when all are at the middle of the front."""

    def _spot(place: Position) -> Spot:
        return place.right, place.up, place.forward

    found = Places(
        tuple(_spot(box.groups[k].place) for k in owners),
        tuple(_spot(p.place) for p in box.ports),
        tuple(_spot(r.place) for r in box.radiators),
    )
    spots = (*found.cone, *found.port, *found.radiator)
    at_front = all(isinstance(x, float) and x == 0 for spot in spots for x in spot)
    return None if at_front else found


def port_ends(port: Port) -> Number:
    """Length in m that both ends add, as stated or by how they sit."""
    if port.end_correction is not None:
        return port.end_correction
    return end_correction(port_area(port), port.mounting)


def port_model(
    port: Port, length: Number, air: Air, chamber: int, opens_to: int, loss: Number = 0.0
) -> net.Port:
    """A port ``length`` m long in the network, with a loss resistance of ``loss`` Pa s/m3."""
    area, ends = port_area(port), port_ends(port)
    mass = acoustic_mass(length + ends, area, air)
    pipe = pipe_of(length, ends, area, hydraulic_radius(port), air) if port.resonances else None
    return net.Port(mass, area, chamber, loss, port.count, opens_to, pipe)


def _lossy(port: Port, model: net.Port, reference: Number) -> net.Port:
    if port.loss_q is None:
        return model
    return replace(model, resistance=2 * pi * reference * model.mass / port.loss_q)


def _reference_of(
    port: net.Port, tuned: Sequence[Sequence[net.Opening]], reference: Sequence[Number]
) -> Number:
    """Frequency to which a port's loss refers: that of the chamber it tunes.

    Of two chambers, whether it tunes both or none, the geometric mean; it has no first end.
    """
    ends = [node for node in (port.chamber, port.opens_to) if node != net.OUTSIDE]
    tunes = [node for node in ends if any(o is port for o in tuned[node])] or ends
    if len(tunes) == 1:
        return reference[tunes[0]]
    return root(reference[tunes[0]] * reference[tunes[1]])


def _tunings(
    compliances: Sequence[Number],
    tuned: Sequence[Sequence[net.Opening]],
    drivers: tuple[net.DriverGroup, ...],
    shares: Sequence[float],
) -> tuple[tuple[Number | None, ...], tuple[Number, ...]]:
    """Tuning (None when closed) and loss reference frequency of each chamber."""
    tuning: list[Number | None] = []
    reference: list[Number] = []
    for place, (compliance, openings) in enumerate(zip(compliances, tuned, strict=True)):
        if openings:
            f = chamber_air.tuning(compliance, openings)
            tuning.append(f)
            reference.append(f)
        else:
            around = [
                (d, share)
                for d, share in zip(drivers, shares, strict=True)
                if place in (d.rear, d.front)
            ]
            tuning.append(None)
            reference.append(_closed(compliance, around))
    return tuple(tuning), tuple(reference)


def _closed(compliance: Number, around: list[tuple[net.DriverGroup, float]]) -> Number:
    """Resonance of the drivers around a closed chamber: all their compliances on its air.

    The number beside a driver is the share of its compliance that counts: half in a pair.
    """
    if not around:
        return LONE
    first = around[0][0].constants
    fs = 1 / (2 * pi * root(first.m_ms * first.c_ms))
    suspension = sum(share * d.count * d.constants.s_d**2 * d.constants.c_ms for d, share in around)
    return chamber_air.closed_resonance(fs, suspension, compliance)


def _chamber(chamber: Chamber, compliance: Number, reference: Number) -> net.Chamber:
    """Losses by Q, except a leak that was measured."""
    model = chamber_air.lossy_chamber(compliance, reference, chamber.leak_q, chamber.absorption_q)
    if chamber.leak_resistance is None:
        return model
    return net.Chamber(model.compliance, 1.0 / chamber.leak_resistance, model.absorption)
