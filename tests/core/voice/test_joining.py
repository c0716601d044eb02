"""A curve and a model joined: what stays, and what goes over."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.voice.chain import Filter, analogue_response
from firecrest.core.voice.joining import extended, join_of, joined, share_of_curve
from firecrest.core.voice.response import Response, response_from

F = np.geomspace(10, 20e3, 400)
MODEL = analogue_response(Filter("high_pass", 70.0), F)
MEASURED = F[F > 150]


def curve_of(gain, delay, turned=False):
    full = analogue_response(Filter("high_pass", 70.0), MEASURED)
    sign = -1 if turned else 1
    return response_from(MEASURED, sign * gain * full * np.exp(-2j * np.pi * MEASURED * delay))


@given(st.floats(0.3, 3), st.floats(-2e-4, 2e-4), st.booleans(), st.sampled_from([250.0, 600.0]))
def test_a_curve_of_the_model_itself_joins_to_the_model(gain, delay, turned, f_join):
    """Only gain, time and polarity differ: all three are found, and the sum is the model again."""
    at = analogue_response(Filter("high_pass", 70.0), np.array([f_join]))
    curve = curve_of(gain, delay, turned)
    for hold, factor in (("measurement", gain), ("model", 1.0)):
        join = join_of(at, curve, f_join, hold)
        assert join.step == pytest.approx(-20 * np.log10(gain), abs=1e-3)
        assert bool(join.turned[0]) == turned
        found = joined(join, MODEL, curve, F, 12.0)
        assert np.abs(found) == pytest.approx(factor * np.abs(MODEL), rel=2e-3)
        late = np.exp(-2j * np.pi * F * delay) * (-1 if turned else 1)
        np.testing.assert_allclose(found, factor * MODEL * late, rtol=4e-3)


def test_the_curve_takes_over_within_an_octave():
    share = share_of_curve(np.array([200.0, 300 / 2**0.5, 300.0, 300 * 2**0.5, 900.0]), 300.0)
    assert share == pytest.approx([0.0, 0.0, 0.5, 1.0, 1.0], abs=1e-12)


def test_levels_alone_get_the_phase_of_the_joined_level():
    curve = Response(MEASURED, curve_of(2.0, 0.0).level, None)
    at = analogue_response(Filter("high_pass", 70.0), np.array([300.0]))
    found = joined(join_of(at, curve, 300.0, "model"), MODEL, curve, F, 12.0)
    assert np.abs(found) == pytest.approx(np.abs(MODEL), rel=2e-3)
    inside = (F > 30) & (F < 5000)
    apart = np.degrees(np.angle(found / MODEL))[inside]
    assert np.max(np.abs(apart)) < 3.0


def test_columns_of_models_each_join():
    curve, frequency = curve_of(1.0, 0.0), np.array([300.0])
    at = analogue_response(Filter("high_pass", 70.0), frequency)
    both = np.array([[1.0], [2.0]])
    join = join_of(both * at, curve, 300.0, "measurement")
    found = joined(join, both * MODEL, curve, F, 12.0)
    np.testing.assert_allclose(found[0], found[1], rtol=1e-12)


def test_a_curve_goes_on_by_its_tails():
    curve = Response(MEASURED, -12 * np.log2(MEASURED / 150), None)
    beyond = extended(curve, np.array([40e3]))
    assert beyond.level == pytest.approx(-12 * np.log2(40e3 / 150), abs=1e-6)
