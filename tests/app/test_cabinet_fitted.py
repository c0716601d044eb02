"""What is fitted to a case, added and typed through the window; points of its outline dragged."""

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QLabel

from firecrest.app.widgets.number_field import NumberEdit
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.outline import free_outline
from firecrest.design.edits.paths import value_at
from firecrest.present.cabinet.ledger import ledger_rows
from firecrest.present.frame.find import findable
from firecrest.proposals.shaping import with_shape
from tests.app.helpers import edit_of, menu, press, press_button, rested, settle, type_into
from tests.assessment.cabinet.made import bare, placed

INNER = ("box", "case", "inner", 0)
SHAPE = ("box", "case", "shape")


@pytest.fixture
def stage(make_window):
    window = make_window(placed())
    window.show_stage("cabinet")
    rested(window.stage)
    return window.stage


def case(stage):
    return stage.session.design.box.case


def test_an_amplifier_chamber_is_added_vented_typed_and_taken_back(stage):
    window = stage.window()
    air = float(stage.session.assessment.cabinet.air[0])
    press_button(stage, "Amplifier chamber")
    rested(stage)
    assert float(stage.session.assessment.cabinet.air[0]) < air
    assert "Inner boxes" in {row.name for row in ledger_rows(stage.session.assessment)}
    type_into(window, (*INNER, "depth"), "70")
    assert case(stage).inner[0].depth == pytest.approx(0.07)
    assert stage.field((*INNER, "rise")) is None
    type_into(window, (*INNER, "vent"), "5 mm")
    rested(stage)
    assert stage.field((*INNER, "rise")) is not None, "a vented one says how warm it may get"
    press_button(stage, "Remove amplifier chamber")
    assert case(stage).inner == ()
    for _ in range(4):
        menu(window, "undo")
    assert stage.session.design == placed()


def test_shelf_dowel_plate_and_grille_bring_their_fields_and_go_by_undo(stage):
    for name in ("Shelf", "Dowel", "Plate", "Grille"):
        press_button(stage, name)
        rested(stage)
    made = case(stage)
    assert [b.form for b in made.braces] == ["shelf", "dowel"]
    assert made.fittings[0].kind == "plate"
    assert stage.field(("box", "case", "braces", 0, "reach")) is not None
    assert stage.field(("box", "case", "braces", 1, "spot_a")) is not None
    assert stage.field(("box", "case", "grille", "gap")) is not None
    press_button(stage, "No grille")
    rested(stage)
    assert case(stage).grille is None
    assert stage.field(("box", "case", "grille", "gap")) is None
    for _ in range(5):
        menu(stage.window(), "undo")
    assert stage.session.design == placed()


def test_a_refused_depth_keeps_the_box(stage):
    press_button(stage, "Amplifier chamber")
    rested(stage)
    before = case(stage).inner[0]
    edit = type_into(stage.window(), (*INNER, "depth"), "9 km")
    assert edit.property("refused")
    assert case(stage).inner[0] == before


@pytest.mark.parametrize(("kind", "name", "view"), [("vase", "profile", "front"),
                                                    ("stack", "corners", "front")])  # fmt: skip
def test_points_of_a_case_are_dragged_and_stepped(stage, kind, name, view):
    design = with_shape(stage.session.design, kind)[1]
    if kind == "stack":
        design = free_outline(design, on=True)[1]
    stage.session.apply("another shape", design)
    rested(stage)
    path = (*SHAPE, name, 2)
    handle = stage.sheet.items[(view, path)]
    before = getattr(case(stage).shape, name)[2]
    start = handle.rect().center()
    here = handle.mapToGlobal(start)
    QTest.mousePress(handle, Qt.MouseButton.LeftButton, pos=start)
    for step in range(1, 5):
        QTest.mouseMove(handle, handle.mapFromGlobal(here + QPoint(-3 * step, 0)))
        settle()
    QTest.mouseRelease(handle, Qt.MouseButton.LeftButton)
    settle()
    moved = getattr(case(stage).shape, name)[2]
    assert moved != before
    menu(stage.window(), "undo")
    assert getattr(case(stage).shape, name)[2] == before, "one drag is one step"
    stage.sheet.items[(view, path)].setFocus()
    press(stage.window(), Qt.Key.Key_Left)
    assert getattr(case(stage).shape, name)[2] != before
    assert "mm" in QApplication.focusWidget().accessibleName()


def test_a_corner_more_has_its_fields_and_one_too_few_is_refused(stage):
    stage.session.apply("wedge", with_shape(stage.session.design, "prism")[1])
    rested(stage)
    press_button(stage, "Add a point")
    rested(stage)
    assert len(case(stage).shape.corners) == 5
    assert edit_of(stage.window(), *SHAPE, "corners", 4, "a").isVisible()
    third, rest = case(stage).shape.corners[2], len(case(stage).shape.corners)
    press_button(stage, "Remove corner 3")
    rested(stage)
    assert third not in case(stage).shape.corners
    assert len(case(stage).shape.corners) == rest - 1
    stage.sheet.items[("right", (*SHAPE, "corners", 1))].setFocus()
    second = case(stage).shape.corners[1]
    press(stage.window(), Qt.Key.Key_Delete)
    assert second not in case(stage).shape.corners
    press_button(stage, "Remove corner 1")
    assert len(case(stage).shape.corners) == 3
    assert "3 points" in stage.window().notice.text()


def test_rings_plates_and_feet_are_saved_from_pieces(stage, tmp_path):
    stage.show_view("pieces")
    rested(stage)
    window = stage.window()
    window.messages.save_to = tmp_path / "small.3mf"
    press_button(stage, "Save small parts…")
    assert (tmp_path / "small.3mf").stat().st_size > 500
    window.messages.save_to = tmp_path / "cut.pdf"
    press_button(stage, "Save cut list or sheets…")
    assert (tmp_path / "cut.pdf").read_bytes().startswith(b"%PDF")
    window.messages.save_to = tmp_path / "cut.csv"
    press_button(stage, "Save cut list or sheets…")
    assert "Grain" in (tmp_path / "cut.csv").read_text(encoding="utf-8")


@pytest.mark.parametrize("twice", ["Brace", "Shelf", "Inner box", "Plate", "Knob"])
def test_two_of_a_kind_have_fields_of_their_own_names(stage, twice):
    for _ in range(2):
        press_button(stage, twice)
        rested(stage)
    fields = [f for f in stage.findChildren(NumberEdit) if f.isVisibleTo(stage)]
    names = [field.accessibleName() for field in fields]
    assert len(names) == len(set(names)) > 10


def test_what_is_fitted_is_found_from_anywhere(stage):
    """Every figure of the case leads to a field, whichever stage one is on."""
    window = stage.window()
    for name in ("Amplifier chamber", "Shelf", "Dowel", "Plate", "Grille", "Feet"):
        press_button(stage, name)
        rested(stage)
    fitted = ("braces", "inner", "grille", "fittings", "feet")
    paths = [p for _, _, p, _ in findable(window.session.design) if p[2:3] and p[2] in fitted]
    assert len(paths) > 30
    lost = []
    for path in paths:
        window.show_stage("promise")
        window.reveal(path)
        settle()
        if window.stage.key != "cabinet":
            lost.append(path)
    assert lost == []


def test_points_are_there_before_anything_has_a_place(make_window):
    """Parts wait for their places, the outline does not; and nothing is called far enough apart."""
    window = make_window(with_shape(bare(), "vase")[1])
    window.show_stage("cabinet")
    rested(window.stage)
    assert {path[:3] for _, path in window.stage.sheet.items} == {SHAPE}
    said = [row.text() for row in window.stage.tight.findChildren(QLabel)]
    assert not [text for text in said if "apart" in text]


def test_a_bandpass_gets_its_divider_and_everything_its_place(make_window):
    design = bare("boathouse-bandpass")
    window = make_window(design)
    window.show_stage("cabinet")
    stage = window.stage
    rested(stage)
    waiting = "Hornbeam S25-4 sounds into another chamber"
    assert any(waiting in text.text() for text in stage.findChildren(QLabel))
    press_button(stage, "Divider")
    press_button(stage, "Place everything")
    rested(stage)
    assert not any(waiting in text.text() for text in stage.findChildren(QLabel))
    cone = ("box", "groups", 0, "mounts", 0)
    stage.select(cone)
    rested(stage)
    offered = [[c.itemText(k) for k in range(c.count())] for c in stage.findChildren(QComboBox)]
    assert ["right of divider 1", "left of divider 1"] in offered
    press_button(stage, "Remove divider")
    assert stage.session.design.box.groups[0].mounts == ()
    for _ in range(3):
        menu(window, "undo")
    assert stage.session.design == design


def pixels(widget):
    image = widget.grab().toImage()
    image = image.convertToFormat(image.Format.Format_RGBA8888)
    rows = np.frombuffer(image.constBits(), np.uint8).reshape(image.height(), -1)
    return rows[:, : 4 * image.width()].astype(int)


@pytest.mark.parametrize("path", [("power", "source", "mount"), ("box", "groups", 0, "mounts", 0)])
def test_what_a_drag_leaves_on_the_paper_is_what_is_painted_afresh(stage, path):
    start = value_at(stage.session.design, path)
    for k in range(4):
        design = moved(stage.session.design, path, start.u + 0.004 * k, start.v + 0.002 * k)
        stage.session.apply("drag", design, fold="drag")
        QApplication.processEvents()
    rested(stage)
    dragged, layers = pixels(stage.sheet), dict(stage.sheet._layers)
    assert any(kept.under is not None for kept in layers.values())
    stage.sheet._layers.clear()
    stage.sheet.update()
    settle()
    assert np.max(np.abs(dragged - pixels(stage.sheet))) <= 2
