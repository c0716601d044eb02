"""Mouths of openings: which there are, and what a pascal at one drives."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.core.acoustics.openings import OUTSIDE
from firecrest.core.acoustics.openings.port import Pipe
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.circuit.mouths import Mouth, mouths_of, pushed
from tests.core.circuit.test_solve import PASSIVE, PORT, SHARED, VENTED


def test_a_lump_has_one_mouth_an_inner_pipe_two_of_half_and_a_radiator_none():
    (one,) = mouths_of(VENTED, [1.5], DATA_SHEET_AIR)
    pipe = Pipe(0.8, 4e-9, 0.05, 0.02)
    assert mouths_of(
        replace(VENTED, openings=(replace(PORT, pipe=pipe),)), [1.5], DATA_SHEET_AIR
    ) == (one,)
    inner = replace(SHARED, openings=(replace(SHARED.openings[1], pipe=pipe),))
    near, far = mouths_of(inner, [1.5], DATA_SHEET_AIR)
    assert (near.far, far.far) == (False, True)
    assert near.resistance == far.resistance == pytest.approx(one.resistance / 2)
    assert mouths_of(PASSIVE, [1.5], DATA_SHEET_AIR) == ()
    assert mouths_of(VENTED, [None], DATA_SHEET_AIR) == ()


def test_a_push_takes_from_one_chamber_and_gives_to_the_other():
    own, through = np.array([2.0 + 1j]), np.array([1.0 + 0.5j])
    assert pushed(SHARED, Mouth(0, False), own, through) == {0: -own}
    inner = SHARED.openings[1]
    assert OUTSIDE not in (inner.chamber, inner.opens_to)
    near = pushed(SHARED, Mouth(1, False), own, through)
    assert (near[inner.chamber], near[inner.opens_to]) == (-own, through)
    far = pushed(SHARED, Mouth(1, True), own, through)
    assert (far[inner.chamber], far[inner.opens_to]) == (-through, own)
