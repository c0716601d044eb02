"""Warm coils against networks whose coils are warm, and against half an hour of noise."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.assessment.acoustic import EDIT_GRID, transfers_from
from firecrest.assessment.assess import assess
from firecrest.assessment.conditions import programme_of
from firecrest.assessment.sound import voice_rows
from firecrest.assessment.sounding import most_lost
from firecrest.assessment.vary import vary
from firecrest.assessment.verdicts import promise_of
from firecrest.core.acoustics.radiation import level
from firecrest.core.acoustics.thermal import COPPER, PLAYED, rise_per_watt
from firecrest.core.circuit.solve import solve
from firecrest.core.limits.programme import weights
from firecrest.design.brief import LINEAR
from firecrest.design.edits.brief import with_edges
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.files.demos import read_demo

LOUD = ("brief", "listening", "crest")


def hard_driven(name="slipway"):
    """A demo with programme of the least crest, so that coils get hot."""
    return replace_at(read_demo(name), LOUD, 4.0)


def with_ohms(a, design, ohms):
    """Transfers of the same box with so many ohms in each coil."""
    network = a.model.network
    drivers = tuple(
        replace(d, constants=replace(d.constants, r_e=ohm))
        for d, ohm in zip(network.drivers, ohms, strict=True)
    )
    model = replace(a.model, network=replace(network, drivers=drivers))
    scene = replace(a.scene, model=model, solution=solve(model.network, EDIT_GRID))
    rate, channels = design.power.dsp.sample_rate, design.voice.channels
    rows = [voice_rows(c, rate, EDIT_GRID) for c in channels]
    return transfers_from(scene, rows, [c.outputs for c in channels])


def cold_ohms(a):
    return [d.constants.r_e for d in a.model.network.drivers]


@pytest.mark.parametrize("name", ["slipway", "breakwater", "boathouse-bandpass"])
def test_the_programme_level_is_that_of_a_box_with_coils_so_warm(name):
    design = hard_driven(name)
    a = assess(design).acoustic
    lasting = a.lasting
    rises = [float(np.ravel(r)[0]) for r in lasting.rises]
    assert max(rises) > 5
    ohms = [r * (1 + COPPER * k) for r, k in zip(cold_ohms(a), rises, strict=True)]
    hot = with_ohms(a, design, ohms)
    spectrum = weights(programme_of(design.brief.listening).kind, EDIT_GRID)
    whole = level(np.sqrt(np.abs(hot.pressure) ** 2 @ spectrum))
    assert float(np.ravel(lasting.hot_unit_level)[0]) == pytest.approx(float(whole), abs=0.005)
    drive = 10 ** ((a.programme.level - a.programme.unit_level) / 20)
    for k, current in enumerate(hot.coil_current):
        watts = drive**2 * float(np.abs(current) ** 2 @ spectrum) * ohms[k]
        driver = a.sound.inputs.box.groups[a.model.owners[k]].driver
        assert rises[k] == pytest.approx(rise_per_watt(driver.thermal) * watts, abs=0.5)


def test_power_compression_is_that_of_half_an_hour_of_noise():
    """The coil's temperature stepped on with what it takes at each moment; the drive stays."""
    design = hard_driven()
    a = assess(design).acoustic
    programme, thermal = a.programme, a.sound.inputs.box.groups[0].driver.thermal
    drive = 10 ** ((programme.level - programme.unit_level) / 20)
    spectrum = weights("music", EDIT_GRID)
    cold = cold_ohms(a)
    grid = np.linspace(0.0, 200.0, 41)
    tables = [with_ohms(a, design, [r * (1 + COPPER * t) for r in cold]) for t in grid]
    heats = [
        float(np.abs(t.coil_current[0]) ** 2 @ spectrum) * cold[0] * (1 + COPPER * k)
        for t, k in zip(tables, grid, strict=True)
    ]
    levels = [float(level(np.sqrt(np.abs(t.pressure) ** 2 @ spectrum))) for t in tables]
    coil = motor = 0.0
    step = 0.25
    for _ in range(int(PLAYED / step)):
        watts = drive**2 * np.interp(coil, grid, heats)
        through = (coil - motor) / thermal.coil
        coil += step * (watts - through) / thermal.coil_capacity
        motor += step * (through - motor / thermal.motor) / thermal.motor_capacity
    assert programme.unit_level == pytest.approx(float(np.interp(coil, grid, levels)), abs=0.1)
    assert programme.unit_level < levels[0] - 0.05


def test_the_coils_own_limit_is_told_at_its_rated_temperature():
    """A weak coil: at its ceiling it takes its rated power with the ohms it then has."""
    design = set_number(hard_driven(), ("box", "groups", 0, "driver", "pe"), 2.0)
    a = assess(design).acoustic
    k = next(n for n, limit in enumerate(a.limits) if limit.name == "coil" and limit.index == 0)
    hot = a.transfers.heated
    share, ohms = np.abs(hot.shares[0]), float(np.ravel(hot.ohms[0])[0])
    current = a.limits[k].factor * np.abs(a.transfers.coil_current[0]) * share
    mean = 10 ** (-programme_of(design.brief.listening).duty / 20)
    np.testing.assert_allclose((current * mean) ** 2 * ohms, 2.0, rtol=1e-9)
    first = a.top.first == k
    assert first.any()
    boxes = with_ohms(a, design, [ohms, *cold_ohms(a)[1:]])
    real = level(boxes.pressure) + 20 * np.log10(a.limits[k].factor)
    np.testing.assert_allclose(a.top.level[first], real[first], atol=1e-6)


def test_cold_and_hot_levels_are_both_told_and_hot_is_never_louder():
    for name in ("slipway", "lantern", "breakwater"):
        lasting = assess(hard_driven(name)).acoustic.lasting
        assert np.all(lasting.level <= lasting.cold_level + 1e-9)
    linear = assess(with_edges(read_demo("slipway"), LINEAR)[1]).acoustic.lasting
    np.testing.assert_array_equal(linear.level, linear.cold_level)
    assert linear.rises == ()


def test_a_driver_of_which_nothing_is_known_stays_cold():
    path = ("box", "groups", 0, "driver", "pe")
    a = assess(replace_at(read_demo("slipway"), path, None)).acoustic
    assert float(np.ravel(a.lasting.rises[0])[0]) == pytest.approx(0.0)


@pytest.mark.parametrize("name", ["slipway", "breakwater", "lantern", "boathouse-bandpass"])
def test_no_coil_takes_more_than_the_bound_that_saves_reckoning_with_it(name):
    a = assess(hard_driven(name)).acoustic
    lost = a.lasting.cold_level - a.lasting.level
    assert 0 < lost[0] < np.ravel(most_lost(a.sound))[0]


def test_many_designs_are_warm_as_each_by_itself():
    """What can just be held is told by warm coils, also of many designs at once."""
    design = hard_driven()
    most = assess(design).acoustic.programme.level
    levels = most + np.array([-6.0, -0.02, 0.02, 0.5, 1.5])
    path = ("brief", "runtime", "level")
    found = vary(design, {path: levels}).verdict("runtime")
    promises = [promise_of(found, row) for row in range(len(levels))]
    alone = [assess(replace_at(design, path, float(x))).promise("runtime") for x in levels]
    assert [(p.state, p.reason) for p in promises] == [(p.state, p.reason) for p in alone]
    assert [p.reason is None for p in promises] == [True, True, False, False, False]
