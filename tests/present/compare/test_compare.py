"""Variants beside each other: what each keeps, what differs, and what the cloud says."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.doubt.doubt import doubt_of
from firecrest.assessment.worth import NOTHING, worst_key, worst_must, worth
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.design.edits.variants import bring_over, copy_variant
from firecrest.design.project import project_of, with_design
from firecrest.files.demos import read_demo_project
from firecrest.present.compare.columns import compared, reaches, verdict_of
from firecrest.present.compare.differing import differences, ranked, told_value
from firecrest.present.compare.plots import legend, overlaid, ribbon
from firecrest.present.compare.sheet import comparison_report, comparison_rows
from firecrest.present.compare.trail import axis, place, point_of, spoken, ticks

MASS = ("box", "openings", 0, "added_mass")
LOUD = ("brief", "loudness", "level")


@pytest.fixture(scope="module")
def boathouse():
    return read_demo_project("boathouse")


def designs_of(project):
    return {v.letter: project.design_of(v) for v in project.variants}


@pytest.fixture(scope="module")
def columns(boathouse):
    assessed = {k: assess(d) for k, d in designs_of(boathouse).items()}
    return compared(boathouse, assessed, {})


def test_columns_tell_who_keeps_and_who_is_in_force(columns):
    assert [c.title for c in columns] == ["A sealed", "B radiators", "C bandpass"]
    assert [c.standing for c in columns] == ["in force", "tried", "tried"]
    assert verdict_of(columns) == ["B keeps every promise that must be."]
    assert columns[0].meters["loudness"].mark == "short"
    small, level = reaches(columns[1].assessment)
    assert [float(x) for x in small.split(" / ")] == sorted(
        (float(x) for x in small.split(" / ")), reverse=True
    )
    assert small.startswith("25.9")
    assert level.count("/") == 2


def test_doubt_makes_a_close_call_of_the_bandpass(boathouse):
    designs = designs_of(boathouse)
    assessed = {k: assess(d) for k, d in designs.items()}
    found = compared(boathouse, assessed, {"C": doubt_of(designs["C"])})
    assert verdict_of(found)[-1] == "C is a close call."


def test_where_none_keeps_all_the_nearest_is_named(boathouse):
    loud = with_design(boathouse, set_number(boathouse.design, LOUD, 112.0))
    assessed = {k: assess(d) for k, d in designs_of(loud).items()}
    assert verdict_of(compared(loud, assessed, {})) == [
        "None keeps all. B comes nearest: loudness and bass reach short."
    ]


def test_another_box_is_one_row_and_another_mass_is_one(boathouse, slipway):
    rows = differences(designs_of(boathouse), "A")
    boards = [r.path[-2:] for r in rows if r.path[:2] == ("power", "boards")]
    assert set(boards) == {("mount", "panel"), ("mount", "u")}
    assert [r.path for r in rows if "boards" not in r.path] == [
        ("box",),
        ("voice", "channels", 0, "blocks"),
    ]
    assert rows[0].values["B"] == "one chamber, 2 × Rowan R30"
    project = copy_variant(project_of(slipway))[1]
    heavy = with_design(project, set_number(project.design, MASS, 0.05))
    (row,) = differences(designs_of(heavy), "B")
    assert (row.label, row.values["A"]) == ("Added mass, each", "18.0\u202fg")


def test_a_part_that_was_exchanged_is_one_row_by_its_name(slipway, blank):
    project = copy_variant(project_of(slipway))[1]
    path = ("box", "groups", 0, "driver")
    other = with_design(project, replace_at(project.design, path, value_at(blank, path)))
    (row,) = differences(designs_of(other), "B")
    assert row.path == path
    assert (row.values["A"], row.values["B"]) == ("Alder W13-4", value_at(blank, path).name)


def test_the_most_telling_row_comes_first(slipway):
    """Mass moves loudness by decibels, a millimetre of depth hardly; as brought over it does."""
    project = copy_variant(project_of(slipway))[1]
    design = set_number(project.design, ("box", "case", "depth"), 0.187)
    other = with_design(project, set_number(design, MASS, 0.04))
    rows = next(ranked(designs_of(other), "A"))
    assert [r.path for r in rows] == [MASS, ("box", "case", "depth")]
    before = worst_must(assess(slipway).promises)
    brought = bring_over(other, MASS, "B", "A")[1]
    after = worst_must(assess(designs_of(brought)["A"]).promises)
    assert rows[0].effect == pytest.approx(abs(after - before), abs=0.02)


def test_equal_variants_differ_in_nothing(slipway):
    project = copy_variant(project_of(slipway))[1]
    assert differences(designs_of(project), "B") == []


def test_curves_of_all_variants_share_one_plot(columns):
    plot = overlaid(columns, "ceiling", full=False, frequency=50.0)
    assert [c.label for c in plot.curves] == [c.title for c in columns]
    assert plot.curves[0].role == "olive"
    assert [r.name for r in plot.readout.rows] == [c.title for c in columns]
    k = int(np.argmin(np.abs(plot.curves[1].x - 50.0)))
    assert float(plot.readout.rows[1].value) == pytest.approx(plot.curves[1].y[k], abs=0.2)
    for view in ("response", "travel"):
        assert len(overlaid(columns, view, full=True, frequency=None).curves) == 3


def test_ribbons_cover_the_axis_and_their_limits_are_named(columns):
    for column in columns:
        runs = ribbon(column)
        assert runs[0].x[0] <= 30.0
        assert runs[-1].x[-1] >= 1000.0
    named = [name for _, name in legend(columns, full=False)]
    assert {"Cone travel", "Amp voltage"} <= set(named)


def test_the_sheet_has_a_row_for_each_promise_and_difference(columns, boathouse):
    found = differences(designs_of(boathouse), "A")
    rows = comparison_rows(columns, found)
    assert {len(row) for row in rows} == {4}
    assert [r[0] for r in rows][:3] == ["standing", "Loudness", "Bass reach"]
    assert rows[-1][0] == "Blocks"
    report = comparison_report(columns, found)
    assert report["format"] == "firecrest-compare-1"
    loud = report["variants"][1]["promises"]["loudness"]
    assert loud["predicted"] == pytest.approx(107.3, abs=0.1)
    assert report["differences"][0]["path"] == "box"


def test_elements_are_told_in_few_words(boathouse):
    c = designs_of(boathouse)["C"]
    assert told_value(c.box) == "2 chambers, port 104\u202fmm"
    assert told_value(()) == "none"
    assert told_value(True) == "yes"
    assert told_value(c.box.groups) == "1 × Hornbeam S25-4"


def test_points_lie_on_the_right_side_of_the_stripes(columns):
    points = [point_of(c.assessment, c.letter, here=c.here) for c in columns]
    brief = columns[0].assessment.design.brief
    x, y = axis("weight", points, brief), axis("loudness", points, brief)
    assert place(brief.weight.mass, x) == pytest.approx((x.target - x.low) / (x.high - x.low))
    up = [place(p.figures["loudness"], y) for p in points]
    stripe = (y.target - y.low) / (y.high - y.low)
    assert [u > stripe for u in up] == [False, True, False]
    assert spoken(points, x, y).startswith("3 designs tried, 1 keep both")
    assert all(0 <= share <= 1 for share, _ in ticks(x))


def test_margins_of_unlike_promises_weigh_in_decibels(slipway):
    promises = {p.key: p for p in assess(slipway).promises}
    assert worth(promises["loudness"]) == pytest.approx(-0.76, abs=0.02)
    assert worth(promises["bass"]) == pytest.approx(-20 * np.log10(50.982 / 50), abs=1e-3)
    assert worth(promises["runtime"]) == pytest.approx(10 * np.log10(35769.75 / 18000), abs=1e-3)
    assert worth(promises["weight"]) == pytest.approx(10 * np.log10(6 / 5.1516), abs=1e-3)
    assert worst_key(assess(slipway).promises) == "loudness"
    silent = replace_at(slipway, ("box", "groups", 0, "driver", "re"), None)
    assert worst_must(assess(silent).promises) == NOTHING
