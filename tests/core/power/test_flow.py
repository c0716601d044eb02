"""Where the power goes: the items add up at every moment, whatever stands on the source."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.limits.bus import Bus, mean_bus_current
from firecrest.core.limits.draw import Output, draw_of
from firecrest.core.limits.material import PROGRAMME, material_of
from firecrest.core.limits.programme import PROGRAMMES
from firecrest.core.power.boards import Board, Boards, Feed, Load, load_power, standing
from firecrest.core.power.flow import SOURCE, Given, Played, flow, sound_power
from firecrest.core.power.source import Converter, Source
from tests.core.power.boards import FLAT, board

CONVERTER = Converter(15.0, 0.9, idle_power=0.2)


def played(drive, boards, counts, loads):
    outputs = [Output(np.ones(50) + 0j, np.full(50, 0.2 - 0.1j), n) for n in counts]
    draw = draw_of(outputs, boards, material_of(PROGRAMMES["music"], 0.0, FLAT))
    return Played(boards, counts, draw.of(PROGRAMME), drive, loads)


@settings(max_examples=200)
@given(
    st.floats(0.0, 3.0),
    st.floats(15.0, 30.0),
    st.floats(0.0, 0.3),
    st.booleans(),
    st.lists(st.tuples(st.floats(0, 5), st.floats(0.5, 1), st.booleans()), max_size=3),
)
def test_it_closes_at_every_moment(drive, volts, ohms, behind, watts):
    model = board()
    boards = Boards(
        (Board(model), Board(model, 0 if behind else None)),
        (CONVERTER,),
        (Feed(model, 0), Feed(model, 1)),
    )
    loads = [Load(w, eta, 0 if rail else None) for w, eta, rail in watts]
    play = played(drive, boards, [2, 1], loads)
    source = Source(volts, ohms)
    bus = Bus(source, standing(boards, load_power(loads, boards.converters)), play.draw)
    amperes = mean_bus_current(bus, np.full(1, drive))
    given_ = Given(volts, volts - ohms * amperes, amperes, {"cells": ohms})
    items = flow(given_, play)
    total = sum(float(np.ravel(v)[0]) for name, v in items.items() if name != SOURCE)
    assert total == pytest.approx(float(np.ravel(items[SOURCE])[0]), rel=1e-9)
    assert all(np.all(value >= -1e-12) for value in items.values())


def test_silence_is_idle_and_loads_alone():
    boards = Boards((Board(board()),), (), (Feed(board()),))
    play = played(0.0, boards, [1], [Load(2.0, 0.8)])
    items = flow(Given(20.0, 20.0, 0.1 + 2.5 / 20, {}), play)
    assert float(items["amplifier idle"]) == pytest.approx(2.0)
    assert (float(items["modules"]), float(items["regulators"])) == pytest.approx((2.0, 0.5))
    assert float(np.ravel(items["drivers"])[0]) == 0.0


def test_sound_of_94_db_at_1_m_over_a_half_space():
    """1 Pa^2 2 pi/(rho c): 15.2 mW."""
    level = 20 * np.log10(1 / 2e-5)
    assert sound_power(level, 1.0, 2 * np.pi) == pytest.approx(2 * np.pi / (1.204 * 343.2))
    assert sound_power(level + 6.0206, 1.0, 2 * np.pi) == pytest.approx(
        4 * sound_power(level, 1.0, 2 * np.pi), rel=1e-4
    )
