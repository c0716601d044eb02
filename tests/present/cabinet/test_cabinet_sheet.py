"""The drawing without pixels: what is seen where, how it moves, what draws it."""

import numpy as np
import pytest
from tests.assessment.cabinet.made import drawn, placed

from firecrest.assessment.cabinet.spots import spots_of
from firecrest.core.cabinet.shapes.polygon import area_and_middle
from firecrest.design.edits.cabinet import mirrored, moved, on_panel
from firecrest.design.edits.paths import value_at
from firecrest.present.cabinet.sheet import sheet_views
from firecrest.present.cabinet.snapping import snapped
from firecrest.present.cabinet.solid import faces_of, seen, turned

PACK = ("power", "source", "mount")
LEFT, RIGHT = (("box", "groups", 0, "mounts", k) for k in (0, 1))


def views(design, end=None):
    assessed, drawing = drawn(design)
    return sheet_views(assessed, drawing, spots_of(drawing), end)


def test_three_views_with_their_measures_and_the_promised_outline():
    front, end, plan = views(placed())
    assert (front.sizes[0], front.sizes[1]) == ("338\u202fmm", "198\u202fmm")
    assert end.key in ("left", "right")
    assert plan.promised == (0.34, 0.19)
    wall = next(i for i in plan.inks if i.style == "wall")
    assert abs(area_and_middle(wall.points)[0]) == pytest.approx(0.338 * 0.188)
    assert sum(i.style == "cell" for i in plan.inks) == 10
    assert sum(i.style == "travel" for i in plan.inks) == 2


def test_a_step_on_paper_is_a_step_on_the_panel_as_it_is_seen_there():
    front, _, plan = views(placed())
    own = next(m for m in front.movables if m.path == LEFT)
    assert (own.across, own.upwards) == ((1.0, 0.0), (0.0, 1.0))
    pack = next(m for m in plan.movables if m.path == PACK)
    assert pack.across == (-1.0, 0.0)
    assert pack.upwards == (0.0, 0.0)


def test_a_moved_part_moves_on_paper_and_its_place_is_spoken():
    front, _, _ = views(moved(placed(), LEFT, -0.08, 0.01))
    own = next(m for m in front.movables if m.path == LEFT)
    assert (own.low[0] + own.high[0]) / 2 == pytest.approx(-0.08, abs=1e-4)
    assert "80" in own.spoken
    assert "front" in own.spoken


def test_tight_spots_are_marked_where_they_are():
    _, _, plan = views(moved(placed(), PACK, -0.115, 0.0))
    assert any(m.impossible for m in plan.marks)
    assert plan.heavy is not None


def test_lines_draw_a_part_the_middle_its_mate_and_equal_margins():
    drawing = drawn(placed())[1]
    mate = value_at(placed(), RIGHT).u
    assert snapped(drawing, LEFT, 0.003, 0.002, 0.004) == (0.0, 0.0)
    assert snapped(drawing, LEFT, -mate + 0.001, 0.02, 0.004)[0] == -mate
    free = snapped(drawing, LEFT, -0.0513, 0.0237, 0.0005)
    assert free == pytest.approx((-0.051, 0.024))


def test_a_pair_is_mirrored_across_the_front_and_from_end_to_end():
    made = mirrored(moved(placed(), LEFT, -0.06, 0.015), LEFT)[1]
    twin = value_at(made, RIGHT)
    assert (twin.u, twin.v) == pytest.approx((0.06, 0.015))
    end = ("box", "openings", 0, "mounts", 0)
    made = mirrored(moved(placed(), end, 0.01, 0.005), end)[1]
    other = value_at(made, ("box", "openings", 0, "mounts", 1))
    assert (other.panel, other.u, other.v) == ("right", pytest.approx(-0.01), pytest.approx(0.005))
    assert value_at(on_panel(made, PACK, "top")[1], PACK).panel == "top"


@pytest.mark.parametrize("shown", ["whole", "open", "apart"])
def test_the_solid_view_turns_and_opens(shown):
    drawing = drawn(placed())[1]
    faces = faces_of(drawing, shown, 0.0, 0.0)
    flat = seen(faces, 0.0, 0.0)
    assert len(flat) == len(faces) > 100
    assert any(f.hollow for f in flat) is (shown == "open")
    reach = np.concatenate([f.points for f in flat])
    assert reach[:, 0].max() >= 0.169 - 1e-9
    if shown == "apart":
        assert reach[:, 0].max() > 0.25
    assert turned(0.3, 0.4) @ turned(0.3, 0.4).T == pytest.approx(np.eye(3))
