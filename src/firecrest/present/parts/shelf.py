"""The shelf as rows: what each part is, and what it would give in the present design."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any, NamedTuple

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.figures import derivation_of, radiator_derivation
from firecrest.assessment.verdicts import Promise
from firecrest.core.arrays import Real
from firecrest.core.errors import FirecrestError
from firecrest.core.limits.kinds import kind_of_code
from firecrest.core.limits.loudness import promised_shape
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.design import Design
from firecrest.design.edits.paths import value_at
from firecrest.design.fields import FieldFacts, field_facts
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.present.frame.effects import said_changes
from firecrest.present.parts.datasheet import missing
from firecrest.present.parts.updates import part_paths
from firecrest.present.text.notes import said
from firecrest.present.text.units import told
from firecrest.present.text.words import joined
from firecrest.proposals.placing import half_voltage, path_of
from firecrest.search.choose import Outcome
from firecrest.shelf.entry import Entry
from firecrest.shelf.kinds import KINDS

MINI_RANGE = (30.0, 250.0)
MINI_SPAN = (-14.0, 8.0)
"""Small ceilings reach from 14 dB below the promised level to 8 dB above it."""
BAD_SHEET = "bad sheet"
GAPS = 4
"""Missing figures that a row names."""


@dataclass(frozen=True)
class Column:
    """A column of the table; ``figure`` is the part's key, or empty for a column of the shelf."""

    key: str
    title: str
    width: int
    figure: str = ""


RESULTS = (
    Column("part", "part", 150),
    Column("ceiling", "ceiling, 30 to 250 Hz", 118),
    Column("fit", "fits in this case", 112),
    Column("loudness", "dB", 62),
    Column("bass", "Hz", 52),
    Column("hours", "hours", 50),
    Column("kg", "kg", 52),
    Column("cost", "€", 50),
    Column("have", "have", 40),
    Column("promises", "promises", 92),
)
"""What a part would give in the present design."""

_BODY = (Column("mass", "weight", 60, "mass"), Column("price", "price", 48, "price"))
_END = (Column("have", "have", 42),)
_WIDTHS = {
    "claim": 120,
    "chemistry": 150,
    "form": 110,
    "kind": 110,
    "sd": 80,
    "fs": 76,
    "nominal": 46,
    "qts": 62,
    "pe": 52,
    "cmp": 82,
    "continuous_current": 70,
    "sample_rate": 76,
    "full_scale": 72,
    "capacity": 72,
    "energy": 70,
}
"""Widths of figure columns that need more or less than usual, px."""
_FIGURES: Mapping[str, tuple[tuple[str, str], ...]] = {
    "driver": (("size", "size"), ("nominal", "Znom"), ("fs", "Fs"), ("qts", "Qts"),
               ("vas", "Vas"), ("sd", "Sd"), ("xmax", "Xmax"), ("pe", "Pe")),
    "radiator": (("size", "size"), ("sd", "Sd"), ("mmp", "Mmp"), ("cmp", "Cmp"), ("fp", "Fp"),
                 ("xmax", "Xmax"), ("frame", "frame")),
    "amplifier": (("channels", "outputs"), ("claim", "claim"), ("least_load", "down to"),
                  ("gain", "gain"), ("idle_current", "idle")),
    "cell": (("chemistry", "chemistry"), ("capacity", "capacity"), ("max_current", "at most"),
             ("voltage", "half full")),
    "supply": (("form", "form"), ("voltage", "voltage"), ("continuous_current", "current"),
               ("energy", "energy")),
    "dsp": (("filters", "filters"), ("sample_rate", "rate"), ("full_scale", "full scale"),
            ("power", "draws")),
    "": (("kind", "kind"), ("size", "size"), ("nominal", "impedance")),
}  # fmt: skip


def figure_columns(kind: str) -> tuple[Column, ...]:
    """Columns of a kind's own figures; "" for all kinds together."""
    own = (Column(key, title, _WIDTHS.get(key, 60), key) for key, title in _FIGURES[kind])
    return (Column("part", "part", 190), *own, *_BODY, *_END)


@dataclass(frozen=True)
class Mini:
    """A small ceiling: x from 0 to 1 over 30 to 250 Hz, y from 0 to 1 over the mini's span."""

    x: Real
    ceiling: Real
    promise: Real
    codes: str


class Row(NamedTuple):
    """One part on the shelf; ``outcome`` is None until it is worked out.

    ``in_force``: it stands where it would be put; ``elsewhere``: only in other places.
    """

    entry: Entry
    in_force: bool
    outcome: Outcome | None = None
    elsewhere: bool = False


def ids_in_force(design: Design) -> dict[str, str]:
    """Id of the shelf's part (or its name) by kind, of what the design holds."""
    parts = (value_at(design, path) for path in part_paths(design))
    return {_id_of(part): part.name for part in parts}


def _id_of(part: Any) -> str:
    return part.shelf.part if part.shelf else f"name:{part.name}"


def rows(
    entries: Sequence[Entry], design: Design, outcomes: Mapping[str, Outcome], place: int = 0
) -> list[Row]:
    """Rows of entries in the order they come; ``place`` is which of its kind would be replaced."""
    held = ids_in_force(design)
    names = {id for id in held if id.startswith("name:")}
    found = []
    for entry in entries:  # thousands, at every letter typed: nearly all are on the shelf only
        id = entry.id
        if id not in held and (not names or f"name:{entry.name}" not in names):
            found.append(_row((entry, False, outcomes.get(id), False)))
        else:
            here = _here(design, entry.part, place) in (id, f"name:{entry.name}")
            found.append(Row(entry, here, outcomes.get(id), not here))
    return found


_row = partial(tuple.__new__, Row)


def _here(design: Design, part: Any, place: int) -> str:
    """Id of what stands where ``part`` would be put; "" where nothing of its kind does."""
    try:
        now = value_at(design, path_of(design, part, place))
    except (FirecrestError, IndexError):
        return ""
    return _id_of(now) if hasattr(now, "shelf") else ""


def subtitle(entry: Entry) -> tuple[str, str]:
    """(origin of most figures, second line) of a row."""
    part = entry.part
    origins = list(part.origins.values())
    origin = max(("measured", "sheet", "estimate"), key=origins.count) if origins else ""
    words = {"measured": "measured", "sheet": "data sheet", "estimate": "estimate"}
    said = [_nature(part), words.get(origin, "no data") if len(origins) > 3 else "hardly any data"]
    if entry.notes.lower().startswith("a bad sheet"):
        said = [BAD_SHEET, "see its report"]
    return origin, ", ".join(s for s in said if s)


CHEMISTRY = {
    "lithium ion": "Li-ion",
    "lithium iron phosphate": "LiFePO4",
    "nickel metal hydride": "NiMH",
    "lead acid": "Lead acid",
}


def _nature(part: Any) -> str:
    if isinstance(part, DriverPart):
        coils = ", 2 coils" if part.coils == 2 else ""
        return f"{part.kind}{coils}"
    if hasattr(part, "claims"):
        return str(part.form)
    if hasattr(part, "chemistry"):
        return CHEMISTRY[part.chemistry]
    return str(getattr(part, "form", ""))


def whole_data(entry: Entry) -> bool:
    """Whether the part's figures suffice for every result."""
    part = entry.part
    if isinstance(part, DriverPart):
        known = not derivation_of(part).missing
        return known and part.xmax is not None and part.pe is not None
    if isinstance(part, RadiatorPart):
        return not radiator_derivation(part).missing and part.xmax is not None
    return True


def mini(outcome: Outcome, design: Design) -> Mini | None:
    """The small ceiling of an outcome; None when there is no curve."""
    if outcome.figures.level is None:
        return None
    seen = (MINI_RANGE[0] <= EDIT_GRID) & (MINI_RANGE[1] >= EDIT_GRID)
    f = EDIT_GRID[seen]
    brief = design.brief
    asked = promised_shape(f, brief.bass.frequency, brief.bass.drop)
    span = np.log(MINI_RANGE[1] / MINI_RANGE[0])
    low, high = MINI_SPAN

    def across(level: Real) -> Real:
        """Level re the promise as a share of the mini's height."""
        return np.clip((level - low) / (high - low), 0.0, 1.0)

    picked = np.nonzero(seen)[0]
    codes = outcome.figures.codes[picked[0] : picked[-1] + 1]
    ceiling = outcome.figures.level[seen] - brief.loudness.level
    return Mini(np.log(f / MINI_RANGE[0]) / span, across(ceiling), across(asked), codes)


def cell(row: Row, column: Column, *, working: bool = True) -> str:
    """Text of a cell; a result that nobody is ``working`` out any more is not known."""
    entry, outcome = row.entry, row.outcome
    if column.key == "part":
        return entry.name
    if column.key == "have":
        return str(entry.stock)
    if column.figure:
        return _figure(entry, column.figure)
    if outcome is None:
        return ("…" if working else "–") if column.key == "loudness" else ""
    if column.key == "fit":
        return fit_text(outcome)
    return _result(outcome, column.key)


def fit_text(outcome: Outcome) -> str:
    """Whether it fits, in words."""
    return said(outcome.fit.reason) if not outcome.refusal else "not in this design"


def trouble(row: Row) -> str:
    """Why a row has no results: what is missing and how to get it, or what stands in the way."""
    outcome = row.outcome
    if outcome is None or outcome.refusal or not outcome.figures.missing:
        return outcome.refusal if outcome else ""
    gaps = missing(row.entry.part)
    if not gaps or dict(outcome.figures.missing.figures).get("part") != row.entry.name:
        return said(outcome.figures.missing)
    symbols = [gap.symbol for gap in gaps]
    more = [f"{len(symbols) - GAPS} more"] if len(symbols) > GAPS else []
    return f"needs {joined([*symbols[:GAPS], *more])}: {gaps[0].how}"


def first_to_give(outcome: Outcome) -> str:
    """What gives out first where loudness is held, in words; empty when it is not known."""
    f = outcome.figures
    if f.frequency is None:
        return ""
    return f"{kind_of_code(f.code).title.lower()} gives first at {f.frequency:.0f}{THIN_SPACE}Hz"


def _result(outcome: Outcome, key: str) -> str:
    f = outcome.figures
    values: Mapping[str, tuple[float | None, int]] = {
        "loudness": (f.loudness, 1),
        "bass": (f.bass_reach, 0),
        "hours": (f.hours, 1),
        "kg": (f.mass if outcome.design else None, 2),
        "cost": (f.price if outcome.design else None, 0),
    }
    value, digits = values.get(key, (None, 0))
    return "" if value is None else figure(value, digits)


def _figure(entry: Entry, name: str) -> str:
    """A figure of the part in its own unit; one that follows stands in brackets."""
    part = entry.part
    if name == "kind":
        return KINDS[entry.kind].word
    if name == "claim":
        best = max(part.claims, key=lambda claim: claim.power)
        return f"{best.power:.3g}{THIN_SPACE}W into {best.load:g}{THIN_SPACE}Ω"
    if name == "voltage" and entry.kind == "cell":
        return told(half_voltage(part), "voltage", "V", 2)
    if not hasattr(part, name):
        return ""
    value = getattr(part, name)
    facts = field_facts(type(part), name)
    if facts is None:
        return str(value)
    if value is None:
        follows = followed_by(part).get(name)
        return "" if follows is None else f"({_told(follows, facts)})"
    return _told(value, facts)


def _told(value: Any, facts: FieldFacts) -> str:
    return told(value, facts.quantity, facts.unit, facts.digits)


def followed_by(part: Any) -> Mapping[str, float]:
    """Figures that follow from those a part states; none for other kinds of part."""
    if isinstance(part, DriverPart):
        return derivation_of(part).figures
    return radiator_derivation(part).figures if isinstance(part, RadiatorPart) else {}


def states(outcome: Outcome) -> list[tuple[str, str]]:
    """(key, state) of each promise in strip order, without those nothing was promised of."""
    return [(p.key, _state(p)) for p in outcome.figures.promises if p.state != "none"]


def _state(promise: Promise) -> str:
    return "wish" if promise.wish_missed else promise.state


def state_of(outcome: Outcome, key: str) -> str:
    """State of the promise that a results column shows."""
    promise = {"loudness": "loudness", "bass": "bass", "hours": "runtime", "kg": "weight",
               "cost": "cost"}.get(key)  # fmt: skip
    return next((_state(p) for p in outcome.figures.promises if p.key == promise), "none")


def summary(found: Sequence[Row]) -> str:
    """How many fit, nearly, and in which order they stand."""
    done = [r.outcome for r in found if r.outcome is not None]
    if not done:
        return f"{len(found)} parts"
    fit = sum(o.fit.fits is True for o in done)
    return f"{len(found)} parts, {fit} fit"


def effect(outcome: Outcome, present: Sequence[Promise]) -> str:
    """What taking it changes, e.g. "+2.1 dB, −3 Hz, +160 g, +€14"."""
    change = ", ".join(said_changes(present, outcome.figures.promises)) or "changes no promise"
    first = first_to_give(outcome)
    return f"{change}; {first}" if first else change
