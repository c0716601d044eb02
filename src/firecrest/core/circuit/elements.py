"""The elements of the circuit: chambers, drivers, ports, radiators, and how they join.

Every parameter may carry leading design axes; sizes are in SI, all of one element.
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.acoustics.driver import DriverConstants
from firecrest.core.arrays import Complex, Number, Real, inverse
from firecrest.core.circuit.electrical import GROUND, Branch, Coil, output

OUTSIDE = -1


@dataclass(frozen=True)
class Chamber:
    """Air of a chamber: compliance (m3/Pa), leak (1/R, m3/(Pa s)), series absorption (Pa s/m3).

    No compliance at all is air that cannot be squeezed: what bounds it then moves as one.
    """

    compliance: Number
    leak: Number = 0.0
    absorption: Number = 0.0

    def admittance(self, omega: Real) -> Complex:
        """Air and leak in parallel, m3/(Pa s), shape (..., F)."""
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

    def mobility(self, omega: Real) -> Complex:
        """Cone velocity per newton with the coils across stiff sources, m/(N s), (..., F)."""
        load = self.constants.mechanical_impedance(omega)
        coils: list[DriverConstants | Coil] = [self.constants]
        if self.second is not None:
            coils.append(self.second)
        for coil in coils:
            load = load + coil.bl**2 * inverse(coil.coil_impedance(omega))
        return inverse(load)


@dataclass(frozen=True)
class Pipe:
    """The air column of a port that is a line, not a lump.

    ``share`` of the port's mass (and loss) lies in the pipe, the rest in equal parts at its ends;
    ``compliance`` (m3/Pa) is that of its air. ``viscous`` and ``thermal`` are the shares at 1 Hz by
    which drag at the wall adds to the mass, and heat that the wall takes to the compliance.
    """

    share: Number
    compliance: Number
    viscous: Number
    thermal: Number


@dataclass(frozen=True)
class Port:
    """``count`` equal ports: acoustic mass (kg/m4) and loss (Pa s/m3) of one, area (m2) of one.

    With a ``pipe`` it is a transmission line with resonances of its own.
    """

    mass: Number
    area: Number
    chamber: int
    resistance: Number = 0.0
    count: int = 1
    opens_to: int = OUTSIDE
    pipe: Pipe | None = None

    def admittances(self, omega: Real) -> tuple[Complex, Complex]:
        """(own, through) of all ``count`` together, m3/(Pa s): flow into one end per pascal there
        with the other end held at rest, and flow out of that other end; equal for a lump.
        """
        series = self.resistance + 1j * omega * self.mass
        if self.pipe is None:
            lump = self.count * inverse(series)
            return lump, lump
        cosh, sinh, wave = _line(self.pipe, self, omega)
        end = 0.5 * (1.0 - self.pipe.share) * series
        across = sinh * wave + 2.0 * end * cosh + end**2 * sinh / wave
        return self.count * (cosh + end * sinh / wave) / across, self.count / across


def _line(pipe: Pipe, port: Port, omega: Real) -> tuple[Complex, Complex, Complex]:
    """Cosh and sinh of the propagation along ``pipe``, and its wave impedance (Pa s/m3).

    Drag acts on the mass, heat on the compliance: both boundary layers grow with 1/sqrt(f), so
    along = R + jwM (1 + (1 - j) v/sqrt f), shunt = jwC (1 + (1 - j) t/sqrt f). Source: Kirchhoff
    (1868), wide pipes; Beranek & Mellow, Acoustics (2012), 4.22 and 10.2.
    """
    layer = (1 - 1j) / np.sqrt(omega / (2 * np.pi))
    along = port.resistance + 1j * omega * port.mass * (1.0 + pipe.viscous * layer)
    along = pipe.share * along
    shunt = 1j * omega * pipe.compliance * (1.0 + pipe.thermal * layer)
    wave, travel = np.sqrt(along / shunt), np.sqrt(along * shunt)
    return np.cosh(travel), np.sinh(travel), wave


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
        shorted = np.abs(impedance) < least
        if shorted.any():
            impedance = np.where(shorted, least, impedance)
        whole = np.asarray(self.count * self.area**2 * inverse(impedance))
        return whole, whole


Opening = Port | Radiator


@dataclass(frozen=True)
class Network:
    """The elements of one topology; ``channels`` independent voltages drive it.

    Between outputs and coils lie ``branches`` with ``nodes`` free electrical nodes; none where
    every coil is at a stiff output.
    """

    chambers: tuple[Chamber, ...]
    drivers: tuple[DriverGroup, ...]
    ports: tuple[Port, ...] = ()
    radiators: tuple[Radiator, ...] = ()
    channels: int = 1
    branches: tuple[Branch, ...] = ()
    nodes: int = 0

    @property
    def openings(self) -> tuple[Opening, ...]:
        """Ports, then radiators."""
        return (*self.ports, *self.radiators)

    @property
    def leaks_count(self) -> bool:
        """Leak flow is radiation (Small's convention) unless no cone faces outside."""
        return any(OUTSIDE in (group.front, group.rear) for group in self.drivers)
