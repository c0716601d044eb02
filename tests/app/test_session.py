"""The session: edits, ghosts, looking, journals; one place that turns changes into signals."""

import os

import pytest
from PySide6.QtCore import QDeadlineTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from firecrest.app.session import AUTOSAVE_AFTER_MS, Session
from firecrest.core.errors import ChangedElsewhereError, FirecrestError
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of
from firecrest.files import journal
from firecrest.files.container import Document, read_document, write_document
from firecrest.files.journal import Journal, left_over
from tests.app.helpers import PATIENCE_MS

MASS = ("box", "openings", 0, "added_mass")


@pytest.fixture
def session(qapp, settings, slipway):
    return Session(slipway, Journal(settings / "journal"))


def counted(signal):
    """How often a signal came."""
    calls = []
    signal.connect(lambda *_: calls.append(1))
    return calls


def test_an_edit_settles_design_and_assessment_together(session, slipway):
    changed = counted(session.changed)
    session.edit_number(MASS, 0.03)
    assert session.assessment.design is session.design
    assert session.design.box.openings[0].added_mass == 0.03
    assert len(changed) == 1
    session.undo()
    assert session.design is slipway
    assert session.assessment.design is slipway


def test_an_edit_to_the_same_value_is_no_step(session):
    session.edit_number(MASS, 0.018)
    assert session.history.past == []
    assert not session.modified


def test_ghosts_come_and_go_without_touching_the_design(session, slipway):
    tried = counted(session.tried)
    session.try_design(set_number(slipway, MASS, 0.05))
    assert session.trial.design.box.openings[0].added_mass == 0.05
    session.try_design(slipway)
    assert session.trial is None
    session.drop_trial()
    assert len(tried) == 2
    assert session.design is slipway


def test_keeping_an_edit_ends_its_ghost(session, slipway):
    session.try_design(set_number(slipway, MASS, 0.05))
    session.edit_number(MASS, 0.05)
    assert session.trial is None


def test_refused_edits_are_told_and_change_nothing(session, slipway):
    told = []
    session.refused.connect(told.append)
    assert not session.attempt(lambda: session.edit_number(MASS, 9.0))
    assert told == ["Added mass, each can be 0 to 2000 g."]
    assert session.design is slipway
    assert session.attempt(lambda: session.edit_number(MASS, 0.1))


def test_folded_edits_are_one_step(session, slipway):
    for grams in (20, 21, 22):
        session.edit_number(MASS, grams / 1e3, fold="drag")
    assert len(session.history.past) == 1
    session.undo()
    assert session.design is slipway
    session.redo()
    assert session.design.box.openings[0].added_mass == 0.022


def test_looking_moves_no_design(session):
    looked = counted(session.looked)
    session.look_at(120.0)
    assert session.frequency == 120.0
    session.look_at(None)
    assert session.frequency is None
    assert len(looked) == 2
    assert not session.modified


def test_places_that_are_there(session):
    assert session.has(MASS)
    assert not session.has(("box", "openings", 0, "length"))


def test_attachments_travel_from_file_to_file(session, slipway, tmp_path):
    first, second = tmp_path / "a.firecrest", tmp_path / "b.firecrest"
    write_document(first, Document(project_of(slipway), {"photos/jetty.png": b"picture"}))
    document = session.open(first)
    assert document.lost == ()
    session.edit_number(MASS, 0.03)
    session.save(second)
    again = session.open(second)
    assert again.attachments == {"photos/jetty.png": b"picture"}
    assert session.path == second


def test_a_bare_design_is_saved_under_a_name_of_its_own(session, tmp_path, slipway):
    from firecrest.design.text import project_to_json

    path = tmp_path / "design.json"
    path.write_text(project_to_json(project_of(slipway)))
    session.open(path)
    assert session.path is None


def test_opening_what_cannot_be_opened_keeps_the_work(session, tmp_path):
    session.edit_number(MASS, 0.03)
    design = session.design
    with pytest.raises(FirecrestError):
        session.open(tmp_path / "nothing.firecrest")
    assert session.design is design
    assert session.modified


def test_a_journal_that_cannot_be_written_is_told_not_fatal(session, settings):
    (settings / "journal").write_text("in the way")
    told = []
    session.refused.connect(told.append)
    session.edit_number(MASS, 0.03)
    session.keep_journal()
    assert told[0].startswith("Unsaved work could not be kept aside")


def test_later_edits_do_not_put_autosave_off(session, settings, qtbot):
    """It used to start anew with every edit: 14.6 s of continuous work were lost."""
    patience, number = QDeadlineTimer(PATIENCE_MS), 0
    while not list((settings / "journal").glob("*/work.json")):
        number += 1
        session.edit_number(MASS, 0.02 + 1e-4 * (number % 50))
        QTest.qWait(20)
        assert not patience.hasExpired()
    assert AUTOSAVE_AFTER_MS < 2000


def test_attachments_are_kept_beside_the_work_without_standing_still(session, settings, slipway):
    big = os.urandom(60 * 2**20)
    session.start(Document(project_of(slipway), {"photos/jetty": big}), None)
    session.edit_number(MASS, 0.03)
    session.keep_journal()
    turns = 0
    while session._storing.isActive():
        turns += 1
        QApplication.processEvents()
    assert turns, "the window answers meanwhile"
    (kept,) = (f for f in settings.rglob("*") if f.is_file() and f.stat().st_size >= 60 * 2**20)
    written = kept.stat().st_mtime_ns
    session.edit_number(MASS, 0.04)
    session.keep_journal()
    assert kept.stat().st_mtime_ns == written, "it is not written again"
    session.journal.let_go()
    (item,) = left_over(settings / "journal")
    assert item.document == Document(project_of(session.design), {"photos/jetty": big})


def test_keeping_at_once_leaves_all_for_the_next_start(session, settings, slipway):
    session.start(Document(project_of(slipway), {"a": b"1" * 3_000_000}), None)
    session.edit_number(MASS, 0.03)
    session.keep_now()
    (item,) = left_over(settings / "journal")
    assert item.document.design == session.design
    assert len(item.document.attachments["a"]) == 3_000_000


def test_restored_work_stays_where_it_is_when_the_disk_is_full(session, settings, monkeypatch):
    """It used to be copied first and dropped after, which lost the only copy."""
    session.edit_number(MASS, 0.03)
    session.keep_now()
    (item,) = left_over(settings / "journal")

    def full(*_args, **_keywords):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(journal, "replace_file", full)
    told = []
    session.refused.connect(told.append)
    session.restore(item)
    assert session.modified
    session.edit_number(MASS, 0.04)
    session.keep_journal()
    session.keep_journal()
    assert len(told) == 1
    assert "could not be kept aside" in told[0]
    session.journal.let_go()
    (again,) = left_over(settings / "journal")
    assert again.document.design.box.openings[0].added_mass == 0.03


def test_saving_over_what_another_window_wrote_is_refused_until_told(session, slipway, tmp_path):
    path = tmp_path / "a.firecrest"
    session.save(path)
    session.edit_number(MASS, 0.03)
    session.save(path)
    assert not session.changed_elsewhere()
    write_document(path, Document(project_of(slipway), {"other": b"1"}))
    assert session.changed_elsewhere()
    session.edit_number(MASS, 0.04)
    with pytest.raises(ChangedElsewhereError):
        session.save(path)
    assert session.modified
    assert read_document(path).attachments == {"other": b"1"}
    session.save(path, over=True)
    assert not session.changed_elsewhere()
    assert not session.modified


def test_restored_work_knows_how_its_file_was(session, slipway, tmp_path, settings):
    path = tmp_path / "a.firecrest"
    session.save(path)
    session.edit_number(MASS, 0.03)
    session.keep_now()
    write_document(path, Document(project_of(slipway), {"other": b"1"}))
    (item,) = left_over(settings / "journal")
    session.restore(item)
    assert session.path == path
    with pytest.raises(ChangedElsewhereError):
        session.save(path)


def test_two_coils_in_parallel_far_below_every_sheet_assess_save_and_open(session, tmp_path):
    """Such a design could be saved and then never opened again."""
    driver = ("box", "groups", 0, "driver")
    for name, value in (("coils", 2), ("stated_for", "series"), ("re", 0.7), ("nominal", 1.0)):
        session.edit((*driver, name), value)
    session.edit(("box", "groups", 0, "coils"), "parallel")
    assert session.assessment.promise("loudness").predicted is not None
    session.save(tmp_path / "a.firecrest")
    assert read_document(tmp_path / "a.firecrest").design == session.design


def test_closing_in_order_leaves_no_journal(session, settings):
    session.edit_number(MASS, 0.03)
    session.keep_journal()
    assert list((settings / "journal").iterdir())
    session.close()
    assert list((settings / "journal").iterdir()) == []
