"""The elements of the circuit: chambers, drivers, openings, and how they join.

Every parameter may carry leading design axes; sizes are in SI, all of one element.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.driver import DriverConstants
from firecrest.core.acoustics.fill import Fill
from firecrest.core.acoustics.openings import OUTSIDE, Opening
from firecrest.core.arrays import Complex, Number, Real, inverse
from firecrest.core.circuit.electrical import GROUND, Branch, Coil, output


@dataclass(frozen=True)
class Chamber:
    """Air of a chamber: compliance (m3/Pa), leak (1/R, m3/(Pa s)), series absorption (Pa s/m3).

    No compliance at all is air that cannot be squeezed: what bounds it then moves as one. With a
    ``fill`` of fibre that says what the air does, in place of compliance and absorption.
    """

    compliance: Number
    leak: Number = 0.0
    absorption: Number = 0.0
    fill: Fill | None = None

    def admittance(self, omega: Real) -> Complex:
        """Air and leak in parallel, m3/(Pa s), shape (..., F)."""
        if self.fill is not None:
            return np.asarray(self.fill.admittance(omega) + self.leak)
        air = 1j * omega * self.compliance
        if not isinstance(self.absorption, float) or self.absorption:
            air = air * inverse(1.0 + air * self.absorption)
        return np.asarray(air + self.leak)


@dataclass(frozen=True)
class DriverGroup:
    """Equal drivers on one channel: on each of ``outputs`` amplifier outputs, series x parallel.

    The cones face from chamber ``rear`` into chamber ``front``; ``OUTSIDE`` is open air. The group
    lies between the terminals ``plus`` (None: the output of its channel) and ``minus``. ``second``
    is a further coil on each cone, at terminals of its own.
    """

    constants: DriverConstants
    rear: int
    front: int = OUTSIDE
    channel: int = 0
    in_series: int = 1
    in_parallel: int = 1
    outputs: int = 1
    plus: int | None = None
    minus: int = GROUND
    second: Coil | None = None

    @property
    def count(self) -> int:
        """Number of drivers in the whole group."""
        return self.in_series * self.in_parallel * self.outputs

    @property
    def ends(self) -> tuple[int, int]:
        """Terminals of the first coils."""
        return output(self.channel) if self.plus is None else self.plus, self.minus

    @property
    def coils(self) -> tuple[tuple[DriverConstants | Coil, int, int], ...]:
        """Every coil of one driver, with its terminals."""
        first = (self.constants, *self.ends)
        if self.second is None:
            return (first,)
        return (first, (self.second, self.second.plus, self.second.minus))

    def mobility(self, omega: Real, admittances: Sequence[Complex]) -> Complex:
        """Cone velocity per newton with the coils across stiff sources, m/(N s), (..., F).

        ``admittances`` are those of the blocked coils, in siemens.
        """
        load = self.constants.mechanical_impedance(omega)
        for (coil, _, _), admittance in zip(self.coils, admittances, strict=True):
            load = load + coil.bl**2 * admittance
        return inverse(load)


@dataclass(frozen=True)
class Network:
    """The elements of one topology; ``channels`` independent voltages drive it.

    Between outputs and coils lie ``branches`` with ``nodes`` free electrical nodes; none where
    every coil is at a stiff output.
    """

    chambers: tuple[Chamber, ...]
    drivers: tuple[DriverGroup, ...]
    openings: tuple[Opening, ...] = ()
    channels: int = 1
    branches: tuple[Branch, ...] = ()
    nodes: int = 0

    @property
    def leaks_count(self) -> bool:
        """Leak flow is radiation (Small's convention) unless no cone faces outside."""
        return any(OUTSIDE in (group.front, group.rear) for group in self.drivers)
