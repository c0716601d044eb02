"""Ports: end corrections, acoustic mass, and the air speed at which they start to be heard."""

from math import pi, sqrt

from firecrest.core.air import Air

FLANGED_END = 8.0 / (3.0 * pi)
"""End correction of a flanged end in radii. Source: Rayleigh, Theory of Sound II, 307."""

FREE_END = 0.613
"""Of an unflanged end, in radii. Source: Levine & Schwinger, Phys. Rev. 73 (1948) 383."""

END_CORRECTIONS = {
    "one_flanged": FLANGED_END + FREE_END,
    "both_flanged": 2 * FLANGED_END,
    "both_free": 2 * FREE_END,
}

SPEED_LIMITS = {"plain": 17.0, "one_flared": 22.0, "both_flared": 27.0}
"""Peak m/s by end shape: stated estimates of where noise is noticed, to be edited."""


def end_correction(area: float, ends: str) -> float:
    """Length in m that the air at both ends adds, by the radius of a circle of ``area`` (m2)."""
    return END_CORRECTIONS[ends] * sqrt(area / pi)


def acoustic_mass(length: float, area: float, air: Air) -> float:
    """Mass rho L_eff/S in kg/m4 of a port of effective ``length`` (m) and ``area`` (m2)."""
    return air.density * length / area
