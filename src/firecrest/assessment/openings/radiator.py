"""Passive radiators: added mass, sag, their place in the network, the travel they bear."""

from collections.abc import Iterator

from firecrest.assessment.lower import inputs
from firecrest.assessment.openings.kind import OpeningKind
from firecrest.assessment.room import Placed, item_of
from firecrest.assessment.wiring import Wiring, cone_count
from firecrest.core.acoustics.openings import Radiator
from firecrest.core.acoustics.openings.radiator import sag
from firecrest.core.air import Air
from firecrest.core.arrays import Number, positive
from firecrest.core.note import Note, note
from firecrest.design.box import placed

TRAVEL_BAND = 0.4
"""Share either way by which an estimated travel of a radiator may be off."""
TRAVEL_RULE = 2.0
"""Radiator travel not known: its displacement is taken as this many times the drivers'."""


def sag_of(item: inputs.Radiators) -> Number:
    """Metres by which radiators hang from their rest; none unless they face up or down."""
    r = item.radiator
    if not item.horizontal or r.mmp is None or r.cmp is None:
        return 0.0
    return sag(r.mmp + item.added_mass, r.cmp)


def travel_follows(box: inputs.Elements, item: inputs.Radiators) -> bool:
    """Whether a radiator's travel can be estimated from the drivers around its chamber."""
    drivers = [g.driver for g in box.groups if item.chamber in (g.chamber, g.front)]
    known = all(d.xmax is not None and d.constants is not None for d in drivers)
    return bool(drivers) and known and item.radiator.sd is not None


def _missing(box: inputs.Elements, item: inputs.Radiators) -> Iterator[Note]:
    if item.radiator.xmax is None and not travel_follows(box, item):
        yield note("figure", figure="xmax", part=item.radiator.bulk.name)


def _estimates(box: inputs.Elements, item: inputs.Radiators) -> Iterator[Note]:
    if item.radiator.xmax is None and travel_follows(box, item):
        yield note("travel", part=item.radiator.bulk.name, share=TRAVEL_BAND)


def _element(item: inputs.Radiators, air: Air, chamber: int, opens_to: int) -> Radiator:
    """Added mass keeps Rmp and Cmp."""
    r = item.radiator
    assert r.mmp is not None
    assert r.cmp is not None
    assert r.rmp is not None
    assert r.sd is not None
    return Radiator(r.mmp + item.added_mass, r.cmp, r.rmp, r.sd, chamber, item.count, opens_to)


def _rating(box: inputs.Elements, wiring: Wiring, item: inputs.Radiators) -> Number | None:
    """Travel less sag in m; where it is not stated, from what the drivers around can displace."""
    travel = item.radiator.xmax
    if travel is None:
        if not travel_follows(box, item):
            return None
        travel = TRAVEL_RULE * _swept(box, item.chamber, wiring) / _area(box, item.chamber)
    return positive(travel - sag_of(item))


def _swept(box: inputs.Elements, chamber: str, wiring: Wiring) -> Number:
    """Air in m3 that the drivers around a chamber displace one way."""
    return sum(
        g.driver.xmax * g.driver.constants.s_d * cone_count(g, wiring)
        for g in box.groups
        if chamber in (g.chamber, g.front) and g.driver.xmax is not None and g.driver.constants
    )


def _area(box: inputs.Elements, chamber: str) -> Number:
    """Area in m2 of all radiators of a chamber."""
    own = [r for _, r in placed(box.openings, inputs.Radiators) if r.chamber == chamber]
    return sum(r.count * r.radiator.sd for r in own if r.radiator.sd is not None)


def _room(item: inputs.Radiators) -> Placed:
    return (item.chamber,), item_of(item.radiator.bulk, item.count, more=item.added_mass)


KIND = OpeningKind(
    "radiator",
    "added_mass",
    lambda item: item.radiator.lacks,
    _missing,
    _estimates,
    _element,
    lambda item, element, reference: element,
    _room,
    _rating,
    lambda item: None,
)
