"""What a stuck input draws."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.core.power.bench import bench_current
from firecrest.core.power.boards import standing
from firecrest.core.power.source import Converter, Source
from tests.core.power.boards import alone, board

STIFF = Source(24.0, 0.0)


def test_one_output_on_a_stiff_supply_is_arithmetic():
    model = replace(board(), current_limit=1e9)
    boards = alone(model)
    peak = (24.0 - model.offset) / (1 + model.r_out / 4.0)
    amperes = peak / 4 / np.sqrt(2)
    watts = (4 + model.r_out) * amperes**2
    lost = model.loss * 2 * np.sqrt(2) / np.pi * amperes
    found = bench_current(boards, [1], [4.0], STIFF, standing(boards, 0.0))
    assert found == pytest.approx(0.1 + lost + watts / 24.0)


def test_a_current_limit_and_the_supplys_own_cap_it():
    boards = alone(board(current_limit=1.0))
    limited = bench_current(boards, [1], [4.0], STIFF, standing(boards, 0.0))
    assert limited < bench_current(alone(board()), [1], [4.0], STIFF, standing(boards, 0.0))
    weak = Source(24.0, 0.0, {"supply": 0.5})
    assert bench_current(alone(board()), [2], [4.0], weak, standing(boards, 0.0)) == 0.5


def test_a_sagging_bus_stands_where_it_gives_what_is_drawn():
    model, source = board(), Source(24.0, 0.4)
    boards = alone(model)
    found = bench_current(boards, [2], [4.0], source, standing(boards, 1.0))
    bus = Source(24.0 - 0.4 * found, 0.0)
    again = bench_current(boards, [2], [4.0], bus, standing(boards, 1.0))
    assert again == pytest.approx(found, rel=1e-6)


def test_behind_a_converter_it_costs_its_efficiency():
    converter = Converter(24.0, 0.9)
    boards = alone(board(), converter)
    direct = bench_current(alone(board()), [1], [4.0], STIFF, standing(alone(board()), 0.0))
    behind = bench_current(boards, [1], [4.0], STIFF, standing(boards, 0.0))
    assert behind == pytest.approx(direct / 0.9, rel=1e-6)
