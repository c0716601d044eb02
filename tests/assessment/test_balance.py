"""Ways that play louder than the lowest one in their own bands."""

from itertools import pairwise

from firecrest.assessment.assess import assess
from firecrest.assessment.balance import balance
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.files.demos import read_demo
from firecrest.present.frame.moves import moves_of
from firecrest.present.text.sentences import why


def sides(gain):
    """Breakwater with its sides ``gain`` dB louder."""
    design = read_demo("breakwater")
    for place in (1, 2):
        path = ("voice", "channels", place, "gain")
        design = set_number(design, path, design.voice.channels[place].gain + gain)
    return assess(design)


def titles(assessment):
    return [move.title for move in next(moves_of(assessment.design))]


def test_sides_far_louder_than_the_sub_are_told_and_can_be_turned_down():
    loud = sides(9.0)
    found = balance(loud)
    assert (found.louder, found.lowest) == ((1, 2), 0)
    assert any("left and right play" in s.plain and "louder than sub" in s.plain for s in why(loud))
    (title,) = [t for t in titles(loud) if t.startswith("Turn")]
    move = next(m for m in next(moves_of(loud.design)) if m.title == title)
    assert title.startswith("Turn left and right down by ")
    assert balance(assess(move.design)) is None


def test_more_gain_is_more_imbalance_but_for_what_the_sides_add_below():
    apart = [balance(sides(gain)).by for gain in (8.0, 10.0, 12.0)]
    assert all(1.2 < more - less < 2.0 for less, more in pairwise(apart))
    assert balance(sides(0.0)) is None


def test_a_sub_far_too_loud_is_turned_down_itself():
    loud = sides(-12.0)
    assert balance(loud).by < 0
    assert any("softer than sub" in s.plain for s in why(loud))
    assert any(t.startswith("Turn sub down") for t in titles(loud))


def test_one_channel_and_equal_ones_have_no_balance(slipway):
    assert balance(assess(slipway)) is None
    unknown = replace_at(slipway, ("box", "groups", 0, "driver", "re"), None)
    assert balance(assess(unknown)) is None
