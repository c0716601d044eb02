"""Usual figures of cells."""

import pytest

from firecrest.core.power.chemistry import CHEMISTRIES, usual_table
from firecrest.core.power.cold import USUAL


def test_every_chemistry_has_both_kinds_of_figures():
    assert set(CHEMISTRIES) == set(USUAL)
    for kind in CHEMISTRIES.values():
        assert list(kind.rest) == sorted(kind.rest)
        assert 0 < kind.self_discharge < 0.2
        assert kind.full is None or kind.full >= kind.rest[-1]


def test_a_cell_without_a_table_has_its_resistance_above_40_percent():
    table = usual_table("lithium ion", 0.02)
    assert float(table.resistance_at(0.7)) == pytest.approx(0.02)
    assert float(table.resistance_at(0.0)) == pytest.approx(0.036)
    assert float(table.voltage_at(0.5)) == pytest.approx(3.70)
