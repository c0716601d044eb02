"""Interior, net air, weight and cost of a six-panel case and what is in it."""

from collections.abc import Sequence
from dataclasses import dataclass

from firecrest.core.arrays import Number


@dataclass(frozen=True)
class Item:
    """One kind of thing in the case: ``count`` of ``volume`` m3, ``mass`` kg and ``price`` each."""

    name: str
    count: int
    volume: Number
    mass: Number
    price: Number


@dataclass(frozen=True)
class Panel:
    """A panel of the case, in m."""

    name: str
    width: Number
    height: Number
    thickness: Number

    @property
    def volume(self) -> Number:
        """Material in m3."""
        return self.width * self.height * self.thickness


def inner_size(outer: Sequence[Number], wall: Number) -> tuple[Number, Number, Number]:
    """Length, height and depth inside walls of thickness ``wall``, in m."""
    length, height, depth = (side - 2 * wall for side in outer)
    return length, height, depth


def six_panels(outer: Sequence[Number], wall: Number) -> tuple[Panel, ...]:
    """Butt-jointed panels that fill the shell exactly: front and back whole, the rest between."""
    length, height, depth = outer
    between = depth - 2 * wall
    return (
        Panel("front", length, height, wall),
        Panel("back", length, height, wall),
        Panel("top", length, between, wall),
        Panel("bottom", length, between, wall),
        Panel("left end", height - 2 * wall, between, wall),
        Panel("right end", height - 2 * wall, between, wall),
    )


def interior(outer: Sequence[Number], wall: Number) -> Number:
    """Volume inside the walls in m3."""
    length, height, depth = inner_size(outer, wall)
    return length * height * depth


def total(items: Sequence[Item]) -> Item:
    """Sum of volume, mass and price, each times its count."""
    return Item(
        "total",
        sum(i.count for i in items),
        sum(i.count * i.volume for i in items),
        sum(i.count * i.mass for i in items),
        sum(i.count * i.price for i in items),
    )


def panel_item(panels: Sequence[Panel], density: Number, price_per_area: Number) -> Item:
    """The bare case as one item: it takes no air from the interior."""
    mass = sum(p.volume for p in panels) * density
    price = sum(p.width * p.height for p in panels) * price_per_area
    return Item("case", 1, 0.0, mass, price)
