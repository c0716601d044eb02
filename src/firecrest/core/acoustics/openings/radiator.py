"""Passive radiator: what follows from its sheet, and what it is in the network.

Source: Small, "Passive-Radiator Loudspeaker Systems", JAES 22 (1974) 592-601: the radiator is a
mass on its own suspension, Fp = 1/(2 pi root(Mmp Cmp)), Qmp = root(Mmp/Cmp)/Rmp.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.acoustics.derivation import Derivation, Relation, follow, suspects
from firecrest.core.acoustics.openings.flow import Flow
from firecrest.core.acoustics.openings.outside import OUTSIDE
from firecrest.core.air import GRAVITY
from firecrest.core.arrays import Complex, Number, Real, inverse, mixed, root

RELATIONS = (
    Relation("mmp", ("fp", "cmp"), lambda f, c: 1 / ((2 * pi * f) ** 2 * c), "1/((2πFp)²·Cmp)"),
    Relation("cmp", ("fp", "mmp"), lambda f, m: 1 / ((2 * pi * f) ** 2 * m), "1/((2πFp)²·Mmp)"),
    Relation("fp", ("mmp", "cmp"), lambda m, c: 1 / (2 * pi * root(m * c)), "1/(2π√(Mmp·Cmp))"),
    Relation("rmp", ("mmp", "cmp", "qmp"), lambda m, c, q: root(m / c) / q, "√(Mmp/Cmp)/Qmp"),
    Relation("qmp", ("mmp", "cmp", "rmp"), lambda m, c, r: root(m / c) / r, "√(Mmp/Cmp)/Rmp"),
)
RANK = ("sd", "mmp", "cmp", "fp", "rmp", "qmp")
NEEDED = ("sd", "mmp", "cmp", "rmp")


def derive_radiator(stated: Mapping[str, float | None]) -> Derivation:
    """What follows from a radiator's sheet; ``stated`` maps the keys of ``RANK`` to SI or None."""
    return follow(stated, RELATIONS, RANK, NEEDED)


def radiator_suspects(stated: Mapping[str, float | None]) -> tuple[str, ...]:
    """Figures of a radiator's sheet any one of which would explain its contradictions."""
    return suspects(stated, RELATIONS, RANK, NEEDED)


def sag(mass: Number, compliance: Number) -> Number:
    """Metres by which a radiator that faces up or down hangs from its rest: m g Cmp."""
    return GRAVITY * mass * compliance


@dataclass(frozen=True)
class Radiator:
    """``count`` equal passive radiators; mass with air load and added mass, in mechanical SI."""

    mass: Number
    compliance: Number
    resistance: Number
    area: Number
    chamber: int
    count: int = 1
    opens_to: int = OUTSIDE

    def admittances(self, omega: Real) -> tuple[Complex, Complex]:
        """(own, through) of all ``count`` together, m3/(Pa s); equal, as the cone is stiff.

        A lossless radiator exactly at its resonance would short the chamber: its impedance is
        kept above 1e-9 of its mass reactance, so that the answer stays finite.
        """
        inertia = omega * self.mass
        impedance = self.resistance + 1j * (inertia - 1.0 / (omega * self.compliance))
        least = 1e-9 * inertia
        if np.any(self.resistance < least.max()):
            impedance = np.where(np.abs(impedance) < least, least, impedance)
        whole = np.asarray(self.count * self.area**2 * inverse(impedance))
        return whole, whole

    def per_flow(self, jw: Complex) -> Complex:
        """Travel per volume velocity of one at the frequency ``jw``/j."""
        return np.asarray(1.0 / (self.area * jw))

    @property
    def resonance(self) -> Number:
        """Its own resonance in Hz, at which it cancels the cones."""
        return 1 / (2 * pi * root(self.mass * self.compliance))

    def motion(self, flow: Flow) -> Complex:
        """Travel, m, (..., F)."""
        return mixed(flow.out, flow.integrated) * (1.0 / self.area)

    def resonator(self) -> tuple[Number, Number]:
        """(1/mass, own resonance as w^2) of all ``count`` together, in acoustic units."""
        mass = np.asarray(self.mass)
        return self.count * np.asarray(self.area) ** 2 / mass, 1.0 / (mass * self.compliance)
