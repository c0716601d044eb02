import pytest

from firecrest.core.cabinet.rollup import Item, total


def test_items_add_up_by_count():
    both = total([Item("a", 2, 0.1, 1.0, 5.0), Item("b", 1, 0.3, 0.5, 7.0)])
    assert (both.count, both.volume, both.mass, both.price) == (3, pytest.approx(0.5), 2.5, 17.0)
