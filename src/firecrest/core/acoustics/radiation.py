"""Far-field pressure of volume velocities, and what follows from its phase."""

from collections.abc import Callable

import numpy as np

from firecrest.core.acoustics.driver import REFERENCE_PRESSURE
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real

SOLID_ANGLES = {"pole": 4 * np.pi, "ground": 2 * np.pi, "wall": np.pi, "corner": np.pi / 2}
"""Space into which the box plays, in sr; "pole" has no ground image, "wall" is floor and wall."""


def far_pressure(
    flow: Complex, frequency: Real, distance: Number, solid_angle: Number, air: Air
) -> Complex:
    """Pressure (Pa rms) at ``distance`` (m) of a simple source of ``flow`` (m3/s, (..., F)).

    p = j w rho U/(Omega r); the flight time is left out of the phase.
    Source: Beranek & Mellow, Acoustics (2012), eq. 4.71 for 4 pi; images for smaller angles.
    """
    omega = 2 * np.pi * frequency
    scale = air.density / (solid_angle * distance)
    return np.asarray(1j * omega * scale * flow)


def level(pressure: Complex | Real) -> Real:
    """Sound pressure level in dB re 20 uPa of an rms ``pressure``; 0 Pa gives -inf."""
    with np.errstate(divide="ignore"):
        return np.asarray(20.0 * np.log10(np.abs(pressure) / REFERENCE_PRESSURE))


def group_delay(pressure_at: Callable[[Real], Complex], frequency: Real) -> Real:
    """Group delay -dphi/dw in s at ``frequency``, from the model itself, not from a grid.

    -Im(p'/p) with a central difference over 1e-5 of the frequency; relative error below 1e-8.
    """
    step = 1e-5
    above, below = pressure_at(frequency * (1 + step)), pressure_at(frequency * (1 - step))
    slope = (above - below) / (4 * np.pi * step * frequency)
    return np.asarray(-np.imag(slope / pressure_at(frequency)))
