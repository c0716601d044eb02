"""What Power shows: sentences, tables, pictures and labels."""

from itertools import pairwise

import pytest

from firecrest.assessment.assess import assess
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.edits.wiring import with_fuse, with_switch
from firecrest.design.sources import Converter, SupplyStep, WallSupply
from firecrest.files.demos import read_demo
from firecrest.present.frame.meters import summary
from firecrest.present.power.cautions import caution, danger_words
from firecrest.present.power.currents import current_rows, wiring_facts
from firecrest.present.power.facts import (
    charging_facts,
    gain_facts,
    hiss_facts,
    pack_facts,
    standing_facts,
    supply_words,
)
from firecrest.present.power.flows import flow_picture
from firecrest.present.power.hours import USE_WORDS, drain_sentence, evening, level_plot, use_rows
from firecrest.present.power.hum import hum_list
from firecrest.present.power.picture import SIGNAL, label_rows, wiring_picture
from firecrest.present.power.power import bus_words
from firecrest.present.power.supplies import best_first, offer, offers
from firecrest.present.power.truth import board_truth, sentence
from firecrest.present.text.sentences import why
from firecrest.shelf.stock import shipped_entries

SOURCE = ("power", "source")
SUPPLIES = [e.part for e in shipped_entries() if isinstance(e.part, WallSupply)]


@pytest.fixture(scope="module")
def found(slipway):
    return assess(slipway)


def test_the_headline_meets_the_truth(found):
    said = sentence(found, 0)
    assert said.startswith("Printed 60 W into 4 Ω at 24 V. On this pack at 20%: 23.")
    assert "with 2 channels at once" in said
    assert said.endswith("at 10 % distortion.")
    truth = board_truth(found, 0)
    assert truth.rows[0][:3] == ("4 Ω, 2 at once", "as claimed (24.0 V)", "46.6\u202fW")
    assert "17.6 V" in bus_words(found, 0)


def test_a_36_watt_pack_with_a_60_watt_board_is_told(slipway):
    """A 12 V supply of 3 A: 36 W for a board that is printed twice 60."""
    weak = WallSupply(kind="wall", voltage=12.0, continuous_current=3.0)
    a = assess(replace_at(slipway, SOURCE, weak))
    said = sentence(a, 0)
    watts = float(said.split("On this supply: ")[1].split("\u202f")[0])
    assert 2 * watts < 36.0
    assert any(f.name == "Volts against the claim's" for f in board_truth(a, 0).facts)


def test_the_axis_of_hours_holds_still_while_a_load_is_dragged(slipway):
    def end(watts):
        a = assess(set_number(slipway, ("power", "other_loads", 0, "power"), watts))
        plot = evening(a, "promise")[0]
        return plot.lines[0].at, plot.x_range[1]

    ends = [end(watts) for watts in (3.2, 3.3, 3.4)]
    assert len({hours for hours, _ in ends}) == 3
    assert len({edge for _, edge in ends}) == 1
    assert all(1.04 * hours <= edge <= 1.25 * hours for hours, edge in ends)


def test_hours_name_promise_and_end(found):
    volts, watts = evening(found, "promise")
    assert [line.kind for line in volts.lines] == ["end", "promise", "limit"]
    assert volts.curves[0].y[0] > volts.curves[1].y[0]
    assert watts.tints[0].name == "Amp voltage"
    assert watts.lines[0].label == "60 W printed, at 24 V"
    assert "quieter than full" in drain_sentence(found)
    assert level_plot(found).x_axis == "level"
    rows = use_rows(found)
    assert [row[0] for row in rows] == list(USE_WORDS.values())
    wall = assess(read_demo("breakwater"))
    assert evening(wall, "promise") is None
    assert use_rows(wall)[0][2] == "no end"


def test_streams_add_up(found):
    picture = flow_picture(found, "promise")
    assert sum(s.share for s in picture.streams) == pytest.approx(1.0, abs=1e-3)
    assert picture.sound.share < 0.02
    assert "Wh a charge" in picture.unit
    assert flow_picture(assess(read_demo("boathouse")), "promise") is None


def test_currents_are_told_against_what_bears_them(found, slipway):
    rows = {row.name: row for row in current_rows(found)}
    assert not any(row.short for row in rows.values())
    assert rows["Cells"].bears == 24.0
    facts = {f.name: f for f in wiring_facts(found)}
    assert facts["Fuse wanted"].value == "5\u202fA blade"
    assert facts["Fuse fitted"].mark == "close"
    fused = with_switch(with_fuse(slipway, on=True)[1], on=True)[1]
    told = {f.name: f for f in wiring_facts(assess(fused))}
    assert told["Fuse fitted"].mark == "met"
    assert told["Switch"].mark == "met"
    small = set_number(fused, ("power", "fuse", "rating"), 2.0)
    assert {f.name: f for f in wiring_facts(assess(small))}["Fuse fitted"].mark == "short"


def test_facts_of_pack_charger_and_silence(found, slipway):
    assert pack_facts(found, "promise")[0].value == "149 Wh"
    names = [f.name for f in charging_facts(found)]
    assert names[:3] == ["From empty", "From 20%", "From 50%"]
    assert [f.name for f in standing_facts(found)] == ["Silent, awake", "Asleep", "Switched off"]
    assert "just drives it" in [f.value for f in gain_facts(found, 0)]
    assert "silent" in hiss_facts(found)[0].value
    spread = set_number(slipway, (*SOURCE, "spread"), 0.05)
    marks = [f.name for f in pack_facts(assess(spread), "promise") if f.mark == "close"]
    assert marks == ["Cells do not match"]


def test_a_danger_stands_on_the_strip_and_first_under_why(slipway):
    bare = replace_at(slipway, SOURCE, rebuilt(slipway.power.source, board=None))
    a = assess(bare)
    assert summary(a)[-1] == ("short", "1 danger")
    assert why(a)[0].plain.startswith("Danger: Flint 21 without a protection board.")
    assert danger_words(a)[0].startswith("Danger: Flint 21")
    assert "protection board" in caution(a)


def test_supplies_are_ranked_with_what_keeps_each_out(slipway):
    high = set_number(slipway, ("power", "boards", 0, "part", "highest_supply"), 20.0)
    a = assess(high)
    ranked = best_first([job() for job in offers(a, SUPPLIES)])
    names = [o.name for o in ranked]
    assert names.index("Fen 24-6") > names.index("Fen B19")
    refused = next(o for o in ranked if o.name == "Fen 24-6")
    assert refused.why_not == "over the 20 V the board takes: it may break"
    assert "Fen K27, asked for 15 V" in names
    fine = [o for o in ranked if not o.why_not]
    assert all(o.rank >= p.rank for o, p in pairwise(fine))
    weak = WallSupply(kind="wall", name="Fen tiny", voltage=19.0, continuous_current=0.1)
    assert "does not start" in offer(a, weak).why_not


def test_what_a_supply_does_is_told(slipway):
    bank = WallSupply(
        kind="wall", name="Fen K", form="power bank", voltage=12.0, continuous_current=1.2,
        keep_current=0.2, energy=2e5, steps=(SupplyStep(voltage=12.0, continuous_current=1.2),),
    )  # fmt: skip
    facts = {f.name: f for f in supply_words(assess(replace_at(slipway, SOURCE, bank)))}
    assert facts["The supply is the bottleneck"].value.startswith("above ")
    assert facts["Switches off asleep"].value.startswith("after 30")
    assert facts["Starts"].mark == "met"


@pytest.mark.parametrize("name", ["slipway", "lantern", "breakwater", "boathouse"])
def test_the_wiring_picture_joins_everything(name):
    design = read_demo(name)
    drawn = wiring_picture(design)
    titles = [box.title for box in drawn.boxes]
    for board in design.power.boards:
        assert board.part.name in titles
    ends = {w.start for w in drawn.wires} | {w.end for w in drawn.wires}
    assert set(titles) <= ends
    for box in drawn.boxes:
        assert 0 <= box.x <= drawn.width - box.width
        assert 0 <= box.y <= drawn.height - box.height
    corners = {(b.x, b.y) for b in drawn.boxes}
    assert len(corners) == len(drawn.boxes)
    assert [row[0] for row in label_rows(design)] == [f"W{w.number}" for w in drawn.wires]
    assert any(w.kind == SIGNAL for w in drawn.wires)


def test_hum_is_told_where_there_is_cause(slipway):
    few = [f.name for f in hum_list(slipway)]
    assert "Converter and receiver on one return" not in few
    converters = (Converter(output_voltage=12.0), Converter(id="two", output_voltage=5.0))
    more = [f.name for f in hum_list(replace_at(slipway, ("power", "converters"), converters))]
    assert "Converter and receiver on one return" in more
    assert "Two supplies with a common signal ground" in [
        f.name for f in hum_list(read_demo("breakwater"))
    ]


def test_a_source_that_cannot_even_keep_its_boards_on_is_told_without_figures(slipway):
    """One cell behind 2 ohm: no heat, no minutes, no flows; there were "nan min" and "nan%"."""
    weak = set_number(slipway, ("power", "source", "series"), 1)
    weak = assess(set_number(weak, ("power", "lead", "contacts"), 2.0))
    rows = board_truth(weak, 0).rows
    assert [row[-1] for row in rows[1:]] == ["–"] * (len(rows) - 1)
    assert [flow_picture(weak, use) for use in USE_WORDS] == [None] * 4
