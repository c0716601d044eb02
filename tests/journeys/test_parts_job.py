"""The whole job of stage 2: get a part in, see whether its data can be true, choose, go on."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication

from firecrest.app.widgets.stepper import Stepper
from firecrest.files.container import read_document
from tests.app.helpers import (
    bands,
    button,
    click,
    menu,
    meter_of,
    names,
    page,
    pick,
    press,
    row_of,
    settle,
    type_in_row,
    wait,
)

SHEET = """Alder J13-4 mystery woofer
Fs 52 Hz, Qms 4.1, Qes 0.46, Re 3.3 ohm
Sd 85 cm², Mms 14.5 g, Vas 9.9 litres
Xmax ±5 mm, Pe 50 W, Le 0.3 mH"""


def test_from_a_pasted_sheet_to_a_saved_design(window, tmp_path):
    window.show_stage("parts")
    stage = window.stage
    wait(stage)

    QApplication.clipboard().setText(SHEET)
    menu(window, "paste_sheet")
    click(page(stage).panel.take_button)
    part = stage.subject.part
    assert part.name == "Alder J13-4 mystery woofer"

    (band,) = bands(stage)
    assert "apart" in band.accessibleName()
    assert "cannot tell which" in band.accessibleName()
    trust = next(b for b in band.buttons if b.text().startswith("Trust Cms and Sd"))
    click(trust)
    assert bands(stage) == []
    assert row_of(stage, "vas").aside.text() == "<s>9.90\u202fL</s>"
    assert stage.subject.part.vas is None

    type_in_row(stage, "frame", "5 1/4 in")
    type_in_row(stage, "price", "31 eur")
    assert meter_of(window, "cost").ghost
    press(window, Qt.Key.Key_Escape)
    button(stage, "‹ Parts")
    wait(stage)

    stage.shelf.bar.search.setText("mystery")
    wait(stage)
    assert names(stage) == ["Alder J13-4 mystery woofer"]
    row = pick(stage, stage.shelf.table.rows_model.rows[0].entry.id)
    assert row.outcome.figures.loudness is not None
    click(stage.shelf.take_button)
    assert window.session.design.box.groups[0].driver.name == "Alder J13-4 mystery woofer"

    path = tmp_path / "with-mystery.firecrest"
    window.session.save(path)
    kept = read_document(path).design.box.groups[0].driver
    assert kept.set_aside == {"vas": 0.0099}
    assert kept.shelf.part == row.entry.id
    used = window.session.shelf.store.used_in(row.entry.id)
    assert [project for project, _ in used] == ["Slipway"]


def test_radiators_for_a_closed_box(make_window, blank):
    window = make_window(blank)
    window.show_stage("parts")
    stage = window.stage
    click(stage.shelf.bar.kinds.button("radiator"))
    wait(stage)
    pick(stage, "rowan-r8")
    click(stage.shelf.take_button)
    assert window.session.design.box.openings[0].radiator.name == "Rowan R8"
    wait(stage)
    click(stage.shelf.bar.retune)
    wait(stage)
    fitting = [r for r in stage.shelf.table.rows_model.rows if r.outcome.fit.fits]
    assert fitting
    menu(window, "undo")
    assert window.session.design.box.openings == ()
    click(stage.shelf.bar.kinds.button("driver"))
    assert not stage.shelf.bar.retune.isEnabled()


def test_a_stepper_keeps_to_its_range(qtbot):
    told = []
    stepper = Stepper("have", "Pieces", 0, 2)
    qtbot.addWidget(stepper)
    stepper.stepped.connect(told.append)
    stepper.show()
    settle()
    for _ in range(4):
        click(stepper.more)
    assert told == [1, 2]
    assert not stepper.more.isEnabled()
    assert stepper.accessibleName() == "Pieces: 2"
    stepper.setFocus()
    press(stepper, Qt.Key.Key_Down)
    assert told[-1] == 1
    stepper.show_value(0)
    assert told[-1] == 1
    assert stepper.shown.text() == "have 0"
