"""What stands on a source before anything plays."""

from math import isnan

import pytest

from firecrest.core.power.boards import (
    Board,
    Boards,
    Feed,
    Load,
    Standing,
    drawn_at_rest,
    load_power,
    standing,
)
from firecrest.core.power.source import Converter, Source
from tests.core.power.boards import board

BUCK = Converter(12.0, 0.9, idle_power=0.2)


def test_loads_take_their_watts_through_regulators_and_converters():
    loads = [Load(0.9, 0.85), Load(1.0, 0.5), Load(1.8, 1.0, 0)]
    assert load_power(loads, [BUCK]) == pytest.approx(0.9 / 0.85 + 2 + 2)


def test_idle_boards_take_amperes_on_the_bus_and_watts_behind_a_converter():
    model, mains = board(idle_current=0.15), board(own_mains=True)
    boards = Boards((Board(model), Board(model, 0), Board(model, 0), Board(mains)), (BUCK,), ())
    found = standing(boards, 3.0)
    assert found.amperes == pytest.approx(0.15)
    assert found.watts == pytest.approx(3.0 + 12.0 * 0.3 / 0.9 + 0.2)


def test_a_feed_knows_what_lies_between_it_and_the_source():
    model = board()
    boards = Boards((Board(model), Board(model, 0)), (BUCK,), (Feed(model, 0), Feed(model, 1)))
    assert [boards.converter_of(feed) for feed in boards.feeds] == [None, BUCK]
    assert boards.behind(0) == [model]


def test_a_dead_source_gives_what_is_asked_of_it_as_current_and_no_watts():
    dead, live = Source(0.0, 0.1), Source(12.0, 0.1)
    assert drawn_at_rest(dead, Standing(0.0, 0.0)) == 0.0
    assert isnan(drawn_at_rest(dead, Standing(0.0, 5.0)))
    assert isnan(drawn_at_rest(Source(1.0, 10.0), Standing(0.2, 1e-30)))
    amperes = drawn_at_rest(live, Standing(0.2, 5.0))
    volts = 12.0 - 0.1 * amperes
    assert amperes == pytest.approx(0.2 + 5.0 / volts)
