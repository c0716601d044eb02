"""The window: regions, stages, links, plots, files, themes."""

import csv

import pytest
from PySide6.QtCore import QEvent, QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent, QKeySequence
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QTextBrowser

from firecrest.app.actions import ACTIONS
from firecrest.app.settings import settings as remembered
from firecrest.app.stages.parts.wiring_page import WiringPage
from firecrest.app.start import offer_left_over
from firecrest.app.theme.style import holder
from firecrest.core.errors import FirecrestError
from firecrest.design.edits import voice
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of
from firecrest.files.container import Document, read_document
from firecrest.files.demos import demo_names, read_demo
from firecrest.files.journal import Journal
from tests.app.helpers import (
    click,
    doubted,
    menu,
    meter_of,
    press,
    press_button,
    segment,
    settle,
    type_into,
)

STAGES = ["promise", "parts", "size", "power", "voice"]


def test_every_stage_opens_by_its_key_and_marks_the_rail(window):
    for number, key in enumerate(STAGES, start=1):
        press(window, getattr(Qt.Key, f"Key_{number}"), Qt.KeyboardModifier.AltModifier)
        assert window.stage.key == key
        assert "current" in window.rail.buttons[key].accessibleName()


def test_rail_back_and_forward(window):
    window.show_stage("size")
    click(window.rail.buttons["power"])
    click(window.rail.buttons["voice"])
    menu(window, "back")
    assert window.stage.key == "power"
    menu(window, "forward")
    assert window.stage.key == "voice"


def test_strip_shows_the_six_promises(window):
    shown = {key: m.meter.numeral for key, m in window.strip.meters.items()}
    assert shown == {
        "loudness": "95.2",
        "bass": "51",
        "runtime": "9.9",
        "size": "2",
        "weight": "5.15",
        "cost": "€245",
    }
    for meter in window.strip.meters.values():
        assert meter.accessibleName()
        assert meter.accessibleDescription()
    assert window.strip.summary.accessibleName() == "Promises: 4 kept, 2 short"


def test_a_click_on_a_meter_goes_to_its_field(window):
    window.show_stage("voice")
    click(window.strip.meters["weight"])
    assert window.stage.key == "promise"
    assert QApplication.focusWidget().property("path") == "brief.weight.mass"


def test_links_in_sentences_go_to_field_and_frequency(window):
    window.show_stage("promise")
    row = window.side.rows[0]
    row._follow("0")
    settle()
    assert window.stage.key == "size"
    assert QApplication.focusWidget().accessibleName() == "Travel, one way Xmax of Rowan R16"
    row._follow("2")
    assert window.session.frequency == pytest.approx(50.0)


def test_chain_links_go_to_the_part_that_gives(window):
    click(window.chain.links[4])
    assert QApplication.focusWidget().accessibleName() == "Travel, one way Xmax of Rowan R16"
    assert window.chain.links[4].accessibleName() == "Radiators: −0.8 at 50\u202fHz"


def test_crosshair_by_keys_moves_readout_and_chain_together(window):
    window.show_stage("size")
    settle()
    chart = window.stage.chart
    chart.setFocus()
    QTest.keyClick(chart, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    assert window.session.frequency == pytest.approx(50.0 * 2 ** (1 / 3))
    assert chart.content.readout.title == "at 63\u202fHz"
    assert window.chain.row.caption.startswith("63")
    QTest.keyClick(chart, Qt.Key.Key_End)
    assert window.session.frequency == 1000.0
    QTest.keyClick(chart, Qt.Key.Key_W)
    assert window.session.frequency is None
    assert chart.content.readout.title == "at 50\u202fHz"


def test_a_click_on_the_plot_pins_the_crosshair(window):
    window.show_stage("size")
    settle()
    chart = window.stage.chart
    area = chart.plot_area()
    QTest.mouseClick(chart, Qt.MouseButton.LeftButton, pos=area.center().toPoint())
    assert window.session.frequency == pytest.approx((30 * 1000) ** 0.5, rel=0.05)


def test_views_of_size(window):
    window.show_stage("size")
    for view, name in (
        ("response", "Response"),
        ("impedance", "Impedance"),
        ("ceiling", "Ceiling"),
    ):
        click(window.stage.views.button(view))
        assert window.stage.chart.content.name == name
    click(window.stage.range.button("full"))
    assert window.stage.chart.content.x_range == (20.0, 20000.0)


@pytest.mark.parametrize("kind", ["sealed", "port"])
def test_switching_the_kind_of_box_is_one_step_and_rebuilds_the_columns(window, slipway, kind):
    window.show_stage("size")
    segment(window, "Kind of box", kind)
    assert bool(window.session.design.box.openings) == (kind == "port")
    window.stage.reveal(("box", "openings", 0, "diameter"))
    assert (window.stage.field(("box", "openings", 0, "diameter")) is not None) == (kind == "port")
    assert len(window.session.history.past) == 1
    menu(window, "undo")
    assert window.session.design is slipway
    assert window.stage.reveal(("box", "openings", 0, "added_mass"))


def test_plots_export_and_show_their_table(window, tmp_path, qtbot):
    window.show_stage("size")
    settle()
    chart = window.stage.chart
    for suffix, head in ((".png", b"\x89PNG"), (".svg", b"<?xml")):
        chart.export(tmp_path / f"ceiling{suffix}")
        assert (tmp_path / f"ceiling{suffix}").read_bytes().startswith(head)
    chart.export(tmp_path / "ceiling.csv")
    rows = list(csv.reader((tmp_path / "ceiling.csv").open(encoding="utf-8")))
    assert rows[0][0] == "Hz"
    assert float(rows[1][0]) == 10.0
    chart.setFocus()
    QTest.keyClick(chart, Qt.Key.Key_T)
    dialog = chart.findChild(QDialog)
    assert dialog.windowTitle() == "Ceiling as a table"
    dialog.close()


def test_filters_are_added_moved_and_removed(window):
    window.show_stage("voice")
    settle()
    window.stage._add("parametric")
    settle()
    blocks = window.session.design.voice.channels[0].blocks
    assert [b.kind for b in blocks] == ["high_pass", "low_shelf", "parametric"]
    type_into(window, ("voice", "channels", 0, "blocks", 2, "gain"), "-2.5 dB")
    assert window.session.design.voice.channels[0].blocks[2].gain == -2.5
    session = window.session
    session.apply(*voice.move_block(session.design, 0, 2, -1))
    session.apply(*voice.remove_block(session.design, 0, 0))
    settle()
    kinds = [b.kind for b in window.session.design.voice.channels[0].blocks]
    assert kinds == ["parametric", "low_shelf"]
    for _ in range(4):
        menu(window, "undo")
    assert [b.kind for b in window.session.design.voice.channels[0].blocks] == [
        "high_pass",
        "low_shelf",
    ]


def test_importance_and_choices_edit_the_design(window):
    window.show_stage("promise")
    click(window.stage.importance["loudness"].button("wish"))
    assert window.session.design.brief.loudness.importance == "wish"
    assert meter_of(window, "loudness").mark == "wish"
    click(window.stage.importance["cost"].button("open"))
    assert meter_of(window, "cost").margin == "no promise set"


def test_part_cards_choose_whose_data_is_shown(window):
    window.show_stage("parts")
    settle()
    click(window.stage.tray.cards[1])
    assert window.stage.tray.cards[1].property("chosen")
    assert window.stage.shelf.kind == "radiator"
    window.stage.open_path(("box", "openings", 0, "radiator"))
    assert window.stage.field(("box", "openings", 0, "radiator", "mmp")) is not None
    type_into(window, ("power", "boards", 1, "part", "power"), "3 W")
    assert window.session.design.power.dsp.power == 3.0


def test_undo_and_redo_are_named_in_menu_and_buttons(window):
    type_into(window, ("box", "openings", 0, "added_mass"), "30 g")
    text = "Undo: Added mass, each 18.0\u202fg → 30.0\u202fg"
    assert window.actions_by_id["undo"].text() == text
    assert window.undo_button.toolTip() == text
    press(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert window.session.design.box.openings[0].added_mass == 0.018
    assert window.actions_by_id["redo"].text().startswith("Redo: Added mass")
    press(
        window,
        Qt.Key.Key_Z,
        Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier,
    )
    assert window.session.design.box.openings[0].added_mass == pytest.approx(0.03)


def test_find_goes_to_fields_parts_and_commands(window):
    menu(window, "find")
    assert QApplication.focusWidget() is window.finder
    QTest.keyClicks(window.finder, "added mass")
    assert window.finder.results()[0].startswith("Added mass, each")
    QTest.keyClick(window.finder, Qt.Key.Key_Return)
    settle()
    assert QApplication.focusWidget().accessibleName() == "Added mass, each of Rowan R16"
    menu(window, "find")
    QTest.keyClicks(window.finder, "dark")
    QTest.keyClick(window.finder, Qt.Key.Key_Return)
    assert holder.theme.dark
    menu(window, "light")
    menu(window, "find")
    QTest.keyClicks(window.finder, "no such thing")
    assert window.finder.results() == []
    QTest.keyClick(window.finder, Qt.Key.Key_Escape)
    assert window.finder.text() == ""


def test_regions_are_reached_by_f6(window):
    seen = []
    for _ in range(5):
        menu(window, "region")
        focus = QApplication.focusWidget()
        seen.append(next(r.objectName() for r in window._regions() if r.isAncestorOf(focus)))
    assert set(seen) >= {"strip", "rail", "stage", "chain"}
    menu(window, "region_back")


def test_no_shortcut_is_used_twice_and_every_slot_exists(window):
    found = [QKeySequence.listFromString(a.shortcut) for a in ACTIONS if a.shortcut]
    shortcuts = [keys.toString() for several in found for keys in several]
    assert len(shortcuts) == len(set(shortcuts))
    for action in ACTIONS:
        assert callable(getattr(window, action.slot))


def test_themes_change_and_are_remembered(window):
    menu(window, "dark")
    assert holder.theme.dark
    assert remembered.get("theme", "") == "dark"
    settle()
    picture = window.grab().toImage()
    assert picture.pixelColor(200, 60).lightness() < 80
    menu(window, "light")
    settle()
    assert window.grab().toImage().pixelColor(200, 60).lightness() > 200


def test_help_keys_and_about_carry_licences(window):
    for action, words in (
        ("about", "SIL OPEN FONT LICENSE"),
        ("keys", "Ctrl+K"),
        ("help", "ceiling"),
    ):
        window.show_stage("size")
        menu(window, action)
        dialog = window.findChildren(QDialog)[-1]
        assert words.lower() in dialog.findChild(QTextBrowser).toPlainText().lower()
        dialog.close()


def test_save_marks_and_recent(window, tmp_path):
    type_into(window, ("box", "case", "depth"), "180 mm")
    assert window.windowTitle().startswith("Slipway *")
    assert "unsaved" in window.saved.text()
    window.messages.save_to = tmp_path / "mine"
    menu(window, "save")
    path = tmp_path / "mine.firecrest"
    assert read_document(path).design == window.session.design
    assert window.saved.text() == "mine.firecrest"
    type_into(window, ("box", "case", "depth"), "185 mm")
    menu(window, "undo")
    assert not window.session.modified
    window.fill_recent()
    assert [a.text() for a in window.recent.actions()] == ["mine.firecrest"]


def test_unsaved_work_is_never_left_without_asking(window, tmp_path):
    type_into(window, ("box", "case", "depth"), "180 mm")
    design = window.session.design
    window.messages.keep = "cancel"
    menu(window, "new")
    assert window.session.design is design
    assert not window.close()
    window.messages.keep, window.messages.save_to = "save", None
    menu(window, "demo")
    assert window.session.design is design
    window.messages.save_to = tmp_path / "kept.firecrest"
    menu(window, "new")
    assert window.session.design.name == "Untitled"
    assert read_document(tmp_path / "kept.firecrest").design == design


def test_files_that_cannot_be_opened_change_nothing(window, tmp_path):
    bad = tmp_path / "bad.firecrest"
    bad.write_bytes(b"PK\x03\x04nonsense")
    design = window.session.design
    window.messages.open_to = bad
    menu(window, "open")
    assert window.session.design is design
    assert window.messages.told[0][0] == "Not opened"
    assert "damaged" in window.messages.told[0][1]


def test_a_failed_save_is_told_and_stays_unsaved(window, tmp_path):
    type_into(window, ("box", "case", "depth"), "180 mm")
    window.messages.save_to = tmp_path / "nowhere" / "x.firecrest"
    menu(window, "save")
    assert window.messages.told[0][0] == "Not saved"
    assert window.session.modified


def test_a_file_dropped_on_the_window_opens(window, tmp_path, blank):
    path = tmp_path / "dropped.firecrest"
    window.session.start(Document(project_of(blank)), None)
    window.session.save(path)
    menu(window, "demo")
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    window.dropEvent(
        QDropEvent(
            QPointF(400, 300),
            Qt.DropAction.CopyAction,
            data,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
            QEvent.Type.Drop,
        )
    )
    assert window.session.design.name == "Untitled"


def test_rename_is_an_undoable_edit(window):
    window.messages.name = "Slipway two"
    menu(window, "rename")
    assert window.project.text() == "Slipway two"
    menu(window, "undo")
    assert window.project.text() == "Slipway"


def test_work_left_by_a_crash_is_offered_and_restored(window, settings, slipway):
    changed = set_number(slipway, ("box", "case", "depth"), 0.17)
    journal = Journal()
    journal.keep(Document(project_of(changed)), settings / "original.firecrest")
    journal.let_go()
    offer_left_over(window)
    assert window.session.design == changed
    assert window.session.modified
    assert window.session.path == settings / "original.firecrest"


def test_unsaved_work_is_kept_aside_and_dropped_after_saving(window, settings, tmp_path):
    type_into(window, ("box", "case", "depth"), "180 mm")
    assert window.session._autosave.isActive()
    window.session.keep_journal()
    folder = settings / "state/firecrest/unsaved"
    assert len(list(folder.glob("*/work.json"))) == 1
    window.session.save(tmp_path / "x.firecrest")
    assert list(folder.iterdir()) == []


def test_refusals_are_shown_where_one_looks(window):
    window.session.attempt(lambda: window.session.edit(("voice", "channels", 0, "outputs"), 3))
    assert "the voice uses 3 outputs" in window.notice.text()
    assert window.notice.isVisible()
    with pytest.raises(FirecrestError):
        window.session.edit(("nothing",), 1)


def test_the_window_shows_what_the_command_line_says(window, capsys):
    from firecrest import cli

    doubted(window)
    cli.run(["assess", "--demo", "slipway"])
    table = capsys.readouterr().out
    for key, meter in window.strip.meters.items():
        assert meter.meter.numeral in table, key
    for sentence in window.side.sentences():
        assert sentence in table


def test_power_source_and_claims_are_changed_in_place(window, slipway):
    window.show_stage("power")
    settle()
    click(window.stage.source.kinds.button("wall"))
    assert window.session.design.power.source.kind == "wall"
    assert meter_of(window, "runtime").margin == "runs from the wall"
    assert window.stage.field(("power", "source", "continuous_current")) is not None
    press_button(window.stage, "Add claim")
    assert len(window.session.design.power.boards[0].part.claims) == 2
    press_button(window.stage, "Remove last")
    for _ in range(3):
        menu(window, "undo")
    assert window.session.design is slipway


def test_drivers_are_wired_in_series_or_parallel(window):
    window.reveal(("box", "groups", 0, "in_parallel"))
    settle()
    page = window.stage.findChild(WiringPage)
    click(page.count.more)
    assert window.chain.row.links[3].part == "4 × Alder W13-4"
    assert [w.name for w in page.ways] == ["2 in parallel", "2 in series"]
    assert page.ways[0].allowed is False
    assert "2.3 times the rated current" in page.ways[0].verdict
    click(page.buttons[1])
    assert window.session.assessment.acoustic.model.network.drivers[0].in_series == 2
    assert window.session.history.past[-1][0] == "Wire: 2 in series"
    menu(window, "undo")
    menu(window, "undo")
    assert not window.session.modified


def test_every_shipped_demo_is_in_the_menu_and_opens(window):
    assert {a.argument for a in ACTIONS if a.slot == "open_demo"} == {
        name for name in demo_names() if "-" not in name
    }
    window.messages.keep = "drop"
    for action in (a for a in ACTIONS if a.slot == "open_demo"):
        menu(window, action.id)
        assert window.session.design == read_demo(action.argument)
        assert window.side.sentences()
