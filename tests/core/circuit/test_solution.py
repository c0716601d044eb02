"""Answers of a solved network: parts of them, sources, loads."""

import numpy as np
import pytest

from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.circuit.mouths import mouths_of
from firecrest.core.circuit.solution import output_impedance, sources
from firecrest.core.circuit.solve import solve
from tests.core.circuit.test_solve import BANDPASS, PAIR, SEALED, VENTED, F


@pytest.mark.parametrize("network", [VENTED, PAIR, BANDPASS])
def test_the_answers_to_channels_are_those_of_a_network_without_sites(network):
    mouths = mouths_of(network, [1.5] * len(network.openings), DATA_SHEET_AIR)
    drivers = tuple(range(len(network.drivers)))
    whole = solve(network, F, mouths, drivers, drivers)
    own, alone = whole.of(slice(network.channels)), solve(network, F)
    assert len(whole.pressure[0]) == network.channels + len(mouths) + 2 * len(drivers)
    for name in ("pressure", "velocity", "current", "output_current", "opening_flow"):
        for a, b in zip(getattr(own, name), getattr(alone, name), strict=True):
            np.testing.assert_allclose(a, b, rtol=1e-12)
    np.testing.assert_allclose(own.radiated, alone.radiated, rtol=1e-12)


def test_what_radiates_adds_up_and_nothing_inside_does():
    s = solve(VENTED, F)
    found = sources(VENTED, s.velocity, s.opening_flow)
    assert [x.kind for x in found] == ["cone", "opening"]
    np.testing.assert_allclose(sum(x.flow for x in found), s.radiated, rtol=1e-12)
    inner = solve(BANDPASS, F)
    kinds = [x.kind for x in sources(BANDPASS, inner.velocity, inner.opening_flow)]
    assert kinds == ["opening"]


def test_the_load_on_an_output_is_one_over_its_current():
    s = solve(SEALED, F)
    np.testing.assert_allclose(output_impedance(s, 0) * s.output_current[0][0], 1.0)
