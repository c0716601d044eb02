"""Motion at the promise: its drive, its watts, and that every view has the same."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.motion import chamber_pressures, largest, motion_of
from firecrest.core.arrays import decibel
from firecrest.core.circuit.solution import output_impedance
from firecrest.design.edits.paths import set_number
from firecrest.present.plot.views import travel_plot


def test_from_the_promised_note_up_the_drive_makes_the_promised_level(slipway):
    a = assess(slipway).acoustic
    motion = motion_of(assess(slipway), a)
    above = a.frequency >= slipway.brief.bass.frequency
    level = a.unit_level + decibel(motion.drive)
    np.testing.assert_allclose(level[above], a.asked[above], atol=1e-9)
    steps = np.diff(motion.drive[~above])
    assert np.all(steps > 0)  # a held note is softer the lower it is


def test_watts_are_volts_squared_over_what_the_outputs_see(slipway):
    done = assess(slipway)
    a, motion = done.acoustic, motion_of(done, done.acoustic)
    z = output_impedance(a.solution, 0)
    outputs = slipway.voice.channels[0].outputs
    watts = outputs * motion.volts[0] ** 2 * np.real(1 / z)
    np.testing.assert_allclose(motion.watts, watts, rtol=1e-9)


def test_travel_meets_its_limit_where_the_promise_meets_the_ceiling(slipway):
    """20 lg of limit over travel is the margin of that part's limit to what is asked."""
    done = assess(slipway)
    a, motion = done.acoustic, motion_of(done, done.acoustic)
    cone = next(x for x in a.limits if x.name == "cone")
    above = a.frequency >= slipway.brief.bass.frequency
    spare = decibel(a.ratings.x_max[0] / motion.cone[0])
    margin = a.unit_level + decibel(cone.factor) - a.asked
    np.testing.assert_allclose(spare[above], margin[above], atol=1e-9)


def test_six_decibels_more_are_twice_the_motion_and_pressure(slipway):
    louder = set_number(slipway, ("brief", "loudness", "level"), slipway.brief.loudness.level + 6)
    found = [(d, d.acoustic) for d in map(assess, (slipway, louder))]
    soft, loud = (motion_of(*pair) for pair in found)
    ratio = 10 ** (6 / 20)
    np.testing.assert_allclose(loud.opening[0], ratio * soft.opening[0], rtol=1e-9)
    soft_air, loud_air = (chamber_pressures(*pair) for pair in found)
    np.testing.assert_allclose(loud_air[0], ratio * soft_air[0], rtol=1e-9)


def test_the_largest_is_looked_for_in_its_band():
    f = np.array([10.0, 50.0, 150.0, 400.0])
    assert largest(np.array([9.0, 2.0, 3.0, 8.0]), f) == (3.0, 150.0)
    assert largest(np.array([9.0, 2.0, 3.0, 8.0]), f, 500.0) == (8.0, 400.0)


def test_the_travel_view_tells_the_drive_where_one_points(slipway):
    done = assess(slipway)
    motion = motion_of(done, done.acoustic)
    rows = {row.name: row.value for row in travel_plot(done, 80.0).readout.rows}
    volts = float(np.interp(80.0, motion.frequency, motion.volts[0]))
    assert float(rows["volts at the outputs"]) == pytest.approx(volts, abs=0.06)
    assert float(rows["watts into all drivers"]) > 0
