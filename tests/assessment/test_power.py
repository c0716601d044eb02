"""What Power asks of a design: closes, falls, names what gives out, and what would hurt someone."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.assessment.assess import assess
from firecrest.assessment.power.charging import charging, most_charging
from firecrest.assessment.power.dangers import dangers
from firecrest.assessment.power.flows import spent
from firecrest.assessment.power.gain import channel_level, gain_rows, hiss_of
from firecrest.assessment.power.given import flat_out_at
from firecrest.assessment.power.standing import ASLEEP, OFF, SILENT, standing_states
from firecrest.assessment.power.supplies import bottleneck, supply_facts, usable_steps
from firecrest.assessment.power.truth import (
    BRIEF,
    CLAIMED,
    FULL,
    HALF,
    efficiency_here,
    here,
    one_channel,
    truth_table,
)
from firecrest.assessment.power.uses import (
    FLAT_OUT,
    PROMISE,
    course_of,
    hours_by_level,
    levels_of,
    loudness_by_charge,
    uses,
)
from firecrest.assessment.power.wiring import speaker_losses, switch_bears, wiring
from firecrest.design.edits import power as edits
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.edits.wiring import with_switch
from firecrest.design.sources import Charger, Converter, SupplyStep, WallSupply
from firecrest.files.demos import demo_names, read_demo

SOURCE = ("power", "source")
DEMOS = ("slipway", "lantern", "breakwater", "untitled")


@pytest.fixture(scope="module")
def found(slipway):
    return assess(slipway)


def closure(items):
    """Share of the source by which the items miss it."""
    total = sum(value for name, value in items.items() if name != "source")
    return abs(total - items["source"]) / items["source"]


def on_wall(design, **figures):
    supply = WallSupply(kind="wall", **{"voltage": 19.0, "continuous_current": 3.0, **figures})
    return replace_at(design, SOURCE, supply)


@pytest.mark.parametrize("name", DEMOS)
def test_every_watt_is_accounted_for_at_every_use(name):
    a = assess(read_demo(name))
    for level in levels_of(a).values():
        flow = spent(a, level)
        assert closure(flow.watts) < 1e-9
        if flow.watt_hours is not None:
            assert closure(flow.watt_hours) < 1e-9
        assert 0 < flow.sound < flow.watts["source"]


def test_louder_takes_more_and_ends_sooner(found):
    rows = {use.key: use for use in uses(found)}
    assert set(rows) == {"background", PROMISE, "half volume", FLAT_OUT}
    assert rows[FLAT_OUT].level - rows["half volume"].level == pytest.approx(6.02)
    hours = [u.runs["as it is"].hours for u in sorted(rows.values(), key=lambda u: u.level)]
    assert hours == sorted(hours, reverse=True)
    played = rows[PROMISE].runs["as it is"].hours
    assert played * 3600 == pytest.approx(found.promise("runtime").predicted)
    assert course_of(found, rows[PROMISE].level).hours == pytest.approx(played)
    levels, by_level = hours_by_level(found)
    assert len(levels) == 13
    assert np.all(np.diff(by_level) <= 1e-9)
    assert levels[-1] == pytest.approx(found.acoustic.programme.level)


@settings(max_examples=25)
@given(st.integers(2, 6), st.integers(1, 3), st.floats(80, 100), st.floats(0.5, 1.0))
def test_cold_and_age_never_promise_more(series, parallel, level, health):
    design = read_demo("slipway")
    pack = rebuilt(design.power.source, series=series, parallel=parallel, health=health, board=None)
    design = replace_at(design, SOURCE, pack)
    design = set_number(design, ("brief", "loudness", "level"), level)
    a = assess(design)
    for use in uses(a):
        runs = use.runs
        assert runs["cold"].hours <= runs["as it is"].hours * (1 + 1e-9)
        assert runs["very cold"].hours <= runs["cold"].hours * (1 + 1e-9)
        if health > 0.8:
            assert runs["aged"].hours <= runs["as it is"].hours * (1 + 1e-9)
        assert runs["aged and cold"].hours <= runs["aged"].hours * (1 + 1e-9)


def test_it_gets_quieter_as_it_drains(found):
    levels = [level for _, level in loudness_by_charge(found)]
    assert levels == sorted(levels, reverse=True)
    now = flat_out_at(found, [found.design.brief.conditions.charge])[0]
    assert now == pytest.approx(found.acoustic.programme.level, abs=1e-6)


def test_a_board_gives_less_on_a_pack_that_drains(found):
    rows = {row.supply: row for row in truth_table(found, 0) if row.load == 4.0}
    clean = [rows[s].found.watts for s in (CLAIMED, FULL, HALF, BRIEF)]
    assert clean == sorted(clean, reverse=True)
    assert rows[CLAIMED].as_printed == pytest.approx(60.0)
    assert here(found, 0).found == rows[BRIEF].found
    assert one_channel(found, 0) > rows[BRIEF].found.watts
    assert np.all(np.diff(efficiency_here(found, 0)) > 0)


def test_a_hotter_place_keeps_up_less(slipway):
    """Out of a closed case onto an outer plate: 15 K cooler."""
    closed = here(assess(slipway), 0).lasting
    path = ("power", "boards", 0, "stands")
    plate = here(assess(replace_at(slipway, path, "outer plate")), 0).lasting
    assert closed.case - plate.case == pytest.approx(15.0)
    small = set_number(slipway, ("power", "boards", 0, "part", "heat_resistance"), 30.0)
    assert here(assess(small), 0).lasting.watts < closed.watts


def test_sleep_and_a_switch_stretch_the_days(found, slipway):
    states = {s.state: s for s in standing_states(found)}
    assert states[SILENT].hours < states[ASLEEP].hours < states[OFF].hours
    assert states[SILENT].weekly > states[ASLEEP].weekly
    restless = set_number(slipway, ("power", "boards", 0, "part", "sleep_current"), None)
    awake = {s.state: s for s in standing_states(assess(restless))}
    assert awake[ASLEEP].hours < states[ASLEEP].hours
    lamp = ("power", "other_loads", 1)
    wired = set_number(slipway, (*lamp, "standby_power"), 0.5)
    wired = replace_at(wired, (*lamp, "always_on"), True)
    left = {s.state: s for s in standing_states(assess(wired))}
    assert left[OFF].hours < states[OFF].hours


def test_charging_takes_longer_while_it_plays(found, slipway):
    result = charging(found)
    starts = [start for start, _ in result.runs]
    seconds = [charge.seconds for _, charge in result.runs]
    assert starts == [0.0, 0.2, 0.5]
    assert seconds == sorted(seconds, reverse=True)
    assert result.meanwhile.seconds > seconds[1]
    assert result.break_even < found.acoustic.programme.level + 20
    silent = replace_at(slipway, (*SOURCE, "charger", "while_playing"), False)
    assert charging(assess(silent)).meanwhile is None
    assert charging(assess(replace_at(slipway, (*SOURCE, "charger"), None))) is None


def test_the_fuse_grows_with_what_is_drawn(slipway, found):
    small = wiring(found)
    assert small.currents.long < small.currents.burst < small.currents.bench
    assert small.rating >= small.asked.least
    more = wiring(assess(set_number(slipway, ("power", "source", "series"), 6)))
    assert more.currents.bench > small.currents.bench
    thin = set_number(slipway, ("power", "lead", "area"), 0.14e-6)
    assert not wiring(assess(thin)).lead.fine
    assert wiring(assess(read_demo("boathouse"))) is None


def test_switch_and_speaker_leads(slipway):
    design = with_switch(slipway, on=True)[1]
    a = assess(design)
    assert switch_bears(a, wiring(a)) is True
    weak = set_number(design, ("power", "switch", "rating"), 1.0)
    assert switch_bears(assess(weak), wiring(assess(weak))) is False
    assert speaker_losses(a, wiring(a)) is None
    long = set_number(design, ("power", "speaker_lead", "length"), 5.0)
    lossy = speaker_losses(assess(long), wiring(assess(long)))
    assert lossy[0] == pytest.approx(20 * np.log10(1 + 0.22987 / wiring(a).least[0]), rel=1e-3)


def test_sensitivity_of_a_channel_is_the_drivers_own(found):
    """Level for 1 V from the constants is that from Fs, Vas and Qes less 10 lg Re."""
    driver = found.design.box.groups[0].driver
    eta = 4 * np.pi**2 * driver.fs**3 * driver.vas / (343.2**3 * driver.qes)
    one_watt = 112.16 + 10 * np.log10(eta)
    level = channel_level(found, found.design.voice.channels[0].id)
    assert level == pytest.approx(one_watt - 10 * np.log10(driver.re), abs=0.05)


def test_gain_and_hiss(found, slipway):
    row = gain_rows(found)[0]
    assert row.full == pytest.approx(
        np.sqrt(here(found, 0).found.watts * 4.0) / 10 ** (26 / 20), rel=1e-9
    )
    louder = set_number(slipway, ("power", "boards", 0, "part", "gain"), 32.0)
    assert hiss_of(assess(louder)).level > hiss_of(found).level
    assert hiss_of(found).near > hiss_of(found).level
    unknown = set_number(slipway, ("power", "boards", 0, "part", "noise"), None)
    assert hiss_of(assess(unknown)) is None
    ratio = set_number(unknown, ("power", "boards", 0, "part", "noise_ratio"), 100.0)
    assert hiss_of(assess(ratio)) is not None


def test_a_weak_supply_is_the_bottleneck_and_a_strong_one_is_none(slipway):
    weak = on_wall(slipway, continuous_current=0.5, burst_current=0.7, behaviour="hiccup")
    facts = supply_facts(assess(weak))
    assert facts.bottleneck < 0.8
    assert facts.silence == pytest.approx(1.0 / 1.1)
    assert facts.band is not None
    assert bottleneck(assess(on_wall(slipway, continuous_current=20.0))) > 1.0
    dead = on_wall(slipway, continuous_current=0.1, behaviour="fold-back", short_current=0.02)
    assert supply_facts(assess(dead)).start_margin < 0


def test_a_bank_that_switches_off_is_told(slipway):
    bank = on_wall(slipway, energy=3.6e5, keep_current=0.1)
    kept = dict(supply_facts(assess(bank)).keep_alive)
    assert list(kept) == [ASLEEP]
    assert kept[ASLEEP] > 0
    steps = [SupplyStep(voltage=v, continuous_current=2.0) for v in (5.0, 12.0, 36.0)]
    high = set_number(slipway, ("power", "boards", 0, "part", "highest_supply"), 26.0)
    assert usable_steps(assess(on_wall(high)), steps) == [False, True, False]


def pack(slipway, **changes):
    return replace_at(slipway, SOURCE, rebuilt(slipway.power.source, **changes))


def test_every_danger_is_named(slipway):
    own = slipway.power.source
    assert dangers(slipway) == ()
    strong = rebuilt(own.board, max_current=own.cell.max_current * own.parallel + 1)
    charger = rebuilt(own.charger, current=most_charging(own) + 1)
    high = rebuilt(own.charger, voltage=22.0)
    cold = set_number(slipway, ("brief", "conditions", "temperature"), 268.0)
    cases = {
        "no protection board": pack(slipway, board=None),
        "board above cells": pack(slipway, board=strong),
        "charger too strong": pack(slipway, charger=charger),
        "charger too high": pack(slipway, charger=high),
        "charged below freezing": cold,
    }
    for code, design in cases.items():
        assert [d.code for d in dangers(design)] == [code]
    up = Converter(output_voltage=12.0, step="up")
    overfed = replace_at(slipway, ("power", "converters"), (up,))
    assert [d.code for d in dangers(overfed)] == ["step up overfed"]
    nickel = replace(own.cell, chemistry="nickel metal hydride")
    assert dangers(pack(slipway, cell=nickel, board=None, charger=None)) == ()


def test_a_new_charger_is_no_danger(slipway):
    bare = edits.with_charger(slipway, on=False)[1]
    label, made = edits.with_charger(bare, on=True)
    assert label == "Add charger"
    assert isinstance(made.power.source.charger, Charger)
    assert dangers(made) == ()


def test_no_demo_and_no_blank_project_is_dangerous(blank):
    for design in (blank, *(read_demo(name) for name in demo_names())):
        assert dangers(design) == (), design.name
