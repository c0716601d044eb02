"""Parts as tables: CSV out, and CSV in from whatever a spreadsheet made of it.

Columns are the keys of the parts with their unit in brackets, e.g. ``fs [Hz]``; see the guide. On
the way in any order, separator, decimal sign and unit will do, and columns may be missing.
"""

import csv
import io
import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, fields
from functools import cache
from typing import Any, Literal, get_args, get_origin, get_type_hints

from firecrest.core.errors import FirecrestError, ReadingError, ShelfError
from firecrest.core.reading import find_unit, read_quantity
from firecrest.core.units import QUANTITIES, from_si
from firecrest.design.fields import FieldFacts, field_facts, label_of
from firecrest.shelf.entry import Entry, fit_id, fit_notes, made_entry
from firecrest.shelf.kinds import KINDS, made_part
from firecrest.shelf.pasting import NAMES

LARGEST = 16 * 2**20
MOST_ROWS = 20_000
MOST_COLUMNS = 200
LONGEST_TITLE = 80
LONGEST_CELL = 4000
MOST_PROBLEMS = 2000
"""Cells that were not understood and are told; a file of nothing else needs no longer list."""
YES = ("yes", "true", "1", "x")
SEPARATORS = (";", "\t", ",", "|")
SHELF_COLUMNS = ("id", "kind", "name", "have", "favourite", "notes", "origins")
_LISTS: Mapping[str, tuple[tuple[str, float], ...]] = {
    "claims": (("power", 1.0), ("load", 1.0), ("supply", 1.0), ("thd", 0.01)),
    "table": (("charge", 0.01), ("rest_voltage", 1.0), ("resistance", 1e-3)),
    "large": (("travel", 1e-3), ("bl", 0.01), ("kms", 0.01), ("le", 0.01)),
    "warmth": (("temperature", 1.0), ("capacity", 0.01), ("resistance", 1.0)),
    "steps": (("voltage", 1.0), ("continuous_current", 1.0), ("burst_current", 1.0)),
}
"""Lists in one cell: ``60/4/24/10; 33/8/24/1`` is W/Ω/V/%, ``0/2.95/36`` is %/V/mΩ, ``253.15/70/4``
K, % and times, ``12/2.5/3`` V/A/A.
"""


@dataclass(frozen=True)
class Problem:
    """Something in a row that was not understood; ``row`` counts from the header as 1."""

    row: int
    column: str
    text: str
    reason: str


@dataclass(frozen=True)
class Table:
    """What a file holds: parts that can be taken, and what was not understood.

    ``stated`` holds the figures that each part's row really gives; empty: all of them.
    """

    entries: tuple[Entry, ...]
    problems: tuple[Problem, ...]
    ignored: tuple[str, ...] = ()
    stated: tuple[Mapping[str, Any], ...] = ()


@dataclass(frozen=True)
class _Column:
    """A column of the file: what it holds, and the unit its header gives."""

    title: str
    key: str
    unit: str


# out ---------------------------------------------------------------------------


SHEET_FACTS = ("name", "origins", "tolerances", "set_aside", "shelf")
NO_COLUMN = (*SHEET_FACTS, "efficiency", "other_outputs", "own_filter", "curves")


def scalar_keys(kind: str) -> list[str]:
    """Keys of a kind's numbers, choices and lists, in the order of its model."""
    keys = [f.name for f in fields(KINDS[kind].model) if f.name not in NO_COLUMN]
    return [k for k in keys if not (kind == "supply" and k == "kind")]


def write_table(entries: Sequence[Entry]) -> str:
    """CSV of parts of any kinds: a header with units, one row a part, decimal points."""
    kinds = list(dict.fromkeys(e.kind for e in entries))
    keys = list(dict.fromkeys(key for kind in kinds for key in _titled(kind)))
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\n")
    writer.writerow([*SHELF_COLUMNS, *keys])
    for entry in entries:
        titles = _titled(entry.kind)
        cells = [_cell(entry.part, titles[key]) if key in titles else "" for key in keys]
        origins = "; ".join(f"{k}={v}" for k, v in entry.part.origins.items())
        favourite = "yes" if entry.favourite else ""
        row = [entry.id, entry.kind, entry.name, entry.stock, favourite, entry.notes, origins]
        writer.writerow([*row, *cells])
    return stream.getvalue()


def _titled(kind: str) -> dict[str, str]:
    """Column title: key; the choice of a driver's kind is its ``type``."""
    titles = {}
    for key in scalar_keys(kind):
        facts = field_facts(KINDS[kind].model, key)
        title = "type" if key == "kind" else key
        titles[f"{title} [{facts.unit}]" if facts and facts.unit else title] = key
    return titles


def _cell(part: Any, key: str) -> str:
    value = getattr(part, key)
    if value is None:
        return ""
    if key in _LISTS:
        return "; ".join(_joined(item, _LISTS[key]) for item in value)
    facts = field_facts(type(part), key)
    if facts is None:
        return ("yes" if value else "no") if isinstance(value, bool) else str(value)
    return f"{from_si(value, facts.quantity, facts.unit):.9g}"


def _joined(item: Any, parts: Sequence[tuple[str, float]]) -> str:
    values = [(getattr(item, name), scale) for name, scale in parts]
    return "/".join("" if v is None else f"{v / scale:.6g}" for v, scale in values)


# in -----------------------------------------------------------------------------


def decoded(data: bytes) -> str:
    """Text of a file in UTF-8 or the old western code page; ShelfError when it is no text."""
    if b"\x00" in data[:4096] and not data.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise ShelfError("This is not a text file.")
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        return data.decode("utf-16", errors="replace")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace")


def read_table(text: str, kind: str = "driver") -> Table:
    """Parts in a CSV text; ``kind`` is taken where the file does not say.

    A cell that is not understood is left out and reported; a row without a name, or whose part
    cannot be, is left out whole. Nothing is written here. ShelfError when there is no header.
    """
    if len(text) > LARGEST:
        raise ShelfError(f"The table has more than {LARGEST // 2**20} million letters.")
    text = text.removeprefix("\ufeff").replace("\r\n", "\n").replace("\r", "\n")
    lines = text.split("\n")
    header = next((k for k, line in enumerate(lines) if line.strip()), None)
    if header is None:
        raise ShelfError("The file is empty.")
    separator = max(SEPARATORS, key=lambda s: (lines[header].count(s), -SEPARATORS.index(s)))
    try:
        rest = io.StringIO("\n".join(lines[header:]))
        rows = list(csv.reader(rest, delimiter=separator, skipinitialspace=True))
    except csv.Error as error:
        raise ShelfError(f"This is not a table that can be read: {error}.") from error
    if len(rows) > MOST_ROWS:
        raise ShelfError(f"The file has {len(rows)} rows; up to {MOST_ROWS} are read at once.")
    if len(rows[0]) > MOST_COLUMNS:
        raise ShelfError(f"The file has {len(rows[0])} columns; up to {MOST_COLUMNS} are read.")
    names = [_column(title[:LONGEST_TITLE]) for title in rows[0]]
    if "name" not in [c.key for c in names]:
        raise ShelfError(
            "The first row names no column called name. It should be a header such as: "
            "kind, name, fs [Hz], qts, vas [L], sd [cm²]"
        )
    problems: list[Problem] = []
    found = [
        made
        for number, row in enumerate(rows[1:], header + 2)
        if any(cell.strip() for cell in row)
        if (made := _entry(number, names, row, kind, problems)) is not None
    ]
    ignored = tuple(c.title.strip() for c in names if not c.key and c.title.strip())
    stated = tuple(figures for _, figures in found)
    return Table(tuple(entry for entry, _ in found), tuple(problems), ignored, stated)


def _column(title: str) -> _Column:
    """Key and unit of a header: ``Fs [Hz]``, ``fs (Hz)``, ``Resonance, Hz``, ``fs_hz``."""
    match = re.fullmatch(r"([^\[(,]++)(?:[\[(,]([^\])]*+)[\])]?+)?\s*+", title)
    name, unit = (match[1].strip(), (match[2] or "").strip()) if match else (title.strip(), "")
    key = _keys().get(_plain(name), "")
    if not key and re.search(r"[_ ]", name):
        front, _, back = name.replace(" ", "_").rpartition("_")
        key, unit = _keys().get(_plain(front), ""), unit or back
    return _Column(title, key, unit)


def _plain(name: str) -> str:
    return re.sub(r"[\s_.\-]++", " ", name).strip().lower()


@cache
def _keys() -> dict[str, str]:
    """Every way to call a column: keys, labels, symbols, names on sheets."""
    known = {_plain(n): key for key, group in NAMES.items() for n in group if key != "mmd"}
    for kind in KINDS.values():
        for key in scalar_keys(kind.key):
            facts = field_facts(kind.model, key)
            known[_plain(key)] = key
            known.setdefault(_plain(label_of(kind.model, key)), key)
            if facts and facts.symbol:
                known[_plain(facts.symbol)] = key
    own = {"have": "have", "stock": "have", "part": "name", "model": "name", "type": "type"}
    return {**known, **{c: c for c in SHELF_COLUMNS}, **own, "note": "notes"}


def _entry(
    number: int, columns: Sequence[_Column], row: Sequence[str], kind: str, found: list[Problem]
) -> tuple[Entry, Mapping[str, Any]] | None:
    """One row as an entry with its figures; None (and a problem) when it cannot be one."""
    cells = {
        c.key: (c, text.strip()[:LONGEST_CELL])
        for c, text in zip(columns, row, strict=False)
        if c.key
    }

    def said(key: str) -> str:
        """Text of a cell; empty when there is no such column."""
        return cells[key][1] if key in cells else ""

    def problem(column: str, text: str, reason: str) -> None:
        """Remember what was not understood."""
        if len(found) < MOST_PROBLEMS:
            found.append(Problem(number, column[:80], text[:80], reason[:300]))

    kind = said("kind").lower() or kind
    kind = {"dsp board": "dsp", "amp": "amplifier", "passive radiator": "radiator"}.get(kind, kind)
    if kind not in KINDS:
        problem("kind", said("kind"), f"not one of {', '.join(KINDS)}; the row is left out")
        return None
    if not said("name"):
        problem("name", "", "the row has no name and is left out")
        return None
    figures: dict[str, Any] = {"kind": "wall"} if kind == "supply" else {}
    figures["name"] = said("name")[:80]
    for key, (column, text) in cells.items():
        if text and key not in SHELF_COLUMNS and key != "have":
            _take(kind, key, column, text, figures, problem)
    figures["origins"] = _origins(kind, said("origins"), figures)
    try:
        part = made_part(kind, figures)
        fit_notes(said("notes"))
        if said("id"):
            fit_id(said("id"))
    except ShelfError as error:
        problem("", said("name"), f"{error}; the row is left out")
        return None
    stock = int(float(said("have"))) if re.fullmatch(r"\d{1,5}(\.0)?", said("have")) else 0
    entry = made_entry(
        kind,
        part,
        id=said("id"),
        notes=said("notes"),
        stock=stock,
        favourite=said("favourite").lower() in YES,
    )
    return entry, figures


def _take(
    kind: str,
    key: str,
    column: _Column,
    text: str,
    figures: dict[str, Any],
    problem: Callable[[str, str, str], None],
) -> None:
    """One cell into ``figures``, or a problem."""
    model = KINDS[kind].model
    name = "kind" if key == "type" else key
    if name not in scalar_keys(kind):
        return
    try:
        if name in _LISTS:
            figures[name] = _list(text, _LISTS[name])
        elif (facts := field_facts(model, name)) is not None:
            value = _number(text, column.unit, facts)
            facts.check(value)
            figures[name] = round(value) if facts.whole else float(f"{value:.9g}")
        else:
            figures[name] = _choice(text, model, name)
    except (FirecrestError, ValueError) as error:
        problem(column.title.strip(), text, str(error))


def _number(text: str, unit: str, facts: FieldFacts) -> float:
    """A cell in its own unit, the header's, or the field's."""
    if unit:
        try:
            factor = find_unit(unit, QUANTITIES[facts.quantity])
        except ValueError:
            raise ReadingError(f"{unit} is not a unit of {facts.label.lower()}") from None
        if re.fullmatch(r"[-+]?[\d.,]+(?:[eE][-+]?\d+)?", text):
            bare = QUANTITIES[facts.quantity].units[0]
            value = read_quantity(text, facts.quantity, bare.label)
            return (value - bare.offset) / bare.factor * factor.factor + factor.offset
    return read_quantity(text, facts.quantity, facts.unit)


def _list(text: str, parts: Sequence[tuple[str, float]]) -> list[dict[str, float]]:
    """``60/4/24/10; 33/8/24/1`` as a list of models."""
    rows = []
    for item in filter(str.strip, text.split(";")):
        cells = [c.strip().replace(",", ".") for c in item.split("/")]
        if len(cells) > len(parts):
            raise ReadingError(f"{item.strip()} has more than {len(parts)} figures")
        pairs = zip(parts, cells, strict=False)
        rows.append({name: float(f"{float(c) * scale:.9g}") for (name, scale), c in pairs if c})
    return rows


def _choice(text: str, model: Any, name: str) -> Any:
    """One of the words of a choice, or yes/no."""
    hint = get_type_hints(model)[name]
    if hint is bool:
        if text.lower() in (*YES, "no", "false", "0"):
            return text.lower() in YES
        raise ReadingError("should be yes or no")
    words = get_args(hint) if get_origin(hint) is Literal else ()
    if words and text.lower() not in words:
        raise ReadingError(f"should be one of {', '.join(words)}")
    return text.lower() if words else text


def _origins(kind: str, text: str, figures: Mapping[str, Any]) -> dict[str, str]:
    """Stated origins; figures without one come from a sheet."""
    stated = dict(re.findall(r"\b(\w{1,30}+)\s?=\s?(measured|sheet|derived|estimate)\b", text))
    model = KINDS[kind].model
    numbers = [k for k in figures if k in model.__dataclass_fields__ and field_facts(model, k)]
    return {k: stated.get(k, "sheet") for k in numbers if k in stated or not text}
