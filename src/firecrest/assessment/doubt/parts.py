"""What of drivers and radiators is uncertain: moving parts and motor, never Fs and Vas by
themselves, which share the compliance; figures that a sheet states more tightly bind these.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from firecrest.assessment.doubt.family import Column, Family, Figure, family
from firecrest.assessment.figures import derivation_of, radiator_derivation
from firecrest.core.acoustics.derivation import Derivation
from firecrest.core.uncertainty.draw import Stated, conditioned, sigma_of
from firecrest.design.edits.paths import Path
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.sheet import TOLERANCES, tolerance_of

OPEN = 8.0
"""Sigma of a figure that nothing states: it is what the others make it."""
UNIT = 1.0 / 3.0
"""Sigma of one unit against its batch, as a share of the batch's."""

DRIVER = ("re", "le", "sd", "bl", "mms", "cms", "rms", "xmax", "pe")
DRIVER_PLACES: Mapping[str, tuple[Path, ...]] = {
    "re": (("constants", "r_e"),),
    "le": (("constants", "l_e"), ("constants", "l_2"), ("constants", "r_2")),
    "sd": (("constants", "s_d"),),
    "bl": (("constants", "bl"),),
    "mms": (("constants", "m_ms"),),
    "cms": (("constants", "c_ms"),),
    "rms": (("constants", "r_ms"),),
    "xmax": (("xmax",), ("bends", "scale")),
    "pe": (("pe",),),
}
"""Where a driver's columns go, in its lowered numbers."""
RADIATOR = ("sd", "mmp", "cmp", "rmp", "xmax")
RADIATOR_PLACES: Mapping[str, tuple[Path, ...]] = {
    "sd": (("radiator", "sd"),),
    "mmp": (("radiator", "mmp"),),
    "cmp": (("radiator", "cmp"),),
    "rmp": (("radiator", "rmp"),),
    "xmax": (("radiator", "xmax"), ("radiator", "bends", "scale")),
}
TESTS = {
    **dict.fromkeys(("mms", "cms", "vas"), "added mass"),
    **dict.fromkeys(("fs", "qes", "qms", "qts", "rms", "bl", "le"), "free air"),
    **dict.fromkeys(("mmp", "cmp", "rmp", "fp", "qmp"), "radiator"),
    "re": "ohmmeter",
    "sd": "rule",
    "xmax": "travel",
    "pe": "heat",
    "mass": "scales",
    "displacement": "water",
    "price": "bill",
}
"""The one test that settles a figure of a part."""


@dataclass(frozen=True)
class Fitted:
    """Where a part sits: paths into the design and into its numbers, and its dimensions."""

    part: Path
    numbers: tuple[Path, ...]
    dimension: int
    units: int


def driver_family(part: DriverPart, fitted: Fitted) -> Family | None:
    """What is uncertain of a driver; None while figures are missing."""
    known = derivation_of(part)
    if known.missing:
        return None
    at = {name: _row(DRIVER, {name: 1.0}) for name in DRIVER}
    f = known.figures
    at["fs"] = _row(DRIVER, {"mms": -0.5, "cms": -0.5})
    at["vas"] = _row(DRIVER, {"cms": 1.0, "sd": 2.0})
    at["qes"] = _row(DRIVER, {"mms": 0.5, "cms": -0.5, "re": 1.0, "bl": -2.0})
    at["qms"] = _row(DRIVER, {"mms": 0.5, "cms": -0.5, "rms": -1.0})
    if "qes" in f and "qms" in f:
        # Qts = Qes Qms/(Qes + Qms): in logarithms each goes in by the other's share of the sum.
        both = f["qes"] + f["qms"]
        at["qts"] = f["qms"] / both * at["qes"] + f["qes"] / both * at["qms"]
    return _made(part, known, DRIVER, DRIVER_PLACES, at, fitted)


def radiator_family(part: RadiatorPart, fitted: Fitted) -> Family | None:
    """What is uncertain of a radiator; None while figures are missing."""
    known = radiator_derivation(part)
    if known.missing:
        return None
    at = {name: _row(RADIATOR, {name: 1.0}) for name in RADIATOR}
    at["fp"] = _row(RADIATOR, {"mmp": -0.5, "cmp": -0.5})
    at["qmp"] = _row(RADIATOR, {"mmp": 0.5, "cmp": -0.5, "rmp": -1.0})
    return _made(part, known, RADIATOR, RADIATOR_PLACES, at, fitted)


def _row(columns: Sequence[str], weights: Mapping[str, float]) -> Any:
    return np.array([weights.get(name, 0.0) for name in columns])


def _made(
    part: Any,
    known: Derivation,
    columns: Sequence[str],
    places: Mapping[str, tuple[Path, ...]],
    at: Mapping[str, Any],
    fitted: Fitted,
) -> Family:
    """The family of a part whose figures are these sums ``at`` of the columns' logarithms."""
    overruled = {c.figure for c in known.contradictions}
    ranges = {n: _range(part, n) for n in at if getattr(part, n) and n not in overruled}
    prior = [sigma_of(ranges[n]) if n in ranges else OPEN for n in columns]
    unknown = [k for k, n in enumerate(columns) if not (getattr(part, n) or n in known.figures)]
    for k in unknown:
        prior[k] = 0.0
    stated = [Stated(at[n], sigma_of(t)) for n, t in ranges.items() if n not in columns]
    covariance = conditioned(np.diag(np.square(prior)), stated)
    for name, share in part.tolerances.items():
        if name in at and getattr(part, name) is None and name in known.figures:
            covariance = conditioned(covariance, [Stated(at[name], sigma_of(share), held=True)])
    covariance = covariance * (1.0 + UNIT**2 / fitted.units)
    made = [
        Column(
            fitted.dimension + k,
            tuple((*number, *place) for number in fitted.numbers for place in places[name]),
        )
        for k, name in enumerate(columns)
    ]
    figures = [
        Figure(part.name, n, (*fitted.part, n), TESTS[n], tuple(at[n]), ranges.get(n))
        for n in at
        if n in ranges or n in known.figures
    ]
    return family(made, covariance, figures)


def _range(part: Any, name: str) -> float:
    """Likely range of a stated figure; without an origin that of a sheet."""
    found = tolerance_of(part, name)
    return TOLERANCES["sheet"] if found is None else found
