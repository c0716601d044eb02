"""Invariants of the solver: power, reciprocity, limiting cases, closed forms."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.acoustics.driver import DriverConstants, derive
from firecrest.core.acoustics.openings import OUTSIDE, Port, Radiator
from firecrest.core.acoustics.openings.port import Pipe, pipe_of
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.circuit.elements import Chamber, DriverGroup, Network
from firecrest.core.circuit.solution import output_impedance
from firecrest.core.circuit.solve import solve

F = np.geomspace(10, 1000, 121)
W = 2 * np.pi * F
STIFFNESS = 1.204 * 343.2**2


def driver(le=0.0003, l2=0.001, r2=4.0, **changes):
    figures = derive(
        {"re": 3.4, "sd": 0.0133, "fs": 46.0, "qes": 0.44, "qms": 4.0, "vas": 0.011, **changes}
    ).figures
    return DriverConstants(
        figures["re"],
        le,
        l2,
        r2,
        figures["sd"],
        figures["bl"],
        figures["mms"],
        figures["cms"],
        figures["rms"],
    )


def air(litres, leak=2e-6, absorption=300.0):
    return Chamber(litres * 1e-3 / STIFFNESS, leak, absorption)


PORT = Port(mass=60.0, area=0.002, chamber=0, resistance=400.0, count=2)
RADIATOR = Radiator(mass=0.09, compliance=7e-4, resistance=0.9, area=0.0136, chamber=0, count=2)
SEALED = Network((air(12),), (DriverGroup(driver(), 0),))
VENTED = replace(SEALED, openings=(PORT,))
PASSIVE = replace(SEALED, openings=(RADIATOR,))
BANDPASS = Network(
    (air(12), air(9)), (DriverGroup(driver(), 0, 1),), openings=(replace(PORT, chamber=1),)
)
SHARED = Network(
    (air(12), air(8), air(5)),
    (DriverGroup(driver(), 0), DriverGroup(driver(fs=80.0), 1, OUTSIDE, 1, 2, 1, 2)),
    openings=(PORT, replace(PORT, chamber=1, opens_to=2), replace(RADIATOR, chamber=2)),
    channels=2,
)
LINE = replace(VENTED, openings=(replace(PORT, pipe=Pipe(0.8, 4e-9, 0.05, 0.02)),))
BETWEEN = Chamber(3e-9)
PAIR = Network(
    (air(12), BETWEEN),
    (DriverGroup(driver(), 0, 1, minus=0), DriverGroup(driver(), 1, plus=0)),
    openings=(PORT,),
    nodes=1,
)
ALL = {
    "pipe": LINE,
    "pair in series": PAIR,
    "sealed": SEALED,
    "vented": VENTED,
    "radiator": PASSIVE,
    "bandpass": BANDPASS,
    "three chambers": SHARED,
}


@pytest.mark.parametrize("name", ALL)
def test_electrical_input_is_the_sum_of_all_dissipation(name):
    network = ALL[name]
    s = solve(network, F)
    for k in range(network.channels):
        outputs = next(g.outputs for g in network.drivers if g.channel == k)
        power_in = outputs * np.real(s.output_current[k][k])
        lost = np.zeros(len(F))
        for g, i, v in zip(network.drivers, s.current, s.velocity, strict=True):
            coil = np.real(g.constants.coil_impedance(W))
            lost += g.count * (coil * abs(i[k]) ** 2 + g.constants.r_ms * abs(v[k]) ** 2)
        for c, p in zip(network.chambers, s.pressure, strict=True):
            air_flow = p[k] * (c.admittance(W) - c.leak)
            lost += c.leak * abs(p[k]) ** 2 + c.absorption * abs(air_flow) ** 2
        flows = zip(s.opening_intake, s.opening_flow, strict=True)
        for opening, (into, out) in zip(network.openings, flows, strict=True):
            far = 0 if opening.opens_to == OUTSIDE else s.pressure[opening.opens_to][k]
            near = s.pressure[opening.chamber][k]
            lost += opening.count * np.real(near * np.conj(into[k]) - far * np.conj(out[k]))
        np.testing.assert_allclose(lost, power_in, rtol=1e-9)


def test_reciprocity_between_two_channels():
    """Current induced in channel 2 by a volt in 1 equals that in 1 by a volt in 2."""
    network = Network(
        (air(12), air(8)),
        (DriverGroup(driver(), 0), DriverGroup(driver(fs=70.0, sd=0.02), 1, channel=1)),
        openings=(replace(PORT, opens_to=1),),
        channels=2,
    )
    s = solve(network, F)
    np.testing.assert_allclose(s.current[1][0], s.current[0][1], rtol=1e-9)


def test_sealed_box_matches_its_closed_form():
    """Small (1972): lossless closed box is a second-order high-pass of fc and Qtc."""
    litres = 6.0
    constants = driver(le=0.0, l2=0.0, r2=0.0)
    s = solve(Network((air(litres, 0.0, 0.0),), (DriverGroup(constants, 0),)), F)
    alpha = 0.011 / (litres * 1e-3)
    fc, qtc = 46.0 * np.sqrt(1 + alpha), np.sqrt(1 + alpha) / (1 / 0.44 + 1 / 4.0)
    x = 1j * F / fc
    shape = x**2 / (1 + x / qtc + x**2)
    flat = constants.bl * constants.s_d / (constants.r_e * constants.m_ms)
    np.testing.assert_allclose(1j * W * s.radiated[0], flat * shape, rtol=1e-9)


def test_a_vanishing_port_leaves_a_sealed_box():
    tiny = replace(VENTED, openings=(replace(PORT, mass=1e9),))
    np.testing.assert_allclose(solve(tiny, F).radiated, solve(SEALED, F).radiated, rtol=1e-4)


def test_a_radiator_without_stiffness_is_a_port():
    loose = replace(RADIATOR, compliance=1e6)
    port = Port(loose.mass / loose.area**2, loose.area, 0, loose.resistance / loose.area**2, 2)
    a = solve(replace(SEALED, openings=(loose,)), F)
    b = solve(replace(SEALED, openings=(port,)), F)
    np.testing.assert_allclose(a.radiated, b.radiated, rtol=1e-6)


def test_radiator_notch_lies_at_its_own_resonance():
    lossless = replace(RADIATOR, resistance=0.0)
    fp = 1 / (2 * np.pi * np.sqrt(lossless.mass * lossless.compliance))
    near = np.linspace(0.8 * fp, 1.2 * fp, 2001)
    s = solve(replace(SEALED, openings=(lossless,)), near)
    dip = near[np.argmin(np.abs(s.radiated[0] + s.leaked[0]))]
    assert dip == pytest.approx(fp, rel=1e-3)


def test_vented_slope_below_tuning_is_24_db_per_octave():
    low = np.array([3.0, 6.0])
    lossless = Network(
        (air(12, 0.0, 0.0),), (DriverGroup(driver(), 0),), openings=(replace(PORT, resistance=0.0),)
    )
    p = np.abs(low * solve(lossless, low).radiated[0])
    assert 20 * np.log10(p[1] / p[0]) == pytest.approx(24.1, abs=0.8)


def test_two_drivers_in_twice_the_air_give_6_db_more():
    double = Network(
        (air(24, 4e-6, 150.0),),
        (DriverGroup(driver(), 0, in_parallel=2),),
        openings=(replace(RADIATOR, count=4),),
    )
    ratio = solve(double, F).radiated / solve(PASSIVE, F).radiated
    np.testing.assert_allclose(ratio, 2.0, rtol=1e-9)


def test_series_and_parallel():
    parallel = replace(SEALED, drivers=(DriverGroup(driver(), 0, in_parallel=2),))
    series = replace(SEALED, drivers=(DriverGroup(driver(), 0, in_series=2),))
    a, b = solve(parallel, F), solve(series, F)
    np.testing.assert_allclose(a.radiated, 2 * b.radiated, rtol=1e-9)
    np.testing.assert_allclose(output_impedance(b, 0), 4 * output_impedance(a, 0), rtol=1e-9)


def test_outputs_share_the_box_but_not_the_wire():
    two = replace(SEALED, drivers=(DriverGroup(driver(), 0, outputs=2),))
    parallel = replace(SEALED, drivers=(DriverGroup(driver(), 0, in_parallel=2),))
    a, b = solve(two, F), solve(parallel, F)
    np.testing.assert_allclose(a.radiated, b.radiated, rtol=1e-12)
    np.testing.assert_allclose(2 * a.output_current[0], b.output_current[0], rtol=1e-12)


def test_a_large_chamber_coupled_to_nothing_is_free_air():
    free = solve(Network((air(1e9, 0.0, 0.0),), (DriverGroup(driver(), 0),)), F)
    constants = driver()
    z = constants.coil_impedance(W) + constants.bl**2 / constants.mechanical_impedance(W)
    np.testing.assert_allclose(1 / free.current[0][0], z, rtol=1e-6)


def test_only_ports_radiate_from_a_bandpass_box():
    s = solve(BANDPASS, F)
    np.testing.assert_allclose(s.radiated, 2 * s.opening_flow[0], rtol=1e-12)
    assert not BANDPASS.leaks_count
    assert SEALED.leaks_count


def test_two_chambers_joined_by_a_wide_hole_are_one():
    split = Network(
        (air(7, 0.0, 0.0), air(5, 0.0, 0.0)),
        (DriverGroup(driver(), 0),),
        openings=(Port(1e-6, 0.01, 0, opens_to=1),),
    )
    whole = Network((air(12, 0.0, 0.0),), (DriverGroup(driver(), 0),))
    np.testing.assert_allclose(solve(split, F).radiated, solve(whole, F).radiated, rtol=1e-5)


def test_a_batch_equals_its_designs_one_by_one():
    volumes = np.array([4.0, 9.0, 17.0])
    batch = replace(PASSIVE, chambers=(Chamber(volumes[:, None] * 1e-3 / STIFFNESS, 2e-6, 300.0),))
    together = solve(batch, F)
    for k, v in enumerate(volumes):
        alone = solve(replace(PASSIVE, chambers=(air(v),)), F)
        np.testing.assert_allclose(together.radiated[0, k], alone.radiated[0], rtol=1e-12)
        np.testing.assert_allclose(together.current[0][0, k], alone.current[0][0], rtol=1e-12)


@settings(max_examples=60)
@given(
    st.floats(0.3, 200),
    st.floats(0, 1e-4),
    st.floats(0, 1e5),
    st.floats(1, 1e5),
    st.floats(0, 1e4),
    st.floats(0.001, 2),
    st.floats(1e-5, 1e-2),
)
def test_every_valid_box_has_a_finite_answer(litres, leak, absorption, mass, loss, moving, soft):
    network = Network(
        (air(litres, leak, absorption),),
        (DriverGroup(driver(le=0.0, l2=0.0, r2=0.0), 0),),
        openings=(Port(mass, 0.002, 0, loss), Radiator(moving, soft, 0.0, 0.0136, 0)),
    )
    s = solve(network, F)
    for value in (s.radiated, s.current[0], s.velocity[0], s.pressure[0], s.opening_flow[0]):
        assert np.all(np.isfinite(value))


def test_a_short_pipe_is_a_lump_and_a_long_one_resonates():
    """Open pipe between two pressures: half waves fit at c/(2 L), there it passes everything."""
    length, area = 0.3, 0.002
    pipe = pipe_of(length, 0.0, area, 0.025, DATA_SHEET_AIR)
    port = Port(DATA_SHEET_AIR.density * length / area, area, 0, pipe=pipe)
    smooth, lump = (
        replace(port, pipe=replace(pipe, viscous=0.0, thermal=0.0)),
        replace(port, pipe=None),
    )
    low = 2 * np.pi * np.array([5.0, 20.0])
    for a, b in zip(smooth.admittances(low), lump.admittances(low), strict=True):
        np.testing.assert_allclose(a, b, rtol=0.005, atol=1e-12)
    f = np.linspace(400, 700, 3001)
    _, through = port.admittances(2 * np.pi * f)
    assert f[np.argmax(np.abs(through))] == pytest.approx(343.2 / (2 * length), rel=0.01)


def test_an_isobaric_pair_in_half_the_air_is_one_driver():
    """Vas/2: two cones that move as one, in half the air and at half the voltage in series."""
    single = Network((air(12, 2e-6, 0.0),), (DriverGroup(driver(), 0),))
    pair = Network(
        (air(6, 1e-6, 0.0), Chamber(0.0)), (DriverGroup(driver(), 0, 1), DriverGroup(driver(), 1))
    )
    one, two = solve(single, F), solve(pair, F)
    np.testing.assert_allclose(two.velocity[0], two.velocity[1], rtol=1e-6)
    twice = replace(single, chambers=(air(12, 2e-6, 0.0),))
    np.testing.assert_allclose(two.radiated, solve(twice, F).radiated, rtol=1e-6)
    inner, outer = pair.drivers
    series = replace(pair, drivers=(replace(inner, minus=0), replace(outer, plus=0)), nodes=1)
    np.testing.assert_allclose(2 * solve(series, F).radiated, one.radiated, rtol=1e-6)
    ratio = output_impedance(solve(series, F), 0) / output_impedance(two, 0)
    np.testing.assert_allclose(ratio, 4.0, rtol=1e-6)


def test_a_pair_in_series_matches_its_circuit_written_out():
    """Unknowns va, vb, i and both pressures, solved as one system without any reduction."""
    s, g = solve(PAIR, F), PAIR.drivers[0].constants
    for k, w in enumerate(W):
        one = np.array([w])
        ze, zm = g.coil_impedance(one)[0], g.mechanical_impedance(one)[0]
        rear = PAIR.chambers[0].admittance(one)[0] + PORT.admittances(one)[0][0]
        between = BETWEEN.admittance(one)[0]
        rows = [
            [g.bl, g.bl, 2 * ze, 0, 0],
            [zm, 0, -g.bl, -g.s_d, g.s_d],
            [0, zm, -g.bl, 0, -g.s_d],
            [g.s_d, 0, 0, rear, 0],
            [-g.s_d, g.s_d, 0, 0, between],
        ]
        va, vb, i, p, q = np.linalg.solve(np.array(rows), [1, 0, 0, 0, 0])
        found = [s.velocity[0], s.velocity[1], s.current[0], s.pressure[0], s.pressure[1]]
        np.testing.assert_allclose([x[0, k] for x in found], [va, vb, i, p, q], rtol=1e-9)
        np.testing.assert_allclose(s.current[1][0, k], i, rtol=1e-9)


def test_slowing_everything_down_shifts_the_curve_and_nothing_else():
    """Scaling law: all masses, compliances and inductances times k give v(f/k)."""
    k = 1.7

    def slower(network):
        drivers = tuple(
            replace(
                d,
                constants=replace(
                    d.constants,
                    l_e=k * d.constants.l_e,
                    l_2=k * d.constants.l_2,
                    m_ms=k * d.constants.m_ms,
                    c_ms=k * d.constants.c_ms,
                ),
            )
            for d in network.drivers
        )

        def heavier(opening):
            if isinstance(opening, Port):
                return replace(opening, mass=k * opening.mass)
            return replace(opening, mass=k * opening.mass, compliance=k * opening.compliance)

        return replace(
            network,
            drivers=drivers,
            chambers=tuple(replace(c, compliance=k * c.compliance) for c in network.chambers),
            openings=tuple(heavier(o) for o in network.openings),
        )

    for name in ("radiator", "bandpass", "three chambers", "pair in series"):
        slow, fast = solve(slower(ALL[name]), F / k), solve(ALL[name], F)
        np.testing.assert_allclose(slow.radiated, fast.radiated, rtol=1e-9)


@settings(max_examples=40)
@given(st.data())
def test_reciprocity_holds_in_any_box_of_two_channels(data):
    """What a volt on one channel does to the current of the other is the same both ways."""
    positive = st.floats(0.3, 3.0)
    a, b, c, d = (data.draw(positive) for _ in range(4))
    pipe = data.draw(st.sampled_from([None, Pipe(0.7, 3e-9, 0.07, 0.03)]))
    network = Network(
        (air(10 * a), air(6 * b)),
        (DriverGroup(driver(), 0), DriverGroup(driver(fs=60 * c), 1, 0, 1)),
        openings=(replace(PORT, mass=60 * d, opens_to=1, pipe=pipe), replace(PORT, chamber=1)),
        channels=2,
    )
    s = solve(network, F)
    np.testing.assert_allclose(s.current[1][0], s.current[0][1], rtol=1e-7, atol=1e-15)
