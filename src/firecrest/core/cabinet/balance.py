"""Weight, centre of gravity, tipping, and whether the box walks."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import atan2, hypot, log10, pi, sqrt

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.clearance import GRAVITY
from firecrest.core.cabinet.frames import Vector
from firecrest.core.cabinet.shapes.polygon import hull, inside_by

FRICTION = {
    "rubber on wood": 0.6,
    "rubber on stone": 0.5,
    "rubber, wet": 0.3,
    "felt on wood": 0.3,
    "plastic on varnish": 0.25,
}
"""Estimates of the friction below a box."""


@dataclass(frozen=True)
class Weighed:
    """A mass in kg and where it sits."""

    name: str
    mass: float
    at: Vector


@dataclass(frozen=True)
class Balance:
    """Mass in all, centre of gravity, and how the box tips over the nearest edge of its feet."""

    mass: float
    centre: Vector
    floor: float
    edge: float
    height: float

    @property
    def tip_angle(self) -> float:
        """In rad; negative falls by itself."""
        return atan2(self.edge, self.height)


def balance(items: Iterable[Weighed], stands_on: Real, floor: float) -> Balance:
    """Of everything, on the hull of points (n, 2) in x and z at the height ``floor``."""
    items = list(items)
    mass = sum(i.mass for i in items)
    x, y, z = (sum(i.mass * float(i.at[k]) for i in items) / mass for k in range(3))
    return Balance(mass, (x, y, z), floor, inside_by(hull(stands_on), (x, z)), y - floor)


@dataclass(frozen=True)
class Push:
    """A moving part: its mass in kg, peak travel in m and phase in rad, along its ``normal``."""

    mass: float
    travel: float
    phase: float
    normal: Vector


@dataclass(frozen=True)
class Walk:
    """Peak forces on the case in N, margins in dB (None of no force), its own free travel in m."""

    horizontal: float
    vertical: float
    slide: float | None
    hop: float | None
    travel: float


def walk(pushes: Iterable[Push], frequency: float, mass: float, friction: float) -> Walk:
    """Forces of all moving parts at one frequency, added as phasors."""
    omega = 2 * pi * frequency
    force = np.zeros(3, dtype=complex)
    for p in pushes:
        force += p.mass * omega**2 * p.travel * np.exp(1j * p.phase) * np.asarray(p.normal)
    x, y, z = (complex(f) for f in force)
    return walked((x, y, z), frequency, mass, friction)


def walked(
    force: tuple[complex, complex, complex], frequency: float, mass: float, friction: float
) -> Walk:
    """What a peak force in N along x, y and z does to a box of ``mass`` kg.

    Horizontal peak of an ellipse: sqrt((|Fx|^2 + |Fz|^2 + |Fx^2 + Fz^2|)/2).
    """
    fx, fy, fz = force
    level = sqrt((abs(fx) ** 2 + abs(fz) ** 2 + abs(fx**2 + fz**2)) / 2)
    upright = abs(fy)
    weight = mass * GRAVITY
    pulls = level + friction * upright
    return Walk(
        level,
        upright,
        _margin(friction * weight, pulls),
        _margin(weight, upright),
        hypot(hypot(abs(fx), abs(fy)), abs(fz)) / (mass * (2 * pi * frequency) ** 2),
    )


def _margin(holds: float, pulls: float) -> float | None:
    return 20 * log10(holds / pulls) if pulls > 1e-9 else None
