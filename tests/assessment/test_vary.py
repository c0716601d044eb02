"""Many designs at once: the same figures as one by one, whatever is varied."""

import numpy as np
import pytest

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import assess
from firecrest.assessment.memo import Memo
from firecrest.assessment.vary import assess_many, vary
from firecrest.assessment.verdicts import UNKNOWN
from firecrest.core.errors import DesignError
from firecrest.core.limits.ceiling import spelt
from firecrest.core.note import note
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.text.notes import said
from firecrest.proposals.layouts import with_kind, with_layout

COUNT = 300
SAMPLED = 25
"""Of the variations, those that are also assessed one by one."""
SHARES = (
    ("box", "case", "depth"),
    ("box", "case", "wall"),
    ("box", "chambers", 0, "leak_q"),
    ("box", "groups", 0, "driver", "fs"),
    ("box", "groups", 0, "driver", "xmax"),
    ("box", "groups", 0, "driver", "pe"),
    ("box", "openings", 0, "added_mass"),
    ("box", "openings", 0, "radiator", "xmax"),
    ("box", "openings", 0, "length"),
    ("box", "openings", 0, "diameter"),
    ("power", "boards", 0, "part", "claims", 0, "power"),
    ("power", "boards", 0, "part", "gain"),
    ("power", "boards", 0, "part", "idle_current"),
    ("power", "source", "cell", "capacity"),
    ("power", "source", "cell", "table", 2, "rest_voltage"),
    ("power", "lead", "contacts"),
    ("power", "lead", "area"),
    ("power", "source", "voltage"),
    ("power", "boards", 1, "part", "full_scale"),
    ("voice", "channels", 0, "blocks", 0, "frequency"),
    ("brief", "bass", "frequency"),
    ("brief", "runtime", "duration"),
    ("brief", "size", "depth"),
    ("brief", "conditions", "temperature"),
    ("brief", "listening", "distance"),
)
"""Figures that are varied by a share of themselves."""
STEPS = ((("voice", "channels", 0, "gain"), 4.0), (("brief", "loudness", "level"), 6.0))
"""Figures that are varied by so much either way."""


def columns_for(design, rng):
    """Random columns of every figure that the design has."""
    columns = {}
    for path in SHARES:
        try:
            value = value_at(design, path)
        except DesignError:
            continue
        if value is not None:
            spread = 0.03 if path[-1] == "temperature" else 0.1
            columns[path] = value * rng.uniform(1 - spread, 1 + spread, COUNT)
    for path, step in STEPS:
        columns[path] = value_at(design, path) + rng.uniform(-step, step, COUNT)
    return columns


@pytest.mark.parametrize("name", demo_names())
def test_columns_equal_one_by_one(name):
    design, rng = read_demo(name), np.random.default_rng(11)
    columns = columns_for(design, rng)
    found = vary(design, columns)
    margins = found.verdict("loudness").margin
    assert np.ptp(margins[np.isfinite(margins)]) > 1
    for row in rng.choice(COUNT, SAMPLED, replace=False):
        alone = design
        for path, values in columns.items():
            alone = replace_at(alone, path, float(values[row]))
        one = assess(alone)
        for many, single in zip(found.promises(row), one.promises, strict=True):
            assert (many.state, said(many.reason)) == (single.state, said(single.reason))
            for a, b in ((many.predicted, single.predicted), (many.margin, single.margin)):
                assert a is b is None or a == pytest.approx(b, rel=1e-9, abs=1e-9)
        top = one.acoustic.top
        np.testing.assert_allclose(found.level[row], top.level, atol=1e-9)
        assert spelt(found.letters[row]) == top.codes()


def test_an_input_that_no_sheet_states_can_be_varied(slipway):
    path = ("box", "groups", 0, "driver", "constants", "m_ms")
    found = vary(slipway, {path: np.array([0.008, 0.010, 0.012])})
    reach = np.ravel(found.verdict("bass").predicted)
    assert reach[0] != reach[1] != reach[2]


def test_designs_that_leave_no_air_are_told_and_the_others_judged(slipway):
    found = vary(slipway, {("box", "chambers", 0, "share"): np.array([0.02, 1.0])})
    full, well = (found.promises(row)[0] for row in (0, 1))
    assert (full.state, full.predicted) == ("unknown", None)
    assert full.reason == note("no air", chamber="main")
    assert well == assess(slipway).promises[0]
    shares = np.ones(200)
    shares[150] = 0.02  # in another block than the first
    states = np.ravel(vary(slipway, {("box", "chambers", 0, "share"): shares}).verdicts[0].state)
    assert np.nonzero(states == UNKNOWN)[0].tolist() == [150]


def test_of_two_reasons_the_same_is_told_as_of_one_design(slipway):
    """No air before a figure that is not known: without air that figure would be of no help."""
    bare = replace_at(slipway, ("box", "groups", 0, "driver", "xmax"), None)
    path = ("box", "chambers", 0, "share")
    found = vary(bare, {path: np.array([0.02, 1.0])})
    for row, share in enumerate((0.02, 1.0)):
        alone = assess(replace_at(bare, path, share)).promises
        assert [p.reason for p in found.promises(row)] == [p.reason for p in alone]


def test_sources_that_cancel_are_told_and_the_others_judged(slipway):
    """Two equal channels against each other: at one level nothing is left at all."""
    design = with_layout(with_kind(slipway, "sealed"), "halves")
    for place in (0, 1):
        design = replace_at(design, ("box", "chambers", place, "stated_volume"), 0.003)
    design = replace_at(design, ("voice", "channels", 1, "inverted"), True)
    found = vary(design, {("voice", "channels", 1, "gain"): np.array([0.0, -20.0])})
    silent, well = (found.promises(row)[0] for row in (0, 1))
    assert (silent.state, silent.predicted) == ("unknown", None)
    assert silent.reason == note("cancelled")
    assert well.predicted is not None


def test_a_wrong_column_is_refused_and_named(slipway):
    with pytest.raises(DesignError, match=r"no box\.case\.colour"):
        vary(slipway, {("box", "case", "colour"): np.ones(2)})
    with pytest.raises(DesignError, match="Depth"):
        vary(slipway, {("box", "case", "depth"): np.array([0.1, 50.0])})
    with pytest.raises(DesignError, match="as many values"):
        vary(slipway, {("box", "case", "depth"): np.ones(2), ("box", "case", "wall"): np.ones(3)})


def test_mixed_topologies_are_sorted_out_and_back(slipway, blank):
    designs = [slipway, blank, slipway, blank]
    a, b, c, d = assess_many(designs, EDIT_GRID, Memo())
    assert a.loudness == c.loudness != b.loudness == d.loudness
    assert a.hours == c.hours
    assert assess_many([], EDIT_GRID, Memo()) == []


@pytest.mark.parametrize(
    "path", [("brief", "listening", "distance"), ("power", "source", "resistance")]
)
def test_one_figure_that_the_network_does_not_know_is_varied_alone(path):
    """Sites, places and channels keep their axes where only what is around has columns."""
    design = read_demo("breakwater")
    values = value_at(design, path) * np.array([0.8, 1.0, 1.3])
    found = vary(design, {path: values})
    for row, value in enumerate(values):
        one = assess(replace_at(design, path, float(value))).acoustic
        np.testing.assert_allclose(found.level[row], one.top.level, atol=1e-9)


def test_weak_groups_and_wires_are_columns_too(slipway):
    for path, values in (
        (("power", "source", "spread"), np.array([0.0, 0.03, 0.1])),
        (("power", "lead", "length"), np.array([0.1, 3.0])),
        (("power", "source", "board", "own_current"), np.array([0.0, 0.01])),
    ):
        found = vary(slipway, {path: values})
        for row, value in enumerate(values):
            one = assess(set_number(slipway, path, float(value))).promise("runtime")
            many = found.promises(row)[2]
            assert many.predicted == pytest.approx(one.predicted, rel=1e-9)
            assert many.state == one.state
