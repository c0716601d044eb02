"""What follows from the figures of a driver or radiator: constants the network needs."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import wraps
from typing import Any, Concatenate, ParamSpec, TypeVar

from firecrest.core.acoustics.derivation import Derivation
from firecrest.core.acoustics.driver import RANK as DRIVER_RANK
from firecrest.core.acoustics.driver import DriverConstants, derive, driver_suspects
from firecrest.core.acoustics.openings.radiator import NEEDED as RADIATOR_NEEDED
from firecrest.core.acoustics.openings.radiator import RANK as RADIATOR_RANK
from firecrest.core.acoustics.openings.radiator import derive_radiator, radiator_suspects
from firecrest.core.acoustics.wiring import SAME, coil_factors
from firecrest.core.errors import MissingFigureError
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
    "fp": "Fp",
    "qmp": "Qmp",
    "xmech": "Xmech",
    "le": "Le",
    "nominal": "Znom",
}
SHEET = ("re", "sd", "fs", "qes", "qms", "vas")
"""Figures that most sheets have: a gap among them is named before what would follow from it."""
P = ParamSpec("P")
T = TypeVar("T")
_KEPT = "_follows"


def kept_with(function: Callable[Concatenate[Any, P], T]) -> Callable[Concatenate[Any, P], T]:
    """Keep what ``function(part, ...)`` gives with the part itself.

    Parts never change, so what follows from one belongs to it as long as it lives.
    """

    @wraps(function)
    def _kept(part: Any, /, *args: P.args, **kwargs: P.kwargs) -> T:
        known = vars(part).get(_KEPT)
        if known is None:
            known = {}
            object.__setattr__(part, _KEPT, known)
        key = (function.__name__, *args, *kwargs.values())
        if key not in known:
            known[key] = function(part, *args, **kwargs)
        found: T = known[key]
        return found

    return _kept


@kept_with
def derivation_of(part: DriverPart) -> Derivation:
    """What follows from a driver's figures."""
    return derive({key: getattr(part, key) for key in DRIVER_RANK})


@dataclass(frozen=True)
class WiredDriver:
    """A driver as its coils are wired: numbers, not a sheet, so no range refuses them.

    ``part`` keeps its name and mechanics, ``derivation`` holds all figures as wired.
    """

    part: DriverPart
    derivation: Derivation
    nominal: float | None
    l_e: float
    l_2: float
    r_2: float
    pe: float | None


@kept_with
def wired_driver(part: DriverPart, coils: str) -> WiredDriver:
    """The driver with its two coils wired as ``coils``.

    Its electrical figures change (``coil_factors``), its mechanics do not; with one coil alone
    Qes doubles, so Qts is left to follow.
    """
    if coils in (SAME, part.stated_for) or part.coils == 1:
        known = derivation_of(part)
        return WiredDriver(part, known, part.nominal, part.le, part.l2, part.r2, part.pe)
    f = coil_factors(part.stated_for, coils)
    q_factor = f.resistance / f.bl**2
    stated = {key: getattr(part, key) for key in DRIVER_RANK}
    stated |= {"re": _times(part.re, f.resistance), "bl": _times(part.bl, f.bl)}
    if q_factor != 1:
        qes = derivation_of(part).figures.get("qes")
        stated |= {"qes": _times(qes, q_factor), "qts": None}
    return WiredDriver(
        part,
        derive(stated),
        _times(part.nominal, f.resistance),
        part.le * f.inductance,
        part.l2 * f.inductance,
        part.r2 * f.inductance,
        _times(part.pe, f.power),
    )


def _times(value: float | None, factor: float) -> float | None:
    return None if value is None else value * factor


def driver_constants(driver: WiredDriver) -> DriverConstants:
    """Constants of a driver; MissingFigureError names the first gap."""
    derivation = driver.derivation
    if derivation.missing:
        wanted = [key for key in SHEET if key not in derivation.figures] + [*derivation.missing]
        raise MissingFigureError(SYMBOLS[wanted[0]], driver.part.name)
    f = derivation.figures
    return DriverConstants(
        r_e=f["re"],
        l_e=driver.l_e,
        l_2=driver.l_2,
        r_2=driver.r_2,
        s_d=f["sd"],
        bl=f["bl"],
        m_ms=f["mms"],
        c_ms=f["cms"],
        r_ms=f["rms"],
    )


@kept_with
def radiator_derivation(part: RadiatorPart) -> Derivation:
    """What follows from a radiator's figures; a stated loss of 0 stays 0."""
    return derive_radiator({key: getattr(part, key) for key in RADIATOR_RANK})


def radiator_figures(part: RadiatorPart) -> Mapping[str, float | None]:
    """Sd, Mmp, Cmp and Rmp, each stated or following from resonance and Q; None when unknown."""
    known = radiator_derivation(part).figures
    return {key: known.get(key) for key in RADIATOR_NEEDED}


def suspects_of(part: DriverPart | RadiatorPart) -> tuple[str, ...]:
    """Figures any one of which would explain a part's contradictions; see ``suspects``."""
    if isinstance(part, DriverPart):
        return driver_suspects({key: getattr(part, key) for key in DRIVER_RANK})
    return radiator_suspects({key: getattr(part, key) for key in RADIATOR_RANK})
