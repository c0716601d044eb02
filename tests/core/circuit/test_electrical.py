"""Wire between outputs and coils: resistance, ladders, coils in series and on two outputs."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.acoustics.openings import OUTSIDE, Port, Radiator
from firecrest.core.circuit.electrical import GROUND, Branch, Coil, channel_of, output
from firecrest.core.circuit.elements import DriverGroup, Network
from firecrest.core.circuit.solution import output_impedance
from firecrest.core.circuit.solve import solve
from tests.core.circuit.test_solve import PORT, RADIATOR, SEALED, F, W, air, driver

OUT = output(0)


def behind(resistance, network=SEALED):
    """The network with a resistor between the output and its drivers."""
    drivers = tuple(replace(d, plus=0) for d in network.drivers)
    return replace(network, drivers=drivers, branches=(Branch(OUT, 0, resistance),), nodes=1)


def test_terminals_are_told_apart():
    assert [channel_of(output(k)) for k in range(4)] == [0, 1, 2, 3]
    assert channel_of(GROUND) is channel_of(0) is channel_of(3) is None


def test_no_resistance_is_a_stiff_output():
    stiff, wired = solve(SEALED, F), solve(behind(1e-6), F)
    np.testing.assert_allclose(wired.velocity[0], stiff.velocity[0], rtol=1e-6)
    np.testing.assert_allclose(wired.output_current[0], stiff.output_current[0], rtol=1e-6)


def test_a_resistor_adds_to_the_load_and_acts_like_more_coil_resistance():
    """In series with Re by definition: the same current, whichever of the two it is part of."""
    group = SEALED.drivers[0]
    more = replace(group.constants, r_e=group.constants.r_e + 1.3)
    inside = solve(replace(SEALED, drivers=(replace(group, constants=more),)), F)
    outside = solve(behind(1.3), F)
    np.testing.assert_allclose(outside.velocity[0], inside.velocity[0], rtol=1e-9)
    bare = output_impedance(solve(SEALED, F), 0)
    np.testing.assert_allclose(output_impedance(outside, 0), bare + 1.3, rtol=1e-9)


def test_two_unlike_drivers_in_series_share_one_current():
    """Their loads add: the voltage divides as the impedances each shows in the box."""
    a, b = driver(), driver(fs=90.0, re=3.0)
    network = Network(
        (air(8), air(3)),
        (DriverGroup(a, 0, minus=0), DriverGroup(b, 1, plus=0)),
        openings=(PORT,),
        nodes=1,
    )
    s = solve(network, F)
    np.testing.assert_allclose(s.current[0], s.current[1], rtol=1e-9)
    alone = [
        output_impedance(solve(Network((air(8),), (DriverGroup(a, 0),), (PORT,)), F), 0),
        output_impedance(solve(Network((air(3),), (DriverGroup(b, 0),)), F), 0),
    ]
    np.testing.assert_allclose(output_impedance(s, 0), alone[0] + alone[1], rtol=1e-9)
    np.testing.assert_allclose(s.volts[0][0], alone[1] / (alone[0] + alone[1]), rtol=1e-9)


def test_a_ladder_written_out_by_hand():
    """Capacitor with loss, coil with resistance to ground, resistor into the box's impedance."""
    capacitor = Branch(OUT, 0, 0.4, 0.0, 47e-6)
    coil = Branch(0, GROUND, 0.3, 2.2e-3)
    pad = Branch(0, 1, 1.8)
    network = replace(
        SEALED,
        drivers=(replace(SEALED.drivers[0], plus=1),),
        branches=(capacitor, coil, pad),
        nodes=2,
    )
    s = solve(network, F)
    z = output_impedance(solve(SEALED, F), 0)
    shunt = 0.3 + 1j * W * 2.2e-3
    right = 1 / (1 / shunt + 1 / (1.8 + z))
    series = 0.4 + 1 / (1j * W * 47e-6)
    np.testing.assert_allclose(output_impedance(s, 0), series + right, rtol=1e-9)
    drop = right / (series + right) * z / (1.8 + z)
    np.testing.assert_allclose(s.volts[1][0], drop, rtol=1e-9)
    bare = solve(SEALED, F)
    np.testing.assert_allclose(s.velocity[0][0], drop * bare.velocity[0][0], rtol=1e-9)


def test_two_coils_on_two_outputs_add_their_forces():
    """Driven alike they are one coil of half the resistance; driven against each other nothing."""
    one = driver(le=0.0, l2=0.0, r2=0.0)
    second = Coil(one.r_e, 0.0, one.bl, output(1))
    group = DriverGroup(one, 0, second=second)
    network = Network((air(12),), (group,), (PORT,), channels=2)
    s = solve(network, F)
    halved = replace(one, r_e=one.r_e / 2)
    single = solve(Network((air(12),), (DriverGroup(halved, 0),), (PORT,)), F)
    np.testing.assert_allclose(s.velocity[0].sum(axis=0), single.velocity[0][0], rtol=1e-9)
    against = s.velocity[0][0] - s.velocity[0][1]
    assert np.max(np.abs(against)) < 1e-12
    both = s.current[0].sum(axis=0) + s.second_current[0].sum(axis=0)
    np.testing.assert_allclose(both, single.current[0][0], rtol=1e-9)
    np.testing.assert_allclose(s.output_current[0][1], s.output_current[1][0], rtol=1e-9)


ELEMENTS = st.tuples(st.floats(0.05, 8), st.floats(1e-5, 5e-3), st.sampled_from([None, 1e-5, 2e-4]))


@settings(max_examples=40)
@given(st.data())
def test_power_goes_in_where_it_is_lost_in_any_wired_box(data):
    """Input at the outputs = losses in wire, coils, suspensions, leaks, ports; to 1e-9."""
    first, second, shunt = (data.draw(ELEMENTS) for _ in range(3))
    network = Network(
        (air(9), air(6)),
        (
            DriverGroup(driver(), 0, OUTSIDE, 0, 2, 2, 1, plus=0, minus=1),
            DriverGroup(driver(fs=70.0), 1, 0, 0, plus=1),
        ),
        openings=(replace(PORT, chamber=1), RADIATOR),
        branches=(Branch(OUT, 0, *first), Branch(0, 1, *second), Branch(1, GROUND, *shunt)),
        nodes=2,
    )
    s = solve(network, F)
    power_in = np.real(s.output_current[0][0])
    lost = np.zeros(len(F))
    at = {OUT: np.ones(len(F)), GROUND: np.zeros(len(F)), 0: s.volts[0][0], 1: s.volts[1][0]}
    for branch in network.branches:
        flow = branch.admittance(W) * (at[branch.a] - at[branch.b])
        lost += branch.resistance * np.abs(flow) ** 2
    for g, i, v in zip(network.drivers, s.current, s.velocity, strict=True):
        ohm = np.real(g.constants.coil_impedance(W))
        lost += g.count * (ohm * np.abs(i[0]) ** 2 + g.constants.r_ms * np.abs(v[0]) ** 2)
    for c, p in zip(network.chambers, s.pressure, strict=True):
        into = p[0] * (c.admittance(W) - c.leak)
        lost += c.leak * np.abs(p[0]) ** 2 + c.absorption * np.abs(into) ** 2
    for opening, u in zip(network.openings, s.opening_flow, strict=True):
        size = opening.area if isinstance(opening, Radiator) else 1.0
        lost += opening.count * opening.resistance * np.abs(u[0] / size) ** 2
    np.testing.assert_allclose(lost, power_in, rtol=1e-8, atol=1e-12)


def test_the_library_and_elimination_by_hand_agree(monkeypatch):
    from firecrest.core.circuit import nodes

    network = replace(behind(0.7), openings=(Port(50.0, 0.001, 0), RADIATOR))
    by_hand = solve(network, F)
    monkeypatch.setattr(nodes, "BY_HAND", 0)
    by_library = solve(network, F)
    np.testing.assert_allclose(by_hand.pressure[0], by_library.pressure[0], rtol=1e-10)
    np.testing.assert_allclose(by_hand.volts[0], by_library.volts[0], rtol=1e-10)


def test_columns_of_ladders_equal_one_by_one():
    ohms = np.array([[0.2], [1.0], [5.0]])
    many = solve(behind(ohms), F)
    for k in range(3):
        one = solve(behind(float(ohms[k, 0])), F)
        np.testing.assert_allclose(many.velocity[0][0, k], one.velocity[0][0], rtol=1e-12)
        np.testing.assert_allclose(many.output_current[0][0, k], one.output_current[0][0])


@pytest.mark.parametrize("hertz", [20.0, 80.0, 400.0])
def test_a_wide_pipe_damps_as_kirchhoff_has_it(hertz):
    """1.045 w/(c r_v) nepers a metre, r_v = a sqrt(rho w/mu); drag twice the share of heat."""
    from firecrest.core.acoustics.openings.port import VISCOSITY, pipe_of
    from firecrest.core.air import DATA_SHEET_AIR as AIR

    radius, length, w = 0.02, 0.5, 2 * np.pi * hertz
    pipe = pipe_of(length, 0.0, np.pi * radius**2, radius, AIR)
    layer = (1 - 1j) / np.sqrt(hertz)
    travel = 1j * w / AIR.speed * length
    travel = travel * np.sqrt((1 + pipe.viscous * layer) * (1 + pipe.thermal * layer))
    benade = 1.045 * w / (AIR.speed * radius * np.sqrt(AIR.density * w / VISCOSITY)) * length
    assert np.real(travel) == pytest.approx(benade, rel=0.02)
    assert pipe.thermal / pipe.viscous == pytest.approx(0.4747, rel=1e-3)
