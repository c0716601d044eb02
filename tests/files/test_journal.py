import json
import subprocess
import sys

from firecrest.files.container import Document
from firecrest.files.journal import Journal, forget, left_over


def gone():
    """Number of a process that has ended."""
    process = subprocess.Popen([sys.executable, "-c", ""])
    process.wait()
    return process.pid


def of_another(note):
    facts = json.loads(note.read_text())
    note.write_text(json.dumps({**facts, "process": gone()}))


def test_work_of_a_crashed_process_is_left_over(tmp_path, slipway):
    Journal(tmp_path).keep(Document(slipway, {"photos/a": b"1"}), tmp_path / "x.firecrest")
    assert left_over(tmp_path) == []
    (note,) = tmp_path.glob("*.json")
    of_another(note)
    (item,) = left_over(tmp_path)
    assert item.document.design == slipway
    assert item.document.attachments == {"photos/a": b"1"}
    assert item.original == tmp_path / "x.firecrest"
    forget(item.note)
    assert list(tmp_path.iterdir()) == []


def test_dropping_leaves_nothing(tmp_path, slipway, blank):
    journal = Journal(tmp_path)
    journal.keep(Document(slipway), None)
    journal.keep(Document(blank), None)
    journal.drop()
    assert list(tmp_path.iterdir()) == []


def test_unreadable_journals_are_skipped(tmp_path, slipway):
    (tmp_path / "a.json").write_text("{")
    (tmp_path / "b.json").write_text('{"process": 1}')
    (tmp_path / "c.json").write_text(json.dumps({"process": gone(), "original": None}))
    assert left_over(tmp_path) == []
    assert left_over(tmp_path / "nowhere") == []
