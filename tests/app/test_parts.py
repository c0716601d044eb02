"""The Parts stage as a person uses it: searching, choosing, entering, pasting, sharing."""

import csv
import json

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel, QPushButton

from firecrest.app.stages.parts.bands import Band
from firecrest.app.stages.parts.sheet_page import SheetPage
from firecrest.app.stages.parts.wiring_page import WiringPage
from firecrest.app.widgets.number_field import NumberEdit
from firecrest.shelf.store import Shelf
from tests.app.helpers import click, menu, press, settle, type_into

W13 = "alder-w13-4"
HERE = ("box", "groups", 0, "driver")


def wait(stage):
    """Until everything on show is worked out."""
    for _ in range(200):
        QTest.qWait(20)
        if not stage.shelf.judged.chooser.running and not stage.shelf._rest.isActive():
            break
    settle()


@pytest.fixture
def stage(window):
    window.show_stage("parts")
    wait(window.stage)
    return window.stage


def names(stage):
    return [r.entry.name for r in stage.shelf.table.rows_model.rows]


def pick(stage, id):
    rows = stage.shelf.table.rows_model.rows
    stage.shelf.table.selectRow([r.entry.id for r in rows].index(id))
    settle()
    return stage.shelf.table.current


def page(stage, kind=SheetPage):
    found = stage._scroll.widget()
    assert isinstance(found, kind)
    return found


def row_of(stage, name):
    return next(r for r in page(stage).rows if r.name == name)


# searching --------------------------------------------------


def test_search_as_one_types_and_filters(stage):
    QTest.keyClicks(stage.shelf.bar.search, "w13, under 40 eur")
    wait(stage)
    assert set(names(stage)) == {"Alder W13-4", "Alder W13-8", "Hornbeam W13-8"}
    stage.shelf.bar.search.clear()
    stage.shelf.bar._narrow("8 in")
    stage.shelf.bar._narrow("under €60")
    assert stage.shelf.bar.search.text() == "8 in, under €60"
    wait(stage)
    assert set(names(stage)) == {"Hornbeam W20-4", "Hornbeam W21-8 old sheet"}
    stage.shelf.bar.search.setText("no such thing")
    wait(stage)
    assert stage.shelf.said.text() == "Nothing on the shelf is like that."
    stage.shelf.bar.search.clear()
    click(stage.shelf.bar.chips["have"])
    wait(stage)
    assert all(r.entry.stock for r in stage.shelf.table.rows_model.rows)
    click(stage.shelf.bar.chips["have"])
    click(stage.shelf.bar.chips["fits"])
    wait(stage)
    assert all(r.outcome.fit.fits for r in stage.shelf.table.rows_model.rows)
    click(stage.shelf.bar.kinds.button("radiator"))
    click(stage.shelf.bar.chips["loud"])
    wait(stage)
    loud = [r.outcome.figures.loudness for r in stage.shelf.table.rows_model.rows]
    assert loud
    assert min(loud) >= 96


def test_kinds_columns_and_sorting(stage):
    for kind in ("radiator", "amplifier", "cell", "supply", "dsp", ""):
        click(stage.shelf.bar.kinds.button(kind))
        wait(stage)
        assert all(
            r.entry.kind == (kind or r.entry.kind) for r in stage.shelf.table.rows_model.rows
        )
    click(stage.shelf.bar.kinds.button("driver"))
    click(stage.shelf.bar.views.button("figures"))
    wait(stage)
    columns = [c.key for c in stage.shelf.table.rows_model.columns]
    stage.shelf._sort_by(columns.index("fs"))
    first = stage.shelf.table.rows_model.rows[0].entry.name
    assert first == "Hornbeam S30-2x4"
    stage.shelf._sort_by(columns.index("fs"))
    assert stage.shelf.table.rows_model.rows[0].entry.name == "Hazel T13-8"
    stage.shelf._sort_by(columns.index("fs"))
    assert names(stage) == sorted(names(stage), key=str.lower)
    model = stage.shelf.table.rows_model
    spoken = model.data(model.index(0, 1), Qt.ItemDataRole.AccessibleTextRole)
    assert spoken.startswith("size: ")


# choosing --------------------------------------------------


def test_trying_shows_ghosts_and_taking_is_one_undo_step(window, stage):
    click(stage.tray.cards[1])
    wait(stage)
    row = pick(stage, "rowan-r16l")
    assert row.outcome.fit.reason == "same cut-out"
    assert window.strip.meters["loudness"].meter.ghost
    assert "+3." in stage.shelf.said.text()
    steps = len(window.session.history.past)
    stage.shelf.table.setFocus()
    press(window, Qt.Key.Key_Return)
    assert window.session.design.box.radiators[0].radiator.name == "Rowan R16L"
    assert len(window.session.history.past) == steps + 1
    assert window.actions_by_id["undo"].text() == "Undo: Radiator: Rowan R16L"
    shown = window.session.assessment.promise("loudness").predicted
    assert shown == pytest.approx(row.outcome.figures.loudness, abs=1e-9)
    wait(stage)
    held = [r.entry.id for r in stage.shelf.table.rows_model.rows if r.in_force]
    assert held == ["rowan-r16l"]
    menu(window, "undo")
    assert not window.session.modified


def test_each_candidate_tuned(window, stage):
    click(stage.tray.cards[1])
    wait(stage)
    plain = pick(stage, "rowan-r18").outcome.figures.loudness
    click(stage.shelf.bar.retune)
    wait(stage)
    row = pick(stage, "rowan-r18")
    assert row.outcome.figures.loudness >= plain - 0.05
    click(stage.shelf.take_button)
    assert window.session.design == row.outcome.design
    mass = window.session.design.box.radiators[0].added_mass
    assert mass != 0.018


def test_leaving_a_row_drops_its_ghost_and_escape_too(window, stage):
    pick(stage, "alder-w13-8")
    assert window.session.trial is not None
    stage.shelf.table.setFocus()
    press(window, Qt.Key.Key_Escape)
    assert window.session.trial is None
    pick(stage, W13)
    assert window.session.trial is None
    assert not stage.shelf.take_button.isEnabled()


def test_what_cannot_be_put_in_is_told(window, stage):
    click(stage.shelf.bar.kinds.button("amplifier"))
    wait(stage)
    pick(stage, "sedge-1x100")
    assert "the voice uses 2 outputs" in stage.shelf.said.text()
    stage.shelf.take(stage.shelf.table.current)
    settle()
    assert window.notice.isVisible()
    assert not window.session.modified


def test_results_follow_the_design(window, stage):
    before = pick(stage, "alder-w13-8").outcome.figures.loudness
    window.session.edit_number(("box", "radiators", 0, "added_mass"), 0.06)
    assert stage.shelf.table.rows_model.faded
    wait(stage)
    assert not stage.shelf.table.rows_model.faded
    assert pick(stage, "alder-w13-8").outcome.figures.loudness != before


def test_a_long_run_can_be_stopped(window, stage, monkeypatch):
    monkeypatch.setattr("firecrest.app.stages.parts.chooser.AT_ONCE", 2)
    monkeypatch.setattr("firecrest.app.stages.parts.shelf_panel.SLOW", 10)
    stage.shelf.judged.outcomes.clear()
    stage.shelf.judged._job = None
    stage.shelf._shown = None
    stage.shelf.refresh()
    stage.shelf._work_out()
    for _ in range(200):
        QTest.qWait(5)
        if stage.shelf.judged.chooser.done:
            break
    assert stage.shelf.progress.isVisible()
    assert "worked out" in stage.shelf.progress_text.text()
    stage.shelf.stop()
    settle()
    assert not stage.shelf.progress.isVisible()
    done = sum(r.outcome is not None for r in stage.shelf.table.rows_model.rows)
    QTest.qWait(150)
    assert 0 < sum(r.outcome is not None for r in stage.shelf.table.rows_model.rows) <= done + 2


# the shelf itself --------------------------------------------------


def test_stock_marks_copies_and_putting_away(window, stage):
    pick(stage, W13)
    click(stage.shelf.have.more)
    assert window.session.shelf.store.entry(W13).stock == 5
    press_menu(stage, "No favourite any more")
    assert not window.session.shelf.store.entry(W13).favourite
    press_menu(stage, "Duplicate")
    assert "Alder W13-4 copy" in names(stage)
    press_menu(stage, "Put away")
    assert "Alder W13-4" not in names(stage)
    for _ in range(4):
        menu(window, "shelf_undo")
    assert window.session.shelf.store.entry(W13).stock == 4
    menu(window, "shelf_redo")
    assert window.session.shelf.store.entry(W13).stock == 5


def press_menu(stage, text):
    stage.shelf._fill_more()
    next(a for a in stage.shelf.more_menu.actions() if a.text() == text).trigger()
    settle()


def test_used_in_lists_saved_designs(window, stage, tmp_path):
    window.session.save(tmp_path / "slipway.firecrest")
    pick(stage, W13)
    stage.shelf._fill_more()
    texts = [a.text() for a in stage.shelf.more_menu.actions()]
    assert any(t.startswith("Used in Slipway, saved ") for t in texts)


def test_two_windows_share_the_shelf(make_window, slipway):
    first, second = make_window(slipway), make_window(slipway)
    for window in (first, second):
        window.show_stage("parts")
        wait(window.stage)
    first.session.shelf.attempt(lambda shelf: shelf.mark(W13, stock=9))
    second.session.shelf.look()
    wait(second.stage)
    rows = {r.entry.id: r.entry for r in second.stage.shelf.table.rows_model.rows}
    assert rows[W13].stock == 9
    second.stage.open_entry(W13)
    entry = first.session.shelf.store.entry(W13)
    stage = second.stage
    first.session.shelf.attempt(lambda shelf: shelf.mark(entry.id, notes="mine"))
    type_in_row(stage, "pe", "45 W")
    assert first.session.shelf.store.entry(W13).part.pe == 45


def test_the_second_of_two_editors_is_told_and_loses_nothing_of_the_first(make_window, slipway):
    first, second = make_window(slipway), make_window(slipway)
    for window in (first, second):
        window.show_stage("parts")
        wait(window.stage)
        window.stage.open_entry(W13)
        settle()
    type_in_row(first.stage, "fs", "61 Hz")
    type_in_row(second.stage, "pe", "45 W")
    assert "changed in another window" in second.notice.text()
    kept = first.session.shelf.store.entry(W13).part
    assert (kept.fs, kept.pe) == (61.0, 40.0)
    assert second.stage.subject.part.fs == 61.0
    type_in_row(second.stage, "pe", "45 W")
    kept = first.session.shelf.store.entry(W13).part
    assert (kept.fs, kept.pe) == (61.0, 45.0)


def test_a_shelf_that_cannot_be_opened_stands_in_for_itself(make_window, slipway, settings):
    folder = settings / "data" / "firecrest"
    folder.mkdir(parents=True)
    (folder / "shelf.sqlite").write_bytes(b"rubbish" * 500)
    window = make_window(slipway)
    window.show_stage("parts")
    wait(window.stage)
    assert "cannot be opened" in window.notice.text()
    assert "Alder W13-4" in names(window.stage)
    assert (folder / "shelf.sqlite").read_bytes() == b"rubbish" * 500


# entering a sheet --------------------------------------------------


def type_in_row(stage, name, text):
    edit = row_of(stage, name).row.edit
    edit.setFocus()
    edit.selectAll()
    QTest.keyClicks(edit, text)
    QTest.keyClick(edit, Qt.Key.Key_Return)
    settle()
    return edit


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
    stage.open_path(HERE)
    settle()
    edit = row_of(stage, "fs").row.edit
    edit.setFocus()
    QTest.keyClick(edit, Qt.Key.Key_Up)
    settle()
    assert row_of(stage, "fs").row.edit is edit
    assert QApplication.focusWidget() is edit
    assert window.session.design.box.groups[0].driver.fs == pytest.approx(58.1)


def test_origin_and_range_are_set_by_figure(window, stage):
    stage.open_path(HERE)
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
    assert row_of(stage, "mms").range.text() == "±50 %"
    assert window.strip.meters["loudness"].meter.ghost
    menu(window, "undo")
    assert stage.subject.part.fs is None


def text_of(widget):
    return " ".join(label.text() for label in widget.findChildren(QLabel) if label.isVisible())


# contradictions --------------------------------------------------


def test_a_contradiction_is_told_and_settled(window, stage):
    stage.open_entry("hornbeam-w21-8-old-sheet")
    settle()
    (band,) = [b for b in page(stage).findChildren(Band) if b.isVisible()]
    assert "Mms from Fs and Cms gives 34.50" in band.accessibleName()
    assert "Likely culprit: Mms" in band.accessibleName()
    assert row_of(stage, "mms").row.edit.property("doubted")
    click(band.buttons[0])
    assert stage.subject.part.mms is None
    assert [b for b in page(stage).findChildren(Band) if b.isVisible()] == []
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
    type_into(window, (*HERE, "mms"), "14.8 g")
    (band,) = [b for b in page(stage).findChildren(Band) if b.isVisible()]
    assert "15 % apart" in band.accessibleName()
    menu(window, "undo")
    assert [b for b in page(stage).findChildren(Band) if b.isVisible()] == []


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
    stage.open_path(HERE)
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


# files --------------------------------------------------


def test_the_shelf_goes_out_and_comes_in(window, stage, tmp_path):
    for form in ("csv", "json"):
        path = tmp_path / f"shelf.{form}"
        window.messages.save_to = path
        menu(window, f"shelf_{form}")
        window.messages.open_to = path
        menu(window, "shelf_in")
        assert window.messages.told[-1][0] == "Nothing to take"
    body = json.loads((tmp_path / "shelf.json").read_text())
    assert len(body["parts"]) == len(window.session.shelf.entries())
    with (tmp_path / "shelf.csv").open(newline="") as stream:
        assert next(csv.reader(stream))[:3] == ["id", "kind", "name"]


def test_taking_parts_reports_rows_and_is_one_step(window, stage, tmp_path):
    path = tmp_path / "parts.csv"
    path.write_text("name;fs [Hz];qts\nAlder Z9;61;0,4\nAlder W13-4;60;\n;1;1\nBad;x;1\n")
    window.messages.open_to = path
    menu(window, "shelf_in")
    title, text = window.messages.told[-1]
    assert title == "Take parts"
    assert "2 new parts, 1 changed" in text
    assert "Row 4, name: the row has no name" in text
    wait(stage)
    assert "Alder Z9" in names(stage)
    assert stage.tray.cards[0]._lines[3].text() == "new figures on the shelf"
    menu(window, "shelf_undo")
    wait(stage)
    assert "Alder Z9" not in names(stage)
    path.write_bytes(b"\x00\x01")
    menu(window, "shelf_in")
    assert window.messages.told[-1][0] == "Nothing taken"
    assert "The shelf is as it was" in window.messages.told[-1][1]
    window.messages.restored = False
    path.write_text("name\nNobody\n")
    menu(window, "shelf_in")
    assert "Nobody" not in {e.name for e in window.session.shelf.entries().values()}


def test_a_measured_curve_is_attached(window, stage, tmp_path):
    path = tmp_path / "z.txt"
    path.write_text("* sweep\n20 4\n40 9\n60 33\n90 8\n400 4\n")
    window.messages.open_to = path
    stage.open_entry(W13)
    stage.attach("impedance")
    assert "measured" in [c.label for c in page(stage).impedance.content.curves]
    path.write_text("20 -4\n40 -9\n60 -33\n90 -8\n400 -4\n")
    stage.attach("impedance")
    assert "above 0" in window.notice.text()
    stage.attach("response")
    assert page(stage).response.content.message == ""
    assert len(window.session.shelf.store.curves(W13)) == 2


# copies in designs --------------------------------------------------


def test_a_design_says_when_the_shelf_has_news_and_takes_them(window, stage):
    stage.open_entry(W13)
    settle()
    type_in_row(stage, "fs", "60 Hz")
    stage.close_sheet()
    wait(stage)
    assert window.session.design.box.groups[0].driver.fs == 58.0
    assert stage.tray.cards[0]._lines[3].text() == "new figures on the shelf"
    stage.open_path(HERE)
    settle()
    (band,) = [b for b in page(stage).findChildren(Band) if b.isVisible()]
    assert "Fs 58.0\u202fHz → 60.0\u202fHz" in band.accessibleName()
    click(band.buttons[0])
    assert window.session.design.box.groups[0].driver.fs == 60.0
    assert not [b for b in page(stage).findChildren(Band) if b.isVisible()]
    menu(window, "undo")
    (band,) = [b for b in page(stage).findChildren(Band) if b.isVisible()]
    click(band.buttons[1])
    assert window.session.design.box.groups[0].driver.fs == 58.0
    assert not [b for b in page(stage).findChildren(Band) if b.isVisible()]


def test_own_figures_go_onto_the_shelf(window, stage):
    type_into(window, (*HERE, "fs"), "61 Hz")
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
    stage.open_path(HERE)
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


def button(stage, text):
    found = [b for b in stage.findChildren(QPushButton) if b.text() == text and b.isVisible()]
    click(found[0])


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
