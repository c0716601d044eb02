"""Edits that solve a stored dimension for a computed figure: volume, tuning, kind of box.

Air volume is reached through the depth of the case, tuning through the radiators' added mass or
the ports' length. What cannot be reached is refused with the range that can.
"""

import dataclasses
from collections.abc import Callable
from typing import Literal

from firecrest.assessment.acoustic import model_of
from firecrest.assessment.assess import cabinet_of
from firecrest.core.cabinet.rollup import inner_size
from firecrest.core.errors import FirecrestError, RangeError
from firecrest.core.units import shown
from firecrest.design.box import Port, RadiatorSet
from firecrest.design.design import Design
from firecrest.design.edits.paths import facts_at, replace_at
from firecrest.design.starts import START_RADIATOR

Kind = Literal["sealed", "port", "radiators"]
STEPS = 60
SCAN = 60


def kind_of(design: Design) -> Kind:
    """What the box is, by what opens it."""
    if design.box.radiators:
        return "radiators"
    return "port" if design.box.ports else "sealed"


def tuning_of(design: Design, chamber: int = 0) -> float | None:
    """Tuning of a chamber in Hz; None when it is closed."""
    return model_of(design, cabinet_of(design)).tuning[chamber]


def with_air_volume(design: Design, volume: float) -> Design:
    """The first chamber's net air made ``volume`` m3 by the depth of the case.

    Raises RangeError with the reachable range. A measured volume is replaced as it stands.
    """
    chamber = design.box.chambers[0]
    if chamber.stated_volume is not None:
        return replace_at(design, ("box", "chambers", 0, "stated_volume"), volume)
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


def with_tuning(design: Design, frequency: float) -> Design:
    """The first chamber tuned to ``frequency`` Hz by added mass or port length.

    Raises RangeError with the reachable range, or when a closed box has no tuning.
    """
    kind = kind_of(design)
    if kind == "sealed":
        raise RangeError("A closed box has no tuning. Fit a port or radiators first.")
    path = (
        ("box", "radiators", 0, "added_mass")
        if kind == "radiators"
        else ("box", "ports", 0, "length")
    )
    facts = facts_at(design, path)

    def tuned(value: float) -> float:
        return tuning_of(replace_at(design, path, value)) or 0.0

    high = _lowest(tuned, facts.low, facts.high)
    top, bottom = tuned(facts.low), tuned(high)
    if not bottom <= frequency <= top:
        raise RangeError(
            f"By {facts.label.lower()} this box can be tuned from {bottom:.1f} to {top:.1f} Hz."
        )
    low = facts.low
    for _ in range(STEPS):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if tuned(middle) > frequency else (low, middle)
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


def with_kind(design: Design, kind: Kind) -> Design:
    """The first chamber closed, opened by a port, or by radiators; a sensible start, one edit.

    A port starts with a sixth of the cone area and, like radiators, at the promised bass note
    where that can be reached.
    """
    if kind == kind_of(design):
        return design
    box = design.box
    name = box.chambers[0].name
    if kind == "sealed":
        changed = dataclasses.replace(box, radiators=(), ports=())
    elif kind == "radiators":
        item = RadiatorSet(radiator=START_RADIATOR, count=2, chamber=name)
        changed = dataclasses.replace(box, radiators=(item,), ports=())
    else:
        area = sum((g.driver.sd or 0.01) for g in box.groups) / 6
        port = Port(diameter=max(round((4 * area / 3.14159) ** 0.5, 3), 0.01), chamber=name)
        changed = dataclasses.replace(box, radiators=(), ports=(port,))
    made = replace_at(design, ("box",), changed)
    if kind == "sealed":
        return made
    try:
        return with_tuning(made, design.brief.bass.frequency)
    except FirecrestError:
        return made
