"""Loss at the mouths of ports against resistances put into the network itself."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.core.acoustics.openings import Port
from firecrest.core.acoustics.openings.port import Pipe, turbulent_resistance
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.circuit.mouths import mouths_of
from firecrest.core.circuit.settling import MouthSite, Sites, loaded, settled
from firecrest.core.circuit.solve import solve
from tests.core.circuit.test_solve import BANDPASS, PAIR, PORT, SHARED, VENTED, F

LOST = 1.5
THREE = replace(SHARED, openings=(*SHARED.openings, replace(PORT, chamber=2, mass=90.0)))
LUMPS = {"one": VENTED, "inner": BANDPASS, "two": SHARED, "three": THREE, "in series": PAIR}


def yielding(network, drive):
    """(mouths, solution, flows, pressures) with ``drive`` volts on every channel."""
    coefficients = [LOST if isinstance(o, Port) else None for o in network.openings]
    mouths = mouths_of(network, coefficients, DATA_SHEET_AIR)
    solution = solve(network, F, mouths)
    ends = [
        (solution.opening_flow if m.far else solution.opening_intake)[m.opening] for m in mouths
    ]
    flow = drive * np.stack([end[: network.channels].sum(axis=0) for end in ends])
    answer = np.stack([end[network.channels :] for end in ends])
    sites = Sites(tuple(MouthSite(n, m.resistance) for n, m in enumerate(mouths)))
    found = settled(flow, answer, sites, 2 * np.pi * F)
    return mouths, solution, found.flows, found.drives


def played(solution, network, drive, pushes):
    """Pressure of every chamber."""
    parts = [drive * p[: network.channels].sum(axis=0) for p in solution.pressure]
    for k, push in enumerate(pushes, network.channels):
        parts = [part + p[k] * push for part, p in zip(parts, solution.pressure, strict=True)]
    return parts


@pytest.mark.parametrize("drive", [0.1, 5.0, 60.0])
@pytest.mark.parametrize("name", LUMPS)
def test_mouths_act_as_resistances_that_follow_their_flow(name, drive):
    network = LUMPS[name]
    mouths, solution, found, pushes = yielding(network, drive)
    openings = list(network.openings)
    for mouth, q in zip(mouths, found, strict=True):
        element = openings[mouth.opening]
        speed = np.sqrt(2) * np.abs(q) / element.area
        extra = turbulent_resistance(speed, element.area, LOST, DATA_SHEET_AIR)
        openings[mouth.opening] = replace(element, resistance=element.resistance + extra)
    lossy = solve(replace(network, openings=tuple(openings)), F)
    for mine, p in zip(played(solution, network, drive, pushes), lossy.pressure, strict=True):
        np.testing.assert_allclose(mine, drive * p.sum(axis=0), rtol=2e-5)


def test_a_stiff_inner_pipe_is_a_lump():
    """Both of its mouths lose half, and the same air goes through both."""
    inner = replace(BANDPASS, openings=(*BANDPASS.openings, replace(PORT, chamber=0, opens_to=1)))
    stiff = replace(inner.openings[1], pipe=Pipe(0.8, 1e-14, 0.0, 0.0))
    pipe = replace(inner, openings=(inner.openings[0], stiff))
    one, both = yielding(inner, 20.0), yielding(pipe, 20.0)
    assert [(m.opening, m.far) for m in both[0]] == [(0, False), (1, False), (1, True)]
    np.testing.assert_allclose(both[2][1], one[2][1], rtol=1e-4)
    np.testing.assert_allclose(both[2][2], one[2][1], rtol=1e-4)


def test_more_drive_gives_more_flow_and_less_of_it():
    flows = np.array([np.abs(yielding(VENTED, drive)[2][0]) for drive in (1.0, 2.0, 4.0, 8.0)])
    ratio = flows[1:] / flows[:-1]
    assert np.all(ratio <= 2 + 1e-9)
    assert np.all(ratio >= np.sqrt(2) - 1e-4)


@pytest.mark.parametrize("name", LUMPS)
def test_a_volt_in_a_coil_that_opposes_its_current_is_a_resistance(name):
    network, hotter = LUMPS[name], 2.3
    coils = tuple(range(len(network.drivers)))
    hot = tuple(
        replace(d, constants=replace(d.constants, r_e=d.constants.r_e + hotter))
        for d in network.drivers
    )
    wanted = solve(replace(network, drivers=hot), F)
    solution, channels = solve(network, F, (), coils), network.channels
    still = np.stack([i[:channels].sum(axis=0) for i in solution.current])
    answer = np.stack([i[channels:] for i in solution.current])
    current = loaded(still, answer, {(k, k): np.full(len(F), hotter) for k in coils})
    pushes = [-hotter * i for i in current]
    for mine, p in zip(played(solution, network, 1.0, pushes), wanted.pressure, strict=True):
        np.testing.assert_allclose(mine, p.sum(axis=0), rtol=1e-9)
    for mine, i in zip(current, wanted.current, strict=True):
        np.testing.assert_allclose(mine, i.sum(axis=0), rtol=1e-9)
