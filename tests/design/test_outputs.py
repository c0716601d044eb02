"""Which outputs carry which channel: dealt out, named, refused with a reason."""

import dataclasses

import pytest

from firecrest.core.errors import DesignError
from firecrest.design.amplifiers import Amplifier, Claim, OutputKind
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.outputs import carried, output_kinds
from firecrest.design.power import FittedAmplifier, FittedDsp
from firecrest.design.sources import Converter
from firecrest.design.voice import Channel

CLAIM = (Claim(power=15, load=4, supply=19),)
THREE = FittedAmplifier(
    part=Amplifier(
        name="Sedge 2x15+30",
        claims=CLAIM,
        channels=2,
        bridged=False,
        other_outputs=(OutputKind(claims=CLAIM, channels=1),),
    )
)
TWO = FittedAmplifier(id="second", part=Amplifier(name="Sedge 2x15", claims=CLAIM, channels=2))


def test_outputs_are_dealt_out_in_order_to_those_that_name_none():
    assert output_kinds(THREE) == [0, 0, 1]
    sides = [Channel(id=n) for n in ("left", "right")]
    assert carried([THREE], [*sides, Channel(id="sub")]) == ([(0, 0, 0), (0, 0, 1), (0, 1, 2)], [])
    first = [Channel(id="sub", first=3), *sides]
    assert carried([THREE], first)[0] == [(0, 1, 2), (0, 0, 0), (0, 0, 1)]
    pair = [Channel(id="sub", board="second"), Channel(id="pair", outputs=2)]
    assert carried([THREE, TWO], pair)[0] == [(1, 0, 0), (0, 0, 0)]


@pytest.mark.parametrize(
    ("channels", "words"),
    [
        ([Channel(outputs=4)], "the voice uses 4 outputs, Sedge 2x15\\+30 has 3"),
        ([Channel(outputs=3)], "has no 3 equal outputs left for voice channel all"),
        ([Channel(outputs=2, first=2)], "outputs 2 to 3 of Sedge 2x15\\+30 are not there, unlike"),
        ([Channel(id="a", first=1), Channel(id="b", first=1)], "or in use"),
        ([Channel(board="third")], "no amplifier board third"),
    ],
)
def test_what_cannot_be_dealt_out_is_said(channels, words):
    found, problems = carried([THREE], channels)
    assert len(found) < len(channels)
    with pytest.raises(AssertionError, match=words):
        raise AssertionError(problems[0])


def test_boards_rails_and_a_dsp_must_hang_together(slipway):
    power = slipway.power
    for wrong, words in (
        ((power.boards[0],), "at least 2"),
        ((power.boards[0], power.boards[0]), "two boards have the id amplifier"),
        ((power.boards[0], TWO), "one DSP board"),
        ((FittedDsp(part=power.dsp), FittedDsp(id="d", part=power.dsp)), "one DSP board"),
        ((dataclasses.replace(power.boards[0], rail="boost"), power.boards[1]), "no rail boost"),
    ):
        with pytest.raises(DesignError, match=words):
            replace_at(slipway, ("power", "boards"), wrong)
    boost = Converter(id="boost", output_voltage=24.0)
    boards = (dataclasses.replace(power.boards[0], rail="boost"), power.boards[1])
    made = replace_at(slipway, ("power",), rebuilt(power, boards=boards, converters=(boost,)))
    assert made.power.amplifiers[0][1].rail == "boost"
