"""What a pasted sheet offers a part: figure by figure, beside what it has now."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from firecrest.assessment.figures import SYMBOLS
from firecrest.core.acoustics.derivation import TOLERANCE, apart
from firecrest.design.design import Design
from firecrest.design.edits.parts import take_figures
from firecrest.design.edits.paths import Path
from firecrest.design.fields import field_facts
from firecrest.present.parts.datasheet import derivation
from firecrest.shelf.pasting import Reading


@dataclass(frozen=True)
class Offer:
    """A figure read, as shown, what stands here now, and whether the two differ."""

    figure: str
    value: float
    symbol: str
    value_text: str
    here: str
    differs: bool
    remark: str
    tolerance: float | None


def offers(part: Any, readings: Sequence[Reading]) -> list[Offer]:
    """Offers of all readings that are figures of ``part``."""
    return [_offer(part, r) for r in readings if r.figure and hasattr(part, r.figure)]


def _offer(part: Any, reading: Reading) -> Offer:
    facts = field_facts(type(part), reading.figure)
    assert facts is not None
    here = getattr(part, reading.figure)
    follows = derivation(part)
    known = follows.figures.get(reading.figure) if follows else None
    stated = here not in (None, 0, 0.0) and not (reading.figure == "coils" and here == 1)
    value = here if stated else known
    differs = value is not None and apart(float(value), reading.value) > TOLERANCE
    shown = facts.show(value) if value is not None else ""
    return Offer(
        reading.figure,
        reading.value,
        SYMBOLS.get(reading.figure, facts.label),
        facts.show(reading.value),
        shown if stated else (f"({shown})" if shown else ""),
        differs,
        reading.remark,
        reading.tolerance,
    )


def taken(design: Design, path: Path, found: Sequence[Offer]) -> tuple[str, Design]:
    """(label, design) with the figures of offers, from a sheet."""
    figures = {o.figure: o.value for o in found}
    ranges = {o.figure: o.tolerance for o in found if o.tolerance is not None}
    return take_figures(design, path, figures, "sheet", ranges, f"Take {len(found)} pasted figures")
