"""Cells, packs and what they come to as a source."""

import numpy as np
import pytest

from firecrest.core.power.source import CellTable, pack_source, straight
from tests.core.power.boards import PACK, TABLE


def test_cell_tables_are_straight_between_points_and_flat_beyond():
    assert TABLE.voltage_at(0.3) == pytest.approx(3.55)
    assert TABLE.voltage_at(1.5) == pytest.approx(4.18)
    source = pack_source(PACK, 0.5)
    assert source.voltage == pytest.approx(18.5)
    assert source.resistance == pytest.approx(0.02 * 5 / 2 + 0.012 + 0.02)
    assert source.burst == {"cells": 24.0, "protection board": 20.0}


def test_columns_go_the_same_straight_lines():
    q = np.array([[0.05], [0.3], [0.9]])
    plain = TABLE.voltage_at(q)
    columns = CellTable(*(tuple(x + np.zeros((3, 1)) for x in row) for row in vars_of(TABLE)))
    np.testing.assert_allclose(columns.voltage_at(q), plain)
    assert straight(0.5, (0.0, 1.0), (2.0, 4.0)) == pytest.approx(3.0)


def vars_of(table):
    return table.charge, table.rest_voltage, table.resistance
