"""Limiter thresholds of five boards against independent results."""

from math import pi, sqrt

import numpy as np
import pytest

from firecrest.core.circuit.solve import solve
from firecrest.core.limits.programme import PROGRAMMES
from firecrest.core.power.amplifier import clipping_power_ratio
from firecrest.core.voice.chain import chain_responses
from firecrest.core.voice.protection import GRID, Board, allowed, peak_threshold, rms_threshold
from tests.reference.made_drivers import boxed
from tests.reference.voice import block_of, data

BOARDS = data("limiter.json")["boards"]
CHANNELS = [(b, c) for b in BOARDS for c in b["channels"]]
MUSIC = PROGRAMMES["music"]


@pytest.fixture(params=CHANNELS, ids=lambda pair: f"{pair[0]['id']} {pair[1]['name']}")
def case(request):
    board, channel = request.param
    return board, channel, board["answers"]["channels"][channel["name"]]


def board_of(board, channel):
    amplifier, chain = board["amplifier"], channel["chain"]
    if "gain_db" in amplifier:
        gain = 10 ** (amplifier["gain_db"] / 20)
    else:
        claim = amplifier["claim"]
        gain = sqrt(claim["power"] * claim["load"]) / amplifier["input_sensitivity_v_rms"]
    blocks = [block_of(block) for block in chain["blocks"]]
    rows = chain_responses(
        chain["gain_db"],
        chain["inverted"],
        blocks,
        GRID,
        float(board["rate"]),
        chain["delay_ms"] / 1e3,
    )
    return Board(sqrt(2) * board["dsp"]["full_scale_v_rms"] * gain, rows[-1])


def volts_of(board, channel):
    """Peak volts that each part bears at the grid."""
    driver, amplifier = channel["driver"], board["amplifier"]
    box = driver["box_of_each"]
    if box is not None and "port_area_m2" in driver:
        box = {**box, "port_area": driver["port_area_m2"]}
    found = solve(boxed(driver["ts"], box), GRID)
    impedance = 1 / found.current[0][0]
    claim = amplifier["claim"]
    swing = sqrt(2 * claim["load"] * claim["power"] / clipping_power_ratio(claim["thd"]))
    volts = {"swing": swing}
    if amplifier.get("current_limit_peak_a") is not None:
        volts["current"] = (
            amplifier["current_limit_peak_a"] * np.abs(impedance) / driver["count_parallel"]
        )
    volts["cone"] = driver["x_max_m"] * 2 * pi * GRID / np.abs(found.velocity[0][0])
    if "port_speed_limit" in driver:
        flow = np.abs(found.opening_flow[0][0])
        volts["port"] = driver["port_speed_limit"] * driver["port_area_m2"] / flow
    return volts, impedance


def test_full_scale(case):
    board, channel, _ = case
    assert board_of(board, channel).full_scale == pytest.approx(
        board["answers"]["full_scale_v_peak"], rel=5e-4
    )


@pytest.mark.parametrize("material", ["music", "any_sine"])
def test_what_each_part_allows_and_the_peak_threshold(case, material):
    board, channel, answers = case
    wanted, made = answers[material], board_of(board, channel)
    volts, _ = volts_of(board, channel)
    corner = MUSIC.low_corner if material == "music" else 0.0
    found = allowed(volts, made.reach(corner))
    assert {k: v.volts for k, v in found.items()} == pytest.approx(
        {k: v["volts"] for k, v in wanted["allowed_v_peak"].items()}, rel=5e-4
    )
    for key, row in wanted["allowed_v_peak"].items():
        if row["at_hz"] is None:
            assert found[key].frequency is None
        else:
            assert found[key].frequency == pytest.approx(row["at_hz"], rel=5e-3)
    limiter, row = peak_threshold(made, found), wanted["peak_limiter"]
    if row is None:
        assert limiter is None
        return
    assert limiter.first == row["first"]
    assert limiter.volts == pytest.approx(row["volts_peak"], rel=5e-4)
    assert limiter.dbfs == pytest.approx(row["dbfs"], abs=0.005)
    assert limiter.dbfs_set == pytest.approx(row["dbfs_set"], abs=1e-9)
    assert limiter.volts_set == pytest.approx(row["volts_peak_set"], rel=5e-4)


def test_the_long_term_threshold(case):
    board, channel, answers = case
    driver, wanted = channel["driver"], answers["rms_limiter"]
    _, impedance = volts_of(board, channel)
    found = rms_threshold(
        board_of(board, channel),
        impedance,
        driver["ts"]["Re"],
        driver["coil_watts"],
        "music",
        MUSIC.duty,
    )
    assert found.threshold.volts == pytest.approx(wanted["volts_rms"], rel=5e-4)
    assert found.threshold.dbfs == pytest.approx(wanted["dbfs"], abs=0.005)
    assert found.loudest == pytest.approx(wanted["loudest_programme_v_rms"], rel=5e-4)
    assert found.needed == wanted["needed"]
