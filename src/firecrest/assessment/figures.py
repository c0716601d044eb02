"""What follows from the figures of a driver or radiator: constants the network needs."""

import dataclasses
from collections.abc import Mapping
from dataclasses import dataclass
from math import pi, sqrt

from firecrest.assessment.memo import stage
from firecrest.core.acoustics.driver import Derivation, DriverConstants, derive
from firecrest.core.acoustics.wiring import SAME, coil_factors
from firecrest.core.errors import MissingFigureError
from firecrest.design.box import RadiatorSet
from firecrest.design.parts import DriverPart, RadiatorPart

SYMBOLS = {
    "re": "Re",
    "sd": "Sd",
    "fs": "Fs",
    "qes": "Qes",
    "qms": "Qms",
    "qts": "Qts",
    "vas": "Vas",
    "mms": "Mms",
    "cms": "Cms",
    "rms": "Rms",
    "bl": "Bl",
    "xmax": "Xmax",
    "pe": "Pe",
    "mmp": "Mmp",
    "cmp": "Cmp",
    "rmp": "Rmp",
}
SHEET = ("re", "sd", "fs", "qes", "qms", "vas")
"""Figures that most sheets have: a gap among them is named before what would follow from it."""
GRAVITY = 9.81


@dataclass(frozen=True)
class RadiatorConstants:
    """One radiator with its added mass, and the travel that is left to it."""

    mass: float
    compliance: float
    resistance: float
    area: float
    resonance: float
    sag: float


@stage
def derivation_of(part: DriverPart) -> Derivation:
    """What follows from a driver's figures."""
    return derive(
        {
            key: getattr(part, key)
            for key in ("re", "sd", "fs", "qes", "qms", "qts", "vas", "mms", "cms", "rms", "bl")
        }
    )


@stage
def wired_driver(part: DriverPart, coils: str) -> DriverPart:
    """The driver with its two coils wired as ``coils``; the part itself when that is as stated.

    Its electrical figures change (``coil_factors``), its mechanics do not; with one coil alone
    Qes doubles, so Qts is left to follow.
    """
    if coils in (SAME, part.stated_for) or part.coils == 1:
        return part
    f = coil_factors(part.stated_for, coils)
    q_factor = f.resistance / f.bl**2
    qes = derivation_of(part).figures.get("qes")

    return dataclasses.replace(
        part,
        re=_times(part.re, f.resistance),
        nominal=_times(part.nominal, f.resistance),
        le=part.le * f.inductance,
        l2=part.l2 * f.inductance,
        r2=part.r2 * f.inductance,
        bl=_times(part.bl, f.bl),
        qes=_times(qes, q_factor) if q_factor != 1 else part.qes,
        qts=part.qts if q_factor == 1 else None,
        pe=_times(part.pe, f.power),
    )


def _times(value: float | None, factor: float) -> float | None:
    return None if value is None else value * factor


def driver_constants(part: DriverPart) -> DriverConstants:
    """Constants of a driver; MissingFigureError names the first gap."""
    derivation = derivation_of(part)
    if derivation.missing:
        wanted = [key for key in SHEET if key not in derivation.figures] + [*derivation.missing]
        raise MissingFigureError(SYMBOLS[wanted[0]], part.name)
    f = derivation.figures
    return DriverConstants(
        r_e=f["re"],
        l_e=part.le,
        l_2=part.l2,
        r_2=part.r2,
        s_d=f["sd"],
        bl=f["bl"],
        m_ms=f["mms"],
        c_ms=f["cms"],
        r_ms=f["rms"],
    )


def radiator_figures(part: RadiatorPart) -> Mapping[str, float | None]:
    """Mmp, Cmp and Rmp, each stated or from resonance and Q."""
    mmp, cmp, rmp, fp, qmp = part.mmp, part.cmp, part.rmp, part.fp, part.qmp
    if mmp is None and cmp is not None and fp is not None:
        mmp = 1 / ((2 * pi * fp) ** 2 * cmp)
    if cmp is None and mmp is not None and fp is not None:
        cmp = 1 / ((2 * pi * fp) ** 2 * mmp)
    if rmp is None and qmp is not None and mmp is not None and cmp is not None:
        rmp = sqrt(mmp / cmp) / qmp
    return {"sd": part.sd, "mmp": mmp, "cmp": cmp, "rmp": rmp}


def radiator_constants(item: RadiatorSet) -> RadiatorConstants:
    """Constants of a radiator in place; added mass keeps Rmp and Cmp.

    Mounted horizontally it sags by g/w_p^2, with w_p its resonance including added mass.
    """
    figures = radiator_figures(item.radiator)
    for key, value in figures.items():
        if value is None:
            raise MissingFigureError(SYMBOLS[key], item.radiator.name)
    mass = float(figures["mmp"] or 0.0) + item.added_mass
    compliance = float(figures["cmp"] or 0.0)
    resonance = 1 / (2 * pi * sqrt(mass * compliance))
    sag = GRAVITY / (2 * pi * resonance) ** 2 if item.horizontal else 0.0
    return RadiatorConstants(
        mass, compliance, float(figures["rmp"] or 0.0), float(figures["sd"] or 0.0), resonance, sag
    )
