from math import pi, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.acoustics.driver import RELATIONS, derive, half_space_sensitivity

SHEET = {"re": 5.6, "sd": 0.0214, "fs": 32.0, "qes": 0.45, "qms": 4.0, "vas": 0.045}
FULL = dict(derive(SHEET).figures)


def test_published_example():
    assert FULL["bl"] == pytest.approx(9.451285283)
    assert FULL["mms"] == pytest.approx(0.03570067149)
    assert FULL["cms"] == pytest.approx(0.000692889407)
    assert FULL["qts"] == pytest.approx(0.404494382)
    assert half_space_sensitivity(FULL) == pytest.approx(87.21101741, abs=1e-3)


@pytest.mark.parametrize("relation", RELATIONS, ids=lambda r: f"{r.gives} from {r.needs}")
def test_every_relation_holds_on_a_consistent_driver(relation):
    value = relation.formula(*(FULL[n] for n in relation.needs))
    assert value == pytest.approx(FULL[relation.gives], rel=1e-9)


@pytest.mark.parametrize(
    "known",
    [
        ("re", "sd", "fs", "qes", "qms", "vas"),
        ("re", "sd", "fs", "qts", "qms", "vas"),
        ("re", "sd", "fs", "qts", "qes", "mms"),
        ("re", "sd", "bl", "mms", "cms", "rms"),
        ("re", "sd", "bl", "fs", "qes", "qms"),
        ("sd", "fs", "qes", "qms", "vas", "bl"),
    ],
)
def test_any_sufficient_set_gives_the_same_driver(known):
    result = derive({k: FULL[k] for k in known})
    assert result.missing == ()
    assert result.contradictions == ()
    for key, value in FULL.items():
        assert result.figures[key] == pytest.approx(value, rel=1e-9)


def test_contradiction_is_reported_and_never_averaged():
    result = derive({**SHEET, "mms": FULL["mms"] * 1.18})
    assert [c.figure for c in result.contradictions] == ["mms"]
    assert result.contradictions[0].apart == pytest.approx(1 - 1 / 1.18)
    assert result.figures["mms"] == pytest.approx(FULL["mms"])


def test_rounding_on_a_sheet_is_no_contradiction():
    assert derive({**SHEET, "mms": FULL["mms"] * 1.015}).contradictions == ()


def test_says_what_is_missing():
    assert set(derive({"re": 4.0, "fs": 60.0}).missing) == {"sd", "bl", "mms", "cms", "rms"}
    assert derive({}).figures == {}


def test_an_impossible_pair_of_q_does_not_derive_nonsense():
    assert "qes" not in derive({"qts": 0.8, "qms": 0.5}).figures


@given(st.floats(20, 200), st.floats(0.2, 1.5), st.floats(1, 12), st.floats(1e-3, 0.2))
def test_derived_figures_satisfy_their_definitions(fs, qes, qms, vas):
    f = derive({"re": 6.0, "sd": 0.02, "fs": fs, "qes": qes, "qms": qms, "vas": vas}).figures
    assert 1 / (2 * pi * sqrt(f["mms"] * f["cms"])) == pytest.approx(fs, rel=1e-9)
    assert 1 / f["qts"] == pytest.approx(1 / qes + 1 / qms, rel=1e-9)
    assert 2 * pi * fs * f["mms"] * 6.0 / f["bl"] ** 2 == pytest.approx(qes, rel=1e-9)
