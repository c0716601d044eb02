"""Whole systems against independent results: limits, ceiling, promises, runtime."""

import numpy as np
import pytest

from firecrest.assessment.assess import EDIT_GRID, assess
from firecrest.present.report import report
from tests.reference.designs import SYSTEMS, expected_system, system_design

GRID = 10 * 10 ** (np.arange(241) / 120)


@pytest.fixture(scope="module", params=sorted(SYSTEMS))
def system(request):
    assessment = assess(system_design(request.param))
    want = expected_system(request.param)
    return want["scalars"], want["curves"], report(assessment, 1.0, GRID)


def on_reference_grid(values):
    """An assessment's curve on the 241 reference frequencies, with which its grid begins."""
    np.testing.assert_allclose(EDIT_GRID[:241], GRID)
    return values[:241]


def test_amplifier(system):
    want, _, got = system
    amplifier, wanted = got["amplifiers"][0]["outputs"][0], want["amplifier"]
    assert amplifier["r_out"] == pytest.approx(wanted["r_out"], rel=1e-5)
    assert amplifier["offset"] == pytest.approx(wanted["V0"], rel=1e-5)
    assert amplifier["loss"] == pytest.approx(wanted["k"], rel=1e-5)
    assert amplifier["current_limit"] == pytest.approx(wanted["I_limit"], rel=1e-5)
    assert amplifier["current_limit_estimated"] == wanted["I_limit_is_estimate"]
    for claim, other in zip(amplifier["claims"], wanted["claims"], strict=True):
        assert claim["power"] == pytest.approx(other["P_clean"], rel=1e-5)
        assert claim["peak_current"] == pytest.approx(other["I_pk"], rel=1e-5)


def test_box(system):
    want, _, got = system
    assert got["reference_frequency"]["rear"] == pytest.approx(want["box"]["f_ref"], rel=1e-5)
    assert got["full_scale_peak"][0] == pytest.approx(want["full_scale_Vpk"], rel=1e-5)


def test_ceiling_and_first_to_give(system):
    _, want, got = system
    mine = on_reference_grid(got["curves"]["ceiling"])
    np.testing.assert_allclose(mine, want["ceiling_db"], atol=0.02)
    letters = on_reference_grid(got["curves"]["first_to_give"])
    for i, (a, b) in enumerate(zip(letters, want["first_to_give"], strict=True)):
        assert a == b or a in want["first_to_give"][max(i - 1, 0) : i + 2]
    if want["ceiling_full_charge_db"]:
        full = on_reference_grid(got["curves"]["ceiling_full_charge"])
        np.testing.assert_allclose(full, want["ceiling_full_charge_db"], atol=0.02)


def test_every_limit_factor(system):
    _, want, got = system
    rows = {row["limit"]: row["factor"] for row in got["curves"]["limit_factors"]}
    assert set(rows) == set(want["g_limit"])
    for name, factors in want["g_limit"].items():
        mine = on_reference_grid(rows[name])
        np.testing.assert_allclose(mine, factors, rtol=0.02 / 8.686)


def test_loudness(system):
    want, _, got = system
    assert got["loudness"]["level"] == pytest.approx(want["loudness"]["loudness"], abs=0.02)
    assert got["loudness"]["code"] == want["loudness"]["code"]
    assert got["loudness"]["limit"] == want["loudness"]["who"]
    assert got["f_hi"] == pytest.approx(want["loudness"]["f_hi"], rel=1e-4)
    if want["loudness_full_charge"]:
        full = got["loudness_full_charge"]["level"]
        assert full == pytest.approx(want["loudness_full_charge"], abs=0.02)


def test_low_note(system):
    want, _, got = system
    held = want["low_note_held"]
    assert got["low_note"]["passed"] == held["ok"]
    assert got["low_note"]["margin"] == pytest.approx(held["worst_margin_db"], abs=0.02)
    for name, part in held["elements"].items():
        assert got["low_note"]["by_part"][name]["margin"] == pytest.approx(
            part["margin_db"], abs=0.02
        )


def test_programme_level(system):
    want, _, got = system
    level = got["programme_level"]
    assert level["level"] == pytest.approx(want["programme_level"]["level"], abs=0.02)
    assert level["limit"] == want["programme_level"]["who"]
    for name, value in want["programme_level"]["level_per_limit"].items():
        assert level["by_limit"][name] == pytest.approx(value, abs=0.02)


def test_bass_reach(system):
    want, _, got = system
    bass = got["bass"]
    reference = want["bass"]["ref_db_per_unit_input"]
    assert bass["reference_per_unit_input"] == pytest.approx(reference, abs=0.02)
    assert bass["band"] == pytest.approx(want["bass"]["band"], rel=1e-6)
    for key, table in (("small_signal", "F_small"), ("at_level", "F_level")):
        for drop in ("3", "6", "10"):
            mine = bass[key][f"F{drop}"]["frequency"]
            assert mine == pytest.approx(want["bass"][table][drop][0], rel=2e-3)


def test_runtime(system):
    want, _, got = system
    if want["runtime"] is None:
        assert got["runtime"] is None
        return
    assert got["runtime"]["hours"] == pytest.approx(want["runtime"]["hours"], rel=2e-3)
    assert got["runtime"]["ended_by"] == want["runtime"]["ends_by"]
    assert got["runtime"]["reachable"] == want["runtime"]["reachable"]
    assert got["runtime"]["end_charge"] == pytest.approx(want["runtime"]["q_end"], abs=1e-5)
    current = got["runtime"]["at_half_charge"]["current"]
    assert current == pytest.approx(want["runtime"]["amps_at_half"], rel=2e-3)
