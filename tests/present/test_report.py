"""The report's raw curves: drives, voices, units and what belongs to which element."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.present.report import clean, report
from firecrest.proposals.layouts import with_kind

GRID = np.geomspace(20.0, 500.0, 40)


@pytest.fixture(scope="module")
def body(slipway):
    return report(assess(slipway), 2.83, GRID)


def test_twice_the_volts_is_6_db_and_twice_the_travel(slipway, body):
    double = report(assess(slipway), 5.66, GRID)
    for key in ("terminals", "through_voice"):
        one, two = body["at_drive"][key], double["at_drive"][key]
        for leak in ("with_leak", "without_leak"):
            rise = np.subtract(two[leak]["spl_db"], one[leak]["spl_db"])
            np.testing.assert_allclose(rise, 20 * np.log10(2), atol=1e-9)
        for motion in ("cone_peak_m", "radiator_peak_m"):
            np.testing.assert_allclose(two[motion], np.multiply(2, one[motion]), rtol=1e-12)
    assert double["at_drive"]["limit_volts"] == body["at_drive"]["limit_volts"]


def test_the_voice_acts_on_level_and_travel_alike(body):
    flat, voiced = (body["at_drive"][k] for k in ("terminals", "through_voice"))
    level = np.subtract(voiced["with_leak"]["spl_db"], flat["with_leak"]["spl_db"])
    ratio = np.divide(voiced["cone_peak_m"][0], flat["cone_peak_m"][0])
    np.testing.assert_allclose(20 * np.log10(ratio), level, atol=1e-9)


def test_limit_volts_bring_each_part_to_its_limit(slipway, body):
    volts = body["at_drive"]["limit_volts"]
    motion = body["at_drive"]["terminals"]
    cone = np.multiply(motion["cone_peak_m"][0], np.divide(volts["cone"][0], 2.83))
    np.testing.assert_allclose(cone, slipway.box.groups[0].driver.xmax, rtol=1e-9)
    radiator = np.multiply(motion["radiator_peak_m"][0], np.divide(volts["radiator"][0], 2.83))
    np.testing.assert_allclose(radiator, slipway.box.openings[0].radiator.xmax, rtol=1e-9)
    assert volts["thermal_nominal"] == [pytest.approx((40 * 3.4) ** 0.5)]
    assert volts["port"] == []


def test_ports_have_air_speed_and_two_in_series_share_the_volts(slipway):
    ported = with_kind(slipway, "port")
    got = report(assess(ported), 2.83, GRID)["at_drive"]
    assert len(got["terminals"]["port_peak_speed"]) == 1
    series = replace_at(slipway, ("box", "groups", 0, "in_series"), 2)
    volts = report(assess(series), 2.83, GRID)["at_drive"]["limit_volts"]
    assert volts["thermal_nominal"] == [pytest.approx(2 * (40 * 3.4) ** 0.5)]


def test_group_delay_is_the_slope_of_the_phase(slipway):
    fine = np.geomspace(60.0, 61.0, 400)
    got = report(assess(slipway), 1.0, fine)["at_drive"]["terminals"]["with_leak"]
    phase = np.unwrap(np.radians(got["phase_deg"]))
    slope = -np.gradient(phase, 2 * np.pi * fine) * 1e3
    np.testing.assert_allclose(got["group_delay_ms"][5:-5], slope[5:-5], rtol=1e-3)


def test_impedance_does_not_depend_on_the_voice(slipway, body):
    turned = set_number(slipway, ("voice", "channels", 0, "gain"), -12.0)
    got = report(assess(turned), 2.83, GRID)["at_drive"]["impedance"]
    assert got == body["at_drive"]["impedance"]


def test_clean_leaves_plain_data():
    messy = {1: np.array([1.0, np.inf]), "a": (np.float64("nan"), np.int64(3), "x", None, True)}
    assert clean(messy) == {"1": [1.0, None], "a": [None, 3, "x", None, True]}
