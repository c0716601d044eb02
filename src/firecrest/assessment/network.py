"""The network of a box: its numbers as the elements of the core, one function per part."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import pi

import numpy as np

from firecrest.assessment.lower import inputs
from firecrest.assessment.openings import kind_of_opening
from firecrest.assessment.wiring import Wiring
from firecrest.core.acoustics import chambers as chamber_air
from firecrest.core.acoustics.fill import Fill
from firecrest.core.acoustics.openings import OUTSIDE as NO_CHAMBER
from firecrest.core.acoustics.openings import Opening, Radiator
from firecrest.core.air import Air
from firecrest.core.arrays import Number, Real, root
from firecrest.core.circuit import elements as net
from firecrest.design.box import OUTSIDE, Chamber, Position

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
    opening: tuple[Spot, ...]


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
    owners: tuple[int, ...]
    places: Places | None
    full: tuple[Real, ...]


def box_model(
    box: inputs.Elements, wiring: Wiring, volumes: tuple[Number, ...], air: Air, softness: Number
) -> BoxModel:
    """Network of a box whose chambers hold ``volumes`` m3 of net air, all amid the front.

    ``softness`` is the compliance of all suspensions against 20 C.
    """
    ids = [c.id for c in box.chambers]
    single = tuple(_drivers(g, ids, wiring, softness) for g in box.groups)
    pairs = _paired(box.groups, single, len(ids), air)
    drivers, owners = pairs.drivers, pairs.owners
    openings = tuple(
        _softened(element, softness)
        for element in (
            kind_of_opening(o).element(o, air, _node(ids, o.chamber), _node(ids, o.opens_to))
            for o in box.openings
        )
    )
    left = [v if isinstance(v, float) else np.asarray(v) for v in volumes]
    volumes = tuple(np.maximum(v, LEAST_AIR) for v in left)
    compliances = [
        chamber_air.compliance(v * (1 + _stuffing(chamber)), air)
        for chamber, v in zip(box.chambers, volumes, strict=True)
    ]
    fills = [_fill(chamber, v, air) for chamber, v in zip(box.chambers, volumes, strict=True)]
    tuned = [chamber_air.openings_that_tune(openings, k) for k in range(len(ids))]
    alone = [0.5 if box.groups[k].pair != "alone" else 1.0 for k in owners]
    tuning, reference = _tunings(compliances, tuned, drivers, alone)
    if any(fills):
        grown = [_grown(*each) for each in zip(compliances, fills, reference, strict=True)]
        tuning, reference = _tunings(grown, tuned, drivers, alone)
    lossy = tuple(
        kind_of_opening(item).lossy(item, element, _reference_of(element, tuned, reference))
        for item, element in zip(box.openings, openings, strict=True)
    )
    nodes = tuple(
        _chamber(chamber, compliance, f, fill)
        for chamber, compliance, f, fill in zip(
            box.chambers, compliances, reference, fills, strict=True
        )
    )
    network = net.Network((*nodes, *pairs.trapped), drivers, lossy, len(wiring), nodes=pairs.nodes)
    full = tuple(np.asarray(v <= 0) for v in left)
    return BoxModel(network, tuning, reference, owners, None, full)


def placed_model(model: BoxModel, box: inputs.Elements) -> BoxModel:
    """The network of a box with everything where it sounds from."""
    return replace(model, places=_places(box, model.owners))


def _node(ids: Sequence[str], id: str) -> int:
    return NO_CHAMBER if id == OUTSIDE else ids.index(id)


def _softened(element: Opening, softness: Number) -> Opening:
    """A radiator on a suspension ``softness`` times as compliant; a port has none."""
    if not isinstance(element, Radiator):
        return element
    return replace(element, compliance=element.compliance * softness)


def _drivers(
    group: inputs.Group, ids: Sequence[str], wiring: Wiring, softness: Number
) -> net.DriverGroup:
    assert group.driver.constants is not None
    constants = group.driver.constants
    return net.DriverGroup(
        replace(constants, c_ms=constants.c_ms * softness),
        _node(ids, group.chamber),
        _node(ids, group.front),
        [id for id, _ in wiring].index(group.channel),
        group.in_series,
        group.in_parallel,
        dict(wiring)[group.channel],
    )


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
        tuple(_spot(o.place) for o in box.openings),
    )
    spots = (*found.cone, *found.opening)
    at_front = all(isinstance(x, float) and x == 0 for spot in spots for x in spot)
    return None if at_front else found


def _reference_of(
    opening: Opening, tuned: Sequence[Sequence[Opening]], reference: Sequence[Number]
) -> Number:
    """Frequency to which an opening's loss refers: that of the chamber it tunes.

    Of two chambers, whether it tunes both or none, the geometric mean; it has no first end.
    """
    ends = [node for node in (opening.chamber, opening.opens_to) if node != NO_CHAMBER]
    tunes = [node for node in ends if any(o is opening for o in tuned[node])] or ends
    if len(tunes) == 1:
        return reference[tunes[0]]
    return root(reference[tunes[0]] * reference[tunes[1]])


def _tunings(
    compliances: Sequence[Number],
    tuned: Sequence[Sequence[Opening]],
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


def _stuffing(chamber: Chamber) -> Number:
    """How much larger the air seems; fibre with a flow resistance says it itself."""
    return chamber.stuffing if chamber.fill_resistivity is None else 0.0


def _fill(chamber: Chamber, volume: Number, air: Air) -> Fill | None:
    if chamber.fill_resistivity is None:
        return None
    return Fill(chamber.fill_resistivity, chamber.fill_share, volume, air)


def _grown(compliance: Number, fill: Fill | None, reference: Number) -> Number:
    """Compliance near the tuning, at which its filled air is squeezed."""
    if fill is None:
        return compliance
    return fill.compliance(2 * pi * np.asarray(reference))


def _chamber(
    chamber: Chamber, compliance: Number, reference: Number, fill: Fill | None
) -> net.Chamber:
    """Losses by Q, except a leak that was measured and fibre with a flow resistance."""
    quality = chamber.absorption_q if fill is None else None
    model = chamber_air.lossy_chamber(compliance, reference, chamber.leak_q, quality)
    leak = model.leak if chamber.leak_resistance is None else 1.0 / chamber.leak_resistance
    return net.Chamber(model.compliance, leak, model.absorption, fill)
