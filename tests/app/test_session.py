"""The session: edits, ghosts, looking, journals; one place that turns changes into signals."""

import pytest

from firecrest.app.session import Session
from firecrest.core.errors import FirecrestError
from firecrest.design.edits.paths import set_number
from firecrest.files.container import Document, write_document
from firecrest.files.journal import Journal

MASS = ("box", "radiators", 0, "added_mass")


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
    assert session.design.box.radiators[0].added_mass == 0.03
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
    assert session.trial.design.box.radiators[0].added_mass == 0.05
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
    assert session.design.box.radiators[0].added_mass == 0.022


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
    assert not session.has(("box", "ports", 0, "length"))


def test_attachments_travel_from_file_to_file(session, slipway, tmp_path):
    first, second = tmp_path / "a.firecrest", tmp_path / "b.firecrest"
    write_document(first, Document(slipway, {"photos/jetty.png": b"picture"}))
    document = session.open(first)
    assert document.lost == ()
    session.edit_number(MASS, 0.03)
    session.save(second)
    again = session.open(second)
    assert again.attachments == {"photos/jetty.png": b"picture"}
    assert session.path == second


def test_a_bare_design_is_saved_under_a_name_of_its_own(session, tmp_path, slipway):
    from firecrest.design.text import design_to_json

    path = tmp_path / "design.json"
    path.write_text(design_to_json(slipway))
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


def test_closing_in_order_leaves_no_journal(session, settings):
    session.edit_number(MASS, 0.03)
    session.keep_journal()
    assert list((settings / "journal").iterdir())
    session.close()
    assert list((settings / "journal").iterdir()) == []
