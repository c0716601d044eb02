"""Reads what a person types as a quantity: units, both decimal signs, fractions, sums.

``3.2 L``, ``0,11 cu ft``, ``7 1/4 in``, ``340-2*12 mm``, ``1 lb 2 oz``, ``2k2``. A number without
a unit takes that of its right-hand neighbour, then of its left-hand one, then the field's own.
"""

import re
from dataclasses import dataclass
from functools import lru_cache
from math import isfinite
from typing import Any

from firecrest.core.errors import ReadingError
from firecrest.core.units import QUANTITIES, Quantity, Unit

_NUMBER = r"\d+(?:\.\d*)?(?:[eE][-+]?\d+)?|\.\d+"
_TOKEN = re.compile(
    rf"\s*(?:(?P<mixed>\d+\s+\d+\s*/\s*\d+)|(?P<multiple>\d+[kKMR]\d+)"
    rf"|(?P<number>{_NUMBER})|(?P<sign>[-+*/()])"
    r"|(?P<unit>[A-Za-zµμΩ°%€\"'″²³·^]+(?:[/·][A-Za-zµμ²³^]+\d?|(?<=[A-Za-z])[23](?!\d))?))"
)
_MULTIPLES = {"k": 1e3, "K": 1e3, "M": 1e6, "R": 1.0}
LONGEST = 80
LONGEST_UNIT = 32
_UNIT = re.compile(r"[A-Za-z]+(?:\^?[1-4])?(?:\s?[ /*·]\s?[A-Za-z]+(?:\^?[1-4])?){0,3}")
"""What may go to the library: names with small powers. It would work out towers of powers."""


@dataclass(frozen=True)
class _Term:
    """A signed number and the unit that was written with it, if any."""

    value: float
    unit: Unit | None


def read_quantity(text: str, quantity: str, unit: str) -> float:
    """SI value of ``text``; bare numbers are in ``unit``.

    Raises ReadingError with a sentence and an example when the text is not such a quantity.
    """
    kind = QUANTITIES[quantity]
    failure = ReadingError(f"Not {kind.article}. Try {kind.example}")
    if not text.strip() or len(text) > LONGEST:
        raise failure
    try:
        value = _Reader(_tokens(_plain(text)), kind).total(kind.unit(unit))
    except (ValueError, ZeroDivisionError, OverflowError, RecursionError) as error:
        raise failure from error
    if not isfinite(value):
        raise failure
    return value


def _plain(text: str) -> str:
    """One decimal sign, plain minus and times signs, fractions spelt out, single spaces."""
    for old, new in (
        ("−", "-"),
        ("×", "*"),
        ("\u202f", " "),
        ("\u00a0", " "),
        ("μ", "µ"),
        ("½", " 1/2"),
        ("¼", " 1/4"),
        ("¾", " 3/4"),
        ("ohms", "Ω"),
        ("ohm", "Ω"),
    ):
        text = text.replace(old, new)
    if "," in text and "." in text:
        thousands = "," if text.rfind(".") > text.rfind(",") else "."
        text = text.replace(thousands, "")
    return text.replace(",", ".").strip()


def _tokens(text: str) -> list[tuple[str, str]]:
    """(kind, text) of each piece; two-word units such as ``cu ft`` come as one."""
    found: list[tuple[str, str]] = []
    place = 0
    while place < len(text):
        match = _TOKEN.match(text, place)
        if match is None or match.end() == place:
            raise ValueError(text[place:])
        kind, piece = str(match.lastgroup), match.group(str(match.lastgroup))
        if kind == "unit" and found and found[-1][0] == "unit":
            found[-1] = ("unit", f"{found[-1][1]} {piece}")
        else:
            found.append((kind, piece))
        place = match.end()
    return found


class _Reader:
    """Recursive descent over the tokens of one text."""

    def __init__(self, tokens: list[tuple[str, str]], quantity: Quantity) -> None:
        self.tokens = tokens
        self.quantity = quantity
        self.place = 0

    def total(self, own: Unit) -> float:
        """Sum of all terms in SI."""
        terms = self._sum()
        if self.place != len(self.tokens):
            raise ValueError("something is left over")
        units: list[Unit] = []
        following: Unit | None = None
        for term in reversed(terms):
            following = term.unit or following
            units.append(following or own)
        units.reverse()
        written = [t.unit for t in terms if t.unit is not None]
        if written:
            last = max(k for k, t in enumerate(terms) if t.unit is not None)
            units[last + 1 :] = [written[-1]] * (len(terms) - last - 1)
        offset = units[0].offset if len(terms) == 1 else 0.0
        if len(terms) > 1 and any(u.offset for u in units):
            raise ValueError("temperatures cannot be added")
        return sum(t.value * u.factor for t, u in zip(terms, units, strict=True)) + offset

    def _peek(self) -> tuple[str, str]:
        return self.tokens[self.place] if self.place < len(self.tokens) else ("end", "")

    def _take(self, *texts: str) -> str | None:
        kind, text = self._peek()
        if kind == "sign" and text in texts:
            self.place += 1
            return text
        return None

    def _sum(self) -> list[_Term]:
        terms = [self._product()]
        while True:
            sign = self._take("+", "-")
            adjoined = terms[-1].unit is not None and self._peek()[0] in ("number", "mixed")
            if sign is None and not adjoined:
                return terms
            term = self._product()
            terms.append(_Term(-term.value if sign == "-" else term.value, term.unit))

    def _product(self) -> _Term:
        term = self._factor()
        while sign := self._take("*", "/"):
            other = self._factor()
            if other.unit is not None and term.unit is not None:
                raise ValueError("two units multiplied")
            value = term.value * other.value if sign == "*" else term.value / other.value
            term = _Term(value, term.unit or other.unit)
        return term

    def _factor(self) -> _Term:
        if self._take("-"):
            inner = self._factor()
            return _Term(-inner.value, inner.unit)
        if self._take("+"):
            return self._factor()
        if self._take("("):
            terms = self._sum()
            if self._take(")") is None or any(t.unit for t in terms):
                raise ValueError("brackets hold plain numbers")
            return _Term(sum(t.value for t in terms), self._unit())
        front = self._unit() if self._peek() == ("unit", "€") else None
        kind, text = self._peek()
        self.place += 1
        return _Term(_number(kind, text), self._unit() or front)

    def _unit(self) -> Unit | None:
        kind, text = self._peek()
        if kind != "unit":
            return None
        self.place += 1
        return find_unit(text, self.quantity)


def _number(kind: str, text: str) -> float:
    """Value of one number token."""
    if kind == "number":
        return float(text)
    if kind == "mixed":
        whole, above, below = re.split(r"\s*/\s*|\s+", text)
        return float(whole) + float(above) / float(below)
    if kind == "multiple":
        whole, letter, rest = re.split(r"([kKMR])", text)
        return float(f"{whole}.{rest}") * _MULTIPLES[letter]
    raise ValueError(text)


def find_unit(text: str, quantity: Quantity) -> Unit:
    """The unit written as ``text``; ValueError when it is not one of ``quantity``."""
    for unit in quantity.units:
        if text in (unit.label, *unit.other_names):
            return unit
    for unit in quantity.units:
        if text.lower() in (n.lower() for n in (unit.label, *unit.other_names)):
            return unit
    if text in ("k", "K"):
        return Unit("k", 1e3 * quantity.units[0].factor)
    return _library_unit(text, quantity.pint)


@lru_cache(maxsize=1)
def units_library() -> Any:
    """The general units library, loaded on first need or in idle time after start."""
    import pint

    return pint.UnitRegistry(cache_folder=None)


def _library_unit(text: str, dimension: str) -> Unit:
    """A unit that only the general library knows."""
    if dimension == "dimensionless" or len(text) > LONGEST_UNIT or not _UNIT.fullmatch(text):
        raise ValueError(text)
    library = units_library()
    try:
        factor = library.Quantity(1.0, library.parse_units(text)).to(dimension).magnitude
    except Exception as error:
        # The library raises many kinds of its own, also from its tokenizer.
        raise ValueError(text) from error
    return Unit(text, float(factor))
