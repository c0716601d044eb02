"""Unsaved work of windows that ended: found when nobody holds it, never lost on the way back."""

import json
import os
import subprocess
import sys

import pytest

from firecrest.design.project import project_of
from firecrest.files.container import Document, stamp_of, write_document
from firecrest.files.journal import LOCK, PIECE, WORK, Journal, left_over

KEEPING = """
import sys, time
from pathlib import Path
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo
from firecrest.files.journal import Journal
journal = Journal(Path(sys.argv[1]))
journal.keep(Document(project_of(read_demo("slipway"))), None)
print("kept", flush=True)
time.sleep(60)
"""


def kept(folder, design, attachments=None, original=None):
    """A journal of a window that has ended since."""
    journal = Journal(folder)
    document = Document(project_of(design), attachments or {})
    if not journal.keep(document, original):
        list(journal.store(document))
        assert journal.keep(document, original)
    journal.let_go()
    return journal


def test_work_that_nobody_holds_is_left_over(tmp_path, slipway):
    kept(tmp_path, slipway, {"photos/a": b"1"}, tmp_path / "x.firecrest")
    (item,) = left_over(tmp_path)
    assert item.document == Document(project_of(slipway), {"photos/a": b"1"})
    assert item.original == tmp_path / "x.firecrest"
    assert left_over(tmp_path) == [], "it is held by the window that was offered it"
    item.journal.let_go()
    assert len(left_over(tmp_path)) == 1


def test_a_window_that_lives_keeps_its_work_to_itself_until_it_is_killed(tmp_path):
    process = subprocess.Popen(
        [sys.executable, "-c", KEEPING, str(tmp_path)], stdout=subprocess.PIPE
    )
    assert process.stdout.readline() == b"kept\n"
    assert left_over(tmp_path) == []
    process.kill()
    process.communicate()
    (item,) = left_over(tmp_path)
    assert item.document.design.name == "Slipway"


def test_the_number_of_a_process_plays_no_part(tmp_path, slipway):
    kept(tmp_path, slipway)
    (folder,) = tmp_path.iterdir()
    text = (folder / WORK).read_text()
    assert str(os.getpid()) not in text.replace(str(tmp_path), "")
    assert len(left_over(tmp_path)) == 1


def test_work_is_private(tmp_path, slipway):
    kept(tmp_path / "unsaved", slipway, {"a": b"1"})
    for path in (tmp_path / "unsaved").rglob("*"):
        assert path.stat().st_mode & 0o077 == 0, path
    assert (tmp_path / "unsaved").stat().st_mode & 0o077 == 0


def test_dropping_leaves_nothing(tmp_path, slipway, blank):
    journal = Journal(tmp_path)
    journal.keep(Document(project_of(slipway)), None)
    journal.keep(Document(project_of(blank)), None)
    journal.drop()
    assert list(tmp_path.iterdir()) == []
    journal.keep(Document(project_of(blank)), None)
    journal.let_go()
    (item,) = left_over(tmp_path)
    assert item.document.design == blank


def test_attachments_are_written_once_and_in_pieces(tmp_path, slipway, blank):
    journal = Journal(tmp_path)
    files = {"photos/a": os.urandom(2 * PIECE + 5), "photos/b": b"2"}
    files["photos/same"] = bytes(files["photos/a"])
    assert not journal.keep(Document(project_of(slipway), files), None)
    steps = len(list(journal.store(Document(project_of(slipway), files))))
    assert steps >= 6
    assert journal.keep(Document(project_of(blank), files), None)
    assert list(journal.store(Document(project_of(slipway), files))) == [], "each is there already"
    (folder,) = tmp_path.iterdir()
    assert len(list((folder / "attachments").iterdir())) == 2, "by content"
    journal.let_go()
    (item,) = left_over(tmp_path)
    assert item.document == Document(project_of(blank), files)


def test_what_was_not_kept_yet_comes_from_the_original_or_is_told(tmp_path, slipway):
    path = tmp_path / "x.firecrest"
    write_document(path, Document(project_of(slipway), {"a": b"1"}))
    journal = Journal(tmp_path / "unsaved")
    journal.keep(Document(project_of(slipway), {"a": b"1", "b": b"2"}), path, stamp_of(path))
    journal.let_go()
    (item,) = left_over(tmp_path / "unsaved")
    assert item.document.attachments == {"a": b"1"}
    assert item.document.lost == ("b: had not been kept yet",)
    assert item.stamp == stamp_of(path)


@pytest.mark.parametrize(
    "text", ["{", "[]", '{"design": 1}', "[" * 100_000, '{"attachments": 1, "design": {}}', "\x00"]
)
def test_unreadable_work_is_left_where_it_is(tmp_path, slipway, text):
    kept(tmp_path, slipway)
    (folder,) = tmp_path.iterdir()
    (folder / WORK).write_text(text)
    assert left_over(tmp_path) == []
    assert (folder / WORK).read_text() == text
    assert left_over(tmp_path / "nowhere") == []


def test_a_damaged_attachment_is_told_not_taken(tmp_path, slipway):
    kept(tmp_path, slipway, {"a": b"11", "b": b"2"})
    (folder,) = tmp_path.iterdir()
    facts = json.loads((folder / WORK).read_text())
    (folder / "attachments" / facts["attachments"]["a"]).write_bytes(b"12")
    (item,) = left_over(tmp_path)
    assert item.document.attachments == {"b": b"2"}
    assert len(item.document.lost) == 1


def test_folders_without_work_are_removed(tmp_path):
    (tmp_path / "empty").mkdir()
    (tmp_path / "empty" / LOCK).write_text("")
    assert left_over(tmp_path) == []
    assert list(tmp_path.iterdir()) == []
