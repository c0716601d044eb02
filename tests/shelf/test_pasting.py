"""Pasted sheets in thirty hands: what each must give, and what must not be made of it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.errors import ShelfError
from firecrest.shelf.pasting import LONGEST, name_in, read_sheet

W13 = """ALDER W13-4  5¼ in full range
Nom. imp.  4 ohm
Re 3,5 Ω   Le 0,30 mH
fs 66 Hz   Qms 4.2
Mmd 9.6 g
Sd 87 cm2
Vas 0.26 cu.ft
power 34 W RMS
magnet ferrite, paper cone
sens. 92 dB/2.83V/1m"""

SHEETS = [
    (
        "Fs: 52 Hz, Qts 0.41, Vas = 7.2 litres, SD 83 cm²",
        {"fs": 52, "qts": 0.41, "vas": 7.2e-3, "sd": 83e-4},
    ),
    (
        W13,
        {"nominal": 4, "re": 3.5, "le": 0.3e-3, "fs": 66, "qms": 4.2, "mms": 10.07e-3,
         "sd": 87e-4, "vas": 7.362e-3, "pe": 34},
    ),
    ("Fs\t52\tHz\nQts\t0.41\nVas\t7,2\tL\n", {"fs": 52, "qts": 0.41, "vas": 7.2e-3}),
    ("Fs (Hz) : 52\nVas [l] 7.2\nSd (cm²): 83", {"fs": 52, "vas": 7.2e-3, "sd": 83e-4}),
    ("Fs\n52 Hz\nQes\n0.52\nQms\n4.1", {"fs": 52, "qes": 0.52, "qms": 4.1}),
    (
        "| Fs | 52 | Hz |\n| Mms | 12.6 | g |\n| Bl | 5.6 | Tm |",
        {"fs": 52, "mms": 12.6e-3, "bl": 5.6},
    ),
    ("fs=52hz;qts=.41;re=3.4ohm;le=0.22mh", {"fs": 52, "qts": 0.41, "re": 3.4, "le": 0.22e-3}),
    (
        "Resonance frequency ............ 45 Hz\nDC resistance .......... 5,8 Ohm",
        {"fs": 45, "re": 5.8},
    ),
    ("Cms 5.7x10^-4 m/N, Rms=1.02 kg/s", {"cms": 5.7e-4, "rms": 1.02}),
    ("Cms 5.7·10⁻⁴ m/N", {"cms": 5.7e-4}),
    ("Cms: 0.57E-3 m/N   Mms 1.2e-2 kg", {"cms": 0.57e-3, "mms": 0.012}),
    ("Compliance 600 µm/N, moving mass 0.44 oz", {"cms": 6e-4, "mms": 0.44 * 0.0283495}),
    ("Xmax 9 mm p-p", {"xmax": 4.5e-3}),
    ("Xmax: ± 4.5 mm, Xmech ±8 mm", {"xmax": 4.5e-3, "xmech": 8e-3}),
    ("Resonance 1,350 Hz (tweeter)\nRe 3.400 Ω", {"fs": 1350, "re": 3.4}),
    ("Power handling 40/80 W", {"pe": 40}),
    ("RMS power: 60 watts. Rms 1.1 kg/s", {"pe": 60, "rms": 1.1}),
    ("Max power 200 W\nNominal power 100 W", {"pe": 100}),
    ("Fs = 52 ± 3 Hz; Re 3.4 ohm ±5%", {"fs": 52, "re": 3.4}),
    ("Effective piston area Sd 0.0083 m2; Vas 440 cu in", {"sd": 83e-4, "vas": 440 * 1.6387e-5}),
    (
        "Sd 12.9 sq in  weight 1.6 lb  Overall diameter 5 1/4",
        {"sd": 12.9 * 6.4516e-4, "mass": 1.6 * 0.45359},
    ),
    ("Sd: 83\nFs: 52\nVas: 7.2", {"sd": 83e-4, "fs": 52, "vas": 7.2e-3}),
    ("Impedance: 2 x 4 ohm, Re 7.2 Ω", {"coils": 2, "re": 7.2}),
    (
        "Voice coil diameter 25 mm, magnet weight 400 g, voice coil inductance 0.4 mH",
        {"le": 0.4e-3},
    ),
    ("Frequency range 50-20000 Hz\nFs 61 Hz\nEfficiency 0.4 %", {"fs": 61}),
    ("Vas 7.2 mm, Fs 30 kg, Qts 0,38", {"qts": 0.38}),
    ("re: your order of 12 drivers. Fs 5000000 Hz", {}),
    (
        "Force factor (Bl): 6,1 N/A\nQ total 0.36\nMechanical Q: 3,9",
        {"bl": 6.1, "qts": 0.36, "qms": 3.9},
    ),
    ("Fs 52 Hz\nFs 54 Hz after break-in", {"fs": 52}),
    ("Qts : 0·41?? ~~~ Vas ca. 7.2 Litres!!! Fs~52Hz\x00", {"vas": 7.2e-3, "fs": 52}),
    (
        "Frame diameter 5.25 in. Cutout 4 5/8. Mounting depth 62 mm; price € 24",
        {"frame": 0.13335, "depth": 0.062, "price": 24},
    ),
    (
        "f0 48 Hz  Qe 0.4  Znom 8 Ω  Pe 50W  Xmax=5mm  Sd=1.33E2 cm²",
        {"fs": 48, "nominal": 8, "pe": 50, "xmax": 5e-3, "sd": 133e-4},
    ),
]  # fmt: skip


@pytest.mark.parametrize(("text", "wanted"), SHEETS, ids=[str(k) for k in range(len(SHEETS))])
def test_figures_of_a_pasted_sheet(text, wanted):
    found = {r.figure: r.value for r in read_sheet(text) if r.figure}
    if "mass" in wanted or "frame" in wanted:
        found = {key: found[key] for key in wanted}
    assert found == pytest.approx(wanted, rel=2e-3)


def test_every_reading_says_where_it_stands_and_how_sure_it_is():
    found = {r.figure or r.text: r for r in read_sheet(W13)}
    assert W13[found["re"].start : found["re"].end] == "Re 3,5 Ω"
    assert found["re"].state == found["vas"].state == "clear"
    assert found["mms"].state == "check"
    assert "0.47 g of air added" in found["mms"].remark
    assert found["sens. 92"].state == "note"
    bare = {r.figure: r for r in read_sheet("Sd: 83\nQts 0.4")}
    assert bare["sd"].remark == "no unit: taken as cm²"
    assert bare["qts"].state == "clear"
    assert read_sheet("Fs 1,350 Hz")[0].remark == "comma or point taken as a thousands sign"


def test_what_is_out_of_range_or_of_another_kind_is_a_note():
    (far,) = read_sheet("Fs 5000000 Hz")
    assert far.state == "note"
    assert "5 to 20000 Hz" in far.remark
    (other,) = read_sheet("Vas 7.2 mm")
    assert other.remark == "mm is not a volume's unit"
    first, second = read_sheet("Fs 52 Hz\nFs 54 Hz")
    assert (first.figure, second.figure, second.remark) == (
        "fs",
        "",
        "said before, with another value",
    )
    (alone,) = read_sheet("Mmd 9.6 g")
    assert alone.remark == "needs the cone area to add the air"


def test_stated_tolerances_are_kept():
    found = {r.figure: r.tolerance for r in read_sheet("Fs = 52 ± 3 Hz; Re 3.4 ohm ±5%, Qts 0.4")}
    assert found == pytest.approx({"fs": 3 / 52, "re": 0.05, "qts": None})


def test_a_radiators_sheet_in_a_drivers_words():
    found = {r.figure: r.value for r in read_sheet("Fs 25 Hz, Mms 52 g, Sd 118 cm²", "radiator")}
    assert found == pytest.approx({"fp": 25, "mmp": 0.052, "sd": 0.0118})


def test_the_name_is_the_first_line_without_figures():
    assert name_in(W13, read_sheet(W13)) == "ALDER W13-4 5¼ in full range"
    assert name_in("Fs 52 Hz", read_sheet("Fs 52 Hz")) == ""


def test_a_whole_book_is_refused():
    with pytest.raises(ShelfError, match="a sheet has up to"):
        read_sheet("x" * (LONGEST + 1))


@given(st.text(max_size=300))
def test_any_text_is_read_without_harm(text):
    for reading in read_sheet(text):
        assert 0 <= reading.start <= reading.end <= len(text)


@given(st.text("FfsQqtVvaRrems 0123456789.,:=±×^-LHzgΩ(mm)²\n", max_size=120))
def test_texts_of_the_right_letters_too(text):
    for reading in read_sheet(text):
        assert reading.state in ("clear", "check", "note")
