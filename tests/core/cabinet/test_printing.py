import pytest

from firecrest.core.cabinet.printing import Printer, fits_turned, plan, spools

PRINTER = Printer((0.22, 0.22, 0.25), 0.005, 0.0002, 8e-9, 5.0, 1.0)


def test_a_long_case_is_split_where_the_bed_ends_fewest_pieces_first():
    found = plan((0.26, 0.16, 0.16), 0.00125, 0.405, 1240.0, PRINTER)
    assert (found.pieces, found.split, found.upright) == (2, (2, 1, 1), "x")
    assert found.layers == 2 * 650
    assert found.seconds == pytest.approx(found.volume / 8e-9 + 1300 * 5)
    assert not found.whole_turned


def test_a_long_flat_part_lies_across_the_bed():
    assert fits_turned((0.27, 0.02, 0.03), PRINTER)
    assert not fits_turned((0.31, 0.02, 0.3), PRINTER)


def test_spools_count_what_is_spoilt():
    assert spools(0.95, PRINTER) == 1
    assert spools(0.96, PRINTER) == 2
    assert spools(0.838, PRINTER, batch=10) == 9
