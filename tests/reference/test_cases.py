"""The solver against independent results, from the design to the reported curve."""

from functools import cache

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.core.voice.chain import Filter, analogue_response
from firecrest.core.voice.prototypes import second_order_high_pass
from firecrest.present.report import report
from tests.reference.designs import CASES, case_design, expected

GRID = 10 * 10 ** (np.arange(241) / 120)


DIRECT = sorted(n for n, c in CASES.items() if not c["filter"] and not c["enclosure"]["front"])
"""Cases whose tables refer to the terminals, with the leak counted."""


@cache
def solved(name):
    """(case, expected, reported at 2.83 V) of a reference case; filters are left out."""
    assessment = assess(case_design(name))
    return CASES[name], expected(name), report(assessment, 2.83, GRID)["at_drive"]


@pytest.fixture(params=sorted(CASES))
def case(request):
    return solved(request.param)


def filter_response(case):
    """Analogue response of a case's filters; 1 without."""
    h = np.ones(len(GRID), dtype=complex)
    for row in case["filter"]:
        if row["type"] == "lr4_lowpass":
            h = h * analogue_response(
                Filter("low_pass", row["f"], family="linkwitz_riley", order=4), GRID
            )
        elif row["type"] == "highpass2":
            h = h * second_order_high_pass(row["Q"]).response(GRID, row["f"])
        else:
            h = h * analogue_response(
                Filter("parametric", row["f"], row["gain_db"], row["Q"]), GRID
            )
    return h


def turned(degrees):
    """Phase difference wrapped to (-180, 180]."""
    return (np.asarray(degrees) + 180) % 360 - 180


def test_impedance(case):
    _, want, got = case
    z = got["impedance"][0]
    np.testing.assert_allclose(z["ohm"], want["z_mag_ohm"], rtol=1e-3)
    assert np.max(np.abs(turned(np.subtract(z["phase_deg"], want["z_phase_deg"])))) < 0.1


@pytest.mark.parametrize(
    ("key", "level", "phase", "delay"),
    [
        ("with_leak", "spl_db", "spl_phase_deg", "gd_ms"),
        ("without_leak", "spl_noleak_db", "spl_noleak_phase_deg", "gd_noleak_ms"),
    ],
)
def test_level_phase_and_group_delay(case, key, level, phase, delay):
    facts, want, got = case
    h = filter_response(facts)
    mine = got["terminals"][key]
    np.testing.assert_allclose(mine["spl_db"] + 20 * np.log10(abs(h)), want[level], atol=0.01)
    angle = np.add(mine["phase_deg"], np.degrees(np.angle(h)))
    assert np.max(np.abs(turned(angle - want[phase]))) < 0.1
    if not facts["filter"]:
        slack = np.maximum(0.02, 0.005 * np.max(np.abs(want[delay])))
        np.testing.assert_allclose(mine["group_delay_ms"], want[delay], atol=slack)


def test_motion(case):
    facts, want, got = case
    h = np.abs(filter_response(facts))
    t = got["terminals"]
    np.testing.assert_allclose(
        np.multiply(t["cone_peak_m"][0], h) * 1e3, want["x_peak_mm"], rtol=1e-3
    )
    if "xpr_peak_mm" in want:
        np.testing.assert_allclose(
            np.multiply(t["radiator_peak_m"][0], 1e3), want["xpr_peak_mm"], rtol=1e-3
        )
    for key in ("vport_rear_peak_ms", "vport_front_peak_ms"):
        if key in want:
            np.testing.assert_allclose(
                np.multiply(t["port_peak_speed"][0], h), want[key], rtol=1e-3
            )


def test_limiter_letters(case):
    """X cone, R radiator, P port, A amplifier, T thermal: equal but next to a change-over."""
    facts, want, got = case
    volts = got["limit_volts"]
    rows = {
        "X": volts["cone"][0],
        "R": volts["radiator"][0] if volts["radiator"] else np.full(241, np.inf),
        "P": volts["port"][0] if volts["port"] else np.full(241, np.inf),
        "A": np.full(241, facts["V_amp_rms"]),
        "T": np.full(241, volts["thermal_nominal"][0]),
    }
    mine = "".join(np.array(list(rows))[np.argmin(list(rows.values()), axis=0)])
    reference = want["max"]["limiter"]
    for i, (a, b) in enumerate(zip(mine, reference, strict=True)):
        assert a == b or a in reference[max(i - 1, 0) : i + 2]
    np.testing.assert_allclose(np.min(list(rows.values()), axis=0), want["max"]["v_max"], rtol=1e-3)


@pytest.mark.parametrize("name", DIRECT)
def test_tables(name):
    _, want, got = solved(name)
    tables, scalars = got["tables"]["terminals"], want["scalars"]
    at_drive = tables["half_space_reference_db"] + 20 * np.log10(2.83)
    assert at_drive == pytest.approx(scalars["spl_reference_db"], abs=0.01)
    for mine, theirs in (("relative_to_reference", "rel_ref"), ("relative_to_peak", "rel_max")):
        for drop in ("F3", "F6", "F10"):
            value = scalars[theirs][drop]
            assert tables[mine][drop] == (None if value is None else pytest.approx(value, rel=1e-3))
    peaks = tables["impedance_peaks"][0]
    assert [p["frequency"] for p in peaks] == pytest.approx(
        [p["f"] for p in scalars["z_peaks"]], rel=1e-3
    )
    assert [p["ohm"] for p in peaks] == pytest.approx(
        [p["ohm"] for p in scalars["z_peaks"]], rel=1e-3
    )
    assert tables["passband_peak"]["level"] + 20 * np.log10(2.83) == pytest.approx(
        scalars["passband_max_db"], abs=0.01
    )
