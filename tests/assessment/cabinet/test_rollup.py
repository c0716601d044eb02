"""Air, weight and price from the drawing: as before without places, as drawn with them."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.assessment.cabinet.made import bare, placed
from tests.unplaced import unplaced

from firecrest.assessment.assess import assess, cabinet_of
from firecrest.assessment.cabinet.contents import things_in
from firecrest.assessment.lower.whole import lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.sounding import wiring_in
from firecrest.assessment.vary import vary
from firecrest.design.case import Brace, Feet, Printing
from firecrest.design.edits import braces
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.mount import Mount
from firecrest.proposals.shaping import SHAPES, with_shape

SLIPWAY = bare()
CASE = ("box", "case")


def test_without_places_air_is_inside_less_what_sheets_say():
    rolled = cabinet_of(SLIPWAY)
    case = SLIPWAY.box.case
    inside = (case.length - 2 * case.wall) * (case.height - 2 * case.wall)
    inside *= case.depth - 2 * case.wall
    assert float(rolled.inside) == pytest.approx(inside)
    assert not rolled.placed
    assert float(rolled.rooms["main"].openings) == 0.0


def test_places_add_the_openings_to_the_air_and_take_them_off_the_weight():
    before, after = cabinet_of(SLIPWAY), cabinet_of(placed())
    openings = float(after.rooms["main"].openings)
    wall = SLIPWAY.box.case.wall
    holes = 2 * np.pi / 4 * (0.116**2 + 0.145**2) * wall
    assert openings == pytest.approx(holes, rel=1e-6)
    lost = float(before.mass - after.mass)
    assert lost == pytest.approx(holes * SLIPWAY.box.case.density, rel=1e-3)


def test_a_demo_says_the_same_with_its_ledger_summed_by_hand():
    rolled = cabinet_of(placed())
    room = rolled.rooms["main"]
    net = float(room.gross) + float(room.openings) - float(room.braces)
    net -= sum(float(v) for v in room.taken.values())
    assert float(rolled.air[0]) == pytest.approx(net)


@settings(max_examples=10)
@given(st.floats(0.16, 0.4), st.floats(0.008, 0.02))
def test_columns_of_drawn_cases_equal_single_ones(depth, wall):
    design = placed()
    figures = {(*CASE, "depth"): [0.2, depth], (*CASE, "wall"): [0.012, wall]}
    many = vary(design, {path: np.array(values) for path, values in figures.items()})
    for k in range(2):
        one = design
        for path, values in figures.items():
            one = set_number(one, path, values[k])
        alone = assess(one)
        for promise in alone.promises:
            if promise.predicted is not None and promise.key in ("loudness", "weight", "size"):
                found = float(np.ravel(many.verdict(promise.key).predicted)[k])
                assert found == pytest.approx(promise.predicted, abs=1e-9)


@pytest.mark.parametrize("kind", list(SHAPES))
def test_a_case_of_another_shape_keeps_the_present_air(kind):
    made = with_shape(SLIPWAY, kind)[1]
    close = 2e-4 if kind == "stack" else 2e-6  # a stack is as deep as whole layers are
    assert float(cabinet_of(made).air[0]) == pytest.approx(
        float(cabinet_of(SLIPWAY).air[0]), abs=close
    )
    assert made.box.case.shape.kind == kind
    assert assess(made).promises


def test_a_divider_parts_rooms_takes_air_and_weighs():
    breakwater = unplaced("breakwater")
    inner = float(cabinet_of(breakwater).inside)
    case = breakwater.box.case
    walls = tuple(Brace(axis="x", at=at, divider=True) for at in (-0.14, 0.14))
    made = replace_at(breakwater, CASE, rebuilt(case, braces=walls))
    rolled = cabinet_of(made)
    section = (case.height - 2 * case.wall) * (case.depth - 2 * case.wall)
    gross = [float(rolled.rooms[c.id].gross) for c in made.box.chambers]
    assert gross[0] == pytest.approx(section * (0.25 - 0.012 - 0.14 - 0.006))
    assert sum(gross) == pytest.approx(inner - 2 * section * case.wall)
    assert float(rolled.mass) > float(cabinet_of(breakwater).mass)


def test_a_brace_takes_what_is_not_its_window_and_feet_weigh():
    label, braced = braces.add_brace(SLIPWAY)
    brace, case = braced.box.case.braces[0], braced.box.case
    section = (case.height - 2 * case.wall) * (case.depth - 2 * case.wall)
    window = brace.window_a * brace.window_b - (4 - np.pi) * brace.window_radius**2
    taken = (section - window) * case.wall
    assert label == "Add brace"
    assert float(cabinet_of(SLIPWAY).air[0] - cabinet_of(braced).air[0]) == pytest.approx(taken)
    footed = replace_at(SLIPWAY, (*CASE, "feet"), Feet(mass=0.01, price=1.5))
    assert float(cabinet_of(footed).mass - cabinet_of(SLIPWAY).mass) == pytest.approx(0.04)
    assert float(cabinet_of(footed).price - cabinet_of(SLIPWAY).price) == pytest.approx(6.0)


def test_a_print_weighs_and_costs_by_its_filament():
    made = replace_at(SLIPWAY, (*CASE, "printing"), Printing(skin=0.0012, infill=0.2, price=20.0))
    walls = float(cabinet_of(made).outside - cabinet_of(made).inside)
    share = (0.0024 + 0.2 * 0.0096) / 0.012
    item = cabinet_of(made).items[0]
    assert float(item.mass) == pytest.approx(walls * share * 640.0)
    assert float(item.price) == pytest.approx(20.0 * float(item.mass))


def test_a_pack_with_a_place_takes_its_wrapped_brick():
    source = replace_at(SLIPWAY, ("power", "source", "mount"), Mount(panel="back"))
    pack = next(t for t in cabinet_of(source).things if t.kind == "pack")
    assert pack.parts[0].n == (5, 1, 2)
    a, b, c = pack.parts[0].size
    room = cabinet_of(source).rooms["main"]
    assert float(room.taken["pack"]) == pytest.approx(float(a * b * c))


def test_things_are_told_with_where_their_places_stand():
    numbers = lower(placed(), Memo(AFRESH)).inputs
    depths = dict.fromkeys(("front", "back", "left", "right", "top", "bottom"), 0.2)
    things = things_in(numbers.box, numbers.power, wiring_in(numbers), depths)
    paths = [path for thing in things for path in thing.paths]
    assert ("power", "boards", 1, "mount") in paths
    assert ("box", "openings", 0, "mounts", 1) in paths
    assert all(len(t.parts) == len(t.paths) for t in things)
