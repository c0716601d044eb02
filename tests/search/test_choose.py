"""Choosing for a brief: many at once equals one by one, tuned as well as a patient hand would."""

import dataclasses
import random

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.memo import Memo
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.present.text.notes import said
from firecrest.proposals.fitting import fit_of
from firecrest.proposals.layouts import with_kind
from firecrest.proposals.placing import half_voltage, host, path_of, put
from firecrest.proposals.tunings import best_tunings, tuning_path
from firecrest.search.choose import Candidate, choose, rank, ranked, take
from firecrest.shelf.stock import shipped_entries

ENTRIES = shipped_entries()
BY_ID = {e.id: e for e in ENTRIES}
CONES = [
    e.part
    for e in ENTRIES
    if e.kind == "driver" and "tweeter" not in e.part.kind and e.part.sd is not None
]


def candidates(count):
    """Made-up drivers between the shipped ones."""
    rng = random.Random(7)
    made = []
    for k in range(count):
        part = CONES[k % len(CONES)]
        other = dataclasses.replace(
            part,
            name=f"{part.name} {k}",
            fs=part.fs * rng.uniform(0.97, 1.03),
            xmax=part.xmax * rng.uniform(0.7, 1.4),
            pe=part.pe * rng.uniform(0.7, 1.4),
            price=part.price * rng.uniform(0.5, 1.5),
            mms=None,
            cms=None,
            bl=None if part.qes else part.bl,
            vas=part.vas or 0.005,
        )
        made.append(Candidate(str(k), other))
    return made


def everything(design, found, **how):
    return [outcome for some in choose(design, found, **how) for outcome in some]


def test_the_top_five_of_five_hundred_equal_one_by_one(slipway):
    found = candidates(500)
    batch = ranked(everything(slipway, found))
    alone = []
    for candidate in found:
        design = put(slipway, candidate.part)
        a = assess(design)
        shorts = [p for p in a.promises if p.state == "short"]
        missed = sum(p.wish_missed for p in shorts)
        unknown = any(p.state == "unknown" for p in a.promises)
        fits = fit_of(slipway, design, candidate.part).fits is False
        key = (float(unknown), float(fits), len(shorts) - missed, missed, a.cabinet.price)
        alone.append((key, candidate.id, a))
    alone.sort(key=lambda item: item[0])
    assert [o.id for o in batch[:5]] == [id for _, id, _ in alone[:5]]
    for outcome, (_, _, a) in zip(batch[:5], alone[:5], strict=True):
        assert outcome.figures.loudness == pytest.approx(a.promise("loudness").predicted, abs=1e-9)
        assert outcome.figures.bass_reach == pytest.approx(a.promise("bass").predicted, abs=1e-9)
        hours = a.promise("runtime").predicted / 3600
        assert outcome.figures.hours == pytest.approx(hours, rel=1e-9)
        states = [p.state for p in a.promises]
        assert [p.state for p in outcome.figures.promises] == states
        limit = a.acoustic.top
        assert outcome.figures.codes == limit.codes()
        assert outcome.figures.code in outcome.figures.codes


@pytest.mark.parametrize("kind", ["radiators", "port"])
def test_tuning_again_is_as_good_as_fifty_tried_by_hand(slipway, kind):
    base = with_kind(slipway, kind)
    rng = random.Random(11)
    found = rng.sample(candidates(200), 12)
    for outcome in everything(base, found, retune=True):
        path = tuning_path(outcome.design.box.openings)
        span = np.linspace(0.0, 0.2, 50) if kind == "radiators" else np.geomspace(0.02, 0.9, 50)
        best = -np.inf
        for value in span:
            try:
                loud = assess(set_number(outcome.design, path, float(value))).promise("loudness")
            except FirecrestError:
                continue
            best = max(best, loud.predicted or -np.inf)
        assert outcome.figures.loudness >= best - 0.1, outcome.id


def test_tuning_again_keeps_losses_and_sag_as_the_design_has_them(slipway):
    sagging = replace_at(slipway, ("box", "openings", 0, "horizontal"), True)
    leaky = replace_at(sagging, ("box", "chambers", 0, "leak_resistance"), 2e6)
    for design in (sagging, leaky):
        (tuned,) = best_tunings([design], Memo())
        before, after = (assess(d).promise("loudness").predicted for d in (design, tuned))
        assert after >= before - 1e-9


def test_a_closed_box_and_a_driver_without_data_stay_as_they_are(slipway, blank):
    assert tuning_path(blank.box.openings) is None
    assert best_tunings([blank], Memo()) == [blank]
    unknown = put(slipway, BY_ID["salvaged-150"].part)
    assert best_tunings([unknown], Memo()) == [unknown]
    (outcome,) = everything(slipway, [Candidate("x", BY_ID["salvaged-150"].part)], retune=True)
    assert said(outcome.figures.missing) == "needs Re of Salvaged, Ø 150"
    assert outcome.figures.promises[0].state == "unknown"
    assert rank(outcome)[0] == 1


def test_results_come_some_at_a_time_and_in_order(slipway):
    found = candidates(30)
    parts = list(choose(slipway, found, chunk=8))
    assert [len(p) for p in parts] == [8, 8, 8, 6]
    assert [o.id for p in parts for o in p] == [c.id for c in found]


def test_taking_one_is_the_design_that_was_shown(slipway):
    candidate = Candidate("rowan-r16l", BY_ID["rowan-r16l"].part)
    (outcome,) = everything(slipway, [candidate], retune=True)
    label, design = take(slipway, candidate, "Radiator", retune=True)
    assert label == "Radiator: Rowan R16L"
    assert design == outcome.design
    assert design.box.openings[0].radiator.shelf.part == "rowan-r16l"


def test_cells_keep_the_voltage_of_the_pack(slipway):
    for entry in (e for e in ENTRIES if e.kind == "cell"):
        pack = put(slipway, entry.part).power.source
        volts = pack.series * half_voltage(pack.cell)
        wanted = 5 * half_voltage(BY_ID["flint-21"].part)
        assert abs(volts - wanted) <= half_voltage(pack.cell) / 2 + 1e-9
        assert pack.parallel == 2
    other = put(slipway, BY_ID["flint-l26"].part).power.source
    assert (other.series, other.board.cut_off) == (6, pytest.approx(6 * 2.1 * 1.05))


def test_a_plate_amplifier_brings_its_mains_and_a_board_a_pack(slipway):
    plate = put(slipway, BY_ID["sedge-p2x80"].part)
    assert plate.power.source.kind == "mains"
    with pytest.raises(FirecrestError, match="mains supply of its own"):
        put(plate, BY_ID["fen-24-6"].part)
    with pytest.raises(FirecrestError, match="mains supply of its own"):
        put(plate, BY_ID["flint-21"].part)
    assert put(plate, BY_ID["sedge-2x60"].part).power.source.kind == "pack"


def test_what_cannot_be_put_in_says_why(slipway):
    (outcome,) = everything(slipway, [Candidate("x", BY_ID["sedge-1x100"].part)])
    assert outcome.design is None
    assert "the voice uses 2 outputs, Sedge 1x100 has 1" in outcome.refusal
    with pytest.raises(FirecrestError, match="2 outputs"):
        take(slipway, Candidate("x", BY_ID["sedge-1x100"].part), "Amplifier")


def test_every_shelf_part_has_a_design_to_be_looked_at_in(slipway, blank):
    for entry in ENTRIES:
        design = host([slipway, blank], entry.part)
        assert value_at(design, path_of(design, entry.part)) == entry.part


def test_fit_tells_the_reason(slipway, blank):
    def fit(id, design=slipway):
        part = BY_ID[id].part
        return fit_of(design, put(design, part), part)

    assert said(fit("alder-w13-4").reason) == "in place"
    assert said(fit("rowan-r16l").reason) == "same cut-out"
    assert said(fit("rowan-r13").reason) == "adapter ring"
    assert (fit("hornbeam-s30-2x4").fits, fit("rowan-r20").fits) == (False, False)
    assert said(fit("rowan-r20").reason) == "10\u202fmm too wide"
    assert said(fit("flint-l26").reason) == "as 6S 2P"
    assert fit("sedge-p2x80", blank).fits is False
    assert said(fit("fen-b19").reason) == "by volume"
    assert said(fit("rowan-r5", blank).reason) == "new cut-out"
    nameless = dataclasses.replace(BY_ID["rowan-r18"].part, frame=None)
    assert fit_of(slipway, put(slipway, nameless), nameless).fits is None


def test_a_power_bank_runs_empty_and_a_wall_supply_does_not(slipway):
    bank = assess(put(slipway, BY_ID["fen-k27"].part))
    part = BY_ID["fen-k27"].part
    watts = bank.acoustic.runtime.watts["total"]
    assert bank.acoustic.runtime.hours == pytest.approx(part.energy / 3600 / watts, rel=0.02)
    wall = assess(put(slipway, BY_ID["fen-24-6"].part))
    assert wall.promise("runtime").reason == note("wall")
