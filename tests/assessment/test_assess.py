"""The assessment: same figures every way, five weakest links, honest gaps, memo."""

import dataclasses
import json

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.reference.designs import system_design

from firecrest import cli
from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import assess
from firecrest.assessment.chain import LINKS, links
from firecrest.assessment.memo import Memo
from firecrest.assessment.vary import assess_many
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.blocks import Parametric
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.design.project import project_of
from firecrest.design.text import project_from_json, project_to_json
from firecrest.files.demos import read_demo
from firecrest.present.report import report
from firecrest.present.text.notes import said
from firecrest.present.text.sentences import why

XMAX = ("box", "groups", 0, "driver", "xmax")
SOUND = ("box_model", "solve", "transfers_from", "ratings_of", "draw_of", "_given", "played")
"""What only changes that can be heard work out again."""


def figures(a):
    """Every promise's predicted figure and margin."""
    return [(p.predicted, p.margin, p.state) for p in a.promises]


def test_twice_the_same_and_from_a_fresh_copy_the_same():
    first = read_demo("slipway")
    second = project_from_json(project_to_json(project_of(first))).design
    assert first is not second
    assert figures(assess(first)) == figures(assess(first))
    assert figures(assess(first)) == figures(assess(second))


def variants(design):
    paths = [
        (("box", "case", "depth"), 0.15),
        (("box", "openings", 0, "added_mass"), 0.05),
        (("power", "source", "series"), 4),
        (("voice", "channels", 0, "gain"), -3.0),
        (("brief", "loudness", "level"), 90.0),
        (("power", "boards", 0, "part", "gain"), 20.0),
    ]
    return [design] + [set_number(design, p, v) for p, v in paths]


def test_the_batch_equals_one_by_one(slipway, blank):
    designs = [*variants(slipway), blank, *map(system_design, ("S1", "S4", "S5"))]
    for design, row in zip(designs, assess_many(designs, EDIT_GRID, Memo()), strict=True):
        a = assess(design)
        assert row.loudness == pytest.approx(a.promise("loudness").predicted, abs=1e-9)
        reach = a.acoustic.reaches.at_level.frequency
        assert row.bass_reach == pytest.approx(reach, abs=1e-9)
        if a.acoustic.runtime is not None:
            assert row.hours == pytest.approx(a.acoustic.runtime.hours, abs=1e-9)
        assert (row.mass, row.price) == (a.cabinet.mass, a.cabinet.price)


def test_a_batch_tells_which_design_lacks_what(slipway):
    poor = replace_at(slipway, XMAX, None)
    rows = assess_many([slipway, poor], EDIT_GRID, Memo())
    assert rows[0].missing is None
    assert said(rows[1].missing) == "needs Xmax of Alder W13-4"


def weakest(design):
    a = assess(design)
    return a.acoustic.limits[a.acoustic.loudness.limit].name


def test_five_designs_that_differ_in_one_part_name_five_weakest_links(slipway):
    loud = set_number(slipway, ("box", "openings", 0, "radiator", "xmax"), 0.02)
    loud = set_number(loud, ("power", "source", "board", "cut_off"), None)
    changes = {
        "radiator": (("box", "openings", 0, "radiator", "xmax"), 0.0015),
        "cone": (XMAX, 0.0006),
        "coil": (("box", "groups", 0, "driver", "pe"), 0.3),
        "amplifier current": (("power", "boards", 0, "part", "current_limit"), 0.9),
        "full scale": (("power", "boards", 1, "part", "full_scale"), 0.1),
        "protection board": (("power", "source", "board", "max_current"), 0.9),
        "swing": (("power", "source", "series"), 4),
    }
    found = {name: weakest(set_number(loud, *change)) for name, change in changes.items()}
    assert found == {name: name for name in changes}
    words = {why(assess(set_number(loud, *c)))[0].plain for c in changes.values()}
    assert len(words) == len(changes)


def test_editing_the_cost_target_runs_no_acoustic_stage(slipway):
    memo = Memo()
    assess(slipway, memo)
    before = [memo.runs[name] for name in SOUND]
    assert all(before)
    assess(set_number(slipway, ("brief", "cost", "price"), 123.0), memo)
    assert [memo.runs[name] for name in SOUND] == before


def test_editing_the_voice_does_not_solve_the_box_again(slipway):
    memo = Memo()
    assess(slipway, memo)
    assess(set_number(slipway, ("voice", "channels", 0, "gain"), -1.5), memo)
    assert (memo.runs["solve"], memo.runs["transfers_from"]) == (1, 2)


@pytest.mark.parametrize(
    ("path", "words"),
    [
        (XMAX, "needs Xmax of Alder W13-4"),
        (("box", "groups", 0, "driver", "pe"), "needs the rated power of Alder W13-4"),
        (("box", "groups", 0, "driver", "vas"), "of Alder W13-4"),
        (("box", "openings", 0, "radiator", "mmp"), "needs Mmp of Rowan R16"),
        (("power", "source", "cell", "max_current"), "needs the current limit of Flint 21"),
        (("power", "source", "board", "max_current"), "protection board"),
    ],
)
def test_missing_figures_make_loudness_unknown_and_say_what_is_missing(slipway, path, words):
    a = assess(set_number(slipway, path, None))
    loudness = a.promise("loudness")
    assert loudness.state == "unknown"
    assert words in said(loudness.reason)
    assert a.promise("weight").state == "met"


def test_an_unknown_radiator_travel_is_an_estimate_not_infinite(slipway):
    a = assess(set_number(slipway, ("box", "openings", 0, "radiator", "xmax"), None))
    swept = 2 * 2 * 0.0084 * 0.0045 / (2 * 0.0118)
    assert a.acoustic.ratings.openings == (pytest.approx(swept),)
    assert "Travel of Rowan R16: estimated, ±40 %" in [said(e) for e in a.estimates]


def test_a_horizontal_radiator_sags(slipway):
    a = assess(replace_at(slipway, ("box", "openings", 0, "horizontal"), True))
    sag = 9.81 * (0.052 + 0.018) * 0.0008
    assert a.acoustic.ratings.openings[0] == pytest.approx(0.0032 - sag)


def test_a_box_full_of_parts_says_so(slipway):
    a = assess(set_number(slipway, ("box", "chambers", 0, "share"), 0.05))
    assert a.promise("loudness").reason == note("no air", chamber="main")


def test_open_promises_are_not_judged(slipway):
    a = assess(replace_at(slipway, ("brief", "loudness", "importance"), "open"))
    assert a.promise("loudness").state == "none"


def test_a_level_that_cannot_be_played_is_short(slipway):
    a = assess(set_number(slipway, ("brief", "runtime", "level"), 110.0))
    run = a.promise("runtime")
    assert run.state == "short"
    assert "110.0 dB cannot be held" in said(run.reason)


def test_loudness_is_at_best_close_while_a_low_note_is_too_much(slipway):
    design = set_number(slipway, ("brief", "loudness", "level"), 94.0)
    design = replace_at(design, ("brief", "listening", "material"), "pink")
    a = assess(replace_at(design, ("voice", "channels", 0, "blocks"), ()))
    assert a.promise("loudness").margin > 0
    assert not a.acoustic.low_note.passed
    assert a.promise("loudness").state == "close"
    assert "needs a high-pass" in " ".join(s.plain for s in why(a))


def test_chain_links_and_the_strip_agree(slipway):
    a = assess(slipway)
    by_key = {link.key: link.spare for link in a.links}
    assert tuple(by_key) == LINKS
    assert by_key["listener"] == a.promise("loudness").margin
    assert by_key["radiators"] == pytest.approx(a.promise("loudness").margin, abs=0.05)
    assert by_key["box"] is None
    elsewhere = {x.key: x.spare for x in links(slipway, a.acoustic, 200.0)}
    assert elsewhere["radiators"] > by_key["radiators"] + 10


def test_hotter_colder_and_higher_still_answers(slipway):
    for path, value in (
        (("brief", "conditions", "temperature"), 243.15),
        (("brief", "conditions", "pressure"), 70e3),
    ):
        a = assess(set_number(slipway, path, value))
        assert a.promise("loudness").predicted is not None


NUMBERS = st.sampled_from(
    [
        (("box", "case", "depth"), 0.05, 0.6),
        (("box", "case", "wall"), 0.002, 0.03),
        (("box", "chambers", 0, "leak_q"), 1, 1000),
        (("box", "chambers", 0, "stuffing"), 0, 0.2),
        (("box", "openings", 0, "added_mass"), 0, 2),
        (XMAX, 1e-4, 0.1),
        (("box", "openings", 0, "radiator", "cmp"), 1e-6, 0.1),
        (("power", "source", "series"), 1, 30),
        (("power", "source", "parallel"), 1, 20),
        (("power", "lead", "contacts"), 0, 5),
        (("power", "boards", 0, "part", "gain"), 0, 60),
        (("brief", "loudness", "level"), 50, 140),
        (("brief", "bass", "frequency"), 10, 300),
        (("brief", "conditions", "charge"), 0.02, 1),
        (("voice", "channels", 0, "gain"), -60, 30),
    ]
)


@settings(max_examples=120)
@given(st.lists(st.tuples(NUMBERS, st.floats(0, 1)), min_size=1, max_size=5))
def test_every_valid_design_is_assessed_without_surprises(edits):
    design = read_demo("slipway")
    for (path, low, high), share in edits:
        value = low + share * (high - low)
        try:
            design = set_number(
                design, path, round(value) if "series" in path or "parallel" in path else value
            )
        except FirecrestError:
            continue
    a = assess(design)
    assert len(a.promises) == 6
    assert why(a)
    if a.acoustic is not None:
        assert not np.any(np.isnan(a.acoustic.top.level))


def test_results_are_plain_values(slipway):
    a = assess(slipway)
    assert dataclasses.is_dataclass(a)
    assert a.design is slipway


def test_a_missing_limit_is_never_reported_as_a_level(slipway):
    a = assess(replace_at(slipway, XMAX, None))
    assert a.acoustic.loudness is None
    assert a.acoustic.low_note is None
    body = report(a, 2.83, np.array([50.0, 100.0]))
    for key in ("loudness", "loudness_full_charge", "low_note", "programme_level", "bass"):
        assert body[key] is None


def test_a_sine_is_said_to_have_no_spectrum(slipway):
    a = assess(replace_at(slipway, ("brief", "listening", "material"), "sine"))
    assert any("use 100 Hz" in said(line) for line in a.estimates)
    assert a.acoustic.low_note.frequency == 100.0


def test_a_dip_inside_the_band_is_told(slipway):
    path = ("voice", "channels", 0, "blocks")
    notch = Parametric(kind="parametric", frequency=180.0, gain=-14.0, q=2.0)
    a = assess(replace_at(slipway, path, (*slipway.voice.channels[0].blocks, notch)))
    assert a.acoustic.reaches.dip > 1
    assert any("dips" in s.plain for s in why(a))
    assert assess(slipway).acoustic.reaches.dip == 0.0


def test_window_command_line_and_assessment_agree(slipway, tmp_path, capsys):
    path = tmp_path / "design.json"
    path.write_text(project_to_json(project_of(slipway)))
    cli.run(["assess", str(path), "--json"])
    told = json.loads(capsys.readouterr().out)["promises"]
    for promise, line in zip(assess(slipway).promises, told, strict=True):
        assert line["predicted"] == pytest.approx(promise.predicted, abs=1e-9)
        assert line["margin"] == pytest.approx(promise.margin, abs=1e-9)
