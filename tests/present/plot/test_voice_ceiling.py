"""What a boost takes of the ceiling, and the promise laid flat."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.design.edits.paths import set_number
from firecrest.design.edits.voice import add_block
from firecrest.files.demos import read_demo
from firecrest.present.plot.ceiling import ceiling_plot, voice_ceiling_plot

LEVEL = ("brief", "loudness", "level")


def shelved(gain):
    """The instrument box with a low shelf."""
    _, made = add_block(read_demo("capstan"), 0, "low_shelf")
    place = [b.kind for b in made.voice.channels[0].blocks].index("low_shelf")
    return set_number(made, ("voice", "channels", 0, "blocks", place, "gain"), gain)


def test_what_a_boost_takes_lies_between_both_ceilings_up_to_the_label():
    plot = voice_ceiling_plot(assess(shelved(6.0)))
    after, without = (np.interp(plot.taken.x, c.x, c.y) for c in plot.curves)
    assert np.array_equal(plot.taken.low, after)
    assert plot.taken.high == pytest.approx(np.maximum(after, without))
    most = float(np.max(plot.taken.high - plot.taken.low))
    assert plot.marks[0].label.startswith(f"EQ takes {most:.1f} dB")
    assert voice_ceiling_plot(assess(shelved(0.0))).taken is None


def test_the_shortfall_is_that_of_size_on_a_flat_promise():
    found = assess(set_number(shelved(6.0), LEVEL, 112.0))
    flat, shaped = voice_ceiling_plot(found).shortfall, ceiling_plot(found).shortfall
    assert flat.label == shaped.label
    assert flat.high == pytest.approx(np.full(len(flat.x), 112.0))
    assert flat.high - flat.low == pytest.approx(shaped.high - shaped.low)
