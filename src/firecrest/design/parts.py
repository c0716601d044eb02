"""Acoustic parts: self-contained copies of drivers and passive radiators.

A figure that is not known is null, never zero.
"""

from typing import Literal

from pydantic.dataclasses import dataclass

from firecrest.design.curve import MeasuredCurve
from firecrest.design.fields import MODEL, choice, items, number
from firecrest.design.sheet import Sheet

DriverKind = Literal["full range", "woofer", "subwoofer", "midrange", "tweeter", "horn tweeter"]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FramedPart(Sheet):
    """What drivers and radiators share: a frame in a hole, the air behind, weight and price."""

    size: float | None = number(
        "Size class", "length", 0.005, 1, "in", default=None, digits=2, help="Nominal diameter."
    )
    displacement: float = number("Air it takes", "volume", 0, 0.1, "L", default=0.0, digits=2)
    frame: float | None = number("Frame diameter", "length", 0.01, 1, "mm", default=None, digits=0)
    cut_out: float | None = number("Cut-out", "length", 0.005, 1, "mm", default=None, digits=0)
    flats: float | None = number(
        "Cut-out, between flats",
        "length",
        0.005,
        1,
        "mm",
        default=None,
        empty="round",
        digits=0,
        help="Of a frame with two straight sides.",
    )
    depth: float | None = number(
        "Depth behind the panel", "length", 0.001, 1, "mm", default=None, digits=0
    )
    mass: float = number("Weight", "mass", 0, 100, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e5, "€", default=0.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class TravelPoint:
    """What is left of a driver's values at one travel from rest: the mean of both sides."""

    travel: float = number("At", "length", 1e-5, 0.2, "mm", digits=1)
    bl: float = number("Bl", "share", 0.02, 3, "%", digits=0)
    kms: float = number("Stiffness", "share", 0.1, 30, "%", digits=0)
    le: float = number("Le", "share", 0.05, 5, "%", default=1.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class DriverPart(FramedPart):
    """One driver, as its sheet or a measurement has it; what is missing is derived.

    With two coils, the electrical figures hold for them wired as ``stated_for``.
    """

    kind: DriverKind = choice("Kind", default="full range")
    nominal: float | None = number(
        "Nominal impedance", "resistance", 1, 1000, "Ω", default=None, symbol="Znom", digits=0
    )
    coils: int = number("Voice coils", "number", 1, 2, "", default=1, digits=0)
    stated_for: Literal["series", "parallel"] = choice(
        "Figures stated for coils in", default="series", help="Only of a driver with two coils."
    )
    re: float | None = number(
        "Coil resistance", "resistance", 0.2, 1000, "Ω", default=None, symbol="Re", digits=2
    )
    le: float = number(
        "Coil inductance", "inductance", 0, 0.1, "mH", default=0.0, symbol="Le", digits=2
    )
    l2: float = number(
        "Second inductance",
        "inductance",
        0,
        0.1,
        "mH",
        default=0.0,
        symbol="L2",
        digits=2,
        help="With R2 beside it, in series with Le; 0 leaves both out.",
    )
    r2: float = number(
        "Resistance beside it", "resistance", 0, 1e4, "Ω", default=0.0, symbol="R2", digits=1
    )
    fs: float | None = number("Resonance", "frequency", 5, 20000, "Hz", default=None, symbol="Fs")
    qes: float | None = number(
        "Electrical Q", "number", 0.05, 20, "", default=None, symbol="Qes", digits=3
    )
    qms: float | None = number(
        "Mechanical Q", "number", 0.1, 50, "", default=None, symbol="Qms", digits=2
    )
    qts: float | None = number(
        "Total Q", "number", 0.05, 15, "", default=None, symbol="Qts", digits=3
    )
    vas: float | None = number(
        "Equivalent volume", "volume", 1e-9, 5, "L", default=None, symbol="Vas", digits=2
    )
    sd: float | None = number("Cone area", "area", 1e-5, 1, "cm²", default=None, symbol="Sd")
    bl: float | None = number(
        "Force factor", "force factor", 0.05, 100, "T·m", default=None, symbol="Bl", digits=2
    )
    mms: float | None = number(
        "Moving mass", "mass", 1e-5, 2, "g", default=None, symbol="Mms", digits=2
    )
    cms: float | None = number(
        "Compliance", "compliance", 1e-6, 0.1, "mm/N", default=None, symbol="Cms", digits=3
    )
    rms: float | None = number(
        "Mechanical loss",
        "mechanical resistance",
        0.001,
        100,
        "kg/s",
        default=None,
        symbol="Rms",
        digits=2,
    )
    xmax: float | None = number(
        "Travel, one way", "length", 1e-4, 0.1, "mm", default=None, symbol="Xmax", digits=1
    )
    xmax_basis: Literal["geometric", "distortion"] = choice("Travel stated by", default="geometric")
    xmech: float | None = number(
        "Damage travel", "length", 1e-4, 0.2, "mm", default=None, symbol="Xmech", digits=1
    )
    pe: float | None = number(
        "Rated power", "power", 0.1, 5000, "W", default=None, symbol="Pe", digits=0
    )
    large: tuple[TravelPoint, ...] = items("At large travel", default=(), most=40)
    coil_diameter: float | None = number(
        "Coil diameter",
        "length",
        0.003,
        0.3,
        "mm",
        default=None,
        empty="by its power",
        help="Says how fast the coil heats. Empty: what is usual for its rated power, an estimate.",
    )
    r_tv: float | None = number(
        "Coil to motor",
        "thermal resistance",
        0.01,
        200,
        "K/W",
        default=None,
        symbol="Rtv",
        digits=2,
        empty="estimate",
        help="How much warmer the coil is than the motor for each watt. Empty: by its diameter.",
    )
    r_tm: float | None = number(
        "Motor to air",
        "thermal resistance",
        0.01,
        200,
        "K/W",
        default=None,
        symbol="Rtm",
        digits=2,
        empty="estimate",
        help="How much warmer the motor is than the air for each watt. Empty: by coil diameter.",
    )
    c_tv: float | None = number(
        "Heat the coil holds",
        "heat capacity",
        0.005,
        1000,
        "J/K",
        default=None,
        symbol="Ctv",
        digits=2,
        empty="estimate",
    )
    c_tm: float | None = number(
        "Heat the motor holds",
        "heat capacity",
        0.1,
        1e5,
        "J/K",
        default=None,
        symbol="Ctm",
        digits=0,
        empty="estimate",
    )
    play_from: float | None = number(
        "Recommended from",
        "frequency",
        10,
        20000,
        "Hz",
        default=None,
        empty="not stated",
        digits=0,
        help="The lowest crossover that its maker recommends.",
    )
    play_to: float | None = number(
        "Recommended up to",
        "frequency",
        20,
        40000,
        "Hz",
        default=None,
        empty="not stated",
        digits=0,
        help="The highest that its maker recommends.",
    )
    magnet_diameter: float | None = number(
        "Magnet diameter",
        "length",
        0.003,
        1,
        "mm",
        default=None,
        empty="estimate",
        digits=0,
        help="Empty: 0.6 of the cut-out, an estimate.",
    )
    magnet_height: float | None = number(
        "Magnet height",
        "length",
        0.001,
        1,
        "mm",
        default=None,
        empty="estimate",
        digits=0,
        help="Empty: 0.3 of the depth, an estimate.",
    )
    curves: tuple[MeasuredCurve, ...] = items("Measured curves", default=(), most=8)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class RadiatorPart(FramedPart):
    """One passive radiator, without added mass. Resonance and Q may stand for Cmp and Rmp."""

    sd: float | None = number("Cone area, each", "area", 1e-5, 1, "cm²", default=None, symbol="Sd")
    mmp: float | None = number(
        "Moving mass",
        "mass",
        1e-4,
        5,
        "g",
        default=None,
        symbol="Mmp",
        digits=1,
        help="With the air load, without added mass.",
    )
    cmp: float | None = number(
        "Compliance", "compliance", 1e-6, 0.1, "mm/N", default=None, symbol="Cmp", digits=3
    )
    rmp: float | None = number(
        "Mechanical loss",
        "mechanical resistance",
        0,
        100,
        "kg/s",
        default=None,
        symbol="Rmp",
        digits=2,
    )
    fp: float | None = number(
        "Free resonance", "frequency", 1, 500, "Hz", default=None, symbol="Fp"
    )
    qmp: float | None = number(
        "Mechanical Q", "number", 0.5, 100, "", default=None, symbol="Qmp", digits=1
    )
    xmax: float | None = number(
        "Travel, one way", "length", 1e-4, 0.1, "mm", default=None, symbol="Xmax", digits=1
    )
    end_diameter: float | None = number(
        "Diameter at its rear",
        "length",
        0.003,
        1,
        "mm",
        default=None,
        empty="estimate",
        digits=0,
        help="Empty: half its cut-out, an estimate.",
    )
