"""Columns: many structures of plain numbers as one, and back."""

from dataclasses import dataclass, replace

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from firecrest.assessment.columns import (
    columns_of,
    flattened,
    joined,
    mapped,
    put,
    put_all,
    rows_of,
    stacked,
    widened,
)
from firecrest.assessment.lower.parts import bulk


@dataclass(frozen=True)
class Inner:
    """A part of what is stacked."""

    a: float
    word: str
    maybe: float | None


@dataclass(frozen=True)
class Outer:
    """What is stacked."""

    inner: tuple[Inner, ...]
    by_name: dict[str, float]
    count: int
    x: float


def outer(values, word="w", maybe=True):
    a, b, c, d = values
    return Outer((Inner(a, word, b if maybe else None), Inner(c, word, None)), {"k": d}, 3, a + d)


NUMBERS = st.tuples(*[st.floats(-1e6, 1e6)] * 4)


@given(st.lists(NUMBERS, min_size=1, max_size=6))
def test_every_row_of_a_stack_is_what_was_put_in(rows):
    made = [outer(row) for row in rows]
    shapes, floats = zip(*(flattened(m) for m in made), strict=True)
    assert len(set(shapes)) == 1
    whole = stacked(made[0], floats)
    for k, original in enumerate(made):
        alone = rows_of(whole, columns_of(whole), slice(k, k + 1))
        assert mapped(alone, lambda x: float(np.ravel(x)[0])) == original


def test_what_differs_in_more_than_numbers_has_another_shape():
    base = outer((1.0, 2.0, 3.0, 4.0))
    others = [
        outer((1.0, 2.0, 3.0, 4.0), word="v"),
        outer((1.0, 2.0, 3.0, 4.0), maybe=False),
        replace(base, count=4),
        replace(base, inner=base.inner[:1]),
        replace(base, by_name={"j": 4.0}),
    ]
    shapes = {flattened(other)[0] for other in [base, *others]}
    assert len(shapes) == 6


def test_what_all_designs_share_stays_a_plain_number():
    made = [outer((1.0, b, 3.0, 4.0)) for b in (1.0, 2.0, 3.0)]
    whole = stacked(made[0], [flattened(m)[1] for m in made])
    assert whole.x == 5.0
    assert whole.inner[1] is made[0].inner[1]
    assert whole.inner[0].maybe.tolist() == [[1.0], [2.0], [3.0]]


def test_labels_are_no_topology(slipway):
    renamed = replace(slipway.box.groups[0].driver, name="Another")
    a, b = (bulk(part, 0.0) for part in (slipway.box.groups[0].driver, renamed))
    assert a.name != b.name
    assert flattened(a) == flattened(b)


def test_a_column_is_put_where_a_model_would_refuse_it(slipway):
    depths = np.array([[0.1], [0.2]])
    made = put(slipway, ("box", "case", "depth"), depths)
    assert made.box.case.depth is depths
    assert made.box.groups[0] is slipway.box.groups[0]
    assert slipway.box.case.depth == 0.188


def test_blocks_of_answers_join_in_order():
    parts = [widened(outer((float(k), 2.0, 3.0, 4.0)), 2) for k in range(3)]
    whole = joined(parts)
    assert whole.inner[0].a[:, 0].tolist() == [0, 0, 1, 1, 2, 2]
    assert whole.by_name == parts[0].by_name


def test_values_put_all_at_once_are_those_put_in_turn():
    column = np.array([[1.0], [2.0]])
    values = {
        ("x",): column,
        ("inner", 0, "a"): 2 * column,
        ("by_name", "k"): 3 * column,
        ("inner", 0, "maybe"): 4 * column,
    }
    made = in_turn = outer((1.0, 2.0, 3.0, 4.0))
    for path, value in values.items():
        in_turn = put(in_turn, path, value)
    together = put_all(made, values)
    assert columns_of(together) == columns_of(in_turn)
    assert {path for path, _ in columns_of(together)} == set(values)
    assert together.inner[1] is made.inner[1]
    assert put_all(made, {}) is made
