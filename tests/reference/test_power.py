"""Boards, converters and sources against independent results: limits, flat out, hours, flow.

Loads are resonant circuits and voices analogue prototypes, so the core is asked without a box.
"""

import numpy as np
import pytest

from firecrest.core.arrays import decibel
from firecrest.core.limits.bus import mean_bus_current
from firecrest.core.limits.kinds import reached
from firecrest.core.limits.material import PROGRAMME, SINES
from firecrest.core.power.chemistry import CHEMISTRIES
from firecrest.core.power.discharge import player_of
from firecrest.core.power.flow import Given, Played, flow, sound_power
from firecrest.core.power.runtime import played, stood
from tests.reference import power_systems as made
from tests.reference.power_systems import GRID, SYSTEMS, WEARS


@pytest.fixture(params=sorted(SYSTEMS))
def case(request):
    return SYSTEMS[request.param], made.wanted(request.param)


def music(system, source=None):
    """What music asks of a system."""
    ask = made.asked(system, source or made.source_of(system), GRID)
    return ask, ask.bus.draw.of(PROGRAMME)


def flat_out(system, charge):
    """(V rms, the limit) of the loudest music at a charge."""
    ask, _ = music(system, made.source_of(system, charge))
    found = [limit.of(PROGRAMME) for limit in reached(ask)]
    first = min(found, key=lambda limit: float(np.ravel(limit.factor)[0]))
    return float(np.ravel(first.factor)[0]), made.limit_name(system, first)


def player(system):
    boards = made.boards_of(system)
    return player_of(boards, made.load_power(made.loads_of(system), boards.converters))


def test_what_the_claims_come_to(case):
    system, wanted = case
    for board, found in zip(system["boards"], wanted["amplifiers"], strict=True):
        model = made.claims_of(board).model
        assert model.r_out == pytest.approx(found["r_out"], rel=1e-5)
        assert model.offset == pytest.approx(found["V0"] * found["side"], rel=1e-5, abs=1e-9)
        assert model.swing_factor == pytest.approx(found["side"], rel=1e-5)
        assert model.current_limit == pytest.approx(found["I_limit"], rel=1e-5)
        assert model.loss == pytest.approx(found["k"], rel=1e-5)


def test_the_source_at_every_charge(case):
    system, wanted = case
    assert made.lead_of(system) == pytest.approx(wanted["source"]["R_lead"], rel=1e-5)
    for at in wanted["source"]["by_charge"]:
        source = made.source_of(system, at["q"])
        assert source.voltage == pytest.approx(at["Voc"], rel=1e-6)
        assert source.resistance == pytest.approx(at["R"], rel=1e-5)


def test_every_limit_of_a_held_sine(case):
    system, wanted = case
    f = np.array([row["f"] for row in wanted["sine_limits"]])
    ask = made.asked(system, made.source_of(system), f)
    mine = {made.limit_name(system, limit): limit.of(SINES) for limit in reached(ask)}
    assert set(mine) == set(wanted["sine_limits"][0]["g"])
    for k, row in enumerate(wanted["sine_limits"]):
        for name, g in row["g"].items():
            value = float(np.broadcast_to(mine[name].factor, len(f))[k])
            assert value == pytest.approx(np.inf if g is None else g, rel=1e-3), (name, row["f"])


def test_flat_out_with_programme(case):
    system, wanted = case
    ask, _ = music(system)
    for limit in reached(ask):
        factor = np.ravel(limit.of(PROGRAMME).factor)[0]
        level = system["unit_level_db"] + float(decibel(factor))
        assert level == pytest.approx(
            wanted["flat_out"]["level_per_limit"][made.limit_name(system, limit)], abs=0.02
        )
    assert flat_out(system, None)[1] == wanted["flat_out"]["limit"]


def test_how_loud_while_it_drains(case):
    system, wanted = case
    for row in wanted["drain"] if system["source"]["kind"] == "pack" else ():
        drive, limit = flat_out(system, row["q"])
        level = system["unit_level_db"] + float(decibel(drive))
        assert level == pytest.approx(row["flat_out_db"], abs=0.02)
        assert limit == row["limit"]


def test_how_long_it_plays(case):
    system, wanted = case
    _, draw = music(system)
    for use in wanted["uses"].values():
        for name, wear in WEARS.items() if use["seconds"] else ():
            run = use[name] if name else use
            store = made.store_of(system, *wear)
            found = played(store, draw, use["drive_V"], made.BURST, player(system))
            assert float(found.hours[0]) * 3600 == pytest.approx(run["seconds"], rel=2e-3)
            assert float(found.end_charge[0]) == pytest.approx(run["q_end"], abs=5e-4)
            assert found.names[int(found.which[0])] == run["ended_by"]
            if system["source"]["kind"] != "pack":
                break


def test_hours_against_level(case):
    system, wanted = case
    store = made.store_of(system)
    if store is None:
        return
    _, draw = music(system)
    drives = np.array(
        [[10 ** ((row["level_db"] - system["unit_level_db"]) / 20)] for row in wanted["curve"]]
    )
    found = played(store, draw, drives, made.BURST, player(system))
    seconds = [row["seconds"] for row in wanted["curve"]]
    assert 3600 * found.hours[:, 0] == pytest.approx(seconds, rel=2e-3)


def test_how_long_it_stands(case):
    system, wanted = case
    for state in ("silent", "asleep"):
        boards, loads = made.boards_of(system), made.loads_of(system)
        if state == "asleep":
            boards, loads = made.asleep(system)
        run, store = wanted["standby"][state], made.store_of(system)
        source = made.source_of(system, 0.5)
        bus = made.Bus(source, made.taken(boards, loads), music(system)[1])
        drawn = float(mean_bus_current(bus, np.zeros(1))[0])
        assert drawn == pytest.approx(run["source_A"], rel=1e-3)
        if "seconds" not in run:
            continue
        chemistry = system["source"].get("cell", {}).get("chemistry", "").replace("_", " ")
        lost = CHEMISTRIES[chemistry].self_discharge if chemistry else 0.0
        resting = player_of(boards, made.load_power(loads, boards.converters))
        found = stood(store, resting, lost)
        assert float(found.hours[0]) * 3600 == pytest.approx(run["seconds"], rel=2e-3)
        if "ended_by" in run:
            assert found.names[int(found.which[0])] == run["ended_by"]
            assert float(found.end_charge[0]) == pytest.approx(run["q_end"], abs=5e-4)


ITEMS = {
    "cells": "cells",
    "protection board": "protection_board",
    "supply": "supply",
    "leads": "leads",
    "modules": "modules",
    "regulators": "regulators",
    "converters": "converters",
    "amplifier idle": "amplifier_idle",
    "output resistance": "amplifier_output_resistance",
    "switching": "amplifier_switching",
    "drivers": "drivers",
}


def resistances(system, charge):
    """What lies in the way, in ohms."""
    source = system["source"]
    if source["kind"] != "pack":
        return {"supply": source["R"], "leads": made.lead_of(system)}
    pack = made.pack_of(system)
    board, cells = source["board"]["R"], pack.cell_resistance(charge)
    return {"cells": cells, "protection board": board, "leads": made.lead_of(system)}


def test_where_every_watt_goes(case):
    system, wanted = case
    wanted = wanted["flow_at_promise"]["watts_at_half"]
    brief = system["brief"]
    drive = 10 ** ((brief["L_target"] - 9 - system["unit_level_db"]) / 20)
    source = made.source_of(system, 0.5)
    _, draw = music(system, source)
    bus = made.Bus(source, made.taken(made.boards_of(system), made.loads_of(system)), draw)
    amperes = mean_bus_current(bus, np.full(1, drive))
    volts = source.voltage - source.resistance * amperes
    assert float(volts[0]) == pytest.approx(wanted["bus_V"], rel=1e-3)
    given = Given(source.voltage, volts, amperes, resistances(system, 0.5))
    play = Played(
        made.boards_of(system), made.counts_of(system), draw, drive, made.loads_of(system)
    )
    found = flow(given, play)
    for name, watts in found.items():
        if name != "source":
            off = abs(float(watts.ravel()[0]) - wanted[ITEMS[name]])
            assert off < 1e-3 * wanted["source"], name
    total = sum(float(w.ravel()[0]) for name, w in found.items() if name != "source")
    assert total == pytest.approx(float(found["source"].ravel()[0]), rel=1e-9)
    level = system["unit_level_db"] + float(decibel(drive))
    sound = sound_power(level, brief["distance"], np.pi * brief["omega_over_pi"])
    assert sound == pytest.approx(wanted["sound"], rel=2e-3)
