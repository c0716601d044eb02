"""How one begins, finds things by other words, and reads the guide where one is."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from firecrest.app.start_page import StartPage, Tour
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.frame.find import findable
from firecrest.present.frame.synonyms import SYNONYMS
from firecrest.present.text.guide import pages
from tests.app.helpers import menu, press, type_into

TUNING = ("computed", "tuning")


def on_show(window, kind):
    """The start page or tour on show."""
    return next((card for card in window.findChildren(kind) if card.isVisible()), None)


def start(window):
    menu(window, "start")
    return on_show(window, StartPage)


def test_the_start_page_is_walked_by_keys_and_left(window):
    page = start(window)
    assert QApplication.focusWidget() is page.buttons[0]
    press(window, Qt.Key.Key_Down)
    assert QApplication.focusWidget().text() == "From what I have"
    press(window, Qt.Key.Key_Up)
    press(window, Qt.Key.Key_Return)
    assert (window.stage.key, window.session.design.name) == ("promise", "Untitled")
    start(window)
    press(window, Qt.Key.Key_Escape)
    assert on_show(window, StartPage) is None


def test_a_demo_a_recent_file_and_a_blank_box_are_begun(window, tmp_path):
    window.messages.save_to = tmp_path / "mine.firecrest"
    menu(window, "save")
    page = start(window)
    next(b for b in page.buttons if b.text().startswith("Lantern")).click()
    assert window.session.design.name == "Lantern"
    page = start(window)
    next(b for b in page.buttons if b.text() == "mine").click()
    assert window.session.path == tmp_path / "mine.firecrest"
    page = start(window)
    page.buttons[1].click()
    assert window.session.path is None
    assert window.stage.key == "parts"
    assert window.stage.pasting


def test_the_tour_has_five_stops_and_can_be_left(window):
    menu(window, "tour")
    tour, seen = on_show(window, Tour), set()
    for _ in range(5):
        seen.add((tour.accessibleName(), tour.pos().toTuple()))
        assert window.rect().contains(tour.geometry())
        press(window, Qt.Key.Key_Space)
    assert len(seen) == 5
    assert on_show(window, Tour) is None
    menu(window, "tour")
    press(window, Qt.Key.Key_Escape)
    assert on_show(window, Tour) is None


def test_the_guide_opens_at_the_focused_item_and_leads_on(window):
    type_into(window, TUNING, "50", keep=False)
    menu(window, "help")
    guide = window.guide
    assert guide.list.currentItem().text() == "Size"
    assert guide.browser.textCursor().selectedText().lower() == "tuning"
    guide.browser.anchorClicked.emit("ports.md")
    assert guide.list.currentItem().text() == "Ports and radiators"
    guide.browser.anchorClicked.emit("https://example.invalid/")
    assert guide.list.currentItem().text() == "Ports and radiators"
    guide.close()


@pytest.mark.parametrize(
    ("words", "first"),
    [("box volume", "Air volume Vb"), ("compare", "Compare"), ("Sensible starts", None),
     ("export pdf", "Save as a page"), ("two-way", "Add a way")],
)  # fmt: skip
def test_things_are_found_by_other_words_and_in_the_guide(window, words, first):
    QTest.keyClicks(window.finder, words)
    found = window.finder.results()
    assert found[0] == (first or words)
    window.finder.clear()


def test_views_and_pages_are_found_by_name(window):
    for words, shown in (("line up page", "line up"), ("where to cross", "cross")):
        QTest.keyClicks(window.finder, words)
        QTest.keyClick(window.finder, Qt.Key.Key_Return)
        assert window.stage.key == "voice"
        assert shown in (window.stage.work, window.stage.view)


def test_other_words_belong_to_what_is_there(window):
    names = {f.text.lower() for f in window._findable()}
    names |= {item[3].lower() for demo in demo_names() for item in findable(read_demo(demo))}
    assert set(SYNONYMS) <= names
    assert len({page.title for page in pages()}) == len(pages())


def test_the_start_page_goes_when_a_document_comes_and_is_never_there_twice(window):
    first = start(window)
    second = start(window)
    assert not first.isVisible()
    window.session.start_blank()
    assert not second.isVisible()
    menu(window, "tour")
    menu(window, "tour")
    assert sum(tour.isVisible() for tour in window.findChildren(Tour)) == 1


def test_who_stays_with_unsaved_work_gets_no_new_part_and_no_old_sheet_is_pasted_into(window):
    window.session.edit_number(("box", "case", "depth"), 0.17)
    window.messages.keep = "cancel"
    count = len(window.session.shelf.entries())
    start(window).buttons[1].click()
    assert len(window.session.shelf.entries()) == count
    assert window.session.modified
    window.messages.keep = "drop"
    window.show_stage("parts")
    window.stage.open_entry("alder-w13-4")
    start(window).buttons[1].click()
    assert window.stage.subject.part.name.startswith("New ")
