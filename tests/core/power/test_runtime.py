"""Runtime against time stepping, what ends it, and a bus that is broken at rest."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.core.power.boards import Standing
from firecrest.core.power.discharge import Player, at_rest, player_of
from firecrest.core.power.runtime import played, runtime_of
from firecrest.core.power.source import CellTable, Converter, Pack
from tests.core.power.boards import PACK, TABLE, alone, board, programme

PROGRAMME = programme(alone(board()))


def runtime(pack, draw, drive, burst, amplifier, other):
    player = player_of(alone(amplifier), other)
    return runtime_of(played(pack, draw, drive, burst, player), pack, draw, drive, player)


def bus_at(charge, pack, draw, drive, amplifier, other):
    """(V, A) of the bus at a charge."""
    r, losses = pack.resistance(charge), float(draw.average[0] * draw.amperes[0]) * drive
    amperes = amplifier.idle_current + losses
    e = pack.rest_voltage(charge) - r * amperes
    power = float(draw.mean_power[0]) * drive**2 + other
    v = (e + np.sqrt(e * e - 4 * r * power)) / 2
    return v, amperes + power / v


def stepped(pack, draw, drive, burst, amplifier, other):
    """Time stepping to the first opened cut-off; hours."""
    charge, seconds, dt = 1.0, 0.0, 4.0
    while charge > 0:
        v, i = bus_at(charge, pack, draw, drive * 10 ** (burst / 20), amplifier, other)
        cell = float(TABLE.voltage_at(charge)) - i * float(TABLE.resistance_at(charge)) / 2
        if v + i * pack.lead_resistance < pack.board_cut_off or cell < pack.cell_cut_off:
            break
        charge -= bus_at(charge, pack, draw, drive, amplifier, other)[1] * dt / pack.total_capacity
        seconds += dt
    return seconds / 3600


@pytest.mark.parametrize("drive", [3.0, 6.0])
def test_runtime_agrees_with_time_stepping(drive):
    result = runtime(PACK, PROGRAMME, drive, 6.0, board(), 1.0)
    assert result.hours == pytest.approx(
        stepped(PACK, PROGRAMME, drive, 6.0, board(), 1.0), rel=5e-3
    )
    assert result.ended_by == "protection board"


def test_hours_are_the_integral_of_charge_over_current():
    found = runtime(PACK, PROGRAMME, 4.0, 6.0, board(), 1.0)
    step = (1.0 - found.end_charge) / 100_000
    charge = found.end_charge + step * (np.arange(100_000) + 0.5)
    _, amperes = bus_at(charge, PACK, PROGRAMME, 4.0, board(), 1.0)
    hours = np.sum(PACK.total_capacity * step / amperes) / 3600
    assert found.hours == pytest.approx(hours, rel=2e-6)
    course = found.course
    assert (course["hours"][0], course["charge"][0]) == (0.0, 1.0)
    assert course["hours"][-1] == pytest.approx(found.hours)
    assert course["charge"][-1] == found.end_charge
    assert np.all(np.diff(course["hours"]) >= 0)
    for charge, volts in zip(course["charge"], course["bus"], strict=True):
        assert bus_at(charge, PACK, PROGRAMME, 4.0, board(), 1.0)[0] == pytest.approx(volts)


def test_more_cells_last_longer_and_louder_lasts_shorter():
    hours = [
        runtime(replace(PACK, parallel=p), PROGRAMME, 4.0, 6.0, board(), 1.0).hours
        for p in (1, 2, 3)
    ]
    assert hours == sorted(hours)
    louder = [runtime(PACK, PROGRAMME, d, 6.0, board(), 1.0).hours for d in (1, 3, 9)]
    assert louder == sorted(louder, reverse=True)


def test_which_cut_off_ends_it():
    ends = {
        "cell": replace(PACK, board_cut_off=None, cell_cut_off=3.3),
        "empty": replace(PACK, board_cut_off=None, cell_cut_off=None),
        "amplifier": PACK,
    }
    for name, pack in ends.items():
        cut_off = 17.0 if name == "amplifier" else None
        result = runtime(pack, PROGRAMME, 3.0, 6.0, board(cut_off=cut_off), 1.0)
        assert result.ended_by == name
    boards = alone(board(cut_off=17.0), Converter(24.0, 0.9, None, 16.0))
    player, draw = player_of(boards, 1.0), programme(boards)
    boosted = runtime_of(played(PACK, draw, 3.0, 6.0, player), PACK, draw, 3.0, player)
    assert boosted.ended_by == "converter"


def test_an_overloaded_pack_plays_not_at_all():
    result = runtime(PACK, PROGRAMME, 500.0, 6.0, board(), 1.0)
    assert result.hours == 0.0
    assert result.end_charge == 1.0


def test_energy_shares_add_up():
    watts = runtime(PACK, PROGRAMME, 4.0, 6.0, board(), 1.0).watts
    parts = sum(watts[k] for k in ("audio", "idle", "other", "wires"))
    assert parts == pytest.approx(watts["total"])


def test_losses_that_drop_all_of_the_voltage_break_the_bus_also_at_no_load():
    """One tired cell, half an ohm, and a board that idles at 10 A: nothing is left."""
    tired = Pack(CellTable((0.0, 1.0), (3.0, 4.2), (0.5, 0.5)), 3600.0, None, 2.5, 1, 1)
    spare = at_rest(tired, 0.5, Player(Standing(10.0, 0.0), 0.0, None, None))
    assert {name: float(volts[0]) for name, volts in spare.items()} == {
        "collapse": pytest.approx(3.6 - 5.0),
        "cell": np.inf,
    }
