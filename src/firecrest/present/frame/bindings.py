"""What a number field shows and what typing into it does: one binding per field.

A binding reads a figure from the assessment and writes it into a new design. Stored figures are
bound by their path; computed ones (air volume, tuning) solve the dimension named with them.
"""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.core.errors import RangeError
from firecrest.core.reading import read_quantity
from firecrest.design.design import Design
from firecrest.design.edits.parts import set_figure
from firecrest.design.edits.paths import Path, facts_at, value_at
from firecrest.design.edits.power import with_series
from firecrest.design.fields import FieldFacts
from firecrest.present.parts.datasheet import derivation, formula_of
from firecrest.proposals.holding import with_volumes
from firecrest.proposals.inverse import with_air_volume, with_tuning

RANGE = re.compile(r"(.+?)\s*(?:\bto\b|–|—|\.\.\.?|…|(?<=[\dVv])\s*-)\s*(.+)")
SPANS = {"Amplifier": ("cut_off", "highest_supply")}
"""Figures of a part that are the ends of a range on its sheet."""
ORIGIN_WORDS = {
    "measured": "measured by you",
    "sheet": "from the data sheet",
    "derived": "follows from other figures",
    "estimate": "an estimate",
}


@dataclass(frozen=True)
class Binding:
    """One figure: where it is, how it is declared, how it is read and written."""

    path: Path
    facts: FieldFacts
    read: Callable[[Assessment], float | None]
    write: Callable[[Design, float | None], Design]
    origin: Callable[[Assessment], str] = lambda _: ""
    implied: Callable[[Assessment], str] = lambda _: ""
    formula: Callable[[Assessment], str] = lambda _: ""
    span: tuple[Path, Path] | None = None
    """Lowest and highest of a range that can be typed at once, "9 to 24 V"."""

    def typed(self, assessment: Assessment, text: str, unit: str) -> tuple[str, Design]:
        """(label, design) with what was typed, a plain number being in ``unit``.

        FirecrestError when it is refused.
        """
        ends = RANGE.fullmatch(text.strip()) if self.span else None
        if ends is None or self.span is None:
            return self.edited(assessment, self.read_text(text, unit))
        low, high = (self.read_text(end, unit) for end in ends.groups())
        if low is not None and high is not None and low >= high:
            raise RangeError(f"A range goes up: {text.strip()} does not.")
        made = assessment.design
        for path, value in zip(self.span, (low, high), strict=True):
            facts_at(made, path).check(value, unit)
            made = set_figure(made, path, value)
        return f"{self.facts.show(low)} to {self.facts.show(high)}", made

    def read_text(self, text: str, unit: str) -> float | None:
        """The value of a text; None for an empty one where the figure need not be known."""
        if not text.strip() and self.facts.optional:
            return None
        return read_quantity(text, self.facts.quantity, unit)

    def edited(self, assessment: Assessment, value: float | None) -> tuple[str, Design]:
        """(label, design) with ``value`` written; FirecrestError when it is refused."""
        self.facts.check(value)
        made = self.write(assessment.design, value)
        before = self.facts.show(self.read(assessment)) or "empty"
        return f"{self.facts.label} {before} → {self.facts.show(value) or 'empty'}", made

    def placeholder(self, assessment: Assessment) -> str:
        """What stands in an empty field: what follows from other figures, or what empty means."""
        return self.implied(assessment) or self.facts.empty

    def about(self, assessment: Assessment) -> str:
        """Where this number comes from, in a few lines."""
        lines = [self.facts.label + (f" {self.facts.symbol}" if self.facts.symbol else "")]
        origin = self.origin(assessment)
        if origin:
            lines.append(f"Its value is {ORIGIN_WORDS[origin]}.")
        formula = self.formula(assessment)
        if formula and self.read(assessment) is None:
            lines.append(f"It follows from the other figures: {formula}. Typing overrides it.")
        if self.facts.help:
            lines.append(self.facts.help)
        if self.span:
            lines.append("Both ends can be typed at once: 9 to 24 V.")
        lines.append(f"Accepted: {self.facts.range_text()}")
        return "\n".join(lines)


WRITTEN: Mapping[Path, Callable[[Design, float | None], Design]] = {
    ("power", "source", "series"): lambda design, value: with_series(design, int(value or 0))[1]
}
"""Figures with which others go."""


def at_path(design: Design, path: Path) -> Binding:
    """Binding of a stored figure."""
    facts = facts_at(design, path)

    def origin(assessment: Assessment) -> str:
        owner = value_at(assessment.design, path[:-1])
        return str(getattr(owner, "origins", {}).get(path[-1], ""))

    ends = SPANS.get(type(value_at(design, path[:-1])).__name__)
    span = None
    if ends is not None and path[-1] in ends:
        span = ((*path[:-1], ends[0]), (*path[:-1], ends[1]))
    return Binding(
        path,
        facts,
        lambda assessment: value_at(assessment.design, path),
        WRITTEN.get(path, lambda design, value: set_figure(design, path, value)),
        origin,
        lambda assessment: _implied(assessment, path, facts),
        lambda assessment: formula_of(value_at(assessment.design, path[:-1]), str(path[-1])),
        span,
    )


def _implied(assessment: Assessment, path: Path, facts: FieldFacts) -> str:
    """A driver's or radiator's figure that follows from the others."""
    known = derivation(value_at(assessment.design, path[:-1]))
    value = known.figures.get(str(path[-1])) if known else None
    return "" if value is None else f"({facts.show(value)})"


def _computed(
    name: str,
    label: str,
    symbol: str,
    quantity: str,
    unit: str,
    digits: int,
    low: float,
    high: float,
    help: str,
) -> FieldFacts:
    return FieldFacts(name, label, symbol, quantity, unit, digits, low, high, False, False, help)


def air_volume(chamber: int = 0) -> Binding:
    """Net air of a chamber; typing it moves the depth of the case, or the chamber's share."""
    facts = _computed(
        "air_volume",
        "Air volume",
        "Vb",
        "volume",
        "L",
        2,
        1e-5,
        5.0,
        "Net air, everything inside taken off. Typing it moves the depth."
        if chamber == 0
        else "Net air of this chamber. Typing it moves its share; the first one has the rest.",
    )
    return Binding(
        _of_chamber("air_volume", chamber),
        facts,
        lambda a: float(a.cabinet.air[chamber]) if chamber < len(a.cabinet.air) else None,
        lambda design, value: with_air_volume(design, float(value or 0.0), chamber),
    )


def held_volume(chamber: int, name: str) -> Binding:
    """Net air of a chamber; typing it moves depth and shares, the other chambers keep theirs."""
    facts = _computed(
        "held_volume",
        f"Air of {name}",
        "Vb",
        "volume",
        "L",
        2,
        1e-5,
        5.0,
        "Net air, everything inside taken off. Typing it moves the depth; others keep their air.",
    )
    return Binding(
        ("computed", "held_volume", chamber),
        facts,
        air_volume(chamber).read,
        lambda design, value: with_volumes(design, {chamber: float(value or 0.0)}),
    )


def _of_chamber(name: str, chamber: int) -> Path:
    """Path of a computed figure; that of the first chamber goes without a number."""
    return ("computed", name) if chamber == 0 else ("computed", name, chamber)


def tuning(chamber: int = 0) -> Binding:
    """Tuning of a chamber; typing it moves added mass or port length."""

    def _read(a: Assessment) -> float | None:
        if a.acoustic is None or chamber >= len(a.acoustic.model.tuning):
            return None
        tuned = a.acoustic.model.tuning[chamber]
        return None if tuned is None else float(tuned)

    facts = _computed(
        "tuning",
        "Tuning",
        "Fb",
        "frequency",
        "Hz",
        1,
        5.0,
        500.0,
        "Typing it moves the radiators' added mass, or the port's length.",
    )
    return Binding(
        _of_chamber("tuning", chamber),
        facts,
        _read,
        lambda design, value: with_tuning(design, float(value or 0.0), chamber),
    )
