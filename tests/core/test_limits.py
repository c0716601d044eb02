"""Programme spectra, ceiling and runs, and the acoustic promises on curves with known answers."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.limits import promise as rules
from firecrest.core.limits.ceiling import ceiling, margins_at, raw_runs, runs
from firecrest.core.limits.elements import Limit
from firecrest.core.limits.programme import PROGRAMMES, density, weights

F = np.geomspace(10, 1000, 241)
LN = np.log(F)


@pytest.mark.parametrize("kind", ["music", "pink", "speech"])
def test_spectral_weights_integrate_smooth_curves(kind):
    grid = np.concatenate([F, np.geomspace(1000, 20000, 61)[1:]])
    fine = np.geomspace(20, 20000, 200001)
    s = density(kind, fine)
    s /= np.trapezoid(s, fine)
    for curve in (lambda f: 1 / (1 + (60 / f) ** 4), lambda f: np.log(f), lambda f: f / (f + 300)):
        exact = np.trapezoid(s * curve(fine), fine)
        assert weights(kind, grid) @ curve(grid) == pytest.approx(exact, rel=2e-3)
    assert weights(kind, grid).sum() == pytest.approx(1.0)


def test_a_sine_is_one_line_at_100_hz():
    assert weights("sine", F) @ F == pytest.approx(100.0, rel=1e-3)
    with pytest.raises(ValueError, match="no spectrum"):
        density("sine", F)


def test_duty_of_programme_and_sine():
    assert PROGRAMMES["music"].duty == pytest.approx(8.9897)
    assert PROGRAMMES["sine"].duty == 0.0


def limit(name, factor, code="C"):
    return Limit(name, code, np.asarray(factor, dtype=float))


def test_ceiling_is_the_smallest_limit_and_names_it():
    a, b = limit("cone", F / 50), limit("swing", np.full(241, 2.0), "V")
    top = ceiling(np.zeros(241), [a, b])
    np.testing.assert_allclose(top.level, 20 * np.log10(np.minimum(F / 50, 2)))
    assert top.codes() == "".join("C" if f < 100.1 else "V" for f in F)
    assert [(r.code, r.start) for r in raw_runs(top)] == [("C", 0), ("V", 121)]


def test_the_packs_share_of_a_swing_limit_has_its_own_letter():
    swing = Limit("swing", "V", np.ones(241), pack=F > 200)
    assert set(ceiling(np.zeros(241), [swing]).codes()[:156]) == {"V"}
    assert ceiling(np.zeros(241), [swing]).codes()[-1] == "P"


def test_slivers_and_near_ties_merge_for_tints_but_not_in_the_raw_runs():
    a = np.where((F > 100) & (F < 103), 0.4, 1.0)
    b = np.where(F > 300, 0.995, 1.2)
    top = ceiling(np.zeros(241), [limit("x", np.ones(241)), limit("y", a), limit("z", b)])
    assert len(raw_runs(top)) > 2
    assert len(runs(top, F)) == 1


@given(st.lists(st.floats(0.1, 10), min_size=5, max_size=40), st.integers(0, 4))
def test_merged_runs_cover_the_grid_without_gaps(levels, seed):
    rng = np.random.default_rng(seed)
    limits = [
        limit(str(k), v * np.exp(np.cumsum(rng.normal(0, 0.2, 241))), "CRUVH"[k % 5])
        for k, v in enumerate(levels[:5])
    ]
    found = runs(ceiling(np.zeros(241), limits), F)
    assert found[0].start == 0
    assert found[-1].stop == 240
    assert all(a.stop + 1 == b.start for a, b in pairwise(found))
    wide = [F[r.stop] / F[r.start] >= 2 ** (1 / 12) for r in found]
    assert all(wide) or len(found) == 1


def test_margins_at_a_frequency_between_points():
    top = ceiling(np.zeros(241), [limit("cone", F / 50)])
    assert margins_at(top, np.zeros(241), F, 77.7, 1.0) == [
        pytest.approx(20 * np.log10(77.7 / 50) - 1.0, abs=1e-3)
    ]


@pytest.mark.parametrize("drop", [3, 6, 10])
def test_promise_shape_is_down_by_the_drop_at_its_corner(drop):
    shape = rules.promised_shape(np.array([50.0, 5000.0, 25.0]), 50.0, drop)
    assert shape[0] == pytest.approx(-drop)
    assert shape[1] == pytest.approx(0.0, abs=1e-3)
    assert shape[2] < -drop - 12


def test_upper_edge_is_the_lowest_of_three():
    assert rules.upper_edge(0.2, 343.2, None) == 500.0
    assert rules.upper_edge(0.45, 343.2, None) == pytest.approx(381.33, abs=0.01)
    assert rules.upper_edge(0.45, 343.2, 80.0) == pytest.approx(56.0)


def test_loudness_is_the_target_plus_the_smallest_margin():
    asked = 96 + rules.promised_shape(F, 50.0, 6)
    top = asked + 3.0 - 4.0 * np.exp(-((np.log(F / 80) / 0.2) ** 2))
    result = rules.loudness(F, top, np.zeros(241, dtype=int), 96.0, 50.0, 6, 500.0)
    assert result.margin == pytest.approx(-1.0, abs=0.01)
    assert result.level == pytest.approx(95.0, abs=0.01)
    assert result.frequency == pytest.approx(80.0, rel=0.02)
    assert rules.loudness(F, top, np.zeros(241, dtype=int), 96.0, 50.0, 6, 45.0) is None


def high_pass_4(corner):
    return -10 * np.log10(1 + (corner / F) ** 8)


def test_small_signal_reach_of_a_known_high_pass():
    low, high = rules.reference_band(50.0, None)
    assert (low, high) == (100.0, 400.0)
    r = high_pass_4(50.0) - rules.band_mean(F, high_pass_4(50.0), low, high)
    assert rules.crossing(F, r, 3, low).frequency == pytest.approx(50.0, rel=2e-3)


def test_dips_inside_the_band_do_not_count():
    dipped = high_pass_4(50.0) - 12 * np.exp(-((np.log(F / 200) / 0.1) ** 2))
    assert rules.crossing(F, dipped, 3, 100.0).frequency == pytest.approx(50.0, rel=0.02)


def test_reach_that_starts_below_is_inside_the_band_or_nowhere():
    late = rules.crossing(F, high_pass_4(150.0), 3, 100.0)
    assert (late.note, late.frequency) == ("inside the band", pytest.approx(150.0, rel=0.01))
    never = rules.crossing(F, np.full(241, -8.0), 6, 100.0)
    assert never.frequency is None
    assert never.missing == pytest.approx(2.0)
    flat = rules.crossing(F, np.zeros(241), 6, 100.0)
    assert flat.note == "5 Hz or lower"


def test_reference_band_below_a_low_pass():
    assert rules.reference_band(30.0, 80.0) == (pytest.approx(56 / np.sqrt(2)), 56.0)


def test_low_note_needs_the_high_pass_it_names():
    music = PROGRAMMES["music"]
    cone = limit("cone", (F / 20) ** 2)
    result = rules.low_note(F, [cone], 8.0, music, 60.0)
    assert not result.passed
    assert result.high_pass is not None
    x4 = (F / result.high_pass) ** 4
    cured = limit("cone", cone.factor / np.sqrt(x4 / (1 + x4)))
    after = rules.low_note(F, [cured], 8.0, music, 60.0)
    assert after.margin == pytest.approx(0.0, abs=0.02)
    hopeless = limit("cone", np.full(241, 1e-3))
    assert rules.low_note(F, [hopeless], 8.0, music, 60.0).high_pass is None


def test_low_note_allows_what_the_programme_does_not_contain():
    strict = rules.low_note(F, [limit("cone", F / 40)], 1.0, PROGRAMMES["pink"], 50.0)
    gentle = rules.low_note(F, [limit("cone", F / 40)], 1.0, PROGRAMMES["music"], 50.0)
    assert gentle.margin > strict.margin
    assert rules.low_note(F, [limit("swing", F, "V")], 1.0, PROGRAMMES["pink"], 50.0) is None
    sine = rules.low_note(F, [limit("cone", F / 40)], 1.0, PROGRAMMES["sine"], 50.0)
    assert sine.frequency == 100.0
