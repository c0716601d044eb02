"""Where a number comes from and what it moves: for one step of its field, and for its range."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from firecrest.assessment.assess import Assessment, assess
from firecrest.core.errors import FirecrestError
from firecrest.core.units import figure, to_si
from firecrest.design.design import Design
from firecrest.design.edits.paths import value_at
from firecrest.design.fields import FieldFacts
from firecrest.design.sheet import Sheet, tolerance_of
from firecrest.present.frame.bindings import Binding
from firecrest.present.frame.effects import SHOWN_IN
from firecrest.present.text.units import units
from firecrest.present.text.words import PROMISE_NAMES

MOST = 5
"""Earlier values that are told."""
Job = Callable[[], "Moves"]


@dataclass(frozen=True)
class Moves:
    """What the promises do for a change either way: its words, and the change of each promise."""

    change: str
    effects: tuple[str, ...]

    @property
    def said(self) -> str:
        """In one line."""
        told = ", ".join(self.effects) or "no promise moves"
        return f"{self.change}: {told}"


def shown_step(facts: FieldFacts, unit: str) -> float:
    """One step of the last shown digit, in SI."""
    digits = units.digits(facts.quantity, facts.unit, facts.digits) if unit else facts.digits
    step = 10.0**-digits if not facts.whole else 1.0
    return to_si(step, facts.quantity, unit or facts.unit) - to_si(
        0.0, facts.quantity, unit or facts.unit
    )


def jobs(assessment: Assessment, binding: Binding, unit: str) -> Iterator[Job]:
    """What one step moves, and what the likely range of the figure does."""
    value = binding.read(assessment)
    if value is None:
        return
    step = shown_step(binding.facts, unit)
    text = binding.facts.show(step, unit) if not binding.facts.whole else "1"
    if binding.facts.quantity == "temperature":
        text = f"{figure(step, binding.facts.digits)} K"
    yield lambda: _moved(assessment, binding, (value - step, value + step), f"+{text}", 0.5)
    share = _tolerance(assessment.design, binding)
    if share:
        ends = (value / (1 + share), value * (1 + share))
        yield lambda: _moved(assessment, binding, ends, f"its range, ±{100 * share:.3g} %", 0.5)


def _tolerance(design: Design, binding: Binding) -> float | None:
    """Likely range of a part's figure, a share either way."""
    if binding.path[0] == "computed":
        return None
    try:
        owner = value_at(design, binding.path[:-1])
    except FirecrestError:
        return None
    return tolerance_of(owner, str(binding.path[-1])) if isinstance(owner, Sheet) else None


def _moved(
    assessment: Assessment, binding: Binding, ends: tuple[float, float], change: str, half: float
) -> Moves:
    """Half the difference between both ends; where one is refused, the whole to the other."""
    found: list[Assessment] = []
    for value in ends:
        try:
            design = binding.edited(assessment, value)[1]
        except FirecrestError:
            continue
        found.append(assess(design, assessment.memo))
    if not found:
        return Moves(change, ("cannot be moved",))
    low = found[0] if len(found) == 2 else assessment
    return Moves(change, _effects(low, found[-1], half if len(found) == 2 else 1.0))


def _effects(low: Assessment, high: Assessment, share: float) -> tuple[str, ...]:
    """Changes of the promises, ``share`` of the difference."""
    before = {p.key: p for p in low.promises}
    after = {p.key: p for p in high.promises}
    told = []
    for key, quantity, usual, digits in SHOWN_IN:
        a, b = before[key].predicted, after[key].predicted
        if (
            a is None
            or b is None
            or abs(b - a) * share < to_si(0.5, quantity, usual) * 10.0 ** -(digits + 1)
        ):
            continue
        moved = share * (b - a)
        text = units.text(abs(moved), quantity, usual, digits + 1)
        told.append(f"{PROMISE_NAMES[key]} {'+' if moved > 0 else '−'}{text}")
    return tuple(told)


def history(past: Iterable[Design], present: Assessment, binding: Binding, unit: str) -> str:
    """Earlier values of the figure, newest first; "" where it never was another."""
    if binding.path[0] == "computed":
        return ""
    seen, last = [], binding.read(present)
    for design in past:
        try:
            value = value_at(design, binding.path)
        except FirecrestError:
            break
        if value != last:
            seen.append(binding.facts.show(value, unit) or "empty")
            last = value
        if len(seen) == MOST:
            break
    return f"Before: {', '.join(seen)}" if seen else ""


def used_by(design: Design, binding: Binding) -> str:
    """Where a part's figure is used."""
    if binding.path[0] == "computed":
        return ""
    try:
        owner = value_at(design, binding.path[:-1])
    except FirecrestError:
        return ""
    if not isinstance(owner, Sheet):
        return ""
    groups = [g for g in design.box.groups if g.driver == owner]
    count = sum(g.in_series * g.in_parallel for g in groups)
    return f"Used by {count} × {owner.name} on each output" if groups else f"Used by {owner.name}"
