"""Stacking: many structures of plain numbers as one, and back."""

from dataclasses import dataclass, replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.assessment.batch import assess_batch
from firecrest.assessment.stacking import flattened, mapped, stacked
from firecrest.assessment.tunings import _around, _spaced


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
    assert whole.x.shape == (len(rows), 1)
    for k, original in enumerate(made):
        assert mapped(whole, lambda x, k=k: float(x[k, 0])) == original


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


@given(st.floats(1e-3, 1), st.floats(1.01, 50))
def test_tunings_are_evenly_apart(low, factor):
    values = _spaced(np.array([[low]]), np.array([[low * factor]]), np.linspace(0, 1, 16))
    tunings = values[0] ** -0.5
    assert np.allclose(np.diff(tunings), np.diff(tunings)[0])
    assert values.min() == pytest.approx(low)
    assert values.max() == pytest.approx(low * factor)


@given(st.integers(0, 15))
def test_the_finer_pass_keeps_the_best_and_its_neighbours(best):
    values = np.linspace(1.0, 2.0, 16)[None, :]
    loud = -np.abs(np.arange(16.0) - best)[None, :]
    finer = _around(values, loud)
    assert values[0, best] in finer[0]
    assert finer.min() == values[0, max(best - 1, 0)]
    assert finer.max() == values[0, min(best + 1, 15)]


def test_mixed_batches_are_sorted_out_and_back(slipway, blank):
    designs = [slipway, blank, slipway, blank]
    a, b, c, d = assess_batch(designs)
    assert a.loudness == c.loudness != b.loudness == d.loudness
    assert a.hours == c.hours
    assert assess_batch([]) == []
