"""Next moves: each does what it says, and the order is that of brute force."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.worth import worst_must
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.design.edits.power import with_series
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.frame.moves import ORDERS, in_order, moves_of
from firecrest.present.parts.at_hand import MOST, parts_at_hand
from firecrest.present.text import moves as text
from firecrest.proposals.layouts import with_layout
from firecrest.proposals.moves.drivers import second
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.ranking import (
    FREE,
    TIERS,
    WORTH,
    every,
    ordered,
    pairs,
    proposals,
    telling,
)
from firecrest.shelf.stock import shipped_entries
from firecrest.shelf.store import Shelf

LOUD = ("brief", "loudness", "level")


def shelf_parts():
    found = {}
    for entry in shipped_entries():
        found.setdefault(entry.kind, []).append(entry.part)
    return found


PARTS = shelf_parts()


def scene_of(design):
    return Scene(assess(design), PARTS)


def briefs():
    """Twenty designs: demos and the blank one under briefs of several weights."""
    found = []
    for name in [*demo_names(), "untitled"]:
        for more in (0.0, 2.0, 5.0):
            design = read_demo(name)
            found.append(set_number(design, LOUD, design.brief.loudness.level + more))
    return found[:20]


@pytest.fixture(scope="module")
def slipway_moves():
    scene = scene_of(read_demo("slipway"))
    return scene, telling(scene)


def test_at_least_fifteen_kinds_are_proposed_over_the_demos():
    kinds = set()
    for name in [*demo_names(), "untitled"]:
        kinds |= {p.kind for p in proposals(scene_of(read_demo(name)))}
    assert len(kinds) >= 15, sorted(kinds)


def test_what_a_card_says_is_what_its_design_does(slipway_moves):
    scene, found = slipway_moves
    now = scene.assessment
    for one in found:
        then = assess(one.proposal.design)
        assert one.promises == then.promises
        assert one.gain == pytest.approx(
            worst_must(then.promises) - worst_must(now.promises), abs=1e-9
        )


def test_the_first_move_brings_four_fifths_of_the_best_and_is_free_if_it_can_be(slipway_moves):
    _, found = slipway_moves
    sound = [o for o in found if not o.breaks and not o.proposal.asks_less]
    most = max(o.gain for o in sound)
    assert found[0].gain >= TIERS[0] * most
    near = [o for o in sound if o.gain >= TIERS[0] * most]
    assert found[0].free or not any(o.free for o in near)


@pytest.mark.parametrize("design", briefs(), ids=lambda d: f"{d.name} {d.brief.loudness.level:g}")
def test_the_order_is_that_of_brute_force(design):
    """Every generated move assessed afresh, and sorted by the rule as it is written down."""
    scene = scene_of(design)
    now = scene.assessment
    told = telling(scene)
    sound = [o for o in every(scene) if not o.breaks and not o.proposal.asks_less]
    most = max((o.gain for o in sound), default=0.0)
    if told and most > WORTH:
        first = assess(told[0].proposal.design)
        gained = worst_must(first.promises) - worst_must(now.promises)
        assert gained >= TIERS[0] * most - 1e-9
    by_rule = sorted(told, key=lambda o: (bool(o.breaks), o.proposal.asks_less))
    assert [o.proposal.title for o in told] == [o.proposal.title for o in by_rule]
    assert ordered(told) == told


def test_moves_that_break_what_is_kept_come_last_with_what_they_break(slipway_moves):
    _, found = slipway_moves
    broken = [bool(o.breaks) for o in found]
    assert broken == sorted(broken)
    assert any(broken)


def test_a_free_move_uses_none_of_the_allowances(slipway_moves):
    scene, found = slipway_moves
    for one in found:
        then, now = assess(one.proposal.design).cabinet, scene.assessment.cabinet
        if one.free:
            assert then.mass <= now.mass * (1 + FREE) + 0.02
            assert then.price <= now.price + FREE * scene.design.brief.cost.price


def test_no_two_moves_make_the_same_design(slipway_moves):
    designs = [o.proposal.design for o in slipway_moves[1]]
    assert all(a != b for k, a in enumerate(designs) for b in designs[:k])


def test_pairs_are_tried_where_no_single_one_reaches_and_are_of_two_kinds():
    far = set_number(read_demo("slipway"), LOUD, 101.0)
    scene = scene_of(far)
    singles = telling(scene)
    assert not any(o.reaches for o in singles if not o.proposal.asks_less)
    (pair,) = pairs(scene, singles)
    best = max(o.gain for o in singles if not o.proposal.asks_less and not o.breaks)
    assert pair.gain > best
    assert pair.proposal.title.code == "both"
    first, second = (dict(pair.proposal.title.figures)[k] for k in ("first", "second"))
    assert text.title(pair.proposal.title) == (
        f"{text.title(first)}, and {text.title(second)[0].lower()}{text.title(second)[1:]}"
    )


def test_no_pair_is_made_where_one_is_enough(slipway_moves):
    assert pairs(*slipway_moves) == []


def test_promising_less_names_a_figure_that_is_kept():
    far = set_number(read_demo("slipway"), LOUD, 105.0)
    less = [o for o in telling(scene_of(far)) if o.proposal.kind == "less"]
    loud = next(o for o in less if dict(o.proposal.title.figures)["key"] == "loudness")
    asked = loud.proposal.design.brief.loudness.level
    got = assess(loud.proposal.design).promise("loudness")
    assert got.margin >= 0
    assert got.margin < 0.5
    assert asked == pytest.approx(np.floor(2 * asked) / 2)


def test_the_worst_promise_is_answered_not_the_part_that_gives():
    """Runtime short: cells come first; loudness short by volts or by travel: other things do."""
    lantern = telling(scene_of(read_demo("lantern")))
    assert lantern[0].proposal.kind in ("cells", "cell")
    assert "runtime" in lantern[0].keeps
    sealed = telling(scene_of(read_demo("boathouse")))
    assert sealed[0].gain > 0.5
    assert "loudness" in {k for o in sealed for k in o.keeps}


def test_shared_air_is_cured_among_the_first():
    design = with_layout(read_demo("breakwater"), "one")
    titles = [text.title(o.proposal.title) for o in telling(scene_of(design))]
    assert "Give Alder F10-4 chambers of their own" in titles


def test_a_box_that_cannot_be_heard_gets_moves_of_its_body_only():
    design = replace_at(read_demo("slipway"), ("box", "groups", 0, "driver", "re"), None)
    heavy = set_number(design, ("brief", "weight", "mass"), 5.2)
    kinds = {o.proposal.kind for o in telling(scene_of(heavy))}
    assert kinds <= {"turn", "air", "panels", "less"}


def test_cards_have_orders_to_choose_from():
    found = next(moves_of(read_demo("slipway")))
    assert [m.rank for m in in_order(found, "best")] == list(range(len(found)))
    gains = [m.gain for m in in_order(found, "gain")]
    assert gains == sorted(gains, reverse=True)
    for order, figure in (("cheap", "price"), ("light", "mass")):
        values = [getattr(m, figure) for m in in_order(found, order)]
        assert values == sorted(values)
    assert set(ORDERS) == {"best", "gain", "cheap", "light"}


def test_every_title_has_words_and_no_card_is_without_chips():
    for name in [*demo_names(), "untitled"]:
        for move in next(moves_of(read_demo(name))):
            assert move.title[0].isupper()
            assert move.chips
            assert {chip.role for chip in move.chips} <= {"good", "bad", "plain"}


def test_parts_at_hand_come_from_the_shelf_and_are_the_likest(tmp_path, slipway):
    path = tmp_path / "shelf.sqlite"
    shelf = Shelf(path)
    own = next(e for e in shelf.entries().values() if e.kind == "driver")
    shelf.mark(own.id, archived=True)
    shelf.close()
    found = parts_at_hand(path, slipway)
    assert {"driver", "radiator", "amplifier", "cell", "supply"} <= set(found)
    assert all(len(parts) <= MOST for parts in found.values())
    assert own.name not in [part.name for part in found["driver"]]
    assert parts_at_hand(None, slipway) == {}


def test_moves_know_parts_of_ones_own(tmp_path):
    """A radiator of longer travel than any shipped one is offered by name."""
    path = tmp_path / "shelf.sqlite"
    shelf = Shelf(path)
    part = read_demo("slipway").box.openings[0].radiator
    longer = replace(part, name="Own long one", xmax=part.xmax * 1.05, shelf=None)
    shelf.add("radiator", longer)
    shelf.close()
    titles = [m.title for m in next(moves_of(read_demo("slipway"), path))]
    assert "Fit Own long one" in titles


def test_a_driver_more_than_a_field_takes_is_no_move_and_ends_none(slipway):
    """Refused, it took all other advice with it."""
    full = replace_at(slipway, ("box", "groups", 0, "in_parallel"), 8)
    scene = Scene(assess(full), {})
    assert list(second(scene)) == []
    assert {p.kind for p in proposals(scene)} > {"air", "tuning"}


def test_a_pack_too_low_for_its_board_gets_the_cells_that_wake_it(slipway):
    """A cell more is not enough: no move was told at all."""
    dead = assess(with_series(slipway, 1)[1])
    assert not dead.acoustic.plays
    found = [o for o in telling(Scene(dead, {})) if o.proposal.kind == "cells"]
    made = found[0].proposal.design
    woken = made.power.source.series
    assert woken > 2
    assert assess(made).acoustic.plays
    assert found[0].gain > 0
    fewer = assess(with_series(made, woken - 1)[1])
    assert worst_must(fewer.promises) == worst_must(dead.promises)
