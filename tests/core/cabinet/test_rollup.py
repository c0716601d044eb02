import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.cabinet.rollup import Item, interior, panel_item, six_panels, total

SIDE = st.floats(0.1, 1.0)


@given(SIDE, SIDE, SIDE, st.floats(0.003, 0.04))
def test_panels_fill_the_shell_exactly(length, height, depth, wall):
    outer = (length, height, depth)
    material = sum(p.volume for p in six_panels(outer, wall))
    assert material + interior(outer, wall) == pytest.approx(length * height * depth, rel=1e-9)


def test_items_add_up_by_count():
    both = total([Item("a", 2, 0.1, 1.0, 5.0), Item("b", 1, 0.3, 0.5, 7.0)])
    assert (both.count, both.volume, both.mass, both.price) == (3, pytest.approx(0.5), 2.5, 17.0)


def test_the_bare_case_weighs_its_material_and_takes_no_air():
    panels = six_panels((0.3, 0.2, 0.2), 0.012)
    item = panel_item(panels, 680.0, 30.0)
    assert item.mass == pytest.approx(sum(p.volume for p in panels) * 680)
    assert item.volume == 0.0
