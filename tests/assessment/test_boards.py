"""Several boards on one source: each limits by itself, all of them load it."""

import dataclasses

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.power.truth import FULL
from firecrest.assessment.power.truth import row as truth_row
from firecrest.assessment.vary import vary
from firecrest.design.amplifiers import Amplifier, Claim, OutputKind, Receiver
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.power import FittedAmplifier, FittedReceiver
from firecrest.design.sources import Converter, Pack
from firecrest.design.starts import START_PACK
from firecrest.files.demos import read_demo
from firecrest.present.parts.parts import cards
from firecrest.present.power.currents import current_rows
from firecrest.present.power.power import bus_words
from firecrest.present.power.truth import board_truth
from firecrest.present.text.sentences import field_of_limit

SIDES = Amplifier(
    name="Sedge 2x15",
    claims=(Claim(power=15, load=8, supply=15), Claim(power=26, load=4, supply=15)),
    idle_current=0.06,
    cut_off=8.0,
)
BUCK = Converter(
    id="buck", name="Buck 15", output_voltage=15.0, efficiency=0.94, input_current=8.0,
    output_current=6.0, idle_power=0.15,
)  # fmt: skip


@pytest.fixture(scope="module")
def two_boards():
    """Breakwater's sub on its own board, its sides on a small one behind a converter."""
    design = read_demo("breakwater")
    power = design.power
    boards = (
        *power.boards,
        FittedAmplifier(id="sides", part=SIDES, rail="buck"),
        FittedReceiver(part=Receiver(name="Teal R", power=0.35), rail="buck"),
    )
    source = START_PACK if not isinstance(power.source, Pack) else power.source
    power = rebuilt(power, boards=boards, converters=(BUCK,), source=rebuilt(source, series=6))
    channels = tuple(
        c if c.id == "sub" else rebuilt(c, board="sides") for c in design.voice.channels
    )
    return rebuilt(design, power=power, voice=rebuilt(design.voice, channels=channels))


def names(assessment):
    return [(limit.name, limit.index) for limit in assessment.acoustic.limits]


def test_each_board_and_converter_has_its_limits(two_boards):
    found = names(assess(two_boards))
    assert [x for x in found if x[0] == "swing"] == [("swing", 0), ("swing", 1)]
    assert {"collapse", "converter input", "converter output"} <= {name for name, _ in found}
    assert ("converter input", 0) not in names(assess(read_demo("breakwater")))


def test_the_field_that_moves_a_limit_is_that_of_its_own_board(two_boards):
    a = assess(two_boards)
    paths = {
        (limit.name, limit.index): field_of_limit(a, limit)
        for limit in a.acoustic.limits
        if limit.name in ("amplifier current", "converter input", "full scale")
    }
    places = [k for k, _ in two_boards.power.amplifiers]
    assert paths["amplifier current", 0] == ("power", "boards", places[0], "part", "current_limit")
    assert paths["amplifier current", 1] == ("power", "boards", places[1], "part", "current_limit")
    assert paths["converter input", 0] == ("power", "converters", 0, "input_current")
    assert paths["full scale", 1][2] == two_boards.power.dsp_place


def test_an_idle_board_more_costs_its_idle_current_and_nothing_else(slipway):
    more = FittedAmplifier(id="spare", part=dataclasses.replace(SIDES, cut_off=None))
    boards = (*slipway.power.boards, more)
    with_spare = assess(replace_at(slipway, ("power", "boards"), boards))
    one = assess(slipway)
    idle = slipway.power.boards[0].part.idle_current + SIDES.idle_current
    equal = assess(replace_at(slipway, ("power", "boards", 0, "part", "idle_current"), idle))
    for key in ("loudness", "bass", "runtime"):
        mine, other = with_spare.promise(key).predicted, equal.promise(key).predicted
        assert mine == pytest.approx(other, rel=1e-12)
    assert with_spare.promise("runtime").predicted < one.promise("runtime").predicted
    assert with_spare.cabinet.price == pytest.approx(one.cabinet.price + SIDES.price)


def test_a_lossless_converter_at_the_pack_voltage_leaves_only_its_own_limits(two_boards):
    """What the pack gives runs through it without loss: the same mean power is drawn."""
    perfect = dataclasses.replace(BUCK, efficiency=1.0, idle_power=0.0)
    made = replace_at(two_boards, ("power", "converters"), (perfect,))
    watts = [assess(d).acoustic.runtime.watts for d in (two_boards, made)]
    assert watts[1]["total"] < watts[0]["total"]
    assert watts[1]["audio"] == pytest.approx(watts[0]["audio"])


def test_many_designs_agree_with_one_also_with_two_boards(two_boards):
    path, values = ("power", "converters", 0, "efficiency"), np.array([0.7, 0.94])
    found = vary(two_boards, {path: values})
    for row, value in enumerate(values):
        a = assess(replace_at(two_boards, path, float(value)))
        for many, one in zip(found.promises(row), a.promises, strict=True):
            assert (many.key, many.state) == (one.key, one.state)
            assert many.predicted == pytest.approx(one.predicted, rel=1e-9)
        np.testing.assert_allclose(found.level[row], a.acoustic.top.level, atol=1e-9)


def test_unequal_outputs_swing_by_their_own_claims(slipway):
    """Single-ended outputs beside a bridge-tied one of equal claims: half the swing."""
    claims = (Claim(power=13.0, load=4, supply=19), Claim(power=6.8, load=8, supply=19))
    strong = (Claim(power=44.3, load=4, supply=19), Claim(power=24.7, load=8, supply=19))
    part = Amplifier(
        name="Sedge 2x15+30", claims=claims, channels=2, bridged=False,
        other_outputs=(OutputKind(claims=strong),),
    )  # fmt: skip
    design = replace_at(slipway, ("power", "boards", 0, "part"), part)
    a = assess(design)
    weak, bass = (truth_row(a, 0, kind, 4.0, 1, FULL).found.watts for kind in (0, 1))
    assert 3.2 < bass / weak < 4.6
    on_third = replace_at(design, ("voice", "channels", 0, "outputs"), 1)
    third = replace_at(on_third, ("voice", "channels", 0, "first"), 3)
    louder, softer = (assess(d).acoustic.limits[0].factor for d in (third, on_third))
    assert np.all(louder > softer)
    rows = board_truth(a, 0).rows
    assert list(dict.fromkeys(cells[0] for cells in rows)) == [
        "4 Ω, outputs 1 to 2", "8 Ω, outputs 1 to 2", "4 Ω, output 3", "8 Ω, output 3",
    ]  # fmt: skip


def test_every_board_is_shown(two_boards):
    a = assess(two_boards)
    kinds = [(card.kind, card.name) for card in cards(a)]
    assert kinds.count(("Amplifier", "Sedge 2x15")) == 1
    assert "behind Buck 15" in bus_words(a, 1)
    bears = {row.name: row.bears for row in current_rows(a)}
    assert len({round(v, 6) for k, v in bears.items() if k.startswith("Amp output")}) == 2
