"""Chambers, ports, radiation and band edges against closed forms."""

import numpy as np
import pytest

from firecrest.core.acoustics.chambers import closed_resonance, compliance, lossy_chamber, tuning
from firecrest.core.acoustics.openings import Port, Radiator
from firecrest.core.acoustics.openings.port import SPEED_LIMITS, acoustic_mass, end_correction
from firecrest.core.acoustics.radiation import SOLID_ANGLES, far_pressure, group_delay, level
from firecrest.core.air import DATA_SHEET_AIR as AIR
from firecrest.core.limits.bands import band_edges, peaks, refined_peak, upward_crossing

BOX = compliance(0.052, AIR)
AREA = np.pi * 0.1**2 / 4


def test_helmholtz_tuning_of_a_published_box():
    mass = acoustic_mass(0.386 + 0.07315, AREA, AIR)
    assert tuning(BOX, [Port(mass, AREA, 0)]) == pytest.approx(31.32805, rel=1e-6)


def test_radiator_tuning_includes_its_compliance():
    radiator = Radiator(0.15, 8e-4, 1.2, 0.0346, 0)
    assert tuning(compliance(0.03, AIR), [radiator]) == pytest.approx(34.15758, rel=1e-6)


def test_mixed_openings_tune_where_their_admittances_cancel_the_air():
    port, radiator = Port(60.0, AREA, 0), Radiator(0.1, 7e-4, 0.0, 0.0136, 0, 2)
    w = 2 * np.pi * float(tuning(BOX, [port, radiator]))
    openings = port.admittances(np.array([w]))[0] + radiator.admittances(np.array([w]))[0]
    assert abs(openings[0] + 1j * w * BOX) < 1e-9 * w * BOX


def test_equal_radiators_split_in_two_sets_tune_alike():
    one = Radiator(0.1, 7e-4, 0.0, 0.0136, 0)
    pair = Radiator(0.1, 7e-4, 0.0, 0.0136, 0, 2)
    assert tuning(BOX, [one, one]) == pytest.approx(float(tuning(BOX, [pair])), rel=1e-9)


def test_a_closed_box_has_no_tuning():
    with pytest.raises(ValueError, match="no tuning"):
        tuning(BOX, [])


def test_closed_resonance():
    assert closed_resonance(48.0, 0.022, 0.014) == pytest.approx(76.97124, rel=1e-6)


def test_quality_figures_become_resistances():
    chamber = lossy_chamber(6.346312656e-07, 32.86657283, 7.0, 100.0)
    assert 1 / chamber.leak == pytest.approx(53412.42392, rel=1e-6)
    assert chamber.absorption == pytest.approx(76.30346274, rel=1e-6)
    tight = lossy_chamber(BOX, 50.0, None, None)
    assert (tight.leak, tight.absorption) == (0.0, 0.0)


def test_end_corrections():
    assert end_correction(AREA, "one_flanged") == pytest.approx(0.05 * 1.46183, rel=1e-4)
    assert end_correction(AREA, "both_free") < end_correction(AREA, "both_flanged")
    assert SPEED_LIMITS["plain"] < SPEED_LIMITS["one_flared"] < SPEED_LIMITS["both_flared"]


def test_level_falls_6_db_per_doubling_and_rises_6_db_per_halved_angle():
    f, flow = np.array([100.0]), np.array([1e-3 + 0j])
    near, far = (level(far_pressure(flow, f, r, SOLID_ANGLES["ground"], AIR)) for r in (1, 2))
    assert near - far == pytest.approx(6.0206, abs=1e-4)
    pole, ground, wall, corner = (
        level(far_pressure(flow, f, 1, SOLID_ANGLES[p], AIR))[0]
        for p in ("pole", "ground", "wall", "corner")
    )
    assert np.diff([pole, ground, wall, corner]) == pytest.approx(6.0206, abs=1e-4)


def test_silence_is_minus_infinity_without_a_warning():
    assert level(np.array([0.0]))[0] == -np.inf


def test_group_delay_of_a_first_order_high_pass():
    f = np.geomspace(10, 1000, 50)

    def high_pass(frequency):
        x = 1j * frequency / 80.0
        return x / (1 + x)

    exact = 1 / (2 * np.pi * 80.0) / (1 + (f / 80.0) ** 2)
    np.testing.assert_allclose(group_delay(high_pass, f), exact, rtol=1e-7)


def test_band_edges_of_a_known_slope():
    f = np.geomspace(10, 1000, 481)
    slope = 40 * np.log10(f / 100)
    edges = band_edges(f, np.minimum(slope, 0.0), 0.0)
    assert edges["F6"] == pytest.approx(100 * 10 ** (-6 / 40), rel=1e-6)
    assert upward_crossing(f, slope, 100.0) is None


def test_peaks_are_refined_between_points():
    f = np.geomspace(10, 1000, 121)
    curve = -((np.log(f / 87.3) * 4) ** 2)
    assert peaks(f, curve) == [pytest.approx((87.3, 0.0), abs=1e-6)]
    assert refined_peak(f, f, 120) == (1000.0, 1000.0)
