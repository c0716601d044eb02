"""Figures in a pasted data sheet: recognised by their names, units and places, never guessed.

Each reading says where it stands in the text and how sure it is: ``clear`` (name, number and unit),
``check`` (something was assumed; it says what) or ``note`` (understood, but no figure of a part).
"""

import re
from bisect import bisect_left
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache
from math import isclose, pi
from typing import Literal

from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.errors import ShelfError
from firecrest.core.units import QUANTITIES, Unit
from firecrest.design.fields import FieldFacts, field_facts
from firecrest.shelf.kinds import KINDS

LONGEST = 20_000
State = Literal["clear", "check", "note"]

NAMES: Mapping[str, tuple[str, ...]] = {
    "re": ("re", "r_e", "rdc", "dcr", "dc resistance", "coil resistance",
           "voice coil resistance", "dc coil resistance"),
    "nominal": ("nominal impedance", "nom. impedance", "nom. imp.", "nom imp", "znom",
                "rated impedance", "impedance", "z nom"),
    "le": ("le", "l_e", "voice coil inductance", "coil inductance", "inductance", "lvc"),
    "fs": ("fs", "f_s", "f0", "fo", "free air resonance", "resonance frequency",
           "resonant frequency", "resonance", "free-air resonance"),
    "qes": ("qes", "q_es", "electrical q", "q electrical"),
    "qms": ("qms", "q_ms", "mechanical q", "q mechanical"),
    "qts": ("qts", "q_ts", "total q", "q total", "qt"),
    "vas": ("vas", "v_as", "equivalent volume", "equivalent air volume",
            "equivalent compliance volume"),
    "sd": ("sd", "s_d", "effective piston area", "effective cone area", "effective area",
           "piston area", "cone area", "radiating area", "effective radiating area"),
    "bl": ("bl", "b·l", "b.l", "bxl", "b x l", "b*l", "force factor", "motor force factor"),
    "mms": ("mms", "m_ms", "moving mass", "effective moving mass", "moving mass incl. air"),
    "mmd": ("mmd", "m_md", "moving mass without air"),
    "cms": ("cms", "c_ms", "suspension compliance", "mechanical compliance", "compliance"),
    "rms": ("rms", "r_ms", "mechanical resistance", "mechanical loss"),
    "xmax": ("xmax", "x_max", "x max", "linear excursion", "max. linear excursion",
             "maximum linear excursion", "linear travel", "excursion", "travel one way", "travel"),
    "xmech": ("xmech", "x_mech", "x mech", "damage travel", "mechanical limit", "xlim",
              "max. mechanical excursion", "maximum mechanical excursion"),
    "pe": ("pe", "rated power", "power handling", "nominal power", "rms power", "power rms",
           "continuous power", "power rating", "rated noise power", "power"),
    "mass": ("net weight", "weight", "mass"),
    "price": ("price",),
    "frame": ("overall diameter", "frame diameter", "outer diameter", "outside diameter"),
    "cut_out": ("cut-out diameter", "cutout diameter", "baffle cut-out", "baffle cutout",
                "cut-out", "cutout", "baffle hole"),
    "depth": ("mounting depth", "depth behind the panel", "overall depth", "depth"),
    "displacement": ("volume displaced by driver", "driver volume", "displacement volume",
                     "net displacement"),
    "size": ("nominal diameter", "nominal size", "size class"),
    "mmp": ("mmp", "m_mp"), "cmp": ("cmp", "c_mp"), "rmp": ("rmp", "r_mp"),
    "fp": ("fp", "f_p"), "qmp": ("qmp", "q_mp"),
}  # fmt: skip
"""How sheets call the figures, longest match first."""

DECOYS = (
    "sensitivity", "sens.", "spl", "efficiency", "frequency range", "frequency response",
    "voice coil diameter", "coil diameter", "voice coil height", "winding height", "gap height",
    "magnet weight", "magnet mass", "magnet size", "magnet diameter", "flux density", "max power",
    "peak power", "music power", "maximum power", "voice coil length", "minimum impedance", "zmin",
    "shipping weight", "number of layers", "vd", "ebp", "eta0", "usable range", "crossover",
)  # fmt: skip
"""Names that look like figures of ours and are not: kept as notes."""

RADIATOR_NAMES = {"fs": "fp", "qms": "qmp", "mms": "mmp", "cms": "cmp", "rms": "rmp"}
"""On a radiator's sheet the driver's words mean its own figures."""

_RAISED = r"(?:\^|\*\*)\s?\(?\s?[-+]?\d{1,2}(?!\d)\)?|[⁻⁺]?[⁰¹²³⁴⁵⁶⁷⁸⁹]{1,2}"
_POWER = rf"10\s?(?:{_RAISED}|[-+]\d{{1,2}}(?!\d))"
"""Ten to a power in every spelling: 10^-4, 10^(-4), 10**-4, 10⁻⁴ and, after a times sign, 10-4."""
_NUMBER = (
    rf"(?:10\s?(?:{_RAISED})|(?:\d++(?:[.,]\d++){{0,8}}|[.,]\d++)"
    rf"(?:\s{{0,3}}[x×*·]\s{{0,3}}{_POWER}|\s?[eE]\s?[-+]\d{{1,2}}(?!\d)|[eE]\d{{1,2}}(?!\d))?)"
)
_UNREAD_POWER = re.compile(
    r"\s?(?:\^|\*\*|[⁻⁺⁰¹²³⁴⁵⁶⁷⁸⁹]|[x×*·]\s{0,3}\d|[eE]\s?[-+]?\d|10\s?(?:\^|\*\*|[⁻⁺⁰¹²³⁴⁵⁶⁷⁸⁹]))"
)
"""What after a number would change its size, in a spelling that is not read."""
_SCALE = re.compile(
    rf"(?:\s{{0,3}}[x×*·]\s{{0,3}}10\s?(?P<power>{_RAISED}|[-+]\d{{1,2}})"
    rf"|^10\s?(?P<bare>{_RAISED})|\s?[eE]\s?(?P<e>[-+]?\d{{1,2}}))$"
)
"""The power of ten at the end of a number."""
_POWER_IN_UNIT = re.compile(rf"10\s?(?:{_RAISED}|[-+]\d)")
_WIDE = str.maketrans(
    {"−": "-", "–": "-", "\u00a0": " ", "\u202f": " ", "\u2009": " ", "\t": " ", "μ": "µ", "‐": "-",
     "✕": "×", "✖": "×", "⨯": "×", "X": "x", "∙": "·", "⋅": "·", "•": "·", "∗": "*"}
)  # fmt: skip
_POWERS = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻⁺", "0123456789-+")


@dataclass(frozen=True)
class Reading:
    """One figure: SI ``value``, the ``text`` it was read from and where, and how sure it is."""

    figure: str
    value: float
    text: str
    start: int
    end: int
    state: State
    remark: str = ""
    tolerance: float | None = None


@cache
def _labels() -> re.Pattern[str]:
    """All names, longest first; decoys shadow the shorter names they contain."""
    names = {name for group in NAMES.values() for name in group} | set(DECOYS)
    longest = sorted(names, key=len, reverse=True)
    spelt = "|".join(re.escape(n).replace(r"\ ", r"\s{1,4}") for n in longest)
    return re.compile(rf"(?<![\w.])(?:{spelt})(?![A-Za-z_])", re.IGNORECASE)


# Groups are not possessive here: Python before 3.11.5 loses matches of those that hold others.
_AFTER = re.compile(
    r"\s*+(?:\((?P<aside>[^)\n]{1,40})\)|\[(?P<box>[^\]\n]{1,20})\])?\s*+"
    r"(?:(?:[A-Za-z]\w{0,3}|symbol)(?=\s*+[:=|]))?"
    r"[\s:=|;,…)\]]*+(?:\.{2,}+)?[\s:=|]*+"
    r"(?:(?:approx\.?|ca\.?|about|typ\.?|~|±|\+/-|Ø|€)\s*+){0,4}"
    rf"(?P<pair>\d\s?[x×]\s?(?!{_POWER}))?(?P<number>{_NUMBER})"
    rf"(?:\s{{0,3}}(?:±|\+/-)\s{{0,3}}(?P<spread>\d{{1,9}}(?:[.,]\d{{1,9}})?)\s?(?P<percent>%)?)?"
    rf"(?:\s?/\s?{_NUMBER})?"
    r"[\s|\[(]{0,3}(?P<unit>[^\s\d|;,()\[\]][^\n|;,()\[\]]{0,11})?"
)


def read_sheet(text: str, kind: str = "driver") -> list[Reading]:
    """Figures of a ``kind`` ("driver" or "radiator") in ``text``, in the order they stand.

    ShelfError when the text is longer than a sheet ever is.
    """
    if len(text) > LONGEST:
        raise ShelfError(f"This text has {len(text)} letters; a sheet has up to {LONGEST}.")
    plain = text.translate(_WIDE)
    by_name = {" ".join(n.split()): key for key, group in NAMES.items() for n in group}
    found: list[Reading] = []
    places = list(_labels().finditer(plain))
    for place, label in enumerate(places):
        stop = places[place + 1].start() if place + 1 < len(places) else len(plain)
        value = _AFTER.match(plain, label.end(), stop)
        if value is None:
            continue
        figure = by_name.get(" ".join(label[0].lower().split()), "")
        if kind == "radiator":
            figure = RADIATOR_NAMES.get(figure, figure)
        found.append(_reading(figure, label, value, kind))
    return _settled(found, kind)


def _reading(figure: str, label: re.Match[str], value: re.Match[str], kind: str) -> Reading:
    """One label with the number after it."""
    end = value.end("number")
    said = label.string[label.start() : end]
    facts = _facts(figure, kind)
    if facts is None:
        return Reading("", 0.0, said, label.start(), end, "note")
    if value["pair"]:
        if figure == "nominal" and value["pair"].startswith("2"):
            remark = "taken as two voice coils"
            return Reading("coils", 2.0, said, label.start(), end, "check", remark)
        remark = "a figure times another: enter it by hand"
        return Reading("", 0.0, said, label.start(), end, "note", remark)
    aside = f"{value['aside'] or ''} {value['box'] or ''}"
    if _UNREAD_POWER.match(label.string, end) or _POWER_IN_UNIT.search(aside):
        remark = "a power of ten that cannot be read: enter it by hand"
        return Reading("", 0.0, said, label.start(), end, "note", remark)
    unit, unit_end = _unit(value, facts)
    stop = max(end, unit_end)
    said = label.string[label.start() : stop]
    if unit is None and _foreign(value):
        remark = f"{value['unit']} is not {QUANTITIES[facts.quantity].article}'s unit"
        return Reading("", 0.0, said, label.start(), stop, "note", remark)
    assumed = unit is None and facts.unit not in ("", "€")
    state: State = "check" if assumed else "clear"
    remark = f"no unit: taken as {facts.unit}" if assumed else ""
    in_force = unit or QUANTITIES[facts.quantity].unit(facts.unit)
    amount, thousands = _value(value["number"], in_force, facts)
    if thousands:
        state, remark = "check", "comma or point taken as a thousands sign"
    tail = label.string[stop : stop + 14].lower()
    if figure in ("xmax", "xmech") and re.match(r"\W*(p-p|pp\b|peak.to.peak|pk-pk)", tail):
        amount, state, remark = amount / 2, "check", "peak to peak on the sheet: halved"
    if not facts.low <= amount <= facts.high:
        remark = f"outside the accepted range, {facts.range_text()}"
        return Reading("", amount, said, label.start(), stop, "note", remark)
    spread = _spread(value, tail, amount, in_force)
    return Reading(figure, amount, said, label.start(), stop, state, remark, spread)


def _facts(figure: str, kind: str) -> FieldFacts | None:
    """Declaration of a figure of this kind of part."""
    name = "mms" if figure == "mmd" else figure
    model = KINDS[kind].model
    return field_facts(model, name) if name in model.__dataclass_fields__ else None


def _unit(value: re.Match[str], facts: FieldFacts) -> tuple[Unit | None, int]:
    """(unit, where it ends): after the number, or in brackets after the name."""
    after = value["unit"] or ""
    words = re.findall(r"\S+", after)
    for count in (2, 1):
        text = " ".join(words[:count])
        for candidate in (text, text.rstrip(".:")):
            unit = _known(candidate, facts.quantity)
            if unit is not None:
                return unit, value.start("unit") + after.index(words[0]) + len(candidate)
    for aside in (value["box"], value["aside"]):
        unit = _known((aside or "").strip(), facts.quantity)
        if unit is not None:
            return unit, -1
    return None, -1


def _known(text: str, quantity: str) -> Unit | None:
    """The unit of our own table that a text is; small and capital letters alike."""
    units = [u for u in QUANTITIES[quantity].units if u.label]
    for fold in (str, str.lower):
        for unit in units:
            if text and fold(text) in (fold(n) for n in (unit.label, *unit.other_names)):
                return unit
    return None


def _foreign(value: re.Match[str]) -> bool:
    """Whether the word after the number is a unit of something else."""
    word = (value["unit"] or "").split()[:1]
    return bool(word) and any(
        word[0].rstrip(".") in (u.label, *u.other_names)
        for q in QUANTITIES.values()
        for u in q.units
        if u.label and u.label != "%"
    )


def _value(text: str, unit: Unit, facts: FieldFacts) -> tuple[float, bool]:
    """(SI value, whether a sign was taken as thousands because only so it is in range)."""
    plain, scale = text, 1.0
    power = _SCALE.search(text)
    if power is not None:
        spelt = (power["power"] or power["bare"] or power["e"]).translate(_POWERS)
        plain = text[: power.start()] or "1"
        scale = 10.0 ** int(re.sub(r"[^-+\d]", "", spelt))
    if "," in plain and "." in plain:
        plain = plain.replace("," if plain.rfind(".") > plain.rfind(",") else ".", "")
    whole = re.sub(r"[.,]", "", plain)
    grouped = re.fullmatch(r"[1-9]\d{0,2}(?:[.,]\d{3})+", plain) is not None
    if len(re.findall(r"[.,]", plain)) > 1:
        plain = whole
    amount = float(plain.replace(",", ".")) * scale * unit.factor
    if grouped and not facts.low <= amount <= facts.high:
        return float(whole) * scale * unit.factor, True
    return amount, False


def _spread(value: re.Match[str], tail: str, amount: float, unit: Unit) -> float | None:
    """Stated tolerance as a share, before or after the unit."""
    number, percent = value["spread"], value["percent"]
    if not number:
        after = re.match(r"\s*(?:±|\+/-)\s*(\d+(?:[.,]\d+)?)\s*(%)?", tail)
        if after is None:
            return None
        number, percent = after[1], after[2]
    share = float(number.replace(",", "."))
    if not percent and not amount:
        return None
    share = share / 100 if percent else share * unit.factor / amount
    return share if 0 < share < 1 else None


def _settled(found: Sequence[Reading], kind: str) -> list[Reading]:
    """Only the first of each figure counts; a mass without air becomes one with it."""
    first: dict[str, Reading] = {}
    done: list[Reading] = []
    for reading in found:
        if reading.figure and reading.figure in first:
            same = isclose(first[reading.figure].value, reading.value, rel_tol=0.02)
            remark = "said before" if same else "said before, with another value"
            reading = replace(reading, figure="", state="note", remark=remark)
        elif reading.figure:
            first[reading.figure] = reading
        done.append(reading)
    return [_with_air(r, first) if r.figure == "mmd" else r for r in done]


def _with_air(reading: Reading, first: Mapping[str, Reading]) -> Reading:
    """Mmd to Mms: the air a disc carries on both sides weighs 8/3 rho a^3.

    Source: Beranek & Mellow, Acoustics (2012), ch. 13: unbaffled rigid disc at low frequencies.
    """
    if "mms" in first or "sd" not in first:
        remark = "said before" if "mms" in first else "needs the cone area to add the air"
        return replace(reading, figure="", state="note", remark=remark)
    radius = (first["sd"].value / pi) ** 0.5
    air = 8 / 3 * DATA_SHEET_AIR.density * radius**3
    remark = f"without air on the sheet: {1e3 * air:.2g} g of air added"
    return replace(reading, figure="mms", value=reading.value + air, state="check", remark=remark)


def name_in(text: str, readings: Sequence[Reading]) -> str:
    """The first line that holds letters and no figure: most likely the part's name."""
    taken = sorted(r.start for r in readings)
    place = 0
    for line in text.splitlines(keepends=True):
        free = bisect_left(taken, place) == bisect_left(taken, place + len(line))
        if free and re.search(r"[A-Za-z]{2}", line):
            return " ".join(line.split())[:80]
        place += len(line)
    return ""
