"""Starting points against the literature and against the network that judges them."""

import numpy as np
import pytest

from firecrest.core.acoustics import alignments
from firecrest.core.acoustics.driver import DriverConstants, derive
from firecrest.core.acoustics.openings import Port
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.circuit.elements import Chamber, DriverGroup, Network
from firecrest.core.circuit.solve import solve

B4_QTS = 1 / np.sqrt(4 + 2 * np.sqrt(2))
FS, VAS = 40.0, 0.030
F = np.geomspace(8, 800, 400)


def plain_driver(qts):
    """Lossless but for its coil: Qes = Qts, no inductance."""
    figures = derive(
        {"re": 6.0, "sd": 0.02, "fs": FS, "qes": qts * 1.0001, "qms": qts * 1e4, "vas": VAS}
    ).figures
    names = ("sd", "bl", "mms", "cms", "rms")
    return DriverConstants(figures["re"], 0.0, 0.0, 0.0, *(figures[n] for n in names))


def air(volume):
    return Chamber(volume / DATA_SHEET_AIR.stiffness)


def port(volume, tuning, chamber=0):
    mass = 1 / ((2 * np.pi * tuning) ** 2 * volume / DATA_SHEET_AIR.stiffness)
    return Port(mass, 0.002, chamber)


def response(network):
    """Level of the far pressure in dB, shape only."""
    return 20 * np.log10(np.abs(F * solve(network, F).radiated[0]))


def vented(qts, box):
    volume = VAS / box.alpha
    driver = DriverGroup(plain_driver(qts), 0)
    return Network((air(volume),), (driver,), (port(volume, box.h * FS),))


def test_the_butterworth_box_is_that_of_the_literature_and_of_the_network():
    """Thiele (1971): Qts 0.383, alpha sqrt2, h 1; |H|^2 = x^8/(1 + x^8)."""
    box = alignments.quasi_third_order(B4_QTS)
    assert (box.alpha, box.h) == pytest.approx((np.sqrt(2), 1.0), rel=1e-5)
    x = F / FS
    butterworth = 10 * np.log10(x**8 / (1 + x**8))
    shape = response(vented(B4_QTS, box))
    np.testing.assert_allclose(shape - shape[-1], butterworth - butterworth[-1], atol=2e-3)


@pytest.mark.parametrize("qts", [0.22, 0.3, 0.36])
@pytest.mark.parametrize("leak_q", [None, 7.0])
def test_quasi_third_order_has_no_sixth_and_fourth_term(qts, leak_q):
    box = alignments.quasi_third_order(qts, leak_q)
    a1, a2, a3 = alignments.polynomial(box.alpha, box.h, qts, leak_q)
    assert a1**2 - 2 * a2 == pytest.approx(0, abs=1e-6)
    assert a2**2 + 2 - 2 * a1 * a3 == pytest.approx(0, abs=1e-5)
    assert a3**2 - 2 * a2 > 0


def test_quasi_third_order_falls_like_third_order_before_the_fourth():
    box = alignments.quasi_third_order(0.25)
    a1, a2, a3 = alignments.polynomial(box.alpha, box.h, 0.25, None)
    b = np.sqrt(a3**2 - 2 * a2)
    x = np.geomspace(0.2, 20, 200)
    exact = 10 * np.log10(x**8 / (x**8 + b**2 * x**2 + 1))
    np.testing.assert_allclose(alignments.magnitude_db((a1, a2, a3), x), exact, atol=1e-3)


def test_a_driver_of_high_qts_has_no_quasi_third_order_box():
    assert alignments.quasi_third_order(0.5, 7.0) is None


@pytest.mark.parametrize("qts", [0.28, 0.38, 0.5])
def test_the_flattest_box_reaches_lower_than_any_neighbour_without_a_hump(qts):
    box = alignments.flattest(qts, 10.0)

    def edge(alpha, h):
        x = np.geomspace(0.2, 10, 4000)
        db = alignments.magnitude_db(alignments.polynomial(alpha, h, qts, 10.0), x / np.sqrt(h))
        hump = np.max(np.maximum.accumulate(db) - db)
        return x[np.nonzero(db < -alignments.FLAT)[0][-1]] if hump < 0.11 else np.inf

    best = edge(box.alpha, box.h)
    assert np.isfinite(best)
    for da in (0.9, 1.0, 1.1):
        for dh in (0.93, 1.0, 1.07):
            assert best < edge(box.alpha * da, box.h * dh) * 1.01


def test_an_extended_shelf_reaches_lower_at_the_price_of_level():
    flat = alignments.flattest(0.3, 10.0)
    shelf = alignments.extended_shelf(0.3, 10.0, flat.alpha / 2)
    x = np.geomspace(0.2, 5, 2000)

    def curve(box):
        terms = alignments.polynomial(box.alpha, box.h, 0.3, 10.0)
        return alignments.magnitude_db(terms, x / np.sqrt(box.h))

    def lowest(db):
        return x[np.nonzero(db < -6)[0][-1]]

    assert lowest(curve(shelf)) < 0.85 * lowest(curve(flat))
    middle = np.argmin(np.abs(x - 1.4))
    assert curve(shelf)[middle] < curve(flat)[middle] - 0.5


@pytest.mark.parametrize("qtc", [0.5, 0.707, 1.0, 1.2])
def test_closed_boxes_have_the_qtc_they_were_made_for(qtc):
    """Small (1972): |H| at fc is Qtc."""
    qts = 0.4
    volume = alignments.closed_volume(VAS, qts, qtc)
    network = Network((air(volume),), (DriverGroup(plain_driver(qts), 0),))
    fc = FS * np.sqrt(1 + VAS / volume)
    at = np.array([fc, 1e5])
    level = np.abs(at * solve(network, at).radiated[0])
    assert level[0] / level[1] == pytest.approx(qtc, rel=2e-3)
    assert alignments.closed_volume(VAS, qts, 0.35) is None


def test_the_flat_bandpass_is_symmetric_and_has_the_corner_asked_for():
    qts, low = 0.42, 48.0
    box = alignments.flat_bandpass(FS, qts, VAS, low)
    network = Network(
        (air(box.rear), air(box.front)),
        (DriverGroup(plain_driver(qts), 0, 1),),
        (port(box.front, box.tuning, 1),),
    )

    def level(f):
        return 20 * np.log10(np.abs(f * solve(network, f).radiated[0]))

    ratio = np.linspace(1.02, 3.0, 60)
    above, below = level(box.tuning * ratio), level(box.tuning / ratio)
    np.testing.assert_allclose(above, below, atol=5e-3)
    edges = level(np.array([low, box.tuning]))
    assert edges[1] - edges[0] == pytest.approx(3.01, abs=0.01)
    assert np.max(above) <= edges[1] + 5e-3


def test_a_bandpass_is_refused_where_no_rear_chamber_gives_the_corner():
    assert alignments.flat_bandpass(FS, 0.42, VAS, 15.0) is None
