import pytest

from firecrest.core.errors import DesignError
from firecrest.design.edits import power, voice
from firecrest.design.edits.parts import add_travel_point, remove_travel_point
from firecrest.design.edits.paths import (
    change_label,
    facts_at,
    rebuilt,
    replace_at,
    set_number,
    value_at,
)
from firecrest.design.history import LONGEST, History

MASS = ("box", "openings", 0, "added_mass")


def test_labels_name_the_figure_and_its_change(slipway):
    edited = set_number(slipway, MASS, 0.038)
    assert change_label(slipway, edited, MASS) == "Added mass, each 18.0\u202fg → 38.0\u202fg"
    path = ("brief", "listening", "place")
    edited = replace_at(slipway, path, "corner")
    assert change_label(slipway, edited, path) == "Place: ground → corner"


def test_whole_numbers_stay_whole(slipway):
    path = ("power", "source", "parallel")
    assert value_at(set_number(slipway, path, 3.0), path) == 3
    with pytest.raises(DesignError, match="whole number"):
        set_number(slipway, path, 2.5)


def test_a_required_figure_cannot_be_emptied(slipway):
    with pytest.raises(DesignError, match="cannot be left empty"):
        set_number(slipway, ("box", "case", "depth"), None)
    assert set_number(slipway, ("box", "groups", 0, "driver", "pe"), None)


@pytest.mark.parametrize("path", [("nothing",), ("box", "openings", 7, "count"), ("name", 3, "x")])
def test_places_that_are_not_there(slipway, path):
    with pytest.raises(DesignError, match="There is no"):
        value_at(slipway, path)


@pytest.mark.parametrize("kind", [k for k in voice.KINDS if k != "own_crossover"])
def test_filters_come_and_go(slipway, kind):
    label, more = voice.add_block(slipway, 0, kind)
    assert label == f"Add {voice.KINDS[kind].lower()}"
    assert more.voice.channels[0].blocks[-1].kind == kind
    assert voice.remove_block(more, 0, 2)[1] == slipway


def test_filters_change_places_and_stop_at_the_ends(slipway):
    _, moved = voice.move_block(slipway, 0, 0, 1)
    assert [b.kind for b in moved.voice.channels[0].blocks] == ["low_shelf", "high_pass"]
    assert voice.move_block(slipway, 0, 0, -1)[1] == slipway
    assert voice.sections_used(slipway.voice.channels[0]) == 2
    with pytest.raises(DesignError):
        voice.new_block("reverb", slipway)


def test_undo_redo_and_modified(slipway, blank):
    history = History(slipway, saved=slipway)
    assert not history.modified
    history.push("blank it", blank)
    assert history.modified
    assert history.past[-1][0] == "blank it"
    history.undo()
    assert history.present is slipway
    assert not history.modified
    history.redo()
    assert history.present is blank
    history.redo()
    assert history.present is blank


def test_a_drag_is_one_step(slipway):
    history = History(slipway)
    for grams in (20, 30, 40):
        history.push(f"{grams} g", set_number(slipway, MASS, grams / 1e3), fold="drag")
    history.end_fold()
    history.push("50 g", set_number(slipway, MASS, 0.05), fold="drag")
    assert [label for label, _ in history.past] == ["40 g", "50 g"]
    history.undo()
    history.undo()
    assert history.present is slipway


def test_history_is_bounded(slipway, blank):
    history = History(slipway)
    for k in range(LONGEST + 20):
        history.push(str(k), blank if k % 2 else slipway)
    assert len(history.past) == LONGEST


@pytest.mark.parametrize("kind", list(power.KINDS))
def test_power_can_come_from_anywhere(slipway, kind):
    label, made = power.with_source(slipway, kind)
    assert made.power.source.kind == kind
    assert made.power.boards[0].part.own_mains == (kind == "mains")
    assert (label == "") == (kind == "pack")
    assert power.with_source(made, "pack")[1].power.source.kind == "pack"


def test_a_wall_supply_starts_at_the_packs_voltage(slipway):
    assert power.with_source(slipway, "wall")[1].power.source.voltage == pytest.approx(18.5)
    mains = power.with_source(slipway, "mains")[1]
    assert power.with_source(mains, "wall")[1].power.source.voltage == 24.0


def test_claims_come_and_go_but_never_the_last(slipway):
    _, more = power.add_claim(slipway, 0)
    assert [(c.power, c.load) for c in more.power.boards[0].part.claims] == [(60, 4), (30, 8)]
    assert power.remove_claim(more, 0, 1)[1] == slipway
    with pytest.raises(DesignError, match="at least one claim"):
        power.remove_claim(slipway, 0, 0)
    claim = ("power", "boards", 0, "part", "claims", 0, "power")
    least = facts_at(slipway, claim).low
    _, more = power.add_claim(replace_at(slipway, claim, least), 0)
    assert more.power.boards[0].part.claims[1].power == least, "half of it is less than any claim"


def test_a_charger_larger_than_any_is_refused_in_words(slipway):
    for name, value in (("capacity", 180_000.0), ("charge_current", None)):
        slipway = replace_at(slipway, ("power", "source", "cell", name), value)
    wide = replace_at(slipway, ("power", "source", "parallel"), 12)
    with pytest.raises(DesignError, match="current"):
        power.with_charger(wide, True)


def test_a_table_of_large_travel_begins_as_usual_and_must_rise(slipway):
    path = ("box", "groups", 0, "driver")
    xmax = slipway.box.groups[0].driver.xmax
    label, made = add_travel_point(slipway, path)
    points = made.box.groups[0].driver.large
    assert label == "Add point"
    assert [p.travel for p in points] == pytest.approx([0.5 * xmax, xmax, 1.4 * xmax])
    assert (points[1].bl, round(1 / points[1].kms, 2)) == (0.82, 0.75)
    _, more = add_travel_point(made, path)
    assert more.box.groups[0].driver.large[-1].travel > points[-1].travel
    _, less = remove_travel_point(more, path)
    assert less == made
    with pytest.raises(DesignError, match="must rise in travel"):
        set_number(made, (*path, "large", 1, "travel"), 2 * xmax)
    with pytest.raises(DesignError, match="no point"):
        remove_travel_point(slipway, path)


def test_a_cell_takes_the_usual_table_of_its_kind(slipway):
    cell = rebuilt(slipway.power.source.cell, chemistry="lithium iron phosphate")
    design = replace_at(slipway, ("power", "source", "cell"), cell)
    label, made = power.with_usual_table(design)
    table = made.power.source.cell.table
    assert label == "Usual table of its chemistry"
    assert (table[-1].rest_voltage, table[-1].resistance) == (3.40, cell.table[-1].resistance)
    assert table[0].resistance == pytest.approx(1.8 * cell.table[-1].resistance)
    assert made.power.source.cell.origins["table"] == "estimate"


def test_a_log_sets_capacity_and_scales_resistance(slipway):
    pack = slipway.power.source
    label, made = power.with_measured_cells(slipway, 25200.0, None)
    assert label == "Capacity from a log"
    assert made.power.source.cell.capacity == pytest.approx(25200.0 / pack.parallel)
    half = sum(p.resistance for p in pack.cell.table) / len(pack.cell.table)
    whole = 2 * half * pack.series / pack.parallel + pack.board.resistance
    whole += slipway.power.lead.resistance
    _, worse = power.with_measured_cells(slipway, 25200.0, whole)
    first = worse.power.source.cell.table[0].resistance
    assert first == pytest.approx(2 * pack.cell.table[0].resistance)
    _, absurd = power.with_measured_cells(slipway, 25200.0, 40.0)
    assert absurd.power.source.cell.table == pack.cell.table
    wall = power.with_source(slipway, "wall")[1]
    with pytest.raises(DesignError, match="Only a pack"):
        power.with_measured_cells(wall, 1000.0, None)


def test_board_and_charger_go_with_the_cells_in_series(slipway):
    pack = slipway.power.source
    _, made = power.with_series(slipway, 4)
    source = made.power.source
    assert source.board.cut_off == pytest.approx(pack.board.cut_off * 4 / 5)
    assert source.charger.voltage == pytest.approx(16.8)
    with pytest.raises(DesignError, match="Cells in series"):
        power.with_series(slipway, 0)
    with pytest.raises(DesignError, match="Only a pack"):
        power.with_series(power.with_source(slipway, "wall")[1], 4)


def test_a_figure_out_of_range_is_refused_by_its_label_and_range(slipway):
    group = slipway.box.groups[0]
    with pytest.raises(DesignError, match=r"^Drivers in series can be 1 to 8\.$"):
        rebuilt(group, in_series=9)
    with pytest.raises(DesignError, match=r"in_series: .*valid integer"):
        rebuilt(group, in_series=2.5)


def test_a_usual_table_beyond_what_a_cell_can_resist_is_refused_in_words(slipway):
    """The usual table resists more when it is nearly empty than at its end."""
    last = len(slipway.power.source.cell.table) - 1
    path = ("power", "source", "cell", "table", last, "resistance")
    with pytest.raises(DesignError, match="Resistance can be 0 to 2000 mΩ"):
        power.with_usual_table(replace_at(slipway, path, 2.0))
