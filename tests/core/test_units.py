import pytest

from firecrest.core.reading import units_library
from firecrest.core.units import QUANTITIES, figure, from_si, shown, to_si

PINT_NAMES = {
    "mm": "millimeter",
    "in": "inch",
    "ft": "foot",
    "cm²": "cm**2",
    "mm²": "mm**2",
    "m²": "m**2",
    "sq in": "inch**2",
    "L": "liter",
    "cm³": "cm**3",
    "m³": "m**3",
    "cu ft": "foot**3",
    "cu in": "inch**3",
    "Ω": "ohm",
    "mΩ": "milliohm",
    "µH": "microhenry",
    "T·m": "tesla*meter",
    "µm/N": "micrometer/newton",
    "kPa·s/m³": "kPa*s/m**3",
    "Pa·s/m³": "Pa*s/m**3",
    "ft/s": "foot/second",
    "kg/m³": "kg/m**3",
    "g/cm³": "g/cm**3",
    "Ah": "ampere_hour",
    "mAh": "milliampere_hour",
    "h": "hour",
    "°": "degree",
    "€/kg": "1/kilogram",
}
MEASURED = [
    (q.name, u.label)
    for q in QUANTITIES.values()
    for u in q.units
    if q.pint not in ("dimensionless", "kelvin", "1/meter**2")
]


@pytest.mark.parametrize(("quantity", "unit"), MEASURED)
def test_factors_agree_with_an_independent_library(quantity, unit):
    name = PINT_NAMES.get(unit, unit)
    if quantity == "delay" and unit in ("mm", "cm", "in"):  # a path of sound at 343.2 m/s
        metres = units_library().Quantity(1.0, name).to("m").magnitude
        assert to_si(1.0, quantity, unit) == pytest.approx(metres / 343.2, rel=1e-12)
        return
    factor = units_library().Quantity(1.0, name).to(QUANTITIES[quantity].pint).magnitude
    assert to_si(1.0, quantity, unit) == pytest.approx(factor, rel=1e-12)


@pytest.mark.parametrize("quantity", list(QUANTITIES))
def test_every_unit_goes_there_and_back(quantity):
    for unit in QUANTITIES[quantity].units:
        assert from_si(to_si(3.7, quantity, unit.label), quantity, unit.label) == pytest.approx(3.7)


def test_temperatures_have_offsets():
    assert to_si(20, "temperature", "°C") == pytest.approx(293.15)
    assert to_si(68, "temperature", "°F") == pytest.approx(293.15)


@pytest.mark.parametrize(
    ("value", "digits", "text"),
    [
        (-1.84, 1, "−1.8"),
        (-0.04, 1, "0.0"),
        (2.0, 0, "2"),
        (float("nan"), 1, "–"),
        (float("inf"), 1, "–"),
    ],
)
def test_figures_have_a_true_minus_and_no_minus_zero(value, digits, text):
    assert figure(value, digits) == text


def test_money_has_its_sign_in_front():
    assert shown(318.4, "money", "€", 0) == "€318"
    assert shown(0.0071, "volume", "L", 1) == "7.1\u202fL"
