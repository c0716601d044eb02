"""Sensible starts as shown: what each is best at, the box it makes, and what it costs."""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment, assess
from firecrest.core.errors import FirecrestError
from firecrest.core.units import figure, shown
from firecrest.design.design import Design
from firecrest.present.frame.effects import changes
from firecrest.proposals.sizing import starts


@dataclass(frozen=True)
class Offer:
    """A start worked out: the box in words and its price, or in ``costs`` why there is none."""

    key: str
    title: str
    box: str
    costs: str
    design: Design | None


def start_list(qtc: float) -> list[tuple[str, str, str]]:
    """(key, title, what it is best at) of every start."""
    return [(s.key, s.title, s.optimises) for s in starts(qtc).values()]


def offer(assessment: Assessment, key: str, qtc: float) -> Offer:
    """One start made from the present design."""
    start = starts(qtc)[key]
    try:
        design = start.make(assessment.design)
    except FirecrestError as error:
        return Offer(key, start.title, "", str(error), None)
    after = assess(design, assessment.memo)
    said = changes(assessment.promises, after.promises)
    size = after.promise("size")
    if size.margin is not None and size.margin < 0 and size.state != "none":
        said.append(f"{size.reason} {figure(-1e3 * size.margin, 0)} mm over")
    return Offer(key, start.title, _box(after), ", ".join(said) or "changes no promise", design)


def _box(after: Assessment) -> str:
    """Outer size, air and tuning."""
    case = after.design.box.case
    sides = " × ".join(figure(1e3 * s, 0) for s in (case.length, case.height, case.depth))
    tuning = after.acoustic.model.tuning[0] if after.acoustic else None
    at = "closed" if tuning is None else f"tuned to {figure(tuning, 1)} Hz"
    return f"{shown(after.cabinet.air[0], 'volume', 'L', 1)}, {at}\n{sides} mm"
