"""Pegs and grooves at the seams of a print."""

import pytest
from tests.assessment.cabinet.made import bare, drawn

from firecrest.design.case import Printing
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.files.meshes import shell_meshes
from firecrest.files.seams import APART, COVER, LEAST, LONG, WIDER, pegged
from firecrest.proposals.shaping import with_shape

CASE = ("box", "case")
A, B, C, T = 0.3, 0.2, 0.18, 0.012


def block():
    """The tube, filled."""
    from manifold3d import Manifold

    return Manifold.cube([A, B, C], True)


def tube(wall=T):
    """A rectangular tube along x, open at both ends."""
    from manifold3d import Manifold

    return block() - Manifold.cube([2 * A, B - 2 * wall, C - 2 * wall], True)


def test_a_seam_has_pegs_all_round_and_a_groove_of_a_millimetre_in_either_face():
    made = pegged(tube(), block(), [(0, 0.02)], T)
    ((peg, count),) = made.pegs
    round_it = 2 * (B + C - 2 * T)
    assert peg == 0.006
    assert count == -(-round_it // APART)
    gone = tube().volume() - made.solid.volume()
    holes = count * 3.1416 / 4 * (peg + WIDER) ** 2 * (LONG + WIDER)
    groove = round_it * 0.001 * 0.002
    both = count * (peg + WIDER) * 0.001 * 0.002
    assert gone == pytest.approx(holes + groove - both, rel=0.01)


@pytest.mark.parametrize(("wall", "peg"), [(0.0083, 0.006), (0.0080, 0.004), (0.0053, 0.003)])
def test_a_thinner_wall_has_thinner_pegs(wall, peg):
    ((found, count),) = pegged(tube(wall), block(), [(0, 0.0)], wall).pegs
    assert found == peg
    assert count >= LEAST
    assert wall >= peg + WIDER + 2 * COVER


def test_a_wall_too_thin_has_none_and_keeps_its_groove():
    made = pegged(tube(0.004), block(), [(0, 0.0)], 0.004)
    assert made.pegs == ()
    assert made.solid.volume() < tube(0.004).volume()


def test_pegs_keep_off_holes_in_the_wall_and_off_other_seams():
    from manifold3d import Manifold

    hole = Manifold.cylinder(1.0, 0.05, circular_segments=90, center=True)
    made = pegged(tube() - hole, block(), [(0, 0.0), (1, 0.0)], T)
    pieces = made.solid.split_by_plane([1.0, 0.0, 0.0], 0.0)
    assert all(part.status().name == "NoError" for part in pieces)
    ((_, count),) = made.pegs
    plain = pegged(tube(), block(), [(0, 0.0)], T).pegs[0][1]
    assert 0 < count < 2 * plain


@pytest.mark.parametrize("kind", ["cylinder", "vase", "ball"])
def test_round_prints_are_split_with_pegs_too(kind):
    made = with_shape(bare(), kind)[1]
    printing = rebuilt(Printing(), bed_x=0.2, bed_y=0.2, bed_z=0.2)
    made = replace_at(replace_at(made, (*CASE, "printing"), printing), (*CASE, "wall"), 0.009)
    meshes = shell_meshes(drawn(made)[1])
    assert len(meshes) > 2
    assert meshes[-1].name == "peg 6 mm"
    assert meshes[-1].count >= 2 * LEAST
