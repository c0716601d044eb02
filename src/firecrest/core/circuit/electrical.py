"""The electrical side: terminals, and what may stand between an amplifier's output and a coil.

A terminal is a free node (0 and up), ground, or the output of a channel, whose voltage is given:
``output(k)``. Everything here exists once for each of a channel's equal outputs.
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Complex, Number, Real

GROUND = -1


def output(channel: int) -> int:
    """The terminal of a channel's output."""
    return -2 - channel


def channel_of(terminal: int) -> int | None:
    """The channel whose output a terminal is; None of ground and of free nodes."""
    return -2 - terminal if terminal < GROUND else None


@dataclass(frozen=True)
class Branch:
    """Resistance (ohm), inductance (H) and capacitance (F; None: none) in series from a to b.

    A coil of wire with its resistance, a capacitor with its loss, a resistor, a lead, the output
    resistance of an amplifier.
    """

    a: int
    b: int
    resistance: Number = 0.0
    inductance: Number = 0.0
    capacitance: Number | None = None

    def admittance(self, omega: Real) -> Complex:
        """Amperes per volt across it, shape (..., F)."""
        reactance = omega * self.inductance
        if self.capacitance is not None:
            reactance = reactance - 1.0 / (omega * self.capacitance)
        return np.asarray(1.0 / (self.resistance + 1j * reactance))


@dataclass(frozen=True)
class Coil:
    """A further coil on a cone: blocked impedance as of a driver, force factor, terminals."""

    r_e: Number
    l_e: Number
    bl: Number
    plus: int
    minus: int = GROUND

    def coil_impedance(self, omega: Real) -> Complex:
        """Ohm, shape (..., F); the coupling of the two windings is left out."""
        return np.asarray(self.r_e + 1j * omega * self.l_e)
