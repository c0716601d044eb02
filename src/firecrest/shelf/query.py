"""The shelf's search: words and ranges as a maker writes them.

``Ø 140 to 200, under €40, 4 ohm, fs under 60 hz, paper`` asks for a frame of 140 to 200 mm, a price
up to 40, a nominal impedance of 4 ohm, a resonance below 60 Hz, and the word "paper". A unit says
which figure is meant; a figure can also be named by its symbol. What is no range is a word.
"""

import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from math import inf

from firecrest.assessment.figures import SYMBOLS, derivation_of, radiator_derivation
from firecrest.core.errors import ReadingError
from firecrest.core.reading import read_quantity
from firecrest.design.fields import field_facts
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.shelf.entry import Entry
from firecrest.shelf.kinds import KINDS

UNDER = ("under", "below", "up to", "at most", "<", "≤")
OVER = ("over", "above", "from", "at least", ">", "≥")
LONGEST = 200
SAME = 0.03
"""A single figure asks for this share around it."""

_COLUMNS: Mapping[str, tuple[str, str, tuple[str, ...]]] = {
    "price": ("money", "€", ("€", "eur", "euro")),
    "mass": ("mass", "g", ("g", "kg", "oz", "lb", "lbs")),
    "impedance": ("resistance", "Ω", ("Ω", "ohm", "ohms")),
    "size": ("length", "in", ("in", "inch", '"', "″")),
    "frame": ("length", "mm", ("mm", "cm")),
}
"""Column: its quantity, its own unit, and the units that mean it."""

_WORDS = {
    "ø": "frame", "price": "price", "weight": "mass", "impedance": "impedance", "size": "size",
    "frame": "frame", "diameter": "frame",
}  # fmt: skip
_UNIT = r"(?:€|eur\b|euro\b|kg|g|oz|lbs?|Ω|ohms?|inch|in|\"|″|mm|cm|k?hz|mah|ah|wh?|v|a|l)"
_VALUE = rf"€?\s*\d+(?:[.,]\d+)?\s*{_UNIT}?(?![\w.,]*\w)"
_RANGE = re.compile(
    rf"(?P<symbol>ø|[a-z]+)?\s*(?P<bound>{'|'.join(map(re.escape, UNDER + OVER))})?\s*"
    rf"(?P<low>{_VALUE})(?:\s*(?:to|-|–|\.\.)\s*(?P<high>{_VALUE}))?",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Range:
    """``figure`` from ``low`` to ``high``, SI."""

    figure: str
    low: float
    high: float

    def holds(self, entry: Entry) -> bool:
        """Whether an entry lies in it; a figure it does not have is in no range."""
        value = figure_of(entry, self.figure)
        return value is not None and self.low <= value <= self.high


@dataclass(frozen=True)
class Query:
    """All words must be found and all ranges held."""

    words: tuple[str, ...]
    ranges: tuple[Range, ...]


def figure_of(entry: Entry, figure: str) -> float | None:
    """A column of the shelf, or a figure of the part, stated or following from the others; SI."""
    if figure in _COLUMNS:
        value = getattr(entry, figure)
    else:
        part = entry.part
        value = getattr(part, figure, None)
        if value is None and isinstance(part, DriverPart):
            value = derivation_of(part).figures.get(figure)
        elif value is None and isinstance(part, RadiatorPart):
            value = radiator_derivation(part).figures.get(figure)
    return None if value is None else float(value)


def _symbols() -> dict[str, str]:
    """Symbol in small letters: key, of everything that has one."""
    known = {symbol.lower(): key for key, symbol in SYMBOLS.items()}
    return {**known, **{key: key for key in SYMBOLS}, "power": "pe", "capacity": "capacity"}


def parse_query(text: str) -> Query:
    """Read a search; anything that is not a range is a word, so nothing is refused.

    What stands after ``LONGEST`` letters is left out.
    """
    text = " ".join(text[: 4 * LONGEST].split())[:LONGEST]
    words: list[str] = []
    ranges: list[Range] = []
    symbols = _symbols()
    for clause in re.split(r"[;,](?!\d)", text):
        rest = clause
        for match in _RANGE.finditer(clause):
            found = _range(match, symbols)
            if found is not None:
                kept, said = found
                ranges.append(kept)
                rest = rest.replace(said, " ", 1)
        words += rest.lower().split()
    return Query(tuple(words), tuple(ranges))


def _range(match: re.Match[str], symbols: Mapping[str, str]) -> tuple[Range, str] | None:
    """(range, the text it was read from); None when no figure is meant."""
    symbol = (match["symbol"] or "").lower()
    said = match[0]
    if symbol in UNDER + OVER:
        symbol, bound = "", symbol
    else:
        bound = (match["bound"] or "").lower()
    figure = _WORDS.get(symbol) or symbols.get(symbol)
    if figure is None and symbol:
        said = said[said.lower().index(symbol) + len(symbol) :]
    figure = figure or _by_unit(match["high"] or match["low"])
    if figure is None:
        return None
    try:
        low = _value(match["low"], figure, match["high"])
        high = low if match["high"] is None else _value(match["high"], figure, None)
    except ReadingError:
        return None
    if bound in UNDER:
        return Range(figure, -inf, high), said
    if bound in OVER and match["high"] is None:
        return Range(figure, low, inf), said
    if match["high"] is None:
        low, high = low * (1 - SAME), high * (1 + SAME)
    return Range(figure, min(low, high), max(low, high)), said


def _by_unit(value: str) -> str | None:
    """The column that a unit means."""
    unit = re.sub(r"[\d.,\s]", "", value)
    for column, (_, _, units) in _COLUMNS.items():
        if unit.lower() in (u.lower() for u in units):
            return column
    return None


def _value(text: str, figure: str, other: str | None) -> float:
    """A value in SI; without a unit it takes that of the other end of its range."""
    if not re.search(r"[^\d.,\s]", text) and other:
        text += re.sub(r"[\d.,\s]", "", other)
    quantity, unit = _declared(figure)
    return read_quantity(text, quantity, unit)


def _declared(figure: str) -> tuple[str, str]:
    if figure in _COLUMNS:
        return _COLUMNS[figure][:2]
    for kind in KINDS.values():
        if figure in kind.model.__dataclass_fields__:
            facts = field_facts(kind.model, figure)
            if facts is not None:
                return facts.quantity, facts.unit
    raise ReadingError(f"There is no figure called {figure}.")


def of_kind(entries: Iterable[Entry], kind: str, *, archived: bool) -> list[Entry]:
    """Entries of ``kind`` ("" for all), archived ones only when asked for."""
    return [e for e in entries if e.archived == archived and (not kind or e.kind == kind)]


def matching(
    found: list[Entry], query: Query, only: Iterable[Callable[[Entry], bool]] = ()
) -> list[Entry]:
    """What of ``found`` is asked for."""
    for word in query.words:  # one narrow pass after the other: each letter typed comes here
        found = [e for e in found if word in e.words]
    for rule in (*(r.holds for r in query.ranges), *only):
        found = [e for e in found if rule(e)]
    return found
