"""Ports: end corrections, acoustic mass, pipe, air speed, and loss that grows with it.

In the network a port is a lump of air, or a line with resonances of its own.
"""

from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from firecrest.core.acoustics.openings.flow import Flow
from firecrest.core.acoustics.openings.outside import OUTSIDE
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real, inverse, mixed, root

FLANGED_END = 8.0 / (3.0 * pi)
"""End correction of a flanged end in radii. Source: Rayleigh, Theory of Sound II, 307."""

FREE_END = 0.613
"""Of an unflanged end, in radii. Source: Levine & Schwinger, Phys. Rev. 73 (1948) 383."""

WALL_END = FREE_END * sqrt(2.0)
"""Of a free end along a wall: with its mirror image it is one opening of twice the area."""

END_CORRECTIONS = {
    "one_flanged": FLANGED_END + FREE_END,
    "both_flanged": 2 * FLANGED_END,
    "both_free": 2 * FREE_END,
    "along_wall": FLANGED_END + WALL_END,
}

SPEED_LIMITS = {"plain": 17.0, "one_flared": 22.0, "both_flared": 27.0}
"""Peak m/s by end shape: stated estimates of where noise is noticed, to be edited."""

STATED_AT, STATED_FOR = 50.0, 0.07
"""Hz and diameter (m) at which the estimates above hold."""
GROWN = (0.6, 1.6)
"""Between these factors of them the limit moves."""
SPEED_SPREAD = 0.3
"""Share either way by which a limit that is not stated may be off."""

LOSS_COEFFICIENTS = {"plain": 1.5, "one_flared": 1.1, "both_flared": 0.75}
"""Pressure lost over rho v^2/2 in a half cycle: in by one end, out by the other.

Sharp entry 0.5 and exit 1, flared about 0.05 and 0.7 (Idelchik, Handbook of Hydraulic Resistance,
sections 3 and 11); the mean of both directions. Estimates, good to about a third.
"""
BEND_LOSS = 0.2
"""Added by each right-angle bend of easy radius; the same source, section 6."""

VISCOSITY = 1.82e-5
"""Of air at 20 C, Pa s."""
GAMMA, PRANDTL = 1.4, 0.71
"""Of air: ratio of specific heats, and viscosity over the diffusion of heat."""


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

    def motion(self, flow: Flow) -> Complex:
        """Speed of the air, m/s, (..., F); of a pipe at the end where it is higher."""
        out = mixed(flow.out, flow.voices)
        if self.pipe is None:
            return np.asarray(out * (1.0 / self.area))
        into = mixed(flow.into, flow.voices)
        return np.asarray(np.maximum(np.abs(out), np.abs(into)) / self.area)

    def per_flow(self, jw: Complex) -> Complex:
        """Speed of the air per volume velocity of one, whatever the frequency ``jw``/j."""
        return np.asarray(1.0 / self.area)

    def resonator(self) -> tuple[Number, Number]:
        """(1/mass, own resonance as w^2) of all ``count`` together, in acoustic units."""
        return self.count / np.asarray(self.mass), 0.0


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
    travel = np.sqrt(along * shunt)
    grown = np.exp(travel)
    decayed = inverse(grown)
    return 0.5 * (grown + decayed), 0.5 * (grown - decayed), travel * inverse(shunt)


def end_correction(area: Number, ends: str) -> Number:
    """Length in m that the air at both ends adds, by the radius of a circle of ``area`` (m2)."""
    return END_CORRECTIONS[ends] * root(area / pi)


def acoustic_mass(length: Number, area: Number, air: Air) -> Number:
    """Mass rho L_eff/S in kg/m4 of a port of effective ``length`` (m) and ``area`` (m2)."""
    return air.density * length / area


def pipe_of(length: Number, ends: Number, area: Number, hydraulic_radius: Number, air: Air) -> Pipe:
    """The air column of a port ``length`` m long with end corrections of ``ends`` m in all.

    Boundary layers d_v = sqrt(2 mu/(rho w)) and d_t = d_v/sqrt(Pr) thick add the shares d_v/a to
    the mass and (gamma - 1) d_t/a to the compliance, with the hydraulic radius (2 S over
    perimeter) for a. Together they damp by 1.04 w/(c r_v) nepers per metre, r_v = a sqrt(rho w/mu).
    Source: Benade, JASA 44 (1968) 616-623, eq. 10 (wide pipes, viscous and thermal).
    """
    layer = root(VISCOSITY / (pi * air.density))
    viscous = layer / hydraulic_radius
    thermal = (GAMMA - 1.0) / PRANDTL**0.5 * viscous
    return Pipe(length / (length + ends), area * length / air.stiffness, viscous, thermal)


def first_pipe_resonance(length: Number, ends: Number, air: Air) -> Number:
    """Frequency in Hz at which half a wave fits into the port with its end corrections."""
    return air.speed / (2.0 * (length + ends))


def speed_growth(frequency: Real, area: Number) -> Real:
    """Factor on an estimated limit of the air speed at ``frequency`` (Hz) in a port of ``area``.

    An oscillating flow turns turbulent at a fixed v/sqrt(nu w), so its speed goes with sqrt(f)
    (Merkli & Thomann, J. Fluid Mech. 68 (1975) 567-576). What is shed at the mouth goes with
    v/(f D) (Roozen et al., JASA 104 (1998) 1914-1924): wider ports bear more; of that the fourth
    root of the diameter is taken, an estimate of our own. Good to some 30 %.
    """
    width = 2.0 * root(area / pi) / STATED_FOR
    return np.asarray(np.clip(np.sqrt(frequency / STATED_AT) * width**0.25, *GROWN))


def turbulent_resistance(peak_speed: Real, area: Number, coefficient: Number, air: Air) -> Real:
    """Resistance in Pa s/m3 that stands for the pressure lost at a sine of ``peak_speed`` (m/s).

    The fundamental of (K rho/2) v|v| is (8/(3 pi)) (K rho/2) v_peak v; over S of volume velocity.
    Source: Ingard & Ising, JASA 42 (1967) 6-17; harmonic balance: own derivation.
    """
    return np.asarray(4.0 / (3.0 * pi) * coefficient * air.density * peak_speed / area)
