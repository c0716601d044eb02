"""Figures of a part without data: usual ones, with wide bands."""

from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.acoustics.driver import derive
from firecrest.core.acoustics.estimates import (
    BY_KIND,
    HEAVIEST,
    cone_area,
    estimate_driver,
    estimate_radiator,
    usual_mass,
)
from firecrest.core.acoustics.openings.radiator import derive_radiator
from firecrest.design.parts import DriverKind


@given(st.floats(0.03, 0.4), st.floats(0.01, 30), st.sampled_from([None, 4.0, 8.0]))
def test_estimates_make_a_whole_driver_with_wide_bands(size, mass, nominal):
    found = estimate_driver(size, mass, nominal)
    derived = derive({key: e.value for key, e in found.items()})
    assert derived.missing == ()
    assert derived.contradictions == ()
    assert all(0.1 <= e.band <= 0.6 for e in found.values())
    heavier = estimate_driver(size, mass * 1.5, nominal)
    assert heavier["mms"].value >= found["mms"].value
    assert heavier["qes"].value <= found["qes"].value
    assert usual_mass(size) / HEAVIEST > 0


def test_a_radiators_estimate_uses_its_weight():
    light, heavy = estimate_radiator(0.165, 0.2), estimate_radiator(0.165, 0.4)
    assert heavy["mmp"].value == 2 * light["mmp"].value
    assert estimate_radiator(0.165, None)["mmp"].band > light["mmp"].band
    figures = {key: e.value for key, e in light.items()}
    assert derive_radiator(figures).missing == ()


@given(st.floats(0.05, 0.3))
def test_larger_drivers_have_more_area_go_lower_and_weigh_more(size):
    small, large = (estimate_driver(s, None, 4.0) for s in (size, 1.2 * size))
    assert large["sd"].value == pytest.approx(1.44 * small["sd"].value)
    assert large["fs"].value < small["fs"].value
    assert usual_mass(1.2 * size) > usual_mass(size)
    assert cone_area(size).value == small["sd"].value


def test_a_weight_pulls_an_estimate_only_within_reason():
    usual = usual_mass(0.165)
    found = [estimate_driver(0.165, usual * f, 4.0)["mms"].value for f in (1e-3, 1 / 3, 3, 1e3)]
    assert found[0] == pytest.approx(found[1])
    assert found[2] == pytest.approx(found[3])


@pytest.mark.parametrize("size", [0.1, 0.165, 0.25])
def test_kinds_differ_as_they_are_built(size):
    sub, full, mid = (
        estimate_driver(size, None, 4.0, k) for k in ("subwoofer", "full range", "midrange")
    )
    assert sub["fs"].value < full["fs"].value < mid["fs"].value
    for key in ("mms", "xmax", "le"):
        assert sub[key].value > full[key].value > mid[key].value
    assert sub["xmax"].band > full["xmax"].band
    assert set(BY_KIND) == set(get_args(DriverKind))


def test_a_one_inch_tweeter_is_a_tweeter():
    found = estimate_driver(0.025, None, 4.0, "tweeter")
    assert 700 < found["fs"].value < 1500
    assert 2e-4 < found["mms"].value < 6e-4
    assert 4e-4 < found["sd"].value < 8e-4
