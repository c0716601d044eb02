"""Air: density and speed of sound from temperature, pressure and humidity."""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, root

GRAVITY = 9.81
"""m/s2."""
STANDARD_TEMPERATURE = 293.15
STANDARD_PRESSURE = 101325.0
GAS_MASS_RATIO = 0.62196
"""Molar mass of water over that of dry air (18.015 / 28.965)."""


@dataclass(frozen=True)
class Air:
    """Density in kg/m3 and speed of sound in m/s."""

    density: Number
    speed: Number

    @property
    def stiffness(self) -> Number:
        """Adiabatic bulk modulus rho c^2 = gamma P0 in Pa."""
        return self.density * self.speed**2


DATA_SHEET_AIR = Air(1.204, 343.2)
"""Dry air at 20 C and 101.325 kPa, to which every Vas refers."""


def vapour_pressure(temperature: Number) -> Number:
    """Saturation pressure of water in Pa at ``temperature`` in K.

    Source: Magnus form of WMO-No. 8 (2018), Annex 4.B; within 0.2 % from -10 to 50 C.
    """
    celsius = temperature - 273.15
    return 611.2 * np.exp(17.62 * celsius / (243.12 + celsius))


def air_at(temperature: Number, pressure: Number, humidity: Number = 0.0) -> Air:
    """Air at ``temperature`` (K), ``pressure`` (Pa) and relative ``humidity`` (0 to 1).

    Scaled from data-sheet air by the ideal gas law, with water vapour entering through the mean
    molar mass and through gamma = (7 + x)/(5 + x), x the mole fraction of water.
    Source: Beranek & Mellow, Acoustics (2012), 1.4; mixing rule: own derivation from the
    molar heats 7/2 R (air) and 4 R (water).
    """
    water = humidity * vapour_pressure(temperature) / pressure
    molar_mass = 1.0 - (1.0 - GAS_MASS_RATIO) * water
    gamma = ((7.0 + water) / (5.0 + water)) / 1.4
    warmth = temperature / STANDARD_TEMPERATURE
    density = DATA_SHEET_AIR.density * (pressure / STANDARD_PRESSURE) / warmth * molar_mass
    speed = DATA_SHEET_AIR.speed * root(warmth * gamma / molar_mass)
    return Air(density, speed)
