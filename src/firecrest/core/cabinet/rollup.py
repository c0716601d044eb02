"""Weight and cost of what is in a case."""

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


def total(items: Sequence[Item]) -> Item:
    """Sum of volume, mass and price, each times its count."""
    return Item(
        "total",
        sum(i.count for i in items),
        sum(i.count * i.volume for i in items),
        sum(i.count * i.mass for i in items),
        sum(i.count * i.price for i in items),
    )
