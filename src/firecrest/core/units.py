"""Quantities and their units: everything is SI inside, the edges convert here.

The units that are shown live in one small table, so that no keystroke waits for a units library;
``reading`` asks that library only for units not found here.
"""

from dataclasses import dataclass
from math import isfinite, pi
from typing import SupportsFloat


@dataclass(frozen=True)
class Unit:
    """SI value = shown value x factor + offset."""

    label: str
    factor: float
    offset: float = 0.0
    other_names: tuple[str, ...] = ()


@dataclass(frozen=True)
class Quantity:
    """What a number measures; ``example`` is shown when a text cannot be read."""

    name: str
    article: str
    pint: str
    units: tuple[Unit, ...]
    example: str

    def unit(self, label: str) -> Unit:
        """The unit with ``label``; raises KeyError when this quantity has none such."""
        for unit in self.units:
            if unit.label == label:
                return unit
        raise KeyError(label)


def _quantity(
    name: str, article: str, pint: str, example: str, *units: tuple[object, ...]
) -> Quantity:
    made = [
        Unit(str(label), float(str(factor)), 0.0, tuple(str(n) for n in names))
        for label, factor, *names in units
    ]
    return Quantity(name, article, pint, tuple(made), example)


INCH, FOOT, POUND = 0.0254, 0.3048, 0.45359237

# fmt: off
QUANTITIES = {
    q.name: q
    for q in (
        _quantity("length", "a length", "meter", "340 mm or 13 3/8 in",
                  ("mm", 1e-3), ("cm", 1e-2), ("m", 1.0),
                  ("in", INCH, "inch", "inches", "in.", '"', "″"),
                  ("ft", FOOT, "foot", "feet", "'")),
        _quantity("area", "an area", "meter**2", "84 cm² or 13 sq in",
                  ("cm²", 1e-4, "cm2", "cm^2", "sq cm", "sqcm", "sq. cm"),
                  ("mm²", 1e-6, "mm2", "mm^2"),
                  ("m²", 1.0, "m2", "m^2"),
                  ("sq in", INCH**2, "in2", "in²", "in^2", "sq. in.", "sq.in.", "sqin")),
        _quantity("volume", "a volume", "meter**3", "7.1 L or 0.25 cu ft",
                  ("L", 1e-3, "l", "litre", "litres", "liter", "liters", "ltr",
                   "dm³", "dm3"),
                  ("cm³", 1e-6, "cm3", "cc", "ml", "mL"), ("m³", 1.0, "m3"),
                  ("cu ft", FOOT**3, "ft3", "ft³", "cuft", "cu.ft", "cu. ft.", "cu.ft.",
                   "cf", "cubic feet", "cubic foot"),
                  ("cu in", INCH**3, "in3", "in³", "cubic inches")),
        _quantity("mass", "a mass", "kilogram", "120 g or 4 oz",
                  ("g", 1e-3, "gr", "gram", "grams"), ("kg", 1.0),
                  ("oz", POUND / 16, "ounce", "ounces"),
                  ("lb", POUND, "lbs", "pound", "pounds")),
        _quantity("frequency", "a frequency", "hertz", "52 Hz or 1k2",
                  ("Hz", 1.0, "hz", "hertz"), ("kHz", 1e3, "khz")),
        _quantity("level", "a level", "dimensionless", "96 dB", ("dB", 1.0, "db")),
        _quantity("gain", "a gain", "dimensionless", "3 dB", ("dB", 1.0, "db")),
        _quantity("time", "a time", "second", "5 h or 90 min",
                  ("h", 3600.0, "hours", "hour"), ("min", 60.0), ("s", 1.0)),
        _quantity("delay", "a delay", "second", "0.25 ms or 86 mm",
                  ("ms", 1e-3), ("µs", 1e-6, "us"), ("mm", 1e-3 / 343.2), ("cm", 1e-2 / 343.2),
                  ("in", INCH / 343.2, "inch", "inches", '"')),
        _quantity("charge", "a charge", "coulomb", "4000 mAh or 4 Ah",
                  ("Ah", 3600.0), ("mAh", 3.6, "mah")),
        _quantity("energy", "an energy", "joule", "50 Wh", ("Wh", 3600.0, "wh"), ("J", 1.0)),
        _quantity("voltage", "a voltage", "volt", "24 V", ("V", 1.0, "v"), ("mV", 1e-3),
                  ("µV", 1e-6, "uV")),
        _quantity("current", "a current", "ampere", "7.5 A", ("A", 1.0, "a"), ("mA", 1e-3, "ma")),
        _quantity("power", "a power", "watt", "60 W", ("W", 1.0, "w", "watt", "watts"),
                  ("mW", 1e-3)),
        _quantity("resistance", "a resistance", "ohm", "3.4 Ω or 22 mΩ",
                  ("Ω", 1.0, "ohm", "ohms", "R"), ("mΩ", 1e-3, "mohm"),
                  ("kΩ", 1e3, "kohm", "kOhm")),
        _quantity("capacitance", "a capacitance", "farad", "1000 µF",
                  ("µF", 1e-6, "uF", "uf", "µf"), ("mF", 1e-3), ("F", 1.0)),
        _quantity("inductance", "an inductance", "henry", "0.22 mH",
                  ("mH", 1e-3, "mh"), ("µH", 1e-6, "uH", "uh"), ("H", 1.0)),
        _quantity("force factor", "a force factor", "tesla*meter", "5.6 T·m",
                  ("T·m", 1.0, "Tm", "T.m", "T*m", "T-m", "N/A", "Wb/m")),
        _quantity("compliance", "a compliance", "meter/newton", "0.6 mm/N",
                  ("mm/N", 1e-3), ("m/N", 1.0), ("µm/N", 1e-6, "um/N")),
        _quantity("mechanical resistance", "a mechanical resistance", "newton*second/meter",
                  "1.0 kg/s", ("kg/s", 1.0, "N·s/m", "Ns/m", "N.s/m", "N*s/m")),
        _quantity("flow resistivity", "a flow resistivity", "pascal*second/meter**2",
                  "5 kPa·s/m²",
                  ("kPa·s/m²", 1e3, "kPa·s/m2", "kN·s/m4"), ("Pa·s/m²", 1.0, "Pa·s/m2")),
        _quantity("thermal resistance", "a thermal resistance", "kelvin/watt", "4 K/W",
                  ("K/W", 1.0, "°C/W", "C/W")),
        _quantity("heat capacity", "a heat capacity", "joule/kelvin", "1.2 J/K",
                  ("J/K", 1.0, "Ws/K")),
        _quantity("leak resistance", "an acoustic resistance", "pascal*second/meter**3",
                  "800 kPa·s/m³", ("kPa·s/m³", 1e3, "kPa·s/m3"), ("Pa·s/m³", 1.0, "Pa·s/m3")),
        _quantity("speed", "a speed", "meter/second", "17 m/s", ("m/s", 1.0), ("ft/s", FOOT)),
        _quantity("density", "a density", "kilogram/meter**3", "680 kg/m³",
                  ("kg/m³", 1.0, "kg/m3"), ("g/cm³", 1e3, "g/cm3")),
        _quantity("pressure", "an air pressure", "pascal", "1013 hPa",
                  ("hPa", 100.0, "mbar"), ("kPa", 1e3), ("Pa", 1.0)),
        _quantity("share", "a share", "dimensionless", "15 %", ("%", 0.01, "percent")),
        _quantity("number", "a number", "dimensionless", "0.71", ("", 1.0)),
        _quantity("money", "a sum", "dimensionless", "€24", ("€", 1.0, "EUR", "eur", "euro")),
        _quantity("money per area", "a price per area", "1/meter**2", "30 €/m²",
                  ("€/m²", 1.0, "EUR/m2", "€/m2")),
        _quantity("money per mass", "a price per weight", "1/kilogram", "22 €/kg",
                  ("€/kg", 1.0, "EUR/kg")),
        _quantity("elasticity", "a stiffness", "pascal", "8 GPa",
                  ("GPa", 1e9), ("MPa", 1e6, "N/mm²", "N/mm2")),
        Quantity("temperature", "a temperature", "kelvin",
                 (Unit("°C", 1.0, 273.15, ("C", "degC")),
                  Unit("°F", 5 / 9, 273.15 - 32 * 5 / 9, ("F", "degF")), Unit("K", 1.0)),
                 "20 °C or 68 °F"),
        _quantity("temperature difference", "a temperature difference", "kelvin", "5 K",
                  ("K", 1.0, "°C", "C")),
        _quantity("angle", "an angle", "radian", "45°", ("°", pi / 180, "deg")),
    )
}

# fmt: on
MINUS = "\u2212"
THIN_SPACE = "\u202f"


def to_si(value: float, quantity: str, unit: str) -> float:
    """SI value of ``value`` in the unit labelled ``unit``."""
    u = QUANTITIES[quantity].unit(unit)
    return value * u.factor + u.offset


def from_si(value: float, quantity: str, unit: str) -> float:
    """Inverse of ``to_si``."""
    u = QUANTITIES[quantity].unit(unit)
    return (value - u.offset) / u.factor


def figure(value: SupportsFloat, digits: int) -> str:
    """``value`` with ``digits`` decimals and a true minus sign; a rounded zero has no sign."""
    if not isfinite(value):
        return "–"
    text = f"{float(value):.{digits}f}"
    if text.startswith("-"):
        text = text[1:] if float(text) == 0 else MINUS + text[1:]
    return text


def shown(value: SupportsFloat, quantity: str, unit: str, digits: int) -> str:
    """Value and unit as shown: thin no-break space between, the sign of money in front."""
    text = figure(from_si(float(value), quantity, unit), digits)
    if unit == "€":
        return f"€{text}"
    return f"{text}{THIN_SPACE}{unit}" if unit else text
