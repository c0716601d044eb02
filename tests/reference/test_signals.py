"""Loud boxes against their simulation in the time domain: level, travel and air speed."""

import json

import numpy as np
import pytest

from firecrest.core.acoustics.driver import DriverConstants
from firecrest.core.acoustics.large_signal import Bends
from firecrest.core.acoustics.openings import Port, Radiator
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.circuit.elements import Chamber, DriverGroup, Network
from firecrest.core.circuit.mouths import Mouth, mouths_of
from firecrest.core.circuit.settling import ConeSite, MouthSite, RadiatorSite, Sites, settled
from firecrest.core.circuit.solve import solve
from tests.reference.designs import DATA

CASES = {path.stem: path for path in sorted((DATA / "signals").glob("*.json"))}
WITHIN, BEYOND = 0.15, 0.5
"""DB up to the limits of air speed and travel, and above them."""


def network_of(box):
    d = box["driver"]
    constants = DriverConstants(
        d["re"], d["le"], 0.0, 0.0, d["sd"], d["bl"], d["mms"], d["cms"], d["rms"]
    )
    chambers = tuple(
        Chamber(c["volume"] / DATA_SHEET_AIR.stiffness, c["leak"]) for c in box["chambers"]
    )
    ports = tuple(
        Port(p["mass"], p["area"], p["chamber"], p["resistance"], p["count"], p["opens_to"])
        for p in box["ports"]
    )
    radiators = tuple(
        Radiator(r["mmp"], r["cmp"], r["rmp"], r["sd"], r["chamber"], r["count"])
        for r in box.get("radiators", [])
    )
    group = DriverGroup(constants, d["rear"], d["front"])
    return Network(chambers, (group,), (*ports, *radiators))


def sites_of(box, mouths):
    """(what is driven, sites): mouths of ports, radiators, the cone and its coil, if they bend."""
    d, ports = box["driver"], len(mouths)
    bent = [r for r in box.get("radiators", []) if "xmax" in r]
    driven = (*mouths, *(Mouth(ports + n, False) for n in range(len(bent))))
    cones = ()
    if "xmax" in d:
        at, bends = len(driven), Bends(d["xmax"])
        cones = (ConeSite(at, at + 1, d["bl"], d["cms"], d["le"], bends),)
    radiators = tuple(
        RadiatorSite(ports + n, r["sd"], r["cmp"], Bends(r["xmax"])) for n, r in enumerate(bent)
    )
    losses = tuple(MouthSite(n, m.resistance) for n, m in enumerate(mouths))
    return driven, Sites(losses, cones, radiators)


def played(box, frequency, volts):
    """(peak travel, peak air speeds, peak travels of radiators, dB at 1 m on the ground)."""
    network, omega = network_of(box), 2 * np.pi * frequency
    radiators = len(network.openings) - len(box["ports"])
    lost = [*(p["lost"] for p in box["ports"]), *[None] * radiators]
    driven, sites = sites_of(box, mouths_of(network, lost, DATA_SHEET_AIR))
    coils = (0,) if sites.cones else ()
    solution = solve(network, frequency, driven, coils, coils)
    through = [solution.opening_intake[m.opening] for m in driven]
    order = list(range(1, 1 + len(driven)))
    if coils:
        through += [solution.velocity[0], solution.current[0]]
        order += [len(driven) + 2, len(driven) + 1]
    pushes = []
    if through:
        still = np.stack([q[0] * volts for q in through])
        answer = np.stack([np.stack([q[k] for k in order]) for q in through])
        pushes = settled(still, answer, sites, omega).drives

    def _whole(value):
        return value[0] * volts + sum(p * value[k] for p, k in zip(pushes, order, strict=True))

    outside = _whole(solution.radiated)
    if network.leaks_count:
        outside = outside + _whole(solution.leaked)
    pressure = np.abs(frequency * DATA_SHEET_AIR.density * outside)
    moved = [np.sqrt(2) * np.abs(_whole(q)) for q in solution.opening_flow]
    areas = [opening.area for opening in network.openings]
    count = len(box["ports"])
    speed = [q / s for q, s in zip(moved[:count], areas, strict=False)]
    away = [q / s / omega for q, s in zip(moved[count:], areas[count:], strict=True)]
    travel = np.sqrt(2) * np.abs(_whole(solution.velocity[0])) / omega
    return travel, speed, away, 20 * np.log10(pressure / 20e-6)


@pytest.mark.parametrize("name", CASES)
def test_level_travel_and_speed_up_to_the_limits_and_beyond(name):
    case = json.loads(CASES[name].read_text())
    box, found = case["box"], case["found"]
    travel, speed, away, level = played(box, np.array(case["frequency"]), np.array(case["volts"]))
    tolerance = np.where(np.array(case["share"]) <= 1.0, WITHIN, BEYOND)
    simulated_ones = (found["travel"], *found["speed"], *found.get("radiators", []))
    for mine, simulated in zip((travel, *speed, *away), simulated_ones, strict=True):
        assert np.all(np.abs(20 * np.log10(mine / np.array(simulated))) < tolerance)
    assert np.all(np.abs(level - np.array(found["level"])) < tolerance)
