"""What follows from a sheet, who contradicts whom, and who is to blame."""

import random
from math import pi, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.acoustics.derivation import apart
from firecrest.core.acoustics.driver import (
    RANK,
    STIFFNESS,
    DriverConstants,
    derive,
    driver_suspects,
    free_air_impedance,
)
from firecrest.core.acoustics.openings import radiator as radiators

PERTURBED = 0.2


def whole_sheet(rng):
    """A consistent sheet of a made-up driver, rounded to three figures as sheets are."""
    fs, qes, qms = rng.uniform(25, 150), rng.uniform(0.3, 0.9), rng.uniform(2, 8)
    sd, mms, re = rng.uniform(20e-4, 300e-4), rng.uniform(2e-3, 60e-3), rng.uniform(3, 7)
    cms = 1 / ((2 * pi * fs) ** 2 * mms)
    figures = {
        "re": re,
        "sd": sd,
        "fs": fs,
        "qes": qes,
        "qms": qms,
        "qts": qes * qms / (qes + qms),
        "vas": STIFFNESS * sd**2 * cms,
        "mms": mms,
        "cms": cms,
        "rms": 2 * pi * fs * mms / qms,
        "bl": sqrt(2 * pi * fs * mms * re / qes),
    }
    return {key: float(f"{value:.3g}") for key, value in figures.items()}


def identifiable(sheet, figure, factor):
    """Whether in exact arithmetic leaving out this figure, and no other, cures the sheet.

    Worked out from a figure's place in the relations: Sd with Vas, and Re with Bl, stand together
    in one relation only and cannot be told apart; Qms hardly moves Qts when it is large.
    """
    wrong = {**sheet, figure: sheet[figure] * factor}
    if not derive(wrong).contradictions:
        return False
    return figure not in ("sd", "vas", "re", "bl")


def test_the_culprit_is_named_in_most_sheets_where_it_can_be():
    rng = random.Random(20)
    named = asked = silent = ambiguous = 0
    for _ in range(200):
        sheet = whole_sheet(rng)
        figure = rng.choice(RANK)
        factor = 1 + PERTURBED * rng.choice((-1, 1))
        suspects = driver_suspects({**sheet, figure: sheet[figure] * factor})
        if identifiable(sheet, figure, factor):
            asked += 1
            named += suspects == (figure,)
        else:
            ambiguous += 1
            silent += len(suspects) != 1 or suspects == (figure,)
    assert asked > 80
    assert named / asked >= 0.8
    assert silent / ambiguous >= 0.9


def test_it_says_when_it_cannot_tell():
    sheet = whole_sheet(random.Random(3))
    assert driver_suspects(sheet) == ()
    assert driver_suspects({**sheet, "vas": sheet["vas"] * 1.2}) == ("sd", "vas")
    both = {**sheet, "mms": sheet["mms"] * 1.3, "bl": sheet["bl"] * 0.7, "qts": sheet["qts"] * 1.4}
    assert driver_suspects(both) == ()
    assert derive(both).contradictions


@given(st.sampled_from(RANK), st.integers(0, 10_000))
def test_rounding_never_accuses_anyone(left_out, seed):
    sheet = whole_sheet(random.Random(seed))
    assert derive({**sheet, left_out: None}).contradictions == ()


@given(st.floats(0.01, 100), st.floats(0.01, 100))
def test_apart_is_the_same_whichever_one_trusts(a, b):
    assert apart(a, b) == apart(b, a)
    assert 0 <= apart(a, b) < 1


def test_a_radiators_sheet_follows_and_contradicts():
    sheet = {"sd": 0.012, "mmp": 0.05, "fp": 25.0, "qmp": 7.0}
    found = radiators.derive_radiator(sheet)
    assert found.figures["cmp"] == pytest.approx(1 / ((2 * pi * 25) ** 2 * 0.05))
    assert found.figures["rmp"] == pytest.approx(2 * pi * 25 * 0.05 / 7)
    assert found.missing == ()
    wrong = {**sheet, "cmp": found.figures["cmp"] * 1.3, "rmp": found.figures["rmp"]}
    assert {c.figure for c in radiators.derive_radiator(wrong).contradictions} == {"fp", "qmp"}
    assert "cmp" in radiators.radiator_suspects(wrong)
    assert radiators.derive_radiator({**sheet, "rmp": 0.0, "qmp": None}).figures["rmp"] == 0.0


def test_free_air_impedance_peaks_at_fs_with_the_height_of_its_qs():
    f = derive(whole_sheet(random.Random(5))).figures
    constants = DriverConstants(
        f["re"], 0.0, 0.0, 0.0, f["sd"], f["bl"], f["mms"], f["cms"], f["rms"]
    )
    peak = abs(free_air_impedance(constants, [f["fs"]])[0])
    assert peak == pytest.approx(f["re"] * (1 + f["qms"] / f["qes"]), rel=0.01)
    assert abs(free_air_impedance(constants, [1.0])[0]) == pytest.approx(f["re"], rel=0.05)
