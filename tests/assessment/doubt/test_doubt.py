"""Doubt: bands of real designs, and which figure makes them."""

from dataclasses import fields, replace

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.doubt.doubt import COARSE, doubt_of, unsure_of, varied
from firecrest.assessment.doubt.judged import with_doubt, worst_of
from firecrest.assessment.doubt.uncertain import families
from firecrest.core.uncertainty.draw import SAMPLES, with_exact
from firecrest.core.uncertainty.spread import band
from firecrest.design.edits.parts import set_tolerance
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.design.tolerances import Tolerances
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.parts.datasheet import estimate_edit

RADIATOR = ("box", "openings", 0, "radiator")
DRIVER = ("box", "groups", 0, "driver")


def widths(doubt):
    return {key: b.width for key, b in doubt.bands.items() if key != "size"}


@pytest.mark.parametrize("name", demo_names())
def test_256_draws_are_as_good_as_8192(name):
    design = read_demo(name)
    few = widths(doubt_of(design, frequency=COARSE))
    many = widths(doubt_of(design, 8192, frequency=COARSE))
    for key, width in many.items():
        assert few[key] == pytest.approx(width, rel=0.10), key


@pytest.mark.parametrize("name", demo_names())
def test_ranges_twice_as_wide_make_bands_about_twice_as_wide(name):
    """From half of the stated ranges to these: wider ones let other limits take over.

    Least in Headland, where its reach soon ends at what fast air in its port lets be.
    """
    design = read_demo(name)
    once, twice = (widths(doubt_of(design, times=t, frequency=COARSE)) for t in (0.5, 1.0))
    for key, width in once.items():
        assert 1.6 < twice[key] / width < 2.3, key


def test_no_range_at_all_leaves_no_band(slipway):
    found = doubt_of(slipway, times=0.0)
    assert widths(found) == pytest.approx(dict.fromkeys(widths(found), 0.0), abs=1e-9)
    np.testing.assert_allclose(found.low, found.high)
    np.testing.assert_allclose(found.low, assess(slipway).acoustic.top.level, atol=1e-9)
    assert all(b.kept in (0.0, 1.0) for b in found.bands.values())


def test_the_present_design_lies_inside_its_bands(slipway):
    assessment, found = assess(slipway), doubt_of(slipway)
    for promise in assessment.promises:
        likely = found.bands.get(promise.key)
        if likely is not None:
            assert likely.low <= promise.predicted <= likely.high
    top = assessment.acoustic.top.level
    assert np.all((found.low <= top) & (top <= found.high))


@pytest.mark.parametrize("name", ["slipway", "lantern", "boathouse-bandpass"])
def test_the_first_figure_is_the_one_that_shrinks_the_band_most(name):
    """Against trying every single figure."""
    design = read_demo(name)
    assessment, doubt = assess(design), doubt_of(design)
    found = unsure_of(assessment, doubt)
    key, known = worst_of(assessment.promises, doubt), families(design)
    draws = [f.deviations(SAMPLES) for f in known]
    left = {}
    for place, one in enumerate(known):
        for figure in one.figures:
            fixed = list(draws)
            fixed[place] = with_exact(draws[place], one.spread, np.array(figure.weights))
            values = varied(design, known, fixed, SAMPLES, COARSE).verdict(key).predicted[:, 0]
            left[figure.path] = band(values, np.isfinite(values)).width
    assert found[0].figure.path == min(left, key=left.get)
    assert [u.share for u in found] == sorted((u.share for u in found), reverse=True)


def test_entering_an_estimated_figure_shrinks_the_doubt(slipway):
    before = doubt_of(slipway).bands["loudness"].width
    _, sure = set_tolerance(slipway, (*RADIATOR, "xmax"), 0.02)
    assert doubt_of(sure).bands["loudness"].width < 0.7 * before


def test_a_salvaged_driver_without_figures_shows_its_width(slipway):
    part = value_at(slipway, DRIVER)
    bare = replace(
        part, **dict.fromkeys(("re", "fs", "qes", "qms", "vas", "sd", "xmax", "pe")), origins={}
    )
    _, guessed = estimate_edit(replace_at(slipway, DRIVER, bare), DRIVER)
    assert doubt_of(guessed).bands["bass"].width > 2 * doubt_of(slipway).bands["bass"].width


def test_a_target_inside_its_band_is_close_and_one_outside_is_not(slipway):
    judged = with_doubt(assess(slipway), doubt_of(slipway))
    assert judged.promise("loudness").state == "close"
    assert judged.promise("weight").state == "met"
    far = set_number(slipway, ("brief", "loudness", "level"), 104.0)
    assert with_doubt(assess(far), doubt_of(far)).promise("loudness").state == "short"


def test_what_differs_between_designs_is_not_luck(slipway):
    """The same draws for both: a slight change moves the bands slightly, not at random."""
    path = ("box", "openings", 0, "added_mass")
    near = set_number(slipway, path, value_at(slipway, path) * 1.001)
    a, b = doubt_of(slipway), doubt_of(near)
    for key in ("loudness", "bass", "runtime"):
        assert b.bands[key].low == pytest.approx(a.bands[key].low, rel=2e-3)
        assert b.bands[key].high == pytest.approx(a.bands[key].high, rel=2e-3)


def test_a_stated_resonance_keeps_its_range_although_mass_and_compliance_are_looser(slipway):
    part = value_at(slipway, DRIVER)
    one = next(f for f in families(slipway) if f.figures[0].owner == part.name)
    spread = {f.name: np.array(f.weights) @ one.spread @ f.weights for f in one.figures}
    assert spread["fs"] < 0.1 * spread["mms"]
    assert spread["fs"] < 0.1 * spread["cms"]


def test_two_equal_drivers_average_what_is_their_own(slipway):
    """A batch draw for both and a third of its sigma for each: 1/9/n more variance."""
    single = replace_at(slipway, ("box", "groups", 0, "in_parallel"), 1)
    more = replace_at(slipway, ("box", "groups", 0, "in_parallel"), 4)
    name = value_at(slipway, DRIVER).name
    of = [
        next(f for f in families(d) if f.figures[0].owner == name).spread[0, 0]
        for d in (single, more)
    ]
    outputs = 2
    assert of[0] / of[1] == pytest.approx((1 + 1 / 9 / outputs) / (1 + 1 / 9 / (4 * outputs)))


@pytest.mark.parametrize("name", [f.name for f in fields(Tolerances)])
def test_every_stated_tolerance_is_used(name):
    """Set to 0 it takes its figure out; each has its place in some demo or a variant of one."""
    design = read_demo("slipway")
    path = ("box", "chambers", 0)
    chamber = replace(value_at(design, path), leak_q=9.0, stuffing=0.07, absorption_q=33.0)
    if name == "fibre":
        chamber = replace(chamber, fill_resistivity=5e3)
    if name == "measured_air":
        chamber = replace(chamber, stated_volume=7.5e-3)
    design = replace_at(design, path, chamber)
    if name.startswith("port"):
        design = read_demo("breakwater")
        port = next(k for k, o in enumerate(design.box.openings) if o.kind == "port")
        limit = 17.0 if name == "port_speed" else None
        design = replace_at(design, ("box", "openings", port, "speed_limit"), limit)
    if name == "cell_capacity_aged":
        design = set_number(design, ("power", "source", "health"), 0.8)
    without = replace_at(design, ("brief", "tolerances", name), 0.0)
    assert len(families(without)) < len(families(design))


def test_doubt_of_a_box_that_cannot_be_heard_is_of_its_body_alone(slipway):
    silent = replace_at(slipway, (*DRIVER, "sd"), None)
    silent = replace_at(silent, (*DRIVER, "vas"), None)
    found = doubt_of(silent)
    assert set(found.bands) == {"size", "weight", "cost"}
    assert found.low is None
    assert unsure_of(assess(silent), found)
