"""The shelf in the window: searching, choosing, marking, sharing, files."""

import csv
import json

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QPushButton

from firecrest.core.note import note
from tests.app.helpers import (
    W13,
    click,
    menu,
    meter_of,
    names,
    page,
    pick,
    press,
    press_menu,
    settle,
    type_in_row,
    until,
    wait,
)

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
    assert row.outcome.fit.reason == note("same cut-out")
    assert meter_of(window, "loudness").ghost
    assert "+2." in stage.shelf.said.text()
    steps = len(window.session.history.past)
    stage.shelf.table.setFocus()
    press(window, Qt.Key.Key_Return)
    assert window.session.design.box.openings[0].radiator.name == "Rowan R16L"
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
    mass = window.session.design.box.openings[0].added_mass
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
    window.session.edit_number(("box", "openings", 0, "added_mass"), 0.06)
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
    seen = []

    def stop_at_once(done, total):
        if not seen:
            seen.append((stage.shelf.progress.isVisible(), stage.shelf.progress_text.text()))
            stage.shelf.stop()

    stage.shelf.judged.progressed.connect(stop_at_once)
    stage.shelf._work_out()
    until(lambda: seen)
    assert seen[0][0]
    assert "worked out" in seen[0][1]
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


def test_another_radiator_says_what_stays_and_keeps_the_tuning(window, stage):
    session = window.session
    before = session.assessment.acoustic.model.tuning[0]
    stage.shelf.choose_kind("radiator")
    wait(stage)
    pick(stage, "rowan-r16l")
    stage.shelf.bar.retune.setChecked(False)
    stage.shelf.take(stage.shelf.table.current)
    settle()
    assert "of added mass on each Rowan R16L" in window.notice.text()
    assert "moves from 46.6" in window.notice.text()
    click(next(b for b in window.notice.findChildren(QPushButton) if b.text().startswith("Keep")))
    assert session.assessment.acoustic.model.tuning[0] == pytest.approx(before, rel=1e-4)
    assert not window.notice.isVisible()


def test_a_measured_curve_goes_with_its_part(window, stage, tmp_path):
    path = tmp_path / "z.txt"
    path.write_text("* sweep\n20 4\n40 9\n60 33\n90 8\n400 4\n")
    window.messages.open_to = path
    stage.open_entry(W13)
    views = page(stage).curve_views
    click(views["impedance"].attach_button)
    assert "measured" in [c.label for c in page(stage).impedance.content.curves]
    path.write_text("20 -4\n40 -9\n60 -33\n90 -8\n400 -4\n")
    click(views["impedance"].attach_button)
    assert "above 0" in window.notice.text()
    click(views["response"].attach_button)
    assert page(stage).response.content.message == ""
    assert len(window.session.shelf.entries()[W13].part.curves) == 2
    click(views["response"].remove_button)
    assert page(stage).response.content.message
    stage.editing.undo()
    views["impedance"].unit.textActivated.emit("kHz")
    assert page(stage).impedance.content.curves[-1].x[0] == 20_000
    window.messages.save_to = tmp_path / "again.txt"
    click(views["impedance"].export_button)
    assert window.messages.save_to.read_text().startswith("* sweep")


def test_marking_leaves_the_table_of_figures_where_it_is(stage):
    click(stage.shelf.bar.views.button("figures"))
    wait(stage)
    pick(stage, "hornbeam-w30-8")
    bar = stage.shelf.table.verticalScrollBar()
    place = bar.value()
    assert place > 0
    stage.shelf.table.setColumnWidth(1, 99)
    click(stage.shelf.have.more)
    wait(stage)
    assert (bar.value(), stage.shelf.table.columnWidth(1)) == (place, 99)
    assert stage.shelf.table.current.entry.stock == 1


def test_a_row_tried_before_new_results_is_tried_in_the_present_design(window, stage):
    window.session.edit_number(("box", "case", "depth"), 0.18)
    pick(stage, "alder-w13-8")
    assert window.session.trial.design.box.case.depth == 0.18


def test_a_name_too_long_for_its_card_ends_in_dots(window, stage):
    card = stage.tray.cards[0]
    card.resize(90, card.height())
    assert card._lines[1].text().endswith("…")
    assert card.card.name in card.accessibleName()


def test_the_search_leads_down_to_what_was_found_and_enter_takes_it(window, stage):
    menu(window, "find_here")
    QTest.keyClicks(QApplication.focusWidget(), "alder w13-8")
    wait(stage)
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Down)
    assert QApplication.focusWidget() is stage.shelf.table
    name = stage.shelf.table.current.entry.name
    assert name == "Alder W13-8"
    QTest.keyClick(stage.shelf.table, Qt.Key.Key_Return)
    settle()
    assert window.session.design.box.groups[0].driver.name == name
