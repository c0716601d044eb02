"""The free dimension of a case meets air that is asked for, in every shape and in columns."""

import numpy as np
import pytest
from tests.assessment.cabinet.made import bare

from firecrest.assessment.assess import cabinet_of
from firecrest.core.errors import RangeError
from firecrest.design.case import Brace
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.files.demos import read_demo
from firecrest.proposals.free import free_path, met_by, rolled_with
from firecrest.proposals.inverse import with_air_volume
from firecrest.proposals.shaping import SHAPES, golden, with_shape

SLIPWAY = bare()


@pytest.mark.parametrize("kind", [k for k in SHAPES if k != "stack"])
def test_typing_air_moves_the_free_dimension_of_every_shape(kind):
    made = with_shape(SLIPWAY, kind)[1]
    grown = with_air_volume(made, 0.009)
    assert float(cabinet_of(grown).air[0]) == pytest.approx(0.009, abs=1e-8)
    changed = [n for n in ("length", "height", "depth")
               if getattr(grown.box.case, n) != getattr(made.box.case, n)]  # fmt: skip
    assert changed == [str(free_path(made)[-1])]


def test_many_cases_at_once_are_met_each_by_its_own():
    walls = np.array([0.009, 0.012, 0.018])
    wanted = np.array([0.007, 0.008, 0.006])
    columns = {("box", "case", "wall"): walls}
    found, met = met_by(SLIPWAY, columns, free_path(SLIPWAY), wanted)
    assert met.all()
    rolled = rolled_with(SLIPWAY, {**columns, free_path(SLIPWAY): found})
    assert np.ravel(rolled.air[0]) == pytest.approx(wanted)


def test_what_no_depth_gives_is_refused_with_what_can_be():
    with pytest.raises(RangeError, match=r"By its depth this case can hold 0\.00.L to .* of air"):
        with_air_volume(SLIPWAY, 0.5)


def test_air_of_a_room_behind_a_divider_moves_the_divider():
    breakwater = read_demo("breakwater")
    walls = tuple(Brace(axis="x", at=at, divider=True) for at in (-0.14, 0.14))
    case = rebuilt(breakwater.box.case, braces=walls)
    made = replace_at(breakwater, ("box", "case"), case)
    air = float(cabinet_of(made).air[1])
    moved = with_air_volume(made, air + 0.0005, 1)
    assert float(cabinet_of(moved).air[1]) == pytest.approx(air + 0.0005)
    assert moved.box.case.depth == made.box.case.depth


def test_golden_proportions_keep_the_air_and_the_longest_side():
    _, made = golden(SLIPWAY)
    case = made.box.case
    assert case.length / case.height == pytest.approx(1.618, rel=1e-3)
    assert case.height / case.depth == pytest.approx(1.618, rel=1e-3)
    assert float(cabinet_of(made).air[0]) == pytest.approx(
        float(cabinet_of(SLIPWAY).air[0]), rel=1e-3
    )
