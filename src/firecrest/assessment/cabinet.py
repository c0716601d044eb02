"""What the case holds: net air of each chamber, size, weight and cost."""

from dataclasses import dataclass
from math import pi

from firecrest.assessment.memo import stage
from firecrest.core.cabinet.rollup import (
    Item,
    Panel,
    inner_size,
    interior,
    panel_item,
    six_panels,
    total,
)
from firecrest.design.box import Box, Case, DriverGroup, Port, RadiatorSet
from firecrest.design.power import Pack, Power, WallSupply
from firecrest.design.voice import Channel


@dataclass(frozen=True)
class CabinetResult:
    """Sizes in m, ``air`` per chamber in m3, ``items`` per chamber name and in all."""

    outer: tuple[float, float, float]
    inner: tuple[float, float, float]
    panels: tuple[Panel, ...]
    air: tuple[float, ...]
    taken: tuple[float, ...]
    items: tuple[Item, ...]
    mass: float
    price: float

    @property
    def longest_inner(self) -> float:
        """Longest inner dimension in m."""
        return max(self.inner)


Wiring = tuple[tuple[str, int], ...]
"""(name, outputs) of each voice channel: all that the box needs to know of the voice."""


def wiring_of(channels: tuple[Channel, ...]) -> Wiring:
    """The wiring that a voice stands for."""
    return tuple((c.name, c.outputs) for c in channels)


def cone_count(group: DriverGroup, wiring: Wiring) -> int:
    """Cones of a group that move air of their own, over all outputs; a pair counts once."""
    return group.in_series * group.in_parallel * dict(wiring)[group.channel]


def driver_count(group: DriverGroup, wiring: Wiring) -> int:
    """Drivers of a group over all outputs of its channel."""
    return cone_count(group, wiring) * (1 if group.pair == "alone" else 2)


def driver_room(group: DriverGroup, wiring: Wiring) -> float:
    """Air in m3 that a group takes from the chamber behind it.

    The outer driver of a clamshell sits outside; that of a tunnel and the air between the two are
    taken from the chamber.
    """
    cones = cone_count(group, wiring)
    if group.pair == "tunnel":
        return cones * (2 * group.driver.displacement + (group.trapped or 0.0))
    return cones * group.driver.displacement


def port_area(port: Port) -> float:
    """Area of one port in m2."""
    return pi * port.diameter**2 / 4 if port.shape == "round" else port.width * port.height


def port_outer_volume(port: Port) -> float:
    """Air that one port takes from the chamber: its bore and its wall, over its length."""
    if port.shape == "round":
        return pi * (port.diameter / 2 + port.wall) ** 2 * port.length
    return (port.width + port.wall) * (port.height + port.wall) * port.length


def _acoustic_items(box: Box, wiring: Wiring) -> list[tuple[str, Item]]:
    """(chamber, item) of drivers, radiators and ports."""
    found = []
    for g in box.groups:
        count = driver_count(g, wiring)
        found.append((g.chamber, _part(g.driver, count, driver_room(g, wiring) / count)))
    for r in box.radiators:
        part = r.radiator
        mass = part.mass + r.added_mass
        found.append((r.chamber, Item(part.name, r.count, part.displacement, mass, part.price)))
    found += [(p.chamber, Item("port", p.count, port_outer_volume(p), 0.0, 0.0)) for p in box.ports]
    return found


def _part(part: object, count: int, volume: float) -> Item:
    return Item(
        getattr(part, "name", "part"),
        count,
        volume,
        getattr(part, "mass", 0.0),
        getattr(part, "price", 0.0),
    )


def power_items(power: Power) -> list[Item]:
    """Amplifier, DSP, cells and what belongs to them; all sit in the first chamber."""
    items = [
        _part(power.amplifier, 1, power.amplifier.volume),
        _part(power.dsp, 1, power.dsp.volume),
    ]
    source = power.source
    if isinstance(source, Pack):
        items.append(_part(source.cell, source.series * source.parallel, source.cell.volume))
        if source.board is not None:
            board = source.board
            items.append(Item("protection board", 1, board.volume, board.mass, board.price))
    elif isinstance(source, WallSupply):
        items.append(_part(source, 1, 0.0))
    if power.converter is not None:
        items.append(_part(power.converter, 1, 0.0))
    return items


@stage
def cabinet(
    case: Case,
    chambers: tuple[object, ...],
    groups: tuple[DriverGroup, ...],
    radiators: tuple[RadiatorSet, ...],
    ports: tuple[Port, ...],
    power: Power,
    wiring: Wiring,
) -> CabinetResult:
    """Roll up a design's case; everything inside is subtracted from its chamber's share.

    Openings cut into panels are not taken off their weight (below 3 % of the case).
    """
    box = Box(case=case, chambers=chambers, groups=groups, radiators=radiators, ports=ports)  # type: ignore[arg-type]
    outer = (case.length, case.height, case.depth)
    placed = _acoustic_items(box, wiring)
    placed += [(box.chambers[0].name, item) for item in power_items(power)]
    placed += [(c.chamber, Item(c.name, c.count, c.volume, c.mass, c.price)) for c in case.contents]
    inside = interior(outer, case.wall)
    taken = tuple(
        total([item for name, item in placed if name == chamber.name]).volume
        for chamber in box.chambers
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
