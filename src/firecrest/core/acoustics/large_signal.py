"""Motor and suspension at large travel: what a held sine meets of curves that bend.

Curves are even in the travel: of uneven ones the mean of both sides; bias, offset and harmonics
are left out. A sine x = X cos t meets of a curve m(x), multiple of its value at rest, two means
over a cycle: with 2 cos^2 what acts on a quantity in phase with the travel, with 2 sin^2 on one in
phase with the velocity. Source: describing functions (Gelb & Vander Velde, Multiple-Input
Describing Functions, 1968, ch. 2).
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from firecrest.core.arrays import Number, Real

BL_AT_XMAX, CMS_AT_XMAX = 0.82, 0.75
"""Shares of force factor and compliance left at Xmax where nothing is stated: estimates, after the
usual thresholds by which sheets state travel.
"""
LARGEST = 4.0
"""Multiples of the scale up to which curves are reckoned with; beyond, they stay."""
KNOTS = np.linspace(0.0, LARGEST, 161)
ANGLES = (np.arange(48) + 0.5) * (np.pi / 96)
"""Middles of 48 steps of a quarter cycle."""


@dataclass(frozen=True)
class Bend:
    """One curve over travel, in multiples of its value at rest; travel in multiples of a scale.

    ``travel`` rises from 0, between its points lie straight lines, beyond the last one it stays.
    """

    travel: tuple[float, ...]
    multiple: tuple[float, ...]

    def at(self, travel: Real) -> Real:
        """The multiple at a travel to either side."""
        return np.asarray(np.interp(np.abs(travel), self.travel, self.multiple))

    @cached_property
    def with_travel(self) -> Real:
        """Mean over a cycle of peak ``KNOTS`` with 2 cos^2."""
        return self._mean(2 * np.cos(ANGLES) ** 2)

    @cached_property
    def with_velocity(self) -> Real:
        """Mean over a cycle of peak ``KNOTS`` with 2 sin^2."""
        return self._mean(2 * np.sin(ANGLES) ** 2)

    def _mean(self, weight: Real) -> Real:
        return np.asarray(np.mean(self.at(KNOTS[:, None] * np.cos(ANGLES)) * weight, axis=-1))


def bend_of(curve: Callable[[Real], Real]) -> Bend:
    """A formula as a curve."""
    return Bend(tuple(KNOTS.tolist()), tuple(curve(KNOTS).tolist()))


STRAIGHT = Bend((0.0, LARGEST), (1.0, 1.0))
USUAL_BL = bend_of(lambda u: 1.0 / (1.0 + (1.0 / BL_AT_XMAX - 1.0) * u**2))
USUAL_KMS = bend_of(lambda u: 1.0 + (1.0 / CMS_AT_XMAX - 1.0) * u**2)
"""Over Xmax: smooth curves through the thresholds above; real ones differ by a third."""


@dataclass(frozen=True)
class Bends:
    """How a part bends: force factor, stiffness, inductance, over travel in multiples of ``scale``
    (m); a radiator has stiffness alone.
    """

    scale: Number
    stiffness: Bend = USUAL_KMS
    force: Bend = USUAL_BL
    inductance: Bend = STRAIGHT


@dataclass(frozen=True)
class Met:
    """What a sine of a given peak meets, in multiples of the values at rest (..., F).

    ``stiffness`` acts on the travel; ``force`` and ``inductance`` on what is in phase with the
    velocity, ``force_aside`` and ``inductance_aside`` are what is added of what is in phase with
    the travel.
    """

    stiffness: Real
    force: Real
    force_aside: Real
    inductance: Real
    inductance_aside: Real


def met(bends: Bends, peak: Real) -> Met:
    """What a sine of ``peak`` m meets."""
    at = peak / bends.scale

    def _of(table: Real) -> Real:
        return np.asarray(np.interp(at, KNOTS, table))

    force, coil = _of(bends.force.with_velocity), _of(bends.inductance.with_velocity)
    return Met(
        _of(bends.stiffness.with_travel),
        force,
        _of(bends.force.with_travel) - force,
        coil,
        _of(bends.inductance.with_travel) - coil,
    )
