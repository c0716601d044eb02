"""Levels, delays and polarities found again in fifty made-up sets of ways."""

import numpy as np
import pytest

from firecrest.core.voice.alignment import (
    Pair,
    Setting,
    band_of_way,
    best_delay,
    delays_of,
    gains_of,
    half_turns,
    octave,
    offset_in,
    to_sample,
    tracking,
)
from firecrest.core.voice.chain import Filter, analogue_response, chain_responses
from firecrest.core.voice.phase import arrival
from firecrest.core.voice.response import response_from

F = np.geomspace(20, 40e3, 530)
RATE = 48000.0


def truth(seed):
    """(crossovers, delays in s, polarities, gains in dB) of a set of three ways."""
    random = np.random.default_rng(seed)
    corners = random.uniform(280, 420), random.uniform(2200, 3600)
    delays = np.concatenate(([0.0], random.uniform(-1.2e-4, 1.2e-4, 2)))
    turned = np.concatenate(([False], random.random(2) < 0.5))
    return corners, delays, turned, random.uniform(-6, 6, 3)


SHAPES = ((55.0, 4, 2500.0, 2), (160.0, 2, 9000.0, 2), (900.0, 2, 24000.0, 1))


def way_of(seed, k, shaped):
    """One way of a set: a plain delay, or a driver with its own roll-offs besides."""
    _, delays, turned, gains = truth(seed)
    low, up, high, down = SHAPES[k]
    blocks = [Filter("high_pass", low, order=up), Filter("low_pass", high, order=down)]

    def _pressure(f):
        size = (-1 if turned[k] else 1) * 10 ** (gains[k] / 20)
        own = np.prod([analogue_response(b, f) for b in blocks], axis=0) if shaped else 1.0
        return size * own * np.exp(-2j * np.pi * f * delays[k])

    return _pressure


@pytest.mark.parametrize("seed", range(50))
def test_fifty_sets_of_three_ways_arrive_as_they_were_made(seed):
    """Offsets of ways with roll-offs of their own within 0.012 ms, and every polarity."""
    _, delays, turned, _ = truth(seed)
    bands = ((200.0, 2000.0), (500.0, 6000.0), (2000.0, 18000.0))
    found = [arrival(response_from(F, way_of(seed, k, True)(F)), *bands[k]) for k in range(3)]
    assert [a.inverted for a in found] == turned.tolist()
    for a, delay in zip(found, delays, strict=True):
        assert a.delay - found[0].delay == pytest.approx(delay, abs=1.2e-5)


@pytest.mark.parametrize("seed", range(50))
def test_fifty_sets_of_three_ways_are_lined_up_again(seed):
    """Of plain delays with the filters of one crossover, the finder's answer is what was put in."""
    corners, delays, turned, levels = truth(seed)
    gains = gains_of(levels.tolist())

    def _chained(k, kind, corner):
        way = way_of(seed, k, False)
        block = Filter(kind, corner, family="linkwitz_riley", order=4 if seed % 2 else 8)
        return lambda f: way(f) * chain_responses(gains[k], False, [block], f, RATE)[-1]

    for k, corner in enumerate(corners):
        start = delays[k] - delays[k + 1]
        pair = Pair(F, _chained(k, "low_pass", corner), _chained(k + 1, "high_pass", corner))
        found = best_delay(pair, corner, start + 2e-5, False).best
        assert found.inverted == (turned[k] != turned[k + 1])
        assert found.delay == pytest.approx(start, abs=1e-7)


def test_delays_add_up_and_none_is_negative():
    delays, turned = delays_of([Setting(-2e-4, True, 0.0), Setting(1e-4, True, 0.0)])
    assert delays == pytest.approx((2e-4, 0.0, 1e-4))
    assert turned == (False, True, False)


def test_quadrature_pairs_are_made_flattest_and_stay_as_they_are():
    low = Filter("low_pass", 1000.0, order=3)
    high = Filter("high_pass", 1000.0, order=3)
    pair = Pair(F, lambda f: analogue_response(low, f), lambda f: analogue_response(high, f))
    assert half_turns("butterworth", 3)
    assert half_turns("bessel", 1)
    assert not half_turns("linkwitz_riley", 4)
    found = best_delay(pair, 1000.0, 0.0, True)
    assert found.criterion == "flattest"
    assert found.best.delay == pytest.approx(0.0, abs=2e-7)
    assert not found.best.inverted
    assert found.best.worth == pytest.approx(0.0, abs=1e-3)


def test_two_ways_in_phase_have_a_deep_null_when_one_is_turned():
    low = Filter("low_pass", 1000.0, family="linkwitz_riley", order=4)
    high = Filter("high_pass", 1000.0, family="linkwitz_riley", order=4)
    pair = Pair(F, lambda f: analogue_response(low, f), lambda f: analogue_response(high, f))
    good = tracking(pair, 1000.0)
    assert good.null > 60
    assert good.null_frequency == pytest.approx(1000.0, rel=1e-3)
    assert good.difference_max == pytest.approx(0.0, abs=1e-9)
    assert good.loss == pytest.approx(0.0, abs=1e-9)
    bad = tracking(Pair(F, pair.low, lambda f: -pair.high(f)), 1000.0)
    assert bad.hole > 60
    assert bad.hole_frequency == pytest.approx(1000.0, rel=1e-3)


def test_bands_lie_half_an_octave_inside_the_crossovers():
    assert band_of_way(300.0, 3000.0, 50.0) == pytest.approx((424.26, 2121.3), rel=1e-4)
    assert band_of_way(None, 300.0, 50.0) == pytest.approx((100.0, 212.13), rel=1e-4)
    assert band_of_way(3000.0, None, 50.0) == pytest.approx((4242.6, 10e3), rel=1e-4)
    assert band_of_way(300.0, 700.0, 50.0) == (300.0, 700.0)
    assert octave(1000.0) == pytest.approx((707.1, 1414.2), rel=1e-4)


def test_a_delay_in_three_units_and_in_whole_samples():
    assert offset_in(1e-4, RATE, 343.2) == pytest.approx((0.1, 4.8, 34.32))
    assert to_sample(1e-4, RATE) == pytest.approx(5 / RATE)
