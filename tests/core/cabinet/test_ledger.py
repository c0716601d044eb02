import pytest

from firecrest.core.cabinet.braces import Brace
from firecrest.core.cabinet.cutouts import Rectangle
from firecrest.core.cabinet.ledger import rooms, slabs
from firecrest.core.cabinet.parts import Board, Cup, Loose, Mount
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes import box

CASE = box.Box(0.32, 0.22, 0.2, dict.fromkeys(box.PANELS, 0.01))
INSIDE = Inside(CASE, box.volumes(CASE)[1], *box.corners(CASE))


def test_dividers_leave_slabs_and_take_their_own_thickness():
    found = slabs(INSIDE, [Brace("d", "x", 0.05, 0.01, None, True)])
    assert found == pytest.approx([0.195 * 0.036, 0.095 * 0.036])
    assert slabs(INSIDE, []) == [INSIDE.volume]


def test_a_room_adds_openings_and_takes_what_is_in_it():
    cup = Cup("terminal", Mount("back"), Rectangle(0.06, 0.05), 0.02)
    board = Board("Sedge", Mount("back"), (0.1, 0.06, 0.02), 0.004)
    loose = Loose("handle", "other", ("main",), 1e-4, 0.0)
    brace = Brace("b", "x", 0.0, 0.01)
    found = rooms({"main": 0.01}, [cup, board], [loose], {"back": 0.012}, [("main", brace)], INSIDE)
    room = found["main"]
    assert room.openings == pytest.approx(0.06 * 0.05 * 0.012)
    assert room.taken["cup"] == pytest.approx(0.06 * 0.05 * 0.02)
    assert room.braces == pytest.approx(0.2 * 0.18 * 0.01)
    assert room.net == pytest.approx(0.01 + 3.6e-5 - 3.6e-4 - 6e-5 - 1.2e-4 - 1e-4)


def test_what_is_between_two_rooms_is_shared_out():
    loose = Loose("port", "port", ("a", "b"), 2e-4, 0.0)
    found = rooms({"a": 0.01, "b": 0.02}, [], [loose], {}, [], INSIDE)
    assert [found[c].taken["port"] for c in "ab"] == [1e-4, 1e-4]
