"""Lining up whole designs: what is found, taken, brings the ways together."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.voicing.crossovers import crossovers, in_order
from firecrest.assessment.voicing.heard import VOICE_GRID, fan_of, known_band, ways_heard
from firecrest.assessment.voicing.lining import line_up, present_pair
from firecrest.core.voice.alignment import tracking
from firecrest.design.edits.paths import replace_at
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.voice import advice


def lined(design):
    a = assess(design)
    found = line_up(a, a.acoustic)
    return advice.taken(design, advice.steps(a, a.acoustic, found))


@pytest.mark.parametrize("name", ["regatta", "headland", "gangway"])
def test_a_demo_lined_up_sums_within_a_decibel_and_stays_as_it_is(name):
    made = lined(read_demo(name))
    a = assess(made)
    for crossover in crossovers(made.voice):
        now = tracking(present_pair(a, a.acoustic, crossover), crossover.frequency)
        assert now.loss > -1.0
        assert now.null > 18
    again = advice.steps(a, a.acoustic, line_up(a, a.acoustic))
    assert all(step.idle for step in again), [s.title for s in again if not s.idle]


def test_headland_gains_eight_decibels():
    before, after = assess(read_demo("headland")), assess(lined(read_demo("headland")))
    gained = after.promise("loudness").predicted - before.promise("loudness").predicted
    assert gained > 8
    assert after.promise("loudness").state == "met"


@pytest.mark.parametrize("seed", range(3))
def test_delays_polarities_and_levels_put_in_are_taken_out_again(seed):
    random, design = np.random.default_rng(seed), read_demo("headland")
    wanted = lined(design)
    for k in range(3):
        here = ("voice", "channels", k)
        design = replace_at(design, (*here, "delay"), float(random.uniform(0, 4e-4)))
        design = replace_at(design, (*here, "gain"), float(random.uniform(-8, 4)))
        design = replace_at(design, (*here, "inverted"), bool(random.random() < 0.5))
    found = lined(design)
    for a, b in zip(found.voice.channels, wanted.voice.channels, strict=True):
        assert a.delay == pytest.approx(b.delay, abs=1.1e-6)
        assert a.gain == pytest.approx(b.gain, abs=0.011)
        assert a.inverted == b.inverted


def test_ways_go_in_order_whatever_the_order_of_channels():
    design = read_demo("headland")
    channels = design.voice.channels
    mixed = replace_at(design, ("voice", "channels"), (channels[2], channels[0], channels[1]))
    assert in_order(mixed.voice) == [1, 2, 0]
    met = [(c.lower, c.higher, round(c.frequency)) for c in crossovers(mixed.voice)]
    assert met == [(1, 2, 320), (2, 0, 2800)]


@pytest.mark.parametrize("name", demo_names())
def test_the_sum_of_the_ways_is_the_level_of_the_assessment(name):
    a = assess(read_demo(name))
    if a.acoustic is None:
        return
    whole = ways_heard(a, a.acoustic).whole
    levels = 20 * np.log10(np.abs(whole) / 20e-6)
    expected = np.interp(np.log(VOICE_GRID), np.log(a.acoustic.frequency), a.acoustic.unit_level)
    quiet = (VOICE_GRID > 30) & (VOICE_GRID < 15e3)
    apart = np.abs(levels - expected)[quiet]
    assert np.median(apart) < 0.05
    low, high = known_band(a.acoustic.scene)
    assert low == 20.0
    assert high <= 20e3


def test_the_fan_of_measured_ways_reaches_as_far_as_they_and_beams():
    a = assess(read_demo("headland"))
    fan = fan_of(a, a.acoustic)
    assert sorted(fan.sums) == [0.0, 15.0, 30.0, 45.0, 60.0]
    assert fan.pistons == ()
    top = VOICE_GRID > 12e3
    assert np.median(np.abs(fan.sums[60.0])[top] / np.abs(fan.sums[0.0])[top]) < 0.5
    assert np.all(fan.average <= np.max([np.abs(p) for p in fan.sums.values()], axis=0) + 1e-12)


def test_a_predicted_fan_is_of_pistons_and_starts_from_the_axis():
    a = assess(read_demo("regatta"))
    fan = fan_of(a, a.acoustic)
    assert fan.pistons == (0, 1)
    assert fan.reach == 90.0
    np.testing.assert_allclose(fan.sums[0.0], ways_heard(a, a.acoustic).whole, rtol=1e-12)
