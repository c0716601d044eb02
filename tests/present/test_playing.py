"""What is played: the promise, or a flat input by watts, volts or the amplifier's swing."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.motion import PROMISE, Played, motion_of
from firecrest.core.errors import RangeError
from firecrest.design.brief import LINEAR
from firecrest.design.edits.brief import with_edges
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.plot import views
from firecrest.present.plot.playing import CHOICES, played_text, read_played

SEEN = slice(*np.searchsorted(np.geomspace(10, 1000, 241), [20, 500]))


@pytest.mark.parametrize("name", demo_names())
def test_a_flat_input_is_measured_by_what_it_asks_and_scales(name):
    a, linear = assess(read_demo(name)), assess(with_edges(read_demo(name), LINEAR)[1])
    watts, more = (motion_of(linear, linear.acoustic, Played("watts", p)) for p in (1.0, 4.0))
    assert more.cone[0] == pytest.approx(2 * watts.cone[0])
    watts = motion_of(a, a.acoustic, Played("watts", 1.0))
    seen = (watts.frequency >= 20) & (watts.frequency <= 500)
    assert watts.watts[seen].max() == pytest.approx(1.0, rel=1e-4)
    volts = motion_of(a, a.acoustic, Played("volts", 2.0))
    assert max(np.max(np.broadcast_to(v, seen.shape)[seen]) for v in volts.volts) == pytest.approx(
        2
    )
    full = motion_of(a, a.acoustic, Played("full"))
    swing = min(k.factor[seen].min() for k in a.acoustic.top.limits if k.name == "swing")
    assert full.drive == pytest.approx(swing)


def test_nothing_jumps_with_a_flat_input(slipway):
    """At the promise travel falls where the held low note ends; a flat input has no such note."""
    a = assess(slipway)
    steps = [
        np.max(np.abs(np.diff(np.log(motion_of(a, a.acoustic, p).cone[0][30:200]))))
        for p in (PROMISE, Played("watts", 1.0))
    ]
    assert steps[1] < 0.25 < steps[0]


@pytest.mark.parametrize(
    ("text", "played"),
    [("at the promise", PROMISE), ("1 W", CHOICES[1][0]), ("at 2,83 V", Played("volts", 2.83)),
     ("10", Played("watts", 10.0)), ("500 mV", Played("volts", 0.5))],
)  # fmt: skip
def test_it_is_typed_as_watts_or_volts(text, played):
    assert read_played(text) == played
    assert read_played(played_text(played)) == played


@pytest.mark.parametrize("text", ["", "loud", "0 W", "-3 V", "1e9 W"])
def test_what_cannot_be_played_is_refused(text):
    with pytest.raises(RangeError):
        read_played(text)


def test_plots_say_what_is_played(slipway):
    a = assess(slipway)
    for plot in (views.travel_plot(a, None, Played("watts", 1.0)), views.pressure_plot(a)):
        assert plot.notes
    response = views.response_plot(a, played=Played("watts", 1.0))
    assert "At 1 W: 0" in response.notes[-1]
    low = Played("watts", 4.0)
    levels = [views.response_plot(a, played=p).notes[-1] for p in (Played("watts", 1.0), low)]
    first, second = (float(t.split(" is ")[1].split("\u202f")[0]) for t in levels)
    assert second - first == pytest.approx(6.02, abs=0.1)
