"""What the case holds: net air of each chamber, size, weight and cost."""

from dataclasses import dataclass
from math import pi

from firecrest.assessment.lower import inputs
from firecrest.core.arrays import Number, largest
from firecrest.core.cabinet.rollup import (
    Item,
    Panel,
    inner_size,
    interior,
    panel_item,
    six_panels,
    total,
)
from firecrest.design.box import OUTSIDE, DriverGroup, Port
from firecrest.design.voice import Channel


@dataclass(frozen=True)
class CabinetResult:
    """Sizes in m, ``air`` per chamber in m3, ``items`` per chamber name and in all."""

    outer: tuple[Number, Number, Number]
    inner: tuple[Number, Number, Number]
    panels: tuple[Panel, ...]
    air: tuple[Number, ...]
    taken: tuple[Number, ...]
    items: tuple[Item, ...]
    mass: Number
    price: Number

    @property
    def longest_inner(self) -> Number:
        """Longest inner dimension in m."""
        return largest(self.inner)


Wiring = tuple[tuple[str, int], ...]
"""(name, outputs) of each voice channel: all that the box needs to know of the voice."""


def wiring_of(channels: tuple[Channel, ...]) -> Wiring:
    """The wiring that a voice stands for."""
    return tuple((c.name, c.outputs) for c in channels)


def cone_count(group: DriverGroup | inputs.Group, wiring: Wiring) -> int:
    """Cones of a group that move air of their own, over all outputs; a pair counts once."""
    return group.in_series * group.in_parallel * dict(wiring)[group.channel]


def driver_count(group: DriverGroup | inputs.Group, wiring: Wiring) -> int:
    """Drivers of a group over all outputs of its channel."""
    return cone_count(group, wiring) * (1 if group.pair == "alone" else 2)


def _driver_room(group: inputs.Group, wiring: Wiring) -> Number:
    """Air in m3 that a group takes from the chamber behind it.

    The outer driver of a clamshell sits outside; that of a tunnel and the air between the two are
    taken from the chamber.
    """
    cones, each = cone_count(group, wiring), group.driver.bulk.volume
    if group.pair == "tunnel":
        trapped = 0.0 if group.trapped is None else group.trapped
        return cones * (2 * each + trapped)
    return cones * each


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


Placed = tuple[tuple[str, ...], Item]
"""(chambers among which the air it takes is shared out evenly, the thing)."""


def _item(
    bulk: inputs.Bulk, count: int, *, volume: Number | None = None, more: Number = 0.0
) -> Item:
    """``count`` of a thing; ``volume`` in place of its own, ``more`` kg on each."""
    takes = bulk.volume if volume is None else volume
    return Item(bulk.name, count, takes, bulk.mass + more, bulk.price)


def _acoustic_items(box: inputs.Box, wiring: Wiring) -> list[Placed]:
    """Drivers, radiators and ports; a port between two chambers takes half from each."""
    found: list[Placed] = []
    for g in box.groups:
        count = driver_count(g, wiring)
        room = _driver_room(g, wiring) / count
        found.append(((g.chamber,), _item(g.driver.bulk, count, volume=room)))
    found += [
        ((r.chamber,), _item(r.radiator.bulk, r.count, more=r.added_mass)) for r in box.radiators
    ]
    for p in box.ports:
        ends = tuple(name for name in (p.chamber, p.opens_to) if name != OUTSIDE)
        found.append((ends, Item("port", p.count, port_outer_volume(p), 0.0, 0.0)))
    return found


def _power_items(power: inputs.Power) -> list[Item]:
    """Amplifier, DSP, cells and what belongs to them; all sit in the first chamber."""
    items = [_item(power.amplifier.bulk, 1), _item(power.dsp.bulk, 1)]
    source = power.source
    if isinstance(source, inputs.Pack):
        items.append(_item(source.cell.bulk, source.series * source.parallel))
        if source.board is not None:
            board = source.board
            items.append(Item("protection board", 1, board.volume, board.mass, board.price))
    elif source is not None:
        items.append(_item(source.bulk, 1))
    if power.converter is not None:
        converter = power.converter
        items.append(Item(converter.name, 1, 0.0, converter.mass, converter.price))
    return items


def cabinet(box: inputs.Box, power: inputs.Power, wiring: Wiring) -> CabinetResult:
    """Roll up a design's case; everything inside is subtracted from its chamber's share.

    Openings cut into panels are not taken off their weight (below 3 % of the case).
    """
    case = box.case
    outer = (case.length, case.height, case.depth)
    placed = _acoustic_items(box, wiring)
    placed += [((box.chambers[0].name,), item) for item in _power_items(power)]
    for c in case.contents:
        placed.append(((c.chamber,), Item(c.name, c.count, c.volume, c.mass, c.price)))
    inside = interior(outer, case.wall)
    taken = tuple(
        sum((i.count * i.volume / len(names) for names, i in placed if c.name in names), 0.0)
        for c in box.chambers
    )
    air = tuple(
        chamber.share * inside - volume if chamber.stated_volume is None else chamber.stated_volume
        for chamber, volume in zip(box.chambers, taken, strict=True)
    )
    panels = six_panels(outer, case.wall)
    shell = panel_item(panels, case.density, case.price_per_area)
    items = (shell, *(item for _, item in placed))
    everything = total(items)
    return CabinetResult(
        outer,
        inner_size(outer, case.wall),
        panels,
        air,
        taken,
        items,
        everything.mass,
        everything.price,
    )
