"""Text size: as the desktop has it, zoomed from 80 to 200 %; nothing is cut or overlaps."""

import re
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QFont
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QApplication,
    QCheckBox,
    QLabel,
    QLineEdit,
    QPushButton,
    QToolButton,
    QWidget,
)

import firecrest.app
from firecrest.app.main_window import LEAST
from firecrest.app.settings import settings
from firecrest.app.stages.table import STAGES
from firecrest.app.start_page import StartPage
from firecrest.app.theme.size import desktop_share, text_size
from tests.app.helpers import doubted, press, settle


@pytest.fixture
def usual():
    yield
    text_size.choose(zoom=1.0, desktop=1.0)
    QApplication.setLayoutDirection(Qt.LayoutDirection.LeftToRight)


@pytest.mark.parametrize(
    ("points", "dots", "share"),
    [(9, 96, 1), (11, 96, 1), (15, 96, 1.5), (8, 96, 0.8), (10, 192, 2)],
)
def test_the_desktops_text_counts_from_what_is_usual(points, dots, share):
    font = QFont()
    font.setPointSizeF(points)
    assert desktop_share(font, dots) == pytest.approx(share)
    font.setPixelSize(round(points * dots / 72))
    assert desktop_share(font, dots) == pytest.approx(share, rel=0.06)


def test_zoom_goes_by_steps_is_remembered_and_ends_at_200(window, usual):
    field = window.stage.findChild(QPushButton)
    before = field.sizeHint().height()
    for key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
        press(window, key, Qt.KeyboardModifier.ControlModifier)
    window.actions_by_id["larger"].trigger()
    assert text_size.factor == settings.get("zoom", 0) == 1.4
    assert field.sizeHint().height() > 1.25 * before
    text_size.choose(desktop=1.8)
    assert text_size.factor == 2.0
    window.actions_by_id["usual"].trigger()
    assert text_size.factor == 1.8
    text_size.choose(desktop=1.0)
    window.actions_by_id["smaller"].trigger()
    assert window.minimumWidth() == round(0.9 * LEAST[0])


def test_another_size_of_the_desktops_text_is_followed_at_once(window, usual):
    before = QApplication.font()
    QApplication.setFont(QFont(before.family(), 15))
    settle()
    assert text_size.factor == pytest.approx(1.5)
    QApplication.setFont(before)
    settle()
    assert text_size.factor == 1.0


def _cut(page):
    """Texts that have less room than they take; a glyph alone may fill its button."""
    for w in page.findChildren(QWidget):
        texts = isinstance(w, QLabel | QPushButton | QToolButton | QCheckBox)
        if texts and w.isVisible() and len(w.text().split("\n")[0]) > 2:
            least, lines = w.minimumSizeHint(), isinstance(w, QLabel) and w.wordWrap()
            height = w.heightForWidth(w.width()) if lines else least.height()
            if w.height() < height - 5 * text_size.factor:
                yield w.text()
            if not lines and w.width() < least.width() - 2:
                yield w.text()


def _inside(layout):
    """Widgets of a layout and of those in it."""
    for place in range(layout.count()):
        item = layout.itemAt(place)
        if item.widget() is not None:
            yield item.widget()
        elif item.layout() is not None:
            yield from _inside(item.layout())


def _over(page):
    """Neighbours in layouts that lie over another."""
    for holder in page.findChildren(QWidget):
        if holder.isVisible() and holder.layout() is not None:
            inside = [c for c in _inside(holder.layout()) if c.isVisible() and not c.isWindow()]
            for k, a in enumerate(inside):
                for b in inside[k + 1 :]:
                    both = a.geometry().intersected(b.geometry())
                    if min(both.width(), both.height()) > 2:
                        yield a.accessibleName(), b.accessibleName(), type(a), type(b)


SMALL, USUAL, LARGE = (1024, 700), (1280, 800), (1920, 1080)
SEEN = {
    "LeftToRight": [
        (0.8, SMALL),
        *((z, s) for z in (1.0, 1.4, 2.0) for s in (SMALL, USUAL, LARGE)),
    ],
    "RightToLeft": [(1.0, USUAL), (2.0, SMALL)],
}


@pytest.mark.parametrize("direction", list(SEEN))
def test_nothing_is_cut_or_lies_over_another(window, usual, direction):
    doubted(window)
    QApplication.setLayoutDirection(Qt.LayoutDirection[direction])
    for zoom, size in SEEN[direction]:
        text_size.choose(zoom=zoom)
        window.resize(*size)
        for key in STAGES:
            window.show_stage(key)
            for _ in range(3):
                settle()  # rows in rows take a turn each to find their height
            where = (zoom, size, key)
            assert (where, list(_cut(window))) == (where, [])
            assert (where, list(_over(window))) == (where, [])
    text_size.choose(zoom=1.0)
    settle()
    assert window.stage.width() == window.stack.parentWidget().width(), "nothing to scroll for"


@pytest.mark.parametrize("key", ["promise", "power"])
def test_what_tab_comes_to_is_scrolled_into_view(window, usual, key):
    text_size.choose(zoom=2.0)
    window.show_stage(key)
    settle()
    seen = []
    while QApplication.focusWidget() not in seen:
        seen.append(QApplication.focusWidget())
        press(window, Qt.Key.Key_Tab)
        now = QApplication.focusWidget()
        if isinstance(now, QLineEdit) and window.stage.isAncestorOf(now):
            assert now.visibleRegion().boundingRect() == now.rect(), now.accessibleName()
    assert len(seen) > 20


def test_the_start_page_stays_inside_its_window(window, usual):
    window.show_start()
    (page,) = window.findChildren(StartPage)
    before = page.height()
    text_size.choose(zoom=2.0)
    settle()
    assert page.height() > 1.4 * before
    window.resize(1024, 700)
    settle()
    assert window.rect().contains(page.geometry())
    assert not list(_over(page))
    page.leave()


def test_find_brings_a_field_into_view(window, usual):
    text_size.choose(zoom=2.0)
    settle()
    window.reveal(("power", "lead", "contacts"))
    settle()
    field = window.stage.field(("power", "lead", "contacts")).edit
    QTest.qWait(300)  # long texts above it stand higher once they are laid out
    assert field.visibleRegion().boundingRect() == field.rect()


def test_sizes_in_pixels_are_set_in_one_place():
    folder = Path(firecrest.app.__file__).parent
    for file in folder.rglob("*.py"):
        text = file.read_text(encoding="utf-8")
        if file.parent.name != "theme":
            fixed = r"\.set(Fixed|Minimum|Maximum)(Width|Height|Size)\([1-9]"
            assert not re.search(fixed, text), file
            assert "setPixelSize" not in text, file
