"""Made-up power systems as the core's own objects: resonant circuits for loads, no box."""

import json
from dataclasses import replace

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.core.limits.bus import Bus
from firecrest.core.limits.draw import Output, draw_of
from firecrest.core.limits.elements import Asked, Ratings
from firecrest.core.limits.kinds import Ask
from firecrest.core.limits.material import material_of
from firecrest.core.limits.programme import PROGRAMMES
from firecrest.core.power.amplifier import Claim, read_claims
from firecrest.core.power.board_heat import Place
from firecrest.core.power.boards import Board, Boards, Feed, Load, load_power, standing
from firecrest.core.power.cold import USUAL, worn
from firecrest.core.power.source import CellTable, Converter, Pack, Source, pack_source
from firecrest.core.power.wire import resistance
from tests.reference.designs import DATA

FOLDER = DATA / "power"
SYSTEMS = {s["id"]: s for s in json.loads((FOLDER / "systems.json").read_text())["systems"]}
MUSIC = PROGRAMMES["music"]
BURST = MUSIC.burst
NAMES = {"swing": "swing", "amplifier current": "output current"}
WEARS = {
    "": (20.0, None),
    "cold_0C": (0.0, None),
    "cold_m10C": (-10.0, None),
    "aged_80": (20.0, 0.8),
    "aged_80_0C": (0.0, 0.8),
}
"""Temperature in C and share of the capacity left of each run, None: as stated."""


def wanted(name):
    """Independent results of a system."""
    return json.loads((FOLDER / f"{name}.json").read_text())


GRID = EDIT_GRID[(EDIT_GRID >= 20) & (EDIT_GRID <= 20000)]


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
    return Boards(boards, converters, feeds)


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


def loads_of(system):
    rails = {"bus": None, **{name: k for k, name in enumerate(system["converters"])}}
    return [Load(m["watts"], m["efficiency"], rails[m["rail"]]) for m in system["modules"]]


def counts_of(system):
    return [o["count"] for board in system["boards"] for o in board["outputs"]]


def least_impedances(system):
    f = 20 * 1000 ** (np.arange(241) / 240)
    loads = [o["load"] for board in system["boards"] for o in board["outputs"]]
    return [float(np.min(np.abs(impedance(load, f)))) for load in loads]


def asleep(system):
    """(boards, loads) while everything that can sleeps."""
    boards = boards_of(system)
    made = tuple(
        replace(b, model=replace(b.model, idle_current=stated["I_sleep"]))
        if stated["I_sleep"] is not None
        else b
        for b, stated in zip(boards.boards, system["boards"], strict=True)
    )
    loads = [
        replace(load, power=m["standby_watts"])
        for load, m in zip(loads_of(system), system["modules"], strict=True)
    ]
    return replace(boards, boards=made), loads


def taken(boards, loads):
    return standing(boards, load_power(loads, boards.converters))


def asked(system, source, f):
    """What held sines and music ask of a source."""
    boards = boards_of(system)
    outputs = outputs_of(system, f)
    ratings = Ratings((), (), (), (), (), (None,) * len(outputs), ())
    material = material_of(MUSIC, MUSIC.duty, f)
    draw = draw_of(outputs, boards, material)
    bus = Bus(source, taken(boards, loads_of(system)), draw)
    return Ask(Asked(np.ones(len(f) + 1)), ratings, boards, bus, material.above)


def lead_of(system):
    lead = system["source"]["lead"]
    return resistance(lead["length"], lead["area"]) + lead["R_contacts"]


def pack_of(system, celsius=20.0, health=None):
    """The pack; health counts on top of what the system states."""
    source = system["source"]
    cell, board = source["cell"], source["board"]
    table = CellTable(*(tuple(map(float, cell[key])) for key in ("q", "ocv", "R")))
    warmth = USUAL[cell["chemistry"].replace("_", " ")]
    soh = source["soh"] if health is None else health
    left = worn(table, cell["capacity_As"], warmth, 273.15 + celsius, soh)
    return Pack(
        left.table,
        left.capacity,
        cell["I_max"],
        cell["V_min"],
        source["S"],
        source["P"],
        board["R"],
        board["I_max"],
        board["V_min"],
        lead_of(system),
        source["spread"],
        board["I_own"],
    )


def store_of(system, celsius=20.0, health=None):
    """What runs empty; None at the wall."""
    source = system["source"]
    if source["kind"] == "pack":
        return pack_of(system, celsius, health)
    if not source.get("energy_J"):
        return None
    volts = source["V"]
    table = CellTable((0.0, 1.0), (volts, volts), (source["R"],) * 2)
    return Pack(
        table, source["energy_J"] / volts, None, None, 1, 1, lead_resistance=lead_of(system)
    )


def source_of(system, charge=None):
    """The bus at a charge, the brief's where none is given."""
    charge = system["brief"]["charge"] if charge is None else charge
    source = system["source"]
    if source["kind"] == "pack":
        return pack_source(pack_of(system), charge)
    limits = {"supply": source["I_burst"]}
    return Source(source["V"], source["R"] + lead_of(system), limits, source["I_cont"])


def place_of(system, board):
    heat = board["heat"]
    return Place(system["brief"]["T"] + heat["inside_rise"], heat["R_th"])


def limit_name(system, limit):
    board = system["boards"][min(limit.index, len(system["boards"]) - 1)]["name"]
    if limit.name in NAMES:
        return f"{NAMES[limit.name]} {board}"
    if limit.name.startswith("converter"):
        return f"{limit.name} {list(system['converters'])[limit.index]}"
    return limit.name
