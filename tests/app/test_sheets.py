"""Data sheets in the window: entering, settling, pasting, copies in designs, wiring."""

import dataclasses

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QLineEdit

from firecrest.app.stages.parts.wiring_page import WiringPage
from firecrest.app.widgets.number_field import NumberEdit
from firecrest.design.sources import WallSupply
from firecrest.shelf.store import Shelf
from tests.app.helpers import (
    DRIVER,
    W13,
    bands,
    button,
    click,
    menu,
    meter_of,
    names,
    page,
    press,
    row_of,
    settle,
    text_of,
    type_in_row,
    type_into,
    wait,
)

# entering a sheet --------------------------------------------------


SHEET = (
    ("size", "5.25 in"), ("re", "3.4"), ("fs", "58"), ("qes", "0,5"), ("qms", "4.5"),
    ("vas", "0.2119 cu ft"), ("sd", "13.02 sq in"), ("xmax", "4.5 mm"), ("pe", "40 W"),
)  # fmt: skip


def test_a_sheet_is_entered_in_any_unit_on_a_new_part(window, stage):
    menu(window, "new_driver")
    entry_id = stage.subject.entry_id
    assert page(stage).guess.isVisible()
    for name, text in SHEET:
        type_in_row(stage, name, text)
    part = Shelf(window.session.shelf.store.path).entry(entry_id).part
    assert (part.vas, part.sd) == pytest.approx((6.0e-3, 84e-4), rel=1e-3)
    assert part.origins["vas"] == "sheet"
    bl = row_of(stage, "bl").row.edit
    assert bl.placeholderText() == "(5.58\u202fT·m)"
    assert "√(2πFs·Mms·Re/Qes)" in bl.binding.about(stage.editing.assessment)
    assert window.session.trial is not None
    assert not window.session.modified
    type_in_row(stage, "bl", "5.6")
    assert stage.subject.part.bl == 5.6
    menu(window, "undo")
    assert stage.subject.part.bl is None
    assert window.actions_by_id["redo"].text().startswith("Redo: Force factor")
    type_in_row(stage, "fs", "58 kg")
    assert row_of(stage, "fs").row.edit.property("refused")
    assert stage.subject.part.fs == 58.0
    row_of(stage, "fs").row.edit.restore()
    stage.close_sheet()
    assert window.session.trial is None
    assert "New driver" in names(stage)


def test_the_field_keeps_the_keyboard_while_the_sheet_follows(window, stage):
    stage.open_path(DRIVER)
    settle()
    edit = row_of(stage, "fs").row.edit
    edit.setFocus()
    QTest.keyClick(edit, Qt.Key.Key_Up)
    settle()
    assert row_of(stage, "fs").row.edit is edit
    assert QApplication.focusWidget() is edit
    assert window.session.design.box.groups[0].driver.fs == pytest.approx(58.1)


def test_origin_and_range_are_set_by_figure(window, stage):
    stage.open_path(DRIVER)
    settle()
    row = row_of(stage, "fs")
    assert row.range.text() == "±2 %"
    row._fill()
    texts = [a.text() for a in row.menu.actions()]
    assert "Measured by you" in texts
    assert "±5 %" in texts
    row.choose_origin("estimate")
    assert row.range.text() == "±40 %"
    row.choose_range(0.05)
    assert row.range.text() == "±5 %"
    assert window.session.design.box.groups[0].driver.tolerances == {"fs": 0.05}
    menu(window, "undo")
    menu(window, "undo")
    assert row.range.text() == "±2 %"


def test_a_part_without_data_is_estimated(window, stage):
    stage.open_entry("salvaged-150")
    settle()
    assert "waits for these" in text_of(page(stage))
    click(page(stage).guess)
    part = stage.subject.part
    assert part.origins["fs"] == "estimate"
    assert row_of(stage, "mms").range.text() == "±60 %"
    assert meter_of(window, "loudness").ghost
    menu(window, "undo")
    assert stage.subject.part.fs is None


# contradictions --------------------------------------------------


def test_a_contradiction_is_told_and_settled(window, stage):
    stage.open_entry("hornbeam-w21-8-old-sheet")
    settle()
    (band,) = bands(stage)
    assert "Mms from Fs and Cms gives 34.50" in band.accessibleName()
    assert "Likely culprit: Mms" in band.accessibleName()
    assert row_of(stage, "mms").row.edit.property("doubted")
    click(band.buttons[0])
    assert stage.subject.part.mms is None
    assert bands(stage) == []
    row = row_of(stage, "mms")
    assert "28.29" in row.aside.text()
    assert not row.row.edit.property("doubted")
    kept = window.session.shelf.store.entry("hornbeam-w21-8-old-sheet").part
    assert kept.set_aside == {"mms": pytest.approx(0.02829)}
    row._fill()
    next(a for a in row.menu.actions() if a.text().startswith("Bring back")).trigger()
    settle()
    assert stage.subject.part.mms == pytest.approx(0.02829)


def test_typing_a_contradiction_shows_the_band_at_once(window, stage):
    type_into(window, (*DRIVER, "mms"), "14.8 g")
    (band,) = bands(stage)
    assert "15 % apart" in band.accessibleName()
    menu(window, "undo")
    assert bands(stage) == []


# pasting --------------------------------------------------


PASTED = """ALDER X21-4 woofer
Re 3,5 Ω   Le 0,30 mH
fs 66 Hz   Qms 4.2  Qes 0.52
Mmd 9.6 g  Sd 87 cm2
power 34 W RMS, Xmax 9 mm p-p
sens. 92 dB"""


def test_a_pasted_sheet_makes_a_part(window, stage):
    QApplication.clipboard().setText(PASTED)
    menu(window, "paste_sheet")
    panel = page(stage).panel
    assert panel.text.toPlainText() == PASTED
    assert panel.said.text() == "9 figures read, 0 differ, 1 kept as notes"
    assert len(panel.text.extraSelections()) == 10
    box = next(b for b, offer in panel.boxes if offer.figure == "xmax")
    click(box)
    assert panel.take_button.text() == "Take 8 figures"
    click(panel.take_button)
    part = stage.subject.part
    assert part.name == "ALDER X21-4 woofer"
    assert (part.re, part.fs, part.pe, part.xmax) == (3.5, 66.0, 34.0, None)
    assert page(stage).panel is None
    assert stage.editing.history.past[-1][0] == "Take 8 pasted figures"
    menu(window, "undo")
    assert stage.subject.part.fs is None


def test_pasting_over_a_sheet_ticks_only_what_agrees(window, stage):
    QApplication.clipboard().setText("nothing of use")
    stage.open_path(DRIVER)
    stage.paste(True)
    settle()
    panel = page(stage).panel
    assert panel.text.toPlainText() == ""
    assert not panel.take_button.isEnabled()
    panel.text.setPlainText("Fs 66 Hz, Re 3.4 ohm, Qms 4.5")
    settle()
    assert {o.figure for o in panel.ticked} == {"re", "qms"}
    click(panel.all_button)
    click(panel.take_button)
    assert window.session.design.box.groups[0].driver.fs == 66.0
    menu(window, "undo")
    assert not window.session.modified


# copies in designs --------------------------------------------------


def test_a_design_says_when_the_shelf_has_news_and_takes_them(window, stage):
    stage.open_entry(W13)
    settle()
    type_in_row(stage, "fs", "60 Hz")
    stage.close_sheet()
    wait(stage)
    assert window.session.design.box.groups[0].driver.fs == 58.0
    assert stage.tray.cards[0]._lines[3].text() == "new figures on the shelf"
    stage.open_path(DRIVER)
    settle()
    (band,) = bands(stage)
    assert "Fs 58.0\u202fHz → 60.0\u202fHz" in band.accessibleName()
    click(band.buttons[0])
    assert window.session.design.box.groups[0].driver.fs == 60.0
    assert not bands(stage)
    menu(window, "undo")
    (band,) = bands(stage)
    click(band.buttons[1])
    assert window.session.design.box.groups[0].driver.fs == 58.0
    assert not bands(stage)


def test_own_figures_go_onto_the_shelf(window, stage):
    type_into(window, (*DRIVER, "fs"), "61 Hz")
    assert stage.shelf_button.text() == "Put these figures on the shelf"
    click(stage.shelf_button)
    assert window.session.shelf.store.entry(W13).part.fs == 61.0
    assert not stage.shelf_button.isVisible()
    path = ("power", "source", "cell")
    window.session.edit((*path, "shelf"), None)
    stage.open_path(path)
    settle()
    click(stage.shelf_button)
    link = window.session.design.power.source.cell.shelf
    assert window.session.shelf.store.entry(link.part).name == "Flint 21"


# wiring --------------------------------------------------


def test_the_wiring_picture_is_saved_for_the_bench(window, stage, tmp_path):
    stage.open_path(DRIVER)
    stage.choose_view("wiring")
    settle()
    wiring = page(stage, WiringPage)
    assert "within the 20 %" in text_of(wiring)
    for name, start in (("w.pdf", b"%PDF"), ("w.svg", b"<?xml"), ("w.png", b"\x89PNG")):
        window.messages.save_to = tmp_path / name
        wiring._save()
        data = (tmp_path / name).read_bytes()
        assert data.startswith(start)
        assert len(data) > 1000


def test_sheets_of_every_kind_of_part_open(window, stage):
    seen = set()
    for id, entry in list(window.session.shelf.entries().items()):
        if entry.kind in seen and not entry.notes.startswith("A bad"):
            continue
        seen.add(entry.kind)
        stage.open_entry(id)
        settle()
        assert stage.part_name.text() == entry.name
        boxes = [e for e in stage.findChildren(NumberEdit) if e.isVisible()]
        assert len(boxes) >= 3
    stage.close_sheet()
    assert stage.pages.currentIndex() == 0


def test_a_supply_says_its_form_once_whatever_it_is(window, stage):
    supplies = {
        id: e.part
        for id, e in window.session.shelf.entries().items()
        if isinstance(e.part, WallSupply)
    }
    assert "car outlet" in {part.form for part in supplies.values()}
    for id, part in supplies.items():
        stage.open_entry(id)
        settle()
        forms = [
            c.currentText().lower()
            for c in stage.findChildren(QComboBox)
            if c.accessibleName() == "Form"
        ]
        assert forms == [part.form]


def test_claims_of_a_shelf_board_and_tables_of_a_cell_are_edited(window, stage):
    stage.open_entry("sedge-2x100")
    settle()
    first = next(e for e in stage.findChildren(NumberEdit) if e.binding.path[-2:] == (0, "power"))
    first.setFocus()
    first.selectAll()
    QTest.keyClicks(first, "120")
    QTest.keyClick(first, Qt.Key.Key_Return)
    button(stage, "Add claim")
    kept = window.session.shelf.store.entry("sedge-2x100").part.claims
    assert [c.power for c in kept] == [120.0, 74.55, 60.0]
    button(stage, "Remove last")
    assert len(window.session.shelf.store.entry("sedge-2x100").part.claims) == 2
    stage.open_entry("flint-l26")
    settle()
    assert "Lithium pack" in text_of(page(stage))
    points = len(stage.subject.part.table)
    button(stage, "Add point")
    assert len(stage.subject.part.table) == points + 1
    button(stage, "Remove last")
    assert len(stage.subject.part.table) == points
    stage.open_entry("flint-n14")
    settle()
    assert "Nickel pack" in text_of(page(stage))


def test_a_note_is_kept_and_found(window, stage):
    stage.open_entry(W13)
    settle()
    page(stage).keep_note("from the red crate")
    stage.close_sheet()
    stage.shelf.bar.search.setText("red crate")
    wait(stage)
    assert names(stage) == ["Alder W13-4"]


def test_shelf_parts_are_found_from_everywhere_and_tables_dropped(window, stage, tmp_path):
    window.show_stage("size")
    window.finder.setText("Hornbeam W25-8P")
    assert "Hornbeam W25-8P" in window.finder.results()
    window._open("hornbeam-w25-8p")
    settle()
    assert window.stage.part_name.text() == "Hornbeam W25-8P"
    path = tmp_path / "more.csv"
    path.write_text("name;fs [Hz]\nAlder Dropped;70\n")
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    nothing = Qt.MouseButton.NoButton
    window.dropEvent(
        QDropEvent(
            QPointF(5, 5), Qt.DropAction.CopyAction, data, nothing, Qt.KeyboardModifier.NoModifier
        )
    )
    assert "Alder Dropped" in {e.name for e in window.session.shelf.entries().values()}


def test_a_part_that_has_no_place_here_shows_no_ghost_of_another_design(window, stage):
    window.session.edit(("name",), "Untitled")
    stage.open_entry("sedge-1x100")
    settle()
    assert stage.subject.editing.design.name == "Untitled"
    assert window.session.trial is None
    type_in_row(stage, "gain", "27")
    assert window.session.trial is None
    assert window.session.shelf.store.entry("sedge-1x100").part.gain == 27


def test_the_sheet_of_a_shelf_part_follows_the_design(window, stage):
    stage.open_entry("alder-w13-8")
    settle()
    window.session.edit_number(("box", "case", "depth"), 0.185)
    settle()
    assert stage.subject.editing.design.box.case.depth == 0.185
    assert window.session.trial.design.box.case.depth == 0.185
    assert stage.part_name.text() == "Alder W13-8"


def test_news_from_another_window_reach_an_open_sheet(window, stage):
    stage.open_path(DRIVER)
    settle()
    assert bands(stage) == []
    other = Shelf(window.session.shelf.store.path)
    entry = other.entry(W13)
    other.keep_part(entry, dataclasses.replace(entry.part, fs=62.0, shelf=None))
    other.close()
    window.session.shelf.look()
    settle()
    assert "Fs 58.0\u202fHz → 62.0\u202fHz" in bands(stage)[0].accessibleName()


def test_the_keyboard_follows_into_a_sheet_and_back(window, stage):
    press(
        window,
        Qt.Key.Key_V,
        Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier,
    )
    settle()
    assert QApplication.focusWidget().accessibleName() == "Pasted sheet"
    press(window, Qt.Key.Key_Tab)
    assert QApplication.focusWidget().accessibleName() != "Pasted sheet", "Tab leaves the text"
    press(window, Qt.Key.Key_Escape)
    assert QApplication.focusWidget() is stage.shelf.bar.search
    stage.shelf.table.setFocus()
    stage.shelf.table.selectRow(1)
    press(window, Qt.Key.Key_Return, Qt.KeyboardModifier.AltModifier)
    settle()
    field = QApplication.focusWidget()
    assert isinstance(field, QLineEdit)
    assert stage.pages.currentWidget().isAncestorOf(field)
    press(window, Qt.Key.Key_Escape)
    assert QApplication.focusWidget() is stage.shelf.table
