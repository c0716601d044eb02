"""The equations of the bus, checked by brute force on their definitions."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from firecrest.core.limits.bus import (
    average_current_limit,
    collapse_limit,
    converter_input_limit,
    converter_output_limit,
    mean_bus_current,
    swing_limit,
)
from firecrest.core.limits.material import PEAK
from firecrest.core.power.amplifier import SINE_AVERAGE
from firecrest.core.power.boards import Board, Boards, Feed, on_bus
from firecrest.core.power.source import Converter, Source
from tests.core.power.boards import LOADED, TWO, alone, board, bus_of


def voltage_at(bus, g, average, power):
    """Larger root of V = Voc - R (I0 + h g + (P0 + b g + power)/V); NaN when there is none."""
    draw, r = bus.draw, bus.source.resistance
    e = bus.source.voltage - r * (bus.standing.amperes + average * float(draw.amperes) * g)
    taken = bus.standing.watts + average * float(draw.watts) * g + power
    under = e * e - 4 * r * taken
    return (e + np.sqrt(under)) / 2 if under >= 0 else np.nan


def single(bus):
    """The same with plain figures in its draw."""
    flat = {k: float(np.ravel(getattr(bus.draw, k))[0]) for k in ("amperes", "watts")}
    return replace(bus, draw=replace(bus.draw, **flat))


def last_that(holds, top=1e4):
    low, high = 1e-6, top
    for _ in range(200):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low


VOLTS, OHMS, OTHER = st.floats(8, 30), st.floats(0.0, 1.5), st.floats(0, 8)


@settings(max_examples=60)
@given(VOLTS, OHMS, OTHER, st.booleans(), st.floats(0, 0.1), st.booleans())
def test_swing_limit_is_where_the_definition_is_first_violated(volts, ohms, other, two, loss, more):
    """Of a board on the bus, alone or with another one behind a converter."""
    model = replace(board(claims=TWO if two else TWO[:1]), loss=loss)
    boards, outputs = on_bus(Board(model)), (LOADED,)
    if more:
        boards = Boards(
            (Board(model), Board(model, 0)),
            (Converter(9.0, 0.85),),
            (Feed(model, 0), Feed(model, 1)),
        )
        outputs = (LOADED, replace(LOADED, voltage=0.5 * LOADED.voltage * 1j, count=1))
    bus = single(bus_of(Source(volts, ohms), boards, other, outputs))
    (g,), _ = swing_limit(bus, boards, 0)
    swing, peak = float(bus.draw.swing[0][0]), float(bus.draw.peak_power[0])

    def holds(drive):
        now = voltage_at(bus, drive, PEAK, peak * drive**2)
        return not np.isnan(now) and PEAK * swing * model.swing_factor * drive + model.offset <= now

    assume(holds(1e-6))
    assert g == pytest.approx(last_that(holds), rel=1e-6)


def test_a_soft_pack_is_blamed_and_a_stiff_one_is_not():
    boards = alone(board())
    assert swing_limit(bus_of(Source(18.0, 2.0), boards, 1.0), boards, 0)[1].all()
    assert not swing_limit(bus_of(Source(18.0, 0.01), boards, 1.0), boards, 0)[1].any()


@settings(max_examples=60)
@given(st.floats(10, 30), st.floats(0.01, 1.0), st.floats(0, 5), st.floats(0.5, 10), st.booleans())
def test_mean_current_limit_is_met_exactly(volts, ohms, other, amperes, behind):
    boards = alone(board(), Converter(24.0, 0.9) if behind else None)
    bus = bus_of(Source(volts, ohms), boards, other)
    g = average_current_limit(bus, amperes)
    assume(g[0] > 0)
    if amperes < 0.999 * volts / (2 * ohms):
        assert float(mean_bus_current(bus, g)[0]) == pytest.approx(amperes, rel=1e-6)
    else:  # there the bus is about to collapse: a little more, and it has
        assert np.isnan(mean_bus_current(bus, 1.01 * g)[0])


def test_a_converter_hides_the_sag_but_not_the_collapse():
    model, converter = board(claims=TWO[:1]), Converter(24.0, 0.9, 6.0)
    boards = alone(model, converter)
    bus = bus_of(Source(7.4, 0.2), boards, 1.0)
    (g,), pack = swing_limit(bus, boards, 0)
    assert g * PEAK * bus.draw.swing[0][0] * model.swing_factor == pytest.approx(24.0)
    assert pack is None
    (drive,) = collapse_limit(bus)
    h = model.loss * PEAK * 2 * 0.25
    peak = bus.draw.peak_power[0] * 0.9
    taken = (24 * (model.idle_current + h * drive) + peak * drive**2) / 0.9 + 1.0
    assert taken == pytest.approx(7.4**2 / (4 * 0.2))


@settings(max_examples=40)
@given(VOLTS, OHMS, OTHER, st.floats(0.5, 8), st.floats(0, 1))
def test_a_converters_input_current_is_its_own_at_the_voltage_there(
    volts, ohms, other, amperes, idle
):
    converter = Converter(12.0, 0.85, amperes, idle_power=idle)
    model = board()
    boards = Boards((Board(model), Board(model, 0)), (converter,), (Feed(model, 0), Feed(model, 1)))
    bus = single(bus_of(Source(volts, ohms), boards, other, (LOADED, LOADED)))
    own, mean = bus.draw.behind[0], float(bus.draw.mean_power[0])

    def holds(drive):
        now = voltage_at(bus, drive, SINE_AVERAGE, mean * drive**2)
        out = model.idle_current + SINE_AVERAGE * float(own.amperes[0]) * drive
        out += float(own.power[0]) * drive**2 / 12.0
        return not np.isnan(now) and (12.0 * out / 0.85 + idle) / now <= amperes

    assume(holds(1e-6))
    (g,) = converter_input_limit(bus, boards, 0, amperes)
    last = last_that(holds)
    collapsed = np.isnan(voltage_at(bus, last * (1 + 1e-9), SINE_AVERAGE, mean * last**2))
    if np.isinf(g):
        assert collapsed
    else:
        assert g == pytest.approx(last, rel=1e-6)


def test_a_converters_output_current_is_met_exactly():
    boards = alone(board(), Converter(12.0, 0.9))
    bus = bus_of(Source(18.0, 0.1), boards)
    (g,) = converter_output_limit(bus, boards, 0, 2.0)
    own = bus.draw.behind[0]
    out = 0.1 + SINE_AVERAGE * own.amperes[0] * g + own.power[0] * g**2 / 12.0
    assert out == pytest.approx(2.0)


@pytest.mark.parametrize("converter", [None, Converter(24.0, 0.9)])
def test_the_mean_bus_current_is_not_where_the_bus_has_collapsed(converter):
    bus = bus_of(Source(15.0, 0.2), alone(board(), converter), 1.5)
    assert np.isnan(mean_bus_current(bus, np.array([1e4])))


def test_a_stiff_source_never_collapses():
    bus = bus_of(Source(12.0, 0.0), alone(board(), Converter(24.0, 0.9)), 1.0)
    assert np.isinf(collapse_limit(bus)).all()
