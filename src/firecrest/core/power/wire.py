"""Leads: resistance, what they may carry, gauges, and the wire that a fuse asks for."""

from collections.abc import Sequence
from math import log10, pi

import numpy as np

COPPER = 1.724e-8
"""Ohm m at 20 C (the international annealed copper standard)."""
AREAS = (0.14, 0.25, 0.34, 0.5, 0.75, 1.0, 1.5, 2.5, 4.0, 6.0, 10.0)
"""mm2 that wire is sold in."""
BEARS = (2.0, 4.0, 5.0, 7.0, 9.0, 12.0, 16.0, 22.0, 30.0, 40.0, 55.0)
"""A that each may carry: single insulated copper in still air of 40 C in a case, 30 K warmer. An
estimate; local codes come first.
"""
MM2 = 1e-6
DROP = 0.02
"""Share of the source's voltage that a lead may lose: an estimate."""
ROUNDING = 1e-9
GAUGES = range(26, 4, -2)
"""Gauges that are sold, thin to thick."""
SPEAKER_LOSS = 0.2
"""DB in a speaker lead above which it is worth a word."""


def resistance(length: float, area: float) -> float:
    """Ohm of a lead of ``length`` m, out and back, of ``area`` m2."""
    return 2.0 * length * COPPER / area


def allowed_current(area: float) -> float:
    """A that a wire of ``area`` m2 may carry; straight lines in log-log, the same slope beyond."""
    x, xs, ys = log10(area / MM2), np.log10(AREAS), np.log10(BEARS)
    k = int(np.clip(np.searchsorted(xs, x) - 1, 0, len(xs) - 2))
    slope = (ys[k + 1] - ys[k]) / (xs[k + 1] - xs[k])
    return float(10 ** (ys[k] + slope * (x - xs[k])))


def gauge_area(gauge: int) -> float:
    """m2 of an American wire gauge."""
    diameter = 0.127e-3 * 92 ** ((36 - gauge) / 39)
    return float(pi * diameter**2 / 4)


def closest_gauge(area: float) -> int:
    """The gauge whose area is nearest in ratio."""
    return min(range(37), key=lambda gauge: abs(log10(gauge_area(gauge) / area)))


def bears(area: float, length: float, amperes: float, volts: float, fuse: float) -> bool:
    """Whether a lead loses little enough at ``amperes`` and may carry what its ``fuse`` lets by."""
    drop = amperes * resistance(length, area)
    return drop <= DROP * volts and allowed_current(area) >= fuse * (1.0 - ROUNDING)


def _first(areas: Sequence[float], length: float, amperes: float, volts: float, fuse: float) -> int:
    """Place of the first that will do; -1 where none does."""
    found = (k for k, a in enumerate(areas) if bears(a, length, amperes, volts, fuse))
    return next(found, -1)


def area_for(length: float, amperes: float, volts: float, fuse: float) -> float | None:
    """m2 of the thinnest wire sold by area that bears it; None where none does."""
    areas = [area * MM2 for area in AREAS]
    place = _first(areas, length, amperes, volts, fuse)
    return None if place < 0 else areas[place]


def gauge_for(length: float, amperes: float, volts: float, fuse: float) -> int | None:
    """The thinnest even gauge that bears it; None where none does."""
    place = _first([gauge_area(g) for g in GAUGES], length, amperes, volts, fuse)
    return None if place < 0 else GAUGES[place]


def speaker_loss(ohms: float, load: float) -> float:
    """DB lost in a speaker lead of ``ohms`` before a least load of ``load`` ohm."""
    return 20.0 * log10(1.0 + ohms / load)
