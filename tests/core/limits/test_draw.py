"""What signals ask of boards and bus, by sampling."""

import numpy as np
import pytest

from firecrest.core.limits.draw import Draw, Output, draw_of
from firecrest.core.limits.material import HELD_SINE, PROGRAMME, SINES, material_of
from firecrest.core.limits.programme import PROGRAMMES
from firecrest.core.power.boards import Board, Boards, Feed
from firecrest.core.power.source import Converter
from tests.core.power.boards import alone, board, programme

TWO_OUTPUTS = [
    Output(np.array([1.0 + 0.3j]), np.array([0.2 - 0.1j]), 1),
    Output(np.array([0.5 - 0.2j]), np.array([0.1 + 0.15j]), 2),
]


@pytest.mark.parametrize("efficiency", [1.0, 0.8])
def test_peak_power_of_two_outputs_by_sampling(efficiency):
    """The second one behind a converter, which needs 1/efficiency of its power at once."""
    stiff = board()
    boards = Boards(
        (Board(stiff), Board(stiff, 0)),
        (Converter(24.0, efficiency),),
        (Feed(stiff, 0), Feed(stiff, 1)),
    )
    draw = draw_of(TWO_OUTPUTS, boards, HELD_SINE)
    turn = np.exp(1j * np.linspace(0, 2 * np.pi, 20001))
    power = sum(
        o.count
        * 2
        * np.real((o.voltage + stiff.r_out * o.current) * turn)
        * np.real(o.current * turn)
        / share
        for o, share in zip(TWO_OUTPUTS, (1.0, efficiency), strict=True)
    )
    assert draw.peak_power[0] == pytest.approx(power.max(), rel=1e-6)
    assert draw.mean_power[0] == pytest.approx(power[:-1].mean(), rel=1e-6)
    second = TWO_OUTPUTS[1]
    assert draw.behind[0].amperes[0] == pytest.approx(stiff.loss * 2 * abs(second.current[0]))
    lost = 24.0 * draw.behind[0].amperes[0] / efficiency
    assert draw.watts == pytest.approx(lost)
    assert draw.amperes[0] == pytest.approx(stiff.loss * abs(TWO_OUTPUTS[0].current[0]))


def test_audio_is_what_reaches_the_outputs_whatever_the_converter():
    direct, behind = (programme(alone(board(), c)) for c in (None, Converter(24.0, 0.8)))
    assert behind.audio == pytest.approx(direct.audio)
    assert behind.mean_power == pytest.approx(direct.mean_power / 0.8)
    assert isinstance(direct, Draw)


def test_sines_and_programme_part_also_where_nothing_hangs_on_the_bus_or_behind_a_converter():
    stiff, f = board(), np.geomspace(20, 20000, 50)
    boards = Boards((Board(stiff, 0),), (Converter(24.0, 0.9), Converter(5.0, 0.9)), (Feed(stiff),))
    output = Output(np.ones(50) + 0j, np.full(50, 0.2) + 0j, 1)
    draw = draw_of([output], boards, material_of(PROGRAMMES["music"], 0.0, f))
    for places, count in ((SINES, 50), (PROGRAMME, 1)):
        part = draw.of(places)
        for values in (part.amperes, *(x for b in part.behind for x in (b.power, b.amperes))):
            assert values.shape == (count,)
        assert not part.amperes.any()
