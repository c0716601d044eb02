"""Defects that were named: each stays mended in the window."""

import dataclasses

import pytest
from PySide6.QtWidgets import QLabel

from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import blank_design, read_demo
from firecrest.present.parts.datasheet import range_text
from firecrest.proposals.placing import put
from firecrest.shelf.stock import shipped_entries
from tests.app.helpers import settle, type_into, wait

BY_ID = {e.id: e.part for e in shipped_entries()}


def texts(root):
    return [w.text() for w in root.findChildren(QLabel) if w.isVisible()]


def test_the_title_of_the_pack_follows_its_cells(window):
    window.show_stage("power")
    type_into(window, ("power", "source", "series"), "2")
    assert any("2S" in text for text in texts(window.stage))
    assert not any("5S" in text for text in texts(window.stage))


def test_a_wall_supply_has_no_bars_at_half_charge_and_a_pack_has(window):
    window.show_stage("power")
    assert any("Wh a charge" in text for text in texts(window.stage))
    design = put(window.session.design, BY_ID["fen-24-6"])
    window.session.apply("wall", design)
    settle()
    assert not any("a charge" in text for text in texts(window.stage))
    assert "Currents" in texts(window.stage)


def test_a_power_bank_is_told_of_its_cells_not_of_mains(window):
    window.session.apply("bank", put(window.session.design, BY_ID["fen-k27"]))
    window.show_stage("power")
    settle()
    said = window.stage.source._caution.text()
    assert "lithium" in said
    assert "Mains" not in said


def test_a_part_used_elsewhere_in_the_design_can_be_taken_here(window):
    breakwater = read_demo("breakwater")
    window.session.start(Document(project_of(breakwater)), None)
    window.show_stage("parts")
    stage = window.stage
    wait(stage)
    other = breakwater.box.groups[1].driver
    stage.shelf.choose_kind("driver", 0)
    wait(stage)
    rows = stage.shelf.table.rows_model.rows
    place = next(k for k, r in enumerate(rows) if r.entry.name == other.name)
    assert (rows[place].in_force, rows[place].elsewhere) == (False, True)
    stage.shelf.table.selectRow(place)
    settle()
    assert stage.shelf.take_button.isEnabled()


def test_blank_means_blank():
    (channel,) = blank_design().voice.channels
    assert channel.blocks == ()


def test_the_voice_shows_all_that_is_heard(window):
    window.show_stage("voice")
    settle()
    assert window.stage.response.content.x_range == (20.0, 20000.0)


@pytest.mark.parametrize("name", ["nominal", "coils", "price"])
def test_what_has_no_likely_range_shows_none(name, slipway):
    part = slipway.box.groups[0].driver
    named = dataclasses.replace(part, origins={**part.origins, name: "sheet"})
    assert range_text(named, name) == ""
    assert range_text(named, "re") == "±2 %"
