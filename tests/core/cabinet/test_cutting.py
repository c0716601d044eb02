from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.cabinet.cutting import Piece, merged, saw_time, settings, stack_layers


def test_equal_pieces_merge_turned_or_not_unless_the_grain_says():
    rows = merged([Piece("front", 0.3, 0.2, 0.012), Piece("back", 0.2, 0.3, 0.012)])
    assert [(r.name, r.count) for r in rows] == [("front, back", 2)]
    grained = merged([Piece("front", 0.3, 0.2, 0.012, grain=True), Piece("back", 0.2, 0.3, 0.012)])
    assert len(grained) == 2


def test_pieces_are_turned_so_that_few_settings_are_left():
    pieces = [Piece("a", 0.336, 0.198, 0.012), Piece("b", 0.161, 0.174, 0.012),
              Piece("c", 0.336, 0.161, 0.012)]  # fmt: skip
    found = settings(pieces)
    assert found.count == 4
    assert list(found.widths) == sorted(found.widths, reverse=True)


@given(st.lists(st.tuples(st.sampled_from([0.1, 0.15, 0.2]), st.sampled_from([0.15, 0.2, 0.3])),
                min_size=1, max_size=5))  # fmt: skip
def test_no_turning_asks_for_fewer_settings(sizes):
    pieces = [Piece(str(k), a, b, 0.012) for k, (a, b) in enumerate(sizes)]
    least = min(
        len({a if t else b for (a, b), t in zip(sizes, turn, strict=True)})
        + len({b if t else a for (a, b), t in zip(sizes, turn, strict=True)})
        for turn in product((False, True), repeat=len(sizes))
    )
    assert settings(pieces).count == least


def test_layers_and_time():
    assert stack_layers(0.18, 0.018) == 10
    assert stack_layers(0.181, 0.018) == 11
    assert saw_time(4, 12, 2) == pytest.approx(4 * 180 + 12 * 90 + 2 * 360)
