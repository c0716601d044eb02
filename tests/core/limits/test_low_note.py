"""The held-note check and its cure."""

import numpy as np
import pytest

from firecrest.core.limits.elements import Limit
from firecrest.core.limits.low_note import held_notes, low_note, low_note_of
from firecrest.core.limits.programme import PROGRAMMES

F = np.geomspace(10, 1000, 241)


def limit(name, factor, code="C"):
    return Limit(name, code, np.asarray(factor, dtype=float))


def checked(limits, drive, programme, corner):
    found = low_note(held_notes(F, programme, corner), limits, drive)
    return None if found is None else low_note_of(found, limits)


def test_low_note_needs_the_high_pass_it_names():
    music = PROGRAMMES["music"]
    cone = limit("cone", (F / 20) ** 2)
    result = checked([cone], 8.0, music, 60.0)
    assert not result.passed
    assert result.high_pass is not None
    x4 = (F / result.high_pass) ** 4
    cured = limit("cone", cone.factor / np.sqrt(x4 / (1 + x4)))
    after = checked([cured], 8.0, music, 60.0)
    assert after.margin == pytest.approx(0.0, abs=0.02)
    hopeless = limit("cone", np.full(241, 1e-3))
    assert checked([hopeless], 8.0, music, 60.0).high_pass is None


def test_low_note_allows_what_the_programme_does_not_contain():
    strict = checked([limit("cone", F / 40)], 1.0, PROGRAMMES["pink"], 50.0)
    gentle = checked([limit("cone", F / 40)], 1.0, PROGRAMMES["music"], 50.0)
    assert gentle.margin > strict.margin
    assert checked([limit("swing", F, "V")], 1.0, PROGRAMMES["pink"], 50.0) is None
    sine = checked([limit("cone", F / 40)], 1.0, PROGRAMMES["sine"], 50.0)
    assert sine.frequency == 100.0


@pytest.mark.parametrize("shared", [False, True], ids=["own limits", "the same limits"])
def test_columns_of_designs_are_checked_each_by_itself(shared):
    rng = np.random.default_rng(5)
    factors = np.exp(rng.normal(0, 0.4, (2, 20, 241))) * (F / 30)
    limits = [limit("cone", factors[0]), limit("port", factors[1], "U")]
    if shared:
        limits = [limit("cone", factors[0][0]), limit("port", factors[1][0], "U")]
    drive, corner = rng.uniform(0.2, 2, (20, 1)), rng.uniform(30, 80, (20, 1))
    many = low_note(held_notes(F, PROGRAMMES["music"], corner), limits, drive)
    for k in range(20):
        own = [limit(x.name, np.atleast_2d(x.factor)[0 if shared else k], x.code) for x in limits]
        one = checked(own, float(drive[k, 0]), PROGRAMMES["music"], float(corner[k, 0]))
        found = low_note_of(many, limits, k)
        assert found.margin == pytest.approx(one.margin)
        assert found.frequency == pytest.approx(one.frequency)
        assert found.by_part.keys() == one.by_part.keys()
        assert (found.high_pass is None) == (one.high_pass is None)
        if one.high_pass is not None:
            assert found.high_pass == pytest.approx(one.high_pass)
