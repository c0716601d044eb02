"""Measured responses of ways in an assessment: one factor on the model's pressure."""

from dataclasses import replace
from math import pi

import numpy as np
import pytest
from tests.unplaced import unplaced

from firecrest.assessment.assess import assess
from firecrest.assessment.sound import voices_at, whole_pressure
from firecrest.assessment.vary import vary
from firecrest.core.acoustics.radiation import level
from firecrest.design.curve import WayCurve
from firecrest.design.edits.paths import replace_at
from firecrest.design.voice import WayResponse

F = np.geomspace(40, 20e3, 430)


@pytest.fixture(scope="module")
def slipway():
    return unplaced("slipway")


def text_of(levels, phase=None):
    columns = [F, levels] + ([] if phase is None else [phase])
    return "\n".join(" ".join(f"{x:.6f}" for x in row) for row in zip(*columns, strict=True))


def with_curve(design, levels, phase=None, response=None, **stated):
    curve = WayCurve(name="made up", content=text_of(levels, phase), **stated)
    made = replace(response or WayResponse(), curves=(curve,))
    return replace_at(design, ("voice", "channels", 0, "response"), made)


def far_model(design, f, distance=1.0):
    """Level and phase of the model on a pole per 2.83 V: the curve that changes nothing."""
    free = replace(design.brief.listening, place="pole", distance=distance, room=None, baffle=True)
    scene = assess(replace(design, brief=replace(design.brief, listening=free))).acoustic.scene
    pressure = 2.83 * whole_pressure(scene.at(f), [np.ones(len(f))] * len(scene.ways.measured))
    return level(pressure), np.degrees(np.unwrap(np.angle(pressure)))


def test_the_models_own_curve_changes_nothing(slipway):
    levels, phase = far_model(slipway, F)
    made = with_curve(slipway, levels, phase, distance=1.0, volts=2.83)
    before, after = assess(slipway).acoustic, assess(made).acoustic
    inside = (before.frequency > 45) & (before.frequency < 19e3)
    np.testing.assert_allclose(after.unit_level[inside], before.unit_level[inside], atol=0.02)
    assert after.scene.ways.joins[0].step == pytest.approx(0.0, abs=0.02)


def test_a_louder_curve_is_louder_and_moves_nothing_else(slipway):
    levels, phase = far_model(slipway, F)
    made = with_curve(slipway, levels + 4, phase, distance=1.0, volts=2.83)
    before, after = assess(slipway).acoustic, assess(made).acoustic
    inside = before.frequency < 19e3
    np.testing.assert_allclose(after.unit_level[inside], before.unit_level[inside] + 4, atol=0.03)
    for a, b in zip(after.transfers.excursion, before.transfers.excursion, strict=True):
        np.testing.assert_array_equal(a, b)


@pytest.mark.parametrize(
    ("stated", "factor"),
    [({"distance": 2.0, "volts": 2.83}, -6.02), ({"distance": 1.0, "volts": 5.66}, 6.02)],
)
def test_drive_and_distance_of_a_curve_are_reckoned_with(slipway, stated, factor):
    levels, phase = far_model(slipway, F)
    made = with_curve(slipway, levels + factor, phase, **stated)
    before, after = assess(slipway).acoustic, assess(made).acoustic
    inside = (before.frequency > 45) & (before.frequency < 19e3)
    np.testing.assert_allclose(after.unit_level[inside], before.unit_level[inside], atol=0.05)


def test_a_curve_without_drive_takes_its_level_from_the_model(slipway):
    levels, phase = far_model(slipway, F)
    made = with_curve(slipway, levels - 37, phase)
    before, after = assess(slipway).acoustic, assess(made).acoustic
    inside = (before.frequency > 45) & (before.frequency < 19e3)
    np.testing.assert_allclose(after.unit_level[inside], before.unit_level[inside], atol=0.02)
    assert after.scene.ways.joins[0].hold == "model"
    assert after.scene.ways.joins[0].step == pytest.approx(37.0 - 20 * np.log10(2.83), abs=0.02)


def test_levels_alone_sum_as_well(slipway):
    levels, _ = far_model(slipway, F)
    made = with_curve(slipway, levels, distance=1.0, volts=2.83)
    before, after = assess(slipway).acoustic, assess(made).acoustic
    inside = (before.frequency > 45) & (before.frequency < 19e3)
    np.testing.assert_allclose(after.unit_level[inside], before.unit_level[inside], atol=0.05)


def test_loudness_is_judged_further_up_where_all_ways_are_measured(slipway):
    levels, phase = far_model(slipway, F)
    made = with_curve(slipway, levels, phase, distance=1.0, volts=2.83)
    assert assess(slipway).acoustic.f_hi <= 500
    assert assess(made).acoustic.f_hi == pytest.approx(10e3)


def test_many_designs_at_once_equal_each_alone(slipway):
    levels, phase = far_model(slipway, F)
    response = WayResponse(join=300.0)
    made = with_curve(slipway, levels + 1, phase, response, distance=1.0, volts=2.83)
    path = ("box", "case", "depth")
    values = np.array([0.17, 0.19])
    found = vary(made, {path: values})
    for k, value in enumerate(values):
        alone = assess(replace_at(made, path, float(value)))
        assert found.promises(k)[0].predicted == pytest.approx(
            alone.promise("loudness").predicted, rel=1e-9
        )


def test_curves_off_the_axis_do_not_count_on_it(slipway):
    levels, phase = far_model(slipway, F)
    made = with_curve(slipway, levels + 9, phase, distance=1.0, volts=2.83, angle=pi / 6)
    assert assess(made).acoustic.unit_level == pytest.approx(assess(slipway).acoustic.unit_level)


def test_a_measured_way_is_voiced_like_any_other(slipway):
    levels, phase = far_model(slipway, F)
    made = with_curve(slipway, levels, phase, distance=1.0, volts=2.83)
    scene, rate = assess(made).acoustic.scene, made.power.dsp.sample_rate
    voices = voices_at(made.voice, rate, scene.frequency)
    assert level(whole_pressure(scene, voices)) == pytest.approx(assess(made).acoustic.unit_level)
