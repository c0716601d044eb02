"""One part's sheet: what follows, what contradicts itself, what is missing for which result."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.figures import SYMBOLS, derivation_of, radiator_derivation, suspects_of
from firecrest.core.acoustics.derivation import Derivation, apart
from firecrest.core.acoustics.driver import half_space_sensitivity
from firecrest.core.acoustics.estimates import Estimate, estimate_driver, estimate_radiator
from firecrest.core.errors import DesignError
from firecrest.core.units import figure
from firecrest.design.design import Design
from firecrest.design.edits.parts import bring_back, set_aside, take_figures
from firecrest.design.edits.paths import Path, rebuilt, value_at
from firecrest.design.fields import field_facts
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.sheet import tolerance_of
from firecrest.present.text.words import joined

Edit = Callable[[Design], tuple[str, Design]]
WAYS = 3
"""Ways out of a contradiction that are offered, the least trusted kind of figure first."""


@dataclass(frozen=True)
class Derived:
    """Rows (symbol, value, formula) that follow, and notes on what stands in for a gap."""

    rows: list[tuple[str, str, str]]
    notes: list[str]


@dataclass(frozen=True)
class Choice:
    """One way out of a contradiction: what to trust, what it does to this design, the edit."""

    label: str
    effect: str
    edit: Edit


@dataclass(frozen=True)
class Dispute:
    """A contradiction in words: who says what, who is the likely culprit, the ways out."""

    sentence: str
    culprit: str
    figures: tuple[str, ...]
    choices: tuple[Choice, ...]


@dataclass(frozen=True)
class Missing:
    """A figure that is not known, the result that waits for it, and how to get it."""

    symbol: str
    waits: str
    how: str


def derivation(part: Any) -> Derivation | None:
    """What follows from a driver's or radiator's figures; None of other parts."""
    if isinstance(part, DriverPart):
        return derivation_of(part)
    return radiator_derivation(part) if isinstance(part, RadiatorPart) else None


def show_figure(model: type, name: str, value: float) -> str:
    """A figure with its unit, by the declaration of its field."""
    facts = field_facts(model, name)
    return f"{value:.4g}" if facts is None else facts.show(value)


def derived(part: Any) -> Derived:
    """What follows from a part's figures."""
    found = derivation(part)
    if found is None:
        return Derived([], [])
    rows = [
        (SYMBOLS[key], show_figure(type(part), key, found.figures[key]), relation.text)
        for key, relation in found.derived.items()
        if getattr(part, key) is None
    ]
    if isinstance(part, DriverPart) and all(k in found.figures for k in ("fs", "vas", "qes")):
        level = half_space_sensitivity(found.figures)
        rows.append(("1 W, 1 m", f"{figure(level, 1)} dB", "half space, into Re"))
    notes = []
    if isinstance(part, RadiatorPart) and part.xmax is None:
        notes.append("Travel is not known: taken as twice the drivers' displacement, ±40 %.")
    return Derived(rows, notes)


def formula_of(part: Any, name: str) -> str:
    """Formula by which a figure that is not stated follows; empty when it does not."""
    found = derivation(part)
    relation = found.derived.get(name) if found else None
    return "" if relation is None else f"{SYMBOLS[name]} = {relation.text}"


# contradictions ------------------------------------------------------------------


def dispute(assessment: Assessment, path: Path) -> Dispute | None:
    """The contradiction of a part's sheet; None when its figures agree within 2 %."""
    part = value_at(assessment.design, path)
    found = derivation(part)
    if found is None or not found.contradictions:
        return None
    suspects = suspects_of(part)
    first = found.contradictions[0]
    named = suspects[::-1] or (first.figure, *first.needs)
    named = tuple(k for k in named if getattr(part, k) is not None)[:WAYS]
    said = [_statement(part, key) for key in named]
    sentence = next((s for s in said if s), "The figures of this sheet cannot all hold.")
    return Dispute(
        sentence, _culprit(suspects), _concerned(part, named), (*_choices(assessment, path, named),)
    )


def _without(part: Any, name: str) -> Derivation:
    found = derivation(rebuilt(part, **{name: None}))
    assert found is not None
    return found


def _statement(part: Any, name: str) -> str:
    """What one figure should be by the others, e.g. Vas from Sd and Cms, and what is said."""
    others = _without(part, name)
    if name not in others.derived:
        return ""
    stated, given = getattr(part, name), others.figures[name]
    needs = joined([SYMBOLS[n] for n in others.derived[name].needs])
    return (
        f"{SYMBOLS[name]} from {needs} gives {show_figure(type(part), name, given)}, the sheet "
        f"says {show_figure(type(part), name, stated)}: {100 * apart(stated, given):.0f} % apart."
    )


def _culprit(suspects: tuple[str, ...]) -> str:
    names = [SYMBOLS[key] for key in suspects]
    if len(names) == 1:
        return f"Likely culprit: {names[0]}. Without it everything else agrees."
    if names:
        either = f"{', '.join(names[:-1])} or {names[-1]}"
        return f"{either} must be wrong; this sheet cannot tell which."
    return "More than one figure must be wrong; this sheet cannot tell which."


def _concerned(part: Any, named: tuple[str, ...]) -> tuple[str, ...]:
    """Figures to be tinted: those in doubt and those they are held against."""
    found = list(named)
    for name in named[:1]:
        relation = _without(part, name).derived.get(name)
        found += relation.needs if relation else ()
    return tuple(k for k in dict.fromkeys(found) if getattr(part, k) is not None)


def _choices(assessment: Assessment, path: Path, named: tuple[str, ...]) -> list[Choice]:
    part = value_at(assessment.design, path)
    found = []
    for name in named:
        others = _without(part, name)
        if name not in others.derived:
            continue
        needs = joined([SYMBOLS[n] for n in others.derived[name].needs])
        edit = _aside(path, name, None)
        value = show_figure(type(part), name, others.figures[name])
        found.append(
            Choice(f"Trust {needs}", f"{SYMBOLS[name]} {value}, {_effect(assessment, edit)}", edit)
        )
    if found:
        name = next(n for n in named if n in _without(part, n).derived)
        span = apart(getattr(part, name), _without(part, name).figures[name])
        edit = _aside(path, name, span)
        label = f"{SYMBOLS[name]} ±{100 * span:.0f} %, shown as a doubt"
        found.append(Choice("Keep both as a range", label, edit))
    return found


def _aside(path: Path, name: str, span: float | None) -> Edit:
    return lambda design: set_aside(design, path, name, span)


def _effect(assessment: Assessment, edit: Edit) -> str:
    """Bass reach, or loudness, of this design with an edit made."""
    made = assess(edit(assessment.design)[1], assessment.memo)
    reach, loud = made.promise("bass").predicted, made.promise("loudness").predicted
    if reach is not None:
        return f"reach {figure(reach, 1)} Hz"
    return "" if loud is None else f"{figure(loud, 1)} dB"


def set_aside_text(part: Any, name: str) -> str:
    """A figure that was set aside, as it stood; empty when there is none."""
    value = part.set_aside.get(name)
    return "" if value is None else show_figure(type(part), name, value)


def back_edit(path: Path, name: str) -> Edit:
    """The edit that brings a figure back."""
    return lambda design: bring_back(design, path, name)


# what is missing --------------------------------------------------------------------

_MOVING = "loudness and bass reach"
_DRIVER_GAPS: Mapping[str, tuple[str, str]] = {
    "re": (_MOVING, "ohm meter at the terminals"),
    "fs": (_MOVING, "impedance sweep in free air"),
    "qes": (_MOVING, "impedance sweep in free air"),
    "qms": (_MOVING, "impedance sweep in free air"),
    "vas": (_MOVING, "sweep with a known mass or volume"),
    "sd": (_MOVING, "ruler: middle of the surround to middle"),
    "xmax": ("cone travel, so loudness", "coil height less gap height, halved"),
    "pe": ("coil heat, so loudness", "sheet of a similar coil"),
    "xmech": ("damage mark on cone travel", "push gently to the stop"),
    "le": ("impedance and level above 300 Hz", "impedance sweep"),
    "nominal": ("rating of the amplifier's load", "print on the magnet"),
    "frame": ("fits in the case", "ruler"),
    "cut_out": ("fits in the case", "ruler"),
    "depth": ("fits in the case", "ruler"),
}
_RADIATOR_GAPS: Mapping[str, tuple[str, str]] = {
    "sd": ("tuning and loudness", "ruler: middle of the surround to middle"),
    "mmp": ("tuning and loudness", "two resonances, with and without a known mass"),
    "cmp": ("the notch and the tuning", "two resonances, with and without a known mass"),
    "rmp": ("depth of the tuning", "decay after a push"),
    "xmax": ("radiator travel, so loudness", "push gently to where it stiffens"),
    "frame": ("fits in the case", "ruler"),
    "cut_out": ("fits in the case", "ruler"),
}


def missing(part: Any) -> list[Missing]:
    """Figures that are not known, nor follow, with what waits for each."""
    gaps = _DRIVER_GAPS if isinstance(part, DriverPart) else _RADIATOR_GAPS
    found = derivation(part)
    if found is None:
        return []
    labels = {"frame": "Frame", "cut_out": "Cut-out", "depth": "Depth"}
    return [
        Missing(labels.get(key) or SYMBOLS[key], waits, how)
        for key, (waits, how) in gaps.items()
        if key not in found.figures and getattr(part, key) in (None, 0.0)
    ]


def waiting_promises(assessment: Assessment) -> str:
    """Whether any promise of the design waits for figures."""
    waiting = [p.key for p in assessment.promises if p.state == "unknown"]
    if waiting:
        return f"{joined(waiting).capitalize()} of {assessment.design.name} waits for these."
    return f"No promise of {assessment.design.name} waits for these."


def estimates(part: Any) -> dict[str, Estimate]:
    """Estimates of the figures that are missing, from size class and weight.

    DesignError when the size class is not known.
    """
    if part.size is None:
        raise DesignError("An estimate needs the size class: fill it in first, e.g. 5.25 in.")
    mass = part.mass or None
    usual = (
        estimate_driver(part.size, mass, part.nominal, part.kind)
        if isinstance(part, DriverPart)
        else estimate_radiator(part.size, mass)
    )
    known = derivation(part)
    assert known is not None
    return {
        key: value
        for key, value in usual.items()
        if key not in known.figures and getattr(part, key) in (None, 0.0)
    }


def estimate_edit(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) with everything missing estimated, each with its stated band."""
    found = estimates(value_at(design, path))
    if not found:
        raise DesignError("Nothing is missing that size and weight could tell.")
    values = {key: float(f"{e.value:.2g}") for key, e in found.items()}
    bands = {key: e.band for key, e in found.items()}
    return take_figures(design, path, values, "estimate", bands, f"Estimate {len(found)} figures")


RATED = ("nominal", "size")
"""Names of classes, not figures of a part: they have no likely range."""


def range_text(part: Any, name: str) -> str:
    """Likely range of a figure, "±5 %"; empty when nothing is known of it."""
    share = tolerance_of(part, name)
    facts = field_facts(type(part), name)
    if facts is None or facts.whole or facts.quantity == "money" or name in RATED:
        return ""
    if getattr(part, name) is None and name not in part.tolerances:
        return ""
    return "" if share is None else f"±{100 * share:.3g} %"
