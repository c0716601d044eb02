"""First resonance of flat panels, between simply supported and clamped.

Rectangle: simply supported by Navier; clamped by a one-term Ritz of own derivation (0.4 % high at
most). Discs: lambda^2 of 4.935 and 10.216 (Leissa). Of a print the core stiffens with the square
of its density. Holes, drivers' masses and the air behind are left out.
"""

from dataclasses import dataclass
from math import pi, sqrt
from typing import Literal

from firecrest.core.cabinet.materials import Infill, Material
from firecrest.core.cabinet.shapes.shell import Field

CLEAR = 1.5
SUPPORTED_DISC, CLAMPED_DISC = 4.935, 10.216


@dataclass(frozen=True)
class Resonance:
    """Both ends of the first resonance in Hz, and where it stands against the bass band."""

    supported: float
    clamped: float
    flag: Literal["in the band", "close", "clear"]


def resonance(field: Field, material: Material, infill: Infill | None, high: float) -> Resonance:
    """Of a field whose case plays bass up to ``high`` Hz."""
    stiff, mass = _plate(float(field.t), material, infill)
    speed = sqrt(stiff / mass)
    if field.r is not None:
        around = 2 * pi * float(field.r) ** 2
        low, top = (lam / around * speed for lam in (SUPPORTED_DISC, CLAMPED_DISC))
    else:
        a, b = float(field.a), float(field.b)
        low = pi / 2 * speed * (1 / a**2 + 1 / b**2)
        top = sqrt(504 * (1 / a**4 + 1 / b**4) + 288 / (a * b) ** 2) * speed / (2 * pi)
    return Resonance(low, top, _flag(low, top, high))


def _plate(t: float, material: Material, infill: Infill | None) -> tuple[float, float]:
    """Bending stiffness in N m and mass in kg/m2."""
    e, rho, nu = (float(x) for x in (material.stiffness, material.density, material.poisson))
    if infill is None:
        return e * t**3 / (12 * (1 - nu**2)), rho * t
    core = max(t - 2 * float(infill.skin), 0.0)
    phi = float(infill.infill)
    stiff = e * ((t**3 - core**3) + phi**2 * core**3) / (12 * (1 - nu**2))
    return stiff, rho * (t - core + phi * core)


def _flag(low: float, top: float, high: float) -> Literal["in the band", "close", "clear"]:
    if top < high:
        return "in the band"
    return "clear" if low > CLEAR * high else "close"
