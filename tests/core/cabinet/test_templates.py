from firecrest.core.cabinet.templates import grid, pages_of, tiling


def test_a_small_panel_is_one_page_and_a_wide_one_lies_across():
    assert pages_of(0.18, 0.26) == 1
    assert tiling((0.336, 0.198)) == ((2, 1), False)
    assert tiling((0.21, 0.30)) == ((1, 2), True)
    assert pages_of(0.18, 0.25, "Letter") == 1


def test_neighbours_overlap():
    across, _ = grid((0.190001, 0.1), (0.210, 0.297))
    assert across == 2
    assert grid((0.19, 0.1), (0.210, 0.297))[0] == 1
