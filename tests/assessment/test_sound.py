"""What is heard: sources, their sum, voices and delay, from one place."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.sound import (
    delay_of,
    flat_level,
    flat_voices,
    source_pressures,
    voices_at,
    whole_pressure,
)
from firecrest.core.acoustics.radiation import level
from firecrest.design.voice import Voice
from firecrest.files.demos import demo_names, read_demo


@pytest.mark.parametrize("name", demo_names())
def test_sources_and_leaks_add_up_to_the_sum(name):
    design = read_demo(name)
    a = assess(design).acoustic
    voices = voices_at(design.voice, design.power.dsp.sample_rate, a.frequency)
    alone = sum(p for _, p in source_pressures(a.scene, voices))
    np.testing.assert_allclose(alone, whole_pressure(a.scene, voices, leaks=False), rtol=1e-9)
    np.testing.assert_allclose(level(whole_pressure(a.scene, voices)), a.unit_level, atol=1e-9)


def test_without_blocks_the_voice_changes_nothing(slipway):
    a = assess(slipway).acoustic
    flat = level(whole_pressure(a.scene, flat_voices(1, a.frequency)))
    np.testing.assert_allclose(flat, flat_level(a.scene))
    np.testing.assert_allclose(flat, a.level_before_voice)
    assert np.max(np.abs(a.unit_level - flat)) > 1


def test_the_delay_after_the_voice_is_that_before_it_and_the_filters_own(slipway):
    """Delays of a product add: with one channel the voice's own phase slope is the difference."""
    a, rate = assess(slipway).acoustic, slipway.power.dsp.sample_rate
    grid = np.geomspace(30, 400, 40)
    after, before = (delay_of(a.scene, v, rate, grid) for v in (slipway.voice, None))
    step = 1e-4
    phase = [
        np.unwrap(np.angle(voices_at(slipway.voice, rate, grid * (1 + s))[0]))
        for s in (-step, step)
    ]
    own = -(phase[1] - phase[0]) / (2 * np.pi * grid * 2 * step)
    np.testing.assert_allclose(after - before, own, atol=2e-6)
    single = Voice(channels=(slipway.voice.channels[0],))
    np.testing.assert_allclose(delay_of(a.scene, single, rate, grid), after)
