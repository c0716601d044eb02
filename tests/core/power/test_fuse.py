"""Fuses: the smallest that carries, breaks and bears the inrush."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.core.power.fuse import BLADE, SLOW_TUBE, Asked, fuse_for, inrush, passes

PACK = Asked(long=2.0, bench=4.2, volts=21.0, short_circuit=320.0, inrush=1.8)


def test_the_rating_carries_music_and_a_test_tone():
    assert PACK.least == 4.2
    found = fuse_for(PACK)
    assert (found.kind, found.rating, found.reason) == (BLADE, 5, "bench")
    steady = replace(PACK, long=5.0)
    assert steady.least == pytest.approx(6.25)
    assert (fuse_for(steady).rating, fuse_for(steady).reason) == (7.5, "long")


def test_high_volts_and_hard_shorts_ask_for_another_kind():
    assert fuse_for(replace(PACK, volts=40.0)).kind == SLOW_TUBE
    assert fuse_for(replace(PACK, short_circuit=1200.0)).kind == SLOW_TUBE
    assert fuse_for(replace(PACK, short_circuit=2000.0)) is None


def test_inrush_asks_for_a_slower_or_a_larger_one_or_for_a_soft_start():
    slow = fuse_for(replace(PACK, inrush=20.0))
    assert (slow.kind, slow.reason) == (SLOW_TUBE, "bench")
    larger = fuse_for(replace(PACK, inrush=100.0))
    assert larger.reason == "inrush"
    assert passes(SLOW_TUBE, larger.rating, replace(PACK, inrush=100.0))
    assert fuse_for(replace(PACK, inrush=1e5)) is None


def test_inrush_is_that_of_a_capacitor_through_a_resistor():
    """Integral of (V/R)^2 e^(-2t/RC) = V^2 C/(2 R)."""
    peak, melts = inrush(20.0, 1e-3, 0.08)
    t = np.linspace(0, 2e-3, 200_001)
    current = 20.0 / 0.1 * np.exp(-t / (0.1 * 1e-3))
    assert peak == pytest.approx(200.0)
    assert melts == pytest.approx(np.trapezoid(current**2, t), rel=1e-4)
    assert inrush(20.0, 0.0, 0.08) == (0.0, 0.0)
