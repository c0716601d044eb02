"""Notes of one design and of many."""

import numpy as np

from firecrest.core.note import note


def test_a_note_of_many_designs_has_the_figures_of_each():
    many = note("band short", short=np.array([[1.0], [2.5]]), level=np.array([80.0]), part="Alder")
    assert many.of(1) == note("band short", short=2.5, level=80.0, part="Alder")
    assert many.of(0) != many.of(1)
