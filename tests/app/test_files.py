"""Files through the window: what others wrote meanwhile, links, read-only ones, full disks."""

import pytest

from firecrest.app.start import offer_left_over
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of
from firecrest.files import atomic
from firecrest.files.container import Document, read_document, write_document
from firecrest.files.journal import Journal, left_over
from firecrest.present.text.differing import differing_text
from tests.app.helpers import menu, settle, type_into

DEPTH = ("box", "case", "depth")


@pytest.fixture
def saved(window, tmp_path):
    """A window on a saved file."""
    window.session.save(tmp_path / "a.firecrest")
    window.messages.save_to = tmp_path / "b.firecrest"
    return window


def changed_by_another(window):
    """Another window saves another depth to the same file; the design it saved."""
    other = set_number(window.session.design, DEPTH, 0.18)
    write_document(window.session.path, Document(project_of(other)))
    return other


@pytest.mark.parametrize(
    ("answer", "in_file", "modified"),
    [("cancel", 0.18, True), ("over", 0.17, False), ("reload", 0.18, False)],
)
def test_saving_asks_when_another_window_has_saved(saved, answer, in_file, modified):
    path = saved.session.path
    type_into(saved, DEPTH, "170 mm")
    changed_by_another(saved)
    saved.messages.changed = answer
    menu(saved, "save")
    assert saved.messages.told[0][0] == "a.firecrest"
    assert "Depth: 170" in saved.messages.told[0][1]
    assert "here, 180" in saved.messages.told[0][1]
    assert read_document(path).design.box.case.depth == in_file
    assert saved.session.modified == modified
    assert saved.session.path == path


def test_saving_under_another_name_keeps_both(saved):
    first = saved.session.path
    type_into(saved, DEPTH, "170 mm")
    other = changed_by_another(saved)
    saved.messages.changed = "save_as"
    menu(saved, "save")
    assert read_document(first).design == other
    assert saved.session.path == saved.messages.save_to
    assert read_document(saved.session.path).design.box.case.depth == 0.17


def test_a_file_that_cannot_be_compared_still_asks(saved):
    type_into(saved, DEPTH, "170 mm")
    saved.session.path.write_bytes(b"damaged")
    menu(saved, "save")
    assert "It cannot be compared" in saved.messages.told[0][1]


def test_a_change_elsewhere_is_told_once(saved):
    told = []
    saved.session.refused.connect(told.append)
    saved.look_at_file()
    assert told == []
    changed_by_another(saved)
    saved.look_at_file()
    saved.look_at_file()
    assert len(told) == 1
    assert "a.firecrest was changed by another window" in told[0]


def test_a_link_stays_a_link(window, tmp_path):
    (tmp_path / "real").mkdir()
    target = tmp_path / "real" / "a.firecrest"
    write_document(target, Document(project_of(window.session.design)))
    link = tmp_path / "link.firecrest"
    link.symlink_to(target)
    window.open_path(link)
    type_into(window, DEPTH, "170 mm")
    menu(window, "save")
    assert link.is_symlink()
    assert read_document(target).design.box.case.depth == 0.17


@pytest.mark.parametrize("allowed", [True, False])
def test_a_read_only_file_is_replaced_only_when_told(saved, allowed):
    saved.session.path.chmod(0o444)
    type_into(saved, DEPTH, "170 mm")
    saved.messages.read_only = allowed
    menu(saved, "save")
    assert saved.session.modified != allowed
    assert (read_document(saved.session.path).design.box.case.depth == 0.17) == allowed
    assert saved.session.path.stat().st_mode & 0o777 == 0o444


def test_what_is_exported_or_not_saved_is_told(window, tmp_path, monkeypatch):
    def full(*_args):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(atomic.os, "fsync", full)
    told = []
    window.session.refused.connect(told.append)
    window.show_stage("size")
    for suffix in ("png", "svg", "pdf", "csv"):
        path = tmp_path / f"plot.{suffix}"
        window.session.attempt(lambda p=path: window.stage.chart.export(p))
    assert len(told) == 4
    assert all("No space left" in text for text in told)
    window.messages.save_to = tmp_path / "shelf.csv"
    menu(window, "shelf_csv")
    assert "No space left" in window.messages.told[-1][1]
    assert list(tmp_path.glob("plot*")) == []


def left_by(slipway, *depths):
    """Work of windows that have ended."""
    for depth in depths:
        journal = Journal()
        journal.keep(Document(project_of(set_number(slipway, DEPTH, depth))), None)
        journal.let_go()


def test_work_that_is_not_answered_is_offered_again(window, slipway):
    left_by(slipway, 0.17, 0.171)
    window.messages.left_over = "later"
    offer_left_over(window)
    assert not window.session.modified
    items = left_over()
    assert len(items) == 2
    for item in items:
        item.journal.let_go()
    window.messages.left_over = "drop"
    offer_left_over(window)
    assert left_over() == []


def test_one_window_opens_one_and_leaves_the_others(window, slipway):
    left_by(slipway, 0.17, 0.171)
    offer_left_over(window)
    assert window.session.modified
    (other,) = left_over()
    assert other.document.design.box.case.depth != window.session.design.box.case.depth
    settle()


def test_what_differs_in_words(slipway):
    assert differing_text(slipway, slipway) == "Nothing differs: both hold the same figures."
    other = set_number(slipway, ("box", "openings", 0, "added_mass"), 0.03)
    (line,) = differing_text(slipway, other).splitlines()
    assert line.startswith("Box, Added mass, each: 18")
    assert line.endswith("in the file")
