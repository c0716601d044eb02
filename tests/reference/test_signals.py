"""Loud boxes against their simulation in the time domain: level, travel and air speed."""

import json

import numpy as np
import pytest

from firecrest.core.acoustics.driver import DriverConstants
from firecrest.core.acoustics.openings import Port
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.circuit.elements import Chamber, DriverGroup, Network
from firecrest.core.circuit.mouths import mouths_of, settled
from firecrest.core.circuit.solve import solve
from tests.reference.designs import DATA

CASES = {path.stem: path for path in sorted((DATA / "signals").glob("*.json"))}
WITHIN, BEYOND = 0.15, 0.5
"""DB up to the limit of the air speed, and above it."""


def network_of(box):
    d = box["driver"]
    constants = DriverConstants(
        d["re"], d["le"], 0.0, 0.0, d["sd"], d["bl"], d["mms"], d["cms"], d["rms"]
    )
    chambers = tuple(
        Chamber(c["volume"] / DATA_SHEET_AIR.stiffness, c["leak"]) for c in box["chambers"]
    )
    openings = tuple(
        Port(p["mass"], p["area"], p["chamber"], p["resistance"], p["count"], p["opens_to"])
        for p in box["ports"]
    )
    return Network(chambers, (DriverGroup(constants, d["rear"], d["front"]),), openings)


def played(box, frequency, volts):
    """(peak travel, peak air speeds, dB at 1 m on the ground) as the program has them."""
    network = network_of(box)
    mouths = mouths_of(network, [p["lost"] for p in box["ports"]], DATA_SHEET_AIR)
    solution = solve(network, frequency, mouths)
    intakes = [solution.opening_intake[m.opening] for m in mouths]
    flows = settled(
        np.stack([q[0] * volts for q in intakes]), np.stack([q[1:] for q in intakes]), mouths
    )
    drives = [volts, *(-m.resistance * np.abs(q) * q for m, q in zip(mouths, flows, strict=True))]

    def _whole(value):
        return sum(drive * part for drive, part in zip(drives, value, strict=True))

    outside = _whole(solution.radiated)
    if network.leaks_count:
        outside = outside + _whole(solution.leaked)
    pressure = np.abs(frequency * DATA_SHEET_AIR.density * outside)
    travel = np.sqrt(2) * np.abs(_whole(solution.velocity[0])) / (2 * np.pi * frequency)
    speed = [
        np.sqrt(2) * np.abs(q) / network.openings[m.opening].area
        for m, q in zip(mouths, flows, strict=True)
    ]
    return travel, speed, 20 * np.log10(pressure / 20e-6)


@pytest.mark.parametrize("name", CASES)
def test_level_travel_and_speed_up_to_the_port_and_beyond(name):
    case = json.loads(CASES[name].read_text())
    box, found = case["box"], case["found"]
    travel, speed, level = played(box, np.array(case["frequency"]), np.array(case["volts"]))
    tolerance = np.where(np.array(case["share"]) <= 1.0, WITHIN, BEYOND)
    for mine, simulated in zip((travel, *speed), (found["travel"], *found["speed"]), strict=True):
        assert np.all(np.abs(20 * np.log10(mine / np.array(simulated))) < tolerance)
    assert np.all(np.abs(level - np.array(found["level"])) < tolerance)
