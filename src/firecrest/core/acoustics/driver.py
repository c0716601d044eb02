"""Driver: its small-signal constants, and their derivation from a data sheet.

Source of all relations: Small, "Direct-Radiator Loudspeaker System Analysis", JAES 20 (1972)
383-395; Beranek & Mellow, Acoustics (2012), ch. 6. Vas refers to data-sheet air.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.arrays import Complex, Number, Real

TOLERANCE = 0.02
"""Figures that agree within this share are not called a contradiction (rounding on sheets)."""

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
        shunt = np.where(r_2 > 0, r_2 + 1j * omega * l_2, 1.0)
        semi = np.where(r_2 > 0, 1j * omega * l_2 * r_2 / shunt, 0.0)
        return self.r_e + 1j * omega * self.l_e + semi

    def mechanical_impedance(self, omega: Real) -> Complex:
        """Moving system Rms + jwMms + 1/(jwCms) in N s/m, shape (..., F)."""
        reactance = omega * self.m_ms - 1.0 / (omega * self.c_ms)
        return self.r_ms + 1j * reactance


@dataclass(frozen=True)
class Relation:
    """One way to compute ``gives`` from ``needs``; ``text`` is the formula as shown."""

    gives: str
    needs: tuple[str, ...]
    formula: Callable[..., float]
    text: str


@dataclass(frozen=True)
class Contradiction:
    """A stated figure that disagrees with the figures ranked before it."""

    figure: str
    stated: float
    derived: float
    needs: tuple[str, ...]

    @property
    def apart(self) -> float:
        """Relative difference, against what the other figures give."""
        return abs(self.stated / self.derived - 1.0)


@dataclass(frozen=True)
class Derivation:
    """Every known figure, the relation behind each derived one, contradictions, and gaps."""

    figures: Mapping[str, float]
    derived: Mapping[str, Relation]
    contradictions: tuple[Contradiction, ...]
    missing: tuple[str, ...]


STIFFNESS = DATA_SHEET_AIR.stiffness

RELATIONS = (
    Relation("cms", ("vas", "sd"), lambda v, s: v / (STIFFNESS * s * s), "Vas/(ρc²·Sd²)"),
    Relation("vas", ("cms", "sd"), lambda c, s: STIFFNESS * s * s * c, "ρc²·Sd²·Cms"),
    Relation("sd", ("vas", "cms"), lambda v, c: sqrt(v / (STIFFNESS * c)), "√(Vas/(ρc²·Cms))"),
    Relation("mms", ("fs", "cms"), lambda f, c: 1 / ((2 * pi * f) ** 2 * c), "1/((2πFs)²·Cms)"),
    Relation("cms", ("fs", "mms"), lambda f, m: 1 / ((2 * pi * f) ** 2 * m), "1/((2πFs)²·Mms)"),
    Relation("fs", ("mms", "cms"), lambda m, c: 1 / (2 * pi * sqrt(m * c)), "1/(2π√(Mms·Cms))"),
    Relation("qes", ("qts", "qms"), lambda t, m: t * m / (m - t), "Qts·Qms/(Qms−Qts)"),
    Relation("qms", ("qts", "qes"), lambda t, e: t * e / (e - t), "Qts·Qes/(Qes−Qts)"),
    Relation("qts", ("qes", "qms"), lambda e, m: e * m / (e + m), "Qes·Qms/(Qes+Qms)"),
    Relation("rms", ("fs", "mms", "qms"), lambda f, m, q: 2 * pi * f * m / q, "2πFs·Mms/Qms"),
    Relation("qms", ("fs", "mms", "rms"), lambda f, m, r: 2 * pi * f * m / r, "2πFs·Mms/Rms"),
    Relation(
        "bl",
        ("fs", "mms", "re", "qes"),
        lambda f, m, r, q: sqrt(2 * pi * f * m * r / q),
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


def _closure(known: dict[str, float], used: dict[str, Relation]) -> None:
    """Apply the relations until nothing new follows; adds to both arguments."""
    progress = True
    while progress:
        progress = False
        for relation in RELATIONS:
            if relation.gives in known or not all(n in known for n in relation.needs):
                continue
            try:
                value = relation.formula(*(known[n] for n in relation.needs))
            except (ValueError, ZeroDivisionError):
                continue
            if value > 0 and np.isfinite(value):
                known[relation.gives] = value
                used[relation.gives] = relation
                progress = True


def derive(stated: Mapping[str, float | None]) -> Derivation:
    """Derive what a data sheet does not say and report where it contradicts itself.

    ``stated`` maps the keys of ``RANK`` to SI values or None. Figures are taken in order of
    rank; one that already follows from those before it is checked against them, never averaged.
    """
    known: dict[str, float] = {}
    used: dict[str, Relation] = {}
    contradictions = []
    for key in RANK:
        value = stated.get(key)
        if value is None:
            continue
        if key not in known:
            known[key] = value
        elif abs(value / known[key] - 1.0) > TOLERANCE:
            contradictions.append(Contradiction(key, value, known[key], used[key].needs))
        _closure(known, used)
    missing = tuple(key for key in NEEDED if key not in known)
    return Derivation(known, used, tuple(contradictions), missing)


def half_space_sensitivity(figures: Mapping[str, float]) -> float:
    """Level of 1 W into Re at 1 m in half space, dB: 112.16 + 10 lg eta0.

    eta0 = 4 pi^2 Fs^3 Vas/(c^3 Qes). Source: Small (1972), eq. 22 and 28.
    Check: Fs 32 Hz, Vas 45 L, Qes 0.45 gives 87.211 dB (tests/reference, case 01).
    """
    air = DATA_SHEET_AIR
    efficiency = 4 * pi**2 * figures["fs"] ** 3 * figures["vas"] / (air.speed**3 * figures["qes"])
    one_watt = air.density * air.speed / (2 * pi * REFERENCE_PRESSURE**2)
    return float(10 * np.log10(one_watt * efficiency))
