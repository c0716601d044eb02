"""Sensible starts as shown: what each is best at, the box it makes, and what it costs."""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment, assess
from firecrest.core.errors import FirecrestError
from firecrest.core.units import figure
from firecrest.design.design import Design
from firecrest.design.shapes import standing_size
from firecrest.present.frame.effects import said_changes
from firecrest.present.text.notes import said as worded
from firecrest.present.text.units import told, told_sides
from firecrest.proposals.sizing import starts

START_WORDS = {
    "flat": ("Maximally flat", "stays within 0.5 dB to the lowest note, without a hump"),
    "third": ("Quasi third order", "falls smoothly, little travel and delay, in little air"),
    "shelf": ("Extended shelf", "holds −6 dB lowest, at a shelf that a voice can lift"),
    "closed": (
        "Closed at Qtc {qtc:.3g}",
        "a closed box: gentle slope, least delay, no port or radiator",
    ),
    "smallest": (
        "Smallest case",
        "the least outer size that keeps every promise, in these proportions",
    ),
    "loudest": ("Most output in this air", "the tuning at which loudness as promised is highest"),
}
"""Title of each start, and what it is best at."""


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
    return [(key, _title(key, qtc), START_WORDS[key][1]) for key in starts(qtc)]


def _title(key: str, qtc: float) -> str:
    return START_WORDS[key][0].format(qtc=qtc)


def offer(assessment: Assessment, key: str, qtc: float) -> Offer:
    """One start made from the present design."""
    title = _title(key, qtc)
    try:
        design = starts(qtc)[key](assessment.design)
    except FirecrestError as error:
        return Offer(key, title, "", str(error), None)
    after = assess(design, assessment.memo)
    said = said_changes(assessment.promises, after.promises)
    size = after.promise("size")
    if size.margin is not None and size.margin < 0 and size.state != "none":
        said.append(f"{worded(size.reason)} {told(-size.margin, 'length', 'mm', 0)} over")
    return Offer(key, title, _box(after), ", ".join(said) or "changes no promise", design)


def _box(after: Assessment) -> str:
    """Outer size, air and tuning."""
    case = after.design.box.case
    sides = told_sides([float(side) for side in standing_size(case)])
    tuning = after.acoustic.model.tuning[0] if after.acoustic else None
    at = "closed" if tuning is None else f"tuned to {figure(tuning, 1)} Hz"
    return f"{told(after.cabinet.air[0], 'volume', 'L', 1)}, {at}\n{sides}"
