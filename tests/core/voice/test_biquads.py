"""Digital sections against the transform they come from."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.voice.biquads import digital_section, one_sample, section_response
from firecrest.core.voice.prototypes import Section, low_shelf, parametric


@given(st.floats(10, 15000), st.floats(10, 20000), st.floats(-12, 12), st.floats(0.3, 4))
def test_the_bilinear_transform_maps_each_frequency_to_one_of_the_prototype(f, corner, gain, q):
    """z at f stands for s = j tan(pi f/fs)/tan(pi fc/fs): exact, warped, equal at the corner."""
    rate, section = 48000.0, parametric(gain, q)
    found = section_response(
        digital_section(section, corner, rate), one_sample(np.array([f]), rate)
    )
    warped = corner * np.tan(np.pi * f / rate) / np.tan(np.pi * corner / rate)
    np.testing.assert_allclose(found, section.response(np.array([warped]), corner), rtol=1e-7)


def test_constant_and_half_the_rate_keep_the_ends_of_the_prototype():
    shelf = digital_section(low_shelf(6.0, 0.7), 100.0, 48000.0)
    ends = section_response(shelf, one_sample(np.array([1e-6, 24000.0]), 48000.0))
    assert np.abs(ends) == pytest.approx([10 ** (6 / 20), 1.0], rel=1e-6)


def test_one_sample_turns_a_whole_turn_at_the_rate():
    assert one_sample(np.array([48000.0, 24000.0, 12000.0]), 48000.0) == pytest.approx([1, -1, -1j])


def test_the_leading_coefficient_is_one():
    biquad = digital_section(Section((1.0, 0.0, 0.0), (1.0, 1.4, 1.0)), 50.0, 96000.0)
    assert biquad[3] == 1.0
