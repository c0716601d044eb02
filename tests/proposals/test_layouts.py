"""Layouts, pairs, places and rooms through the whole assessment."""

import dataclasses
from contextlib import suppress

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.unplaced import unplaced

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import assess
from firecrest.assessment.memo import Memo
from firecrest.assessment.motion import case_force, motion_of
from firecrest.assessment.vary import assess_many
from firecrest.core.errors import DesignError, RangeError
from firecrest.design.box import Position
from firecrest.design.edits.paths import replace_at
from firecrest.files.demos import demo_names, read_demo
from firecrest.proposals.inverse import tuning_of, with_air_volume, with_tuning
from firecrest.proposals.layouts import (
    LAYOUTS,
    kind_of,
    layout_of,
    with_kind,
    with_layout,
    with_own_chamber,
)
from firecrest.proposals.ports import fit_in_case
from firecrest.proposals.tunings import best_tunings


@pytest.fixture(scope="module")
def breakwater():
    return unplaced("breakwater")


def changed(design, path, **fields):
    item = dataclasses.replace(_at(design, path), **fields)
    return replace_at(design, path, item)


def _at(design, path):
    value = design
    for step in path:
        value = value[step] if isinstance(step, int) else getattr(value, step)
    return value


@pytest.mark.parametrize("layout", ["bandpass4", "bandpass6", "halves"])
def test_a_layout_is_what_it_says_and_goes_back_to_one_chamber(slipway, layout):
    made = with_layout(slipway, layout)
    assert layout_of(made) == layout
    assert assess(made).acoustic is not None
    back = with_layout(made, "one")
    assert layout_of(back) == "one"
    assert sum(assess(back).cabinet.air) == pytest.approx(sum(assess(made).cabinet.air), rel=0.12)


def test_a_new_bandpass_has_its_port_tuned_and_fitting(slipway):
    made = with_layout(slipway, "bandpass4")
    assert [kind_of(made, k) for k in (0, 1)] == ["sealed", "port"]
    assert tuning_of(made, 1) > slipway.brief.bass.frequency
    assert fit_in_case(made, 0).longest >= made.box.openings[0].length
    sixth = with_layout(slipway, "bandpass6")
    assert tuning_of(sixth, 0) == pytest.approx(50.0, rel=1e-6)
    assert tuning_of(sixth, 1) == pytest.approx(100.0, rel=1e-6)


def test_two_one_takes_three_outputs_and_then_gives_each_its_air(slipway, breakwater):
    with pytest.raises(DesignError, match=r"2\.1 takes three outputs, Sedge 2x60 has 2"):
        with_layout(slipway, "two-one")
    single = replace_at(slipway, ("power", "boards", 0, "part", "channels"), 4)
    single = replace_at(single, ("voice", "channels", 0, "outputs"), 1)
    made = with_layout(single, "two-one")
    assert layout_of(made) == layout_of(breakwater) == "two-one"
    assert [g.place.right < 0 for g in made.box.groups[1:]] == [True, False]
    assert assess(made).acoustic.model.tuning[1:] == (None, None)


def test_closing_the_only_way_out_is_refused(slipway):
    made = with_layout(slipway, "bandpass4")
    with pytest.raises(DesignError, match="Nothing would face outside"):
        with_kind(made, "sealed", 1)


def test_channels_need_more_than_one(slipway):
    with pytest.raises(DesignError, match="one voice channel only"):
        with_layout(slipway, "channels")


def test_a_chamber_of_its_own_is_cut_from_the_one_that_was_shared(breakwater):
    shared = with_layout(breakwater, "one")
    made = with_own_chamber(shared, 1)
    assert made.box.groups[1].chamber == "left"
    before, after = assess(shared).cabinet, assess(made).cabinet
    assert sum(after.air) == pytest.approx(sum(before.air), rel=1e-9)
    with pytest.raises(DesignError, match="to itself already"):
        with_own_chamber(made, 1)


def test_volume_and_tuning_of_any_chamber_can_be_typed(breakwater):
    made = with_air_volume(breakwater, 0.003, 2)
    assert assess(made).cabinet.air[2] == pytest.approx(0.003, rel=1e-9)
    assert sum(c.share for c in made.box.chambers) == pytest.approx(1.0)
    assert tuning_of(with_tuning(breakwater, 45.0, 0)) == pytest.approx(45.0, rel=1e-9)
    with pytest.raises(RangeError, match="By its share this chamber can hold"):
        with_air_volume(breakwater, 0.5, 2)
    with pytest.raises(RangeError, match="closed box has no tuning"):
        with_tuning(breakwater, 45.0, 1)


# isobaric pairs -----------------------------------------------------------------------


def test_a_pair_needs_half_the_air_for_the_same_curve(slipway):
    """Closed box: Vb/2 with pairs that move as one gives the level of Vb at equal volts."""
    plain = with_kind(slipway, "sealed")
    chamber = {"leak_q": None, "absorption_q": None, "stuffing": 0.0}
    single = changed(plain, ("box", "chambers", 0), stated_volume=0.008, **chamber)
    half = changed(plain, ("box", "chambers", 0), stated_volume=0.004, **chamber)
    pair = changed(half, ("box", "groups", 0), pair="clamshell")
    a, b = assess(single).acoustic, assess(pair).acoustic
    np.testing.assert_allclose(a.level_before_voice, b.level_before_voice, atol=1e-6)
    assert len(b.transfers.excursion) == 2
    np.testing.assert_allclose(b.transfers.excursion[0], b.transfers.excursion[1], rtol=1e-6)


def test_trapped_air_lifts_the_curve_a_little_above_its_resonance(slipway):
    plain = changed(with_kind(slipway, "sealed"), ("box", "chambers", 0), stated_volume=0.004)
    stiff = changed(plain, ("box", "groups", 0), pair="clamshell")
    loose = changed(plain, ("box", "groups", 0), pair="clamshell", trapped=0.0006)
    a, b = (assess(d).acoustic for d in (stiff, loose))
    apart = b.level_before_voice - a.level_before_voice
    band = (a.frequency > 30) & (a.frequency < 400)
    assert 0.01 < np.max(np.abs(apart[band])) < 1.0


def test_a_tunnel_takes_air_and_a_pair_counts_twice_in_weight_and_cost(slipway):
    one = assess(slipway).cabinet
    clam = assess(changed(slipway, ("box", "groups", 0), pair="clamshell")).cabinet
    tunnel = assess(changed(slipway, ("box", "groups", 0), pair="tunnel", trapped=0.0005)).cabinet
    part = slipway.box.groups[0].driver
    assert clam.mass - one.mass == pytest.approx(2 * part.mass)
    assert clam.price - one.price == pytest.approx(2 * part.price)
    assert clam.air == one.air
    assert one.air[0] - tunnel.air[0] == pytest.approx(2 * (part.displacement + 0.0005))


def test_a_pair_in_series_has_four_times_the_impedance_of_one_in_parallel(slipway):
    found = []
    for wiring in ("parallel", "series"):
        made = changed(slipway, ("box", "groups", 0), pair="tunnel", pair_in=wiring)
        found.append(assess(made).acoustic.transfers.outputs[0].current)
    np.testing.assert_allclose(found[0] / found[1], 4.0, rtol=1e-6)


# places and rooms ------------------------------------------------------------------------


def test_an_opening_in_the_back_sums_with_its_own_phase(slipway):
    away = changed(slipway, ("box", "openings", 0), place=Position(forward=-0.8))
    a, b = assess(slipway).acoustic, assess(away).acoustic
    apart = np.abs(a.unit_level - b.unit_level)
    assert np.max(apart[(a.frequency > 60) & (a.frequency < 120)]) > 0.3
    np.testing.assert_allclose(a.transfers.excursion[0], b.transfers.excursion[0])


def test_room_and_baffle_add_what_their_models_say(slipway):
    room = replace_at(slipway, ("brief", "listening", "room"), 6.0)
    pole = replace_at(slipway, ("brief", "listening", "place"), "pole")
    baffle = replace_at(pole, ("brief", "listening", "baffle"), True)
    plain, indoors, free, stepped = (assess(d).acoustic for d in (slipway, room, pole, baffle))
    lift = indoors.unit_level - plain.unit_level
    assert 5.0 < lift[0] < 8.0
    assert abs(lift[-1]) < 0.01
    step = stepped.unit_level - free.unit_level
    assert step[0] < 0.05
    assert step[-1] == pytest.approx(6.02, abs=0.05)


@pytest.mark.parametrize("name", ["boathouse-bandpass", "breakwater", "lantern"])
def test_a_batch_says_what_one_by_one_says(name):
    design = read_demo(name)
    deeper = replace_at(design, ("box", "case", "depth"), design.box.case.depth * 1.02)
    for made, figures in zip(
        (design, deeper), assess_many([design, deeper], EDIT_GRID, Memo()), strict=True
    ):
        loudness = assess(made).promise("loudness").predicted
        assert figures.loudness == pytest.approx(loudness, abs=1e-9)


@settings(max_examples=25)
@given(
    st.sampled_from(demo_names()),
    st.floats(0.8, 1.6),
    st.sampled_from(["alone", "clamshell", "tunnel"]),
    st.sampled_from(list(LAYOUTS)),
)
def test_every_valid_design_has_finite_results(name, scale, pair, layout):
    design = read_demo(name)
    with suppress(DesignError):
        design = with_layout(design, layout)
    design = changed(design, ("box", "groups", 0), pair=pair, trapped=0.0003)
    design = replace_at(design, ("box", "case", "depth"), design.box.case.depth * scale)
    a = assess(design).acoustic
    if a is not None:
        assert np.isfinite(a.unit_level).all()
        assert np.isfinite(a.top.level).all()
        for moved in (*a.transfers.excursion, *a.transfers.openings):
            assert np.isfinite(moved).all()


def test_opposed_parts_cancel_their_force_on_the_case(slipway):
    """One radiator's mass times its acceleration, worked out by hand, is what opposing removes."""
    both = changed(slipway, ("box", "groups", 0), opposed=True)
    still = assess(changed(both, ("box", "openings", 0), opposed=True))
    assert case_force(still, still.acoustic)[0] == 0.0
    shaking = assess(both)
    force, at = case_force(shaking, shaking.acoustic)
    a = shaking.acoustic
    k = np.argmin(np.abs(a.frequency - at))
    x = np.sqrt(2) * abs(a.transfers.openings[0][k]) * motion_of(shaking, a).drive[k]
    mass = a.model.network.openings[0].mass
    assert force == pytest.approx(2 * mass * (2 * np.pi * at) ** 2 * x, rel=1e-6)


def test_a_radiator_before_the_cone_is_rated_by_the_drivers_that_face_it(slipway):
    """Without a travel figure: twice the drivers' displacement over the radiators' area."""
    made = with_kind(with_layout(slipway, "bandpass4"), "radiators", 1)
    made = replace_at(made, ("box", "openings", 0, "radiator", "xmax"), None)
    driver, item = made.box.groups[0].driver, made.box.openings[0]
    expected = 2 * 2 * driver.sd * driver.xmax / (item.count * item.radiator.sd)
    assert assess(made).acoustic.ratings.openings[0] == pytest.approx(expected)


def test_pairs_places_and_rooms_are_stacked_like_anything_else(slipway):
    made = changed(
        slipway,
        ("box", "groups", 0),
        pair="tunnel",
        pair_in="series",
        trapped=0.0004,
        place=Position(up=0.05),
    )
    made = replace_at(made, ("brief", "listening", "room"), 7.0)
    made = replace_at(made, ("brief", "listening", "baffle"), True)
    deeper = replace_at(made, ("box", "case", "depth"), made.box.case.depth * 1.03)
    for design, figures in zip(
        (made, deeper), assess_many([made, deeper], EDIT_GRID, Memo()), strict=True
    ):
        done = assess(design)
        assert figures.loudness == pytest.approx(done.promise("loudness").predicted, abs=1e-9)
        assert figures.bass_reach == pytest.approx(done.promise("bass").predicted, rel=1e-9)
        np.testing.assert_allclose(figures.level, done.acoustic.top.level, atol=1e-8)


def test_starts_and_tunings_turn_the_opening_of_its_own_chamber():
    """The port of a bandpass sits on the front chamber: its best tuning is found there."""
    design = read_demo("boathouse-bandpass")
    best = best_tunings([design], Memo())[0]
    loudest = assess(best).promise("loudness").predicted
    assert loudest >= assess(design).promise("loudness").predicted - 1e-9
    for hertz in (45.0, 50.0, 60.0, 65.0):
        other = assess(with_tuning(design, hertz, 1))
        assert other.promise("loudness").predicted <= loudest + 0.1
