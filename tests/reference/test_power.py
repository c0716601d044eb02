"""Boards, converters and sources against independent results: every limit, flat out, runtime.

Loads are resonant circuits and voices analogue prototypes, so the core is asked without a box.
"""

import json

import numpy as np
import pytest

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.core.arrays import decibel
from firecrest.core.limits.bus import Bus
from firecrest.core.limits.draw import Output, draw_of
from firecrest.core.limits.elements import Asked, Ratings
from firecrest.core.limits.kinds import Ask, reached
from firecrest.core.limits.material import PROGRAMME, SINES, material_of
from firecrest.core.limits.programme import PROGRAMMES
from firecrest.core.power.amplifier import Claim, read_claims
from firecrest.core.power.boards import Board, Boards, Feed, Load, load_power, standing
from firecrest.core.power.cold import USUAL, worn
from firecrest.core.power.runtime import played, player_of
from firecrest.core.power.source import CellTable, Converter, Pack, Source, pack_source
from tests.reference.designs import DATA

FOLDER = DATA / "power"
SYSTEMS = {s["id"]: s for s in json.loads((FOLDER / "systems.json").read_text())["systems"]}
MUSIC = PROGRAMMES["music"]
BURST = MUSIC.burst
NAMES = {"swing": "swing", "amplifier current": "output current"}
EQUAL_PACKS = [k for k, s in sorted(SYSTEMS.items()) if s["source"].get("spread") == 0]
"""Packs of equal groups of cells: unlike ones have no model yet."""
WEARS = {
    "": (20.0, 1.0),
    "cold_0C": (0.0, 1.0),
    "cold_m10C": (-10.0, 1.0),
    "aged_80": (20.0, 0.8),
    "aged_80_0C": (0.0, 0.8),
}
"""Temperature in C and share of the capacity left of each run."""


@pytest.fixture(params=sorted(SYSTEMS))
def case(request):
    wanted = json.loads((FOLDER / f"{request.param}.json").read_text())
    return SYSTEMS[request.param], wanted


def claims_of(board):
    stated = board["efficiency"]
    return read_claims(
        [Claim(c["P"], c["R"], c["supply"], c["thd"]) for c in board["claims"]],
        channels=board["channels"],
        bridged=board["bridge"],
        idle_current=board["I_idle"],
        current_limit=board["I_limit"],
        efficiency=(stated["eta"], stated["claim"]) if stated else None,
        cut_off=board["V_cutoff"],
    )


def boards_of(system):
    names = list(system["converters"])
    rails = {"bus": None, **{name: k for k, name in enumerate(names)}}
    models = [claims_of(board).model for board in system["boards"]]
    boards = tuple(
        Board(model, rails[board["rail"]])
        for model, board in zip(models, system["boards"], strict=True)
    )
    converters = tuple(
        Converter(
            c["V_out"], c["efficiency"], c["I_in_max"], c["V_cutoff"], c["I_out_max"], c["P_noload"]
        )
        for c in system["converters"].values()
    )
    feeds = tuple(
        Feed(models[k], k) for k, board in enumerate(system["boards"]) for _ in board["outputs"]
    )
    loads = [Load(m["watts"], m["efficiency"], rails[m["rail"]]) for m in system["modules"]]
    return Boards(boards, converters, feeds), load_power(loads, converters)


def impedance(load, f):
    z = load["Re"] + 2j * np.pi * f * load["Le"]
    if load["Res"]:
        x = f / load["f0"]
        z = z + load["Res"] / (1 + 1j * load["Q"] * (x - 1 / x))
    return z


def response(blocks, f):
    """Analogue prototypes."""
    total = np.ones(len(f), dtype=complex)
    for block in blocks:
        if block["type"] == "gain":
            total *= 10 ** (block["gain_db"] / 20)
            continue
        s = 1j * f / block["f"]
        low = 1 / (s**2 + np.sqrt(2) * s + 1)
        if block["type"] == "low_shelf":
            total *= shelf(s, block)
        else:
            filters = {"highpass_butterworth": s**2 * low, "lowpass_linkwitz_riley": low**2}
            total *= {**filters, "highpass_linkwitz_riley": (s**2 * low) ** 2}[block["type"]]
    return total


def shelf(s, block):
    a, q = 10 ** (block["gain_db"] / 40), block["Q"]
    root = np.sqrt(a)
    return a * (s**2 + s * root / q + a) / (a * s**2 + s * root / q + 1)


def outputs_of(system, f):
    made = []
    for board in system["boards"]:
        for output in board["outputs"]:
            voice = response(output["voice"], f)
            made.append(Output(voice, voice / impedance(output["load"], f), output["count"]))
    return tuple(made)


def asked(system, wanted, f):
    """(what held sines and music ask, boards, bus) at the brief's charge."""
    boards, loads = boards_of(system)
    outputs = outputs_of(system, f)
    ratings = Ratings((), (), (), (), (), (None,) * len(outputs), ())
    material = material_of(MUSIC, MUSIC.duty, f)
    draw = draw_of(outputs, boards, material)
    bus = Bus(source_of(system, wanted), standing(boards, loads), draw)
    return Ask(Asked(np.ones(len(f) + 1)), ratings, boards, bus, material.above), boards, bus


def source_of(system, wanted):
    source = system["source"]
    if source["kind"] == "wall":
        resistance = source["R"] + wanted["source"]["R_lead"]
        limits = {"supply": source["I_burst"]}
        return Source(source["V"], resistance, limits, source["I_cont"])
    at = next(q for q in wanted["source"]["by_charge"] if q["q"] == system["brief"]["charge"])
    limits = {
        "cells": source["cell"]["I_max"] * source["P"],
        "protection board": source["board"]["I_max"],
    }
    return Source(at["Voc"], at["R"], limits)


def limit_name(system, limit):
    board = system["boards"][min(limit.index, len(system["boards"]) - 1)]["name"]
    if limit.name in NAMES:
        return f"{NAMES[limit.name]} {board}"
    if limit.name.startswith("converter"):
        return f"{limit.name} {list(system['converters'])[limit.index]}"
    return limit.name


def test_what_the_claims_come_to(case):
    system, wanted = case
    for board, found in zip(system["boards"], wanted["amplifiers"], strict=True):
        model = claims_of(board).model
        assert model.r_out == pytest.approx(found["r_out"], rel=1e-5)
        assert model.offset == pytest.approx(found["V0"] * found["side"], rel=1e-5, abs=1e-9)
        assert model.swing_factor == pytest.approx(found["side"], rel=1e-5)
        assert model.current_limit == pytest.approx(found["I_limit"], rel=1e-5)
        assert model.loss == pytest.approx(found["k"], rel=1e-5)


def test_every_limit_of_a_held_sine(case):
    system, wanted = case
    f = np.array([row["f"] for row in wanted["sine_limits"]])
    ask, _, _ = asked(system, wanted, f)
    mine = {limit_name(system, limit): limit.of(SINES) for limit in reached(ask)}
    assert set(mine) == set(wanted["sine_limits"][0]["g"])
    for k, row in enumerate(wanted["sine_limits"]):
        for name, g in row["g"].items():
            value = float(np.broadcast_to(mine[name].factor, len(f))[k])
            assert value == pytest.approx(np.inf if g is None else g, rel=1e-3), (name, row["f"])


def test_flat_out_with_programme(case):
    system, wanted = case
    f = EDIT_GRID[(EDIT_GRID >= 20) & (EDIT_GRID <= 20000)]
    ask, _, _ = asked(system, wanted, f)
    found = [limit.of(PROGRAMME) for limit in reached(ask)]
    for limit in found:
        level = system["unit_level_db"] + float(np.ravel(decibel(limit.factor))[0])
        assert level == pytest.approx(
            wanted["flat_out"]["level_per_limit"][limit_name(system, limit)], abs=0.02
        )
    first = min(found, key=lambda limit: float(np.ravel(limit.factor)[0]))
    assert limit_name(system, first) == wanted["flat_out"]["limit"]


@pytest.mark.parametrize("case", EQUAL_PACKS, indirect=True)
def test_how_long_it_plays(case):
    system, wanted = case
    source = system["source"]
    f = EDIT_GRID[(EDIT_GRID >= 20) & (EDIT_GRID <= 20000)]
    _, boards, bus = asked(system, wanted, f)
    cell, board = source["cell"], source["board"]
    table = CellTable(*(tuple(map(float, cell[key])) for key in ("q", "ocv", "R")))
    warmth = USUAL[cell["chemistry"].replace("_", " ")]
    draw = bus.draw.of(PROGRAMME)
    player = player_of(boards, boards_of(system)[1])
    for use in wanted["uses"].values():
        for name, (celsius, health) in WEARS.items():
            left = worn(table, cell["capacity_As"], warmth, 273.15 + celsius, health)
            pack = Pack(
                left.table,
                left.capacity,
                cell["I_max"],
                cell["V_min"],
                source["S"],
                source["P"],
                board["R"],
                board["I_max"],
                board["V_min"],
                wanted["source"]["R_lead"],
            )
            run = use[name] if name else use
            if not use["reachable"]:
                continue
            found = played(pack, draw, use["drive_V"], BURST, player)
            assert float(found.hours[0]) * 3600 == pytest.approx(run["seconds"], rel=2e-3)
            assert float(found.end_charge[0]) == pytest.approx(run["q_end"], abs=5e-4)
            assert found.names[int(found.which[0])] == run["ended_by"]
    assert pack_source(pack, 0.2).voltage == pytest.approx(bus.source.voltage, rel=1e-6)
