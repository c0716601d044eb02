"""Chains copied, linked, moved and stored; curves of ways come and go."""

from math import radians

import pytest

from firecrest.core.errors import DesignError
from firecrest.design.blocks import LowPass, OwnCrossover, boost_of, followed, passes
from firecrest.design.curve import WayCurve
from firecrest.design.design import Design
from firecrest.design.edits import presets, voice, ways
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.project import project_of
from firecrest.design.text import project_from_json, project_to_json
from firecrest.files.demos import read_demo

TEXT = "\n".join(f"{f} {80 + f / 1000}" for f in range(100, 2000, 100))


@pytest.fixture
def two() -> Design:
    return read_demo("breakwater")


def chain_of(design, k):
    return [getattr(design.voice.channels[k], name) for name in voice.CHAIN]


def test_a_chain_is_copied_whole_and_nothing_else(two):
    _, made = voice.copy_chain(two, 0, 1)
    assert chain_of(made, 1) == chain_of(two, 0)
    assert made.voice.channels[1].name == "left"
    assert made.voice.channels[2] is two.voice.channels[2]


def test_linked_channels_share_what_is_set_in_either(two):
    _, made = voice.link(two, 2, 1)
    edited = replace_at(made, ("voice", "channels", 1, "gain"), -3.0)
    both = voice.as_the_board_plays(made, edited)
    assert [c.gain for c in both.voice.channels] == [0.0, -3.0, -3.0]
    alone = voice.link(both, 2, None)[1]
    edited = replace_at(alone, ("voice", "channels", 1, "gain"), -5.0)
    assert voice.as_the_board_plays(alone, edited).voice.channels[2].gain == -3.0


def test_linked_sides_keep_their_own_side(two):
    for k, side in ((1, "left"), (2, "right")):
        two = replace_at(two, ("voice", "channels", k, "mix"), side)
    _, made = voice.link(two, 2, 1)
    edited = voice.as_the_board_plays(made, voice.add_block(made, 1, "parametric")[1])
    assert [c.mix for c in edited.voice.channels[1:]] == ["left", "right"]
    assert edited.voice.channels[2].blocks == edited.voice.channels[1].blocks


def test_who_joins_a_link_takes_what_is_there(two):
    louder = replace_at(two, ("voice", "channels", 2, "gain"), 4.0)
    _, made = voice.link(louder, 2, 1)
    assert made.voice.channels[2].gain == two.voice.channels[1].gain


def test_a_board_of_whole_samples_rounds_the_delay(two):
    place = two.power.dsp_place
    whole = replace_at(two, ("power", "boards", place, "part", "whole_samples"), True)
    late = replace_at(whole, ("voice", "channels", 0, "delay"), 1.01e-4)
    rate = two.power.dsp.sample_rate
    delay = voice.as_the_board_plays(whole, late).voice.channels[0].delay
    assert delay * rate == pytest.approx(round(1.01e-4 * rate))


def test_presets_go_aside_and_come_back(two):
    _, made = presets.keep_as(two, "Indoors")
    made = replace_at(made, ("voice", "channels", 0, "gain"), -4.0)
    _, back = presets.switched(made, "As set")
    assert back.voice.channels[0].gain == 0.0
    assert presets.names(back.voice) == ["As set", "Indoors"]
    _, again = presets.switched(back, "Indoors")
    assert again.voice.channels[0].gain == -4.0
    assert project_from_json(project_to_json(project_of(again))).design == again
    _, named = presets.renamed(again, "Hall")
    assert presets.names(named.voice) == ["As set", "Hall"]
    _, gone = presets.removed(named, "Hall")
    assert gone.voice.preset == "As set"
    assert presets.names(gone.voice) == ["As set"]


@pytest.mark.parametrize("name", ["", "  ", "As set"])
def test_a_preset_needs_a_name_of_its_own(two, name):
    with pytest.raises(DesignError):
        presets.keep_as(presets.keep_as(two, "x")[1], name)


def test_the_last_preset_stays(two):
    with pytest.raises(DesignError, match="last preset"):
        presets.removed(two, "As set")


def test_bypass_move_and_remove_groups():
    design = read_demo("headland")
    _, off = voice.bypass_all(design, 1, (0, 1))
    assert all(b.bypassed for b in off.voice.channels[1].blocks)
    assert passes(off.voice.channels[1].blocks[0]) is None
    assert voice.bypass_all(off, 1, (0, 1))[1] == design
    assert voice.bypass(design, 1, 0)[1].voice.channels[1].blocks[0].bypassed
    _, moved = voice.move_group(design, 1, [(0,), (1,)], 0, 1)
    assert [b.kind for b in moved.voice.channels[1].blocks] == ["low_pass", "high_pass"]
    _, gone = voice.remove_blocks(design, 1, (0, 1))
    assert gone.voice.channels[1].blocks == ()
    assert voice.sections_used(off.voice.channels[1]) == 0


def test_an_amplifiers_own_crossover_is_fixed_and_last():
    design = read_demo("capstan")
    blocks = design.voice.channels[0].blocks
    assert isinstance(blocks[-1], OwnCrossover)
    _, more = voice.add_block(design, 0, "parametric")
    assert isinstance(more.voice.channels[0].blocks[-1], OwnCrossover)
    with pytest.raises(DesignError, match="already"):
        voice.add_block(design, 0, "own_crossover")
    with pytest.raises(DesignError, match="stays last"):
        voice.move_group(design, 0, [(0,), (1,)], 1, 0)
    with pytest.raises(DesignError, match="fixed"):
        replace_at(design, ("voice", "channels", 0, "blocks", 1), rebuilt(blocks[1], order=4))
    with pytest.raises(DesignError, match="goes from"):
        replace_at(design, ("voice", "channels", 0, "blocks", 1, "frequency"), 90.0)
    with pytest.raises(DesignError, match="no crossover of its own"):
        voice.add_block(read_demo("headland"), 0, "own_crossover")


def test_curves_replace_those_at_their_angle_and_a_bad_text_is_refused():
    design = read_demo("regatta")
    curves = [WayCurve(name=f"{a}", angle=radians(a), content=TEXT) for a in (30, 0)]
    _, made = ways.with_curves(design, 0, curves)
    assert [c.name for c in made.voice.channels[0].response.curves] == ["0", "30"]
    newer = WayCurve(name="new", angle=radians(30.1), content=TEXT)
    _, made = ways.with_curves(made, 0, [newer])
    assert [c.name for c in made.voice.channels[0].response.curves] == ["0", "new"]
    assert ways.without_curve(made, 0, 0)[1].voice.channels[0].response.curves == (newer,)
    assert ways.without_curves(made, 0)[1] == design
    with pytest.raises(ValueError, match="0 points"):
        WayCurve(name="bad", content="nothing")


def test_both_corners_are_moved_together():
    design = read_demo("headland")
    _, made = ways.crossed_at(design, (1, 1), (2, 0), 3100.0)
    assert made.voice.channels[1].blocks[1].frequency == 3100.0
    assert made.voice.channels[2].blocks[0].frequency == 3100.0


def test_boosts_count_only_in_force():
    _, made = voice.add_block(read_demo("regatta"), 0, "low_shelf")
    shelf = made.voice.channels[0].blocks[-1]
    assert boost_of(shelf) == 3.0
    assert boost_of(rebuilt(shelf, bypassed=True)) == 0.0


def test_filters_come_before_the_amplifiers_own_crossover():
    chain = read_demo("capstan").voice.channels[0].blocks
    low = LowPass(kind="low_pass", frequency=300.0)
    assert [b.kind for b in followed(chain, low, low)] == [
        *("high_pass", "low_pass", "low_pass", "own_crossover")
    ]
    assert followed((low,), low) == (low, low)
