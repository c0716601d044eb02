"""The window small and wide, and its panels as they were left."""

from PySide6.QtCore import Qt

from tests.app.helpers import menu, press, rested, settle


def test_small_and_wide_windows(window):
    window.resize(1024, 700)
    settle()
    assert not window.side.isVisible()
    assert window.rail.width() < 60
    assert (window.strip.height(), window.chain.height()) == (72, 44)
    menu(window, "side")
    assert window.side.isVisible()
    assert window.side.geometry().right() < window.drawer.geometry().left() + 1
    stage = window.stack.mapTo(window, window.stack.rect().bottomRight())
    assert window.side.geometry().right() <= stage.x() + 1, "over the stage, beside its edge"
    press(window, Qt.Key.Key_Escape)
    assert not window.side.isVisible()
    window.resize(1600, 900)
    settle()
    assert window.side.isVisible()
    menu(window, "layout")
    assert window.width() == 1280


def test_rail_and_side_are_as_they_were_left(make_window, slipway):
    window = make_window(slipway)
    menu(window, "rail")
    menu(window, "side")
    again = make_window(slipway)
    assert again.rail.width() < 60
    assert not again.side.isVisible()
    assert not again.actions_by_id["side"].isChecked()
    menu(again, "layout")
    assert again.side.isVisible()
    assert again.rail.width() > 100
    moves = again.side.moves
    rested(moves)
    assert again.drawer.edge.accessibleName().endswith(str(len(moves.found)))
