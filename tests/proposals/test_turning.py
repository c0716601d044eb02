"""A case that fits when it is turned."""

from firecrest.assessment.assess import assess
from firecrest.design.edits.paths import set_number
from firecrest.present.frame.moves import moves_of
from firecrest.present.text.sentences import why
from firecrest.proposals.turning import turned


def swapped(design):
    """The room asked for, length and depth the other way round."""
    size = design.brief.size
    made = set_number(design, ("brief", "size", "length"), size.depth)
    return set_number(made, ("brief", "size", "depth"), size.length)


def test_a_case_that_fits_on_another_side_is_told_so_and_turned(slipway):
    assessment = assess(swapped(slipway))
    assert any("turned on another side it fits" in s.plain for s in why(assessment))
    move = next(m for m in next(moves_of(assessment.design)) if "side" in m.title)
    assert move.design == slipway
    assert assess(move.design).promise("size").state == "met"


def test_one_that_fits_nowhere_or_already_is_not(slipway):
    assert turned(slipway) is None
    small = set_number(slipway, ("brief", "size", "length"), 0.1)
    assert turned(small) is None
    assert not any("turned" in s.plain for s in why(assess(small)))
