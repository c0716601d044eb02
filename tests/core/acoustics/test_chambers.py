"""Air of a chamber, its tuning and its losses against closed forms."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.acoustics.chambers import (
    closed_resonance,
    compliance,
    lossy_chamber,
    openings_that_tune,
    tuning,
)
from firecrest.core.acoustics.openings import OUTSIDE, Port, Radiator
from firecrest.core.acoustics.openings.port import acoustic_mass
from firecrest.core.air import DATA_SHEET_AIR as AIR

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


@given(st.floats(5, 500), st.floats(0.005, 0.1), st.integers(1, 4))
def test_more_of_the_same_opening_tunes_higher_and_more_air_lower(mass, litres, count):
    box = compliance(litres, AIR)
    one, many = (tuning(box, [Port(mass, AREA, 0, count=n)]) for n in (1, count))
    assert many == pytest.approx(one * np.sqrt(count), rel=1e-9)
    assert tuning(2 * box, [Port(mass, AREA, 0)]) == pytest.approx(one / np.sqrt(2), rel=1e-9)


def test_columns_of_boxes_tune_each_by_itself():
    ports = [Port(np.array([[60.0], [90.0]]), AREA, 0), Radiator(0.1, 7e-4, 0.0, 0.0136, 0)]
    both = tuning(BOX, ports)
    for row, mass in enumerate((60.0, 90.0)):
        alone = tuning(BOX, [Port(mass, AREA, 0), ports[1]])
        assert both[row, 0] == pytest.approx(float(alone), rel=1e-9)


def test_openings_to_the_outside_tune_and_where_there_are_none_the_inner_ones():
    inner, outer = Port(60.0, AREA, 0, opens_to=1), Port(60.0, AREA, 1, opens_to=OUTSIDE)
    assert openings_that_tune([inner, outer], 1) == [outer]
    assert openings_that_tune([inner, outer], 0) == [inner]
    assert openings_that_tune([outer], 0) == []
