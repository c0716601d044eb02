"""Minimum phase, joining, directivity, lowest corners, weighted levels: independent results."""

from math import sqrt

import numpy as np
import pytest

from firecrest.core.acoustics.radiation import baffle_corner, baffle_step, far_pressure
from firecrest.core.air import DATA_SHEET_AIR as AIR
from firecrest.core.circuit.solve import solve
from firecrest.core.limits.programme import SINE_CREST
from firecrest.core.voice.chain import Filter, chain_responses
from firecrest.core.voice.crossing import GRID, Borne, lowest_by_heat, lowest_by_travel, volts_for
from firecrest.core.voice.directivity import begins_to_beam, piston, piston_falls, radius_of
from firecrest.core.voice.joining import join_of, joined
from firecrest.core.voice.listening import k_weight, loudness
from firecrest.core.voice.phase import Tails, minimum_phase, tails_of
from firecrest.core.voice.response import REFERENCE, principal
from tests.reference.made_drivers import boxed, constants_of
from tests.reference.voice import block_of, curve, data

BASICS = data("basics/basics.json")


@pytest.mark.parametrize("case", BASICS["minimum_phase"], ids=lambda case: case["file"])
def test_minimum_phase(case):
    found, at = curve(f"basics/{case['file']}"), np.array(case["at_hz"])
    tails = tails_of(found)
    assert [tails.low, tails.high] == pytest.approx(case["tails_db_per_octave"], abs=1e-5)
    phase = np.degrees(minimum_phase(found, at))
    np.testing.assert_allclose(phase, case["phase_deg"], rtol=0, atol=0.01)
    stated = np.degrees(minimum_phase(found, at, Tails(12.0, -24.0)))
    expected = case["phase_deg_with_stated_tails_12_minus24"]
    np.testing.assert_allclose(stated, expected, rtol=0, atol=0.01)


@pytest.mark.parametrize("case", BASICS["join"], ids=lambda case: case["file"])
def test_a_curve_joined_to_its_model(case):
    network, around = boxed(case["driver"], case["box"]), case["solid_angle_sr"]

    def _model(f):
        found = solve(network, f)
        flow = found.radiated[0] + found.leaked[0]
        pressure = far_pressure(flow, f, case["distance_m"], around, AIR) * case["voltage_rms"]
        return pressure * baffle_step(baffle_corner(case["front_width_m"]), f, around)

    measured, at = curve(f"basics/{case['file']}"), np.array(case["at_hz"])
    join = join_of(_model(np.array([case["join_hz"]])), measured, case["join_hz"], case["hold"])
    assert join.step == pytest.approx(case["level_step_db"], abs=1e-3)
    assert np.degrees(join.turn) == pytest.approx(case["phase_step_deg"], abs=0.02)
    assert bool(join.turned[0]) == case["model_turned"]
    found = joined(join, _model(at), measured, at, 12.0)
    level = 20 * np.log10(np.abs(found) / REFERENCE)
    np.testing.assert_allclose(level, case["level_db"], rtol=0, atol=1e-3)
    apart = principal(np.angle(found) - np.radians(case["phase_deg"]))
    assert np.degrees(np.max(np.abs(apart))) < 0.02


@pytest.mark.parametrize("row", BASICS["directivity"]["radiators"], ids=lambda row: row["Sd"])
def test_beaming_of_a_piston(row):
    area = row["Sd"]
    assert radius_of(area) == pytest.approx(row["radius_m"], rel=1e-6)
    assert begins_to_beam(area, AIR.speed) == pytest.approx(row["ka_2_hz"], rel=1e-6)
    for drop, angle, key in (
        (6, 45, "minus_6_db_at_45_deg_hz"),
        (3, 30, "minus_3_db_at_30_deg_hz"),
    ):
        assert piston_falls(area, angle, drop, AIR.speed) == pytest.approx(row[key], rel=1e-6)


def test_a_piston_off_its_axis():
    table = BASICS["directivity"]
    at = np.array([ka * np.sin(np.radians(angle)) for ka, angle in table["ka_and_angle_deg"]])
    np.testing.assert_allclose(20 * np.log10(np.abs(piston(at))), table["level_db"], atol=1e-6)


@pytest.mark.parametrize("case", BASICS["lowest_corner"], ids=lambda case: case["tweeter"]["Fs"])
def test_the_lowest_safe_corner(case):
    made = case["tweeter"]
    driver, found = constants_of(made), solve(boxed(made, None), GRID)
    volts = volts_for(
        REFERENCE * 10 ** (case["level_db"] / 20),
        case["solid_angle_sr"],
        case["distance_m"],
        (driver.r_e, driver.m_ms, driver.bl, driver.s_d),
        AIR.density,
    )
    assert volts == pytest.approx(case["volts_rms"], rel=1e-4)
    borne = Borne(
        found.velocity[0][0],
        found.current[0][0],
        driver.r_e,
        case["x_max_m"],
        case["coil_watts"],
        volts,
    )
    corner = Filter("high_pass", 1000.0, family=case["family"], order=case["order"])
    by_travel = lowest_by_travel(borne, corner)
    by_heat = lowest_by_heat(borne, corner, "music", case["crest_db"] - SINE_CREST)
    for answer, key in ((by_travel, "lowest_by_travel_hz"), (by_heat, "lowest_by_heat_hz")):
        assert answer == pytest.approx(case[key] or 0.0, rel=1e-3)


def test_the_k_weighting():
    f, weight = np.array(BASICS["level_match"]["k_weighting_db_at"]).T
    np.testing.assert_allclose(10 * np.log10(k_weight(f)), weight, atol=1e-5)


@pytest.mark.parametrize("case", BASICS["level_match"]["cases"], ids=lambda c: c["response"])
@pytest.mark.parametrize("kind", ["music", "pink"])
def test_two_settings_as_the_ear_weighs_them(case, kind):
    base = curve(case["response"])
    f = base.frequency
    played = [
        np.abs(
            base.at(f)
            * chain_responses(0.0, False, list(map(block_of, blocks)), f, case["rate"])[-1]
        )
        for blocks in (case["settings"]["A"], case["settings"]["B"])
    ]
    for key, weighted in (("k", True), ("rms", False)):
        a, b = (loudness(f, p, kind, weighted=weighted) for p in played)
        assert a - b == pytest.approx(case[f"{kind}_{key}_a_minus_b_db"], abs=0.005)


def test_the_reference_of_the_lowest_corner_is_a_sine():
    assert pytest.approx(20 * np.log10(sqrt(2)), abs=1e-9) == SINE_CREST
