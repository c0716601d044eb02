"""Amplifier, source, bus and runtime: definitions checked by brute force."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from firecrest.core.limits.bus import (
    average_current_limit,
    collapse_limit,
    mean_bus_current,
    swing_limit,
)
from firecrest.core.limits.draw import PEAK, Draw, Output, programme_draw, rms, sine_draw
from firecrest.core.limits.programme import weights
from firecrest.core.power.amplifier import SINE_AVERAGE, Claim, clipping_power_ratio, read_claims
from firecrest.core.power.runtime import Player, played, runtime_of
from firecrest.core.power.source import CellTable, Converter, Pack, Source, other_load, pack_source

TWO = [Claim(60, 4, 24, 0.1), Claim(33, 8, 24, 0.1)]


def read(**changes):
    return read_claims(
        **{"claims": TWO, "channels": 2, "bridged": True, "idle_current": 0.1, **changes}
    )


def board(**changes):
    return read(**changes).model


def runtime(pack, draw, drive, burst, amplifier, other, converter):
    player = Player(amplifier, other, converter)
    return runtime_of(played(pack, draw, drive, burst, player), pack, draw, drive, player)


def test_clipping_power_by_sampling():
    phase = (np.arange(200000) + 0.5) / 200000 * np.pi / 2
    assert clipping_power_ratio(0.01) == pytest.approx(1.0475, abs=1e-4)
    assert clipping_power_ratio(0.10) == pytest.approx(1.2878, abs=1e-4)
    wave = np.minimum(1.6 * np.sin(phase), 1.0)
    fundamental = 2 * np.mean(wave * np.sin(phase))
    power = np.mean(wave**2)
    thd = np.sqrt(power / (fundamental**2 / 2) - 1)
    assert clipping_power_ratio(float(thd)) == pytest.approx(power / 0.5, rel=1e-4)


def test_two_loads_give_resistance_and_offset():
    amplifier = board()
    assert amplifier.r_out == pytest.approx(0.4105072, rel=1e-5)
    assert amplifier.offset == pytest.approx(2.712171, rel=1e-5)
    for claim in read().claims:
        swing = 24 - amplifier.offset - amplifier.r_out * claim.peak_current
        assert swing == pytest.approx(claim.peak_voltage)


def test_one_load_scales_with_the_bus():
    amplifier = board(claims=TWO[:1])
    claim = read(claims=TWO[:1]).claims[0]
    needed = (claim.peak_voltage + 0.25 * claim.peak_current) * amplifier.swing_factor
    assert needed == pytest.approx(24.0)
    assert (amplifier.r_out, amplifier.offset) == (0.25, 0.0)
    single = read(claims=[Claim(14, 4, 24, 0.1)], bridged=False)
    clean = single.claims[0]
    assert single.model.swing_factor == pytest.approx(
        24 / (clean.peak_voltage + 0.25 * clean.peak_current)
    )


def test_single_ended_swings_half_the_bus():
    single = read(claims=[Claim(14, 4, 24, 0.1), Claim(8, 8, 24, 0.1)], bridged=False)
    amplifier = single.model
    assert amplifier.swing_factor == 2.0
    for claim in single.claims:
        used = 2 * (claim.peak_voltage + amplifier.r_out * claim.peak_current) + amplifier.offset
        assert used == pytest.approx(24.0, rel=1e-6)


def test_impossible_claims_are_called_so():
    found = read(claims=[Claim(100, 8, 12, 0.01)])
    assert found.claims[0].impossible
    assert "more than 12 V can swing" in found.contradictions[0]
    assert not read(claims=[Claim(100, 8, 12, 0.01)], boosted=True).contradictions


def test_claims_that_disagree_are_told_and_taken_as_zero():
    found = read(claims=[Claim(60, 4, 24, 0.1), Claim(20, 8, 24, 0.1)])
    assert found.model.r_out == 0.0
    assert any("disagree" in text for text in found.contradictions)


def test_losses_from_one_efficiency():
    amplifier = board(idle_current=0.11, efficiency=(0.88, 0))
    claim = read().claims[0]
    current = claim.peak_current / PEAK
    power_in = 24 * 0.11 + 2 * (
        claim.power + amplifier.r_out * current**2 + amplifier.loss * 24 * SINE_AVERAGE * current
    )
    assert 2 * claim.power / power_in == pytest.approx(0.88)
    assert board(efficiency=(0.999, 0)).loss == 0.0


def test_own_mains_supply_is_its_largest_swing():
    amplifier = board(claims=[Claim(250, 4, None, 0.01)], own_mains=True)
    assert amplifier.rail == pytest.approx(43.69551, rel=1e-6)


LOADED = Output(np.array([1.0 + 0j]), np.array([0.25 * np.exp(0.7j)]), 2)


def bus_voltage(source, amplifier, draw, g, power):
    """Larger root of V = Voc - R (I_idle + h g + (P_c + power)/V); NaN when there is none."""
    e = source.voltage - source.resistance * (
        amplifier.idle_current + amplifier.loss * PEAK * float(draw.amperes[0]) * g
    )
    under = e * e - 4 * source.resistance * (source.other_power + power)
    return (e + np.sqrt(under)) / 2 if under >= 0 else np.nan


@settings(deadline=None, max_examples=60)
@given(st.floats(8, 30), st.floats(0.0, 1.5), st.floats(0, 8), st.booleans(), st.floats(0, 0.1))
def test_swing_limit_is_where_the_definition_is_first_violated(volts, ohms, other, two, loss):
    amplifier = replace(board(claims=TWO if two else TWO[:1]), loss=loss)
    source = Source(volts, ohms, other)
    draw = sine_draw([LOADED], amplifier.r_out)
    (g,), _ = swing_limit(draw, amplifier, source)

    def holds(drive):
        bus = bus_voltage(source, amplifier, draw, drive, float(draw.peak_power[0]) * drive**2)
        need = PEAK * float(draw.swing[0][0]) * amplifier.swing_factor * drive + amplifier.offset
        return not np.isnan(bus) and need <= bus

    assume(holds(1e-6))
    low, high = 1e-6, 1e4
    for _ in range(200):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if holds(middle) else (low, middle)
    assert g == pytest.approx(low, rel=1e-6)


def test_a_soft_pack_is_blamed_and_a_stiff_one_is_not():
    amplifier, draw = board(), sine_draw([LOADED], 0.41)
    assert swing_limit(draw, amplifier, Source(18.0, 2.0, 1.0))[1].all()
    assert not swing_limit(draw, amplifier, Source(18.0, 0.01, 1.0))[1].any()


@settings(deadline=None, max_examples=60)
@given(st.floats(10, 30), st.floats(0.01, 1.0), st.floats(0, 5), st.floats(0.5, 10))
def test_mean_current_limit_is_met_exactly(volts, ohms, other, amperes):
    amplifier, source = board(), Source(volts, ohms, other)
    draw = sine_draw([LOADED], amplifier.r_out)
    (g,) = average_current_limit(draw, amplifier, source, amperes)
    limit = min(amperes, volts / (2 * ohms))
    assume(g > 0)
    bus = volts - ohms * limit
    drawn = amplifier.idle_current + amplifier.loss * SINE_AVERAGE * draw.amperes[0] * g
    drawn += (draw.mean_power[0] * g**2 + other) / bus
    assert drawn == pytest.approx(limit, rel=1e-9)


def test_a_converter_hides_the_sag_but_not_the_collapse():
    amplifier = board(claims=TWO[:1])
    converter = Converter(24.0, 0.9, 6.0)
    source = Source(7.4, 0.2, 1.0, {"converter input": 6.0}, None, converter)
    draw = sine_draw([LOADED], amplifier.r_out)
    (g,), pack = swing_limit(draw, amplifier, source)
    assert g * PEAK * draw.swing[0][0] * amplifier.swing_factor == pytest.approx(24.0)
    assert pack is None
    (drive,) = collapse_limit(draw, amplifier, source)
    h = amplifier.loss * PEAK * draw.amperes[0]
    taken = (24 * (amplifier.idle_current + h * drive) + draw.peak_power[0] * drive**2) / 0.9 + 1.0
    assert taken == pytest.approx(7.4**2 / (4 * 0.2))
    (limited,) = average_current_limit(draw, amplifier, source, 6.0)
    mean = draw.mean_power[0] * limited**2
    mean += 24 * (0.1 + amplifier.loss * SINE_AVERAGE * draw.amperes[0] * limited)
    assert (mean / 0.9 + 1.0) / (7.4 - 0.2 * 6.0) == pytest.approx(6.0)


@pytest.mark.parametrize("converter", [None, Converter(24.0, 0.9, 6.0)])
def test_the_mean_bus_current_meets_its_limit_exactly_at_the_limit(converter):
    amplifier, source = board(), Source(15.0, 0.2, 1.5, {}, None, converter)
    draw = sine_draw([LOADED], amplifier.r_out)
    for amperes in (0.8, 2.0, 6.0):
        g = average_current_limit(draw, amplifier, source, amperes)
        assert mean_bus_current(draw, amplifier, source, g)[0] == pytest.approx(amperes)
    assert np.isnan(mean_bus_current(draw, amplifier, source, np.array([1e4])))


def test_a_stiff_source_never_collapses():
    draw = sine_draw([LOADED], 0.25)
    source = Source(12.0, 0.0, 1.0, {}, None, Converter(24.0, 0.9))
    assert np.isinf(collapse_limit(draw, board(), source)).all()


def test_peak_power_of_two_outputs_by_sampling():
    outputs = [
        Output(np.array([1.0 + 0.3j]), np.array([0.2 - 0.1j]), 1),
        Output(np.array([0.5 - 0.2j]), np.array([0.1 + 0.15j]), 2),
    ]
    draw = sine_draw(outputs, 0.0)
    turn = np.exp(1j * np.linspace(0, 2 * np.pi, 20001))
    power = sum(
        o.count * 2 * np.real(o.voltage * turn) * np.real(o.current * turn) for o in outputs
    )
    assert draw.peak_power[0] == pytest.approx(power.max(), rel=1e-6)
    assert draw.mean_power[0] == pytest.approx(power[:-1].mean(), rel=1e-6)


TABLE = CellTable((0.0, 0.1, 0.5, 1.0), (2.9, 3.4, 3.7, 4.18), (0.036, 0.026, 0.02, 0.02))
PACK = Pack(TABLE, 14400.0, 12.0, 2.8, 5, 2, 0.012, 20.0, 15.0, 0.02)
FLAT = np.geomspace(20, 20000, 50)


def programme(power=0.2):
    output = Output(np.ones(50) + 0j, np.full(50, power) + 0j, 2)
    return programme_draw(sine_draw([output], 0.4), [output], weights("music", FLAT), False)


def test_cell_tables_are_straight_between_points_and_flat_beyond():
    assert TABLE.voltage_at(0.3) == pytest.approx(3.55)
    assert TABLE.voltage_at(1.5) == pytest.approx(4.18)
    source = pack_source(PACK, 0.5, 1.0, None)
    assert source.voltage == pytest.approx(18.5)
    assert source.resistance == pytest.approx(0.02 * 5 / 2 + 0.012 + 0.02)
    assert source.burst == {"cells": 24.0, "protection board": 20.0}
    assert other_load([(0.9, 0.85), (1.0, 0.5)]) == pytest.approx(0.9 / 0.85 + 2)


def stepped(pack, draw, drive, burst, amplifier, other):
    """Time stepping to the first opened cut-off; hours."""
    charge, seconds, dt = 1.0, 0.0, 4.0
    k = amplifier.loss * draw.average * float(draw.amperes[0])
    mean = float(draw.mean_power[0])

    def bus(scale):
        r = float(pack.resistance(charge))
        e = float(pack.rest_voltage(charge)) - r * (amplifier.idle_current + k * drive * scale)
        power = mean * (drive * scale) ** 2 + other
        v = (e + np.sqrt(e * e - 4 * r * power)) / 2
        return v, amplifier.idle_current + k * drive * scale + power / v

    while charge > 0:
        v, i = bus(10 ** (burst / 20))
        cell = float(TABLE.voltage_at(charge)) - i * float(TABLE.resistance_at(charge)) / 2
        if v + i * pack.lead_resistance < pack.board_cut_off or cell < pack.cell_cut_off:
            break
        charge -= bus(1.0)[1] * dt / pack.total_capacity
        seconds += dt
    return seconds / 3600


@pytest.mark.parametrize("drive", [3.0, 6.0])
def test_runtime_agrees_with_time_stepping(drive):
    result = runtime(PACK, programme(), drive, 6.0, board(), 1.0, None)
    assert result.hours == pytest.approx(
        stepped(PACK, programme(), drive, 6.0, board(), 1.0), rel=5e-3
    )
    assert result.ended_by == "protection board"


def test_more_cells_last_longer_and_louder_lasts_shorter():
    hours = [
        runtime(replace(PACK, parallel=p), programme(), 4.0, 6.0, board(), 1.0, None).hours
        for p in (1, 2, 3)
    ]
    assert hours == sorted(hours)
    louder = [runtime(PACK, programme(), d, 6.0, board(), 1.0, None).hours for d in (1, 3, 9)]
    assert louder == sorted(louder, reverse=True)


def test_which_cut_off_ends_it():
    ends = {
        "cell": replace(PACK, board_cut_off=None, cell_cut_off=3.3),
        "empty": replace(PACK, board_cut_off=None, cell_cut_off=None),
        "amplifier": PACK,
    }
    for name, pack in ends.items():
        cut_off = 17.0 if name == "amplifier" else None
        result = runtime(pack, programme(), 3.0, 6.0, board(cut_off=cut_off), 1.0, None)
        assert result.ended_by == name
    boosted = runtime(
        PACK, programme(), 3.0, 6.0, board(cut_off=17.0), 1.0, Converter(24.0, 0.9, None, 16.0)
    )
    assert boosted.ended_by == "converter"


def test_an_overloaded_pack_plays_not_at_all():
    result = runtime(PACK, programme(), 500.0, 6.0, board(), 1.0, None)
    assert result.hours == 0.0
    assert result.end_charge == 1.0


def test_energy_shares_add_up():
    watts = runtime(PACK, programme(), 4.0, 6.0, board(), 1.0, None).watts
    parts = sum(watts[k] for k in ("audio", "idle", "other", "wires"))
    assert parts == pytest.approx(watts["total"])


def test_rms_of_a_flat_quantity_is_itself():
    assert rms(np.full(50, 3.0), weights("speech", FLAT))[0] == pytest.approx(3.0)
    assert isinstance(programme(), Draw)
