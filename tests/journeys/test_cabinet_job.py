"""Whole jobs of the cabinet from a blank project: a wooden box, a printed tube, by keys alone."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox, QLineEdit

from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.spots import spots_of
from firecrest.design.edits.cabinet import placed_paths
from firecrest.files.container import read_document
from firecrest.present.cabinet.cutlist import print_facts
from tests.app.helpers import (
    click,
    edit_of,
    menu,
    press,
    press_button,
    rested,
    segment,
    settle,
    type_into,
)

CASE = ("box", "case")


@pytest.fixture
def new(make_window, blank):
    return make_window(blank)


def cabinet(window):
    window.show_stage("cabinet")
    rested(window.stage)
    return window.stage


def spots(window):
    return spots_of(drawing_of(window.session.assessment))


def choose(stage, name, text):
    (combo,) = [c for c in stage.findChildren(QComboBox) if c.accessibleName() == name]
    combo.setCurrentIndex(combo.findText(text))
    combo.activated.emit(combo.currentIndex())
    rested(stage)


def item(stage, view, path):
    return stage.sheet.items[(view, path)]


def test_a_wooden_box_with_everything_in_it_and_no_tight_spot(new, tmp_path):
    """Placed, moved by hand, measured, braced, cut, and its end panel written at 1:1."""
    stage = cabinet(new)
    assert not new.session.assessment.cabinet.placed
    press_button(stage, "Place everything")
    rested(stage)
    assert new.session.assessment.cabinet.placed
    assert not [s for s in spots(new) if s.impossible]
    path = placed_paths(new.session.design)[0]
    handle = item(stage, "front", path)
    before = new.session.design.box.groups[0].mounts[0]
    here = handle.mapToGlobal(handle.rect().center())
    QTest.mousePress(handle, Qt.MouseButton.LeftButton, pos=handle.rect().center())
    for step in range(1, 8):
        to = handle.mapFromGlobal(here + QPoint(4 * step, 0))
        QTest.mouseMove(handle, to)
        settle()
    QTest.mouseRelease(handle, Qt.MouseButton.LeftButton)
    rested(stage)
    moved = new.session.design.box.groups[0].mounts[0]
    assert moved.u > before.u
    assert moved.v == before.v
    assert stage.selected == path
    menu(new, "undo")
    assert new.session.design.box.groups[0].mounts[0] == before
    type_into(new, (*path, "v"), "5")
    assert new.session.design.box.groups[0].mounts[0].v == pytest.approx(0.005)
    stage = new.stage
    press_button(stage, "Brace")
    rested(stage)
    assert len(new.session.design.box.case.braces) == 1
    (weight,) = [
        e for e in stage.findChildren(QLineEdit) if e.accessibleName() == "What filled it weighs"
    ]
    weight.setText("6,5 kg")
    press_button(stage, "Take its volume")
    assert new.session.assessment.cabinet.air[0] == pytest.approx(6.5 / 998)
    segment(new, "View", "pieces")
    rested(stage)
    assert stage.pieces.table().rows
    stage.pieces.outputs.panel.setCurrentText("left")
    for suffix in (".pdf", ".dxf", ".svg"):
        target = tmp_path / f"end{suffix}"
        stage.pieces.outputs.export_template(target)
        assert target.stat().st_size > 500
    for suffix in (".3mf", ".stl"):
        stage.pieces.outputs.export_mesh(tmp_path / f"case{suffix}")
        assert (tmp_path / f"case{suffix}").stat().st_size > 1000
    saved = tmp_path / "box.firecrest"
    new.session.save(saved)
    assert read_document(saved).project.design == new.session.design


def test_a_printed_tube_is_split_to_its_bed(new):
    stage = cabinet(new)
    air = float(new.session.assessment.cabinet.air[0])
    choose(stage, "Shape", "cylinder")
    assert float(new.session.assessment.cabinet.air[0]) == pytest.approx(air, rel=1e-3)
    stage = new.stage
    press_button(stage, "Print it")
    rested(stage)
    type_into(new, (*CASE, "wall"), "5 mm")
    press_button(new.stage, "Place everything")
    rested(new.stage)
    segment(new, "View", "pieces")
    rested(new.stage)
    said = {f.name: f.value for f in print_facts(drawing_of(new.session.assessment))}
    assert "pieces" in said["Printed"] or said["Printed"] == "in one piece"
    assert new.stage.pieces.prints.isVisible()
    segment(new, "View", "solid")
    rested(new.stage)
    canvas = new.stage.solid.canvas
    canvas.setFocus()
    yaw = canvas.yaw
    QTest.keyClick(canvas, Qt.Key.Key_Right)
    assert canvas.yaw > yaw
    menu(new, "undo")
    menu(new, "undo")
    menu(new, "undo")
    menu(new, "undo")
    assert new.session.design.box.case.shape.kind == "box"
    assert float(new.session.assessment.cabinet.air[0]) == pytest.approx(air)


def test_by_keys_alone_a_part_is_stepped_and_what_cannot_be_is_told(new):
    stage = cabinet(new)
    press_button(stage, "Place everything")
    rested(stage)
    pack = ("power", "source", "mount")
    assert pack in placed_paths(new.session.design)
    key = next(k for k in stage.sheet.items if k[1] == pack)
    part = stage.sheet.items[key]
    part.setFocus()
    before = new.session.design.power.source.mount
    QTest.keyClick(part, Qt.Key.Key_Right)
    rested(new.stage)
    part = new.stage.sheet.items[key]
    after = new.session.design.power.source.mount
    assert abs(abs(after.u - before.u) + abs(after.v - before.v) - 0.001) < 2e-4
    for _ in range(30):
        QTest.keyClick(part, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    rested(new.stage)
    assert [s for s in spots(new) if s.impossible]
    assert new.session.assessment.promises
    edit = edit_of(new, *pack, "u")
    edit.selectAll()
    QTest.keyClicks(edit, "0")
    press(new, Qt.Key.Key_Return)
    rested(new.stage)
    assert new.session.design.power.source.mount.u == 0.0


def test_an_impossible_case_is_refused_with_why_and_nothing_is_lost(new):
    stage = cabinet(new)
    before = new.session.design
    edit = type_into(new, (*CASE, "wall"), "100")
    assert new.session.design is before
    assert edit._hint is not None
    assert edit._hint.isVisible()
    edit.restore()
    choose(new.stage, "Edges rounded", "all round")
    type_into(new, (*CASE, "shape", "radius"), "90")
    assert new.session.design.box.case.shape.radius < 0.09
    click(stage.ledger.lines[0])
    settle()
