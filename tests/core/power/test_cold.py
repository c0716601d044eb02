"""Cells in the cold and of age."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.power.cold import USUAL, worn
from firecrest.core.power.discharge import player_of
from firecrest.core.power.runtime import played
from firecrest.core.power.source import CellTable
from tests.core.power.boards import PACK, alone, board, programme

TABLE = CellTable((0.0, 0.5, 1.0), (3.0, 3.7, 4.2), (0.06, 0.04, 0.035))
TEMPERATURES = st.floats(243.15, 323.15)


@pytest.mark.parametrize("chemistry", USUAL)
def test_a_new_cell_at_20_degrees_is_as_stated(chemistry):
    left = worn(TABLE, 9000.0, USUAL[chemistry], 293.15, 1.0)
    assert left.table is TABLE
    assert left.capacity == 9000.0


def test_between_and_beyond_the_points_of_the_table():
    usual = USUAL["lithium ion"]
    assert usual.capacity_at(268.15) == pytest.approx((0.82 + 0.90) / 2)
    assert usual.resistance_at(203.15) == 4.0
    aged = worn(TABLE, 9000.0, usual, 293.15, 0.8)
    assert aged.capacity == pytest.approx(7200.0)
    assert aged.table.resistance_at(0.5) == pytest.approx(0.04 * 1.6)
    assert aged.table.rest_voltage == TABLE.rest_voltage


@given(st.sampled_from(sorted(USUAL)), TEMPERATURES, TEMPERATURES, st.floats(0.3, 1.0))
@settings(max_examples=60)
def test_the_cold_never_plays_longer_than_the_warm(chemistry, one, other, health):
    cold, warm = (_hours(chemistry, t, health) for t in sorted((one, other)))
    assert cold <= warm * (1 + 1e-9)


@given(TEMPERATURES, st.floats(0.3, 1.0), st.floats(0.3, 1.0))
@settings(max_examples=30)
def test_the_old_never_play_longer_than_the_new(temperature, one, other):
    old, new = (_hours("lithium ion", temperature, s) for s in sorted((one, other)))
    assert old <= new * (1 + 1e-9)


def test_columns_of_temperatures_are_each_as_by_itself():
    column = np.array([[253.15], [283.15], [313.15]])
    together = worn(TABLE, 9000.0, USUAL["lead acid"], column, 0.9)
    for k, t in enumerate(column.ravel()):
        alone = worn(TABLE, 9000.0, USUAL["lead acid"], float(t), 0.9)
        assert together.capacity[k, 0] == pytest.approx(alone.capacity, rel=1e-12)
        assert together.table.resistance_at(0.2)[k, 0] == pytest.approx(
            float(alone.table.resistance_at(0.2)), rel=1e-12
        )


def _hours(chemistry, temperature, health):
    left = worn(TABLE, 9000.0, USUAL[chemistry], temperature, health)
    pack = replace(PACK, table=left.table, capacity=left.capacity)
    boards = alone(board())
    found = played(pack, programme(boards), 3.0, 6.0, player_of(boards, 1.0))
    return float(np.ravel(found.hours)[0])
