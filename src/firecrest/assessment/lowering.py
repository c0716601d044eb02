"""Design models to the plain numbers of the core: one function per part."""

from dataclasses import dataclass, replace
from math import pi, sqrt

import numpy as np

from firecrest.assessment.cabinet import Wiring, cone_count, port_area
from firecrest.assessment.figures import (
    RadiatorConstants,
    derivation_of,
    driver_constants,
    radiator_constants,
    wired_driver,
)
from firecrest.assessment.memo import stage
from firecrest.core.acoustics import chambers as chamber_air
from firecrest.core.acoustics import elements as net
from firecrest.core.acoustics.ports import SPEED_LIMITS, acoustic_mass, end_correction, pipe_of
from firecrest.core.acoustics.radiation import SOLID_ANGLES, Surroundings, baffle_corner, room_of
from firecrest.core.air import Air, air_at
from firecrest.core.arrays import Number
from firecrest.core.errors import DesignError
from firecrest.core.limits.programme import PROGRAMMES, Programme
from firecrest.core.voice.chain import Filter
from firecrest.design.box import OUTSIDE, Chamber, DriverGroup, Port, Position, RadiatorSet
from firecrest.design.brief import Conditions, Listening
from firecrest.design.voice import Block, Channel

TRAVEL_RULE = 2.0
"""Radiator travel not known: its displacement is taken as this many times the drivers'."""
TRAVEL_BAND = 0.4


@stage
def air_of(conditions: Conditions) -> Air:
    """Air in which the design plays."""
    return air_at(conditions.temperature, conditions.pressure, conditions.humidity)


@stage
def surroundings_of(listening: Listening, width: float, air: Air) -> Surroundings:
    """What stands around a box with a front ``width`` m wide."""
    room = None if listening.room is None else room_of(listening.room, listening.room_lift, air)
    baffle = baffle_corner(width) if listening.baffle else None
    return Surroundings(listening.distance, SOLID_ANGLES[listening.place], room, baffle)


Spot = tuple[float, float, float]
AT_FRONT: Spot = (0.0, 0.0, 0.0)


@dataclass(frozen=True)
class Places:
    """(right, up, forward) in m of each element of the network."""

    cone: tuple[Spot, ...]
    port: tuple[Spot, ...]
    radiator: tuple[Spot, ...]


@dataclass(frozen=True)
class BoxModel:
    """The network of a design, with the tuning and reference frequency of each chamber.

    ``owners`` tells for each of the network's drivers which group of the design it is of: the
    outer drivers of isobaric pairs, and the air between, come after all others. ``places`` is None
    when everything sounds from the middle of the front.
    """

    network: net.Network
    tuning: tuple[float | None, ...]
    reference: tuple[float, ...]
    radiators: tuple[RadiatorConstants, ...]
    owners: tuple[int, ...]
    places: Places | None


@stage
def box_model(
    chambers: tuple[Chamber, ...],
    groups: tuple[DriverGroup, ...],
    radiators: tuple[RadiatorSet, ...],
    ports: tuple[Port, ...],
    wiring: Wiring,
    volumes: tuple[float, ...],
    air: Air,
) -> BoxModel:
    """Network of a box whose chambers hold ``volumes`` m3 of net air."""
    names = [c.name for c in chambers]

    def node(name: str) -> int:
        return net.OUTSIDE if name == OUTSIDE else names.index(name)

    for chamber, volume in zip(chambers, volumes, strict=True):
        if volume <= 0:
            raise DesignError(
                f"No air is left in chamber {chamber.name}: what is in it takes more than it holds."
            )
    single = tuple(
        net.DriverGroup(
            driver_constants(wired_driver(g.driver, g.coils)),
            node(g.chamber),
            node(g.front),
            [name for name, _ in wiring].index(g.channel),
            g.in_series,
            g.in_parallel,
            dict(wiring)[g.channel],
        )
        for g in groups
    )
    drivers, owners, trapped, series_pairs = _paired(groups, single, len(chambers), air)
    constants = tuple(radiator_constants(r) for r in radiators)
    passive = tuple(
        net.Radiator(
            c.mass, c.compliance, c.resistance, c.area, node(r.chamber), r.count, node(r.opens_to)
        )
        for r, c in zip(radiators, constants, strict=True)
    )
    open_ports = tuple(
        port_model(p, p.length, air, node(p.chamber), node(p.opens_to)) for p in ports
    )
    box = [
        chamber_air.compliance(volume * (1 + chamber.stuffing), air)
        for chamber, volume in zip(chambers, volumes, strict=True)
    ]
    tuning, reference = _tunings(box, drivers, owners, groups, open_ports, passive)
    lossy_ports = tuple(
        _lossy(p, port, reference[port.chamber]) for p, port in zip(ports, open_ports, strict=True)
    )
    nodes = tuple(
        _chamber(chamber, compliance, f)
        for chamber, compliance, f in zip(chambers, box, reference, strict=True)
    )
    network = net.Network(
        (*nodes, *trapped), drivers, lossy_ports, passive, len(wiring), series_pairs
    )
    places = _places(groups, owners, ports, radiators)
    return BoxModel(network, tuning, reference, constants, owners, places)


def _paired(
    groups: tuple[DriverGroup, ...], single: tuple[net.DriverGroup, ...], first: int, air: Air
) -> tuple[
    tuple[net.DriverGroup, ...],
    tuple[int, ...],
    tuple[net.Chamber, ...],
    tuple[tuple[int, int], ...],
]:
    """(drivers, owners, trapped air, series pairs) with every isobaric pair as two drivers.

    The inner driver plays into the air between, the outer one from there to the front. Turned
    round and with its poles swapped, the outer driver of a clamshell acts just like this.
    """
    inner, owners = list(single), list(range(len(single)))
    outer: list[net.DriverGroup] = []
    trapped: list[net.Chamber] = []
    in_series: list[tuple[int, int]] = []
    for k, group in enumerate(groups):
        if group.pair == "alone":
            continue
        between = first + len(trapped)
        model = single[k]
        if group.pair_in == "series":
            model = replace(model, share=0.5)
            in_series.append((k, len(single) + len(outer)))
        inner[k] = replace(model, front=between)
        outer.append(replace(model, rear=between))
        owners.append(k)
        volume = model.count * (group.trapped or 0.0)
        trapped.append(net.Chamber(chamber_air.compliance(volume, air)))
    return (*inner, *outer), tuple(owners), tuple(trapped), tuple(in_series)


def _places(
    groups: tuple[DriverGroup, ...],
    owners: tuple[int, ...],
    ports: tuple[Port, ...],
    radiators: tuple[RadiatorSet, ...],
) -> Places | None:
    """Places of all elements; None when all are at the middle of the front."""

    def _spot(place: Position) -> Spot:
        return place.right, place.up, place.forward

    cones = tuple(_spot(groups[k].place) for k in owners)
    found = Places(
        cones, tuple(_spot(p.place) for p in ports), tuple(_spot(r.place) for r in radiators)
    )
    spots = {*found.cone, *found.port, *found.radiator}
    return None if spots <= {AT_FRONT} else found


def port_ends(port: Port) -> float:
    """Length in m that both ends add, as stated or by how they sit."""
    if port.end_correction is not None:
        return port.end_correction
    return end_correction(port_area(port), port.mounting)


def hydraulic_radius(port: Port) -> float:
    """Twice the area over the perimeter, m."""
    if port.shape == "round":
        return port.diameter / 2
    return port.width * port.height / (port.width + port.height)


def port_model(
    port: Port, length: Number, air: Air, chamber: int, opens_to: int, loss: Number = 0.0
) -> net.Port:
    """A port ``length`` m long in the network, with a loss resistance of ``loss`` Pa s/m3."""
    area, ends = port_area(port), port_ends(port)
    mass = acoustic_mass(length + ends, area, air)
    pipe = pipe_of(length, ends, area, hydraulic_radius(port), air) if port.resonances else None
    return net.Port(mass, area, chamber, loss, port.count, opens_to, pipe)


def _lossy(port: Port, model: net.Port, tuning: float) -> net.Port:
    if port.loss_q is None:
        return model
    return replace(model, resistance=2 * pi * tuning * float(model.mass) / port.loss_q)


def _tunings(
    box: list[Number],
    drivers: tuple[net.DriverGroup, ...],
    owners: tuple[int, ...],
    groups: tuple[DriverGroup, ...],
    ports: tuple[net.Port, ...],
    radiators: tuple[net.Radiator, ...],
) -> tuple[tuple[float | None, ...], tuple[float, ...]]:
    """Tuning (None when closed) and loss reference frequency of each chamber."""
    tuning: list[float | None] = []
    reference: list[float] = []
    for place, compliance in enumerate(box):
        own_ports = [p for p in ports if p.chamber == place]
        own_radiators = [r for r in radiators if r.chamber == place]
        if own_ports or own_radiators:
            f = float(chamber_air.tuning(compliance, own_ports, own_radiators))
            tuning.append(f)
        else:
            around = [
                (d, 1.0 if groups[k].pair == "alone" else 0.5)
                for d, k in zip(drivers, owners, strict=True)
                if place in (d.rear, d.front)
            ]
            f = _closed(float(compliance), around)
            tuning.append(None)
        reference.append(f)
    return tuple(tuning), tuple(reference)


def _closed(compliance: float, around: list[tuple[net.DriverGroup, float]]) -> float:
    """Resonance of the drivers around a closed chamber: all their compliances on its air.

    The number beside a driver is the share of its compliance that counts: half in a pair.
    """
    if not around:
        return 50.0
    first = around[0][0].constants
    fs = 1 / (2 * pi * sqrt(float(first.m_ms) * float(first.c_ms)))
    suspension = sum(
        share * d.count * float(d.constants.s_d) ** 2 * float(d.constants.c_ms)
        for d, share in around
    )
    return float(chamber_air.closed_resonance(fs, suspension, compliance))


def _chamber(chamber: Chamber, compliance: Number, reference: float) -> net.Chamber:
    """Losses by Q, except a leak that was measured."""
    model = chamber_air.lossy_chamber(compliance, reference, chamber.leak_q, chamber.absorption_q)
    if chamber.leak_resistance is None:
        return model
    return net.Chamber(model.compliance, 1.0 / chamber.leak_resistance, model.absorption)


def port_speed_limit(port: Port) -> float:
    """Stated or estimated limit of the air speed, peak m/s."""
    return SPEED_LIMITS[port.edges] if port.speed_limit is None else port.speed_limit


def radiator_travel(
    item: RadiatorSet,
    sag: float,
    groups: tuple[DriverGroup, ...],
    radiators: tuple[RadiatorSet, ...],
    wiring: Wiring,
) -> tuple[float | None, bool]:
    """(travel less sag in m, whether it is an estimate); None when it cannot be estimated."""
    if item.radiator.xmax is not None:
        return max(item.radiator.xmax - sag, 0.0), False
    drivers = [g for g in groups if item.chamber in (g.chamber, g.front)]
    swept = [
        (g.driver.xmax, derivation_of(g.driver).figures.get("sd"), cone_count(g, wiring))
        for g in drivers
    ]
    area = sum(r.count * (r.radiator.sd or 0) for r in radiators if r.chamber == item.chamber)
    if not area or not drivers or any(x is None or sd is None for x, sd, _ in swept):
        return None, True
    volume = sum(float(x or 0) * float(sd or 0) * n for x, sd, n in swept)
    return max(TRAVEL_RULE * volume / area - sag, 0.0), True


def programme_of(listening: Listening) -> Programme:
    """Programme with the brief's own crest and burst where they are set."""
    default = PROGRAMMES[listening.material]
    crest = default.crest if listening.crest is None else listening.crest
    burst = default.burst if listening.burst is None else listening.burst
    return Programme(default.kind, crest, burst, default.low_corner)


@stage
def filter_of(block: Block) -> Filter:
    """A voice block as plain numbers."""
    return Filter(
        block.kind,
        block.frequency,
        getattr(block, "gain", 0.0),
        getattr(block, "q", 1.0),
        getattr(block, "family", "butterworth"),
        getattr(block, "order", 2),
    )


def lowest_low_pass(channels: tuple[Channel, ...]) -> float | None:
    """Lowest low-pass corner of the channels that no other channel continues upwards; Hz."""
    tops = [
        min((b.frequency for b in c.blocks if b.kind == "low_pass"), default=np.inf)
        for c in channels
    ]
    top = max(tops)
    return None if np.isinf(top) else float(top)
