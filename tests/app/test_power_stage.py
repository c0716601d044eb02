"""Power in the window: views, uses, switches of cold and age, logs, wiring out, supplies tried."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from firecrest.design.edits.paths import replace_at
from firecrest.design.sources import WallSupply
from firecrest.files.demos import read_demo
from firecrest.present.power.currents import current_rows, row_count
from tests.app.helpers import click, menu, press_button, rested, settle, type_into

SOURCE = ("power", "source")


@pytest.fixture
def stage(window):
    window.show_stage("power")
    settle()
    return window.stage


def test_every_view_opens_and_shows_the_design(stage):
    for view in ("hours", "boards", "levels", "supplies", "wiring"):
        click(stage.views.button(view))
        rested(stage)
        assert stage.pages.currentWidget().isVisible()
    assert stage.wiring.view.drawn is not None
    assert stage.boards.table.texts()[0][0] == "4 Ω, 2 at once"
    assert len(stage.levels.table.texts()) == 4


@pytest.mark.parametrize("name", ["slipway", "lantern", "breakwater", "boathouse", "untitled"])
def test_rows_of_currents_are_counted_without_them(name, make_window):
    assessment = make_window(read_demo(name)).session.assessment
    assert row_count(assessment) == len(current_rows(assessment))


def test_another_use_changes_hours_and_flow(stage):
    before = stage.hours.volts.content.lines[0].at
    said = stage.energy.flow.picture
    click(stage.hours.uses.button("flat out"))
    rested(stage)
    assert stage.hours.volts.content.lines[0].at < before
    assert stage.energy.flow.picture != said


def test_cold_and_age_change_the_promises_and_are_undone(window, stage):
    design, hours = window.session.design, window.session.assessment.promise("runtime").predicted
    press_button(stage, "0 °C")
    press_button(stage, "80 %")
    colder = window.session.assessment.promise("runtime").predicted
    assert colder < 0.8 * hours
    for _ in range(2):
        menu(window, "undo")
    assert window.session.design is design


def test_volts_follow_at_once_and_the_rest_at_rest(window, stage):
    rested(stage)
    before, flow = stage.hours.volts.content, stage.energy.flow.picture
    window.session.edit((*SOURCE, "cell", "capacity"), 9000.0)
    assert stage.hours.volts.content is not before
    assert stage.energy.flow.picture == flow
    assert stage.busy
    rested(stage)
    assert stage.energy.flow.picture != flow


def test_a_danger_is_seen_on_every_stage_and_mended_by_the_first_move(window, stage):
    press_button(stage, "Remove protection board")
    rested(stage)
    window.strip._after.flush()
    assert "1 danger" in window.strip.summary.accessibleName()
    assert "without a protection board" in stage.source._dangers.text()
    window.show_stage("promise")
    assert "1 danger" in window.strip.summary.accessibleName()


def test_a_discharge_log_sets_capacity_and_is_undone(window, stage, tmp_path):
    log = tmp_path / "pack.csv"
    rows = [f"{60 * k},{20.5 - 0.02 * k},2.0" for k in range(250)]
    log.write_text("\n".join(["time,voltage,current", *rows]))
    before = window.session.design
    stage.source.read_log(log)
    cell = window.session.design.power.source.cell
    assert cell.capacity == pytest.approx(2.0 * 60 * 249 / 2, rel=0.01)
    assert cell.origins["capacity"] == "measured"
    menu(window, "undo")
    assert window.session.design is before
    bad = tmp_path / "bad.csv"
    bad.write_text("no log at all")
    assert not window.session.attempt(lambda: stage.source.read_log(bad))
    assert window.session.design is before


def test_the_picture_leaves_as_drawing_page_picture_and_labels(stage, tmp_path):
    stage.show_view("wiring")
    for suffix, head in ((".svg", b"<?xml"), (".pdf", b"%PDF"), (".png", b"\x89PNG")):
        path = tmp_path / f"wiring{suffix}"
        stage.wiring.export(path)
        assert path.read_bytes().startswith(head)
    stage.wiring.export(tmp_path / "labels.csv")
    lines = (tmp_path / "labels.csv").read_text().splitlines()
    assert lines[0] == "wire,from,to,pole,what"
    assert lines[1].startswith("W1,5S2P Flint 21,")
    stage.wiring.export_labels(tmp_path / "labels.pdf")
    assert (tmp_path / "labels.pdf").read_bytes().startswith(b"%PDF")


def test_a_supply_is_tried_taken_and_undone(window, stage):
    stage.show_view("supplies")
    rested(stage)
    row = next(r for r in stage.supplies.rows if r.offered.name == "Fen B19")
    row.setFocus(Qt.FocusReason.TabFocusReason)
    settle()
    assert window.session.trial is not None
    QTest.keyClick(row, Qt.Key.Key_Return)
    assert window.session.design.power.source.name == "Fen B19"
    assert stage.field((*SOURCE, "behaviour")) is not None
    menu(window, "undo")
    assert window.session.design.power.source.kind == "pack"


def test_fuse_wire_and_switch_are_fitted_by_buttons(window, stage):
    type_into(window, ("power", "lead", "area"), "0.14")
    press_button(stage, "Fit the fuse wanted")
    press_button(stage, "Take the wire wanted")
    press_button(stage, "Add switch")
    power = window.session.design.power
    assert (power.fuse.rating, power.lead.area) == (5.0, pytest.approx(0.34e-6))
    assert power.switch is not None
    assert stage.field(("power", "fuse", "rating")) is not None
    press_button(stage, "Remove fuse")
    assert window.session.design.power.fuse is None


def test_voltages_of_a_bank_are_added_and_asked_for(window, slipway):
    window.session.apply("wall", replace_at(slipway, SOURCE, _bank()))
    window.show_stage("power")
    settle()
    press_button(window.stage, "Add a voltage")
    press_button(window.stage, "Add a voltage")
    assert [s.voltage for s in window.session.design.power.source.steps] == [12.0, 15.0]
    press_button(window.stage, "Ask for 15 V")
    assert window.session.design.power.source.voltage == 15.0
    press_button(window.stage, "Remove the last")
    assert len(window.session.design.power.source.steps) == 1


def _bank():
    return WallSupply(
        kind="wall", form="power bank", voltage=12.0, continuous_current=3.0, energy=3.6e5
    )
