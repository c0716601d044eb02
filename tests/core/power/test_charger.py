"""Charging against closed forms and time stepping."""

from dataclasses import replace

import pytest

from firecrest.core.power.charger import FULL, TAPER, Charger, Load, charged, charged_while_playing
from firecrest.core.power.source import CellTable, Pack
from tests.core.power.boards import TABLE

PACK = Pack(TABLE, 14400.0, 12.0, 2.8, 5, 2, 0.012, 20.0, 15.0, 0.02)
CHARGER = Charger(3.0, 20.5, 0.3, 0.03, 0.99)


def stepped(pack, charger, start, dt=0.5):
    """(seconds, charge) by time stepping."""
    charge, seconds = start, 0.0
    while charge < 1.0:
        ohms = float(pack.cell_resistance(charge)) + pack.board_resistance + charger.lead_resistance
        amperes = min(charger.current, (charger.voltage - float(pack.rest_voltage(charge))) / ohms)
        if amperes < charger.current and amperes <= charger.end_current:
            break
        charge += charger.efficiency * amperes * dt / pack.total_capacity
        seconds += dt
    return seconds, charge


@pytest.mark.parametrize("start", [0.0, 0.2, 0.5])
@pytest.mark.parametrize("volts", [20.5, 21.5])
def test_it_agrees_with_time_stepping(start, volts):
    charger = replace(CHARGER, voltage=volts)
    seconds, reached = stepped(PACK, charger, start)
    found = charged(PACK, charger, start)
    assert found.seconds == pytest.approx(seconds, rel=2e-3)
    assert found.ends_at == pytest.approx(min(reached, 1.0), abs=1e-3)
    assert found.ended_by == (TAPER if reached < 1 else FULL)


def test_a_taper_on_flat_cells_has_a_closed_form():
    """Voc and R constant: I = (V - Voc)/R all the way."""
    flat = Pack(CellTable((0.0, 1.0), (3.5, 3.5), (0.1, 0.1)), 3600.0, None, None, 1, 1)
    found = charged(flat, Charger(5.0, 3.6, 0.01, 0.0, 1.0), 0.0)
    assert found.steady == 0.0
    assert found.taper == pytest.approx(3600.0 / 1.0, rel=1e-9)


def test_by_count_is_charge_over_current():
    nickel = replace(CHARGER, by_count=True, efficiency=0.85)
    found = charged(PACK, nickel, 0.25)
    assert found.seconds == pytest.approx(0.75 * PACK.total_capacity / 0.85 / 3.0)
    assert found.ended_by == FULL


def test_playing_takes_from_the_charger_first():
    strong = replace(CHARGER, voltage=21.5)
    alone = charged_while_playing(PACK, strong, Load(0.0, 0.0))
    assert alone.pack_current == pytest.approx(3.0)
    louder = charged_while_playing(PACK, strong, Load(0.5, 10.0))
    assert louder.pack_current < alone.pack_current
    taken = louder.pack_current + Load(0.5, 10.0).current(louder.terminals)
    assert taken == pytest.approx(3.0)
    assert louder.seconds > alone.seconds


def test_too_much_never_fills_it():
    found = charged_while_playing(PACK, CHARGER, Load(0.0, 80.0))
    assert found.seconds is None
    assert found.pack_current < 0
    assert not found.ends


def test_a_charger_that_ends_below_full_ends_while_nothing_plays():
    """20.5 V against 20.9 V of a full pack: it tapers to its end current, and plays on for ever."""
    quiet = charged_while_playing(PACK, CHARGER, Load(0.0, 0.0))
    assert quiet.seconds == pytest.approx(charged(PACK, CHARGER, 0.2).seconds, rel=0.02)
    assert charged_while_playing(PACK, CHARGER, Load(0.5, 0.0)).seconds is None
