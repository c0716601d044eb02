"""What the side panel says holds the promises: the right name, and figures that can be trusted."""

import re

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.chain import links
from firecrest.assessment.further import filter_that_holds_reach, loudness_above_own_reach
from firecrest.core.arrays import decibel
from firecrest.design.blocks import HighPass
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.files.demos import read_demo
from firecrest.present.frame.meters import meter
from firecrest.present.plot.ceiling import ceiling_plot, voice_ceiling_plot
from firecrest.present.promise.brief import clauses
from firecrest.present.text.notes import said
from firecrest.present.text.sentences import why

LEVEL = ("brief", "loudness", "level")
BLOCKS = ("voice", "channels", 0, "blocks")


def told(design):
    return " ".join(s.plain for s in why(assess(design)))


def test_a_level_just_over_what_can_be_held_is_close_and_says_what_can(slipway):
    most = assess(slipway).acoustic.programme.level
    short_runtime = set_number(slipway, ("brief", "runtime", "duration"), 600.0)
    for over, state in ((-0.2, "met"), (0.4, "close"), (1.5, "short")):
        asked = set_number(short_runtime, ("brief", "runtime", "level"), most + over)
        assert assess(asked).promise("runtime").state == state
    close = set_number(short_runtime, ("brief", "runtime", "level"), most + 0.4)
    assert said(assess(close).promise("runtime").reason) == (
        f"{most + 0.4:.1f} dB cannot be held: {most:.1f} dB can"
    )


def test_a_missed_reach_is_not_laid_to_loudness(slipway):
    """A small closed box asked for 30 Hz: short there, loud above its own F6."""
    deep = set_number(slipway, ("brief", "bass", "frequency"), 30.0)
    a = assess(deep)
    level, reach = loudness_above_own_reach(a, a.acoustic)
    assert reach > 33
    assert level > a.promise("loudness").predicted + 2
    assert f"It plays {level:.0f} dB above {reach:.0f}" in told(deep)
    assert "its own F6" not in told(set_number(slipway, LEVEL, 110.0))


def test_every_link_tells_its_own_worst_note(slipway):
    a = assess(slipway)
    for link in a.links:
        if link.spare is None or link.key == "listener":
            continue
        for hertz in (50.0, 70.0, 120.0, 300.0):
            there = next(x for x in links(slipway, a.acoustic, hertz) if x.key == link.key)
            assert link.spare <= (there.spare if there.spare is not None else 1e9) + 0.02
        pinned = next(x for x in links(slipway, a.acoustic, link.frequency) if x.key == link.key)
        assert pinned.spare == pytest.approx(link.spare, abs=1e-6)
    assert len({round(x.frequency) for x in a.links if x.frequency}) > 1


def test_a_filter_that_holds_the_level_is_named_not_full_scale(slipway):
    steep = HighPass(kind="high_pass", frequency=90.0, order=8)
    filtered = replace_at(slipway, BLOCKS, (steep,))
    low_input = set_number(filtered, ("power", "boards", 1, "part", "full_scale"), 0.4)
    text = told(set_number(low_input, LEVEL, 100.0))
    assert "The 90\u202fHz high-pass holds it" in text
    assert "Full scale gives out first" not in text


def test_a_filter_that_holds_the_reach_is_named(slipway):
    steep = HighPass(kind="high_pass", frequency=62.0, order=8)
    text = told(replace_at(slipway, BLOCKS, (steep,)))
    assert "Bass stops at" in text
    assert "The 62\u202fHz high-pass holds it." in text
    travel = assess(slipway)  # its 40 Hz high-pass is not what stops it: the radiators are
    assert travel.acoustic.reaches.at_level.frequency > 50
    assert "high-pass holds it" not in told(slipway)


@pytest.mark.parametrize(("name", "corner"), [("regatta", 70), ("gangway", 50), ("breakwater", 36)])
def test_the_high_pass_of_a_higher_way_is_not_what_holds_the_reach(name, corner):
    assessed = assess(read_demo(name))
    path, found = filter_that_holds_reach(assessed, assessed.acoustic)
    assert (path[2], found) == (0, corner)


def test_place_and_baffle_step_stand_beside_the_reach(slipway):
    deep = set_number(slipway, ("brief", "bass", "frequency"), 40.0)
    assert "without the baffle step" in told(deep)
    stepped = replace_at(deep, ("brief", "listening", "baffle"), True)
    tooltip = meter(assess(stepped).promise("bass"), stepped).tooltip
    assert "with the baffle step" in tooltip
    wall = replace_at(deep, ("brief", "listening", "place"), "wall")
    assert "against a wall" in meter(assess(wall).promise("bass"), wall).tooltip


def test_the_loudness_told_above_f6_is_what_the_ceiling_has(slipway):
    deep = set_number(slipway, ("brief", "bass", "frequency"), 30.0)
    a = assess(deep)
    level, reach = loudness_above_own_reach(a, a.acoustic)
    band = (a.acoustic.frequency > 3 * reach) & (a.acoustic.frequency < a.acoustic.f_hi)
    assert level <= a.acoustic.top.level[band].min() + 0.01
    unit = a.acoustic.unit_level[band] + decibel(1.0)
    assert unit.shape == a.acoustic.top.level[band].shape


def test_a_box_whose_source_is_too_low_is_told_in_words_and_drawn_without_curves(slipway):
    """Nothing is left at any note: there is no figure to be infinite."""
    dead = assess(set_number(slipway, ("power", "source", "series"), 1))
    assert not dead.acoustic.plays
    assert assess(slipway).acoustic.plays
    told = " ".join(sentence.plain for sentence in why(dead))
    told += " ".join(clause.text for clause in clauses(dead, None))
    assert "Nothing plays" in told
    assert not re.search(r"\b(inf|nan)\b", told)
    assert "held note" not in told
    for plot in (ceiling_plot(dead), voice_ceiling_plot(dead)):
        assert plot.message == "nothing clean can be played: one part has nothing to give"
        assert plot.curves == ()
