"""What a thing takes of the air, weighs and costs, and in which chambers it sits."""

from firecrest.assessment.lower import inputs
from firecrest.core.arrays import Number
from firecrest.core.cabinet.rollup import Item

Placed = tuple[tuple[str, ...], Item]
"""(ids of the chambers among which the air it takes is shared out evenly, the thing)."""


def item_of(
    bulk: inputs.Bulk, count: int, *, volume: Number | None = None, more: Number = 0.0
) -> Item:
    """``count`` of a thing; ``volume`` in place of its own, ``more`` kg on each."""
    takes = bulk.volume if volume is None else volume
    return Item(bulk.name, count, takes, bulk.mass + more, bulk.price)
