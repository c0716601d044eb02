"""The attacks in short: a few of each, with other seeds than the long runs."""

import pytest

from tests.attacks import (
    cabinets,
    designs,
    environments,
    kills,
    mutations,
    proposing,
    random_designs,
    usage,
)
from tests.attacks.results import Result

SEED = 20_26


def test_random_designs_give_finite_figures_or_reasons():
    result = designs.attack(SEED, 15, 300)
    assert result.failed == []
    assert result.tried == 15


def test_what_is_asked_of_random_designs_is_done_or_refused_in_words():
    result = proposing.attack(SEED, 2, 300)
    assert result.failed == []
    assert result.tried == 2


def test_random_cabinets_are_what_their_solids_are():
    result = cabinets.attack(SEED, 12, 300)
    assert result.failed == []
    assert result.tried == 12
    assert result.facts["pairs compared"] > 100
    assert result.facts["air compared"] > 0


def test_mutated_files_and_texts_give_a_document_or_our_own_error():
    result = mutations.attack(SEED, 300, 5)
    assert result.failed == []
    assert result.tried >= 60


@pytest.mark.parametrize("name", ["as usual", "settings of wrong types"])
def test_the_window_comes_up_in_environments_it_did_not_choose(name):
    (case,) = [c for c in environments.cases() if c.name == name]
    assert environments.trouble(case) == ""


def test_every_environment_has_its_own_name():
    names = [case.name for case in environments.cases()]
    assert len(set(names)) == len(names) > 50


def test_kills_lose_two_seconds_at_most():
    result = kills.attack(SEED, 1, 15)
    assert result.failed == []
    assert result.tried == 1


def test_windows_come_and_go():
    result = usage.cycles(SEED, 1, 15)
    assert result.failed == []
    assert result.tried == 1


def test_what_chance_does_is_taken_back_by_undo():
    result = usage.driver(SEED, 1, 30)
    assert result.failed == []
    assert result.tried == 1
    assert int(result.facts["steps taken back"]) > 5


def test_a_failure_is_seen_and_ends_the_table():
    """An attack that cannot fail would prove nothing."""

    def broken(data):
        raise ZeroDivisionError("by nothing")

    assert "ZeroDivisionError" in mutations.trouble(broken, b"1")
    assert mutations.trouble(lambda data: None, b"1") == ""
    result = Result("x", 3, 10.0)
    for number in result.rounds():
        result.fail(f"try {number}")
    assert result.tried == 3
    assert "try 2" in "\n".join(result.lines())


def test_random_designs_reach_the_ends_of_ranges(slipway):
    import random

    from firecrest.design.box import Case
    from firecrest.design.fields import field_facts

    facts = field_facts(Case, "depth")
    values = [random_designs.number_in(random.Random(k), facts) for k in range(200)]
    assert min(values) == facts.low
    assert max(values) == facts.high
    made = [random_designs.random_design(random.Random(k), [slipway]) for k in range(20)]
    assert len({d.name for d in made}) == 2, "changed and made anew"
