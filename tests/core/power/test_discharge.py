"""Discharge against closed forms: constant current, constant power, pulses, and a weak group."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import quad

from firecrest.core.power.boards import Standing
from firecrest.core.power.discharge import Demand, Player, cut_offs, discharge, first_to_open
from firecrest.core.power.source import CellTable, Pack

LINE = CellTable((0.0, 1.0), (3.0, 4.2), (0.03, 0.03))
"""One straight line: closed forms exist."""
PACK = Pack(LINE, 7200.0, None, None, 4, 1)
NOBODY = Player(Standing(), 0.0, None, None)


def demand(watts=0.0, amperes=0.0):
    return Demand(np.array([watts]), np.array([amperes]))


def hours(pack, asked, player=NOBODY):
    end, which, names = first_to_open(pack, asked, player)
    return float(discharge(pack, end, asked).passed[-1]), float(end[0]), names[int(which[0])]


def test_constant_current_empties_in_charge_over_current():
    found, end, name = hours(PACK, demand(amperes=2.0))
    assert found == pytest.approx(7200.0 / 2.0 / 3600, rel=1e-9)
    assert (end, name) == (0.0, "empty")


def test_constant_power_into_an_ideal_pack_takes_its_energy():
    """Without resistance t = Q Voc_mean/P, whatever the power."""
    ideal = replace(PACK, table=CellTable((0.0, 1.0), (3.0, 4.2), (0.0, 0.0)))
    for watts in (5.0, 20.0):
        energy = 7200.0 * 4 * 3.6
        assert hours(ideal, demand(watts))[0] * 3600 == pytest.approx(energy / watts, rel=1e-4)


def test_constant_power_with_resistance_against_quadrature():
    watts = 30.0

    def amperes(q):
        volts, ohms = 4 * (3.0 + 1.2 * q), 4 * 0.03
        return (volts - np.sqrt(volts**2 - 4 * ohms * watts)) / (2 * ohms)

    seconds, _ = quad(lambda q: 7200.0 / amperes(q), 0, 1)
    assert hours(PACK, demand(watts))[0] * 3600 == pytest.approx(seconds, rel=1e-6)


def test_where_a_cut_off_opens_at_constant_current():
    """Voc(q) - R I = V_off has one q."""
    stops = Player(Standing(), 0.0, 13.0, None)
    _, end, name = hours(PACK, demand(amperes=2.0), stops)
    assert end == pytest.approx((13.0 + 4 * 0.03 * 2.0 - 12.0) / 4.8, abs=1e-9)
    assert name == "amplifier"


def test_pulses_end_it_and_their_mean_empties_it():
    """Half the time 4 A, half none: the mean of 2 A sets the hours, the pulse the end."""
    stops = Player(Standing(), 0.0, 13.0, None)
    end, _, _ = first_to_open(PACK, demand(amperes=4.0), stops)
    passed = discharge(PACK, end, demand(amperes=2.0)).passed[-1]
    left = (13.0 + 4 * 0.03 * 4.0 - 12.0) / 4.8
    assert float(end[0]) == pytest.approx(left, abs=1e-9)
    assert float(passed) == pytest.approx((1 - left) * 1.0, rel=1e-9)


def test_what_goes_aside_shortens_it_alike():
    whole = float(discharge(PACK, np.zeros(1), demand(amperes=1.0), 1.0).passed[-1])
    assert whole == pytest.approx(1.0)
    own = replace(PACK, own_current=1.0)
    assert hours(own, demand(amperes=1.0))[0] == pytest.approx(1.0)


def test_a_weak_group_is_empty_first_and_its_cell_opens_first():
    weak = replace(PACK, spread=0.1)
    found, end, name = hours(weak, demand(amperes=2.0))
    assert (end, name) == (0.1, "empty")
    assert found == pytest.approx(0.9, rel=1e-9)
    guarded = replace(weak, cell_cut_off=3.2)
    _, end, name = hours(guarded, demand(amperes=2.0))
    # 3 + 1.2 q_w - 0.03 x 2 = 3.2 with q_w = 1 - (1 - q)/0.9
    q_w = (3.2 + 0.06 - 3.0) / 1.2
    assert end == pytest.approx(1 - (1 - q_w) * 0.9, abs=1e-9)
    assert name == "cell"
    even = hours(replace(PACK, cell_cut_off=3.2), demand(amperes=2.0))
    assert even[1] < end


def test_rest_voltage_adds_the_weak_group():
    weak = replace(PACK, spread=0.2)
    q, q_w = 0.6, 1 - 0.4 / 0.8
    assert float(weak.rest_voltage(q)) == pytest.approx(3 * (3 + 1.2 * q) + 3 + 1.2 * q_w)
    assert float(weak.rest_voltage(1.0)) == pytest.approx(4 * 4.2)


def test_volts_in_hand_are_told_by_name():
    pack = replace(PACK, board_cut_off=13.0, cell_cut_off=3.0)
    spare = cut_offs(pack, pack.strings_at(np.array([0.5])), demand(amperes=1.0), NOBODY)
    assert float(spare["protection board"][0]) == pytest.approx(14.4 - 0.12 - 13.0)
    assert float(spare["cell"][0]) == pytest.approx(3.6 - 0.03 - 3.0)
