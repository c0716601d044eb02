"""Connectors that bear a current."""

from firecrest.core.power.connectors import CONNECTORS, that_bear


def test_the_smallest_that_bears_it_comes_first():
    found = that_bear(4.5)
    assert found[0].amperes == 5.0
    assert all(c.amperes >= 4.5 for c in found)
    assert len(that_bear(0.0)) == len(CONNECTORS)
    assert that_bear(1000.0) == []
