"""What the case holds: net air of each chamber, size, weight and cost."""

from dataclasses import dataclass

from firecrest.assessment.lower import inputs
from firecrest.assessment.openings import kind_of_opening
from firecrest.assessment.room import Placed, item_of
from firecrest.assessment.wiring import Wiring, cone_count, driver_count
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


@dataclass(frozen=True)
class CabinetResult:
    """Sizes in m, ``air`` per chamber in m3, ``items`` per chamber and in all."""

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


def _acoustic_items(box: inputs.Box, wiring: Wiring) -> list[Placed]:
    """Drivers and openings."""
    found: list[Placed] = []
    for g in box.groups:
        count = driver_count(g, wiring)
        room = _driver_room(g, wiring) / count
        found.append(((g.chamber,), item_of(g.driver.bulk, count, volume=room)))
    return found + [kind_of_opening(item).room(item) for item in box.openings]


def _power_items(power: inputs.Power) -> list[Item]:
    """Boards, cells and what belongs to them; all sit in the first chamber."""
    items = [item_of(board.bulk, 1) for board in power.amplifiers]
    items.append(item_of(power.dsp.bulk, 1))
    items += [item_of(board.bulk, 1) for board in power.receivers]
    source = power.source
    if isinstance(source, inputs.Pack):
        items.append(item_of(source.cell.bulk, source.series * source.parallel))
        if source.board is not None:
            board = source.board
            items.append(Item("protection board", 1, board.volume, board.mass, board.price))
    elif source is not None:
        items.append(item_of(source.bulk, 1))
    return items + [Item(c.name, 1, 0.0, c.mass, c.price) for c in power.converters]


def cabinet(box: inputs.Box, power: inputs.Power, wiring: Wiring) -> CabinetResult:
    """Roll up a design's case; everything inside is subtracted from its chamber's share.

    Openings cut into panels are not taken off their weight (below 3 % of the case).
    """
    case = box.case
    outer = (case.length, case.height, case.depth)
    placed = _acoustic_items(box, wiring)
    placed += [((box.chambers[0].id,), item) for item in _power_items(power)]
    for c in case.contents:
        placed.append(((c.chamber,), Item(c.name, c.count, c.volume, c.mass, c.price)))
    inside = interior(outer, case.wall)
    taken = tuple(
        sum((i.count * i.volume / len(ids) for ids, i in placed if c.id in ids), 0.0)
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
