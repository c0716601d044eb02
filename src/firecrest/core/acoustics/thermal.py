"""Heat of a voice coil: two stages, from coil to motor and from motor to air.

Source: Button, JAES 40 (1992) 32-41 (two-stage network of coil and motor); the closed form is
the solution of its two linear equations, own derivation.
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real, plain, root

COPPER = 0.00393
"""Rise of resistance per kelvin above 20 C, of copper; aluminium has 0.0039."""
PLAYED = 1800.0
"""Seconds of play after which the long-term level is told: the motor is then nearly warm."""
RATED_RISE = 160.0
"""K by which rated power usually heats a coil. An estimate, 120 to 220: what insulation and glue
bear; sheets do not say it.
"""
COIL_SHARE = 0.6
"""Of that between coil and motor, the rest between motor and air. An estimate, 0.5 to 0.75."""
USUAL_COIL, USUAL_POWER = 0.025, 20.0
"""A coil of 25 mm usually bears 20 W; power goes with the square of the diameter. An estimate."""
COIL_CAPACITY, MOTOR_CAPACITY = 1.2, 135.0
"""J/K of a 25 mm coil with its former (some 2.5 g), and of its motor (some 0.3 kg of iron)."""


@dataclass(frozen=True)
class Thermal:
    """Resistances in K/W and heat capacities in J/K of coil and motor."""

    coil: Number
    motor: Number
    coil_capacity: Number
    motor_capacity: Number


def usual_diameter(power: Number) -> Number:
    """Diameter (m) of coils that are rated for ``power`` W."""
    return USUAL_COIL * root(power / USUAL_POWER)


def usual_thermal(diameter: Number) -> Thermal:
    """What is usual for a coil of this diameter: an estimate, good to some 40 %."""
    area = (diameter / USUAL_COIL) ** 2
    whole = RATED_RISE / (USUAL_POWER * area)
    return Thermal(
        COIL_SHARE * whole, (1 - COIL_SHARE) * whole, COIL_CAPACITY * area, MOTOR_CAPACITY * area
    )


def rise_per_watt(thermal: Thermal, seconds: Number = PLAYED) -> Number:
    """K by which a coil is warmer than the air for each watt it has taken for ``seconds``.

    Solves Cv Tv' = P - (Tv - Tm)/Rv, Cm Tm' = (Tv - Tm)/Rv - Tm/Rm from rest: with the two roots
    of l^2 + l (a + b + d) + a d = 0, a = 1/(Rv Cv), b = 1/(Rv Cm), d = 1/(Rm Cm).
    """
    a = 1.0 / (thermal.coil * thermal.coil_capacity)
    b = 1.0 / (thermal.coil * thermal.motor_capacity)
    d = 1.0 / (thermal.motor * thermal.motor_capacity)
    middle = (a + b + d) / 2
    apart = np.sqrt(middle**2 - a * d)
    fast, slow = -(middle + apart), -a * d / (middle + apart)
    end = thermal.coil + thermal.motor
    first = 1.0 / thermal.coil_capacity
    of_fast = (first + slow * end) / (fast - slow)
    of_slow = -end - of_fast
    return plain(end + of_fast * np.exp(fast * seconds) + of_slow * np.exp(slow * seconds))


def warmer(resistance: Number, rise: Number | Real) -> Number:
    """What a coil of ``resistance`` ohm at 20 C gains with a ``rise`` in K above that, ohm."""
    return resistance * COPPER * rise
