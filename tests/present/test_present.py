"""Sentences, meters, chain, rail, placement: what is shown, computed from the assessment."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.rects import inside
from tests.reference.designs import system_design

from firecrest.assessment.assess import assess
from firecrest.assessment.further import reach_by_drop
from firecrest.assessment.motion import motion_of
from firecrest.core.limits.ceiling import raw_runs
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.files.demos import read_demo
from firecrest.present.frame import bindings, meters
from firecrest.present.frame.chain import chain
from firecrest.present.frame.find import findable, stage_of
from firecrest.present.frame.rail import rail
from firecrest.present.parts.parts import cards, figure_groups, totals
from firecrest.present.plot import ceiling, plots, views
from firecrest.present.plot import plot as plot_types
from firecrest.present.plot.placement import Rect, Request, around, place
from firecrest.present.power import hours
from firecrest.present.power.cautions import hearing_caution
from firecrest.present.power.currents import current_rows
from firecrest.present.promise.brief import clauses
from firecrest.present.text import words
from firecrest.present.text.sentences import run_at, why


@pytest.fixture(scope="module")
def assessed(slipway):
    return assess(slipway)


def test_the_first_sentence_names_part_range_size_and_place(assessed):
    first = why(assessed)[0]
    a = assessed.acoustic
    run = run_at(a, a.loudness.point)
    low, high = a.frequency[run.start], a.frequency[run.stop]
    assert first.mark == "short"
    assert first.plain == (
        f"Radiator travel gives out first from {low:.0f} to {high:.0f}\u202fHz; "
        f"{-a.loudness.margin:.1f}\u202fdB short at {a.loudness.frequency:.0f}\u202fHz."
    )


def test_ranges_in_sentences_are_runs_of_the_first_to_give_array(assessed):
    a = assessed.acoustic
    raw = {(r.start, r.stop) for r in raw_runs(a.top)}
    starts, stops = {s for s, _ in raw}, {s for _, s in raw}
    for run in a.runs:
        assert run.start in starts
        assert run.stop in stops


def test_links_lead_to_fields_that_exist(assessed):
    paths = [p.path for s in why(assessed) for p in s.pieces if p.path is not None]
    assert ("box", "openings", 0, "radiator", "xmax") in paths
    for path in paths:
        value_at(assessed.design, path)


def test_nothing_wrong_is_said_with_what_is_in_hand(blank):
    assert why(assess(blank))[0].plain == (
        "Every promise is kept, with 6.0\u202fdB in hand. Size is the closest."
    )


def test_every_shortfall_has_its_own_words(slipway):
    changes = {
        "The length is 38\u202fmm over": (("brief", "size", "length"), 0.3),
        "Weight is 5.15 kg, 0.15\u202fkg over": (("brief", "weight", "mass"), 5.0),
        "Runtime is 9.9 h, 10.1\u202fh short; the protection board ends it": (
            ("brief", "runtime", "duration"),
            72000.0,
        ),
        "Cost is €245, €45 over": (("brief", "cost", "price"), 200.0),
    }
    for words_, (path, value) in changes.items():
        said = [s.plain for s in why(assess(set_number(slipway, path, value)))]
        assert any(line.startswith(words_) for line in said), said


def test_long_ranges_end_in_kilohertz():
    said = why(assess(system_design("S1")))[0].plain
    assert said.startswith(
        "Amp voltage gives out first from 18\u202fHz to 20\u202fkHz; 0.1\u202fdB short"
    )


def test_impossible_claims_are_told(slipway):
    path = ("power", "boards", 0, "part", "claims", 0, "supply")
    said = " ".join(s.plain for s in why(assess(set_number(slipway, path, 12.0))))
    assert "60 W into 4 Ω is more than 12 V can swing" in said


def test_meters_agree_with_their_promises(assessed):
    for promise in assessed.promises:
        meter = meters.meter(promise, assessed.design)
        assert meter.numeral == words.numeral(promise, assessed.design)
        assert meter.ghost == ""
        assert all(0 <= bar <= 1 for bar in meter.bars)
        if meter.judged and len(meter.bars) == 1 and promise.margin is not None:
            ahead = (
                meter.bars[0] >= meter.stripe if promise.floor else (meter.bars[0] <= meter.stripe)
            )
            assert ahead == (promise.margin >= 0)
    assert meters.summary(assessed) == [("met", "4 kept"), ("short", "2 short")]


def test_ghosts_show_what_is_tried_or_was_kept(assessed):
    def ghost(key, other, **kept):
        return meters.meter(assessed.promise(key), assessed.design, other, **kept).ghost

    tried = assess(set_number(assessed.design, ("box", "openings", 0, "added_mass"), 0.03))
    assert ghost("loudness", tried).startswith("→ 9")
    assert ghost("loudness", tried, kept="was").startswith("was 9")
    assert ghost("size", tried) == ""
    asks = assess(set_number(assessed.design, ("brief", "weight", "mass"), 5.0))
    assert ghost("weight", asks) == "asks → 5.00"
    assert ghost("weight", asks, kept="was") == "asked 5.00"


def test_missed_wishes_are_counted_apart(slipway):
    wish = replace_at(slipway, ("brief", "loudness", "importance"), "wish")
    a = assess(wish)
    assert ("wish", "1 wish missed") in meters.summary(a)
    assert meters.mark_of(a.promise("loudness")) == "wish"


def test_unknown_is_shown_as_unknown(slipway):
    a = assess(set_number(slipway, ("box", "groups", 0, "driver", "xmax"), None))
    meter = meters.meter(a.promise("loudness"), a.design)
    assert (meter.numeral, meter.mark, meter.margin) == ("–", "unknown", "not known")
    assert ceiling.ceiling_plot(a).readout is not None
    bare = assess(set_number(slipway, ("box", "groups", 0, "driver", "vas"), None))
    assert ceiling.ceiling_plot(bare).message.startswith("needs")
    assert all(
        link.plate in ("not known", "no port", "gets – of 96 dB", "no limit", "none")
        for link in chain(bare, None).links
    )
    assert [row.mark for row in rail(bare)][:3] == ["half", "unknown", "unknown"]


def test_chain_caption_follows_the_crosshair(assessed):
    assert chain(assessed, None).caption == "its own worst note"
    there = chain(assessed, 200.0)
    assert there.caption.startswith("200\u202fHz")
    assert [x.name for x in there.links if x.weakest] == ["Amp"]
    assert [x.name for x in chain(assessed, None).links if x.weakest] == ["Radiators"]


def test_clauses_show_consequences_now_and_as_typed(assessed):
    now = clauses(assessed, None)
    assert now[1].text == (
        "moves 95\u202fcm³ of air each way at 50 Hz; "
        "reckoned on the ground in open air, without the baffle step"
    )
    tried = assess(set_number(assessed.design, ("brief", "bass", "frequency"), 60.0))
    assert "→" in clauses(assessed, tried)[1].text


def test_ceiling_plot_carries_promise_shortfall_and_readout(assessed):
    plot = ceiling.ceiling_plot(assessed)
    assert plot.readout.rows[0].value == "−0.8"
    assert plot.shortfall.label == "0.8 dB short"
    assert plot.y_range[1] - plot.y_range[0] <= 50
    assert {run.code for run in plot.tints} <= set("VAPHCRUL")
    heads, rows = plot.table()
    assert heads[0] == "Hz"
    assert len(rows) == 301


@pytest.mark.parametrize(
    "make",
    [
        views.response_plot,
        views.impedance_plot,
        ceiling.voice_ceiling_plot,
        plots.distance_plot,
        lambda a: hours.evening(a, "promise")[0],
        lambda a: hours.evening(a, "promise")[1],
        hours.level_plot,
        lambda a: plots.travel_plots(a)[1],
    ],
)
def test_every_plot_has_finite_ranges_and_data(assessed, make):
    plot = make(assessed)
    assert np.all(np.isfinite(plot.y_range))
    assert plot.y_range[1] > plot.y_range[0]
    assert len(plot.table()[1]) > 10


def test_travel_at_the_promise_passes_its_limit_where_loudness_is_short(assessed):
    radiator = plots.travel_plots(assessed)[1]
    limit = radiator.lines[0].at
    a = assessed.acoustic
    point = int(np.searchsorted(a.frequency, 50.0))
    over = 20 * np.log10(radiator.curves[0].y[point] / limit)
    assert over == pytest.approx(a.asked[point] - a.top.level[point], abs=1e-6)
    assert over > 0.5


@given(st.floats(-200, 200, allow_subnormal=False), st.floats(0, 120))
def test_nice_ranges_hold_their_values(low, span):
    (bottom, top), step = plot_types.nice_range(low, low + span, (2, 4, 6, 10, 20, 50))
    assert bottom <= low
    assert top >= low + span
    assert top > bottom
    assert step > 0


SPOT = st.tuples(st.floats(0, 760), st.floats(0, 280))


@settings(max_examples=200)
@given(st.lists(st.tuples(SPOT, st.floats(10, 220), st.floats(10, 140)), max_size=12))
def test_nothing_is_ever_placed_over_another(jobs):
    area = Rect(0, 0, 760, 280)
    requests = [Request(w, h, around(x, y, w, h)) for (x, y), w, h in jobs]
    rects = [r for r in place(requests, area) if r is not None]
    for k, rect in enumerate(rects):
        assert inside(rect, area)
        assert not any(rect.overlaps(other) for other in rects[k + 1 :])


def test_part_cards_in_chain_order(assessed):
    found = cards(assessed)
    assert [c.kind for c in found] == ["Drivers", "Radiators", "Amplifier", "DSP", "Cells"]
    assert found[1].short
    assert found[0].origins["measured"] == 5
    assert totals(assessed).startswith("20 pieces")
    for card in found:
        for _, paths in figure_groups(assessed.design, card.path):
            for path in paths:
                bindings.at_path(assessed.design, path)


def test_bindings_read_write_and_name_their_edits(assessed):
    volume = bindings.air_volume()
    label, made = volume.edited(assessed, 0.0071)
    assert label == "Air volume 7.97\u202fL → 7.10\u202fL"
    assert assess(made).cabinet.air[0] == pytest.approx(0.0071)
    xmax = bindings.at_path(assessed.design, ("box", "openings", 0, "radiator", "xmax"))
    assert "an estimate" in xmax.about(assessed)
    qts = bindings.at_path(assessed.design, ("box", "groups", 0, "driver", "qts"))
    assert qts.placeholder(assessed) == "(0.450)"


def test_everything_can_be_found_and_has_a_stage(slipway):
    found = findable(slipway)
    texts = [text for text, *_ in found]
    for wanted in ("Air volume Vb", "Rowan R16", "Sedge 2x60", "Added mass, each"):
        assert any(wanted in text for text in texts)
    assert {stage_of(path) for _, _, path, _ in found} == {
        "promise",
        "parts",
        "size",
        "power",
        "voice",
        "cabinet",
    }
    assert "Level of channel mid" in [text for text, *_ in findable(read_demo("headland"))]


def test_ears_are_cautioned_by_the_level_near_the_box(slipway):
    assert "hearing suffers" in hearing_caution(assess(slipway))
    quiet = set_number(slipway, ("voice", "channels", 0, "limiter"), 0.4)
    assert hearing_caution(assess(quiet)) == ""
    unknown = set_number(slipway, ("box", "groups", 0, "driver", "vas"), None)
    assert "hearing suffers" in hearing_caution(assess(unknown))


def test_three_corners_stand_together_small_and_at_the_promised_level(assessed):
    small, level = views.response_plot(assessed).notes
    assert small.startswith("Small signal: F3 ")
    assert "F6 51.0" in level
    assert level.endswith("\u202fHz.")
    a = assessed.acoustic
    assert views.corners(reach_by_drop(a, a.reaches.kept)) in level


def test_currents_at_the_promise_are_those_of_a_port_that_chokes():
    """The peak of each output is that of the answers at the promise's own drive."""
    a = assess(read_demo("lantern"))
    moved = motion_of(a, a.acoustic)
    choked = a.acoustic.sound.yielding.at(moved.drive).outputs[0]
    band = (a.acoustic.frequency >= a.design.brief.bass.frequency) & (
        a.acoustic.frequency <= a.acoustic.f_hi
    )
    row = next(row for row in current_rows(a) if row.name.startswith("Amp output"))
    assert row.asked == pytest.approx(
        np.sqrt(2) * (np.abs(choked.current) * moved.drive)[band].max()
    )
