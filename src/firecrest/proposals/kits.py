"""Boxes to compare: the other kinds at equal air or in the same case, and kits of parts.

A kit is every driver in every body with every end: each combination a whole design.
"""

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Any, Literal, get_args

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.memo import Memo
from firecrest.assessment.vary import Figures, assess_many
from firecrest.core.errors import FirecrestError
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import set_number
from firecrest.proposals.holding import with_air_of
from firecrest.proposals.inverse import tuning_of, with_tuning
from firecrest.proposals.layouts import Kind, kind_of, with_kind
from firecrest.proposals.placing import put
from firecrest.proposals.ports import folded

Held = Literal["air", "outside"]


@dataclass(frozen=True)
class End:
    """What opens a body: its kind, and which radiator where it is one."""

    kind: Kind
    radiator: Any = None


@dataclass(frozen=True)
class Combination:
    """One of a kit: which driver, body and end, the design, and its figures; a refusal instead."""

    driver: int
    body: int
    end: int
    design: Design | None
    figures: Figures
    refusal: str = ""


def other_kinds(design: Design, held: Held) -> list[tuple[Kind, Design]]:
    """The first chamber as each other kind of box: with the same net air, or in the same case.

    Kinds that cannot be made are left out.
    """
    found: list[tuple[Kind, Design]] = []
    for kind in get_args(Kind):
        if kind == kind_of(design):
            continue
        with suppress(FirecrestError):
            made = with_kind(design, kind)
            if held == "air":
                made = with_air_of(made, design, 0)
            found.append((kind, _folded(made)))
    return found


def kit(
    design: Design, drivers: Sequence[Any], lengths: Sequence[float], ends: Sequence[End]
) -> Iterator[list[Combination]]:
    """Every combination, one driver at a time: bodies differ in their outer length."""
    memo = Memo()
    for d, driver in enumerate(drivers):
        made: list[tuple[int, int, Design | None, str]] = []
        for b, length in enumerate(lengths):
            for e, end in enumerate(ends):
                try:
                    made.append((b, e, combined(design, driver, length, end), ""))
                except FirecrestError as error:
                    made.append((b, e, None, str(error)))
        designs = [one for _, _, one, _ in made if one is not None]
        figures = iter(assess_many(designs, EDIT_GRID, memo))
        yield [
            Combination(d, b, e, one, Figures() if one is None else next(figures), refusal)
            for b, e, one, refusal in made
        ]


def combined(design: Design, driver: Any, length: float, end: End) -> Design:
    """A driver in a body of this outer length with an end, tuned to the promised bass note where
    that can be; FirecrestError says what does not go together.
    """
    made = put(design, driver)
    made = set_number(made, ("box", "case", "length"), length)
    made = with_kind(made, end.kind)
    if end.radiator is not None:
        made = put(made, end.radiator)
    if end.kind == "sealed":
        return made
    wanted = made.brief.bass.frequency
    if tuning_of(made) is not None:
        with suppress(FirecrestError):
            made = with_tuning(made, wanted)
    return _folded(made)


def _folded(design: Design) -> Design:
    """Ports folded as they need."""
    for place, item in enumerate(design.box.openings):
        if item.kind == "port":
            design = folded(design, place)
    return design


def ends_of(design: Design, radiators: Sequence[Any]) -> list[End]:
    """Closed, a port, the radiator there is, and one more from the shelf: the next by area."""
    ends = [End("sealed"), End("port")]
    own = [item.radiator for _, item in placed(design.box.openings, RadiatorSet)]
    known = sorted((r for r in radiators if r.sd), key=lambda r: float(r.sd))
    first = own[0] if own else next(iter(known), None)
    if first is None:
        return ends
    ends.append(End("radiators", first))
    larger = [r for r in known if r.sd > (first.sd or 0.0) and r.name != first.name]
    return [*ends, End("radiators", larger[0])] if larger else ends
