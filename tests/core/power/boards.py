"""Boards and buses that tests build on."""

import numpy as np

from firecrest.core.limits.bus import Bus
from firecrest.core.limits.draw import Output, draw_of
from firecrest.core.limits.material import HELD_SINE, PROGRAMME, material_of
from firecrest.core.limits.programme import PROGRAMMES
from firecrest.core.power.amplifier import Claim, read_claims
from firecrest.core.power.boards import Board, Boards, Feed, on_bus, standing
from firecrest.core.power.source import CellTable, Pack

TWO = [Claim(60, 4, 24, 0.1), Claim(33, 8, 24, 0.1)]
LOADED = Output(np.array([1.0 + 0j]), np.array([0.25 * np.exp(0.7j)]), 2)
TABLE = CellTable((0.0, 0.1, 0.5, 1.0), (2.9, 3.4, 3.7, 4.18), (0.036, 0.026, 0.02, 0.02))
PACK = Pack(TABLE, 14400.0, 12.0, 2.8, 5, 2, 0.012, 20.0, 15.0, 0.02)
FLAT = np.geomspace(20, 20000, 50)


def read(**changes):
    return read_claims(
        **{"claims": TWO, "channels": 2, "bridged": True, "idle_current": 0.1, **changes}
    )


def board(**changes):
    return read(**changes).model


def alone(model, converter=None):
    """One board, on the bus or behind a converter."""
    if converter is None:
        return on_bus(Board(model))
    return Boards((Board(model, 0),), (converter,), (Feed(model),))


def bus_of(source, boards, other=0.0, outputs=(LOADED,)):
    """The bus while a held sine is played."""
    return Bus(source, standing(boards, other), draw_of(outputs, boards, HELD_SINE))


def programme(boards, power=0.2):
    output = Output(np.ones(50) + 0j, np.full(50, power) + 0j, 2)
    return draw_of([output], boards, material_of(PROGRAMMES["music"], 0.0, FLAT)).of(PROGRAMME)
