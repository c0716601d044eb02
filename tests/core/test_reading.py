import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.errors import FirecrestError, ReadingError
from firecrest.core.reading import read_quantity
from firecrest.core.units import QUANTITIES

INCH = 0.0254


@pytest.mark.parametrize(
    ("text", "quantity", "unit", "value"),
    [
        ("3.2 L", "volume", "L", 3.2e-3),
        ("3,2", "volume", "L", 3.2e-3),
        ("0.11 cu ft", "volume", "L", 0.11 * 0.3048**3),
        ("0,11 cuft", "volume", "L", 0.11 * 0.3048**3),
        ("7100 cm³", "volume", "L", 7.1e-3),
        ("430 cu in", "volume", "L", 430 * INCH**3),
        ("12 oz", "mass", "g", 12 * 0.45359237 / 16),
        ("1 lb 2 oz", "mass", "g", 1.125 * 0.45359237),
        ("7 1/4 in", "length", "mm", 7.25 * INCH),
        ('7 1/4"', "length", "mm", 7.25 * INCH),
        ("3/4 in", "length", "mm", 0.75 * INCH),
        ("13½ in", "length", "mm", 13.5 * INCH),
        ("340-2*12 mm", "length", "mm", 0.316),
        ("340 - 2 × 12", "length", "mm", 0.316),
        ("(340-24)/2 mm", "length", "mm", 0.158),
        ("1 ft 2 in", "length", "mm", 14 * INCH),
        ("2k2", "resistance", "Ω", 2200.0),
        ("4R7", "resistance", "Ω", 4.7),
        ("3.4 ohm", "resistance", "Ω", 3.4),
        ("22 mΩ", "resistance", "mΩ", 0.022),
        ("1.2 k", "frequency", "Hz", 1200.0),
        ("1.2kHz", "frequency", "Hz", 1200.0),
        ("1,234.5 Hz", "frequency", "Hz", 1234.5),
        ("1.234,5 Hz", "frequency", "Hz", 1234.5),
        ("68 °F", "temperature", "°C", 293.15),
        ("−3 dB", "gain", "dB", -3.0),
        ("€24", "money", "€", 24.0),
        ("24 €", "money", "€", 24.0),
        ("90 min", "time", "h", 5400.0),
        ("4000 mAh", "charge", "Ah", 14400.0),
        ("15 %", "share", "%", 0.15),
        ("1e-3", "length", "m", 1e-3),
        ("2 gallon", "volume", "L", 2 * 231 * INCH**3),
        ("2 yard", "length", "mm", 72 * INCH),
    ],
)
def test_reads_what_makers_type(text, quantity, unit, value):
    assert read_quantity(text, quantity, unit) == pytest.approx(value, rel=1e-9)


@pytest.mark.parametrize(
    "text",
    [
        "",
        " ",
        "abc",
        "12 kg",
        "3 +",
        "(3",
        "3 L * 2 L",
        "1/0",
        "--",
        "5 L 3 Hz",
        "1e999",
        "3 L)",
        "1" * 200,
        "2 seconds",
        "L",
        "((((((",
        "import os",
        "20 °C",
    ],
)
def test_refuses_what_is_no_volume(text):
    with pytest.raises(ReadingError, match=r"Not a volume. Try 7.1 L or 0.25 cu ft"):
        read_quantity(text, "volume", "L")


def test_temperatures_cannot_be_added():
    with pytest.raises(ReadingError):
        read_quantity("20 °C + 5 °C", "temperature", "°C")


@given(
    st.text(alphabet="0123456789.,+-*/() LlmcinftozkgHz½€°\"'eE", max_size=30),
    st.sampled_from(sorted(QUANTITIES)),
)
def test_any_text_is_read_or_refused_with_a_sentence(text, quantity):
    try:
        value = read_quantity(text, quantity, QUANTITIES[quantity].units[0].label)
    except FirecrestError as error:
        assert str(error).startswith("Not a")
    else:
        assert isinstance(value, float)


@given(st.floats(0.001, 1e6), st.sampled_from([u.label for u in QUANTITIES["length"].units]))
def test_reads_back_what_it_shows(value, unit):
    shown = f"{value:.9g} {unit}"
    factor = QUANTITIES["length"].unit(unit).factor
    assert read_quantity(shown, "length", "mm") == pytest.approx(value * factor, rel=1e-7)
