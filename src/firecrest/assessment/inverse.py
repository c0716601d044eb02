"""Edits that solve a stored dimension for a computed figure: air volume and tuning.

Air of the first chamber is reached through the depth of the case, that of another through its
share; tuning through the radiators' added mass or the ports' length. What cannot be reached is
refused with the range that can.
"""

from collections.abc import Callable

from firecrest.assessment.acoustic import model_of
from firecrest.assessment.assess import cabinet_of
from firecrest.core.cabinet.rollup import inner_size
from firecrest.core.errors import FirecrestError, RangeError
from firecrest.core.units import shown
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, facts_at, rebuilt, replace_at

STEPS = 60
SCAN = 60


def tuning_of(design: Design, chamber: int = 0) -> float | None:
    """Tuning of a chamber in Hz; None when it is closed."""
    return model_of(design, cabinet_of(design)).tuning[chamber]


def with_air_volume(design: Design, volume: float, place: int = 0) -> Design:
    """A chamber's net air made ``volume`` m3: the first one's by the depth of the case, that of
    another by its share of the interior, which the first one gives or takes.

    Raises RangeError with the reachable range. A measured volume is replaced as it stands.
    """
    chamber = design.box.chambers[place]
    if chamber.stated_volume is not None:
        return replace_at(design, ("box", "chambers", place, "stated_volume"), volume)
    if place:
        return _by_share(design, volume, place)
    case = design.box.case
    outer = (case.length, case.height, case.depth)
    length, height, _ = inner_size(outer, case.wall)
    face = length * height * chamber.share
    taken = cabinet_of(design).taken[0]
    facts = facts_at(design, ("box", "case", "depth"))
    least = (max(facts.low, 2 * case.wall + 2e-3) - 2 * case.wall) * face - taken
    most = (facts.high - 2 * case.wall) * face - taken
    if not max(least, 0.0) < volume <= most:
        low, high = (shown(max(v, 0.0), "volume", "L", 2) for v in (least, most))
        raise RangeError(f"By its depth this case can hold {low} to {high} of air.")
    depth = (volume + taken) / face + 2 * case.wall
    return replace_at(design, ("box", "case", "depth"), depth)


def _by_share(design: Design, volume: float, place: int) -> Design:
    """The share of a chamber for ``volume`` m3 of net air; the first one has the rest."""
    case, chambers = design.box.case, design.box.chambers
    length, height, depth = inner_size((case.length, case.height, case.depth), case.wall)
    inside = length * height * depth
    rolled = cabinet_of(design)
    both = chambers[place].share + chambers[0].share
    share = (volume + rolled.taken[place]) / inside
    most = both * inside - rolled.taken[place] - rolled.taken[0]
    if not 0 < volume < most:
        low, high = (shown(max(v, 0.0), "volume", "L", 2) for v in (0.0, most))
        raise RangeError(f"By its share this chamber can hold {low} to {high} of air.")
    made = list(chambers)
    made[place] = rebuilt(chambers[place], share=share)
    made[0] = rebuilt(chambers[0], share=both - share)
    return replace_at(design, ("box", "chambers"), tuple(made))


def tuner_path(design: Design, chamber: int = 0) -> Path | None:
    """The stored figure that tunes a chamber: added mass or port length; None when closed."""
    box, name = design.box, design.box.chambers[chamber].name
    for k, item in enumerate(box.radiators):
        if item.chamber == name:
            return ("box", "radiators", k, "added_mass")
    for k, port in enumerate(box.ports):
        if port.chamber == name:
            return ("box", "ports", k, "length")
    return None


def with_tuning(design: Design, frequency: float, chamber: int = 0) -> Design:
    """A chamber tuned to ``frequency`` Hz by added mass or port length.

    Raises RangeError with the reachable range, or when a closed box has no tuning.
    """
    path = tuner_path(design, chamber)
    if path is None:
        raise RangeError("A closed box has no tuning. Fit a port or radiators first.")
    facts = facts_at(design, path)

    def _tuned(value: float) -> float:
        return tuning_of(replace_at(design, path, value), chamber) or 0.0

    high = _lowest(_tuned, facts.low, facts.high)
    top, bottom = _tuned(facts.low), _tuned(high)
    if not bottom <= frequency <= top:
        raise RangeError(
            f"By {facts.label.lower()} this box can be tuned from {bottom:.1f} to {top:.1f} Hz."
        )
    low = facts.low
    for _ in range(STEPS):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if _tuned(middle) > frequency else (low, middle)
    return replace_at(design, path, 0.5 * (low + high))


def _lowest(tuned: Callable[[float], float], low: float, high: float) -> float:
    """Value in [low, high] that tunes lowest: beyond it a long port eats the air it works on."""
    best, least = low, tuned(low)
    for k in range(1, SCAN + 1):
        value = low + (high - low) * (k / SCAN) ** 3
        try:
            frequency = tuned(value)
        except FirecrestError:
            break
        if frequency >= least:
            break
        best, least = value, frequency
    return best
