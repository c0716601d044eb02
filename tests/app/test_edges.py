"""Effects beyond small signals in the window: switched, undone, kept; their tables on sheets."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QCheckBox, QPushButton

from firecrest.files.container import read_document
from firecrest.files.demos import read_demo
from tests.app.helpers import settle, type_into

CELL, DRIVER = ("power", "source", "cell"), ("box", "groups", 0, "driver")


def tick(window, name):
    """A switch of the side panel, by keyboard."""
    (box,) = (c for c in window.side.findChildren(QCheckBox) if c.text() == name)
    assert not box.isHidden()
    box.setFocus()
    QTest.keyClick(box, Qt.Key.Key_Space)
    settle()
    return box


def push(window, text):
    (found,) = (
        b for b in window.stage.findChildren(QPushButton) if b.text() == text and b.isVisible()
    )
    found.setFocus()
    QTest.keyClick(found, Qt.Key.Key_Space)
    settle()


def test_turbulence_is_switched_undone_and_saved(window, tmp_path):
    design = read_demo("breakwater")
    window.session.apply("breakwater", design)
    settle()
    before = window.session.assessment.promise("bass").predicted
    box = tick(window, "Turbulence in ports")
    assert window.session.assessment.promise("bass").predicted < before - 0.5
    assert not box.isChecked()
    path = tmp_path / "linear.firecrest"
    window.session.save(path)
    assert not read_document(path).design.brief.edges.turbulence
    window.undo()
    settle()
    assert box.isChecked()
    assert window.session.assessment.promise("bass").predicted == before


def test_only_what_matters_is_offered(window):
    names = {c.text() for c in window.side.findChildren(QCheckBox) if not c.isHidden()}
    assert names == {"Bent motors and suspensions", "Hot coils"}
    window.show_stage("promise")
    type_into(window, ("brief", "conditions", "temperature"), "-10")
    settle()
    names = {c.text() for c in window.side.findChildren(QCheckBox) if not c.isHidden()}
    assert "Suspensions by temperature" in names


def test_bent_parts_take_from_a_box_that_is_held_by_travel(window):
    before = window.session.assessment.promise("loudness").predicted
    tick(window, "Bent motors and suspensions")
    assert window.session.assessment.promise("loudness").predicted < before - 0.2


def test_a_cells_table_by_temperature_is_written_in_and_taken_back(window):
    window.session.go_to((*CELL, "price"))
    settle()
    push(window, "Write in own ones")
    assert len(window.session.design.power.source.cell.warmth) == 6
    type_into(window, (*CELL, "warmth", 0, "capacity"), "55")
    assert window.session.design.power.source.cell.warmth[0].capacity == 0.55
    push(window, "Take the usual ones")
    assert window.session.design.power.source.cell.warmth == ()


def test_a_driver_gets_points_at_large_travel(window):
    window.session.go_to((*DRIVER, "r_tv"))
    settle()
    push(window, "Add point")
    type_into(window, (*DRIVER, "large", 1, "bl"), "70")
    assert window.session.design.box.groups[0].driver.large[1].bl == pytest.approx(0.7)
    push(window, "Remove last")
    assert len(window.session.design.box.groups[0].driver.large) == 2
