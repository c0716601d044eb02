from itertools import pairwise
from math import pi

import numpy as np
import pytest

from firecrest.core.cabinet.cutouts import Rectangle
from firecrest.core.cabinet.frames import frame
from firecrest.core.cabinet.solids import beyond, brick, lathe, prism, quarter, solid, tube

FRONT = frame("front", (0.0, 0.0, 0.0), 0.012)


def test_what_lies_beyond_a_panel_is_cut_where_the_cone_passes_its_inside():
    cone = lathe(FRONT, [(0.004, 0.0575), (0.040, 0.039)])
    past = beyond(cone, FRONT, 0.012)
    assert past[:, 2].max() == pytest.approx(-0.012)
    at_panel = past[past[:, 2] > -0.0121]
    wide = np.hypot(at_panel[:, 0], at_panel[:, 1]).max()
    assert wide == pytest.approx(0.0575 - 8 / 36 * 0.0185)


def test_a_quarter_turn_ends_to_the_side_and_looks_there():
    path, end = quarter(np.zeros(3), np.array([0.0, 0, -1]), np.array([0.0, 1, 0]), 0.03)
    assert end == pytest.approx([0.0, 0.03, -0.03])
    length = sum(np.linalg.norm(q[0] - p[0]) for p, q in pairwise(path))
    assert length == pytest.approx(pi / 2 * 0.03, rel=1e-3)
    assert len(tube(path, 0.01)) == len(path) - 1


def test_a_solid_lies_within_the_boxes_and_the_ball_round_it():
    made = solid([prism(FRONT, Rectangle(0.1, 0.05), 0.0, 0.02), brick((0, 0, 0), (0.1, 0.1, 0.1))])
    for piece, low, high in zip(made.pieces, made.lows, made.highs, strict=True):
        points = piece.reshape(-1, 3)
        assert (points >= low).all()
        assert (points <= high).all()
        assert np.linalg.norm(points - made.middle, axis=1).max() <= made.reach + 1e-12
