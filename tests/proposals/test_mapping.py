"""Maps: every node is the design that the edits of its figures make."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import assess
from firecrest.assessment.worth import worst_must
from firecrest.core.errors import DesignError, FirecrestError
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.size.crossing import cut_at, present_at, takes
from firecrest.present.size.mapview import (
    FILLS,
    STEPS,
    axis_text,
    fills_of,
    picture,
    share_of,
    ticks,
)
from firecrest.proposals.mapping import (
    BUILT,
    HEAVIEST,
    SPARE,
    TOO_HIGH,
    TOO_LOW,
    axes_of,
    axis_of,
    design_at,
    map_of,
    maps,
    value_of,
)
from firecrest.proposals.spots import spots


def small(design, across, up, nodes=(7, 6)):
    axes = axis_of(design, across), axis_of(design, up)
    return map_of(design, *axes, nodes, EDIT_GRID, fine=True)


@pytest.fixture(scope="module")
def slipway_map():
    return small(read_demo("slipway"), "air", "tuning", (12, 10))


@pytest.mark.parametrize(
    ("name", "across", "up"),
    [
        ("slipway", "air", "tuning"),
        ("slipway", "length", "mass"),
        ("slipway", "boost", "cells"),
        ("lantern", "port", "tuning"),
        ("lantern", "air", "tuning"),
        ("breakwater", "depth", "crossover"),
        ("boathouse", "air", "boost"),
        ("boathouse-radiators", "tuning", "height"),
    ],
)
def test_every_node_is_the_design_at_that_point(name, across, up):
    """Within 0.12 dB: tunings of nodes are interpolated, those of the design are solved."""
    design = read_demo(name)
    found = small(design, across, up)
    checked = 0
    for m in range(0, len(found.y), 2):
        for n in range(0, len(found.x), 3):
            if found.fate[m, n] != BUILT:
                continue
            made = design_at(design, {across: float(found.x[n]), up: float(found.y[m])})
            assert value_of(made, across) == pytest.approx(found.x[n], rel=2e-3)
            assert value_of(made, up) == pytest.approx(found.y[m], rel=2e-3)
            real = {p.key: p.predicted for p in assess(made).promises}
            for key in ("loudness", "weight", "cost"):
                if real[key] is not None and np.isfinite(found.values[key][m, n]):
                    assert found.values[key][m, n] == pytest.approx(real[key], abs=0.12), key
            checked += 1
    assert checked >= 2


def test_what_cannot_be_built_says_why(slipway_map):
    design = read_demo("slipway")
    high = np.argwhere(slipway_map.fate == TOO_HIGH)
    low = np.argwhere(slipway_map.fate == TOO_LOW)
    assert len(high)
    assert len(low)
    m, n = high[len(high) // 2]
    with pytest.raises(FirecrestError, match="cannot be tuned so high: a bare radiator"):
        design_at(design, {"air": float(slipway_map.x[n]), "tuning": float(slipway_map.y[m])})
    m, n = low[0]
    with pytest.raises(FirecrestError, match="180 g"):
        design_at(design, {"air": float(slipway_map.x[n]), "tuning": float(slipway_map.y[m])})
    heavy = design_at(design, {"mass": HEAVIEST, "depth": design.box.case.depth})
    assert heavy.box.openings[0].added_mass == HEAVIEST


def test_the_worst_promise_is_that_of_the_design(slipway_map):
    design = read_demo("slipway")
    m, n = np.unravel_index(np.nanargmax(slipway_map.worst), slipway_map.worst.shape)
    made = design_at(design, {"air": float(slipway_map.x[n]), "tuning": float(slipway_map.y[m])})
    assert slipway_map.worst[m, n] == pytest.approx(worst_must(assess(made).promises), abs=0.12)


def test_good_spots_lie_inside_the_size_and_are_the_best_there(slipway_map):
    found = {s.key: s for s in spots(slipway_map)}
    assert set(found) == {"best", "loudest", "lightest"}
    inside = slipway_map.size >= 0
    assert found["best"].worst == pytest.approx(np.nanmax(slipway_map.worst[inside]))


def test_a_coarse_map_comes_first_and_agrees_with_the_finer():
    coarse, fine = maps(read_demo("slipway"), "air", "tuning")
    assert (coarse.fine, fine.fine) == (False, True)
    assert fine.x.size > coarse.x.size
    for x, y in ((7.0e-3, 45.0), (5.0e-3, 52.0)):
        values = [
            m.values["loudness"][np.abs(m.y - y).argmin(), np.abs(m.x - x).argmin()]
            for m in (coarse, fine)
        ]
        assert values[0] == pytest.approx(values[1], abs=0.8)


def test_only_figures_that_a_design_has_can_be_mapped(slipway):
    assert "mass" in axes_of(slipway)
    assert "port" not in axes_of(slipway)
    assert "tuning" not in axes_of(read_demo("boathouse"))
    with pytest.raises(DesignError, match="no port"):
        axis_of(slipway, "port")
    for name in demo_names():
        for key in axes_of(read_demo(name)):
            axis = axis_of(read_demo(name), key)
            assert axis.low <= axis.now <= axis.high


def test_the_picture_has_steps_stripes_borders_and_plates(slipway_map):
    assessment = assess(read_demo("slipway"))
    shown = picture(slipway_map, assessment, "loudness")
    assert 2 <= len(shown.areas) <= STEPS
    assert {"size promise", "50\u202fHz"} <= {s.tag for s in shown.promises}
    assert {"Radiator travel", "Amp voltage"} <= {t.text for t in shown.territories}
    assert any("a bare Rowan R16 is too heavy" in plate.text for plate in shown.plates)
    assert "can be built" in shown.spoken
    for fill in FILLS:
        assert picture(slipway_map, assessment, fill).areas


def test_less_is_fuller_where_less_is_better(slipway_map):
    """The lightest corner has the fullest fill."""
    shown = picture(slipway_map, assess(read_demo("slipway")), "weight")
    heavy = max(shown.areas, key=lambda a: max((r[0][:, 0].max() for r in a.rings), default=0))
    assert heavy.step < max(a.step for a in shown.areas)


def test_ticks_cut_and_places_are_in_shown_units(slipway_map):
    assert [text for _, text in ticks(slipway_map.across)] == ["4", "6", "8", "10", "12"]
    assert axis_text("air", 7.6e-3) == "7.60\u202fL"
    design = read_demo("slipway")
    x, y = present_at(slipway_map, design)
    assert 0 < share_of(slipway_map.across, x) < 1
    assert y == pytest.approx(46.6, abs=0.1)
    cut = cut_at(slipway_map, assess(design), x)
    assert cut.target == 96.0
    assert cut.low < min(level for _, level, _ in cut.points) + 14
    assert {code for _, _, code in cut.points} >= {"R", "V"}


def test_what_a_point_takes_is_told(slipway):
    made = design_at(slipway, {"air": 7.8e-3, "tuning": 45.0})
    assert takes(slipway, made) == ("3\u202fmm more depth, 7\u202fg more on each radiator")
    assert takes(slipway, slipway) == ""


def test_a_measured_volume_is_what_the_air_axis_moves(slipway):
    stated = replace_at(slipway, ("box", "chambers", 0, "stated_volume"), 7.5e-3)
    made = design_at(stated, {"air": 8.0e-3, "tuning": 44.0})
    assert made.box.case.depth == stated.box.case.depth
    assert made.box.chambers[0].stated_volume == pytest.approx(8.0e-3)
    found = small(stated, "air", "tuning")
    assert (found.fate == BUILT).any()


def test_no_sound_no_loudness_but_weight(slipway):
    silent = replace_at(slipway, ("box", "groups", 0, "driver", "re"), None)
    found = small(silent, "length", "height")
    assert np.isnan(found.values["loudness"]).all()
    assert np.isfinite(found.values["weight"]).all()
    assert set_number(silent, ("box", "case", "wall"), 0.01) is not None


def test_what_limits_have_to_spare_is_mapped_too(slipway_map):
    """The least of them is loudness's own margin, and each equals that of the design alone."""
    spares = {k: v for k, v in slipway_map.values.items() if k.startswith(SPARE)}
    assert {f"{SPARE}{code}" for code in "VCR"} <= set(spares)
    least = np.min(np.stack(list(spares.values())), axis=0)
    known = np.isfinite(least)
    np.testing.assert_allclose(
        least[known], slipway_map.values["loudness"][known] - 96.0, atol=1e-6
    )
    assert f"{SPARE}C" in fills_of(slipway_map)
    shown = picture(slipway_map, assess(read_demo("slipway")), f"{SPARE}R")
    assert shown.name == "Radiator travel to spare"


def test_a_fill_that_nothing_is_known_of_has_no_steps(slipway_map):
    """No bass reach anywhere: the map is drawn without a fill, and says nothing wrong."""
    values = {**slipway_map.values, "bass": np.full_like(slipway_map.values["bass"], np.nan)}
    shown = picture(replace(slipway_map, values=values), assess(read_demo("slipway")), "bass")
    assert shown.areas == ()
    assert shown.legend == ()
