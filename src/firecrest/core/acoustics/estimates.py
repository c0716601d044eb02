"""Figures of a part without data, from its size class and weight, each with a wide band.

Source: power laws laid through the spread of common cone drivers of 2 to 12 inch (cone about 0.8 of
the nominal size; moving mass with the 1.3th power of cone area; a heavier part has the stronger
motor and the heavier cone). They say what is usual, not what this part is: the bands are meant to
hold two parts in three.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi, sqrt

REFERENCE_SIZE = 0.133
"""Nominal size (m) at which the laws below state their values."""
REFERENCE_AREA = 89e-4
LEAST_SIZE, LARGEST_SIZE = 0.02, 0.5
HEAVIEST = 3.0
"""How far a weight may pull an estimate, as a factor either way of the usual weight."""


@dataclass(frozen=True)
class Estimate:
    """Value in SI and its likely range as a share either way."""

    value: float
    band: float


def cone_area(size: float) -> Estimate:
    """Cone area (m2) of a nominal ``size`` in m."""
    return Estimate(pi / 4 * (0.80 * size) ** 2, 0.15)


def usual_mass(size: float) -> float:
    """Weight (kg) that is usual for a driver of this nominal size."""
    return float(1.2 * (size / REFERENCE_SIZE) ** 2.2)


def _motor(size: float, mass: float | None) -> float:
    """Weight against the usual one, kept within reason."""
    if not mass:
        return 1.0
    return min(max(mass / usual_mass(size), 1 / HEAVIEST), HEAVIEST)


BY_KIND: Mapping[str, Mapping[str, float]] = {
    "full range": {},
    "woofer": {"fs": 0.75, "le": 1.6, "mms": 1.25, "xmax": 1.4, "pe": 1.4},
    "subwoofer": {"fs": 0.5, "le": 3.0, "mms": 2.0, "xmax": 2.5, "pe": 2.5, "qms": 1.2},
    "midrange": {"fs": 2.0, "le": 0.6, "mms": 0.7, "xmax": 0.4},
    "tweeter": {"fs": 3.5, "le": 0.6, "qes": 2.0, "sd": 1.5, "mms": 2.0, "xmax": 0.3, "pe": 8.0},
    "horn tweeter": {
        "fs": 3.5, "le": 0.6, "qes": 1.0, "sd": 1.5, "mms": 2.0, "xmax": 0.3, "pe": 10.0,
    },
}  # fmt: skip
"""Figures against those of a full range driver of the same size, as each kind is built: a
subwoofer is slack, heavy and long of travel, a tweeter a stiff dome driven above its resonance.
"""
OTHER_KIND = 1.2
"""Bands of kinds that differ are so much wider: there are fewer of them to tell from."""


def estimate_driver(
    size: float, mass: float | None, nominal: float | None, kind: str = "full range"
) -> Mapping[str, Estimate]:
    """Figures of a driver by the keys of its sheet, SI; ``nominal`` in ohm, 4 when None."""
    usual, ratio = _cone_driver(size, mass, nominal), BY_KIND[kind]
    wider = OTHER_KIND if ratio else 1.0
    return {
        key: Estimate(e.value * ratio.get(key, 1.0), e.band * (wider if key in ratio else 1.0))
        for key, e in usual.items()
    }


def _cone_driver(size: float, mass: float | None, nominal: float | None) -> Mapping[str, Estimate]:
    """The same of a full range driver with a cone."""
    relative, motor = size / REFERENCE_SIZE, _motor(size, mass)
    area = cone_area(size)
    resistance = 0.85 * (nominal or 4.0)
    return {
        "re": Estimate(resistance, 0.10 if nominal else 0.5),
        "le": Estimate(0.25e-3 * relative * resistance / 3.4, 0.6),
        "fs": Estimate(60.0 / relative**0.9, 0.3),
        "qes": Estimate(0.5 / sqrt(motor), 0.4),
        "qms": Estimate(4.5, 0.4),
        "sd": area,
        "mms": Estimate(12e-3 * (area.value / REFERENCE_AREA) ** 1.3 * sqrt(motor), 0.5),
        "xmax": Estimate(3.5e-3 * relative**0.6 * sqrt(motor), 0.5),
        "pe": Estimate(30.0 * relative**1.4 * sqrt(motor), 0.5),
    }


def estimate_radiator(size: float, mass: float | None) -> Mapping[str, Estimate]:
    """Figures of a passive radiator by the keys of its sheet, SI.

    Its moving part is a third of its weight when that is known.
    """
    relative, area = size / REFERENCE_SIZE, cone_area(size)
    usual = 24e-3 * (area.value / REFERENCE_AREA) ** 1.3
    moving = Estimate(mass / 3, 0.35) if mass else Estimate(usual, 0.5)
    return {
        "sd": area,
        "mmp": moving,
        "fp": Estimate(36.0 / relative**0.5, 0.3),
        "qmp": Estimate(6.0, 0.5),
        "xmax": Estimate(7e-3 * relative**0.6, 0.4),
    }
