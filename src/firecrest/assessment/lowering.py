"""Design models to the plain numbers of the core: one function per part."""

from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from firecrest.assessment.cabinet import Wiring, driver_count, port_area
from firecrest.assessment.figures import (
    RadiatorConstants,
    derivation_of,
    driver_constants,
    radiator_constants,
    wired_driver,
)
from firecrest.assessment.memo import stage
from firecrest.core.acoustics import chambers as chamber_air
from firecrest.core.acoustics import network as net
from firecrest.core.acoustics.ports import SPEED_LIMITS, acoustic_mass, end_correction
from firecrest.core.air import Air, air_at
from firecrest.core.arrays import Number
from firecrest.core.errors import DesignError
from firecrest.core.limits.programme import PROGRAMMES, Programme
from firecrest.core.voice.chain import Filter
from firecrest.design.box import OUTSIDE, Chamber, DriverGroup, Port, RadiatorSet
from firecrest.design.brief import Conditions, Listening
from firecrest.design.voice import Block, Channel

TRAVEL_RULE = 2.0
"""Radiator travel not known: its displacement is taken as this many times the drivers'."""
TRAVEL_BAND = 0.4


@stage
def air_of(conditions: Conditions) -> Air:
    """Air in which the design plays."""
    return air_at(conditions.temperature, conditions.pressure, conditions.humidity)


@dataclass(frozen=True)
class BoxModel:
    """The network of a design, with the tuning and reference frequency of each chamber."""

    network: net.Network
    tuning: tuple[float | None, ...]
    reference: tuple[float, ...]
    radiators: tuple[RadiatorConstants, ...]


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
    drivers = tuple(
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
    constants = tuple(radiator_constants(r) for r in radiators)
    passive = tuple(
        net.Radiator(
            c.mass, c.compliance, c.resistance, c.area, node(r.chamber), r.count, node(r.opens_to)
        )
        for r, c in zip(radiators, constants, strict=True)
    )
    open_ports = tuple(_lossless_port(p, air, node(p.chamber), node(p.opens_to)) for p in ports)
    box = [
        chamber_air.compliance(volume * (1 + chamber.stuffing), air)
        for chamber, volume in zip(chambers, volumes, strict=True)
    ]
    tuning, reference = _tunings(box, drivers, open_ports, passive)
    lossy_ports = tuple(
        _lossy(p, port, reference[port.chamber]) for p, port in zip(ports, open_ports, strict=True)
    )
    nodes = tuple(
        _chamber(chamber, compliance, f)
        for chamber, compliance, f in zip(chambers, box, reference, strict=True)
    )
    network = net.Network(nodes, drivers, lossy_ports, passive, len(wiring))
    return BoxModel(network, tuning, reference, constants)


def _lossless_port(port: Port, air: Air, chamber: int, opens_to: int) -> net.Port:
    area = port_area(port)
    ends = end_correction(area, port.mounting)
    ends = ends if port.end_correction is None else port.end_correction
    mass = acoustic_mass(port.length + ends, area, air)
    return net.Port(mass, area, chamber, 0.0, port.count, opens_to)


def _lossy(port: Port, model: net.Port, tuning: float) -> net.Port:
    if port.loss_q is None:
        return model
    loss = 2 * pi * tuning * float(model.mass) / port.loss_q
    return net.Port(model.mass, model.area, model.chamber, loss, model.count, model.opens_to)


def _tunings(
    box: list[Number],
    drivers: tuple[net.DriverGroup, ...],
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
            f = _closed(float(compliance), place, drivers)
            tuning.append(None)
        reference.append(f)
    return tuple(tuning), tuple(reference)


def _closed(compliance: float, place: int, drivers: tuple[net.DriverGroup, ...]) -> float:
    """Resonance of the drivers around a closed chamber: all their compliances on its air."""
    around = [d for d in drivers if place in (d.rear, d.front)]
    if not around:
        return 50.0
    first = around[0].constants
    fs = 1 / (2 * pi * sqrt(float(first.m_ms) * float(first.c_ms)))
    suspension = sum(
        d.count * float(d.constants.s_d) ** 2 * float(d.constants.c_ms) for d in around
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
    drivers = [g for g in groups if g.chamber == item.chamber]
    swept = [
        (g.driver.xmax, derivation_of(g.driver).figures.get("sd"), driver_count(g, wiring))
        for g in drivers
    ]
    area = sum(r.count * (r.radiator.sd or 0) for r in radiators if r.chamber == item.chamber)
    if not area or any(x is None or sd is None for x, sd, _ in swept):
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
