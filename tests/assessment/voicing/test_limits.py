"""Where to cross, thresholds and EQ of whole designs."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.voicing.crossing import crossing
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.flattening import (
    Wish,
    boost_ceiling,
    channels_of,
    cost_of,
    flattening,
    with_bands,
    without_bands_of,
)
from firecrest.assessment.voicing.guarding import guards
from firecrest.assessment.voicing.heard import VOICE_GRID
from firecrest.assessment.voicing.listening import rendered
from firecrest.core.voice.equaliser import Bounds, equalise
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.edits.voice import add_block
from firecrest.files.demos import read_demo


@pytest.fixture(scope="module")
def headland():
    return assess(read_demo("headland"))


def test_the_range_is_bounded_by_what_is_named(headland):
    found = [crossing(headland, headland.acoustic, c) for c in crossovers(headland.design.voice)]
    assert found[1].range.low == pytest.approx(1.2 * 2200)
    assert found[1].range.low_reason == "sheet"
    assert found[0].lower.measured
    assert found[0].lower.begins_to_beam < found[0].lower.falls


def test_a_louder_promise_asks_for_a_higher_corner(headland):
    louder = assess(set_number(headland.design, ("brief", "loudness", "level"), 112.0))
    crossover = crossovers(headland.design.voice)[1]
    quiet, loud = (crossing(a, a.acoustic, crossover).higher for a in (headland, louder))
    assert loud.by_travel > quiet.by_travel
    assert loud.volts == pytest.approx(quiet.volts * 10 ** (16 / 20), rel=1e-6)


def test_ways_that_disagree_say_so(headland):
    design = replace_at(headland.design, ("box", "groups", 2, "driver", "play_from"), 5200.0)
    a = assess(design)
    found = crossing(a, a.acoustic, crossovers(design.voice)[1])
    assert not found.range.agrees


def test_thresholds_hold_every_sine_within_the_limits(headland):
    """Played as loud as the limiter lets it, nothing is past its limit at any frequency."""
    for k, found in enumerate(guards(headland, headland.acoustic, any_sine=True)):
        assert found.peak is not None
        assert found.peak.volts_set <= found.peak.volts
        for lowest in found.allowed.values():
            assert found.peak.volts <= lowest.volts * (1 + 1e-9)
        design = replace_at(headland.design, ("voice", "channels", k, "limiter"), 1.0)
        assert guards(assess(design), assess(design).acoustic, any_sine=True)[k].peak is not None


def test_programme_asks_for_no_more_than_any_sine(headland):
    sine, programme = (
        guards(headland, headland.acoustic, any_sine=s)[0].peak.volts for s in (True, False)
    )
    assert programme >= sine


def test_a_board_that_its_source_cannot_run_limits_nothing(slipway):
    """What the parts bear is told all the same; no threshold can come of 0 V."""
    dead = assess(set_number(slipway, ("power", "source", "series"), 1))
    assert dead.promise("loudness").reason.code == "nothing left"
    (found,) = guards(dead, dead.acoustic, any_sine=True)
    (alive,) = guards(assess(slipway), assess(slipway).acoustic, any_sine=True)
    assert "swing" in alive.allowed
    assert "swing" not in found.allowed
    assert found.allowed["cone"].volts == pytest.approx(alive.allowed["cone"].volts, rel=0.01)


def test_a_long_term_limiter_is_a_limit_like_any_other(headland):
    held = assess(replace_at(headland.design, ("voice", "channels", 1, "limiter_rms"), 0.5))
    assert "long-term limiter" in {limit.name for limit in held.acoustic.limits}
    assert held.promise("loudness").predicted < headland.promise("loudness").predicted


@pytest.mark.parametrize("where", ["axis", "window", "power"])
@pytest.mark.parametrize("channel", [None, 2])
def test_bands_found_flatten_what_was_asked(headland, where, channel):
    wish = Wish(channel, where, "flat", Bounds((3000.0, 12e3)), 4, held=False)
    asked = flattening(headland, headland.acoustic, wish)
    *_, found = equalise(asked.task, 4, 4)
    made = with_bands(headland.design, channels_of(headland.design, wish), found)
    after = flattening(assess(made), assess(made).acoustic, wish)
    none = np.zeros(len(VOICE_GRID))
    assert asked.task.rms(none) > 0.2
    assert after.task.rms(none) == pytest.approx(found.rms, abs=0.03)
    assert without_bands_of(made, range(3)) == headland.design


def test_a_boost_stays_below_what_the_ceiling_allows(headland):
    wish = Wish(0, "axis", "points", Bounds((50.0, 250.0)), 4, points=((50.0, 9.0), (250.0, 0.0)))
    asked = flattening(headland, headland.acoustic, wish)
    *_, found = equalise(asked.task, 4, 4)
    ceiling = boost_ceiling(headland.acoustic)
    lifted = max((gain for _, gain, _ in found.bands), default=0.0)
    assert np.all(asked.task.ceiling <= ceiling + 1e-12)
    assert lifted < 9.0


def test_the_cost_is_the_difference_of_two_assessments(headland):
    _, more = add_block(headland.design, 0, "low_shelf")
    cost = cost_of(headland, more)
    plain = assess(more).promise("loudness").predicted
    assert cost.loudness == pytest.approx(plain - headland.promise("loudness").predicted)
    assert cost.filters == 1


def test_two_settings_are_rendered_equally_loud_and_travel_is_told():
    design = read_demo("regatta")
    quieter = replace_at(design, ("voice", "channels", 0, "gain"), -6.0)
    quieter = replace_at(quieter, ("voice", "channels", 1, "gain"), -9.5)
    t = np.arange(24000) / 48000
    samples = 0.3 * np.sin(2 * np.pi * 90 * t)
    *_, soft = rendered(design, (design.voice, quieter.voice), (samples, 48000), 80.0)
    assert soft.louder == pytest.approx(6.0, abs=0.05)
    assert soft.over == (0.0, 0.0)
    np.testing.assert_allclose(soft.first, soft.second, atol=0.02)
    *_, loud = rendered(design, (design.voice, quieter.voice), (samples, 48000), 125.0)
    assert loud.over[0] > 0.1


def test_offset_and_fill_are_passed_on(headland):
    wish = Wish(None, "axis", "flat", Bounds((200.0, 9000.0)), 4)
    plain = flattening(headland, headland.acoustic, wish)
    lower = flattening(headland, headland.acoustic, replace(wish, offset=-2.0))
    np.testing.assert_allclose(lower.task.error, plain.task.error + 2.0)
    turned = rebuilt(headland.design.voice.channels[1], inverted=True)
    made = replace_at(headland.design, ("voice", "channels", 1), turned)
    holed = assess(made)
    assert isinstance(flattening(holed, holed.acoustic, wish).dips, tuple)
