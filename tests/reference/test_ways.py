"""Six sets of measured ways: arrivals, levels, delays, sums and fans: independent results."""

from math import inf

import numpy as np
import pytest

from firecrest.core.voice.alignment import (
    Pair,
    best_delay,
    delays_of,
    gains_of,
    half_turns,
    offset_in,
    tracking,
)
from firecrest.core.voice.chain import Filter, chain_responses
from firecrest.core.voice.directivity import power_average
from firecrest.core.voice.phase import arrival, from_geometry, path_to, tails_of
from firecrest.core.voice.response import REFERENCE, principal
from tests.reference.voice import block_of, curve, data


class Ways:
    """One set with its curves; levels alone get their phase from the places of the ways."""

    def __init__(self, name):
        self.set = data(f"sets/{name}.json")
        self.task, self.answers = self.set["task"], self.set["answers"]
        self.names = [way["name"] for way in self.set["ways"]]
        self.rate, self.speed = float(self.task["rate"]), self.set["air"]["c"]
        self.curves = {
            (way["name"], float(angle)): self._curve(way, float(angle), file)
            for way in self.set["ways"]
            for angle, file in way["files"].items()
        }
        self.f = self.curves[self.names[0], 0.0].frequency
        bands = self.task["arrival_bands_hz"]
        self.arrivals = {n: arrival(self.curves[n, 0.0], *bands[n]) for n in self.names}

    def _curve(self, way, angle, file):
        found = curve(f"sets/{file}")
        if found.phase is None:
            found = from_geometry(found, path_to(way["place_m"], 1.0, angle), 1.0, self.speed)
        return found

    def way(self, name, gain, blocks, angle=0.0, inverted=False, delay=0.0):
        def _pressure(f):
            chain = chain_responses(gain, inverted, blocks, f, self.rate, delay)[-1]
            return self.curves[name, angle].at(f) * chain

        return _pressure

    def stated(self, name, angle=0.0):
        chain = self.task["chain"][name]
        blocks = [block_of(block) for block in chain["blocks"]]
        delay = chain["delay_ms"] / 1e3
        return self.way(name, chain["gain_db"], blocks, angle, chain["inverted"], delay)

    def pairs(self, way):
        for crossover in self.task["crossovers"]:
            low, high = crossover["lower"], crossover["higher"]
            yield crossover, Pair(self.f, way(low), way(high))


@pytest.fixture(scope="module", params=["V1", "V2", "V3", "V4", "V5", "V6"])
def ways(request):
    return Ways(request.param)


def level(pressure):
    return 20 * np.log10(np.abs(pressure) / REFERENCE)


def test_arrivals_and_offsets(ways):
    first = ways.arrivals[ways.names[0]].delay
    for name in ways.names:
        found, made = ways.arrivals[name], ways.set["made_with"]
        tails = tails_of(ways.curves[name, 0.0])
        assert [tails.low, tails.high] == pytest.approx(
            ways.answers["tails_db_per_octave"][name], abs=1e-5
        )
        ms, samples, mm = offset_in(found.delay - first, ways.rate, ways.speed)
        assert found.delay * 1e3 == pytest.approx(ways.answers["arrival_ms"][name], abs=5e-4)
        assert ms == pytest.approx(ways.answers["offset_ms"][name], abs=5e-4)
        assert mm == pytest.approx(ways.answers["offset_mm"][name], abs=0.17)
        assert samples == pytest.approx(ms * ways.rate / 1e3)
        assert ms == pytest.approx(made["offset_ms"][name], abs=0.012)
        assert found.inverted == ways.answers["arrived_inverted"][name]
        assert not found.doubtful


def test_levels_delays_and_polarities_found(ways):
    bands = ways.task["level_match_bands_hz"]
    levels = [ways.curves[n, 0.0].mean(*bands[n]) for n in ways.names]
    gains = dict(zip(ways.names, gains_of(levels), strict=True))
    assert gains == pytest.approx(ways.answers["level_match_gain_db"], abs=1e-3)
    blocks = {name: [] for name in ways.names}
    for c in ways.task["crossovers"]:
        made = {"frequency": c["frequency"], "family": c["family"], "order": c["order"]}
        blocks[c["lower"]].append(Filter("low_pass", **made))
        blocks[c["higher"]].append(Filter("high_pass", **made))
    settings = []
    pairs = ways.pairs(lambda name: ways.way(name, gains[name], blocks[name]))
    for (crossover, pair), answer in zip(pairs, ways.answers["pairs"], strict=True):
        lower, higher = crossover["lower"], crossover["higher"]
        start = ways.arrivals[lower].delay - ways.arrivals[higher].delay
        quadrature = half_turns(crossover["family"], crossover["order"])
        found = best_delay(pair, crossover["frequency"], start, quadrature)
        settings.append(found.best)
        assert found.criterion == answer["criterion"]
        assert start * 1e3 == pytest.approx(answer["arrival_match_ms"], abs=5e-4)
        assert found.best.delay * 1e3 == pytest.approx(answer["best_delay_ms"], abs=1e-3)
        assert found.best.inverted == answer["higher_turned"]
        worth = answer.get("mean_sum_db", -answer.get("deviation_db", -inf))
        if found.criterion == "flattest":
            worth = -answer["deviation_db"]
        assert found.best.worth == pytest.approx(worth, abs=1e-3)
        if "phase_match_delay_ms" in answer:
            match = found.phase_match
            assert match.delay * 1e3 == pytest.approx(answer["phase_match_delay_ms"], abs=1e-3)
            assert np.degrees(match.worth) == pytest.approx(answer["phase_match_rms_deg"], abs=0.02)
        other = found.runner_up
        assert other.delay * 1e3 == pytest.approx(answer["runner_up"]["delay_ms"], abs=1e-3)
        assert other.inverted == answer["runner_up"]["higher_turned"]
    delays, turned = delays_of(settings)
    for name, delay, turn in zip(ways.names, delays, turned, strict=True):
        assert delay * 1e3 == pytest.approx(ways.answers["delays_ms"][name], abs=1e-3)
        assert turn == ways.answers["turned"][name]


def test_the_stated_chain_sums_on_and_off_the_axis(ways):
    wanted = ways.answers["of_stated_chain"]
    angles = sorted({angle for _, angle in ways.curves})
    sums = {a: sum(ways.stated(n, a)(ways.f) for n in ways.names) for a in angles}
    np.testing.assert_allclose(level(sums[0.0]), wanted["sum_level_db"], rtol=0, atol=1e-3)
    turn = principal(np.angle(sums[0.0]) - np.radians(wanted["sum_phase_deg"]))
    assert np.degrees(np.max(np.abs(turn))) < 0.02
    np.testing.assert_allclose(level(sums[30.0]), wanted["sum_level_30_db"], rtol=0, atol=1e-3)
    average = level(power_average(sums))
    np.testing.assert_allclose(average, wanted["power_average_db"], rtol=0, atol=1e-3)


def test_how_the_stated_ways_follow_each_other(ways):
    rows = ways.answers["of_stated_chain"]["pairs"]
    for (crossover, pair), row in zip(ways.pairs(ways.stated), rows, strict=True):
        found = tracking(pair, crossover["frequency"])
        deep = row["reverse_null_db"] > 40
        bound = {"rel": 0.01} if deep else {"abs": 0.05}
        assert found.null == pytest.approx(row["reverse_null_db"], **bound)
        assert found.null_frequency == pytest.approx(row["reverse_null_hz"], rel=2e-3)
        assert np.degrees(found.difference_max) == pytest.approx(
            row["phase_difference_max_deg"], abs=0.02
        )
        assert np.degrees(found.difference_rms) == pytest.approx(
            row["phase_difference_rms_deg"], abs=0.02
        )
        assert found.loss == pytest.approx(row["worst_sum_loss_db"], abs=2e-3)
