"""Variants of a project: copies, order, and what is carried between them."""

import pytest

from firecrest.core.errors import DesignError
from firecrest.design.edits.paths import set_number
from firecrest.design.edits.variants import (
    add_variant,
    bring_over,
    copy_variant,
    delete_variant,
    move_variant,
    next_letter,
    rename_variant,
    set_standing,
)
from firecrest.design.history import History
from firecrest.design.project import MOST_VARIANTS, project_of, switched, variant_of, with_design
from firecrest.design.text import project_from_json, project_to_json

DEPTH = ("box", "case", "depth")
LOUD = ("brief", "loudness", "level")


@pytest.fixture
def two(slipway):
    """A with its depth, B 20 mm deeper and in force."""
    project = copy_variant(project_of(slipway))[1]
    return with_design(project, set_number(project.design, DEPTH, slipway.box.case.depth + 0.02))


def letters(project):
    return "".join(v.letter for v in project.variants)


def test_a_copy_is_in_force_and_leaves_the_first_as_it_is(slipway, two):
    assert (letters(two), two.in_force) == ("AB", "B")
    assert two.design_of(variant_of(two, "A")) == slipway
    assert two.design.box.case.depth == pytest.approx(slipway.box.case.depth + 0.02)


def test_switching_there_and_back_gives_the_same_design_objects(two):
    there = switched(two, "A")
    assert there.in_force == "A"
    assert switched(there, "B").design is two.design
    assert switched(switched(there, "B"), "A").design is there.design


def test_the_brief_is_of_all_variants(two):
    asked = with_design(two, set_number(two.design, LOUD, 100.0))
    other = switched(asked, "A")
    assert other.design.brief.loudness.level == 100.0
    assert other.design.box.case.depth < asked.design.box.case.depth


def test_copies_fill_free_letters_up_to_eight(two):
    _, project = delete_variant(copy_variant(two)[1], "A")
    assert (letters(project), project.in_force) == ("BC", "C")
    while len(project.variants) < MOST_VARIANTS:
        _, project = copy_variant(project, "B")
    assert sorted(letters(project)) == list("ABCDEFGH")
    with pytest.raises(DesignError, match="holds 8 variants"):
        copy_variant(project)


def test_deleting_the_one_in_force_leaves_its_neighbour(two):
    label, project = delete_variant(two, "B")
    assert (label, letters(project), project.in_force) == ("Delete B", "A", "A")
    with pytest.raises(DesignError, match="only variant"):
        delete_variant(project, "A")


def test_names_standing_and_order(two):
    _, project = rename_variant(two, "A", "first box")
    _, project = set_standing(project, "A", "built")
    _, project = move_variant(project, "A", 1)
    assert letters(project) == "BA"
    assert (variant_of(project, "A").name, variant_of(project, "A").standing) == (
        "first box",
        "built",
    )
    assert letters(move_variant(project, "A", 5)[1]) == "BA"
    assert letters(move_variant(project, "A", -5)[1]) == "AB"


def test_one_row_is_carried_over_and_nothing_else(two):
    two = with_design(two, set_number(two.design, ("box", "case", "wall"), 0.015))
    _, project = bring_over(two, DEPTH, "B", "A")
    assert project.in_force == "B"
    first = project.design_of(variant_of(project, "A"))
    assert first.box.case.depth == two.design.box.case.depth
    assert first.box.case.wall != 0.015
    assert project.design == two.design


def test_what_is_not_in_both_cannot_be_carried_over(two):
    with pytest.raises(DesignError, match=r"box\.openings\.7"):
        bring_over(two, ("box", "openings", 7), "B", "A")


def test_a_design_becomes_a_variant_under_the_projects_brief(two, blank):
    _, project = add_variant(two, blank, "from blank")
    assert letters(project) == "ABC"
    assert project.design.box == blank.box
    assert project.design.brief == two.brief
    assert variant_of(project, "C").name == "from blank"


def test_the_next_variant_goes_round(two):
    assert next_letter(two) == "A"
    assert next_letter(two, -1) == "A"
    assert next_letter(copy_variant(two)[1], -1) == "B"


def test_a_project_with_variants_comes_back_from_its_file(two):
    _, project = rename_variant(two, "B", "deeper")
    again = project_from_json(project_to_json(project))
    assert again == project
    assert again.design == project.design


def test_turning_to_another_variant_is_no_step(two):
    history = History(two, saved=two)
    history.turn(switched(two, "A"))
    assert history.present.in_force == "A"
    assert not history.modified
    assert not history.past
    history.push("A: depth", copy_variant(history.present)[1])
    history.turn(switched(history.present, "B"))
    assert history.modified


def test_an_unknown_letter_is_told(two):
    with pytest.raises(DesignError, match="no variant F"):
        switched(two, "F")
