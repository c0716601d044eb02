"""Measured curves in a container: each text once, and a missing one is told."""

import json
import zipfile

from firecrest.design.curve import MeasuredCurve
from firecrest.design.edits.curves import with_curve
from firecrest.design.project import project_of
from firecrest.files.container import Document, read_document, write_document
from firecrest.files.journal import Journal, left_over

TEXT = "20 4\n40 9\n60 33\n90 8\n400 4\n"
DRIVER = ("box", "groups", 0, "driver")


def measured(design):
    for what in ("impedance", "response"):
        curve = MeasuredCurve(what=what, name=f"{what}.txt", content=TEXT)
        design = with_curve(design, DRIVER, curve)[1]
    return Document(project_of(design), {"photos/a": b"1"})


def test_equal_texts_are_one_member_and_come_back(tmp_path, slipway):
    path = tmp_path / "a.firecrest"
    write_document(path, measured(slipway))
    with zipfile.ZipFile(path) as archive:
        names = archive.namelist()
        assert TEXT not in archive.read("design.json").decode()
    assert [n.split("/")[0] for n in names] == ["design.json", "curves", "photos"]
    assert read_document(path) == measured(slipway)


def test_a_curve_without_its_text_is_told_and_left_out(tmp_path, slipway):
    path, cut = tmp_path / "a.firecrest", tmp_path / "b.firecrest"
    write_document(path, measured(slipway))
    with zipfile.ZipFile(path) as whole, zipfile.ZipFile(cut, "w") as archive:
        archive.writestr("design.json", whole.read("design.json"))
    document = read_document(cut)
    assert document.design == slipway
    assert "impedance.txt" in document.lost[0]


def test_unsaved_curves_are_kept_aside_once(tmp_path, slipway):
    document, journal = measured(slipway), Journal(tmp_path)
    assert not journal.keep(document, None)
    assert list(journal.store(document))
    assert journal.keep(measured(slipway), None), "the text is known by what is in it"
    (folder,) = tmp_path.iterdir()
    assert TEXT not in json.dumps(json.loads((folder / "work.json").read_text()))
    journal.let_go()
    (item,) = left_over(tmp_path)
    assert item.document == document
    item.journal.drop()
