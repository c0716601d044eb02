"""Fibre fill of a chamber by its flow resistance: softer and lossier air, by frequency.

Air between fibres gives off the heat of its squeezing, so it is softer the slower it is squeezed;
what flows through it is braked. Sources: Champoux & Allard, J. Appl. Phys. 70 (1991) 1975-1979
(bulk modulus), with the thermal length of fibres twice the viscous one (Allard & Champoux, JASA 91
(1992) 3346-3353); the line before a wall is that of any duct. Fibres are taken as fixed
and thin (porosity 1): good to some 20 % of what they add.
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.openings.port import GAMMA, PRANDTL
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real

FIBRE_BAND = 0.2
"""Share either way by which what fibre adds may be off."""


@dataclass(frozen=True)
class Fill:
    """Fibre of ``resistivity`` Pa s/m2 in a ``share`` of a chamber of ``volume`` m3, at its back.

    The chamber counts as a cube.
    """

    resistivity: Number
    share: Number
    volume: Number
    air: Air

    def modulus(self, omega: Real) -> Complex:
        """Bulk modulus of the air between the fibres, Pa: between P0 (slow) and gamma P0 (fast)."""
        slow = 1j * omega * self.air.density * PRANDTL / self.resistivity
        warm = 1.0 + np.sqrt(1.0 + 2.0 * slow) / (4.0 * slow)
        return np.asarray(self.air.stiffness / (GAMMA - (GAMMA - 1.0) / warm))

    def admittance(self, omega: Real) -> Complex:
        """Of the empty part and the filled one behind it, m3/(Pa s), (..., F).

        Air is braked and squeezed all along the fibre: a line of resistance and compliance before a
        wall, S sqrt(jw/(sigma K)) tanh(s L sqrt(jw sigma/K)).
        """
        side = np.cbrt(self.volume)
        empty = 1j * omega * self.volume * (1.0 - self.share) / self.air.stiffness
        along = np.sqrt(1j * omega / (self.resistivity * self.modulus(omega)))
        depth = self.share * side * self.resistivity * along
        return np.asarray(empty + side**2 * along * np.tanh(depth))

    def compliance(self, omega: Real) -> Real:
        """What of it is compliance at a frequency, m3/Pa."""
        return np.asarray(self.admittance(omega).imag / omega)
