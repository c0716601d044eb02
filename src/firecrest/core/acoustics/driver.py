"""Driver: its small-signal constants, and their derivation from a data sheet.

Source of all relations: Small, "Direct-Radiator Loudspeaker System Analysis", JAES 20 (1972)
383-395; Beranek & Mellow, Acoustics (2012), ch. 6. Vas refers to data-sheet air.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.acoustics.derivation import Derivation, Relation, follow, suspects
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.arrays import Complex, Number, Real, root

REFERENCE_PRESSURE = 20e-6


@dataclass(frozen=True)
class DriverConstants:
    """What the network needs of one driver, in SI; fields are floats or arrays of designs."""

    r_e: Number
    l_e: Number
    l_2: Number
    r_2: Number
    s_d: Number
    bl: Number
    m_ms: Number
    c_ms: Number
    r_ms: Number

    def coil_impedance(self, omega: Real) -> Complex:
        """Blocked impedance Re + jwLe + (jwL2 parallel R2) in ohm, shape (..., F)."""
        l_2, r_2 = self.l_2, self.r_2
        if not np.any(r_2):
            return np.asarray(self.r_e + 1j * omega * self.l_e)
        shunt = np.where(r_2 > 0, r_2 + 1j * omega * l_2, 1.0)
        semi = np.where(r_2 > 0, 1j * omega * l_2 * r_2 / shunt, 0.0)
        return self.r_e + 1j * omega * self.l_e + semi

    def mechanical_impedance(self, omega: Real) -> Complex:
        """Moving system Rms + jwMms + 1/(jwCms) in N s/m, shape (..., F)."""
        reactance = omega * self.m_ms - 1.0 / (omega * self.c_ms)
        return self.r_ms + 1j * reactance


STIFFNESS = DATA_SHEET_AIR.stiffness

RELATIONS = (
    Relation("cms", ("vas", "sd"), lambda v, s: v / (STIFFNESS * s * s), "Vas/(ρc²·Sd²)"),
    Relation("vas", ("cms", "sd"), lambda c, s: STIFFNESS * s * s * c, "ρc²·Sd²·Cms"),
    Relation("sd", ("vas", "cms"), lambda v, c: root(v / (STIFFNESS * c)), "√(Vas/(ρc²·Cms))"),
    Relation("mms", ("fs", "cms"), lambda f, c: 1 / ((2 * pi * f) ** 2 * c), "1/((2πFs)²·Cms)"),
    Relation("cms", ("fs", "mms"), lambda f, m: 1 / ((2 * pi * f) ** 2 * m), "1/((2πFs)²·Mms)"),
    Relation("fs", ("mms", "cms"), lambda m, c: 1 / (2 * pi * root(m * c)), "1/(2π√(Mms·Cms))"),
    Relation("qes", ("qts", "qms"), lambda t, m: t * m / (m - t), "Qts·Qms/(Qms−Qts)"),
    Relation("qms", ("qts", "qes"), lambda t, e: t * e / (e - t), "Qts·Qes/(Qes−Qts)"),
    Relation("qts", ("qes", "qms"), lambda e, m: e * m / (e + m), "Qes·Qms/(Qes+Qms)"),
    Relation("rms", ("fs", "mms", "qms"), lambda f, m, q: 2 * pi * f * m / q, "2πFs·Mms/Qms"),
    Relation("qms", ("fs", "mms", "rms"), lambda f, m, r: 2 * pi * f * m / r, "2πFs·Mms/Rms"),
    Relation(
        "bl",
        ("fs", "mms", "re", "qes"),
        lambda f, m, r, q: root(2 * pi * f * m * r / q),
        "√(2πFs·Mms·Re/Qes)",
    ),
    Relation(
        "qes",
        ("fs", "mms", "re", "bl"),
        lambda f, m, r, b: 2 * pi * f * m * r / b**2,
        "2πFs·Mms·Re/Bl²",
    ),
    Relation(
        "mms",
        ("bl", "qes", "fs", "re"),
        lambda b, q, f, r: b * b * q / (2 * pi * f * r),
        "Bl²·Qes/(2πFs·Re)",
    ),
    Relation(
        "re",
        ("bl", "qes", "fs", "mms"),
        lambda b, q, f, m: b * b * q / (2 * pi * f * m),
        "Bl²·Qes/(2πFs·Mms)",
    ),
)

RANK = ("re", "sd", "fs", "qes", "qms", "qts", "vas", "mms", "cms", "rms", "bl")
"""Who wins when figures disagree: Thiele-Small figures before mechanical ones."""

NEEDED = ("re", "sd", "bl", "mms", "cms", "rms")


def derive(stated: Mapping[str, float | None]) -> Derivation:
    """What follows from a driver's sheet; ``stated`` maps the keys of ``RANK`` to SI or None."""
    return follow(stated, RELATIONS, RANK, NEEDED)


def driver_suspects(stated: Mapping[str, float | None]) -> tuple[str, ...]:
    """Figures of a driver's sheet any one of which would explain its contradictions."""
    return suspects(stated, RELATIONS, RANK, NEEDED)


def half_space_sensitivity(figures: Mapping[str, float]) -> float:
    """Level of 1 W into Re at 1 m in half space, dB: 112.16 + 10 lg eta0.

    eta0 = 4 pi^2 Fs^3 Vas/(c^3 Qes). Source: Small (1972), eq. 22 and 28.
    Check: Fs 32 Hz, Vas 45 L, Qes 0.45 gives 87.211 dB (tests/reference, case 01).
    """
    air = DATA_SHEET_AIR
    efficiency = 4 * pi**2 * figures["fs"] ** 3 * figures["vas"] / (air.speed**3 * figures["qes"])
    one_watt = air.density * air.speed / (2 * pi * REFERENCE_PRESSURE**2)
    return float(10 * np.log10(one_watt * efficiency))


def free_air_impedance(constants: DriverConstants, frequency: Real) -> Complex:
    """Impedance of one driver in free air, ohm, shape (..., F): Ze + Bl^2/Zm.

    Source: Small, JAES 20 (1972) 383-395. Its peak at Fs is Re (1 + Qms/Qes) when Le is 0.
    """
    omega = 2 * pi * np.asarray(frequency, dtype=np.float64)
    motional = constants.bl**2 / constants.mechanical_impedance(omega)
    return np.asarray(constants.coil_impedance(omega) + motional)
