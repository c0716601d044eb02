"""Limiters as they are set from what the parts bear."""

from dataclasses import replace

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.voicing.guarding import guards
from firecrest.core.errors import DesignError
from firecrest.core.voice.protection import Lowest
from firecrest.present.voice.guarding import guard_facts, guarded


@pytest.fixture
def limits(slipway):
    """Slipway assessed, and what its parts bear."""
    now = assess(slipway)
    (found,) = guards(now, now.acoustic, any_sine=True)
    return now, found


def test_a_limiter_holds_at_most_where_a_board_can_be_told_to(limits):
    """A lower threshold than asked for protects as well; a higher one than can be set would not."""
    now, found = limits
    far = replace(found, peak=replace(found.peak, volts_set=900.0))
    assert guarded(now, 0, far, now.design).voice.channels[0].limiter == 400.0
    near = replace(found, peak=replace(found.peak, volts_set=0.02))
    with pytest.raises(DesignError, match=r"0\.1"):
        guarded(now, 0, near, now.design)


def test_thresholds_are_set_to_hundredths(limits):
    now, found = limits
    channel = guarded(now, 0, found, now.design).voice.channels[0]
    assert channel.limiter == round(found.peak.volts_set, 2)


def test_what_bears_nothing_is_told_and_not_called_safe(limits):
    now, found = limits
    nothing = {"radiator": Lowest(0.0, 50.0)}
    (fact, *_) = guard_facts(now, 0, replace(found, allowed=nothing, peak=None, long_term=None))
    assert (fact.name, fact.value, fact.mark) == ("Beyond any limiter", "radiator travel", "short")
    (safe,) = guard_facts(now, 0, replace(found, allowed={}, peak=None, long_term=None))
    assert safe.value == "not needed"
