"""Drives the window as a person does: by keys in fields, menus and shortcuts."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication


def settle():
    """Let the window draw and react."""
    for _ in range(3):
        QApplication.processEvents()


def edit_of(window, *path):
    """The number box of a field, its stage shown."""
    window.reveal(path)
    settle()
    widget = window.stage.field(path)
    assert widget is not None, path
    return getattr(widget, "edit", widget)


def type_into(window, path, text, *, keep=True):
    """Type over what a field holds; Enter keeps it."""
    edit = edit_of(window, *path)
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, text)
    if keep:
        QTest.keyClick(edit, Qt.Key.Key_Return)
    settle()
    return edit


def press(window, key, modifier=Qt.KeyboardModifier.NoModifier):
    """A key wherever the keyboard is."""
    QTest.keyClick(QApplication.focusWidget() or window, key, modifier)
    settle()


def click(widget):
    """A left click in the middle of a widget."""
    QTest.mouseClick(widget, Qt.MouseButton.LeftButton)
    settle()


def menu(window, action):
    """Choose a command of the menus by its id."""
    window.actions_by_id[action].trigger()
    settle()
