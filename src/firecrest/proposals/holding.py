"""Changes of a box that leave something as it is: air, or tuning."""

from collections.abc import Mapping

import numpy as np

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet.rollup import dividers_of, enclosed_in
from firecrest.assessment.openings import kind_of_opening
from firecrest.core.errors import FirecrestError, RangeError
from firecrest.design.box import Port, placed
from firecrest.design.design import Design
from firecrest.design.edits.box import Kind, add_opening
from firecrest.design.edits.paths import facts_at, rebuilt, replace_at
from firecrest.proposals.free import free_path, free_side, met_by
from firecrest.proposals.inverse import tuning_of, with_air_volume, with_tuning
from firecrest.proposals.layouts import kind_of, with_kind
from firecrest.proposals.ports import folded

WORDS = {"port": "port", "radiators": "radiator"}
ROUNDS = 4
"""A port that is tuned takes air, and the air it leaves tunes it: both settle in a few rounds."""


def with_air_of(design: Design, before: Design, chamber: int) -> Design:
    """``design`` with the net air and, where both are open, its own tuning: of ``before``, held.

    RangeError when no depth or share gives that air.
    """
    air, tuning = float(cabinet_of(before).air[chamber]), tuning_of(design, chamber)
    for _ in range(ROUNDS if tuning else 1):
        design = with_air_volume(design, air, chamber)
        if tuning is not None:
            design = with_tuning(design, tuning, chamber)
    return with_air_volume(design, air, chamber)


def with_opening(
    design: Design, kind: Kind, chamber: int
) -> tuple[str, Design, FirecrestError | None]:
    """(label, design, why it could not be tuned) with one more opening, the tuning kept.

    By all equal openings if that can be, else by the new one alone. A closed chamber is opened
    and tuned to the promised bass note. A port is folded as it needs.
    """
    wanted = design.brief.bass.frequency
    if kind_of(design, chamber) == "sealed":
        label, made = f"Add {WORDS[kind]}", with_kind(design, kind, chamber)
    else:
        wanted = tuning_of(design, chamber) or wanted
        label, made = add_opening(design, kind, design.box.chambers[chamber].id)
    figure = kind_of_opening(made.box.openings[-1]).tuner
    trouble: FirecrestError | None = None
    for path in (None, ("box", "openings", len(made.box.openings) - 1, figure)):
        try:
            tuned = with_tuning(made, wanted, chamber, path)
        except FirecrestError as error:
            trouble = trouble or error
        else:
            return label, _all_folded(tuned), None
    return label, made, trouble


def _all_folded(design: Design) -> Design:
    for place, _ in placed(design.box.openings, Port):
        design = folded(design, place)
    return design


def with_volumes(design: Design, wanted: Mapping[int, float]) -> Design:
    """Net air of several chambers at once, in m3 by place; every other chamber keeps its own.

    Its free dimension and the shares follow, or the places of its dividers. RangeError with the
    reachable size.
    """
    case, chambers = design.box.case, design.box.chambers
    rolled = cabinet_of(design)
    if dividers_of(case, chambers):
        for place, air in wanted.items():
            design = with_air_volume(design, air, place)
        return design
    enclosed = enclosed_in(case, chambers)
    for place, air in wanted.items():
        if chambers[place].id in enclosed:
            design = with_air_volume(design, air, place)
    case, taken = design.box.case, cabinet_of(design).taken
    rooms, made = [], list(design.box.chambers)
    for k, chamber in enumerate(chambers):
        if chamber.id in enclosed:
            continue
        air = wanted.get(k, float(rolled.air[k]))
        if chamber.stated_volume is None:
            rooms.append(air + float(taken[k]))
        else:  # its air is as measured, whatever room it has
            rooms.append(float(rolled.rooms[chamber.id].gross))
            made[k] = rebuilt(chamber, stated_volume=air)
    every = sum(c.share for c in chambers)
    parted = sum(c.share for c in chambers if c.id not in enclosed)
    whole = sum(rooms) / every
    path = free_path(design)
    found, met = met_by(design, {}, path, np.array([whole]), place=None)
    facts, outer = facts_at(design, path), float(found[0])
    if not met[0] or min(rooms) <= 0:
        raise RangeError(
            f"{facts.label} cannot give that much air; it can be {facts.range_text()}."
        )
    shares = iter([room / whole * parted / every for room in rooms])
    made = [c if c.id in enclosed else rebuilt(c, share=next(shares)) for c in made]
    box = rebuilt(design.box, chambers=tuple(made), case=rebuilt(case, **{free_side(case): outer}))
    return replace_at(design, ("box",), box)
