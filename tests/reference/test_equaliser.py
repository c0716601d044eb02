"""Twelve problems of automatic EQ against a brute-force search of long standing."""

import numpy as np
import pytest

from firecrest.core.arrays import decibel
from firecrest.core.voice import targets
from firecrest.core.voice.dips import Dip, dips_of
from firecrest.core.voice.equaliser import Bounds, boost_of, equalise, task_of
from firecrest.core.voice.phase import excess_phase
from tests.reference.voice import curve, data

EQ = data("eq/eq.json")
RATE = float(EQ["rate"])
EDGE = 1.0000001


def target_of(problem, f):
    row = problem["target"]
    return {
        "flat": lambda: targets.flat(f),
        "tilt": lambda: targets.tilt(f, row.get("db_per_octave", 0.8)),
        "warm": lambda: targets.warm(f),
        "points": lambda: targets.through_points(f, row["points"]),
    }[row["kind"]]()


def task_in(problem):
    found = curve(f"eq/{problem['file']}")
    f, rows = found.frequency, problem["boost_ceiling"]
    ceiling = targets.through_points(f, rows) if rows else None
    left_out = [Dip(a, b, a, 0.0, None, None) for a, b in problem.get("do_not_fill_hz", [])]
    bounds = problem["bounds"]
    box = Bounds(tuple(problem["band_hz"]), tuple(bounds["gain"]), tuple(bounds["q"]))
    target = target_of(problem, f)
    return task_of((f, found.level), target, left_out, ceiling, box, RATE, problem["offset_db"])


def rows_of(bands):
    return np.array([(np.log(f), gain, np.log(q)) for f, gain, q in bands])


@pytest.mark.parametrize("problem", EQ["problems"], ids=lambda p: p["id"])
def test_the_problem_is_the_same(problem):
    task, answers = task_in(problem), problem["answers"]
    none = np.zeros(len(task.frequency))
    assert task.rms(none) == pytest.approx(answers["rms_before_db"], abs=5e-4)
    for row in answers["brute_force"].values():
        bands = rows_of([(b["frequency"], b["gain"], b["q"]) for b in row["bands"]])
        assert task.rms(boost_of(task, bands)) == pytest.approx(row["rms_db"], abs=5e-4)


@pytest.mark.parametrize("count", [4, 10])
@pytest.mark.parametrize("problem", EQ["problems"], ids=lambda p: p["id"])
def test_bands_come_near_to_brute_force_within_every_bound(problem, count):
    task = task_in(problem)
    *_, found = equalise(task, count)
    best = problem["answers"]["brute_force"][str(count)]["rms_db"]
    least = 0.9 if count == 4 else 0.8
    assert best / found.rms >= least or found.rms <= best + 0.03
    boost = boost_of(task, rows_of(found.bands))
    assert task.rms(boost) == pytest.approx(found.rms, abs=1e-9)
    assert np.max(boost - task.ceiling) <= 0.01
    assert len(found.bands) <= count
    for f, gain, q in found.bands:
        assert task.band[0] / EDGE <= f <= task.band[1] * EDGE
        assert task.gain[0] - 1e-9 <= gain <= task.gain[1] + 1e-9
        assert task.q[0] / EDGE <= q <= task.q[1] * EDGE


@pytest.mark.parametrize(
    "problem", [p for p in EQ["problems"] if "dips" in p["answers"]], ids=lambda p: p["id"]
)
def test_dips_and_cancellations(problem):
    found, loss = curve(f"eq/{problem['file']}"), None
    if "ways" in problem:
        low, high = (curve(f"eq/{name}").at(found.frequency) for name in problem["ways"])
        loss = decibel(low + high) - decibel(np.abs(low) + np.abs(high))
    band = tuple(problem["band_hz"])
    dips = dips_of(found.frequency, found.level, band, excess_phase(found), loss)
    for dip, row in zip(dips, problem["answers"]["dips"], strict=True):
        assert [dip.low, dip.high, dip.deepest] == [row["from_hz"], row["to_hz"], row["deepest_hz"]]
        assert dip.depth == pytest.approx(row["deepest_db"], abs=0.01)
        assert dip.step == pytest.approx(row["excess_step_deg"], abs=1.0)
        if "worst_sum_loss_db" in row:
            assert dip.loss == pytest.approx(row["worst_sum_loss_db"], abs=0.01)
        assert dip.cancellation == row["cancellation"]
    marked = [[d.low, d.high] for d in dips if d.cancellation]
    assert marked == problem["do_not_fill_hz"]
