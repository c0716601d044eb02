"""Drives the window as a person does: by keys in fields, menus and shortcuts."""

from PySide6.QtCore import QDeadlineTimer, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel, QPushButton

from firecrest.app.stages.parts.bands import Band
from firecrest.app.stages.parts.sheet_page import SheetPage
from firecrest.app.widgets.choices import Segments
from firecrest.app.work import advice

PATIENCE_MS = 60_000
HELD = []
"""Jobs of advice that wait until a test waits: most need none, and it takes a whole core."""


def settle():
    """Let the window draw and react."""
    for _ in range(3):
        QApplication.processEvents()


def hold_advice(monkeypatch):
    """From now on advice begins when a test waits for something."""
    begin = advice._begin
    HELD.clear()
    monkeypatch.setattr(advice, "_begin", lambda number: HELD.append((begin, number)))


def until(done, what="it never came"):
    """Wait until ``done()``: a loaded machine takes its time, one that is free does not wait."""
    deadline = QDeadlineTimer(PATIENCE_MS)
    while not done():
        while HELD:
            begin, number = HELD.pop(0)
            if number in advice._jobs:
                begin(number)
        assert not deadline.hasExpired(), what
        QTest.qWait(10)


def doubted(window):
    """Wait until the doubt of the present design and what makes it are there."""
    until(lambda: window.doubting.unsure is not None, "no doubt came")
    settle()


def meter_of(window, key):
    """A meter of the strip as it stands now, not up to 50 ms later."""
    window.strip._after.flush()
    return window.strip.meters[key].meter


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


def segment(window, name, value):
    """Press a button of the row of buttons called ``name`` on the stage."""
    found = [s for s in window.stage.findChildren(Segments) if s.accessibleName() == name]
    click(found[0].button(value))


def rested(*workers):
    """Until work that waits for a rest, or for the drawing before it, is done."""
    QTest.qWait(80)
    until(lambda: not any(getattr(w, "busy", getattr(w, "running", False)) for w in workers))
    settle()


def card_of(window, title):
    """The card of a next move that begins with ``title``, whichever place it has."""
    moves = window.side.moves
    place = next(k for k, m in enumerate(moves.found) if m.title.startswith(title))
    if place >= len(moves.cards):
        click(moves.more)
    return moves.cards[place]


def menu(window, action):
    """Choose a command of the menus by its id."""
    window.actions_by_id[action].trigger()
    settle()


# the Parts stage ------------------------------------------------------------------

W13 = "alder-w13-4"
DRIVER = ("box", "groups", 0, "driver")


def wait(stage):
    """Until everything on show is worked out."""
    QTest.qWait(20)
    until(lambda: not stage.shelf.judged.chooser.running and not stage.shelf._rest.isActive())
    settle()


def names(stage):
    """Names of the rows on show."""
    return [r.entry.name for r in stage.shelf.table.rows_model.rows]


def pick(stage, id):
    """Try the row of a part; the row."""
    rows = stage.shelf.table.rows_model.rows
    stage.shelf.table.selectRow([r.entry.id for r in rows].index(id))
    settle()
    return stage.shelf.table.current


def page(stage, kind=SheetPage):
    """The sheet on show."""
    found = stage._scroll.widget()
    assert isinstance(found, kind)
    return found


def row_of(stage, name):
    """The row of a figure on the sheet."""
    return next(r for r in page(stage).rows if r.name == name)


def bands(stage):
    """Bands on show at the top of the sheet."""
    return [b for b in page(stage).findChildren(Band) if b.isVisible()]


def press_menu(stage, text):
    """Choose from the row's menu."""
    stage.shelf._fill_more()
    next(a for a in stage.shelf.more_menu.actions() if a.text() == text).trigger()
    settle()


def type_in_row(stage, name, text):
    """Type over a figure of the sheet."""
    edit = row_of(stage, name).row.edit
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, text)
    QTest.keyClick(edit, Qt.Key.Key_Return)
    settle()
    return edit


def text_of(widget):
    """All texts on show in a widget."""
    return " ".join(label.text() for label in widget.findChildren(QLabel) if label.isVisible())


def button(stage, text):
    """Press the button with a text."""
    found = [b for b in stage.findChildren(QPushButton) if b.text() == text and b.isVisible()]
    click(found[0])


def press_button(stage, text):
    found = [b for b in stage.findChildren(QPushButton) if b.text() == text and b.isVisible()]
    click(found[0])
